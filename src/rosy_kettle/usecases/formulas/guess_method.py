"""A first guess of the method from what is in a pasted recipe; the maker confirms it."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import WorkbenchError
from rosy_kettle.core.records import Formula, Tables

__all__ = ["guess_method"]

FAST_ACIDS = ("citric-acid-anhydrous", "citric-acid-monohydrate", "tartaric-acid", "malic-acid")


def guess_method(formula: Formula, tables: Tables) -> str:
    """Return the id of the likeliest method; common practice, no published source."""
    try:
        weighed, _missing = weigh_formula(formula, tables)
    except WorkbenchError:
        return tables.method_of(formula).id
    total_g = sum(item.mass_g for item in weighed)
    if total_g == 0:
        return tables.method_of(formula).id

    def share(ids: Sequence[str] = (), role: str = "", fat: bool = False) -> float:
        return (
            sum(
                item.mass_g
                for item in weighed
                if item.ingredient.id in ids or item.ingredient.role == role or (fat and item.ingredient.is_fat)
            )
            / total_g
        )

    fat, acid, surfactant = share(fat=True), share(FAST_ACIDS), share(role="surfactant")
    asked = [(method.guess, method.id) for method in tables.methods.values() if method.guess]
    for guess, method in sorted(asked, key=lambda each: each[0].rank):
        enough = fat >= guess.fat_from and acid >= guess.acid_from and surfactant >= guess.surfactant_from
        if enough and (not guess.holds or share(guess.holds) > 0):
            return method
    return tables.method_of(formula).id
