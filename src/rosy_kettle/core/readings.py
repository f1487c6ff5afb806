"""The registry of readings: id, unit, kind, basis, and how each is worked out in one sentence."""

from __future__ import annotations

from dataclasses import dataclass

__all__ = ["READINGS", "Reading"]


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. Kind is exact (arithmetic, law), physical (published theory) or practice (fitted to common practice)."""

    id: str
    label: str
    unit: str
    kind: str
    basis: str
    explained: str


READINGS = (
    Reading("mass_g", "Batch", "g", "exact", "batch", "The sum of all lines in grams."),
    Reading("dough.saturation", "Dough", "", "physical", "batch",
            "Liquid volume against what the powders drink up to the plastic limit; fats count by their molten share. "
            "Band 17 %, wider with volumes."),
    Reading("dough.working_window_c", "Working window", "°C", "physical", "batch",
            "The longest run of temperatures in the wanted state; kneaded doughs keep at least 2 % of their fat solid."),
    Reading("fizz.co2_l", "Fizz", "L", "exact", "batch",
            "Carbon dioxide by stoichiometry, as a gas at bath temperature and 1 atm."),
    Reading("fizz.brisk_co2_l", "Brisk fizz", "L", "practice", "batch",
            "The same with every acid counted by its speed; slow acids such as cream of tartar hardly show."),
    Reading("fizz.base_to_acid", "Base to acid", "g/g", "exact", "batch", "Bases against acids by mass, baking powder left out."),
    Reading("fizz.bicarbonate_left_g", "Bicarbonate left", "g", "exact", "batch", "What the acid leaves unspent."),
    Reading("lather.active_g", "Active in bath", "g", "exact", "dose",
            "Surfactant lines times their active fraction, for one dose."),
    Reading("lather.concentration_mg_l", "Active in water", "mg/L", "exact", "dose",
            "Active surfactant of a dose over the tub's water."),
    Reading("cost.batch", "Batch", "USD", "exact", "batch", "Own prices where entered, else the middle of the reference band."),
    Reading("cost.piece", "Per piece", "USD", "exact", "piece", "Batch cost over what is left after loss, times the piece."),
    Reading("cost.bath", "Per bath", "USD", "exact", "dose", "Cost of a piece times the share of it used in one bath."),
)  # fmt: skip
"""Readings this version computes, in the order makers ask for them."""
