"""What hands have said of a bowl moves the reckoning of that bowl: its dough is as much wetter or drier as it felt."""

from __future__ import annotations

from collections.abc import Sequence

from rosy_kettle.core.parameters.dough import DoughParameters

__all__ = ["middle_saturation", "moved_by_hands", "state_at"]


def moved_by_hands(felt: Sequence[tuple[str, float]], p: DoughParameters) -> float:
    """Return by how much a bowl is wetter than reckoned, after all that was felt of it.

    Parameters
    ----------
    felt : sequence of tuple
        State by the hands, and the saturation reckoned of the formula at that moment [-]; oldest first
    p : DoughParameters
        Where states begin

    Returns
    -------
    float
        To be added to the reckoned S [-]; what is felt as reckoned, the earlier feels counted in, moves nothing
    """
    moved = 0.0
    for state, saturation in felt:
        if state_at(saturation + moved, p) != state:
            moved = middle_saturation(state, p) - saturation
    return moved


def state_at(saturation: float, p: DoughParameters) -> str:
    """Return the state of a dough that does not set.

    Parameters
    ----------
    saturation : float
        S [-]
    p : DoughParameters
        Where states begin

    Returns
    -------
    str
        One of the states
    """
    reached = {name: edge for name, edge in p.lower_edges.items() if edge <= max(0.0, saturation)}
    return max(reached, key=lambda name: reached[name])


def middle_saturation(state: str, p: DoughParameters) -> float:
    """Return the saturation in the middle of a state.

    Parameters
    ----------
    state : str
        State of a dough
    p : DoughParameters
        Where states begin

    Returns
    -------
    float
        S [-]; a tenth above its lower edge for the wettest
    """
    edges = p.lower_edges
    above = [edge for edge in edges.values() if edge > edges[state]]
    return (edges[state] + above[0]) / 2 if above else edges[state] * 1.1
