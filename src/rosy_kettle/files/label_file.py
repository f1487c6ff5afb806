"""What a formula file says for its label, under ``product.label_facts``."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.making.label.texts import LabelFacts
from rosy_kettle.files.formula_file import load_json, sentence_from
from rosy_kettle.files.shape import Shape

__all__ = ["LabelFactsFile", "read_label_facts"]

Text = Annotated[str, Field(max_length=600)]


Side = Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)]
Language = Literal["en", "de", "fr", "es", "it", "nl", "pl", "pt", "sv", "da", "fi", "cs", "el"]


class ResponsiblePerson(Shape):
    """Name and address of the one in each territory."""

    EU: Text | None = None
    UK: Text | None = None


class LabelFactsFile(Shape):
    """Facts of the label; what is null is not known."""

    name: Text | None = None
    scent_name: Text | None = None
    identity: Text | None = None
    net_g: Annotated[float, Field(gt=0, le=100_000, allow_inf_nan=False)] | None = None
    maker: Text | None = None
    place: Text | None = None
    contact: Text | None = None
    batch_code: Text | None = None
    best_before: Text | None = None
    best_before_reason: Text | None = None
    pao_months: Annotated[float, Field(gt=0, le=120, allow_inf_nan=False)] | None = None
    directions: Text | None = None
    second_text: Annotated[str, Field(max_length=2000)] | None = None
    languages: Annotated[list[Language], Field(max_length=6)] | None = None
    confirmed_languages: Annotated[list[Language], Field(max_length=12)] | None = None
    responsible_person: Text | ResponsiblePerson | None = None
    """One in both territories, or one in each."""
    origin: Text | None = None
    package_panel_mm: Annotated[list[Side], Field(min_length=2, max_length=2)] | None = None

    def facts(self) -> LabelFacts:
        """Return them for the core."""
        said: dict[str, Any] = {}
        for name, value in self.model_dump(exclude_none=True).items():
            if name == "responsible_person":
                said[name] = {"EU": value.strip(), "UK": value.strip()} if isinstance(value, str) else value
                continue
            said[name] = value.strip() if isinstance(value, str) else tuple(value) if isinstance(value, list) else value
        return LabelFacts(**said)


def read_label_facts(text: str | bytes) -> LabelFacts:
    """Return the facts of a formula file's label; none where it has none.

    Raises
    ------
    InputError
        One sentence naming the field, if one cannot be meant.
    """
    data: Any = load_json(text, "formula")
    product = data.get("product") if isinstance(data, dict) else None
    said = product.get("label_facts") if isinstance(product, dict) else None
    if said is None:
        return LabelFacts()
    if not isinstance(said, dict):
        raise InputError('"label_facts" is an object of facts; this is something else.', quantity="label_facts")
    try:
        return LabelFactsFile.model_validate(said).facts()
    except ValidationError as error:
        raise InputError(sentence_from(error, said), quantity="label_facts") from error
