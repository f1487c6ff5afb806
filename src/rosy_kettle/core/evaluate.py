"""All readings of one formula: the one entry point of the core for the Desk and the command line."""

from __future__ import annotations

from collections import Counter
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from rosy_kettle.core.amounts import Weighed, weigh_formula
from rosy_kettle.core.aqueous.gas_release import co2_volume_l, gas_release
from rosy_kettle.core.cost.formula_cost import formula_cost, shown
from rosy_kettle.core.dough_readings import SCAN_C, dough_fault, read_dough
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.lather import active_share, tub_concentration
from rosy_kettle.core.mix import Mix, make_mix
from rosy_kettle.core.palette import FloatArray, Palette, make_palette
from rosy_kettle.core.pieces import batch_loss
from rosy_kettle.core.records import Formula, Method, Tables
from rosy_kettle.core.records.evaluation import (
    Assumed,
    Bath,
    Cost,
    Dry,
    Evaluation,
    Feel,
    Firmness,
    Fizz,
    Lather,
    LineMass,
    Missing,
    OutOfRange,
    PieceReading,
    Release,
    Skin,
)
from rosy_kettle.core.tub_readings import TubReadings, read_tub

__all__ = ["assumed_settings", "evaluate"]

CO2_G_MOL = 44.009  # molar mass of carbon dioxide [g/mol]; IUPAC standard atomic weights
TUB_READINGS = ("bath", "firmness", "release.minutes", "drying", "feel", "skin", "piece.density_g_ml")


def assumed_settings(formula: Formula, method: Method, mass_g: float) -> Assumed:
    """Return the piece, the bath and the room a formula is judged in.

    Parameters
    ----------
    formula : Formula
        What the maker said
    method : Method
        What stands in for the rest
    mass_g : float
        Batch mass, for the loss [g]

    Returns
    -------
    Assumed
        Settings with their units in their names
    """
    piece, use = formula.piece, formula.use
    return Assumed(
        method=method.id,
        piece_mass_g=method.piece_mass_g if piece.mass_g is None else piece.mass_g,
        half_thickness_mm=method.half_thickness_mm if piece.half_thickness_mm is None else piece.half_thickness_mm,
        packing=piece.packing or method.packing,
        dose_g=method.dose_g if use.dose_g is None else use.dose_g,
        way=use.way or method.way,
        tub_l=use.tub_l,
        bath_c=use.bath_c,
        room_c=formula.room.temperature_c,
        humidity_pct=formula.room.humidity_pct,
        loss_fraction=batch_loss(method.loss_fraction, mass_g),
    )


def evaluate(formula: Formula, tables: Tables) -> Evaluation:
    """Return every reading of a formula.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables and the studio's prices

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
    whole = _evaluate_lines(formula, tables, weighed, with_dough=len(formula.portions) <= 1, name=formula.name)
    missing = [*whole.missing, *_unknown_lines(formula)]
    missing += [Missing("mass_g", str(e.facts["ingredient"]), str(e.facts["property"]), e.message) for e in unweighed]
    portions: tuple[Evaluation, ...] = ()
    if len(formula.portions) > 1:
        portions = tuple(
            _evaluate_lines(
                formula, tables, [item for item in weighed if item.portion == index], with_dough=True, name=portion.name
            )
            for index, portion in enumerate(formula.portions)
        )
    return replace(whole, portions=portions, missing=tuple(missing), notes=_notes(weighed))


def _evaluate_lines(formula: Formula, tables: Tables, weighed: Sequence[Weighed], *, with_dough: bool, name: str) -> Evaluation:
    method = tables.methods[formula.method]
    palette = make_palette([item.ingredient for item in weighed])
    mass_g = np.array([item.mass_g for item in weighed], dtype=np.float64)
    spread = np.array([item.spread for item in weighed], dtype=np.float64)
    total_g = float(mass_g.sum())
    assumed = assumed_settings(formula, method, total_g)
    missing: list[Missing] = []
    judged_c = assumed.room_c if method.judged_at_c is None else method.judged_at_c
    mix = make_mix(palette, mass_g, (judged_c, assumed.room_c)) if total_g > 0 else None
    dough = read_dough(mix, spread, method, assumed, judged_c, missing) if with_dough else None
    fizz = _fizz(palette, mass_g, assumed, missing)
    lather = _lather(palette, mass_g, spread, assumed, missing)
    cost, line_costs = _cost(weighed, tables, assumed, missing)
    tub = _tub(mix, formula, method, assumed, tables, lather, missing)
    if tub is not None and dough is not None:
        dough = replace(dough, mix_temperature_c=tub.mix_temperature_c)
    return Evaluation(
        name=name,
        mass_g=total_g,
        lines=_line_masses(weighed, total_g, line_costs),
        dough=dough,
        fizz=fizz,
        bath=tub.bath if tub else Bath(),
        lather=tub.lather if tub else lather,
        firmness=tub.firmness if tub else Firmness(),
        release=tub.release if tub else Release(),
        drying=tub.drying if tub else Dry(),
        feel=tub.feel if tub else Feel(),
        skin=tub.skin if tub else Skin(),
        piece=tub.piece if tub else PieceReading(),
        cost=cost,
        assumed=assumed,
        portions=(),
        notes=(),
        missing=tuple(missing),
        out_of_range=_out_of_range(assumed) + (tub.out_of_range if tub else ()),
    )


def _tub(
    mix: Mix | None, formula: Formula, method: Method, assumed: Assumed, tables: Tables, lather: Lather, missing: list[Missing]
) -> TubReadings | None:
    if mix is None:
        missing += [Missing(reading, None, None, "the formula is empty") for reading in TUB_READINGS]
        return None
    brisk_mol = gas_release(mix.palette, mix.mass_g).brisk_co2_mol
    fault = dough_fault(mix)
    tub = read_tub(mix, formula, method, assumed, tables, brisk_mol, lather, dough_known=fault is None)
    missing += tub.missing
    if fault is not None:
        missing += [_missing(reading, fault) for reading in ("firmness", "drying", "piece.density_g_ml")]
    if lather.active_g is None:
        lather_fault = next(item for item in missing if item.reading == "lather.active_g")
        missing += [replace(lather_fault, reading=reading) for reading in ("feel", "skin.harshness_mg_l")]
    return tub


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


def _fizz(palette: Palette, mass_g: FloatArray, assumed: Assumed, missing: list[Missing]) -> Fizz:
    if not mass_g.sum() > 0:
        missing.append(Missing("fizz.co2_mol", None, None, "the formula is empty"))
        return Fizz(None, None, None, None, None, None, None, None)
    gas = gas_release(palette, mass_g)
    litres = co2_volume_l(gas.co2_mol, assumed.bath_c)
    return Fizz(
        co2_mol=gas.co2_mol,
        co2_g=gas.co2_mol * CO2_G_MOL,
        co2_l=litres,
        co2_piece_l=litres * assumed.piece_mass_g / float(mass_g.sum()),
        brisk_co2_l=co2_volume_l(gas.brisk_co2_mol, assumed.bath_c),
        limiting=gas.limiting,
        base_to_acid=gas.base_to_acid,
        bicarbonate_left_g=gas.bicarbonate_left_g,
    )


def _lather(palette: Palette, mass_g: FloatArray, spread: FloatArray, assumed: Assumed, missing: list[Missing]) -> Lather:
    if not mass_g.sum() > 0:
        missing.append(Missing("lather.active_g", None, None, "the formula is empty"))
        return Lather(None, None, None, None)
    try:
        share = active_share(palette, mass_g)
    except MissingDataError as error:
        missing.append(_missing("lather.active_g", error))
        return Lather(None, None, None, None)
    active_g = share * assumed.dose_g
    slopes = (palette.active_fraction - share) * mass_g / float(mass_g.sum())
    half_width = float(np.sqrt(((slopes * spread) ** 2).sum())) * assumed.dose_g
    return Lather(
        active_g=active_g,
        active_band_g=(max(0.0, active_g - half_width), active_g + half_width),
        active_piece_g=share * assumed.piece_mass_g,
        concentration_mg_l=tub_concentration(active_g, assumed.tub_l),
    )


def _cost(weighed: Sequence[Weighed], tables: Tables, assumed: Assumed, missing: list[Missing]) -> tuple[Cost, list[str | None]]:
    try:
        cost = formula_cost(
            [(item.ingredient, item.mass_g) for item in weighed],
            tables.price_per_kg,
            assumed.piece_mass_g,
            assumed.dose_g,
            assumed.loss_fraction,
        )
    except MissingDataError as error:
        missing.append(_missing("cost", error))
        return Cost("USD", None, None, None, "reference"), [None] * len(weighed)
    if cost.piece is None:
        missing.append(Missing("cost", None, None, "the formula is empty"))
        return Cost(cost.currency, None, None, None, cost.basis), [shown(line) for line in cost.lines]
    total = Cost(cost.currency, shown(cost.batch), shown(cost.piece), shown(cost.bath), cost.basis)
    return total, [shown(line) for line in cost.lines]


def _missing(reading: str, error: MissingDataError) -> Missing:
    return Missing(reading, str(error.facts["ingredient"]), str(error.facts["property"]), error.message)


def _unknown_lines(formula: Formula) -> list[Missing]:
    return [
        Missing("lines", None, None, f'Line {index + 1} ("{line.text}") is not understood and is left out')
        for index, line in enumerate(formula.lines)
        if line.ingredient is None
    ]


def _notes(weighed: Sequence[Weighed]) -> tuple[str, ...]:
    counts = Counter(item.ingredient.short_name for item in weighed)
    return tuple(f"{name} stands on {count} lines; all of them count." for name, count in counts.items() if count > 1)


def _out_of_range(assumed: Assumed) -> tuple[OutOfRange, ...]:
    if SCAN_C[0] <= assumed.room_c <= SCAN_C[-1]:
        return ()
    return (OutOfRange("dough.saturation", f"room temperature {assumed.room_c:g} °C is outside 10 to 60 °C"),)
