"""Figures of the skin ledger with the lines of the chosen profile; defaults of this project, no safety claim."""

from __future__ import annotations

from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.setting import Setting
from rosy_kettle.core.models.bath.readings import PH_WANTED
from rosy_kettle.core.records import Product
from rosy_kettle.core.records.evaluation import Bath, Feel, Measure, Skin

__all__ = ["HARSHNESS_LINES", "MIDDLE_PH", "PH_WARN", "felt_ph", "lines_of_harshness", "measures_of"]

HARSHNESS_LINES = {"adult": (60.0, 200.0), "family": (40.0, 120.0), "sensitive": (20.0, 60.0), "children": (12.0, 40.0)}
"""Note and warn [mg/L as sodium lauryl sulfate]; project defaults."""
PH_WARN = (5.0, 9.0)  # project default around the skin's own 4.7 to 5.75
MIDDLE_PH = sum(PH_WARN) / 2
PROFILE_BELOW_MONTHS = ((36.0, "children"), (144.0, "family"))  # ages that bring their own lines [months]; project default
SLIP_LINES = (5.0, 15.0)  # oil on the tub floor [g]; project default
DUST_SHARE = {"high": 1.0, "medium": 0.3, "low": 0.05}  # of a powder's mass that counts [-]; estimate
DUST_LINES = (50.0, 300.0)  # without extraction [g]; project default
DEFAULT = "project default"


def measures_of(mix: Mix, setting: Setting, skin: Skin, bath: Bath, feel: Feel) -> tuple[Measure, ...]:
    """Return the figures of the ledger, each with its lines and the room that is left.

    Parameters
    ----------
    mix : Mix
        The formula
    setting : Setting
        Profile, tub, dose
    skin : Skin
        Harshness and scent
    bath : Bath
        pH
    feel : Feel
        Oil and stain

    Returns
    -------
    tuple
        Measures; a value that is not known is None and has no headroom
    """
    note, warn = lines_of_harshness(setting.formula.product)
    dose = setting.assumed.dose_g / mix.total_g
    stain_note = 1000 * dose / setting.assumed.tub_l * _stain_notes(mix)
    return (
        _upto("skin.harshness_mg_l", "Harshness", skin.harshness_mg_l, "mg/L", note, warn, "practice", DEFAULT),
        _between("bath.ph_stepin", "pH at step-in", bath.ph_stepin),
        _between("bath.ph_soak", "Bath pH after 20 min", bath.ph_soak),
        _upto("skin.scent_share", "Scent on its certificates", skin.scent_share, "of its limit", None, 1.0, "exact",
              "suppliers' certificates"),
        _upto("skin.scent_g", "Scent per bath", mix.grams_of_role("fragrance") * dose, "g", None, None, "exact", ""),
        _upto("feel.slip_load_g", "Oil on the tub floor", feel.slip_load_g, "g", *SLIP_LINES, "practice", DEFAULT),
        _upto("feel.stain_note", "Faint stain", stain_note, "of the note line", 1.0, None, "practice", DEFAULT),
        _upto("feel.stain", "Stain", feel.stain, "of the warning line", None, 1.0, "practice", DEFAULT),
        _upto("skin.humectant_g", "Glycerin and the like per bath", mix.grams_of_role("humectant") * dose, "g", None, None,
              "exact", ""),
        _upto("skin.salt_g", "Salts per bath", mix.grams_of_role("salt") * dose, "g", None, None, "exact", ""),
        _upto("bench.dust_g", "Dust at the bench", bench_dust_g(mix), "g", *DUST_LINES, "practice", DEFAULT),
    )  # fmt: skip


def lines_of_harshness(product: Product) -> tuple[float, float]:
    """Return the lines of harshness: those of the chosen profile, or of the youngest bather where they are stricter.

    Parameters
    ----------
    product : Product
        Profile and age of the youngest user

    Returns
    -------
    tuple
        Note and warn [mg/L]
    """
    youngest = product.youngest_user_months
    by_age = next((profile for months, profile in PROFILE_BELOW_MONTHS if youngest is not None and youngest < months), "adult")
    return min(HARSHNESS_LINES[product.profile], HARSHNESS_LINES[by_age])


def felt_ph(bath: Bath) -> float | None:
    """Return the pH a bather meets: of step-in and soak the one further from the middle of the band.

    Parameters
    ----------
    bath : Bath
        pH readings

    Returns
    -------
    float or None
        pH [-]
    """
    met = [ph for ph in (bath.ph_stepin, bath.ph_soak) if ph is not None]
    return max(met, key=lambda ph: abs(ph - MIDDLE_PH), default=None)


def bench_dust_g(mix: Mix) -> float:
    """Return the powder that counts as airborne while weighing.

    .. math:: D = \\sum m_i \\delta_i

    Parameters
    ----------
    mix : Mix
        The formula

    Returns
    -------
    float
        Dust of the batch [g]

    References
    ----------
    .. [1] Shares that fly by the dust hazard of an ingredient: estimates, no published source.
    """
    return sum(mass_g * DUST_SHARE.get(item.dust_hazard or "", 0.0) for item, mass_g in mix.items())


def _stain_notes(mix: Mix) -> float:
    return sum(mass_g / item.traits.stain_note_mg_l for item, mass_g in mix.items() if item.traits.stain_note_mg_l)


def _upto(
    id_: str, label: str, value: float | None, unit: str, note: float | None, warn: float | None, kind: str, source: str
) -> Measure:
    last = warn if warn is not None else note
    headroom = None if value is None or last is None else 1 - value / last
    return Measure(id_, label, value, unit, kind, _ends(note), _ends(warn), headroom, source)


def _ends(high: float | None) -> tuple[float | None, float | None] | None:
    return None if high is None else (None, high)


def _between(id_: str, label: str, value: float | None) -> Measure:
    headroom = None if value is None else min(value - PH_WARN[0], PH_WARN[1] - value) / (PH_WARN[1] - PH_WARN[0])
    return Measure(id_, label, value, "pH", "physical", PH_WANTED, PH_WARN, headroom, DEFAULT)
