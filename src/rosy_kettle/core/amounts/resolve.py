"""From the lines of a formula to grams: weights, volumes, parts and per cent together."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.amounts.entry import parse_amount
from rosy_kettle.core.amounts.units import SHARE_UNITS, UNITS, grams_from_entry, relative_spread
from rosy_kettle.core.errors import InputError, MissingDataError, WorkbenchError
from rosy_kettle.core.records import Formula, Ingredient, Line, Portion, Tables

__all__ = ["Weighed", "weigh_formula"]

HEAVIEST_LINE_G = 1_000_000.0  # 1 000 kg on one line is a slip [g]
LIGHTEST_LINE_G = 1e-9  # less than this counts as nothing [g]
SHARES_NEARLY_ALL_PCT = 100.0 - 1e-9  # per cent lines that leave no room for weighed ones


@dataclass(frozen=True, slots=True)
class Weighed:
    """A line of a known ingredient with its mass and the spread of that mass."""

    portion: int
    """Index of its portion in the formula."""
    position: int
    """Index of the line among all lines of the formula."""
    line: Line
    ingredient: Ingredient
    mass_g: float
    spread: float
    """Half width of the mass band as a share [-]."""


@dataclass(frozen=True, slots=True)
class _Entry:
    portion: int
    position: int
    line: Line
    ingredient: Ingredient
    amount: float


def weigh_formula(formula: Formula, tables: Tables) -> tuple[tuple[Weighed, ...], tuple[MissingDataError, ...]]:
    """Turn every line of a formula into grams.

    Per cent and part lines share ``batch_g``, or the mass of their own portion. Weighed lines beside per
    cent are the rest to 100 %. A portion with its own mass or share is scaled to it.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables

    Returns
    -------
    tuple
        The weighed lines in order, and what could not be weighed for want of a cup weight

    Raises
    ------
    InputError
        If a line cannot be meant; the message names the line and the field.
    """
    entries = _entries(formula, tables)
    missing: list[MissingDataError] = []
    weighed: list[Weighed] = []
    pooled = [index for index, portion in enumerate(formula.portions) if _own_mass(portion, formula.batch_g) is None]
    groups = [pooled, *([index] for index in range(len(formula.portions)) if index not in pooled)]
    for group in groups:
        members = [entry for entry in entries if entry.portion in group]
        own_mass_g = _own_mass(formula.portions[group[0]], formula.batch_g) if group and group != pooled else None
        weighed += _weigh_group(members, own_mass_g, formula.batch_g, tables.spray_ml, missing)
    return tuple(sorted(weighed, key=lambda item: item.position)), tuple(missing)


def _own_mass(portion: Portion, batch_g: float) -> float | None:
    if portion.mass_g is not None:
        return portion.mass_g
    return None if portion.share_pct is None else batch_g * portion.share_pct / 100


def _entries(formula: Formula, tables: Tables) -> list[_Entry]:
    entries: list[_Entry] = []
    position = -1
    for portion_index, portion in enumerate(formula.portions):
        for line in portion.lines:
            position += 1
            amount = _read_amount(line, position)
            if line.ingredient is not None:
                ingredient = tables.ingredients.get(line.ingredient)
                if ingredient is None:
                    said = f'"{line.text or line.ingredient}" is not known to this version; choose another ingredient for it.'
                    raise InputError(said, quantity="ingredient")
                entries.append(_Entry(portion_index, position, line, ingredient, amount))
    return entries


def _read_amount(line: Line, position: int) -> float:
    label = line.ingredient or line.text or "unknown"
    if line.unit not in UNITS:
        raise InputError(
            f'Line {position + 1} ({label}): unit must be one of {", ".join(UNITS)}, got "{line.unit[:40]}".',
            quantity="unit", value=line.unit[:40], line=position + 1,
        )  # fmt: skip
    try:
        return parse_amount(line.amount)
    except InputError as error:
        raise InputError(f"Line {position + 1} ({label}): amount {error.message}.", **error.facts, line=position + 1) from error


def _weigh_group(
    entries: list[_Entry], own_mass_g: float | None, batch_g: float, spray_ml: float, missing: list[MissingDataError]
) -> list[Weighed]:
    total_g = batch_g if own_mass_g is None else own_mass_g
    fixed_g: dict[int, float] = {}
    for entry in entries:
        if entry.line.unit in SHARE_UNITS:
            continue
        try:
            fixed_g[entry.position] = grams_from_entry(entry.amount, entry.line.unit, entry.ingredient, spray_ml)
        except MissingDataError as error:
            missing.append(error)
        except InputError as error:
            raise _on_line(error, entry) from error
    shares_g = _share_masses(entries, sum(fixed_g.values()), total_g)
    masses_g = fixed_g | shares_g
    scale = own_mass_g / sum(masses_g.values()) if own_mass_g is not None and sum(masses_g.values()) > 0 else 1.0
    result = []
    for entry in entries:
        if entry.position not in masses_g:
            continue
        mass_g = masses_g[entry.position] * scale
        if mass_g < LIGHTEST_LINE_G:
            mass_g = 0.0
        if mass_g > HEAVIEST_LINE_G:
            raise _on_line(InputError("amount must be 1 000 kg at most", quantity="amount", value=entry.line.amount), entry)
        spread = relative_spread(entry.line.unit, entry.ingredient)
        result.append(Weighed(entry.portion, entry.position, entry.line, entry.ingredient, mass_g, spread))
    return result


def _share_masses(entries: list[_Entry], fixed_g: float, total_g: float) -> dict[int, float]:
    parts = [entry for entry in entries if entry.line.unit == "part"]
    percents = [entry for entry in entries if entry.line.unit == "pct"]
    percent_sum = sum(entry.amount for entry in percents)
    if parts and fixed_g > 0:
        raise _on_line(
            InputError("parts cannot stand beside weights; give every line a weight, or every line parts", quantity="unit"),
            parts[0],
        )
    if percents and (fixed_g > 0 or any(entry.amount for entry in parts)) and percent_sum >= SHARES_NEARLY_ALL_PCT:
        raise _on_line(
            InputError(f"the per cent lines add up to {percent_sum:g} %, which leaves nothing for the other lines",
                       quantity="amount", value=percent_sum),
            percents[-1],
        )  # fmt: skip
    whole_g = fixed_g / (1 - percent_sum / 100) if percents and fixed_g > 0 else total_g
    masses = {entry.position: whole_g * entry.amount / 100 for entry in percents}
    part_sum = sum(entry.amount for entry in parts)
    for entry in parts:
        masses[entry.position] = (whole_g * (1 - percent_sum / 100)) * entry.amount / part_sum if part_sum else 0.0
    return masses


def _on_line(error: WorkbenchError, entry: _Entry) -> InputError:
    label = entry.ingredient.short_name
    return InputError(f"Line {entry.position + 1} ({label}): {error.message}.", **error.facts, line=entry.position + 1)
