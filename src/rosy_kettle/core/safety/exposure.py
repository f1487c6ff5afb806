"""The exposure sheet: how much of each substance a bather meets, for the assessor to judge; nothing here is a verdict."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from rosy_kettle.core.parameters.exposure import ExposureParameters
from rosy_kettle.core.records.evaluation import DeclaredName

__all__ = ["Bather", "ExposureRow", "bathers", "exposure_rows"]

MG_PER_G, PERCENT = 1000.0, 100.0


@dataclass(frozen=True, slots=True)
class Bather:
    """Who bathes."""

    name: str
    weight_kg: float
    skin_cm2: float


@dataclass(frozen=True, slots=True)
class ExposureRow:
    """One substance: its share, what is in a bath, and what a day brings by kilogram of the bather, adults first."""

    name: str
    share_pct: float
    in_bath_mg: float
    mg_kg_day: tuple[float, ...]


def bathers(p: ExposureParameters) -> tuple[Bather, ...]:
    """Return who the sheet is worked out for.

    Parameters
    ----------
    p : ExposureParameters
        Weights [kg] and skin [cm2]
    """
    return (
        Bather("adult", p.adult_kg, p.adult_skin_cm2), Bather("3 to 6 years", p.child_3_kg, p.child_3_skin_cm2),
        Bather("1 to 2 years", p.child_1_kg, p.child_1_skin_cm2),
    )  # fmt: skip


def exposure_rows(
    names: Sequence[DeclaredName], dose_g: float, p: ExposureParameters, *, left_on: bool = False
) -> tuple[ExposureRow, ...]:
    r"""Return the exposure to every substance of an ingredient list.

    .. math:: E = m\,w\,r\,f / W

    m, grams a bath; w, share; r, share that stays on the skin; f, baths a day; W, weight of the bather. All that stays is
    counted as taken up, which no skin does.

    Parameters
    ----------
    names : Sequence
        Substances with their shares [%]
    dose_g : float
        What goes into a bath [g]
    p : ExposureParameters
        Figures it rests on
    left_on : bool
        Whether it stays on the skin

    Returns
    -------
    tuple of ExposureRow
        In the order of the list

    References
    ----------
    .. [1] SCCS Notes of Guidance: systemic exposure from the amount applied and a retention factor; from memory.
    """
    stays = p.retained_on_share if left_on else p.retained_share
    people = bathers(p)
    rows = []
    for each in names:
        in_bath_mg = MG_PER_G * dose_g * each.share_pct / PERCENT
        a_day_mg = in_bath_mg * stays * p.baths_a_day
        rows.append(ExposureRow(each.name, each.share_pct, in_bath_mg, tuple(a_day_mg / who.weight_kg for who in people)))
    return tuple(rows)
