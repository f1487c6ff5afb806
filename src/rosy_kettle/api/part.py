"""One part of the API: its routes under one prefix, described only where the description is made."""

from __future__ import annotations

import os
from typing import Any

from flask_openapi3 import APIBlueprint, Tag

from rosy_kettle.api.schemas.common import ErrorAnswer

__all__ = ["DESCRIBING", "file_of", "part"]

DESCRIBING = "ROSY_KETTLE_DESCRIBING"
"""Environment variable under which the routes also write their description, which takes longer than all else at start."""


def part(name: str, module: str, prefix: str = "/api", refusals: tuple[int, ...] = ()) -> APIBlueprint:
    """Return the blueprint of one part.

    Parameters
    ----------
    name : str
        Name and tag
    module : str
        Module the routes stand in
    prefix : str
        Address the routes begin with
    refusals : tuple
        Status codes of the errors its routes answer with
    """
    return APIBlueprint(
        name, module, url_prefix=prefix, abp_tags=[Tag(name=name)], abp_responses=dict.fromkeys(refusals, ErrorAnswer),
        doc_ui=DESCRIBING in os.environ,
    )  # fmt: skip


def file_of(media_type: str, description: str) -> dict[Any, Any]:
    """Return what a route that answers with a file or a stream says of its answer."""
    return {200: {"description": description, "content": {media_type: {"schema": {}}}}}
