"""All readings of one formula: the one entry point of the core for the Desk and the command line."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import fields, is_dataclass, replace
from functools import cache
from typing import get_type_hints

import numpy as np

from rosy_kettle.core.amounts import Weighed, parse_amount, weigh_formula
from rosy_kettle.core.deadline import check_time
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import Setting, missing_of, setting_of
from rosy_kettle.core.models.cost.readings import read_cost
from rosy_kettle.core.models.dough.readings import SCAN_C, no_dough
from rosy_kettle.core.models.pieces.readings import with_spin
from rosy_kettle.core.parameters.pieces import PieceParameters
from rosy_kettle.core.readings.advice import advise
from rosy_kettle.core.readings.look import Look
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula, Tables
from rosy_kettle.core.records.evaluation import (
    Advice,
    Assumed,
    Bath,
    Dough,
    Dry,
    Evaluation,
    Feel,
    Firmness,
    Fizz,
    Label,
    Lather,
    LineMass,
    Missing,
    OutOfRange,
    PieceReading,
    Release,
    Shelf,
    Skin,
)
from rosy_kettle.core.safety.facts_of_formula import facts_of
from rosy_kettle.core.safety.label import NamedPart
from rosy_kettle.core.safety.label.readings import parts_of, read_label
from rosy_kettle.core.safety.ledger import read_ledger
from rosy_kettle.core.safety.measures import felt_ph, measures_of
from rosy_kettle.core.safety.scents import AllergenShares, allergen_shares
from rosy_kettle.core.words.notes import note_words

__all__ = ["evaluate"]

PCT_SLACK = 0.5  # of a sum of per cents that was rounded [%]
NOT_OF_NOTHING = (
    "fizz.co2_mol", "lather.active_g", "bath", "firmness", "release.minutes", "drying", "feel", "skin", "piece.density_g_ml",
    "shelf.acid_loss_pct_day",
)  # fmt: skip
"""Readings that an empty formula has none of."""


def evaluate(formula: Formula, tables: Tables, stage: str = "formula") -> Evaluation:
    """Return every reading of a formula.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables and the studio's prices
    stage : str
        How far the product is: formula, batch, label or sale; rules of earlier stages always run

    Returns
    -------
    Evaluation
        Readings; a reading that cannot be said is None and explained in ``missing``

    Raises
    ------
    InputError
        If a line cannot be meant; the message names line and field.
    """
    weighed, unweighed = weigh_formula(formula, tables)
    several = len(formula.portions) > 1
    portions: tuple[Evaluation, ...] = ()
    if several:
        parts = [[item for item in weighed if item.portion == index] for index in range(len(formula.portions))]
        portions = tuple(
            _judge(formula, tables, part, stage, with_dough=True, name=portion.name)
            for part, portion in zip(parts, formula.portions, strict=True)
        )
    worst = max((portion.skin.scent_share or 0.0 for portion in portions), default=0.0)
    whole = _judge(formula, tables, weighed, stage, with_dough=not several, name=formula.name, worst_portion=worst)
    missing = [*whole.missing, *_unknown_lines(formula)]
    missing += [Missing("mass_g", str(e.facts["ingredient"]), str(e.facts["property"]), e.message) for e in unweighed]
    piece = _spun(whole.piece, portions, tables.parameters.pieces)
    return replace(whole, piece=piece, portions=portions, missing=tuple(missing), notes=_notes(weighed))


def _judge(
    formula: Formula, tables: Tables, weighed: Sequence[Weighed], stage: str, *,
    with_dough: bool, name: str, worst_portion: float = 0.0,
) -> Evaluation:  # fmt: skip
    check_time()
    palette = make_palette([item.ingredient for item in weighed], tables.parameters)
    mass_g = np.array([item.mass_g for item in weighed], dtype=np.float64)
    total_g = float(mass_g.sum())
    setting = setting_of(formula, tables, total_g)
    read = _Read(setting, with_dough=with_dough, worst_portion=worst_portion)
    if total_g > 0:
        spread = np.array([item.spread for item in weighed], dtype=np.float64)
        read.all_of(Look(setting.mix(palette, mass_g), setting, spread, with_dough), stage)
    else:
        read.nothing()
    active_g = read.lather.active_g
    per_dose = total_g / setting.assumed.dose_g if setting.assumed.dose_g else 0.0
    cost, line_costs = read_cost(weighed, setting, None if active_g is None else active_g * per_dose, read.missing)
    return Evaluation(
        name=name,
        mass_g=total_g,
        lines=_line_masses(weighed, total_g, line_costs),
        dough=read.dough,
        fizz=read.fizz,
        bath=read.bath,
        lather=read.lather,
        firmness=read.firmness,
        release=read.release,
        drying=read.drying,
        feel=read.feel,
        skin=read.skin,
        piece=read.piece,
        shelf=read.shelf,
        label=read.label,
        cost=cost,
        assumed=setting.assumed,
        portions=(),
        notes=(),
        advice=read.advice,
        missing=tuple(read.missing),
        out_of_range=_out_of_range(setting.assumed) + read.out_of_range,
        further=read.further,
    )


class _Read:
    """The readings as they come in; each group is null until it is read."""

    def __init__(self, setting: Setting, *, with_dough: bool, worst_portion: float) -> None:
        self.setting, self.with_dough, self.worst_portion = setting, with_dough, worst_portion
        self.missing: list[Missing] = []
        self.dough: Dough | None = None
        self.fizz = Fizz(None, None, None, None, None, None, None, None)
        self.bath, self.lather, self.feel = Bath(), Lather(None, None, None, None), Feel()
        self.firmness, self.release, self.drying = Firmness(), Release(), Dry()
        self.skin, self.piece, self.shelf, self.label = Skin(), PieceReading(), Shelf(), Label()
        self.advice: tuple[Advice, ...] = ()
        self.out_of_range: tuple[OutOfRange, ...] = ()
        self.further: dict[str, float | None] = {}

    def nothing(self) -> None:
        """Say of an empty formula that it is empty."""
        self.missing += [Missing(reading, None, None, "the formula is empty") for reading in NOT_OF_NOTHING]
        if self.with_dough:
            self.missing.append(Missing("dough.saturation", None, None, "the formula is empty"))
            self.dough = no_dough(self.setting)

    def all_of(self, look: Look, stage: str) -> None:
        """Read everything that can be said."""
        self.missing = look.missing
        if self.with_dough:
            self.dough = look.dough
        self.fizz, self.bath = look.fizz, look.bath
        self.out_of_range = look.out_of_range
        self._surfactant(look)
        self._piece(look)
        self.release, self.shelf = look.release, look.shelf
        parts = parts_of(look.mix, self.setting)
        allergens = allergen_shares(look.mix, self.setting)
        self.label = read_label(self.setting, parts, allergens)
        self._ledger(look.mix, parts, allergens, stage)
        self.advice = advise(look.mix, self.setting, self.fizz, self.dough, self.lather, self.piece)
        self.further = {path: look.value(path) for path in declared() if not _has_place(path)}

    def _ledger(self, mix: Mix, parts: list[NamedPart], allergens: AllergenShares, stage: str) -> None:
        facts = facts_of(mix, self.setting, parts, allergens, felt_ph(self.bath), self.worst_portion)
        measures = measures_of(mix, self.setting, self.skin, self.bath, self.feel)
        ledger = read_ledger(mix, self.setting, facts, measures, stage)
        self.skin = Skin(self.skin.harshness_mg_l, self.skin.scent_share, ledger, measures)

    def _surfactant(self, look: Look) -> None:
        if look.active_fault is not None:
            unknown = ("lather.active_g", "feel", "skin.harshness_mg_l")
            self.missing += [missing_of(reading, look.active_fault) for reading in unknown]
        self.lather, self.feel = look.lather or self.lather, look.feel or self.feel
        self.skin = look.skin

    def _piece(self, look: Look) -> None:
        if look.fault is not None:
            self.missing += [missing_of(reading, look.fault) for reading in ("firmness", "drying", "piece.density_g_ml")]
            return
        self.firmness, self.drying = look.firmness or self.firmness, look.drying or self.drying
        self.piece = look.piece or self.piece


@cache
def _has_place(path: str) -> bool:
    """Whether the evaluation has a key of its own for a declared reading; others stand under ``further``."""
    group, _, name = path.partition(".")
    kind = get_type_hints(Evaluation).get(group)
    kinds = (kind, *getattr(kind, "__args__", ()))
    return not name or any(is_dataclass(each) and name in {item.name for item in fields(each)} for each in kinds)


def _spun(piece: PieceReading, portions: Sequence[Evaluation], p: PieceParameters) -> PieceReading:
    """Add the spin of the two heaviest portions to the piece."""
    gas = [
        (portion.mass_g, portion.fizz.brisk_mol_per_100_g)
        for portion in portions
        if portion.mass_g > 0 and portion.fizz.brisk_mol_per_100_g is not None
    ]
    heaviest = [brisk for _, brisk in sorted(gas, reverse=True)[:2]]
    return with_spin(piece, heaviest, p) if len(heaviest) > 1 else piece


def _line_masses(weighed: Sequence[Weighed], total_g: float, costs: Sequence[str | None]) -> tuple[LineMass, ...]:
    return tuple(
        LineMass(
            index=item.position,
            ingredient=item.ingredient.id,
            mass_g=item.mass_g,
            pct=100 * item.mass_g / total_g if total_g > 0 else 0.0,
            low_g=item.mass_g * (1 - item.spread),
            high_g=item.mass_g * (1 + item.spread),
            heaped_ml=_heaped_ml(item),
            cost=cost,
        )
        for item, cost in zip(weighed, costs, strict=True)
    )


def _heaped_ml(item: Weighed) -> float | None:
    loose = item.ingredient.bulk_density_loose_g_ml if item.ingredient.is_powder else item.ingredient.true_density_g_ml
    return None if loose is None else item.mass_g / loose


def _unknown_lines(formula: Formula) -> list[Missing]:
    return [
        Missing("lines", None, None, f'Line {index + 1} ("{line.text}") is not understood and is left out')
        for index, line in enumerate(formula.lines)
        if line.ingredient is None
    ]


def _notes(weighed: Sequence[Weighed]) -> tuple[str, ...]:
    # Two colours of one dough hold the same things; only twice in one portion is worth a word.
    counts = Counter((item.portion, item.ingredient.short_name) for item in weighed)
    found = [note_words("name_twice", name=name, count=count) for (_, name), count in counts.items() if count > 1]
    found += [note_words("no_amount", name=item.ingredient.short_name) for item in weighed if not item.line.amount.strip()]
    for portion in sorted({item.portion for item in weighed}):
        shares = [item for item in weighed if item.portion == portion and item.line.unit == "pct"]
        total_pct = sum(parse_amount(item.line.amount) for item in shares)
        alone = len(shares) == sum(item.portion == portion for item in weighed)
        if shares and alone and abs(total_pct - 100) > PCT_SLACK:
            found.append(note_words("pct_sum", total_pct=total_pct))
    return tuple(found)


def _out_of_range(assumed: Assumed) -> tuple[OutOfRange, ...]:
    if SCAN_C[0] <= assumed.room_c <= SCAN_C[-1]:
        return ()
    return (
        OutOfRange("dough.saturation", f"room temperature {assumed.room_c:g} °C is outside {SCAN_C[0]:g} to {SCAN_C[-1]:g} °C"),
    )
