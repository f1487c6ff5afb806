"""The record of a batch as PDF: as planned, as weighed, as corrected, and what became of it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from rosy_kettle.core.making.bench import BenchState
from rosy_kettle.papers.sheet import heading, line, pdf, table

__all__ = ["batch_record_pdf"]


def batch_record_pdf(
    title: str,
    lead: str,
    state: BenchState,
    names: Mapping[str, str],
    story: Sequence[tuple[str, str]],
    paper: str = "A4",
) -> bytes:
    """Return a batch record as PDF.

    Parameters
    ----------
    title : str
        Name and number of the batch
    lead : str
        Version, mass, dates
    state : BenchState
        Where the batch stands
    names : Mapping
        Name by ingredient
    story : Sequence
        Time and sentence of everything that happened
    paper : str
        A4 or Letter
    """
    weighed = {weighing.position: weighing for weighing in state.weighings}
    skipped = dict(state.skipped)
    rows = [["Line", "planned, g", "weighed, g", "tolerance, g", "by"]]
    for step in state.steps:
        if step.position is None or step.target_g is None:
            continue
        made = weighed.get(step.position)
        left = f"left out: {skipped[step.key]}" if made is None and step.key in skipped else "not weighed"
        rows.append([
            names.get(step.ingredient or "", step.title),
            f"{(made.target_g if made else step.target_g):.1f}",
            left if made is None else f"{made.actual_g:.1f}" + ("" if made.within else " (outside)"),
            f"{step.tolerance_g or 0:.1f}",
            "" if made is None else made.source,
        ])  # fmt: skip
    parts = [heading(title, title=True), line(lead), table(rows, [66, 26, 48, 24, 14], figures=(1, 3))]
    if state.corrections:
        parts.append(heading("Added after the weighing"))
        added = [(item.mass_g, names.get(item.ingredient, item.ingredient), item.why) for item in state.corrections]
        parts += [line(f"{mass_g:.1f} g {name} ({why})") for mass_g, name, why in added]
    parts.append(heading("What happened"))
    parts.append(table([["When (UTC)", "What"], *[[at, text] for at, text in story]], [38, 140]))
    if state.amendments:
        parts.append(heading("Amended later"))
        parts += [line(f"{at[:16].replace('T', ' ')}: {text}") for at, text in state.amendments]
    return pdf(title, parts, paper)
