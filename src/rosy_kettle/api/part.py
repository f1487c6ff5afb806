"""One part of the API: its routes under one prefix, described only where the description is made."""

from __future__ import annotations

import os

from flask_openapi3 import APIBlueprint, Tag

from rosy_kettle.api.schemas.common import ErrorAnswer

__all__ = ["DESCRIBING", "part"]

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
