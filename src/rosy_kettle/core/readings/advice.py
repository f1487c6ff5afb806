"""Sentences a reading gives rise to, beyond its own figure."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.fats.eutectic import eutectic_product
from rosy_kettle.core.records.evaluation import Advice, Dough, Fizz, Lather, PieceReading

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
        found.append(Advice("lather.foam_l", "note", "So much foam goes over the rim of this tub; a smaller dose does."))
    if piece.float == "may":
        found.append(Advice("piece.float", "note", "It may float or sink; the gas that clings to it decides."))
    return tuple(found)


def _spent(mix: Mix, setting: Setting, fizz: Fizz) -> list[Advice]:
    share = fizz.prereaction_share
    wet = mix.water_share > PRESS_WATER_SHARE and not setting.dried_first
    pressed = setting.method.pressed and wet and share is not None
    if share is None or (share <= SPENT_SHARE and not pressed):
        return []
    lost = f"About {100 * share:.0f} % of the acid is spent in the bowl (within a factor of 2)."
    cure = "Less water, or alcohol in its place, keeps the fizz." if pressed else "Fine where puff is wanted; else less water."
    return [Advice("fizz.prereaction_share", "warn", f"{lost} {cure}")]


def _fats(mix: Mix, setting: Setting) -> list[Advice]:
    found = []
    if eutectic_product(mix) >= mix.parameters.fats.eutectic_that_matters:
        text = "Cocoa-like and lauric fats set softer together than their mean. Make a test piece first."
        found.append(Advice("firmness.at_20_c", "note", text))
    left = mix.solid_fat_g(setting.assumed.bath_c)
    if mix.fat_g > 0 and left > FLECKS_SHARE * mix.fat_g:
        solid = f"{100 * left / mix.fat_g:.0f} % of the fat is still solid at {setting.assumed.bath_c:g} °C"
        text = f"{solid}: waxy flecks on the water."
        found.append(Advice("feel.ring", "note", text))
    return found


def _of_dough(mix: Mix, setting: Setting, dough: Dough | None) -> list[Advice]:
    if dough is None:
        return []
    found = []
    lift = dough.puff_pct or 0.0
    if lift > PUFF_WARN_PCT:
        text = "It lifts while resting: " + (
            "stir until it stays down." if setting.method.kneaded else "stir, and fill moulds three quarters."
        )
        found.append(Advice("dough.puff_pct", "warn", text))
    elif lift >= PUFF_NOTE_PCT:
        shape = "scoops come out rounder" if setting.method.kneaded else "a pressed or poured piece swells and may crack"
        found.append(Advice("dough.puff_pct", "note", f"It lifts a little while resting; {shape}."))
    if dough.saturation_unrested is not None:
        fresh = f"Fresh from the mixer S is about {dough.saturation_unrested:.2f}"
        text = f"{fresh}; let it drink in for 5 to 10 minutes before judging."
        found.append(Advice("dough.saturation", "note", text))
    powders = mix.of(mix.palette.liquid_demand_known > 0)
    if dough.state == "damp sand" and powders > 0 and mix.coarse_share * mix.total_g > WET_SALT_SHARE * powders:
        found.append(Advice("dough.saturation", "note", "Most of the powder is coarse crystals: it reads as wet salt."))
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
        band, name, extra = OIL_BAND, "oil alone (a weak bond)", False
    else:
        return []
    if band[0] <= saturation <= band[1] and not extra:
        return []
    text = f"Wetted by {name}, damp sand holds best at S {band[0]:g} to {band[1]:g}"
    text += f" and at most {100 * WATER_MOST:g} % free water." if name == "water" else "."
    return [Advice("dough.saturation", "note", text)]
