"""What does not change between requests: methods, tools, units, states, readings; and the server's health."""

from __future__ import annotations

from flask import Response

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.reference import (
    BandAnswer,
    FormatList,
    Health,
    MethodAnswer,
    ReadingAnswer,
    ReadingList,
    ReferenceAnswer,
    StateAnswer,
    ToolAnswer,
    UnitAnswer,
)
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.making.rack.air import VERY_DAMP_PCT
from rosy_kettle.core.making.rack.weigh_ins import PAN_STEPS
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records import Formula, Method, Portion
from rosy_kettle.core.records.reading import Reading
from rosy_kettle.files import formula_to_file
from rosy_kettle.files.formats import format_schemas
from rosy_kettle.usecases.studio.studio_tables import current_tables
from rosy_kettle.usecases.studio.version import VERSION

__all__ = ["blueprint"]

UNIT_LABELS = {
    "g": "g", "kg": "kg", "mg": "mg", "oz": "oz", "lb": "lb", "ml": "mL", "l": "L", "floz": "fl oz", "cup": "cup",
    "tbsp": "tbsp", "tsp": "tsp", "drop": "drops", "spray": "sprays", "part": "parts", "pct": "%",
}  # fmt: skip

blueprint = part("reference", __name__)
EMPTY_FORMULA = Formula("New formula", (Portion("body", ()),))


@blueprint.get("/health", summary="Whether the server is up", responses={200: Health})
def health() -> Response:
    return respond(Health(status="ok", version=VERSION))


@blueprint.get("/formats", summary="The file formats as JSON Schema, by name", responses={200: FormatList})
def formats() -> Response:
    return respond(FormatList(formats=format_schemas()))


@blueprint.get("/readings", summary="The registry of readings", responses={200: ReadingList})
def readings() -> Response:
    return respond(ReadingList(readings=_readings()))


@blueprint.get("/reference", summary="Methods, tools, units, states and readings", responses={200: ReferenceAnswer})
def reference() -> Response:
    tables = current_tables(current_studio())
    return respond(
        ReferenceAnswer(
            methods=[_method(method) for method in tables.methods.values()],
            tools=[ToolAnswer(id=t.id, name=t.name, type=t.type, volume_ml=t.volume_ml) for t in tables.tools.values()],
            units=[UnitAnswer(id=unit, label=label) for unit, label in UNIT_LABELS.items()],
            states=[
                StateAnswer(state=state, saturation_from=edge) for state, edge in tables.parameters.dough.lower_edges.items()
            ],
            readings=_readings(),
            empty_formula=formula_to_file(EMPTY_FORMULA),
            very_damp_pct=VERY_DAMP_PCT,
            pan_steps=PAN_STEPS,
        )
    )


def _readings() -> list[ReadingAnswer]:
    return [reading_answer(reading) for reading in declared().values()]


def reading_answer(reading: Reading) -> ReadingAnswer:
    """Return what the pages know of a reading: all of its declaration but how it is computed."""
    low, high = reading.scale or (None, None)
    return ReadingAnswer(
        id=reading.id, label=reading.label, unit=reading.unit, kind=reading.kind, basis=reading.basis,
        explained=reading.explained, question=reading.question, scale_low=low, scale_high=high, decimals=reading.decimals,
        desk=reading.desk, curve=reading.curve, aim=reading.aim, has_why=reading.compute is not None,
        half_width=reading.half_width, watched=reading.watched.place if reading.watched else None,
        lane=_band(reading.lane), always=_band(reading.always),
    )  # fmt: skip


def _band(ends: tuple[float | None, float | None] | None) -> BandAnswer | None:
    return None if ends is None else BandAnswer(low=ends[0], high=ends[1])


def _method(method: Method) -> MethodAnswer:
    return MethodAnswer(
        id=method.id, name=method.name, summary=method.summary, piece_mass_g=method.piece_mass_g, dose_g=method.dose_g,
        judged_at_c=method.judged_at_c, wanted_states=list(method.wanted.states), saturation_low=method.wanted.saturation_low,
        saturation_high=method.wanted.saturation_high, set_time=method.set_time,
    )  # fmt: skip
