"""What holds a batch back from a final label, from an order that is made, and from sale."""

from __future__ import annotations

__all__ = [
    "CERTIFICATE_LAPSED", "CLEARANCE_BLOCKED", "COMPLAINED", "DRYING_OPEN", "DRYING_UNKNOWN", "DURABILITY", "LABEL_BLOCKED",
    "LABEL_LACKS",     "LOT_EXPIRED", "LOT_HELD", "NOT_SIGNED", "NO_BATCHES", "NO_PAPER", "ORDER_BLOCKED",
]  # fmt: skip

LOT_EXPIRED = "Lot {lot} of {of} was best before {day}: take another, or keep the reason why it may still be used."
LOT_HELD = "Lot {lot} is held ({why}): release it in the Pantry once that is cleared up, or leave what was made of it."
DRYING_OPEN = 'Tray "{tray}" is not dry by its weighings: weigh it again, or wrap it once it is.'
DRYING_UNKNOWN = "Nothing says that its pieces are dry: set them out on the rack and weigh them."
NO_PAPER = "No certificate with a limit is on file for {of}: ask its supplier. What is unknown is not allowed for."
CERTIFICATE_LAPSED = "The certificate of {of} no longer counts: ask its supplier for the one in force."
DURABILITY = "It says best before {said}, and lot {lot} is best before {day}: an earlier day, or the reason why it keeps longer."
COMPLAINED = "A complaint ({kind}) has come since: {what} Look into it, say what was done, and sign anew."
LABEL_LACKS = "The label lacks the {of}: {why}"
LABEL_BLOCKED = "The label cannot be final: {first} It can be printed as a draft."
CLEARANCE_BLOCKED = "It cannot be cleared for sale: {first}"
NOT_SIGNED = "Nobody has signed this batch for {market}: sign its clearance first."
NO_BATCHES = "It is not said which batches this order was made from: choose them, so that they can be found again."
ORDER_BLOCKED = "The order cannot be made: {first}"
