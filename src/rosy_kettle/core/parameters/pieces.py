"""Constants of a piece: density, floating, spin, rolls."""

# fmt: off
from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.parameters.declared import ESTIMATE, PRACTICE, parameter

__all__ = ["PieceParameters"]


@dataclass(frozen=True, slots=True)
class PieceParameters:
    """Constants of density and of what a piece does in the water."""

    loose: float = parameter(0.50, "loosely filled mix that is not air", "-", PRACTICE, "medium", (0.4, 0.6))
    hand: float = parameter(0.58, "hand-packed damp sand that is not air", "-", "a 2 in ball holds 78 to 80 g, common practice", "medium", (0.52, 0.62))
    press: float = parameter(0.63, "pressed mix that is not air", "-", PRACTICE, "medium", (0.58, 0.7))
    dough: float = parameter(0.95, "share of a dough piece that is not air", "-", PRACTICE, "medium", (0.9, 0.98))
    poured: float = parameter(0.97, "poured piece that is not air", "-", PRACTICE, "medium", (0.93, 0.99))
    packing_starts_at: float = parameter(0.20, "S from which liquid fills the pores", "-", PRACTICE, "medium", (0.1, 0.3))
    packing_over: float = parameter(0.42, "S over which it does", "-", PRACTICE, "medium", (0.3, 0.55))
    floats_below_g_ml: float = parameter(0.985, "floats below", "g/mL", PRACTICE, "medium", (0.97, 0.995))
    still_water_g_ml: float = parameter(0.99, "density of warm water", "g/mL", "published tables, rounded", "high", (0.988, 0.997))
    full_spin_mol: float = parameter(0.45, "brisk gas of both halves that turns a piece fully", "mol/100 g", ESTIMATE, "low", (0.3, 0.7))
    spins_floating: float = parameter(1.0, "how freely a floating piece turns", "-", ESTIMATE, "low", (0.8, 1.0))
    spins_maybe: float = parameter(0.6, "how freely one on the edge turns", "-", ESTIMATE, "low", (0.3, 0.8))
    spins_sunk: float = parameter(0.1, "how freely a sunk one turns", "-", ESTIMATE, "low", (0.0, 0.3))
    lift_mm: float = parameter(9.0, "lift of clinging gas on a piece of as much", "mm", PRACTICE, "low", (6.0, 13.0))
    full_lift_mol: float = parameter(0.25, "brisk gas that covers the whole surface", "mol/100 g", ESTIMATE, "low", (0.15, 0.4))
    fat_lets_go: float = parameter(3.0, "how much less gas clings for each share of fat", "-", ESTIMATE, "low", (1.5, 5.0))
    salt_lets_go: float = parameter(2.9, "how much less gas clings for each share of salt", "-", PRACTICE, "low", (1.5, 5.0))
    sure_below: float = parameter(0.95, "of the lift used, up to which it floats", "-", ESTIMATE, "low", (0.85, 1.0))
    sure_above: float = parameter(1.04, "of the lift used, from which it sinks", "-", ESTIMATE, "low", (1.0, 1.15))
    trim_mm: float = parameter(8.0, "cut off each end of a roll", "mm", PRACTICE, "medium", (4.0, 15.0))
    knife_mm: float = parameter(1.0, "width lost at each cut of a knife", "mm", PRACTICE, "medium", (0.5, 2.0))
    fewest_turns: float = parameter(2.0, "fewest turns of a good swirl", "-", PRACTICE, "medium", (1.5, 2.5))
    most_turns: float = parameter(4.0, "most turns of a good swirl", "-", PRACTICE, "medium", (3.0, 5.0))
    thinnest_roll: float = parameter(3.0, "thicknesses below which a sheet cannot be rolled", "-", PRACTICE, "medium", (2.0, 4.0))
    rounded_fill: float = parameter(1.25, "a rounded scoop holds", "×", PRACTICE, "medium", (1.15, 1.35))
    domed_fill: float = parameter(1.5, "a domed scoop holds", "×", PRACTICE, "medium", (1.35, 1.7))

    @property
    def packings(self) -> dict[str, float]:
        """Share of a piece that is not air, by how it is packed [-]."""
        return {"loose": self.loose, "hand": self.hand, "press": self.press, "dough": self.dough, "poured": self.poured}

    @property
    def freely(self) -> dict[str, float]:
        """How freely a piece turns, by whether it floats [-]."""
        return {"floats": self.spins_floating, "may": self.spins_maybe, "sinks": self.spins_sunk}

    @property
    def scoop_fills(self) -> dict[str, float]:
        """Volume of a scoop's fill against its level volume [-]."""
        return {"level": 1.0, "rounded": self.rounded_fill, "domed": self.domed_fill}
