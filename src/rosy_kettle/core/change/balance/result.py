"""What came of balancing, in the maker's words: changes, conflicts, what each wish costs."""

from __future__ import annotations

import numpy as np

from rosy_kettle.core.change.balance.aims import PORTION
from rosy_kettle.core.change.balance.linear import linear_step
from rosy_kettle.core.change.balance.problem import (
    BalanceResult,
    Change,
    Conflict,
    HeldBack,
    Marginal,
    Status,
    Target,
)
from rosy_kettle.core.change.balance.task import GUARD_GIVES, UNMOVED_G, Point, Task
from rosy_kettle.core.change.sense import ANOTHER_FORMULA, LABELS, moved_share
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records.reading import Reading

__all__ = ["result_of"]

MET_WITHIN = 1e-6  # of a target's own size [-]
ROUNDED_OFF = 0.002  # a miss of less than this share of a wish comes from rounding [-]
MINUS = "\N{MINUS SIGN}"
PULLS = 1e-7  # an end that pulls less than this does not bind [objective per unit]
STEP_SHARE = 0.02  # a wish is tightened by this share of its size to see what more of it costs [-]
LEAST_MONEY = 0.0005  # less is not worth saying [USD]
AT_AN_END = 0.003  # of a guard's own size: nearer than this it holds the answer back [-]
FAR = 10.0  # no bound but the lines' own [-]


def result_of(
    task: Task, mass_g: FloatArray, last: Point, *, met: bool, complete: bool = True, of_any_size: bool = False
) -> BalanceResult:
    """Return the result at the chosen masses.

    Parameters
    ----------
    task : Task
        Lines, bounds, bands
    mass_g : FloatArray
        Masses after rounding [g]
    last : Point
        The point before rounding, with its slopes
    met : bool
        Whether every target holds
    complete : bool
        Whether the search for another answer came to its end within its budget
    of_any_size : bool
        Whether only a batch of another size meets the targets

    Returns
    -------
    BalanceResult
        Evaluated with the true model
    """
    rows = zip(task.ids, task.before_g.tolist(), mass_g.tolist(), task.positions, strict=True)
    lines = tuple(Change(*row) for row in rows)
    return BalanceResult(
        status=_status(task, mass_g, met=met, of_any_size=of_any_size),
        lines=lines,
        changes=tuple(line for line in lines if abs(line.after_g - line.before_g) > UNMOVED_G),
        readings_before=task.evaluation(task.before_g),
        readings_after=task.evaluation(mass_g),
        conflicts=() if met else _conflicts(task, mass_g, last, complete=complete),
        marginals=_marginals(task, last) if met else (),
        guards=_held_back(task, mass_g),
    )


def _status(task: Task, mass_g: FloatArray, *, met: bool, of_any_size: bool) -> Status:
    if not met:
        return "infeasible"
    another = of_any_size or (task.problem.guarded and moved_share(task.start_g, mass_g) > ANOTHER_FORMULA)
    return "another-formula" if another else "solved"


def _held_back(task: Task, mass_g: FloatArray) -> tuple[HeldBack, ...]:
    """Name the guards the answer came up against: ends of readings, and how far lines may go by default."""
    values, found = task.values(mass_g), []
    offset = len(task.problem.targets)
    for index, guard in enumerate(task.guards):
        value, size = float(values[offset + index]), float(task.scales[offset + index])
        target, known = guard.target, not np.isnan(value)
        low, high = target.low, target.high
        at_low = low is not None and value < low + AT_AN_END * size
        binding = at_low or (high is not None and value > high - AT_AN_END * size) or not known
        kept = (
            known and (low is None or value >= low - GUARD_GIVES * size) and (high is None or value <= high + GUARD_GIVES * size)
        )
        if binding and (kept or guard.hard):  # what only counts beside other things, and was given up, is no guard that is kept
            said = f"{_label(target.reading)}: {guard.why}."
            found.append(HeldBack(str(target), said, target.reading, low, high, value if known else None, kept))
    names = task.tables.ingredients
    for name, low_g, high_g, after_g in zip(task.ids, task.low_g.tolist(), task.high_g.tolist(), mass_g.tolist(), strict=True):
        if (
            high_g > low_g
            and name not in task.problem.bounds_g
            and min(after_g - low_g, high_g - after_g) < task.problem.step_g / 2
        ):
            side = "shrinks to no less than" if after_g - low_g < high_g - after_g else "grows to no more than"
            end = low_g if side.startswith("shrinks") else high_g
            said = f"{names[name].short_name} {side} {end:.1f} g unless it is bounded."
            found.append(HeldBack(f"{name}={low_g:g}..{high_g:g}", said, None, low_g, high_g, after_g))
    return tuple(found)


def _label(path: str) -> str:
    of_whole, marked, place = path.partition(PORTION)
    reading = _declared(path)
    said = LABELS.get(of_whole) or (of_whole if reading is None else reading.label)
    return f"{said} of portion {int(place) + 1}" if marked else said


def _declared(path: str) -> Reading | None:
    return declared().get(path.partition(PORTION)[0])


def _conflicts(task: Task, mass_g: FloatArray, last: Point, *, complete: bool) -> tuple[Conflict, ...]:
    """Name what must give, and the wishes and bounds it stands against: those that pull in the elastic program."""
    values = task.values(mass_g)
    shortfall = task.shortfall(values)
    missed = shortfall * task.scales
    # Beside a real clash, what rounding to the scale leaves open is no clash.
    least = ROUNDED_OFF if float(shortfall[task.hard].max(initial=0.0)) > ROUNDED_OFF else 0.0
    pulls = linear_step(task, last, FAR, 0.0)
    binding = (np.abs(pulls.pull_low) > PULLS) | (np.abs(pulls.pull_high) > PULLS)
    found = []
    ends = (*task.problem.targets, *(guard.target for guard in task.guards))
    for index, target in enumerate(ends):
        if not task.hard[index] or shortfall[index] <= least or missed[index] <= MET_WITHIN * max(1.0, abs(float(values[index]))):
            continue
        against = [other for i, other in enumerate(ends) if binding[i] and i != index and task.hard[i]]
        found.append(_conflict(target, float(values[index]), float(missed[index]), against, complete=complete))
    return tuple(found)


def _conflict(target: Target, value: float, by: float, against: list[Target], *, complete: bool) -> Conflict:
    reading = _declared(target.reading)
    unit = reading.unit if reading else ""
    name = _label(target.reading)
    end = target.low if target.low is not None and value < target.low else target.high
    side = "at least" if end == target.low else "at most"
    others = f"together with {' and '.join(map(_in_words, against))}" if against else "within the bounds of the lines"
    message = f"{name} was wanted {side} {end:g}; {others} it comes to {value:.3g}, so it would have to give {by:.3g} {unit}"
    stopped = "" if complete else " The search was stopped before it had settled; wider bounds or fewer free lines let it end."
    return Conflict(str(target), by, unit, message.rstrip() + "." + stopped, tuple(map(str, against)))


def _in_words(target: Target) -> str:
    """Say a target with its reading's own name: "lather.active_g<=2" as "Active in bath at most 2"."""
    name, low, high = _label(target.reading), target.low, target.high
    if low is not None and high is not None:
        return f"{name} {low:g} to {high:g}"
    if low is None and high is None:
        return f"{name} that can be said"
    return f"{name} at least {low:g}" if low is not None else f"{name} at most {high:g}"


def _marginals(task: Task, last: Point) -> tuple[Marginal, ...]:
    """Tighten each binding wish by a little, solve again, and say what that takes."""
    at_rest = linear_step(task, last, FAR, 0.0)
    money = _money(task, last)
    found = []
    for index, target in enumerate(task.problem.targets):
        if target.reading == "mass_g":
            continue  # a gram more of everything is no wish
        upwards = bool(abs(at_rest.pull_low[index]) > PULLS)
        if not upwards and abs(at_rest.pull_high[index]) <= PULLS:
            continue
        more = _unit_of(float(task.scales[index])) * (1.0 if upwards else -1.0)
        low, high = task.ends(0.0)
        low, high = low.copy(), high.copy()
        (low if upwards else high)[index] += more
        moved = linear_step(task, last, FAR, 0.0, (np.minimum(low, high), np.maximum(low, high))).mass_g - at_rest.mass_g
        cost = None if money is None else float(money @ moved)
        found.append(_marginal(task, target, _label(target.reading), more, moved, cost))
    return tuple(found)


def _money(task: Task, last: Point) -> FloatArray | None:
    """Cost of a piece by every line's mass, straight around the present point [USD/g]."""
    prices, total_g = task.aims.prices, float(last.mass_g.sum())
    if np.isnan(prices).any():
        return None
    mean = float(prices @ last.mass_g) / total_g
    return np.asarray((prices - mean) / total_g * task.piece_mass_g)


def _unit_of(size: float) -> float:
    """One of the reading, or a tenth, or a hundredth where it is small."""
    return float(10.0 ** np.floor(np.log10(max(size * STEP_SHARE * 5, 1e-6))))


def _marginal(task: Task, target: Target, name: str, more: float, moved: FloatArray, cost: float | None) -> Marginal:
    order = np.argsort(-np.abs(moved) / task.size_g)
    names = task.tables.ingredients
    parts = [f"{moved[i]:+.1f} g {names[task.ids[i]].short_name}" for i in order[:3] if abs(moved[i]) >= task.problem.step_g / 2]
    takes = ", ".join(parts) if parts else "next to nothing"
    price = "" if cost is None or abs(cost) < LEAST_MONEY else f", {cost:+.3f} per piece"
    return Marginal(str(target), more, cost, f"{name} {more:+g} takes {takes}{price}.".replace("-", MINUS))
