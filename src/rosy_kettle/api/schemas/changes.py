"""What would change a formula: levers, balances, substitutes; why a reading is what it is; what can be drawn."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from pydantic import Field, RootModel

from rosy_kettle.api.schemas.common import Described, Request, Response
from rosy_kettle.core.change.balance import BalanceResult
from rosy_kettle.core.change.balance.substitute import Substitute
from rosy_kettle.core.change.why import Constant, Contribution, Lever
from rosy_kettle.core.readings.charts import Charts
from rosy_kettle.files import FormulaFile

__all__ = [
    "BalanceAnswer", "BalanceAsk", "BalanceTold", "BandAsk", "ChartsAnswer", "ChartsAsk", "ChartsTold", "ExplanationAnswer",
    "LeverList", "ReadingAsk", "SubstituteAsk", "SubstituteList", "SwapAnswer", "SwapAsk",
]  # fmt: skip

Figure = Annotated[float, Field(ge=-1e9, le=1e9, allow_inf_nan=False)]
Path = Annotated[str, Field(max_length=80)]


class ReadingAsk(Request):
    """A reading of a formula, and what is wanted of it."""

    formula: FormulaFile
    reading: Path
    low: Figure | None = None
    high: Figure | None = None
    portion: Annotated[int, Field(ge=0, le=1000)] = 0
    """Whose dough is looked at, where a reading belongs to a dough and there are several."""


class LeverList(Response):
    """Single changes, those that disturb least first."""

    levers: list[Lever]
    not_understood: list[str] = []


class ExplanationAnswer(Response):
    """What a reading is made of."""

    contributions: list[Contribution]
    constants: list[Constant]
    page: str
    learnt: list[str]
    """What the studio has learnt that moves it, as it was accepted."""
    not_understood: list[str] = []


class BandAsk(Request):
    """A target band."""

    reading: Path
    low: Figure | None = None
    high: Figure | None = None


class BalanceAsk(Request):
    """A formula, what is wanted of it, and what must stay."""

    formula: FormulaFile
    targets: Annotated[list[BandAsk], Field(min_length=1, max_length=30)]
    objective: Literal["least-change", "cheapest", "gentlest", "most-lather"] = "least-change"
    locks: list[Path] = []
    frees: list[Path] = []
    guarded: bool = True
    bounds_g: dict[Path, tuple[Figure, Figure]] = {}


@dataclass(frozen=True, slots=True)
class BalanceTold(BalanceResult):
    """The balance, and the paths of keys that were left aside."""

    not_understood: tuple[str, ...] = ()


class BalanceAnswer(Described, RootModel[BalanceTold]):
    """Lines before and after, readings before and after, conflicts, marginals."""


class SubstituteAsk(Request):
    """A line to be replaced."""

    formula: FormulaFile
    position: Annotated[int, Field(ge=0, le=10_000)]
    held: Path | None = None


class SubstituteList(Response):
    """Candidates, those that disturb least first."""

    substitutes: list[Substitute]
    not_understood: list[str] = []


class SwapAsk(SubstituteAsk):
    """A line to be replaced, and by what."""

    ingredient: Path


class SwapAnswer(Response):
    """The formula swapped and balanced, and how that went."""

    result: BalanceResult
    formula: FormulaFile
    not_understood: list[str] = []


class ChartsAsk(Request):
    """A formula to be drawn."""

    formula: FormulaFile
    portion: Annotated[int, Field(ge=0, le=100)] = 0


@dataclass(frozen=True, slots=True)
class ChartsTold(Charts):
    """The curves, and the paths of keys that were left aside."""

    not_understood: tuple[str, ...] = ()


class ChartsAnswer(Described, RootModel[ChartsTold]):
    """Curves as figures."""
