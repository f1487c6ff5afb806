"""Fats: how much of them is solid at a temperature."""

from rosy_kettle.core.fats.solid_fat_content import curve_solid_fraction, solid_fractions, weighted_solid_fat

__all__ = ["curve_solid_fraction", "solid_fractions", "weighted_solid_fat"]
