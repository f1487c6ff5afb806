"""Weighings that do not belong to the others: a time that goes back, a wrong tare, a piece too few or another one."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.making.rack.drying_curve import Prior, Weighed, evidence_of, fit_curve, most_evidence_of, noise_of
from rosy_kettle.core.words.rack import SET_ASIDE

__all__ = ["SetAside", "set_aside"]

MUCH_BETTER = 18.0  # logarithm of how much better the others must agree without it [-]; six spreads
LEAST_LEFT = 2  # weighings that always stay
PLAIN = frozenset({"piece_missing", "piece_more", "wrong_tare"})
MOST_SHARE = 1 / 3  # of the weighings that may go
LOOKED_AT = 6  # candidates tried each time, the furthest off first
WRONG_BY_PIECES = 0.25  # how near the difference is to whole pieces [pieces]
NEAR_TARE = 0.03  # how near it is to the tare, as a share of it [-]
SMALLEST_SWAP = 0.002  # a difference under this share of a piece is no other piece [-]


@dataclass(frozen=True, slots=True)
class SetAside:
    """One weighing that does not count, and why."""

    index: int
    code: str
    reason: str


def set_aside(weigh_ins: Sequence[Weighed], step_g: float, prior: Prior, tare_g: float) -> list[SetAside]:
    """Return which weighings do not belong to the others.

    Parameters
    ----------
    weigh_ins : sequence of Weighed
        In the order in which they were made
    step_g : float
        Step of the scale [g]
    prior : Prior
        What the formula says
    tare_g : float
        The pan, or 0 [g]

    Returns
    -------
    list of SetAside
        By index
    """
    out = _backwards(weigh_ins)
    kept = [index for index in range(len(weigh_ins)) if index not in {each.index for each in out}]
    most = int(MOST_SHARE * len(kept))
    while most > 0 and len(kept) > LEAST_LEFT:
        worst = _worst(weigh_ins, kept, step_g, prior)
        if worst is None:
            break
        others = [index for index in kept if index != worst]
        named = _named(weigh_ins, others, worst, step_g, prior, tare_g)
        if len(others) <= LEAST_LEFT and named.code not in PLAIN:
            break  # of three weighings none can be called the odd one, unless it says itself what is wrong
        kept = others
        out.append(named)
        most -= 1
    return sorted(out, key=lambda each: each.index)


def _backwards(weigh_ins: Sequence[Weighed]) -> list[SetAside]:
    out, latest = [], -np.inf
    for index, each in enumerate(weigh_ins):
        if each.hours < latest:
            out.append(SetAside(index, "time_back", SET_ASIDE["time_back"].format(hours=each.hours, before=latest)))
        latest = max(latest, each.hours)
    return out


def _worst(weigh_ins: Sequence[Weighed], kept: list[int], step_g: float, prior: Prior) -> int | None:
    """Return the weighing without which the others agree far better, if there is one."""
    taken = [weigh_ins[index] for index in kept]
    evidence = evidence_of(taken, step_g, prior)
    if _agree(taken, evidence, step_g, prior):
        return None
    whole = fit_curve(taken, step_g, prior)
    middle, to_lose_g = whole.middle(), whole.quantile(whole.to_lose_g, 0.5)
    off = np.abs([_off_g(weigh_ins[index], middle, to_lose_g) for index in kept])
    candidates = [kept[at] for at in np.argsort(off)[::-1][:LOOKED_AT]] if len(kept) > LOOKED_AT else list(kept)
    best, gain = None, 0.0
    for index in candidates:
        others = [weigh_ins[each] for each in kept if each != index]
        # A weighing that belongs costs the others little; its own share of the evidence is that of a normal error.
        better = evidence_of(others, step_g, prior) - evidence + np.log(1 / noise_of(weigh_ins[index].pieces, step_g))
        if better > gain:
            best, gain = index, better
    return best if gain > MUCH_BETTER else None


def _agree(taken: list[Weighed], evidence: float, step_g: float, prior: Prior) -> bool:
    """Whether no weighing can be missed so much that the rest would agree far better: then none needs to be tried."""
    for at, each in enumerate(taken):
        most = most_evidence_of([*taken[:at], *taken[at + 1 :]], step_g, prior)
        if most - evidence + np.log(1 / noise_of(each.pieces, step_g)) > MUCH_BETTER:
            return False
    return True


def _off_g(each: Weighed, middle: tuple[float, float], to_lose_g: float) -> float:
    """How far one piece is from the curve [g]."""
    tau, lasting = middle
    return each.mass_g / each.pieces - (lasting + to_lose_g * float(np.exp(-each.hours / tau)))


def _named(weigh_ins: Sequence[Weighed], kept: list[int], index: int, step_g: float, prior: Prior, tare_g: float) -> SetAside:
    curve = fit_curve([weigh_ins[each] for each in kept], step_g, prior)
    each = weigh_ins[index]
    piece_g = float(np.mean([weigh_ins[at].mass_g / weigh_ins[at].pieces for at in kept]))
    pan_g = _off_g(each, curve.middle(), curve.quantile(curve.to_lose_g, 0.5)) * each.pieces
    pieces = pan_g / piece_g
    code = "off"
    if tare_g > 0 and abs(abs(pan_g) - tare_g) < max(NEAR_TARE * tare_g, 2 * step_g):
        code = "wrong_tare"
    elif round(pieces) != 0 and abs(pieces - round(pieces)) < WRONG_BY_PIECES:
        code = "piece_missing" if pieces < 0 else "piece_more"
    elif abs(pan_g) > SMALLEST_SWAP * piece_g:
        code = "piece_swapped"
    return SetAside(index, code, SET_ASIDE[code].format(off_g=pan_g, count=abs(round(pieces)), tare_g=tare_g))
