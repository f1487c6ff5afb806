"""The temperatures between which a dough with fat in it can be worked."""

from __future__ import annotations

from rosy_kettle.core.dough.saturation import DoughFill
from rosy_kettle.core.dough.texture import TextureCurve

__all__ = ["working_window"]

LEAST_FAT_SHARE = 0.05  # with less fat, temperature hardly matters [-]
LEAST_SOLID_SHARE = 0.02  # the last crystals that hold a kneaded body [-]


def working_window(
    curve: TextureCurve, fill: DoughFill, states: tuple[str, ...], *, kneaded: bool
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

    Returns
    -------
    tuple
        ((low, high), None) [°C], or (None, reason) with the reason "no fat" or "never"
    """
    if float(fill.fat_share) < LEAST_FAT_SHARE:
        return None, "no fat"
    best: tuple[int, int] | None = None
    start: int | None = None
    for index in range(curve.temperature_c.size + 1):
        inside = (
            index < curve.temperature_c.size
            and curve.state(index) in states
            and (not kneaded or fill.solid_share[index] >= LEAST_SOLID_SHARE)
        )
        if inside and start is None:
            start = index
        if not inside and start is not None:
            if best is None or index - start > best[1] - best[0]:
                best = (start, index)
            start = None
    if best is None:
        return None, "never"
    return (float(curve.temperature_c[best[0]]), float(curve.temperature_c[best[1] - 1])), None
