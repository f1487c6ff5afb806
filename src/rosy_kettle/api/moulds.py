"""How many of each mould the studio has."""

from __future__ import annotations

from typing import Annotated

from flask import Response
from pydantic import BaseModel, Field

from rosy_kettle.api.part import part
from rosy_kettle.api.respond import respond
from rosy_kettle.api.schemas.moulds import MouldList, MouldSave
from rosy_kettle.api.studio import current_studio
from rosy_kettle.core.errors import NotFoundError
from rosy_kettle.store.moulds import list_moulds, set_moulds
from rosy_kettle.usecases.studio.studio_tables import current_tables

__all__ = ["blueprint"]

blueprint = part("moulds", __name__, refusals=(404, 422))


class ToolPath(BaseModel):
    """One tool."""

    tool_id: Annotated[str, Field(max_length=80)]


@blueprint.get("/moulds", summary="How many moulds there are", responses={200: MouldList})
def read() -> Response:
    with current_studio().reading() as session:
        return respond(MouldList(counts=list_moulds(session)))


@blueprint.put("/moulds/<string:tool_id>", summary="Say how many there are of one mould", responses={200: MouldList})
def save(path: ToolPath, body: MouldSave) -> Response:
    if path.tool_id not in current_tables(current_studio()).tools:
        raise NotFoundError(f'There is no tool "{path.tool_id}".', noun="tool", id=path.tool_id)
    with current_studio().writing() as session:
        set_moulds(session, path.tool_id, body.count)
        session.flush()
        return respond(MouldList(counts=list_moulds(session)))
