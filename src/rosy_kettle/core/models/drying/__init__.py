"""Drying: how long until a piece is dry or set, and whether it ever is."""

from rosy_kettle.core.models.drying.drying_time import Drying, drying_time

__all__ = ["Drying", "drying_time"]
