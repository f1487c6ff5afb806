"""Doughs for the eye: drawn evenly over the states, mixed by a seed."""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

__all__ = ["drawn_cards"]

CARDS = 12
WETTEST = 0.8  # how far beyond its edge the last state goes, in S [-]


def drawn_cards(edges: Mapping[str, float], seed: int) -> list[tuple[float, str]]:
    """Return doughs with their saturation and what they are called.

    Parameters
    ----------
    edges : Mapping
        Saturation from which each state holds, driest first [-]
    seed : int
        Which pack [-]
    """
    states = list(edges.items())
    chance = np.random.default_rng(seed)
    found: list[tuple[float, str]] = []
    for number in range(CARDS):
        at = number % len(states)
        low = states[at][1]
        high = states[at + 1][1] if at + 1 < len(states) else low + WETTEST
        found.append((float(chance.uniform(low, high)), states[at][0]))
    return [found[int(at)] for at in chance.permutation(CARDS)]
