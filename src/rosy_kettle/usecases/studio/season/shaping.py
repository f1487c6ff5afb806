"""What the season's pieces weighed when they were shaped: a scoop takes what it truly takes, a bowl loses what it truly loses."""

from __future__ import annotations

import math
import random
from collections.abc import Iterator, Mapping
from typing import Any

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.making.plan.piece_mass import piece_mass
from rosy_kettle.core.records import Formula, Tables

__all__ = ["shaped"]

WEIGHED, UNEVEN = 3, 0.02  # pieces put on the scale of a bowl; how far one is off the others [-]


def shaped(kind: Mapping[str, Any], made: Formula, poured_g: float, truth: Tables) -> Iterator[tuple[str, dict[str, Any]]]:
    """Yield the pieces of a bowl and what some of them weighed, as the bench records them.

    Parameters
    ----------
    kind : Mapping
        Pieces as planned
    made : Formula
        The bowl's formula, in grams
    poured_g : float
        What went into the bowl [g]
    truth : Tables
        With what is true of the studio
    """
    chance = random.Random(f"{made.name} {poured_g:.1f}")  # noqa: S311 - demo noise, no secret
    kept_g = poured_g * (1 - truth.method_of(made).loss_fraction)
    if kind["tool"] is None:
        pieces = int(kind["pieces"])
        each_g = kept_g / pieces
    else:
        each_g, _basis = piece_mass(made, truth, weigh_formula(made, truth)[0], None, kind["tool"], kind["scoop_fill"])
        pieces = math.floor(kept_g / each_g)
    yield "pieces", {"count": pieces}
    for _ in range(WEIGHED):
        yield "sampled", {"mass_g": round(each_g * math.exp(chance.gauss(0, UNEVEN)), 1)}
