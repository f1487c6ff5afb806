"""Facts that speak for a cause or against it: from the formula's readings, the batch's record, and what was answered."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.core.records.evaluation import Evaluation
from rosy_kettle.core.safety.measures import PH_WARN, lines_of_harshness

__all__ = ["Fact", "facts_of"]

# Where a figure begins to speak; common practice, no published source, where nothing else stands.
HUMID_PCT, WARM_ROOM_C, COLD_ROOM_C, WARM_DOUGH_C, COLD_DOUGH_C = 58.0, 25.0, 16.0, 35.0, 17.0
SHORT_MOULD_H, LONG_OPEN_WEEKS, COOL_BATH_C, OFTEN = 12.0, 3.0, 35.0, 1.0
HARD_TAPS = frozenset({"hard", "very-hard"})
HUMECTANT_PCT, POWDER_PCT, WAX_PCT, COLOUR_PCT, SCENT_PCT, LIQUID_OIL_PCT, SOLID_FAT_PCT = 12.0, 18.0, 3.0, 1.5, 0.6, 6.0, 5.0
LONG_DRYING_H, ORDINARY_PCT, RING, LOW_FOAM, DENSE_G_ML = 72.0, 50.0, 40.0, 40.0, 1.0
THIN_MM = 12.0  # from skin to heart [mm]
MUCH_WAX_PCT, DYE_PCT, HARSH_PCT, NEXT_TO_NO_EMULSIFIER = 12.0, 0.1, 12.0, 0.05
HARSH_FROM, MELTS_NEAR_ROOM_C = (
    90.0,
    4.0,
)  # irritation against SDS = 100; how much warmer than the room a fat has to melt to be firm
ACID_OF_SODA, SMALL_DOSE_G_L, WATERY = 0.3, 0.12, 0.3
WORD_ANSWERS = {
    "packed": ("hard", "light"), "sifted": ("yes", "no"), "wrapped": ("yes", "no"), "scent_browns": ("yes", "no"),
    "weighed": ("scale", "cups"), "stirred_while_pouring": ("yes", "no"), "way": ("crumbled", "held", "strainer", "whole"),
}  # fmt: skip
"""Answers that are one of a few words."""
BESIDE_A_FORMULA = frozenset({"hours_dried", "tub_l"})
"""Answers that are held against what the Desk says of the formula."""
SAME_DOUGH = (("felt-dry", "dough-dry"), ("felt-wet", "dough-wet"))
"""What hands found and what a reading says of the same dough: where they differ, hands go before the reading."""
DRY_STATES, WET_STATES = frozenset({"crumbly dough", "damp sand", "dust"}), frozenset({"sticky", "batter", "pour"})


NUMBER_ANSWERS: tuple[tuple[str, str, Callable[[float], bool]], ...] = (
    ("dough_c", "dough-warm", lambda v: v > WARM_DOUGH_C), ("dough_c", "dough-cold", lambda v: v < COLD_DOUGH_C),
    ("room_c", "room-warm", lambda v: v > WARM_ROOM_C), ("room_c", "room-cold", lambda v: v < COLD_ROOM_C),
    ("room_humidity_pct", "humid", lambda v: v >= HUMID_PCT), ("hours_in_mould", "mould-short", lambda v: v < SHORT_MOULD_H),
    ("weeks_open", "long-open", lambda v: v >= LONG_OPEN_WEEKS), ("re_worked", "re-worked", lambda v: v >= OFTEN),
    ("liquid_added_after_acid_g", "liquid-after-acid", lambda v: v > 0), ("bath_c", "bath-cool", lambda v: v < COOL_BATH_C),
)  # fmt: skip
"""Answers that are a number, the fact each settles, and when it holds."""
RANGES = {
    "dough_c": (-20.0, 150.0), "room_c": (-20.0, 60.0), "room_humidity_pct": (0.0, 100.0), "hours_in_mould": (0.0, 10_000.0),
    "hours_dried": (0.0, 10_000.0), "weeks_open": (0.0, 1_000.0), "re_worked": (0.0, 1_000.0),
    "liquid_added_after_acid_g": (0.0, 1e6), "tub_l": (1.0, 10_000.0), "bath_c": (5.0, 60.0),
}  # fmt: skip
"""Between what an answer that is a number can lie."""
ANSWERS = frozenset({*WORD_ANSWERS, *(key for key, _fact, _holds in NUMBER_ANSWERS), *BESIDE_A_FORMULA, "tap"})
"""All keys an answer may stand under."""


@dataclass(frozen=True, slots=True)
class Fact:
    """Something that is so, or is not."""

    id: str
    holds: bool
    source: str
    """batch, reading or answer."""


def facts_of(formula: Formula | None, tables: Tables, batch: Mapping[str, Any] | None, answers: Mapping[str, Any]) -> list[Fact]:
    """Return what is known, each fact once: an answer goes before the record, the record before a reading.

    Parameters
    ----------
    formula : Formula or None
        As made
    tables : Tables
        Reference tables and what the studio has learnt
    batch : Mapping or None
        The record of the batch
    answers : Mapping
        What was answered

    Returns
    -------
    list of Fact
        What cannot be said is left out

    Raises
    ------
    InputError
        If an answer cannot be meant.
    """
    told = None if formula is None else evaluate(formula, tables)
    found: dict[str, Fact] = {}
    sources = (
        ("answer", _answered(answers, told, tables.waters)), ("batch", _recorded(batch or {})),
        ("reading", iter(()) if told is None or formula is None else _read(formula, told, tables, _number(answers, "room_c"))),
    )  # fmt: skip
    for source, pairs in sources:
        for id_, holds in pairs:
            if holds is not None:
                found.setdefault(id_, Fact(id_, bool(holds), source))
    for by_hand, by_reading in SAME_DOUGH:
        if by_hand in found and by_reading in found and found[by_hand].holds != found[by_reading].holds:
            del found[by_reading]
    return list(found.values())


Pairs = Iterator[tuple[str, bool | None]]


def _number(answers: Mapping[str, Any], key: str) -> float | None:
    value = answers.get(key)
    if value is None:
        return None
    low, high = RANGES[key]
    if isinstance(value, bool) or not isinstance(value, int | float) or not low <= value <= high:
        raise InputError(f'"{key}" is a number from {low:g} to {high:g}.', quantity=key, value=str(value)[:40])
    return float(value)


def _answered(answers: Mapping[str, Any], told: Evaluation | None, taps: Collection[str]) -> Pairs:
    words = WORD_ANSWERS
    for key, choices in words.items():
        if answers.get(key) is not None and answers[key] not in choices:
            raise InputError(f'"{key}" is one of {", ".join(choices)}.', quantity=key, value=str(answers[key])[:40])
    said = {key: answers.get(key) for key in words}
    yield "packed-hard", None if said["packed"] is None else said["packed"] == "hard"
    yield "packed-light", None if said["packed"] is None else said["packed"] == "light"
    for key, fact, when in (
        ("sifted", "not-sifted", "no"), ("wrapped", "not-wrapped", "no"), ("scent_browns", "scent-browns", "yes"),
        ("weighed", "weighed-cups", "cups"), ("stirred_while_pouring", "not-stirred", "no"), ("way", "way-still", "whole"),
    ):  # fmt: skip
        yield fact, None if said[key] is None else said[key] == when
    tap = answers.get("tap")
    if tap is not None and tap not in taps:
        raise InputError(f'"tap" is one of {", ".join(taps)}.', quantity="tap", value=str(tap)[:40])
    yield "tap-hard", None if tap is None else tap in HARD_TAPS
    for key, fact, holds in NUMBER_ANSWERS:
        value = _number(answers, key)
        yield fact, None if value is None else holds(value)
    dried, tub_l = _number(answers, "hours_dried"), _number(answers, "tub_l")
    if dried is not None and told is not None and told.drying.hours:
        yield "dried-short", dried < told.drying.hours
    if tub_l and told is not None and told.assumed.dose_g:
        yield "dose-low", told.assumed.dose_g / tub_l < SMALL_DOSE_G_L


def _recorded(batch: Mapping[str, Any]) -> Pairs:
    state = batch.get("state")
    if not isinstance(state, Mapping):
        return
    conditions = state.get("conditions") or {}
    if isinstance(conditions.get("humidity_pct"), int | float):
        yield "humid", conditions["humidity_pct"] >= HUMID_PCT
    if isinstance(conditions.get("room_c"), int | float):
        yield "room-warm", conditions["room_c"] > WARM_ROOM_C
        yield "room-cold", conditions["room_c"] < COLD_ROOM_C
    weighings = [each for each in state.get("weighings") or [] if isinstance(each, Mapping)]
    if weighings:
        rescued = {each.get("step") for each in state.get("rescues") or [] if isinstance(each, Mapping)}
        off = [each for each in weighings if not each.get("within", True) and each.get("step") not in rescued]
        yield "weighing-off", bool(off)
        yield "weighed-cups", False
        over = [each["actual_g"] - each["target_g"] for each in off]
        yield "two-weighings-off", any(value > 0 for value in over) and any(value < 0 for value in over)
    steps = {step.get("key"): step for step in state.get("steps") or [] if isinstance(step, Mapping)}
    skipped = [key for key, _why in state.get("skipped") or [] if (steps.get(key) or {}).get("kind") == "weigh"]
    if steps:
        yield "line-left-out", bool(skipped)
        yield "lot-changed", bool(state.get("lots"))
    felt = [each.get("state") for each in state.get("felt") or [] if isinstance(each, Mapping)]
    if felt:
        yield "felt-dry", felt[-1] in DRY_STATES
        yield "felt-wet", felt[-1] in WET_STATES


def _read(formula: Formula, told: Evaluation, tables: Tables, room_c: float | None) -> Pairs:
    yield from _of_dough(told)
    yield from _of_lines(told, tables)
    yield from _of_fats(told, tables, formula.room.temperature_c if room_c is None else room_c)
    yield from _of_drying(formula, told, tables)
    yield "foam-low", None if told.lather.score is None else told.lather.score < LOW_FOAM
    yield "oil-high", None if told.feel.oil_g is None else told.feel.oil_g >= tables.parameters.feel.rich_from_g
    yield "ring-high", None if told.feel.ring is None else told.feel.ring > RING
    yield "bath-ph-high", None if told.bath.ph_soak is None else told.bath.ph_soak > PH_WARN[1]
    yield "harsh", None if told.skin.harshness_mg_l is None else told.skin.harshness_mg_l > lines_of_harshness(formula.product)[0]
    density = told.piece.density_g_ml
    yield "density-high", None if density is None else float(density) > DENSE_G_ML
    yield "piece-thin", told.assumed.half_thickness_mm < THIN_MM
    yield "one-dough", len(formula.portions) < 2  # noqa: PLR2004 - a half each
    yield "tap-hard", formula.use.hardness in HARD_TAPS if formula.use.hardness else None
    yield "humid", formula.room.humidity_pct >= HUMID_PCT if formula.room.humidity_pct is not None else None


def _of_drying(formula: Formula, told: Evaluation, tables: Tables) -> Pairs:
    """Tell a piece that dries slowly from one in air that lets nothing dry, by how the same piece dries in ordinary air.

    Only where it does not dry is the air's part certain; where it does, the air may have been damper later on.
    """
    slow = _dries_slowly(told)
    if formula.room.humidity_pct <= ORDINARY_PCT:
        yield "drying-long", slow
        return
    ordinary = replace(formula, room=replace(formula.room, humidity_pct=ORDINARY_PCT))
    elsewhere = _dries_slowly(evaluate(ordinary, tables))
    yield "drying-long", elsewhere
    yield "air-too-damp", True if slow and elsewhere is False else None


def _dries_slowly(told: Evaluation) -> bool | None:
    return None if told.drying.dries is None else not told.drying.dries or (told.drying.hours or 0.0) > LONG_DRYING_H


def _of_dough(told: Evaluation) -> Pairs:
    dough = told.dough or (told.portions[0].dough if told.portions else None)
    if dough is None or dough.saturation is None:
        return
    low, high = dough.wanted.saturation_low, dough.wanted.saturation_high
    yield "dough-dry", None if low is None else dough.saturation < low
    yield "dough-wet", None if high is None else dough.saturation > high


def _of_lines(told: Evaluation, tables: Tables) -> Pairs:
    items = [(tables.ingredients[line.ingredient], line.pct) for line in told.lines if line.ingredient in tables.ingredients]

    def share(*roles: str) -> float:
        return sum(pct for item, pct in items if item.role in roles)

    def natured(nature: str) -> float:
        return sum(pct for item, pct in items if item.has(nature))

    oils, emulsifier = share("oil", "butter"), share("emulsifier")
    yield "humectant-high", share("humectant") > HUMECTANT_PCT
    yield "surfactant-powder-high", natured("surfactant-powder") > POWDER_PCT
    waxy = sum(pct for item, pct in items if item.form == "wax")
    yield "wax-high", share("wax") > WAX_PCT or waxy > MUCH_WAX_PCT
    yield "colour-high", share("colorant") > COLOUR_PCT or natured("dye") >= DYE_PCT
    yield "harsh-surfactant", sum(pct for item, pct in items if _is_harsh(item)) > HARSH_PCT
    yield "scent-low", share("fragrance") < SCENT_PCT
    yield "liquid-oil-high", sum(pct for item, pct in items if item.role == "oil" and item.form == "liquid") > LIQUID_OIL_PCT
    yield "emulsifier-missing", oils > 1 and emulsifier <= NEXT_TO_NO_EMULSIFIER * oils
    yield "mica-bare", natured("mica") > 0 and emulsifier <= 0
    yield "dye-dry", natured("dye") > 0
    yield "sugar-on-it", natured("sugar") > 0
    yield "hardener-missing", share("starch", "clay", "butter") + natured("hardener") <= 0
    # What a crystal holds, as in Epsom salt, stays in it.
    watery = sum(pct for item, pct in items if item.is_liquid and (item.water_fraction or 0.0) > WATERY)
    yield "acid-and-water", natured("fast-acid") > 0 and watery > 0
    soda = share("base")
    yield "acid-low", share("acid") < ACID_OF_SODA * soda if soda > 0 else None


def _is_harsh(item: Ingredient) -> bool:
    """Whether a surfactant irritates nearly as much as sodium lauryl sulfate."""
    return item.surfactant is not None and item.surfactant.irritation_rel >= HARSH_FROM


def _of_fats(told: Evaluation, tables: Tables, room_c: float) -> Pairs:
    """Whether there is next to no fat that stays solid in the room: coconut fat is none in a warm one."""
    known = [(tables.ingredients[line.ingredient], line.pct) for line in told.lines if line.ingredient in tables.ingredients]
    solid = sum(
        pct for item, pct in known
        if item.is_fat and item.melt_high_c is not None and item.melt_high_c > room_c + MELTS_NEAR_ROOM_C
    )  # fmt: skip
    yield "solid-fat-low", solid < SOLID_FAT_PCT
    molten = sum(
        pct for item, pct in known
        if item.form == "solid-fat" and item.melt_high_c is not None and item.melt_high_c <= room_c
    )  # fmt: skip
    yield "fat-melts-here", molten > SOLID_FAT_PCT
