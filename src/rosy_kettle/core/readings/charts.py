"""The curves behind the readings, as tables of figures to be drawn."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from rosy_kettle.core.amounts import weigh_formula
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import dough_fault, setting_of
from rosy_kettle.core.mixing.solid_fat import curve_solid_fraction
from rosy_kettle.core.models.dough.readings import fresh_texture
from rosy_kettle.core.models.fats.cooling import CoolingClock, cooling_clock
from rosy_kettle.core.models.fats.mix_temperature import mix_temperature
from rosy_kettle.core.models.lather.foam import Foam
from rosy_kettle.core.models.lather.over_time import foam_after
from rosy_kettle.core.models.lather.readings import read_lather
from rosy_kettle.core.parameters.mixing import MixingParameters
from rosy_kettle.core.readings.evaluate import evaluate
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula, Ingredient, Tables
from rosy_kettle.core.records.evaluation import DoughPoint

__all__ = ["BathStage", "Charts", "FatCurve", "FoamPoint", "SolidPoint", "charts_of"]

FOAM_MINUTES = range(0, 61, 2)
FAT_TEMPERATURES_C = np.arange(10.0, 61.0)


@dataclass(frozen=True, slots=True)
class FoamPoint:
    """Foam some minutes after the tap was opened."""

    minutes: float
    litres: float


@dataclass(frozen=True, slots=True)
class BathStage:
    """pH at one stage of the bath; low and high are its band."""

    stage: str
    ph: float | None
    low: float | None
    high: float | None


@dataclass(frozen=True, slots=True)
class SolidPoint:
    """Solid share of fat and oil at a temperature."""

    temperature_c: float
    solid_pct: float


@dataclass(frozen=True, slots=True)
class FatCurve:
    """One fat of the formula by its own table."""

    name: str
    points: tuple[SolidPoint, ...]


@dataclass(frozen=True, slots=True)
class Charts:
    """Everything that can be drawn of one formula; empty where it says nothing."""

    texture: tuple[DoughPoint, ...]
    texture_fresh: tuple[DoughPoint, ...]
    wanted_states: tuple[str, ...]
    room_c: float
    bath_c: float
    judged_c: float
    working_window_c: tuple[float, float] | None
    window_reason: str | None
    cooling: CoolingClock | None
    bath: tuple[BathStage, ...]
    foam: tuple[FoamPoint, ...]
    solid: tuple[SolidPoint, ...]
    fats: tuple[FatCurve, ...]


BATH_STAGES = (("fresh", "ph_fresh"), ("step-in", "ph_stepin"), ("after 20 min", "ph_soak"), ("aired", "ph_aired"))
"""Stage, and the key of its pH."""


def charts_of(formula: Formula, tables: Tables, portion: int = 0) -> Charts:
    """Return the curves of a formula, its dough's those of one portion.

    Parameters
    ----------
    formula : Formula
        The formula as typed
    tables : Tables
        Reference tables
    portion : int
        Index of the portion whose dough is drawn [-]

    Returns
    -------
    Charts
        Figures to be drawn

    Raises
    ------
    InputError
        If nothing is weighed yet.
    """
    weighed, _ = weigh_formula(formula, tables)
    part = [item for item in weighed if len(formula.portions) <= 1 or item.portion == portion]
    mass_g = np.array([item.mass_g for item in part])
    if not mass_g.sum() > 0:
        raise InputError("Nothing is weighed yet, so there is nothing to draw.", quantity="lines")
    result = evaluate(formula, tables)
    whole = result.portions[portion] if result.portions else result
    setting = setting_of(formula, tables, float(mass_g.sum()))
    mix = setting.mix(make_palette([item.ingredient for item in part], tables.parameters), mass_g)
    dough = whole.dough
    window = dough.working_window_c if dough else None
    mixed_c = mix_temperature(mix, setting.wet_c, setting.assumed.room_c, setting.bowl_j_k)
    clock = None
    if window is not None and mixed_c > setting.assumed.room_c + 1:
        clock = cooling_clock(mix, mixed_c, window, setting.assumed.room_c, setting.bowl_j_k)
    try:
        lather = read_lather(mix, np.zeros(mass_g.size), setting)
        made = Foam(lather.foam_l or 0.0, 0.0, 0.0, 0.0, lather.half_life_min or 0.0, over_the_rim=False)
        p = tables.parameters.lather
        foam = tuple(FoamPoint(float(t), foam_after(made, float(t), p)) for t in FOAM_MINUTES) if made.litres else ()
    except MissingDataError:
        foam = ()
    return Charts(
        texture=dough.by_temperature if dough else (),
        texture_fresh=fresh_texture(mix) if dough_fault(mix) is None else (),
        wanted_states=dough.wanted.states if dough else (),
        room_c=setting.assumed.room_c,
        bath_c=setting.assumed.bath_c,
        judged_c=setting.judged_c,
        working_window_c=window,
        window_reason=dough.window_reason if dough else None,
        cooling=clock,
        bath=tuple(_stage(name, getattr(result.bath, key), f"bath.{key}") for name, key in BATH_STAGES),
        foam=foam,
        solid=tuple(SolidPoint(float(t), 100 * mix.solid_share(float(t))) for t in FAT_TEMPERATURES_C) if mix.fat_g > 0 else (),
        fats=tuple(
            _fat_curve(item, tables.parameters.mixing)
            for item in dict.fromkeys(item.ingredient for item in part if item.mass_g > 0)
            if item.tempered_fat is not None
        ),
    )  # fmt: skip


def _stage(name: str, ph: float | None, path: str) -> BathStage:
    half = declared()[path].half_width or 0.0
    return BathStage(name, ph, None if ph is None else ph - half, None if ph is None else ph + half)


def _fat_curve(item: Ingredient, p: MixingParameters) -> FatCurve:
    assert item.tempered_fat is not None  # noqa: S101 - only fats are asked
    solid = curve_solid_fraction(item.tempered_fat, item.melt_high_c, FAT_TEMPERATURES_C, p)
    rows = zip(FAT_TEMPERATURES_C.tolist(), (100 * solid).tolist(), strict=True)
    return FatCurve(item.short_name, tuple(SolidPoint(*row) for row in rows))
