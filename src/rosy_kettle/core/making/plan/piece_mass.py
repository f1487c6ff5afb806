"""What one piece weighs: as entered, as the formula says, or what a tool holds of this dough."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from rosy_kettle.core.amounts import Weighed
from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.mixing.palette import make_palette
from rosy_kettle.core.mixing.setting import dough_fault, setting_of
from rosy_kettle.core.models.pieces import mix_true_density, packing_fraction, tool_piece_mass
from rosy_kettle.core.records import Formula, Tables, Tool

__all__ = ["packed_density", "piece_mass", "tool_of"]

DRY_PRESS_TYPES = frozenset({"press"})


def piece_mass(
    formula: Formula, tables: Tables, weighed: Sequence[Weighed],
    piece_mass_g: float | None, tool_id: str | None, scoop_fill: str,
) -> tuple[float, str]:  # fmt: skip
    """Return the mass of a piece and where it comes from.

    Parameters
    ----------
    formula : Formula
        The formula
    tables : Tables
        Reference tables
    weighed : Sequence
        Its lines in grams
    piece_mass_g : float or None
        Mass as entered [g]; goes before the tool
    tool_id : str or None
        Id of a tool
    scoop_fill : str
        level, rounded or domed; for scoops only

    Returns
    -------
    tuple
        Mass [g] and its basis in words

    Raises
    ------
    InputError
        If tool or fill are unknown, or the dough's density cannot be said.
    """
    if piece_mass_g is not None:
        return piece_mass_g, "as entered"
    if tool_id is None:
        own = formula.piece.mass_g
        usual = tables.method_of(formula).piece_mass_g
        return (usual, "usual for the method") if own is None else (own, "of the formula")
    if scoop_fill not in tables.parameters.pieces.scoop_fills:
        raise InputError(f'Scoop fill must be level, rounded or domed, got "{scoop_fill[:20]}".', quantity="scoop_fill")
    tool = tool_of(tables, tool_id)
    try:
        density = packed_density(formula, tables, weighed, tool)
    except MissingDataError as error:
        raise InputError(f"{error.message}, or enter the mass of a piece.", quantity="tool", value=tool_id) from error
    fill = tables.parameters.pieces.scoop_fills[scoop_fill] if tool.type == "scoop" else 1.0
    return tool_piece_mass(tool.volume_ml, density * tool.packs, 1.0, fill), f"{tool.name}, {tool.volume_ml:g} mL"


def tool_of(tables: Tables, tool_id: str) -> Tool:
    """Return a tool.

    Parameters
    ----------
    tables : Tables
        Reference tables
    tool_id : str
        Its id

    Returns
    -------
    Tool
        The tool

    Raises
    ------
    InputError
        If there is none under that id.
    """
    if tool_id not in tables.tools:
        raise InputError(f'Tool "{tool_id[:60]}" is not known; choose one of the list.', quantity="tool", value=tool_id[:60])
    return tables.tools[tool_id]


def packed_density(formula: Formula, tables: Tables, weighed: Sequence[Weighed], tool: Tool) -> float:
    """Return the density of the dough as this tool packs it.

    Parameters
    ----------
    formula : Formula
        The formula
    tables : Tables
        Reference tables
    weighed : Sequence
        Its lines in grams
    tool : Tool
        What gives the shape

    Returns
    -------
    float
        Bulk density [g/mL]

    Raises
    ------
    MissingDataError
        If a property of a line is not known.
    """
    mass_g = np.array([item.mass_g for item in weighed])
    setting = setting_of(formula, tables, float(mass_g.sum()))
    mix = setting.mix(make_palette([item.ingredient for item in weighed], tables.parameters), mass_g)
    if fault := dough_fault(mix):
        raise fault
    packing = formula.piece.packing or tables.method_of(formula).packing
    if packing == "hand" and tool.type in DRY_PRESS_TYPES:
        packing = "press"
    return mix_true_density(mix) * packing_fraction(packing, mix.saturation(setting.judged_c), mix.parameters.pieces)
