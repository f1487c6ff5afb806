"""The run sheet as PDF, with room to write what happened."""

from __future__ import annotations

from rosy_kettle.core.making.plan import RunSheet
from rosy_kettle.papers.sheet import heading, line, pdf, table

__all__ = ["run_sheet_pdf"]


def run_sheet_pdf(sheet: RunSheet, paper: str = "A4") -> bytes:
    """Return the run sheet of one bowl as PDF."""
    weigh = [["Weigh everything first", "g", "oz", "weighed"]]
    for group in sheet.groups:
        weigh.append([f"{group.portion}: {group.label.lower()}", f"{group.mass_g:.1f}", "", ""])
        weigh += [[f"    {item.name}", f"{item.mass_g:.1f}", f"{item.mass_oz:.2f}", ""] for item in group.lines]
    weigh.append(["All together", f"{sheet.batch_g:.1f}", f"{sheet.batch_oz:.2f}", ""])
    steps = [["", "Then, in this order", "what happened"]]
    steps += [[str(step.number), f"{step.text} {step.caution}".strip(), ""] for step in sheet.steps]
    parts = [
        heading(sheet.name, title=True),
        line(f"{sheet.pieces} pieces of {sheet.piece_mass_g:.1f} g ({sheet.piece_basis}), {sheet.method_name.lower()}; "
             f"{sheet.set_time} to set."),
        table(weigh, [92, 26, 22, 38], figures=(1, 2)),
        heading(""),
        table(steps, [8, 112, 58]),
        heading("Always"),
        *[line(caution) for caution in sheet.cautions],
    ]  # fmt: skip
    if sheet.left_out:
        parts.append(line(f"Not on this sheet: {'; '.join(sheet.left_out)}.", bold=True))
    return pdf(sheet.name, parts, paper)
