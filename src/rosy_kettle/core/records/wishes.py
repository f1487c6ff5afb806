"""What a balance may be after."""

from __future__ import annotations

__all__ = ["OBJECTIVES"]

OBJECTIVES = ("least-change", "cheapest", "gentlest", "most-lather")
