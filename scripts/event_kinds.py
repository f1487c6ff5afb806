"""Write what the browser has to know of every kind of event, from its declaration: part of make api-types."""

from __future__ import annotations

from pathlib import Path
from typing import Any

from rosy_kettle.core.making.bench import BATCH_EVENTS
from rosy_kettle.core.making.happening import EventKind, Family
from rosy_kettle.core.making.rack.tray import TRAY_EVENTS
from rosy_kettle.core.making.tub.tub_test import TUB_EVENTS

TARGET = Path(__file__).parents[1] / "web/src/api/eventKinds.ts"
HEAD = """/** Made by `make api-types` from the declarations in core/making; not edited by hand. */
export interface EventKind {
  /** Whether a tablet may keep it while the studio does not answer. */
  waits: boolean;
  /** Whether it goes in whatever has happened since. */
  always: boolean;
  /** Whether it ends the step in hand. */
  endsStep: boolean;
  /** Kind by which it is put right. */
  rightedBy: string;
}
"""


def text() -> str:
    """Return the file."""
    families: tuple[Family[Any], ...] = (BATCH_EVENTS, TRAY_EVENTS, TUB_EVENTS)
    return HEAD + "".join(_family(each) for each in families)


def _family(family: Family[Any]) -> str:
    lines = "".join(f"  {name}: {_kind(kind)},\n" for name, kind in sorted(family.kinds.items()))
    return f"\nexport const {family.noun.upper()}_EVENTS: Readonly<Record<string, EventKind>> = {{\n{lines}}};\n"


def _kind(kind: EventKind[Any]) -> str:
    def said(truth: bool) -> str:
        return "true" if truth else "false"

    return (
        f"{{ waits: {said(kind.waits)}, always: {said(kind.always)}, endsStep: {said(kind.ends_step)}, "
        f'rightedBy: "{kind.righted_by}" }}'
    )


if __name__ == "__main__":
    TARGET.write_text(text(), encoding="utf-8")
