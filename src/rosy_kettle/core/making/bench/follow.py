"""Shares and pieces follow what was weighed: a bowl that came to more gives more of each."""

from __future__ import annotations

import math
from collections.abc import Mapping
from dataclasses import replace

from rosy_kettle.core.making.bench.record import BenchState
from rosy_kettle.core.making.bench.steps import BenchStep
from rosy_kettle.core.records import Formula

__all__ = ["following_weighed"]

ALMOST_A_PIECE = 0.9  # of a last piece that is still shaped as one [-]; project default


def following_weighed(planned: Formula, state: BenchState) -> BenchState:
    """Return the state with shares and pieces as the bowl gives them now.

    Parameters
    ----------
    planned : Formula
        The bowl as planned, in grams
    state : BenchState
        Where the batch stands

    Returns
    -------
    BenchState
        Each share is what its lines weigh now [g], corrections shared out alike; pieces keep their mass and change in number
    """
    meant_g = {position: float(line.amount) for position, line in enumerate(planned.lines)}
    made_g = state.mass_g()
    added_g = sum(each.mass_g for each in state.corrections)
    whole_g, bowl_g = sum(meant_g.values()), sum(made_g.values()) + added_g
    if whole_g <= 0 or bowl_g <= 0:
        return state
    more = (bowl_g / sum(made_g.values())) if sum(made_g.values()) > 0 else 1.0
    portions = _lines_of_portions(planned)
    steps = tuple(
        replace(
            step, shares=_shares(step, portions, meant_g, made_g, more),
            pieces=None if step.pieces is None else max(1, math.floor(step.pieces * bowl_g / whole_g + 1 - ALMOST_A_PIECE)),
        )
        for step in state.steps
    )  # fmt: skip
    return replace(state, steps=steps)


def _shares(
    step: BenchStep,
    portions: Mapping[str, tuple[int, ...]],
    meant_g: Mapping[int, float],
    made_g: Mapping[int, float],
    more: float,
) -> tuple[tuple[str, float], ...]:
    found = []
    for name, share_g in step.shares:
        lines = dict(step.share_lines).get(name, portions.get(name, ()))
        meant = sum(meant_g[each] for each in lines)
        factor = sum(made_g.get(each, meant_g[each]) for each in lines) / meant if meant > 0 else 1.0
        whole = set(lines) == set(portions.get(name, ()))
        found.append((name, share_g * factor * (more if whole else 1.0)))
    return tuple(found)


def _lines_of_portions(formula: Formula) -> dict[str, tuple[int, ...]]:
    """Return the places of the lines of each portion, by its name."""
    found: dict[str, tuple[int, ...]] = {}
    at = 0
    for portion in formula.portions:
        found[portion.name] = tuple(range(at, at + len(portion.lines)))
        at += len(portion.lines)
    return found
