"""Factors of a studio by shrinkage: the defaults are the prior, each observation moves them as far as it is to be trusted.

Normal prior and normal noise give a normal posterior in closed form. Observations that scatter more than their noise says make
all of their reading less trusted, so that one wild one widens the interval rather than carrying the factor away.
"""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

import numpy as np

from rosy_kettle.core.learning.observations import Equation, Observation, Told, told_by
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.parameters.learning import LearningParameters
from rosy_kettle.core.records import Tables
from rosy_kettle.core.words.learning import SET_ASIDE, factor_words

__all__ = ["Factor", "Learnt", "LearntError", "SetAside", "learn", "learn_from"]

ROUNDS = 25  # of finding the figure within a stretch; it stays to four digits after ten [-]
TINY = 1e-12
LEAST_TOLD = 1e-4  # least share of its information a stretch keeps, so that nothing is divided by nothing [-]
FAR = 30.0  # standard deviations beyond a stretch that are still told apart [-]
WIDE = 10.0  # times the prior, where only the observations are to speak [-]
SURELY_OFF = 3.0  # of its own standard deviations an unknown must be off before its prior is widened [-]; project default
TOO_FAR = 2.0  # of its prior's standard deviations it must lie off as well [-]; project default
BEYOND = 4.0  # times the furthest factor to which an interval is told [×]
SIDE = 1.6448536269514722  # standard deviations to each end of 90 % [-]
PRIOR = {
    "demand": "demand_prior", "drying": "drying_prior", "foam": "foam_prior", "foam_half_life": "half_life_prior",
    "firmness": "firmness_prior", "packing": "packing_prior",
}  # fmt: skip
UNITS = {"log": "×", "points": "points", "per cent": "%"}
MEASURE = {"log": "mean absolute log error", "points": "mean absolute error, points", "per cent": "mean absolute error, per cent"}


@dataclass(frozen=True, slots=True)
class Factor:
    """One default and what the studio's own work makes of it."""

    id: str
    default: float
    yours: float
    low: float
    high: float
    """90 % with ``low``."""
    n: int
    unit: str
    accepted_by_default: bool
    message: str
    default_low: float
    """What the default was trusted to, 90 % with ``default_high``."""
    default_high: float


@dataclass(frozen=True, slots=True)
class LearntError:
    """How far a reading is off the studio's observations, before and after learning."""

    reading: str
    n: int
    before: float
    after: float
    measure: str


@dataclass(frozen=True, slots=True)
class SetAside:
    """An observation that cannot be used."""

    index: int
    kind: str
    reason: str
    code: str


@dataclass(frozen=True, slots=True)
class Learnt:
    """All that observations say."""

    factors: tuple[Factor, ...]
    errors: tuple[LearntError, ...]
    set_aside: tuple[SetAside, ...]


@dataclass(frozen=True, slots=True)
class _Block:
    """Equations of one reading and the unknowns they speak of."""

    reading: str
    ids: tuple[str, ...]
    weights: FloatArray
    seen: FloatArray
    noise: FloatArray
    prior: FloatArray
    between: FloatArray
    """Ends of what was seen where only a stretch was (n, 2); NaN where it was a figure."""
    measure: str
    default: float
    role_of: Mapping[str, str]
    """Factor of the role, by id of each single ingredient's; its unknown is how far it is off its role."""


def learn(observations: Sequence[Observation], tables: Tables, p: LearningParameters | None = None) -> Learnt:
    """Return what observations make of the defaults: each is told first, then all are learnt from.

    Parameters
    ----------
    observations : Sequence
        What was seen, each with its formula
    tables : Tables
        Reference tables with the defaults
    p : LearningParameters or None
        How far defaults and observations are off; None takes what is usual

    Returns
    -------
    Learnt
        As `learn_from` has it
    """
    return learn_from([told_by(each, tables, p) for each in observations], tables, p)


def learn_from(told: Sequence[Told], tables: Tables, p: LearningParameters | None = None) -> Learnt:
    """Return factors, errors before and after, and what could not be used.

    Parameters
    ----------
    told : Sequence
        What each observation says
    tables : Tables
        Reference tables with the defaults
    p : LearningParameters or None
        How far defaults and observations are off; None takes what is usual

    Returns
    -------
    Learnt
        Factors in the order they first came up

    References
    ----------
    .. [1] Gelman et al., Bayesian Data Analysis, 3rd ed. (2013), 2.5 and 14.8: normal prior, normal noise of known size.
    .. [2] Dempster, Laird and Rubin, J. R. Stat. Soc. B 39 (1977) 1; Louis, ibid. 44 (1982) 226: figures within a stretch.
    """
    p = p or LearningParameters()
    set_aside = tuple(
        SetAside(index, each.kind, SET_ASIDE[each.code].format(**each.facts), each.code)
        for index, each in enumerate(told) if each.code
    )  # fmt: skip
    groups: dict[tuple[str, float], list[Equation]] = {}
    for equation in (equation for each in told for equation in each.equations):
        groups.setdefault((equation.reading, equation.default), []).append(equation)
    blocks = [_block(group, p) for group in groups.values()]
    factors = tuple(factor for block in blocks for factor in _factors(block, tables, p))
    return Learnt(factors, tuple(_error(block) for block in blocks), set_aside)


def _block(equations: Sequence[Equation], p: LearningParameters) -> _Block:
    ids = tuple(dict.fromkeys(id_ for each in equations for id_ in each.weights))
    own = _told_apart(equations)
    weights = np.array([
        [*(each.weights.get(id_, 0.0) for id_ in ids), *(each.parts.get((role, name), 0.0) for role, name in own)]
        for each in equations
    ])  # fmt: skip
    default = equations[0].default
    prior = np.array([*(_prior(id_, default, p) for id_ in ids), *(p.ingredient_prior for _ in own)])
    role_of = {f"demand.{name}": role for role, name in own}
    seen, noise = (np.array([getattr(each, name) for each in equations]) for name in ("seen", "noise"))
    between = np.array([each.between or (math.nan, math.nan) for each in equations])
    block = _Block(
        equations[0].reading, (*ids, *role_of), weights, seen, noise, prior, between, equations[0].measure, default, role_of
    )  # fmt: skip
    return _trusted(_believed(_narrowed(block), p), p)


def _told_apart(equations: Sequence[Equation]) -> list[tuple[str, str]]:
    """Return role and ingredient of all powders whose role was seen of several; one alone is what its role is."""
    seen = sorted({part for each in equations for part in each.parts})
    several = {role for role, names in Counter(role for role, _name in seen).items() if names > 1}
    return [(role, name) for role, name in seen if role in several]


def _narrowed(block: _Block) -> _Block:
    """Replace each stretch by the figure and noise that say the same of the unknowns.

    Where only a stretch was seen, the figure within it is what the other observations make it: its mean under the normal between
    the ends, found again until it stays (Dempster, Laird and Rubin 1977), and it tells the less the more of that normal lies
    between them (Louis 1982). The middle of the stretch would pull every factor towards itself.
    """
    ranged = ~np.isnan(block.between[:, 0])
    if not ranged.any():
        return block
    from scipy.special import ndtr  # here: scipy takes a third of a second that starting does not need

    noise, found = block.noise[ranged], block
    for _ in range(ROUNDS):
        mean, _covariance = _posterior(found)
        at = block.weights[ranged] @ mean
        low, high = ((block.between[ranged, side] - at) / noise for side in (0, 1))
        inside = np.maximum(ndtr(high) - ndtr(low), TINY)
        density_low, density_high = (np.exp(-0.5 * each**2) / math.sqrt(2 * math.pi) for each in (low, high))
        moved = (density_low - density_high) / inside
        told = np.clip(moved**2 - (low * density_low - high * density_high) / inside, LEAST_TOLD, 1.0)
        seen_now, noise_now = block.seen.copy(), block.noise.copy()
        seen_now[ranged], noise_now[ranged] = at + noise * np.clip(moved, -FAR, FAR) / told, noise / np.sqrt(told)
        found = replace(block, seen=seen_now, noise=noise_now)
    return found


def _prior(id_: str, default: float, p: LearningParameters) -> float:
    kind = id_.split(".", maxsplit=1)[0]
    return p.loss_prior * default if kind == "loss" else float(getattr(p, PRIOR[kind]))


def _believed(block: _Block, p: LearningParameters) -> _Block:
    """Widen what was believed of an unknown where many observations agree that it is far off: a belief so wrong pulls no further.

    Without this a factor that is truly 2.8 was drawn back to the default, and its interval missed it in half of the cases.
    """
    wide = replace(block, prior=block.prior * WIDE)
    mean, covariance = _posterior(wide)
    surely = np.abs(mean) > SURELY_OFF * np.sqrt(np.diag(covariance))
    far_off = surely & (np.abs(mean) > TOO_FAR * block.prior) & ((block.weights != 0).sum(axis=0) >= p.few)
    return replace(block, prior=np.where(far_off, np.maximum(block.prior, np.abs(mean)), block.prior))


def _trusted(block: _Block, p: LearningParameters) -> _Block:
    """Trust observations of a reading by how they scatter, as far as they are many beside what was assumed of them."""
    mean, _spread = _posterior(block)
    off = (block.seen - block.weights @ mean) / block.noise
    scale = math.sqrt((p.noise_counts + float((off**2).sum())) / (p.noise_counts + len(block.seen)))
    return replace(block, noise=block.noise * scale)


def _posterior(block: _Block) -> tuple[FloatArray, FloatArray]:
    """Mean and covariance of the unknowns."""
    scaled = block.weights / block.noise[:, None]
    precision = np.diag(1 / block.prior**2) + scaled.T @ scaled
    covariance: FloatArray = np.linalg.inv(precision).astype(np.float64)
    return covariance @ (scaled.T @ (block.seen / block.noise)), covariance


def _factors(block: _Block, tables: Tables, p: LearningParameters) -> list[Factor]:
    """Return the factors of a block; of a single ingredient only where it stands clear of its role."""
    mean, covariance = _posterior(block)
    found = []
    for index, id_ in enumerate(block.ids):
        of = np.zeros(len(block.ids))
        of[index] = 1.0
        if id_ in block.role_of:
            if abs(mean[index]) <= SIDE * math.sqrt(float(covariance[index, index])):
                continue
            of[block.ids.index(block.role_of[id_])] = 1.0
        spread, prior = (math.sqrt(float(of @ matrix @ of)) for matrix in (covariance, np.diag(block.prior**2)))
        found.append(_factor(block, index, float(of @ mean), spread, SIDE * prior, tables, p))
    return found


def _factor(block: _Block, index: int, at: float, spread: float, prior: float, tables: Tables, p: LearningParameters) -> Factor:
    id_, n = block.ids[index], int((block.weights[:, index] > 0).sum())
    kind, _, name = id_.partition(".")
    low, yours, high = (_plain(block, each, p) for each in (at - SIDE * spread, at, at + SIDE * spread))
    default = _plain(block, 0.0, p)
    sure = not low <= default <= high
    single = id_ in block.role_of
    beyond = block.measure == "log" and abs(at) > math.log(p.furthest)
    words = factor_words(
        "demand_one" if single else kind, tables.ingredients[name].short_name.lower() if single else _named(name, kind, tables),
        yours, low, high, n, sure=sure, beyond=beyond,
    )  # fmt: skip
    return Factor(
        id_, default, yours, low, high, n, UNITS[block.measure], sure and n >= p.few and not beyond, words,
        _plain(block, -prior, p), _plain(block, prior, p),
    )  # fmt: skip


def _plain(block: _Block, unknown: float, p: LearningParameters) -> float:
    """Return an unknown as it is told: a factor, an offset in points, or per cent lost."""
    if block.measure == "log":
        most = math.log(BEYOND * p.furthest)
        return math.exp(min(most, max(-most, unknown)))
    return max(0.0, block.default + unknown) if block.measure == "per cent" else block.default + unknown


def _named(name: str, kind: str, tables: Tables) -> str:
    """Return what a factor is of, as it stands in a sentence."""
    if kind in {"packing", "loss"}:
        known = tables.tools.get(name) if kind == "packing" else tables.methods.get(name)
        return name if known is None else known.name[:1].lower() + known.name[1:]
    plural = {"base": "bases", "starch": "starches", "clay": "clays", "surfactant": "surfactant powders", "acid": "acids"}
    return plural.get(name, f"{name} powders") if kind == "demand" else name


def _error(block: _Block) -> LearntError:
    """How far off before, and after learning from all others: no observation is judged by what it taught itself.

    With all observations in, an observation lies :math:`e` off; without it, :math:`e / (1 - h)`, where :math:`h` is the share of
    its own say in what is said of it (Allen, Technometrics 16 (1974) 125). So none has to be left out one by one.
    """
    mean, covariance = _posterior(block)
    scaled = block.weights / block.noise[:, None]
    own = np.einsum("ij,jk,ik->i", scaled, covariance, scaled)
    without = block.seen - (block.seen - block.weights @ mean) / (1 - own)
    before, after = (float(np.mean(_off(block, said))) for said in (np.zeros_like(without), without))
    return LearntError(block.reading, len(block.seen), before, after, f"{MEASURE[block.measure]}, leave-one-out")


def _off(block: _Block, said: FloatArray) -> FloatArray:
    """How far a reading is off what was seen: nothing within a stretch, else the way to its nearer end."""
    low, high = block.between[:, 0], block.between[:, 1]
    return np.where(np.isnan(low), np.abs(block.seen - said), np.maximum(0.0, np.maximum(low - said, said - high)))
