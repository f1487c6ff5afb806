"""Constants of learning: how far the defaults may be off before anything is seen, and how far one observation is."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["LearningParameters"]


@dataclass(frozen=True, slots=True)
class LearningParameters:
    """Standard deviations; of logarithms where the unit is 1."""

    demand_prior: float = parameter(0.13, "what the powders of one role drink, before learning", "-", "S ±17 % of several roles together, 90 %", "medium", (0.08, 0.2))
    ingredient_prior: float = parameter(0.06, "one powder beside the others of its role, before learning", "-", "powders of one role drink alike within 10 %, 90 %", "low", (0.03, 0.15))
    drying_prior: float = parameter(0.21, "hours of drying, before learning", "-", "× 0.75 to 1.5, 90 %", "medium", (0.15, 0.3))
    foam_prior: float = parameter(0.29, "litres of foam, before learning", "-", "×/÷ 1.6, 90 %", "medium", (0.2, 0.4))
    half_life_prior: float = parameter(0.42, "life of foam, before learning", "-", "×/÷ 2, 90 %", "medium", (0.3, 0.6))
    firmness_prior: float = parameter(7.3, "firmness, before learning", "points", "±12, 90 %", "medium", (5.0, 10.0))
    packing_prior: float = parameter(0.041, "packing of a tool, before learning", "-", "±7 %, 90 %", "medium", (0.03, 0.08))
    loss_prior: float = parameter(0.5, "loss of a method, before learning, of itself", "-", PRACTICE, "low", (0.3, 0.8))
    felt_noise: float = parameter(0.10, "S felt by hand, beside the width of its state", "-", ESTIMATE, "low", (0.05, 0.2))
    rope_noise: float = parameter(0.05, "S of the rope test", "-", "±6 %, 90 %, with its step", "medium", (0.03, 0.1))
    dried_noise: float = parameter(0.25, "hours until one tray is dry", "-", ESTIMATE, "low", (0.15, 0.4))
    foam_noise: float = parameter(0.20, "height of foam in one test", "-", ESTIMATE, "low", (0.1, 0.4))
    pieces_noise: float = parameter(0.03, "mean mass of the pieces of one batch", "-", ESTIMATE, "medium", (0.02, 0.06))
    loss_noise_pct: float = parameter(1.0, "loss of one bowl", "%", ESTIMATE, "low", (0.5, 2.0))
    scratch_noise: float = parameter(8.0, "firmness by one drop test", "points", ESTIMATE, "low", (5.0, 12.0))
    noise_counts: float = parameter(4.0, "observations the assumed noise counts as beside those seen", "-", ESTIMATE, "low", (2.0, 10.0))
    rolls_at: float = parameter(0.62, "S at which a rope first rolls without cracks", "-", PRACTICE, "medium", (0.55, 0.68))
    smears_at: float = parameter(1.02, "S at which it first smears the glove", "-", PRACTICE, "medium", (0.95, 1.1))
    drops_scale: float = parameter(12.0, "drops from 10 cm until a corner breaks, of a firmness of 63", "-", PRACTICE, "low", (8.0, 18.0))
    furthest: float = parameter(3.0, "furthest a factor goes from its default", "×", "project default", "low", (2.0, 5.0))
    few: float = parameter(3.0, "observations below which a factor is not offered by itself", "-", "project default", "low", (2.0, 5.0))
