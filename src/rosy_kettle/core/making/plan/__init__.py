"""Plan: from a formula to a batch, its times and its run sheet."""

from rosy_kettle.core.making.plan.drying_span import drying_hours
from rosy_kettle.core.making.plan.order import Order, PantryNeed, PlannedPieces, PortionShare, Wish, plan_order
from rosy_kettle.core.making.plan.run_sheet import RunSheet, RunSheetGroup, RunSheetLine, RunSheetStep, make_run_sheet, sheet_of
from rosy_kettle.core.making.plan.schools import AskedSchool
from rosy_kettle.core.making.plan.stages import PRE_DRY_H, Schedule, Stage, make_schedule

__all__ = [
    "PRE_DRY_H",
    "AskedSchool",
    "Order",
    "PantryNeed",
    "PlannedPieces",
    "PortionShare",
    "RunSheet",
    "RunSheetGroup",
    "RunSheetLine",
    "RunSheetStep",
    "Schedule",
    "Stage",
    "Wish",
    "drying_hours",
    "make_run_sheet",
    "make_schedule",
    "plan_order",
    "sheet_of",
]  # fmt: skip
