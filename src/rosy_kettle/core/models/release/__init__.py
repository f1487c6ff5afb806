"""Release: how long a piece takes to go in the tub."""

from rosy_kettle.core.models.release.release_time import release_minutes

__all__ = ["release_minutes"]
