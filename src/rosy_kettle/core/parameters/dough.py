"""Constants of the dough: states, setting, tack, rest, alcohol, the band of S."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["DoughParameters"]


@dataclass(frozen=True, slots=True)
class DoughParameters:
    """Constants of texture and handling."""

    damp_sand_from: float = parameter(0.05, "damp sand from S", "-", PRACTICE, "medium", (0.03, 0.10))
    crumbly_from: float = parameter(0.30, "crumbly dough from S", "-", PRACTICE, "medium", (0.2, 0.4))
    play_dough_from: float = parameter(0.62, "play dough from S", "-", PRACTICE, "medium", (0.5, 0.75))
    sticky_from: float = parameter(1.02, "sticky from S", "-", PRACTICE, "medium", (0.9, 1.15))
    batter_from: float = parameter(1.30, "batter from S", "-", PRACTICE, "medium", (1.15, 1.6))
    pour_from: float = parameter(2.2, "pours from S", "-", PRACTICE, "medium", (1.8, 2.6))
    fat_share_that_sets: float = parameter(0.10, "least fat that makes a dough set hard", "-", PRACTICE, "medium", (0.06, 0.15))
    solid_share_that_sets: float = parameter(0.60, "solid share of fat and oil above which a powder-carried dough is hard", "-", PRACTICE, "medium", (0.45, 0.75))
    solid_share_eased_by_fat: float = parameter(0.30, "how much sooner a fat-carried piece is hard", "-", PRACTICE, "medium", (0.2, 0.4))
    lean_saturation_that_keeps_soft: float = parameter(0.40, "S without fat at which a dough stays workable", "-", PRACTICE, "medium", (0.3, 0.5))
    salve_carried_by_fat: float = parameter(0.5, "how far fat carries a salve", "-", PRACTICE, "low", (0.3, 0.7))
    salve_solid_share: float = parameter(0.10, "solid share from which fats are plastic", "-", "Bailey's Industrial Oil and Fat Products, from memory", "medium", (0.06, 0.15))
    acid_share_that_crumbles: float = parameter(0.02, "fast acid from which a crumbly scoop dough is right too", "-", PRACTICE, "medium", (0.01, 0.05))
    least_fat_share: float = parameter(0.05, "least fat that gives a working window", "-", PRACTICE, "medium", (0.03, 0.08))
    least_solid_share: float = parameter(0.02, "least solid fat a kneaded dough needs", "-", PRACTICE, "medium", (0.01, 0.05))
    tacky_from: float = parameter(0.80, "S from which a dough begins to smear", "-", ESTIMATE, "low", (0.7, 0.95))
    tacky_over: float = parameter(0.60, "S over which smearing grows", "-", ESTIMATE, "low", (0.4, 0.9))
    rest_effect: float = parameter(1.15, "fresh dough with liquid surfactant is wetter by", "×", PRACTICE, "low", (1.05, 1.3))
    alcohol_leaves_kg_m2_h: float = parameter(0.4, "alcohol leaving an open bowl at 21 °C", "kg/(m2 h)", ESTIMATE, "low", (0.2, 0.8))
    alcohol_reference_c: float = parameter(21.0, "temperature of that rate", "°C", "by definition", "high")
    alcohol_doubles_per_c: float = parameter(12.0, "warming that doubles it", "°C", "vapour pressure of isopropyl alcohol, from memory", "medium", (10.0, 14.0))
    bowl_area_m2: float = parameter(0.05, "open surface of a mixing bowl", "m2", "25 cm across", "medium", (0.03, 0.09))
    saturation_band: float = parameter(0.17, "90 % band of S when all is weighed", "-", ESTIMATE, "medium", (0.1, 0.3))
    dissolving_from: float = parameter(0.03, "share of what dissolves from which the band widens", "-", ESTIMATE, "low", (0.01, 0.1))
    dissolved_ml_per_ml: float = parameter(0.6, "further liquid that a mL of water makes of it", "mL/mL", "citric acid, 59 % by mass dissolved", "medium", (0.4, 0.8))

    @property
    def lower_edges(self) -> dict[str, float]:
        """Saturation from which each state holds [-], driest first."""
        return {
            "dust": 0.0, "damp sand": self.damp_sand_from, "crumbly dough": self.crumbly_from, "play dough": self.play_dough_from,
            "sticky": self.sticky_from, "batter": self.batter_from, "pour": self.pour_from,
        }  # fmt: skip
