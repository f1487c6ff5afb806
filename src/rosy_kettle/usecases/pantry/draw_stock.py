"""What a closed batch took from which jar: as it was named, or assumed; put right when that is amended."""

from __future__ import annotations

from collections.abc import Collection
from dataclasses import dataclass, replace
from datetime import UTC, datetime

from sqlalchemy.orm import Session

from rosy_kettle.core.making.bench import BenchState
from rosy_kettle.core.making.stock.lots import Said, draws_of_line
from rosy_kettle.store.lots import LotRow, lots_of_ingredients, move, movements_of_batch
from rosy_kettle.usecases.pantry.keep_lots import LEAST_MOVED_G, record_of_lot

__all__ = ["Drawn", "drawn_by", "settle_stock"]


@dataclass(frozen=True, slots=True)
class Drawn:
    """What a batch took from one lot, all movements together."""

    lot: LotRow
    mass_g: float
    assumed: bool | None
    """Whether nobody has said that it came from this lot; None before that was asked."""


def drawn_by(session: Session, batch_id: int) -> list[Drawn]:
    """Return what a batch took, by lot and by whether that is assumed, in the order it was first taken."""
    found: dict[tuple[int, bool | None], Drawn] = {}
    for movement, lot in movements_of_batch(session, batch_id):
        key = (lot.id, movement.assumed)
        before = found.get(key, Drawn(lot, 0.0, movement.assumed))
        found[key] = replace(before, mass_g=before.mass_g - movement.mass_g)
    return [each for each in found.values() if abs(each.mass_g) > LEAST_MOVED_G]


def settle_stock(session: Session, batch_id: int, state: BenchState, only: Collection[str] | None = None) -> None:
    """Take from the lots what a batch really used, over-pours, left-outs and corrections with it.

    What was taken before is left as it is where it is right; what is not becomes movements back and forth. ``only`` names the
    ingredients that are looked at; None is all.
    """
    used_g: dict[str, float] = {}
    poured = [(weighing.ingredient, weighing.actual_g) for weighing in state.weighings]
    for ingredient, mass_g in (*poured, *((each.ingredient, each.mass_g) for each in state.corrections)):
        used_g[ingredient] = used_g.get(ingredient, 0.0) + mass_g
    before = drawn_by(session, batch_id)
    asked = [id_ for id_ in dict.fromkeys((*used_g, *(each.lot.ingredient_id for each in before))) if only is None or id_ in only]
    counted = lots_of_ingredients(session, asked)
    for ingredient in asked:
        mine = [each for each in before if each.lot.ingredient_id == ingredient]
        rows = {row.id: row for row in (*counted[ingredient], *(each.lot for each in mine))}
        _settle(session, batch_id, rows, mine, used_g.get(ingredient, 0.0), [
            Said(jar.lot_id, jar.mass_g) for jar in state.jars.get(ingredient, ())
        ])  # fmt: skip


def _settle(
    session: Session, batch_id: int, rows: dict[int, LotRow], before: list[Drawn], mass_g: float, said: list[Said]
) -> None:
    back_g = {id_: sum(each.mass_g for each in before if each.lot.id == id_) for id_ in rows}
    lots = [replace(record_of_lot(row), left_g=row.left_g + back_g[row.id]) for row in rows.values()]
    wanted: dict[tuple[int, bool | None], float] = {}
    for draw in draws_of_line(lots, mass_g, datetime.now(UTC).date(), said):
        key: tuple[int, bool | None] = (draw.lot_id, draw.assumed)
        wanted[key] = wanted.get(key, 0.0) + draw.mass_g
    had = {(one.lot.id, one.assumed): one.mass_g for one in before}
    for each in dict.fromkeys((*had, *wanted)):
        more_g = wanted.get(each, 0.0) - had.get(each, 0.0)
        if abs(more_g) > LEAST_MOVED_G:
            move(session, rows[each[0]], "used", -more_g, "put right" if before else "", batch_id, each[1])
