"""Causes of a trouble, ranked: what practice expects, and what each known fact makes of it.

Bayes' rule in the log domain over the causes of one symptom; facts are taken as independent given the cause. A fact that has no
row for a cause is as usual there. The next question is the one whose answer is expected to leave the least doubt (Lindley 1956).
"""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence, Set
from dataclasses import dataclass
from typing import Any

from rosy_kettle.core.clinic.change import ChangedLine, change_for
from rosy_kettle.core.clinic.facts import BESIDE_A_FORMULA, Fact, facts_of
from rosy_kettle.core.errors import InputError
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.trouble import TroubleTables
from rosy_kettle.core.words.clinic import FACT_WORDS, PEOPLE_CAUTION, QUESTIONS, SPOILT_CAUTION, Question

__all__ = ["Cause", "Diagnosis", "Evidence", "diagnose", "expected_gain", "posterior"]

MOST_QUESTIONS = 5
LEAST_GAIN = 0.01  # of a bit, in nats; a question that is expected to tell less is not asked
CHANGED_FOR = 2  # likeliest causes whose change of the formula is worked out
OF_A_MOULD = frozenset({"hours_in_mould"})
ON_SKIN = frozenset({"irritates"})
OF_DRYING = frozenset({"never-dries", "sticky", "soft-on-shelf", "gooey-wall"})
"""Symptoms of a piece that stays wet; only of these the air that lets nothing dry says something."""
SPOILT = frozenset({"lost-fizz", "soft-on-shelf", "white-spots"})


@dataclass(frozen=True, slots=True)
class Evidence:
    """One thing that speaks for a cause, or against it."""

    supports: bool
    what: str
    source: str
    """batch, reading, answer or prior."""


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
    facts = [fact for fact in facts_of(formula, tables, batch, answers) if symptom in OF_DRYING or fact.id != "air-too-damp"]
    chances = posterior(symptom, facts, troubles)
    ranked = sorted(chances.items(), key=lambda each: (-each[1], each[0]))
    causes = tuple(
        _cause(id_, chance, symptom, facts, troubles, change_for(id_, formula, tables, batch) if place < CHANGED_FOR else None)
        for place, (id_, chance) in enumerate(ranked)
    )
    caution = PEOPLE_CAUTION if symptom in ON_SKIN else SPOILT_CAUTION if symptom in SPOILT else None
    return Diagnosis(causes, tuple(_questions(symptom, facts, troubles, _asked_in_vain(formula, tables, answers))), caution)


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


def _asked_in_vain(formula: Formula | None, tables: Tables, answers: Mapping[str, Any]) -> set[str]:
    """Questions that are answered already, that say something only beside a formula, or of a mould that is not used."""
    answered = {id_ for id_, answer in answers.items() if answer is not None}
    if formula is None:
        return answered | BESIDE_A_FORMULA
    moulded = any(task.kind == "unmould" for task in tables.method_of(formula).rack_tasks)
    return answered if moulded else answered | OF_A_MOULD


def _questions(symptom: str, facts: Sequence[Fact], troubles: TroubleTables, in_vain: Set[str]) -> list[Question]:
    known = {fact.id for fact in facts if fact.source != "reading"}
    open_ = [question for question in QUESTIONS if question.id not in in_vain and not known & set(question.facts)]
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
