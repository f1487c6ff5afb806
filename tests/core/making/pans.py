"""Seeded pans whose truth is known: how often the 90 % interval holds it, and how often "dry" comes too soon."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass
from typing import Literal

import numpy as np
from scipy.optimize import brentq

from rosy_kettle.core.making.rack.drying_curve import Prior, prior_of
from rosy_kettle.core.making.rack.weigh_ins import WeighIn, fit_drying

__all__ = ["HOURS", "Told", "Way", "coverage"]

Way = Literal["one-phase", "fast-start", "root", "slab"]
HOURS = (0, 4, 8, 20, 28, 44)
STEP_G, PIECES, READY = 0.1, 6, 0.003
ODD = (2 * np.arange(60) + 1) ** 2


@dataclass(frozen=True)
class Told:
    """Of so many pans: whose interval held the truth, that were called dry, and of these those that were not."""

    pans: int
    held: int
    called_dry: int
    dry_too_soon: int


def coverage(way: Way, *, known: bool, scatter: float, hours: tuple[float, ...], pans: int, seed: int) -> Told:
    """Weigh pans that dry in one way by a scale of 0.1 g, with a scatter in its steps; fit them; compare with the truth."""
    dice, held, dry, soon, timed = np.random.default_rng(seed), 0, 0, 0, 0
    for _ in range(pans):
        still = _way(way, dice)
        fresh, share = dice.uniform(40, 120), dice.uniform(0.02, 0.08)
        ready_h, prior = dice.uniform(12, 60), Prior()
        if known:
            prior = prior_of(ready_h, share, READY)
            ready_h, share = ready_h * math.exp(dice.normal(0, 0.4)), max(0.006, share * (1 + dice.normal(0, 0.25)))
        lasting, loss = fresh * (1 - share), fresh * share
        level = READY / (1 - READY) * lasting / loss
        own = ready_h / brentq(lambda x: still(x) - level, 1e-9, 400)  # noqa: B023 - used at once
        weighed = [
            WeighIn(
                h,
                round((PIECES * (lasting + loss * still(h / own)) + dice.normal(0, scatter * STEP_G)) / STEP_G) * STEP_G,
                PIECES,
            )
            for h in hours
        ]
        found = fit_drying(weighed, STEP_G, prior)
        if found.low_h is None or found.high_h is None:
            continue
        timed += 1
        held += found.low_h <= ready_h <= found.high_h
        dry += found.ready
        soon += found.ready and ready_h > hours[-1]
    return Told(timed, held, dry, soon)


def _way(way: Way, dice: np.random.Generator) -> Callable[[float], float]:
    """What is still there after so many of its own times."""
    share, faster = dice.uniform(0.2, 1 / 3), dice.uniform(3, 5)
    return {
        "one-phase": lambda x: math.exp(-x),
        "fast-start": lambda x: (1 - share) * math.exp(-x) + share * math.exp(-faster * x),
        "root": lambda x: math.exp(-math.sqrt(x)),
        "slab": lambda x: float((8 / (math.pi**2 * ODD) * np.exp(-ODD * max(x, 1e-4))).sum()),
    }[way]
