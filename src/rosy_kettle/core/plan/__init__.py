"""Plan: from a formula to a run sheet."""

from rosy_kettle.core.plan.run_sheet import RunSheet, RunSheetGroup, RunSheetLine, RunSheetStep, make_run_sheet

__all__ = ["RunSheet", "RunSheetGroup", "RunSheetLine", "RunSheetStep", "make_run_sheet"]
