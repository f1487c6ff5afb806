"""The registry of readings: every declaration of every model, in the order makers ask for them."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from contextlib import contextmanager
from itertools import chain

from rosy_kettle.core.models.bath.readings import READINGS as BATH
from rosy_kettle.core.models.cost.readings import READINGS as COST
from rosy_kettle.core.models.dough.readings import READINGS as DOUGH
from rosy_kettle.core.models.drying.readings import READINGS as DRYING
from rosy_kettle.core.models.feel.readings import READINGS as FEEL
from rosy_kettle.core.models.firmness.readings import READINGS as FIRMNESS
from rosy_kettle.core.models.gas.readings import READINGS as GAS
from rosy_kettle.core.models.lather.readings import READINGS as LATHER
from rosy_kettle.core.models.pieces.readings import READINGS as PIECES
from rosy_kettle.core.models.release.readings import READINGS as RELEASE
from rosy_kettle.core.models.skin.readings import READINGS as SKIN
from rosy_kettle.core.records.reading import Reading

__all__ = ["declared", "declared_besides", "notable", "watched", "watched_paths"]

MASS = Reading(
    "mass_g", "Batch", "g", "exact", "batch", "The sum of all lines in grams.", page="amounts", question="", place=0,
    compute=lambda look: look.mix.total_g,
)  # fmt: skip
_BY_ID: dict[str, Reading] = {
    reading.id: reading
    for reading in sorted(
        (MASS, *chain(DOUGH, GAS, LATHER, BATH, FIRMNESS, RELEASE, DRYING, FEEL, SKIN, PIECES, COST)), key=lambda each: each.place
    )
}


def declared() -> Mapping[str, Reading]:
    """Return all declared readings by id, in the order makers ask for them."""
    return _BY_ID


def watched() -> tuple[Reading, ...]:
    """Return the readings whose side effects are told, in their order."""
    held = [(reading.watched.place, reading) for reading in _BY_ID.values() if reading.watched is not None]
    return tuple(reading for _place, reading in sorted(held, key=lambda each: each[0]))


def watched_paths() -> tuple[str, ...]:
    """Return the ids of the watched readings."""
    return tuple(reading.id for reading in watched())


def notable(path: str, otherwise: float) -> float:
    """Return a change of a reading that a maker would notice.

    Parameters
    ----------
    path : str
        Id of the reading
    otherwise : float
        What stands where the reading is not watched [its unit]

    Returns
    -------
    float
        Change [the reading's unit]
    """
    reading = declared().get(path)
    return otherwise if reading is None or reading.watched is None else reading.watched.notable


@contextmanager
def declared_besides(*readings: Reading) -> Iterator[None]:
    """Have further readings declared for a while; a test shows with it that one declaration is enough.

    Parameters
    ----------
    readings : Reading
        The further declarations
    """
    _BY_ID.update({reading.id: reading for reading in readings})
    try:
        yield
    finally:
        for reading in readings:
            del _BY_ID[reading.id]
