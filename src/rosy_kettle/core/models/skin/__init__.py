"""Skin: what a bath asks of it."""

from rosy_kettle.core.models.skin.harshness import harshness, scent_share

__all__ = ["harshness", "scent_share"]
