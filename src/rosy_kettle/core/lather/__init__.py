"""Lather: so far the surfactant that a bath gets."""

from rosy_kettle.core.lather.active_surfactant import active_share, tub_concentration

__all__ = ["active_share", "tub_concentration"]
