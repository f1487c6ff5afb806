"""The reference tables that core gets as an argument."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field
from types import MappingProxyType

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.parameters import USUAL, Parameters
from rosy_kettle.core.records.formula import Formula
from rosy_kettle.core.records.ingredient import Ingredient
from rosy_kettle.core.records.method import Method
from rosy_kettle.core.records.money import Prices
from rosy_kettle.core.records.product import Certificate
from rosy_kettle.core.records.safety import SafetyTables
from rosy_kettle.core.records.tool import Tool
from rosy_kettle.core.records.water import AcidSystem, CarbonateTable, TapWater
from rosy_kettle.core.records.workshop import USUAL_SPRAY_ML, USUAL_TOLERANCE, Tolerance

__all__ = ["Tables"]


@dataclass(frozen=True, slots=True)
class Tables:
    """Everything a formula is judged against. Own prices stand over the reference bands."""

    ingredients: Mapping[str, Ingredient]
    methods: Mapping[str, Method]
    tools: Mapping[str, Tool]
    waters: Mapping[str, TapWater]
    acid_systems: Mapping[str, AcidSystem]
    carbonate: CarbonateTable
    safety: SafetyTables
    """Rules of safety and labelling, and what they look up."""
    certificates: Mapping[str, Certificate] = field(default_factory=lambda: MappingProxyType({}))
    """The studio's certificates of its scents, by ingredient id; one in the formula itself goes before."""
    prices: Prices = field(default_factory=Prices)
    """What ingredients cost the studio."""
    parameters: Parameters = USUAL
    """What the models rest on; a studio that has learnt better carries other values here and nowhere else."""
    learnt: Mapping[str, float] = field(default_factory=lambda: MappingProxyType({}))
    """Factors the studio has accepted, by id; the figures above carry them already."""
    sheets: Mapping[str, str] = field(default_factory=lambda: MappingProxyType({}))
    """What a lot's own sheet says in place of the reference, a sentence by ingredient id; the figures above carry it already."""
    spray_ml: float = USUAL_SPRAY_ML
    """One stroke of the studio's sprayer [mL]."""

    tolerance: Tolerance = USUAL_TOLERANCE
    """How closely the studio weighs."""

    def method_of(self, formula: Formula) -> Method:
        """Return how a formula is made: as it says, else the usual way.

        Raises
        ------
        InputError
            If it says a method of another version.
        """
        if not formula.method:
            return next(each for each in self.methods.values() if each.usual)
        if formula.method not in self.methods:
            said = f'The method "{formula.method[:40]}" is not known to this version; choose another for {formula.name[:80]}.'
            raise InputError(said, quantity="method")
        return self.methods[formula.method]
