"""Causes of a trouble, ranked: what practice expects, and what each known fact makes of it.

Bayes' rule in the log domain over the causes of one symptom; facts are taken as independent given the cause. A fact that has no
row for a cause is as usual there. The next question is the one whose answer is expected to leave the least doubt (Lindley 1956).
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from rosy_kettle.core.change.balance import BalanceProblem, balance, parse_target
from rosy_kettle.core.clinic.facts import Fact, facts_of
from rosy_kettle.core.errors import InputError, WorkbenchError
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.trouble import TroubleTables
from rosy_kettle.core.words.clinic import FACT_WORDS, PEOPLE_CAUTION, QUESTIONS, SPOILT_CAUTION, Question

__all__ = ["Cause", "ChangedLine", "Diagnosis", "Evidence", "diagnose", "expected_gain", "posterior"]

MOST_QUESTIONS = 5
LEAST_GAIN = 0.01  # of a bit, in nats; a question that is expected to tell less is not asked
CHANGED_FOR = 2  # likeliest causes whose change of the formula is worked out
ON_SKIN = frozenset({"irritates"})
SPOILT = frozenset({"lost-fizz", "soft-on-shelf", "white-spots"})
TARGETS = {
    "too-dry": "dough.saturation", "too-wet": "dough.saturation", "too-little-surfactant": "lather.score>=60",
    "oil-kills-foam": "lather.score>=60", "too-much-liquid-oil": "feel.ring<=30", "too-little-emulsifier": "feel.ring<=30",
    "high-bath-ph": "bath.ph_soak<=8.5", "too-much-humectant": "drying.hours<=72",
}  # fmt: skip
"""What a change of the formula aims at, by cause."""


@dataclass(frozen=True, slots=True)
class Evidence:
    """One thing that speaks for a cause, or against it."""

    supports: bool
    what: str
    source: str
    """batch, reading, answer or prior."""


@dataclass(frozen=True, slots=True)
class ChangedLine:
    """One line before and after."""

    ingredient: str
    before_g: float
    after_g: float


@dataclass(frozen=True, slots=True)
class Cause:
    """One cause with its chance, what speaks for it, and what to do."""

    id: str
    chance: float
    evidence: tuple[Evidence, ...]
    now: str
    next_time: str
    change: tuple[ChangedLine, ...] | None


@dataclass(frozen=True, slots=True)
class Diagnosis:
    """Causes, the likeliest first, and what to ask next."""

    causes: tuple[Cause, ...]
    questions: tuple[Question, ...]
    caution: str | None


def diagnose(
    symptom: str, formula: Formula | None, tables: Tables, troubles: TroubleTables, batch: Mapping[str, Any] | None,
    answers: Mapping[str, Any],
) -> Diagnosis:  # fmt: skip
    """Return the causes of a symptom.

    Parameters
    ----------
    symptom : str
        What is seen
    formula : Formula or None
        As made
    tables : Tables
        Reference tables
    troubles : TroubleTables
        What practice expects
    batch : Mapping or None
        The record of the batch
    answers : Mapping
        What was answered

    Returns
    -------
    Diagnosis
        Chances add up to 1, ``unknown-cause`` among them

    Raises
    ------
    InputError
        If the symptom is not known, or an answer cannot be meant.

    References
    ----------
    .. [1] Lindley, Ann. Math. Statist. 27 (1956) 986: information expected of an experiment.
    """
    if symptom not in troubles.priors:
        raise InputError(f'There is no symptom "{symptom[:40]}"; choose {", ".join(troubles.priors)}.', quantity="symptom")
    facts = facts_of(formula, tables, batch, answers)
    chances = posterior(symptom, facts, troubles)
    ranked = sorted(chances.items(), key=lambda each: (-each[1], each[0]))
    causes = tuple(
        _cause(id_, chance, symptom, facts, troubles, _change(id_, formula, tables) if place < CHANGED_FOR else None)
        for place, (id_, chance) in enumerate(ranked)
    )
    caution = PEOPLE_CAUTION if symptom in ON_SKIN else SPOILT_CAUTION if symptom in SPOILT else None
    return Diagnosis(causes, tuple(_questions(symptom, facts, troubles)), caution)


def posterior(symptom: str, facts: Sequence[Fact], troubles: TroubleTables) -> dict[str, float]:
    """Return the chance of each cause of a symptom.

    Parameters
    ----------
    symptom : str
        What is seen
    facts : Sequence
        What is known
    troubles : TroubleTables
        Priors and chances

    Returns
    -------
    dict
        Chances by cause, adding up to 1 [-]
    """
    logs = {prior.cause: math.log(prior.weight) for prior in troubles.priors[symptom]}
    usual = {row.fact: row.usual for row in troubles.chances}
    chance = {(row.cause, row.fact): row.chance for row in troubles.chances}
    for fact in facts:
        if fact.id in usual:
            for cause in logs:
                p = chance.get((cause, fact.id), usual[fact.id])
                logs[cause] += math.log(p if fact.holds else 1 - p)
    most = max(logs.values())
    weights = {cause: math.exp(value - most) for cause, value in logs.items()}
    whole = sum(weights.values())
    return {cause: weight / whole for cause, weight in weights.items()}


def expected_gain(symptom: str, facts: Sequence[Fact], fact: str, troubles: TroubleTables) -> float:
    """Return how much doubt knowing a fact is expected to take away.

    Parameters
    ----------
    symptom : str
        What is seen
    facts : Sequence
        What is known already
    fact : str
        What might be asked
    troubles : TroubleTables
        Priors and chances

    Returns
    -------
    float
        Entropy before less the expected entropy after [nats]
    """
    before = posterior(symptom, facts, troubles)
    usual = next((row.usual for row in troubles.chances if row.fact == fact), None)
    if usual is None:
        return 0.0
    chance = {row.cause: row.chance for row in troubles.chances if row.fact == fact}
    yes = sum(p * chance.get(cause, usual) for cause, p in before.items())
    after = sum(
        share * _entropy(posterior(symptom, [*facts, Fact(fact, holds, "answer")], troubles))
        for holds, share in ((True, yes), (False, 1 - yes))
    )
    return _entropy(before) - after


def _entropy(chances: Mapping[str, float]) -> float:
    return -sum(p * math.log(p) for p in chances.values() if p > 0)


def _questions(symptom: str, facts: Sequence[Fact], troubles: TroubleTables) -> list[Question]:
    known = {fact.id for fact in facts if fact.source != "reading"}
    open_ = [question for question in QUESTIONS if not known & set(question.facts)]
    gains = {
        question.id: max(
            expected_gain(symptom, [each for each in facts if each.id != fact], fact, troubles) for fact in question.facts
        )
        for question in open_
    }
    telling = sorted((question for question in open_ if gains[question.id] > LEAST_GAIN), key=lambda each: -gains[each.id])
    return telling[:MOST_QUESTIONS]


def _cause(
    id_: str, chance: float, symptom: str, facts: Sequence[Fact], troubles: TroubleTables, change: tuple[ChangedLine, ...] | None
) -> Cause:
    prior = next(each for each in troubles.priors[symptom] if each.cause == id_)
    rows = {row.fact: row for row in troubles.chances if row.cause == id_}
    told = [(fact, rows[fact.id]) for fact in facts if fact.id in rows]
    evidence = [
        Evidence((row.chance > row.usual) == fact.holds, FACT_WORDS[fact.id][0 if fact.holds else 1], fact.source)
        for fact, row in told
    ]
    evidence.sort(key=lambda each: not each.supports)
    evidence.append(Evidence(supports=True, what=f"{prior.reason[0].upper()}{prior.reason[1:]}.", source="prior"))
    advice = troubles.advice[id_]
    return Cause(id_, chance, tuple(evidence), advice.now, advice.next_time, change)


def _change(cause: str, formula: Formula | None, tables: Tables) -> tuple[ChangedLine, ...] | None:
    """Return the least change of the formula that takes a cause away; None where there is none."""
    if formula is None or cause not in TARGETS:
        return None
    wanted = tables.method_of(formula).wanted
    target = TARGETS[cause]
    if target == "dough.saturation":
        target = f"dough.saturation={wanted.saturation_low}..{wanted.saturation_high}"
    try:
        result = balance(BalanceProblem(formula, (parse_target(target),)), tables)
    except WorkbenchError:  # the formula cannot be balanced as it is: then nothing is offered
        return None
    moved = tuple(ChangedLine(each.ingredient, each.before_g, each.after_g) for each in result.changes)
    return moved if result.status == "solved" and moved else None
