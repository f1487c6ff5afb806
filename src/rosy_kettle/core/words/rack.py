"""What the rack says: of a weighing that is set aside, and of when a piece is dry."""

from __future__ import annotations

__all__ = ["AIR_ADVICE", "SET_ASIDE", "drying_words", "other_air_words"]

SET_ASIDE = {
    "time_back": "the clock went back: {hours:g} h after {before:g} h",
    "wrong_tare": "a wrong tare: it is off by the pan's {tare_g:g} g",
    "piece_missing": "a piece missing: {count} fewer than was said",
    "piece_more": "a piece more: {count} more than was said",
    "piece_swapped": "a piece swapped: it is {off_g:+.1f} g off the others",
    "off": "it does not go with the others: {off_g:+.2f} g off",
}
"""Reason by code; facts stand in braces with the digits they are said with."""

AIR_ADVICE = {
    "log_air": "The air of this place is not known: log it, or let the hygrometer.",
    "dehumidifier": "{humidity_pct:.0f} % is damp: run the dehumidifier in the drying room.",
    "closed_box": "At {humidity_pct:.0f} % they hardly dry in the open: a closed box with a drying agent does.",
    "oven_off": "Or warm the oven to 50 °C, switch it off, and only then put them in.",
    "no_oven": "No warm oven: alcohol may be in them, or what is in them is not known.",
}
"""What to do about the air, by code."""

DAY_H = 48.0


HUMID_PCT = 60.0  # air in which hardly anything dries [%]; common practice


def drying_words(
    state: str,
    *,
    counted: int,
    ready_h: float | None,
    low_h: float | None,
    high_h: float | None,
    again_h: float | None,
    pan_needed_g: float | None,
    by_model: bool,
    humid_pct: float | None,
    damp: bool,
    clock_back: bool = False,
) -> str:
    """Return one sentence of when a piece is dry.

    Parameters
    ----------
    state : str
        drying, dry, not-losing, gaining or cannot-tell
    counted : int
        Weighings that count [-]
    ready_h : float or None
        Likely hour since the pieces were set out [h]
    low_h : float or None
        Earliest [h]
    high_h : float or None
        Latest [h]
    again_h : float or None
        When another weighing can tell [h]
    pan_needed_g : float or None
        What the pan should hold, where the scale is too coarse for it [g]
    by_model : bool
        Whether the formula's own hours were known beforehand
    humid_pct : float or None
        Humidity noted with the weighings [%]
    damp : bool
        Whether the formula says that this air lets nothing dry
    clock_back : bool
        Whether a weighing is dated before the one it followed

    Returns
    -------
    str
        One sentence
    """
    coarse = f"; the scale is too coarse for this pan, put {pan_needed_g:.0f} g on it" if pan_needed_g is not None else ""
    if clock_back:
        coarse += "; the clock went back, weighings since do not count until it has caught up"
    if state == "gaining":
        return f"It gains weight: the air is wetting it{coarse}."
    if state == "not-losing":
        return f"It loses nothing, and that is not dry: {_matter(humid_pct, damp=damp)}{coarse}."
    if state == "cannot-tell" or ready_h is None or low_h is None or high_h is None:
        again = "" if again_h is None else f": weigh it again {_at(again_h)} after it was set out"
        return f"When it is dry cannot be told yet{again}{coarse}."
    if state == "dry":
        return f"Dry: what is still to lose is under 0.3 % of the piece{coarse}."
    told = f"likely dry {_at(ready_h)} after it was set out, from {_at(low_h)} to {_at(high_h)}"
    if counted == 1:
        by = "by the model alone" if by_model else "by a wide guess, for no formula is known,"
        return f"One weighing says nothing yet; {by} {told}{coarse}."
    return f"{told[0].upper()}{told[1:]}{coarse}."


def other_air_words(likely_h: float, low_h: float, high_h: float, *, slower: bool) -> str:
    """Return when pieces are dry where the air now is another than it was on the mean.

    Parameters
    ----------
    likely_h : float
        Since they were set out [h]
    low_h : float
        Earliest [h]
    high_h : float
        Latest [h]
    slower : bool
        Whether the air now dries slower

    Returns
    -------
    str
        One sentence
    """
    told = f"Likely dry {_at(likely_h)} after it was set out, from {_at(low_h)} to {_at(high_h)}"
    return f"{told}: the air now dries {'slower' if slower else 'quicker'} than it did."


def _matter(humid_pct: float | None, *, damp: bool) -> str:
    """Say what may be the matter with pieces that lose nothing."""
    if damp or (humid_pct is not None and humid_pct >= HUMID_PCT):
        said = "" if humid_pct is None else f" ({humid_pct:.0f} %)"
        return f"the air is too damp{said}, or they are covered, or the scale is stuck"
    return "they are covered, the air is damper than was said, or the scale is stuck"


def _at(hours: float) -> str:
    return f"{hours:.0f} h" if hours < DAY_H else f"{hours / 24:.1f} days"
