"""Readings of one dose in the tub and of one finished piece, each null with its reason where it cannot be said."""

from __future__ import annotations

from dataclasses import dataclass

from rosy_kettle.core.aqueous.bath_water import CHECKED_STRENGTH, LARGEST_STRENGTH, bath_ph
from rosy_kettle.core.drying import drying_time
from rosy_kettle.core.errors import MissingDataError
from rosy_kettle.core.fats.mix_temperature import mix_temperature
from rosy_kettle.core.feel import bath_feel
from rosy_kettle.core.firmness import piece_firmness
from rosy_kettle.core.lather import foam
from rosy_kettle.core.mix import Mix
from rosy_kettle.core.palette import require
from rosy_kettle.core.pieces import mix_true_density, packing_fraction
from rosy_kettle.core.pieces.floating import float_verdict
from rosy_kettle.core.records import Formula, Method, Tables
from rosy_kettle.core.records.evaluation import (
    Assumed,
    Bath,
    Dry,
    Feel,
    Firmness,
    Lather,
    Missing,
    OutOfRange,
    PieceReading,
    Release,
    Skin,
)
from rosy_kettle.core.release import release_minutes
from rosy_kettle.core.skin import harshness, scent_share

__all__ = ["TubReadings", "read_tub"]

SCORE_BAND = 12.0  # 90 % band of the foam score [points]; estimate
EVAPORATES = 0.9  # share of the free water that leaves a piece [-]; common practice
CITRIC_G_MOL = 192.124  # [g/mol]; IUPAC standard atomic weights


@dataclass(frozen=True, slots=True)
class TubReadings:
    """Everything that one dose and one piece say."""

    mix_temperature_c: float
    bath: Bath
    lather: Lather
    firmness: Firmness
    release: Release
    drying: Dry
    feel: Feel
    skin: Skin
    piece: PieceReading
    missing: tuple[Missing, ...]
    out_of_range: tuple[OutOfRange, ...]


def read_tub(
    mix: Mix, formula: Formula, method: Method, assumed: Assumed, tables: Tables, brisk_mol: float, lather: Lather, *,
    dough_known: bool,
) -> TubReadings:  # fmt: skip
    """Return every reading of a dose and a piece.

    Parameters
    ----------
    mix : Mix
        The formula
    formula : Formula
        For the tub, the room and the certificates
    method : Method
        How the dough is worked
    assumed : Assumed
        Piece, dose and way
    tables : Tables
        Reference tables
    brisk_mol : float
        Brisk gas of the batch [mol]
    lather : Lather
        Active surfactant, to be completed with foam
    dough_known : bool
        Whether every powder's liquid demand and every liquid's density is known

    Returns
    -------
    TubReadings
        Readings; what cannot be said is None and explained in ``missing``
    """
    missing: list[Missing] = []
    brisk_per_100_g = 100 * brisk_mol / mix.total_g
    bath, out_of_range = _bath(mix, formula, assumed, tables)
    known = lather.active_g is not None
    return TubReadings(
        mix_temperature_c=_mix_temperature(mix, formula, method),
        bath=bath,
        lather=_lather(mix, formula, assumed, tables, brisk_per_100_g, lather) if known else lather,
        firmness=_firmness(mix, method, assumed) if dough_known else Firmness(),
        release=_release(mix, assumed, missing),
        drying=_drying(mix, method, assumed) if dough_known else Dry(),
        feel=_feel(mix, assumed) if known else Feel(),
        skin=_skin(mix, formula, assumed, known, missing),
        piece=_piece(mix, method, assumed, brisk_per_100_g, missing) if dough_known else PieceReading(),
        missing=tuple(missing),
        out_of_range=out_of_range,
    )


def _mix_temperature(mix: Mix, formula: Formula, method: Method) -> float:
    wet_c = formula.heat.wet_c if formula.heat.wet_c is not None else method.wet_c
    bowl_j_k = method.bowl_j_k if formula.heat.bowl_j_k is None else formula.heat.bowl_j_k
    room_c = formula.room.temperature_c
    return mix_temperature(mix, room_c if wet_c is None else wet_c, room_c, bowl_j_k)


def _bath(mix: Mix, formula: Formula, assumed: Assumed, tables: Tables) -> tuple[Bath, tuple[OutOfRange, ...]]:
    water = tables.waters[formula.use.hardness]
    alkalinity = water.alkalinity_mg_l_caco3 if formula.use.alkalinity_mg_l is None else formula.use.alkalinity_mg_l
    tap_ph = water.ph if formula.use.tap_ph is None else formula.use.tap_ph
    share = assumed.dose_g / mix.total_g
    ph = bath_ph(
        [(item, mass_g * share) for item, mass_g in mix.items()], assumed.tub_l, assumed.bath_c, alkalinity, tap_ph, tables
    )
    bath = Bath(ph.fresh, ph.stepin, ph.soak, ph.aired, ph.ionic_strength_mol_l)
    if ph.ionic_strength_mol_l > LARGEST_STRENGTH:
        return Bath(ionic_strength_mol_l=ph.ionic_strength_mol_l), (
            OutOfRange("bath.ph_fresh", f"ionic strength {ph.ionic_strength_mol_l:.2f} mol/L is above {LARGEST_STRENGTH:g}"),
        )
    if ph.ionic_strength_mol_l > CHECKED_STRENGTH:
        return bath, (
            OutOfRange(
                "bath.ph_fresh", f"ionic strength {ph.ionic_strength_mol_l:.2f} mol/L is above {CHECKED_STRENGTH:g}: not checked"
            ),
        )
    return bath, ()


def _lather(mix: Mix, formula: Formula, assumed: Assumed, tables: Tables, brisk_per_100_g: float, lather: Lather) -> Lather:
    citric_g = sum(mass_g for item, mass_g in mix.items() if item.acid is not None and item.acid.system == "citric")
    citrate_mmol_l = 1000 * citric_g * assumed.dose_g / mix.total_g / CITRIC_G_MOL / assumed.tub_l
    made = foam(
        mix, assumed.dose_g, assumed.tub_l, formula.use.tub_area_m2, assumed.bath_c,
        tables.waters[formula.use.hardness].hardness_mg_l_caco3, citrate_mmol_l, brisk_per_100_g, assumed.way,
    )  # fmt: skip
    band = (max(0.0, made.score - SCORE_BAND), min(100.0, made.score + SCORE_BAND)) if made.litres > 0 else (0.0, 0.0)
    return Lather(
        active_g=lather.active_g, active_band_g=lather.active_band_g, active_piece_g=lather.active_piece_g,
        concentration_mg_l=lather.concentration_mg_l, foam_l=made.litres, score=made.score, score_band=band,
        height_cm=made.height_cm, character=made.character, half_life_min=made.half_life_min,
    )  # fmt: skip


def _firmness(mix: Mix, method: Method, assumed: Assumed) -> Firmness:
    if method.id == "loose-dust":
        return Firmness()
    at = [piece_firmness(mix, t, assumed.room_c, assumed.packing, kneaded=method.kneaded) for t in (20.0, 30.0)]
    return Firmness(*at)


def _release(mix: Mix, assumed: Assumed, missing: list[Missing]) -> Release:
    minutes = release_minutes(mix, assumed.half_thickness_mm, assumed.way, assumed.bath_c, assumed.room_c, assumed.packing)
    if minutes is None:
        missing.append(Missing("release.minutes", None, None, f"does not go at {assumed.bath_c:g} °C; it needs a warmer bath"))
    return Release(minutes)


def _drying(mix: Mix, method: Method, assumed: Assumed) -> Dry:
    dry = drying_time(mix, assumed.half_thickness_mm, assumed.room_c, assumed.humidity_pct, loose=method.id == "loose-dust")
    return Dry(dry.hours, dry.low_hours, dry.high_hours, dry.dries, dry.reason)


def _feel(mix: Mix, assumed: Assumed) -> Feel:
    felt = bath_feel(mix, assumed.dose_g, assumed.tub_l, assumed.bath_c)
    return Feel(felt.oil_g, felt.free_oil_g, felt.ring, felt.slip, felt.tint, felt.cloud, felt.stain)


def _skin(mix: Mix, formula: Formula, assumed: Assumed, active_known: bool, missing: list[Missing]) -> Skin:
    hard = harshness(mix, assumed.dose_g, assumed.tub_l) if active_known else None
    certificates = formula.product.get("certificates")
    dried = 1 - EVAPORATES * mix.water_share - mix.alcohol_share
    try:
        return Skin(hard, scent_share(mix, certificates if isinstance(certificates, dict) else {}, dried))
    except MissingDataError as error:
        missing.append(Missing("skin.scent_share", str(error.facts["ingredient"]), str(error.facts["property"]), error.message))
        return Skin(hard, None)


def _piece(mix: Mix, method: Method, assumed: Assumed, brisk_per_100_g: float, missing: list[Missing]) -> PieceReading:
    judged_c = assumed.room_c if method.judged_at_c is None else method.judged_at_c
    try:
        require(mix.palette, mix.palette.true_volume_ml_g, mix.mass_g > 0, "true_density_g_ml")
    except MissingDataError as error:
        missing.append(Missing("piece.density_g_ml", str(error.facts["ingredient"]), str(error.facts["property"]), error.message))
        return PieceReading()
    density = mix_true_density(mix.palette, mix.mass_g) * packing_fraction(assumed.packing, mix.saturation(judged_c))
    if assumed.packing in {"loose", "poured"}:
        return PieceReading(density, None)
    return PieceReading(density, float_verdict(density, 2 * assumed.half_thickness_mm, brisk_per_100_g, mix.oily_share))
