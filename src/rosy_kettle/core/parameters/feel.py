"""Constants of what a bath leaves."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["FeelParameters"]


@dataclass(frozen=True, slots=True)
class FeelParameters:
    """Constants of oil, ring, tint, cloud and slip."""

    active_capacity: float = parameter(0.1, "oil a gram of active keeps dispersed", "g/g", ESTIMATE, "low", (0.03, 0.3))
    hlb_width: float = parameter(5.0, "width of the HLB fit", "-", "after Griffin 1949; the width is an estimate", "low", (3.0, 8.0))
    hlb_least: float = parameter(0.5, "what an emulsifier of the wrong HLB still keeps", "-", ESTIMATE, "low", (0.2, 0.8))
    usual_required_hlb: float = parameter(8.0, "HLB an oil asks for where none is listed", "-", "middle of the fixed oils", "medium", (6.0, 10.0))
    ring_scale_g: float = parameter(8.0, "load that scores 63 in 150 L", "g", PRACTICE, "low", (4.0, 16.0))
    reference_bath_l: float = parameter(150.0, "bath of that load", "L", "by definition", "high")
    sight_cm: float = parameter(20.0, "depth one looks through", "cm", PRACTICE, "medium", (10.0, 30.0))
    hidden_fat_rings: float = parameter(0.5, "how much of the fat in milk and cocoa rings", "-", ESTIMATE, "low", (0.2, 0.8))
    hidden_fat_slips: float = parameter(0.25, "how much of it lies on the floor", "-", ESTIMATE, "low", (0.1, 0.5))
    dispersed_oil_slips: float = parameter(0.25, "how much of dispersed oil lies on the floor", "-", ESTIMATE, "low", (0.1, 0.5))
    slip_note_g: float = parameter(5.0, "oil on the tub floor that asks for a word", "g", "project default, no safety claim", "low", (2.0, 8.0))
    slip_warn_g: float = parameter(15.0, "oil on the tub floor that asks for a warning", "g", "project default, no safety claim", "low", (8.0, 25.0))
    oil_felt_from_g: float = parameter(0.3, "oil of a dose from which skin feels any", "g", ESTIMATE, "low", (0.1, 1.0))
    rich_from_g: float = parameter(4.0, "oil of a dose from which a bath is rich", "g", ESTIMATE, "low", (2.0, 6.0))
    very_oily_from_g: float = parameter(10.0, "oil of a dose from which a bath is very oily", "g", ESTIMATE, "low", (7.0, 20.0))
    solid_fat_rings: float = parameter(1.5, "how solid fat rings", "-", ESTIMATE, "low", (1.0, 2.5))
    mica_rings: float = parameter(0.8, "how mica rings", "-", ESTIMATE, "low", (0.4, 1.2))
    mica_dispersed: float = parameter(0.6, "share of that an emulsifier takes", "-", ESTIMATE, "low", (0.3, 0.9))
    pigment_rings: float = parameter(2.0, "how pigment rings", "-", ESTIMATE, "low", (1.0, 3.0))
    residue_dispersed: float = parameter(0.5, "share of fat and pigment an emulsifier takes", "-", ESTIMATE, "low", (0.2, 0.8))

    def richness(self, oil_g: float) -> str:
        """Return how a bath with so much oil [g] feels: none, little, rich or very-oily."""
        edges = ((self.very_oily_from_g, "very-oily"), (self.rich_from_g, "rich"), (self.oil_felt_from_g, "little"))
        return next((word for from_g, word in edges if oil_g >= from_g), "none")
