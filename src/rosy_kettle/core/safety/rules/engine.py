"""Runs the rules that hold for a market at a stage over the facts of one product."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from rosy_kettle.core.records.safety import Rule, SafetyTables
from rosy_kettle.core.safety.rules.facts import Facts
from rosy_kettle.core.safety.rules.fired import Fired, Predicate
from rosy_kettle.core.safety.rules.labels import LABEL_RULES
from rosy_kettle.core.safety.rules.materials import MATERIAL_RULES
from rosy_kettle.core.safety.rules.use import USE_RULES

__all__ = ["PREDICATES", "STAGES", "Finding", "run_rules"]

STAGES = ("formula", "batch", "label", "sale")
"""In the order a product goes through them; each later one runs the earlier ones too."""
EVERYWHERE = "any"
PREDICATES: dict[str, Predicate] = {**LABEL_RULES, **MATERIAL_RULES, **USE_RULES}
"""When each rule fires, by its id."""


@dataclass(frozen=True, slots=True)
class Finding:
    """A rule that fired, and on what."""

    rule: Rule
    fired: Fired


def run_rules(facts: Facts, safety: SafetyTables, stage: str, markets: Sequence[str]) -> tuple[Finding, ...]:
    """Return the rules that fire.

    Parameters
    ----------
    facts : Facts
        One product
    safety : SafetyTables
        Rules and the tables they look up
    stage : str
        One of ``STAGES``
    markets : Sequence
        US, EU, UK; rules for everywhere always run

    Returns
    -------
    tuple
        Findings, blocks first, then warnings, then notes, each in the order of the table
    """
    reached, places = STAGES[: STAGES.index(stage) + 1], {EVERYWHERE, *markets}
    found = []
    for rule in safety.rules:
        if rule.stage not in reached or places.isdisjoint(rule.jurisdiction):
            continue
        fired = PREDICATES[rule.id](facts)
        if fired is not None:
            found.append(Finding(rule, fired))
    order = ("block", "warn", "note")
    return tuple(sorted(found, key=lambda each: order.index(each.rule.severity)))
