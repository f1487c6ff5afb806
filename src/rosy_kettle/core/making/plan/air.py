"""The air of the room in a run sheet: the gate before the work, and how it dries after it."""

from __future__ import annotations

from collections.abc import Collection

from rosy_kettle.core.records import Method, Room

__all__ = ["KIT", "MELTED", "before_the_work", "while_it_dries"]

DAMP_RH_PCT = 50.0  # air in which pieces dry badly, from here on [%]; common practice
PREPARE = "Clear and wipe the bench; set out paper, tools and tray. Read the humidity: at most about {gate:.0f} % for this work."
DAMP = "The plan has {humidity:.0f} %: run the dehumidifier first, or plan a closed cure."
KIT = "Gloves, eye cover, hair tied; a mask where powder flies."
NO_OVEN = "Alcohol in the mix: never in a warm oven, no heater, no flame."
CLOSED = "In air this damp: a closed box with a drying agent, or an oven warmed to its lowest and switched off first."
CLOSED_COOL = "In air this damp: a closed box with a drying agent. No oven: the fat would run."
MELTED = frozenset({"butter", "wax"})  # roles that melt in a jug, and run in an oven


def before_the_work(method: Method, room: Room) -> tuple[str, str]:
    """Return what is prepared, and the caution of the humidity gate.

    Parameters
    ----------
    method : Method
        How it is made
    room : Room
        Air that is planned for

    Returns
    -------
    tuple
        Text and caution
    """
    gate = method.humidity_gate_pct
    damp = f" {DAMP.format(humidity=room.humidity_pct)}" if room.humidity_pct > gate else ""
    return PREPARE.format(gate=gate), KIT + damp


def while_it_dries(kinds: Collection[str], room: Room) -> str:
    """Return the caution while it dries or sets; empty in dry air without alcohol.

    Parameters
    ----------
    kinds : Collection
        What the formula holds: ids and roles
    room : Room
        Air that is planned for

    Returns
    -------
    str
        One or two sentences
    """
    alcohol = "flammable" in kinds
    damp = room.humidity_pct > DAMP_RH_PCT
    if alcohol:
        return NO_OVEN + (" In air this damp: a closed box with a drying agent." if damp else "")
    if not damp:
        return ""
    return CLOSED_COOL if MELTED.intersection(kinds) else CLOSED
