"""What holds a batch back from a final label."""

from __future__ import annotations

__all__ = ["DRYING_OPEN", "DRYING_UNKNOWN", "LABEL_BLOCKED", "LOT_EXPIRED", "NO_PAPER"]

LOT_EXPIRED = "Lot {lot} of {of} was best before {day}: take another, or keep the reason why it may still be used."
DRYING_OPEN = 'Tray "{tray}" is not dry by its weighings: weigh it again, or wrap it once it is.'
DRYING_UNKNOWN = "Nothing says that its pieces are dry: set them out on the rack and weigh them."
NO_PAPER = "No certificate with a limit is on file for {of}: ask its supplier. What is unknown is not allowed for."
LABEL_BLOCKED = "The label cannot be final: {first} It can be printed as a draft."
