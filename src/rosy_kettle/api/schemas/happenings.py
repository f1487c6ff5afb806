"""Events as browsers send them: made of the declarations of `core/making`, never written twice."""

from __future__ import annotations

from dataclasses import MISSING, fields
from datetime import UTC, datetime
from functools import reduce
from operator import or_
from types import NoneType, UnionType
from typing import Annotated, Any, Literal, Protocol, Union, get_args, get_origin, get_type_hints
from uuid import UUID

from pydantic import Field, create_model

from rosy_kettle.api.schemas.common import Moment, Request
from rosy_kettle.core.making.happening import Between, EventKind, Family, Length
from rosy_kettle.usecases.happen import Coming

__all__ = ["EventId", "MadeAt", "Said", "coming_of", "name_of", "said_union"]

EventId = Annotated[UUID, Field(strict=False)]
"""An event's own name, given where it is made; a repeat of it changes nothing."""
MadeAt = Moment
"""When it was made, by the clock of the device it was made on."""


class Said(Request):
    """What every event may carry."""

    kind: str
    id: EventId | None = None
    made_at: MadeAt | None = None


def said_union(family: Family[Any], prefix: str) -> Any:
    """Return the type of what a browser may send of a noun's events: one model a kind, told apart by it.

    Parameters
    ----------
    family : Family
        The declared kinds of event
    prefix : str
        What the models' names begin with
    """
    models = [_model(kind, prefix) for kind in family.kinds.values() if kind.sent]
    return Annotated[reduce(or_, models), Field(discriminator="kind")]


class Saved(Protocol):
    """A body that brings one event: its name may stand in the event or beside it."""

    after: int
    event: Said
    id: UUID | None
    made_at: datetime | None


def coming_of(body: Saved, *, hold: bool = False) -> Coming:
    """Return an event for the use cases: moments in UTC, what was left out left out."""
    said = body.event
    data = said.model_dump(exclude={"kind", "id", "made_at"}, exclude_none=True)
    plain = {
        name: value.astimezone(UTC).isoformat() if isinstance(value, datetime) else value for name, value in data.items()
    }  # fmt: skip
    return Coming(body.after, said.kind, plain, name_of(said.id or body.id), said.made_at or body.made_at, hold)


def name_of(event_id: UUID | None) -> str | None:
    """Return an event's name as it is kept."""
    return None if event_id is None else str(event_id)


def _model(kind: EventKind[Any], prefix: str) -> type[Said]:
    hints = get_type_hints(kind.said, include_extras=True)
    asked: dict[str, Any] = {"kind": (Literal[kind.name], ...)}
    for each in fields(kind.said):
        asked[each.name] = (_checked(hints[each.name]), ... if each.default is MISSING else each.default)
    name = f"{prefix}{kind.name.title().replace('-', '')}Event"
    return create_model(name, __base__=Said, __doc__=kind.said.__doc__, **asked)


def _checked(hint: Any) -> Any:
    """Return a declared type with its limits as pydantic knows them."""
    if get_origin(hint) in {Union, UnionType}:
        return reduce(or_, (_checked(each) for each in get_args(hint)))
    if hint is datetime:
        return Moment
    if get_origin(hint) is Annotated:
        kind, *limits = get_args(hint)
        return Annotated[_checked(kind), *(_field(kind, each) for each in limits)]
    return None if hint is NoneType else hint


def _field(kind: Any, limit: Any) -> Any:
    if isinstance(limit, Between):
        known: dict[str, Any] = {"gt" if limit.above else "ge": kind(limit.low), "le": kind(limit.high)}
        return Field(**(known | ({"allow_inf_nan": False} if kind is float else {})))
    if isinstance(limit, Length):
        return Field(min_length=limit.low, max_length=limit.high, pattern=limit.pattern)
    raise TypeError(f"no such limit: {limit!r}")
