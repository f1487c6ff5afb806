"""A first guess of the method from what is in a pasted recipe; the maker confirms it."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.records import Formula, Tables

__all__ = ["guess_method"]

FAT_CARRIES = 0.50  # share of fat from which it is a melt [-]
FAT_BINDS = 0.08  # share of fat that binds a dough [-]
ACID_FOR_FIZZ = 0.12  # share of acid of a fizzing product [-]
SURFACTANT_FOR_DOUGH = 0.05  # share of surfactant that makes a bar or scoop [-]


def guess_method(formula: Formula, tables: Tables) -> str:
    """Return the id of the likeliest method; common practice, no published source."""
    try:
        weighed, _missing = weigh_formula(formula, tables)
    except WorkbenchError:
        return formula.method
    total_g = sum(item.mass_g for item in weighed)
    if total_g == 0:
        return formula.method

    def share(ids: Sequence[str] = (), role: str = "", fat: bool = False) -> float:
        return (
            sum(
                item.mass_g
                for item in weighed
                if item.ingredient.id in ids or item.ingredient.role == role or (fat and item.ingredient.is_fat)
            )
            / total_g
        )

    fizz = share(("citric-acid-anhydrous", "citric-acid-monohydrate", "tartaric-acid", "malic-acid"))
    surfactant = share(role="surfactant")
    if share(fat=True) >= FAT_CARRIES:
        return "melt"
    if share(fat=True) >= FAT_BINDS:
        return "butter-dough" if surfactant >= SURFACTANT_FOR_DOUGH else "moulded-truffle"
    if fizz >= ACID_FOR_FIZZ:
        return "pre-dried-surfactant" if share(("liquid-bubble-bath",)) > 0 else "damp-press"
    return "betaine-dough" if share(("capb-liquid", "cahs-liquid", "sodium-cocoamphoacetate")) > 0 else "glycerin-dough"
