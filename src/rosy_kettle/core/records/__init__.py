"""Frozen records: the nouns of the product, one a file."""

from rosy_kettle.core.records.formula import Formula, Heat, Line, Piece, Portion, Room, Use
from rosy_kettle.core.records.ingredient import (
    AcidTraits,
    BaseTraits,
    Ingredient,
    PropertySource,
    ReadingTraits,
    SolidFatCurve,
    SurfactantTraits,
)
from rosy_kettle.core.records.method import Method, MethodStep, WantedDough
from rosy_kettle.core.records.tables import Tables
from rosy_kettle.core.records.tool import Tool
from rosy_kettle.core.records.water import AcidSystem, CarbonateTable, TapWater

__all__ = [
    "AcidSystem",
    "AcidTraits",
    "BaseTraits",
    "CarbonateTable",
    "Formula",
    "Heat",
    "Ingredient",
    "Line",
    "Method",
    "MethodStep",
    "Piece",
    "Portion",
    "PropertySource",
    "ReadingTraits",
    "Room",
    "SolidFatCurve",
    "SurfactantTraits",
    "Tables",
    "TapWater",
    "Tool",
    "Use",
    "WantedDough",
]
