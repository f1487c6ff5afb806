"""Which troubles a formula, its room and its method make likelier than usual, before anything is made."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace

from rosy_kettle.core.clinic.diagnose import posterior
from rosy_kettle.core.clinic.facts import Fact, facts_of
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.trouble import TroubleTables

__all__ = ["LikelyTrouble", "forewarn", "with_outcomes"]

MOST, LEAST_TIMES = 3, 1.5  # troubles named, and how much likelier than usual one must be [-]; project defaults
UNKNOWN = "unknown-cause"


@dataclass(frozen=True, slots=True)
class LikelyTrouble:
    """A trouble that the readings speak for."""

    symptom: str
    cause: str
    times: float
    """How much better the readings fit this trouble than a sound batch [-]."""
    lower: str
    """What would lower it."""


def forewarn(formula: Formula, tables: Tables, troubles: TroubleTables) -> list[LikelyTrouble]:
    """Return the likeliest troubles, each once by its likeliest cause.

    Parameters
    ----------
    formula : Formula
        As planned, in its room
    tables : Tables
        Reference tables and what the studio has learnt
    troubles : TroubleTables
        What practice expects

    Returns
    -------
    list of LikelyTrouble
        At most three, each of another cause; empty where nothing speaks for one

    Notes
    -----
    The Bayes factor of a symptom against a sound batch: the mean over its causes, weighted by their priors, of how much likelier
    the facts are where the cause is at work than where it is not.
    """
    facts = [fact for fact in facts_of(formula, tables, None, {}) if fact.source == "reading"]
    found = []
    for symptom in troubles.priors:
        cause = max((c for c in posterior(symptom, facts, troubles).items() if c[0] != UNKNOWN), key=lambda c: c[1], default=None)
        if cause is not None:
            found.append(LikelyTrouble(symptom, cause[0], _times(symptom, facts, troubles), troubles.advice[cause[0]].next_time))
    found.sort(key=lambda each: -each.times)
    named: dict[str, LikelyTrouble] = {}
    for each in found:
        if each.times >= LEAST_TIMES:
            named.setdefault(each.cause, each)
    return list(named.values())[:MOST]


def _times(symptom: str, facts: Sequence[Fact], troubles: TroubleTables) -> float:
    usual = {row.fact: row.usual for row in troubles.chances}
    chance = {(row.cause, row.fact): row.chance for row in troubles.chances}
    priors = troubles.priors[symptom]
    whole = sum(prior.weight for prior in priors)
    total = 0.0
    for prior in priors:
        ratios = [
            _ratio(chance.get((prior.cause, fact.id), usual[fact.id]), usual[fact.id], holds=fact.holds)
            for fact in facts if fact.id in usual
        ]  # fmt: skip
        total += prior.weight / whole * math.exp(sum(ratios))
    return total


def _ratio(chance: float, usual: float, *, holds: bool) -> float:
    return math.log(chance / usual) if holds else math.log((1 - chance) / (1 - usual))


def with_outcomes(troubles: TroubleTables, outcomes: Mapping[tuple[str, str], int]) -> TroubleTables:
    """Return the tables with the studio's own outcomes counted in: each adds one to the weight of its cause (Dirichlet).

    Parameters
    ----------
    troubles : TroubleTables
        What practice expects
    outcomes : Mapping
        How often a symptom turned out to be a cause, by both [-]

    Returns
    -------
    TroubleTables
        An outcome that is none of the causes counts for the unknown one
    """
    if not outcomes:
        return troubles
    priors = {}
    for symptom, known in troubles.priors.items():
        causes = {prior.cause for prior in known}
        counts = {prior.cause: outcomes.get((symptom, prior.cause), 0) for prior in known}
        counts[UNKNOWN] = counts.get(UNKNOWN, 0) + sum(
            count for (said, cause), count in outcomes.items() if said == symptom and cause not in causes
        )
        priors[symptom] = tuple(replace(prior, weight=prior.weight + counts[prior.cause]) for prior in known)
    return replace(troubles, priors=priors)
