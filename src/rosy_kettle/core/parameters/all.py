"""All parameter records together."""

from __future__ import annotations

from dataclasses import dataclass, field, fields
from typing import Any

from rosy_kettle.core.parameters.bath import BathParameters
from rosy_kettle.core.parameters.dough import DoughParameters
from rosy_kettle.core.parameters.drying import DryingParameters, ShelfParameters
from rosy_kettle.core.parameters.fats import FatParameters
from rosy_kettle.core.parameters.feel import FeelParameters
from rosy_kettle.core.parameters.firmness import FirmnessParameters
from rosy_kettle.core.parameters.gas import GasParameters
from rosy_kettle.core.parameters.label import LabelParameters
from rosy_kettle.core.parameters.lather import LatherParameters
from rosy_kettle.core.parameters.learning import LearningParameters
from rosy_kettle.core.parameters.mixing import MixingParameters
from rosy_kettle.core.parameters.pieces import PieceParameters
from rosy_kettle.core.parameters.release import ReleaseParameters
from rosy_kettle.core.parameters.skin import SkinParameters

__all__ = ["USUAL", "Parameters", "records"]


@dataclass(frozen=True, slots=True)
class Parameters:
    """One record a subject; what a studio has learnt replaces single fields."""

    mixing: MixingParameters = field(default_factory=MixingParameters)
    dough: DoughParameters = field(default_factory=DoughParameters)
    fats: FatParameters = field(default_factory=FatParameters)
    gas: GasParameters = field(default_factory=GasParameters)
    bath: BathParameters = field(default_factory=BathParameters)
    lather: LatherParameters = field(default_factory=LatherParameters)
    firmness: FirmnessParameters = field(default_factory=FirmnessParameters)
    drying: DryingParameters = field(default_factory=DryingParameters)
    shelf: ShelfParameters = field(default_factory=ShelfParameters)
    release: ReleaseParameters = field(default_factory=ReleaseParameters)
    feel: FeelParameters = field(default_factory=FeelParameters)
    skin: SkinParameters = field(default_factory=SkinParameters)
    pieces: PieceParameters = field(default_factory=PieceParameters)


USUAL = Parameters()
"""What the models rest on before a studio has learnt anything."""


def records() -> dict[str, Any]:
    """Return every parameter record by its subject, with the values that hold before a studio has learnt anything.

    Returns
    -------
    dict
        Those the models rest on, then those of learning and of labels
    """
    models = {each.name: getattr(USUAL, each.name) for each in fields(USUAL)}
    return models | {"learning": LearningParameters(), "label": LabelParameters()}
