"""The test series file: a claim, and the tests made of its variants."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import ConfigDict, Field, ValidationError

from rosy_kettle.core.errors import InputError
from rosy_kettle.core.learning.series import Claim
from rosy_kettle.files.formula_file import load_json, sentence_from
from rosy_kettle.files.shape import Shape

__all__ = ["ClaimFile", "TestSeriesFile", "read_series_json"]

MOST_TESTS = 2_000
Name = Annotated[str, Field(min_length=1, max_length=60)]


class ClaimFile(Shape):
    """One variant is better than another in a reading."""

    reading: Name
    better: Name
    than: Name
    worth: Annotated[float, Field(ge=0, le=1e9, allow_inf_nan=False)] | None = None
    lower_is_better: bool = False

    def claim(self) -> Claim:
        """Return it for the core."""
        return Claim(self.reading, self.better, self.than, self.worth, self.lower_is_better)


class TestFile(Shape):
    """One test of one variant, with whatever figures it has."""

    model_config = ConfigDict(extra="allow")
    __test__ = False

    variant: Name
    blind: bool = False


class TestSeriesFile(Shape):
    """A claim and its tests."""

    __test__ = False

    format: Literal["rosy-kettle/test-series"]
    version: Literal[1]
    claim: ClaimFile
    tests: Annotated[list[TestFile], Field(max_length=MOST_TESTS)]

    def figures(self) -> list[dict[str, Any]]:
        """Return the tests for the core."""
        return [{"variant": test.variant, **(test.model_extra or {})} for test in self.tests]


def read_series_json(text: str | bytes) -> TestSeriesFile:
    """Return a test series file from its text.

    Raises
    ------
    InputError
        One sentence naming the field, if the text is no test series.
    """
    data: Any = load_json(text, "test series")
    if not isinstance(data, dict):
        raise InputError("A test series file is one JSON object; this is something else.", quantity="file")
    try:
        return TestSeriesFile.model_validate(data)
    except ValidationError as error:
        raise InputError(sentence_from(error, data), quantity="file") from error
