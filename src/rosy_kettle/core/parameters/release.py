"""Constants of how a piece goes in the tub."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["ReleaseParameters"]

BAILEY = "Bailey's Industrial Oil and Fat Products, from memory"


@dataclass(frozen=True, slots=True)
class ReleaseParameters:
    """Constants of melting, fizzing and washing away."""

    heat_transfer_w_m2k: float = parameter(300.0, "heat from water to melting fat", "W/(m2 K)", "estimate for still bath water", "low", (150.0, 600.0))
    fat_kg_m3: float = parameter(930.0, "density of a butter", "kg/m3", BAILEY, "high", (900.0, 960.0))
    latent_j_kg: float = parameter(150e3, "heat of melting of a butter", "J/kg", BAILEY, "medium", (120e3, 180e3))
    solid_that_lets_go: float = parameter(0.06, "solid share at which a fat falls apart", "-", PRACTICE, "low", (0.03, 0.1))
    lets_go_over_c: float = parameter(1.5, "warmth over which a fat lets go", "°C", ESTIMATE, "low", (0.8, 3.0))
    disperses_from_hlb: float = parameter(9.0, "HLB from which an emulsifier takes fat into water", "-", "Griffin's scale (8 to 16 oil in water), from memory", "medium", (8.0, 11.0))
    dispersed_solid: float = parameter(0.2, "solid that a share of it in the fat keeps from holding", "-", ESTIMATE, "low", (0.1, 0.6))
    fizz_rate_mm_min: float = parameter(7.0, "fizz rate of a plain 2 : 1 mix", "mm/min", PRACTICE, "medium", (4.0, 11.0))
    pressed_slower: float = parameter(0.85, "a pressed piece fizzes slower by", "×", PRACTICE, "low", (0.6, 1.0))
    bicarbonate_g_mol: float = parameter(84.0, "molar mass of sodium bicarbonate", "g/mol", "IUPAC standard atomic weights", "high")
    slowed_by_powders: float = parameter(4.0, "how surfactant and starch slow the fizz", "-", PRACTICE, "low", (2.0, 7.0))
    starch_counts: float = parameter(0.5, "how much of the starch does so", "-", PRACTICE, "low", (0.2, 0.8))
    fat_slows_fizz: float = parameter(4.0, "how fat slows the fizz", "-", PRACTICE, "low", (2.0, 7.0))
    wash_whole_mm_min: float = parameter(0.25, "a whole piece washes away by", "mm/min", PRACTICE, "low", (0.1, 0.6))
    wash_held_mm_min: float = parameter(2.0, "a piece held under the tap washes away by", "mm/min", PRACTICE, "low", (1.0, 4.0))
    wash_crumbled_mm_min: float = parameter(1.0, "crumbs wash away by", "mm/min", PRACTICE, "low", (0.5, 2.0))
    fat_slows_whole: float = parameter(4.0, "how fat slows that of a whole piece", "-", PRACTICE, "low", (2.0, 7.0))
    fat_slows_held: float = parameter(2.0, "how fat slows that of a held piece", "-", PRACTICE, "low", (1.0, 4.0))
    fat_slows_crumbled: float = parameter(2.0, "how fat slows that of crumbs", "-", PRACTICE, "low", (1.0, 4.0))
    crumb_mm: float = parameter(4.0, "half thickness of a crumb", "mm", PRACTICE, "medium", (2.0, 8.0))
    slowest_mm_min: float = parameter(0.02, "slower than this it does not go", "mm/min", ESTIMATE, "low", (0.01, 0.05))
    reference_c: float = parameter(38.0, "bath of these rates", "°C", "by definition", "high")
    doubles_per_c: float = parameter(15.0, "warming that doubles them", "°C", PRACTICE, "low", (10.0, 20.0))
    carried_from_oil: float = parameter(0.35, "fat and oil from which a piece melts away", "-", PRACTICE, "medium", (0.25, 0.45))
    carried_over_oil: float = parameter(0.30, "fat and oil over which it comes to do so wholly", "-", PRACTICE, "low", (0.15, 0.45))

    @property
    def wash_mm_min(self) -> dict[str, float]:
        """How fast a piece washes away by the way it is used [mm/min]."""
        return {"whole": self.wash_whole_mm_min, "held": self.wash_held_mm_min, "crumbled": self.wash_crumbled_mm_min}

    @property
    def fat_slows_wash(self) -> dict[str, float]:
        """How fat slows washing by the way it is used [-]."""
        return {"whole": self.fat_slows_whole, "held": self.fat_slows_held, "crumbled": self.fat_slows_crumbled}
