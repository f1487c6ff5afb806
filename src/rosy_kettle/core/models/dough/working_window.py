"""The temperatures between which a dough with fat in it can be worked."""

from __future__ import annotations

from rosy_kettle.core.mixing.fill import DoughFill
from rosy_kettle.core.models.dough.texture import STATES, TextureCurve
from rosy_kettle.core.parameters import USUAL
from rosy_kettle.core.parameters.dough import DoughParameters

__all__ = ["working_window"]


def working_window(
    curve: TextureCurve, fill: DoughFill, states: tuple[str, ...], *, kneaded: bool, p: DoughParameters = USUAL.dough
) -> tuple[tuple[float, float] | None, str | None]:
    """Return the longest unbroken run of temperatures in the wanted states.

    Parameters
    ----------
    curve : TextureCurve
        State by temperature
    fill : DoughFill
        The fill the curve was made from
    states : tuple
        Wanted states
    kneaded : bool
        Whether the method kneads; then at least 2 % of fat and oil must still be solid
    p : DoughParameters
        Least fat, and least solid fat

    Returns
    -------
    tuple
        ((low, high), None) [°C], or (None, reason) with the reason "no fat" or "never"
    """
    if float(fill.fat_share) < p.least_fat_share:
        return None, "no fat"
    wanted = {STATES.index(state) for state in states}
    least = p.least_solid_share if kneaded else 0.0
    begin = longest = 0
    end = None
    for index, (state, solid) in enumerate(zip(curve.state_index.tolist(), fill.solid_share.tolist(), strict=True)):
        if state not in wanted or solid < least:
            begin = index + 1
        elif index + 1 - begin > longest:
            longest, end = index + 1 - begin, index
    if end is None:
        return None, "never"
    return (float(curve.temperature_c[end + 1 - longest]), float(curve.temperature_c[end])), None
