"""What readings give rise to beyond their own figures, as codes with their facts."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.fats.eutectic import eutectic_product
from rosy_kettle.core.records.evaluation import Advice, Dough, Fizz, Lather, PieceReading
from rosy_kettle.core.words.advice import advice_words

__all__ = ["advise"]

SPENT_SHARE, PRESS_WATER_SHARE = 0.10, 0.02  # acid spent while making; free water of a pressed mix [-]; common practice
PUFF_NOTE_PCT, PUFF_WARN_PCT = 5.0, 15.0  # lift that shows, and that lifts the mould's lid [%]; common practice
FLECKS_SHARE = 0.03  # fat still solid in the bath that shows as flecks [-]; common practice
WET_SALT_SHARE = 0.60  # coarse crystals among the powders that make it read as wet salt [-]; common practice
WATER_BAND, WATER_MOST = (0.05, 0.12), 0.015  # damp sand by water: S and free water [-]; common practice
ALCOHOL_BAND, OIL_BAND = (0.08, 0.25), (0.12, 0.25)  # damp sand by alcohol and by oil alone: S [-]; common practice


def advise(
    mix: Mix, setting: Setting, fizz: Fizz, dough: Dough | None, lather: Lather, piece: PieceReading
) -> tuple[Advice, ...]:
    """Return what a maker would want to be told beside the figures.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Method, bath
    fizz : Fizz
        For what is spent while making
    dough : Dough or None
        Texture, puff
    lather : Lather
        Foam
    piece : PieceReading
        Float

    Returns
    -------
    tuple
        Sentences with their reading and severity
    """
    found = [*_spent(mix, setting, fizz), *_fats(mix, setting), *_of_dough(mix, setting, dough)]
    if lather.over_the_rim:
        found.append(_advice("lather.foam_l", "note", "foam_over_rim"))
    if piece.float == "may":
        found.append(_advice("piece.float", "note", "may_float"))
    return tuple(found)


def _spent(mix: Mix, setting: Setting, fizz: Fizz) -> list[Advice]:
    share = fizz.prereaction_share
    wet = mix.water_share > PRESS_WATER_SHARE and not setting.dried_first
    pressed = setting.method.pressed and wet and share is not None
    if share is None or (share <= SPENT_SHARE and not pressed):
        return []
    code = "acid_spent_pressed" if pressed else "acid_spent"
    return [_advice("fizz.prereaction_share", "warn", code, spent_pct=100 * share)]


def _fats(mix: Mix, setting: Setting) -> list[Advice]:
    found = []
    if eutectic_product(mix) >= mix.parameters.fats.eutectic_that_matters:
        found.append(_advice("firmness.at_20_c", "note", "fats_soften_each_other"))
    left = mix.solid_fat_g(setting.assumed.bath_c)
    if mix.fat_g > 0 and left > FLECKS_SHARE * mix.fat_g:
        solid_pct = 100 * left / mix.fat_g
        found.append(_advice("feel.ring", "note", "fat_flecks", solid_pct=solid_pct, bath_c=setting.assumed.bath_c))
    return found


def _of_dough(mix: Mix, setting: Setting, dough: Dough | None) -> list[Advice]:
    if dough is None:
        return []
    found = []
    lift = dough.puff_pct or 0.0
    worked = "kneaded" if setting.method.kneaded else "filled"
    if lift > PUFF_WARN_PCT:
        found.append(_advice("dough.puff_pct", "warn", f"lifts_{worked}"))
    elif lift >= PUFF_NOTE_PCT:
        found.append(_advice("dough.puff_pct", "note", f"lifts_little_{worked}"))
    if dough.saturation_unrested is not None:
        found.append(_advice("dough.saturation", "note", "rest_first", saturation=dough.saturation_unrested))
    powders = mix.of(mix.palette.liquid_demand_known > 0)
    if dough.state == "damp sand" and powders > 0 and mix.coarse_share * mix.total_g > WET_SALT_SHARE * powders:
        found.append(_advice("dough.saturation", "note", "wet_salt"))
    if "damp sand" in dough.wanted.states and dough.saturation is not None:
        found += _wetter(mix, dough.saturation)
    return found


def _wetter(mix: Mix, saturation: float) -> list[Advice]:
    """How damp a mix for pressing should be, by what wets it."""
    volumes = mix.palette.dough_volume_known * mix.mass_g
    alcohol_ml = float(volumes @ mix.palette.alcohol_known)
    water_ml, oil_ml = float(volumes @ mix.palette.free_water_known), float(volumes @ mix.palette.is_liquid_oil)
    if water_ml > max(alcohol_ml, oil_ml):
        band, name, extra = WATER_BAND, "water", mix.water_share > WATER_MOST
    elif alcohol_ml > oil_ml:
        band, name, extra = ALCOHOL_BAND, "alcohol", False
    elif oil_ml > 0:
        band, name, extra = OIL_BAND, "oil", False
    else:
        return []
    if band[0] <= saturation <= band[1] and not extra:
        return []
    facts = {"low": band[0], "high": band[1]} | ({"water_pct": 100 * WATER_MOST} if name == "water" else {})
    return [_advice("dough.saturation", "note", f"damp_by_{name}", **facts)]


def _advice(reading: str, severity: str, code: str, **facts: float) -> Advice:
    return Advice(reading, severity, advice_words(code, facts), code, facts)
