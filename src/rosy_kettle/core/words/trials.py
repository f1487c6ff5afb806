"""What fitted trials say."""

from __future__ import annotations

__all__ = ["BEFORE_POURED", "TRIALS_ALIKE", "poured_words", "response_words"]

BEFORE_POURED = "Before the best of trials was poured in"

TRIALS_ALIKE = (
    "By the Desk these lines hardly move {label}: {low:.3g} to {high:.3g}{unit}. Choose others, or a wider range, first."
)


def response_words(degree: int | None, n: int, *, flat: bool | None, sure: bool, at_edge: bool = False) -> str:
    """Return one sentence of what trials say so far.

    Parameters
    ----------
    degree : int or None
        Of the fitted polynomial; None where nothing could be fitted [-]
    n : int
        Results [-]
    flat : bool or None
        Whether the best may be no better than the worst
    sure : bool
        Whether anything is left to judge the noise by
    at_edge : bool
        Whether the best lies at the edge of what was varied

    Returns
    -------
    str
        One sentence
    """
    counted = f"{n} {'result' if n == 1 else 'results'}"
    if degree is None:
        return f"{counted}: not enough to fit anything yet; read back more of the trials."
    bend = "with the pull of each pair" if degree == 2 else "each ingredient by itself, pairs left out"  # noqa: PLR2004
    if not sure:
        return f"{counted} fit exactly, {bend}: how sure that is needs one more."
    if flat:
        return f"{counted}, {bend}: still flat, the best may be no better than the worst."
    edge = " It lies at the edge of what was varied: go on beyond it to know where it ends." if at_edge else ""
    return f"{counted}, {bend}: the best mixture stands out from the worst.{edge}"


def poured_words(
    design: int, label: str, unit: str, value: tuple[float, float | None, float | None], n: int, *, at_edge: bool
) -> str:
    """Return the note of a version that is the best of trials.

    Parameters
    ----------
    design : int
        Number of the design [-]
    label : str
        Name of the reading
    unit : str
        Its unit
    value : tuple
        Fitted, and both ends of its 95 % interval, None where nothing tells [the reading's unit]
    n : int
        Results [-]
    at_edge : bool
        Whether the best lies at the edge of what was varied

    Returns
    -------
    str
        What proves it, in one sentence
    """
    fitted, low, high = value
    sure = "" if low is None or high is None else f", {low:.3g} to {high:.3g} with 95 %"
    edge = ", at the edge of what was varied" if at_edge else ""
    of = f" {unit}".rstrip()
    return f"Best of trials {design}: {label} {fitted:.3g}{of}{sure}, fitted to {n} results{edge}."
