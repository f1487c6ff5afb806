"""Dough: how full the pores are, what that feels like, and where it can be worked."""

from rosy_kettle.core.models.dough.texture import STATES, TextureCurve, texture_curve, wanted_from, wanted_states
from rosy_kettle.core.models.dough.working_window import working_window

__all__ = ["STATES", "TextureCurve", "texture_curve", "wanted_from", "wanted_states", "working_window"]
