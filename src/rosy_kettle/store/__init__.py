"""The studio on disk: one SQLite file."""

from rosy_kettle.store.session import Studio, data_folder, open_studio

__all__ = ["Studio", "data_folder", "open_studio"]
