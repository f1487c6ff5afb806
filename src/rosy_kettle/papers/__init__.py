"""Papers that leave the machine: run sheet and batch record as PDF, and photos made small."""

from rosy_kettle.papers.batch_record import batch_record_pdf
from rosy_kettle.papers.photo import smaller_photo
from rosy_kettle.papers.run_sheet import run_sheet_pdf

__all__ = ["batch_record_pdf", "run_sheet_pdf", "smaller_photo"]
