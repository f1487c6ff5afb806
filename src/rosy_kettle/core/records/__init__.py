"""Frozen records: the nouns of the product, one a file."""

from rosy_kettle.core.records.formula import MOST_LINES, MOST_PORTIONS, Formula, Heat, Line, Making, Piece, Portion, Room, Use
from rosy_kettle.core.records.ingredient import (
    AcidTraits,
    BaseTraits,
    Ingredient,
    PropertySource,
    ReadingTraits,
    SolidFatCurve,
    SurfactantTraits,
)
from rosy_kettle.core.records.method import (
    Method,
    MethodGuess,
    MethodStep,
    RackCheck,
    RackTask,
    School,
    SchoolOption,
    WantedDough,
)
from rosy_kettle.core.records.money import REFERENCE_CURRENCY, PriceBreak, Prices, Rate
from rosy_kettle.core.records.product import Certificate, ColourFile, Product, product_from_data, product_to_data
from rosy_kettle.core.records.safety import (
    AllergenShare,
    ColourListing,
    IngredientTags,
    RestrictedName,
    Rule,
    SafetyTables,
)
from rosy_kettle.core.records.tables import Tables
from rosy_kettle.core.records.tool import Tool
from rosy_kettle.core.records.water import AcidSystem, CarbonateTable, TapWater
from rosy_kettle.core.records.workshop import USUAL_SPRAY_ML, USUAL_TOLERANCE, USUAL_TUBS, OwnTool, Tolerance, Tub

__all__ = [
    "MOST_LINES",
    "MOST_PORTIONS",
    "REFERENCE_CURRENCY",
    "USUAL_SPRAY_ML",
    "USUAL_TOLERANCE",
    "USUAL_TUBS",
    "AcidSystem",
    "AcidTraits",
    "AllergenShare",
    "BaseTraits",
    "CarbonateTable",
    "Certificate",
    "ColourFile",
    "ColourListing",
    "Formula",
    "Heat",
    "Ingredient",
    "IngredientTags",
    "Line",
    "Making",
    "Method",
    "MethodGuess",
    "MethodStep",
    "OwnTool",
    "Piece",
    "Portion",
    "PriceBreak",
    "Prices",
    "Product",
    "PropertySource",
    "RackCheck",
    "RackTask",
    "Rate",
    "ReadingTraits",
    "RestrictedName",
    "Room",
    "Rule",
    "SafetyTables",
    "School",
    "SchoolOption",
    "SolidFatCurve",
    "SurfactantTraits",
    "Tables",
    "TapWater",
    "Tolerance",
    "Tool",
    "Tub",
    "Use",
    "WantedDough",
    "product_from_data",
    "product_to_data",
]
