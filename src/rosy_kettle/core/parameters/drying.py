"""Constants of drying and of the shelf."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["DryingParameters", "ShelfParameters"]


@dataclass(frozen=True, slots=True)
class DryingParameters:
    """Constants of the hours until dry or set; shares are of the mass."""

    water_activity: float = parameter(0.85, "water activity of a drying dough", "-", PRACTICE, "medium", (0.75, 0.92))
    salt_begins: float = parameter(0.005, "deliquescent salt that begins to rule the air", "-", ESTIMATE, "low", (0.002, 0.01))
    salt_rules: float = parameter(0.035, "deliquescent salt that rules it wholly", "-", ESTIMATE, "low", (0.02, 0.08))
    salt_weeps: float = parameter(0.015, "deliquescent salt, in air above its point, that weeps", "-", ESTIMATE, "low", (0.01, 0.04))
    acid_draws_from: float = parameter(0.01, "fast acid from which a fizz mix draws damp", "-", ESTIMATE, "low", (0.005, 0.03))
    acid_deliquesces: float = parameter(0.78, "air in which citric acid deliquesces", "-", "citric acid, from memory", "medium", (0.74, 0.82))
    separates_from: float = parameter(0.05, "water and glycerin beside fat that no emulsifier holds", "-", ESTIMATE, "low", (0.02, 0.1))
    damp_margin: float = parameter(0.05, "air this near to the piece's own dries nothing", "-", ESTIMATE, "medium", (0.02, 0.1))
    water_that_matters: float = parameter(0.005, "water that has to dry off", "-", PRACTICE, "medium", (0.002, 0.01))
    humectant_that_matters: float = parameter(0.05, "humectant that slows drying", "-", PRACTICE, "medium", (0.03, 0.08))
    sticky_saturation: float = parameter(1.30, "sticky for good from S", "-", PRACTICE, "medium", (1.1, 1.6))
    sticky_with_humectant: float = parameter(1.02, "the same with glycerin", "-", PRACTICE, "medium", (0.9, 1.2))
    water_drawn: float = parameter(0.25, "water a gram of glycerin holds in even air", "g/g", "sorption of glycerin, from memory", "medium", (0.15, 0.4))
    fat_that_must_set: float = parameter(0.10, "fat that has to set before a piece is done", "-", PRACTICE, "medium", (0.06, 0.15))
    solid_that_sets: float = parameter(0.15, "solid share at which a powder-carried piece is set", "-", PRACTICE, "medium", (0.08, 0.25))
    solid_that_sets_by_fat: float = parameter(0.15, "solid share more, where fat carries it", "-", PRACTICE, "medium", (0.08, 0.25))
    reference_c: float = parameter(21.0, "room of the stated hours", "°C", "by definition", "high")
    reference_half_mm: float = parameter(16.0, "half thickness of the stated hours", "mm", "by definition", "high")
    even_margin: float = parameter(0.45, "margin between the piece's air and the room's at which the stated hours hold", "-", PRACTICE, "medium", (0.35, 0.5))
    warmth_halves_per_c: float = parameter(10.0, "warming that halves drying", "°C", PRACTICE, "medium", (7.0, 14.0))
    water_hours: float = parameter(24.0, "hours for the stated water", "h", PRACTICE, "medium", (14.0, 40.0))
    water_pct: float = parameter(6.0, "stated water and alcohol", "%", "by definition", "high")
    little_water_pct: float = parameter(0.3, "water below which the hours fall with it", "%", ESTIMATE, "low", (0.1, 0.6))
    alcohol_hours: float = parameter(7.0, "hours for as much alcohol", "h", PRACTICE, "medium", (3.0, 12.0))
    alcohol_halves_per_c: float = parameter(12.0, "warming that halves the alcohol's hours", "°C", "vapour pressure of isopropyl alcohol, from memory", "medium", (10.0, 14.0))
    glycerin_hours_per_pct: float = parameter(2.2, "hours each per cent of humectant adds", "h/%", PRACTICE, "medium", (1.0, 4.0))
    glycerin_free_pct: float = parameter(5.0, "humectant that costs no time", "%", PRACTICE, "medium", (3.0, 7.0))
    powder_set_hours: float = parameter(24.0, "hours a powder-carried dough with the stated fat takes to set", "h", PRACTICE, "medium", (12.0, 36.0))
    powder_set_fat: float = parameter(0.30, "stated fat of that", "-", "by definition", "high")
    damp_slows: float = parameter(2.0, "how damp air slows setting", "-", PRACTICE, "low", (1.0, 4.0))
    damp_slows_from: float = parameter(0.5, "air from which it does", "-", PRACTICE, "low", (0.4, 0.6))
    fat_set_hours: float = parameter(10.0, "hours a fat-carried piece of the stated thickness takes to set", "h", PRACTICE, "medium", (4.0, 18.0))
    fat_set_half_mm: float = parameter(12.0, "stated half thickness of that", "mm", "by definition", "high")
    fat_doubles_per_c: float = parameter(8.0, "warming that doubles the setting time of fat", "°C", PRACTICE, "low", (5.0, 12.0))
    fat_quickest: float = parameter(0.4, "quickest a cold room makes it", "×", PRACTICE, "low", (0.2, 0.7))
    fat_slowest: float = parameter(3.0, "slowest a warm room makes it", "×", PRACTICE, "low", (2.0, 5.0))
    wide_from_humectant: float = parameter(0.15, "humectant from which makers' hours scatter", "-", PRACTICE, "low", (0.1, 0.2))
    wide_from_humidity: float = parameter(0.65, "air from which makers' hours scatter", "-", PRACTICE, "low", (0.55, 0.75))
    narrow_low: float = parameter(0.75, "low end of the band of hours", "×", ESTIMATE, "medium", (0.6, 0.9))
    narrow_high: float = parameter(1.5, "high end of the band of hours", "×", ESTIMATE, "medium", (1.2, 2.0))
    wide_low: float = parameter(0.6, "low end where hours scatter", "×", ESTIMATE, "medium", (0.4, 0.8))
    wide_high: float = parameter(2.0, "high end where hours scatter", "×", ESTIMATE, "medium", (1.5, 3.0))


@dataclass(frozen=True, slots=True)
class ShelfParameters:
    """Constants of the fizz lost on the shelf."""

    in_film: float = parameter(0.05, "damp that reaches a piece in film", "-", ESTIMATE, "low", (0.02, 0.15))
    in_jar: float = parameter(0.02, "damp that reaches a piece in a jar", "-", ESTIMATE, "low", (0.005, 0.05))
    least_acid_share: float = parameter(0.01, "fast acid below which there is no fizz to lose", "-", PRACTICE, "medium", (0.005, 0.03))
    loss_pct_day: float = parameter(0.5, "acid lost a day, naked, 16 mm, 50 % and 21 °C", "%/day", PRACTICE, "low", (0.15, 1.5))
    reference_half_mm: float = parameter(16.0, "half thickness of that loss", "mm", "by definition", "high")
    reference_humidity_pct: float = parameter(50.0, "air of that loss", "% RH", "by definition", "high")
    reference_c: float = parameter(21.0, "shelf of that loss", "°C", "by definition", "high")
    damp_scale_pct: float = parameter(8.0, "damp that multiplies the loss by e", "% RH", PRACTICE, "low", (5.0, 12.0))
    doubles_per_c: float = parameter(10.0, "warming that doubles the loss", "°C", PRACTICE, "low", (7.0, 14.0))
    fat_shields: float = parameter(6.0, "how fat shields the acid", "-", PRACTICE, "low", (3.0, 10.0))
    humectant_draws: float = parameter(5.0, "how humectant draws damp", "-", PRACTICE, "low", (2.0, 9.0))

    @property
    def wraps(self) -> dict[str, float]:
        """Share of the room's damp that reaches the piece, by its wrap [-]."""
        return {"open": 1.0, "film": self.in_film, "jar": self.in_jar}
