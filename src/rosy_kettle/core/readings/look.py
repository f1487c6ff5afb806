"""One formula in one setting, looked at: each group of readings is worked out once, and only when it is asked for.

The same look serves the evaluation, the balancer, levers, comparisons and lists; with a sloped mix every figure carries its
slopes by the masses.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from functools import cached_property
from typing import TypeVar

import numpy as np

from rosy_kettle.core.errors import InputError, MissingDataError
from rosy_kettle.core.mixing.mix import Mix
from rosy_kettle.core.mixing.palette import FloatArray
from rosy_kettle.core.mixing.setting import Setting, dough_fault
from rosy_kettle.core.models.bath.readings import read_bath
from rosy_kettle.core.models.dough.readings import read_dough
from rosy_kettle.core.models.drying.readings import read_drying, read_shelf
from rosy_kettle.core.models.fats.mix_temperature import mix_temperature
from rosy_kettle.core.models.feel.readings import read_feel
from rosy_kettle.core.models.firmness import piece_firmness
from rosy_kettle.core.models.firmness.readings import read_firmness
from rosy_kettle.core.models.gas.prereaction import Puff, puff
from rosy_kettle.core.models.gas.readings import read_fizz
from rosy_kettle.core.models.lather.readings import read_lather
from rosy_kettle.core.models.pieces.readings import read_piece
from rosy_kettle.core.models.release.readings import read_release
from rosy_kettle.core.models.skin.readings import read_skin
from rosy_kettle.core.readings.registry import declared
from rosy_kettle.core.records.evaluation import (
    Bath,
    Dough,
    Dry,
    Feel,
    Firmness,
    Fizz,
    Lather,
    Missing,
    OutOfRange,
    PieceReading,
    Release,
    Shelf,
    Skin,
)

__all__ = ["Look"]

Group = TypeVar("Group")


@dataclass(eq=False)
class Look:
    """A mix in its setting, and what can be said of it; a group that lacks a property is None."""

    mix: Mix
    setting: Setting
    spread: FloatArray | None = None
    """Half width of each line's mass band as a share [-]; None where all is weighed."""
    whole: bool = True
    """Whether the formula is one dough; a formula of several portions has no dough of its own."""
    prices: FloatArray | None = None
    """Price of each line [USD/g]; NaN where there is none."""
    until_aired: bool = True
    """Whether the bath is followed past step-in."""

    def __post_init__(self) -> None:
        self.missing: list[Missing] = []
        self.out_of_range: tuple[OutOfRange, ...] = ()
        self.width = np.zeros(self.mix.mass_g.size) if self.spread is None else self.spread

    def value(self, path: str) -> float | None:
        """Return one figure by its dotted path; None where it cannot be said.

        Raises
        ------
        InputError
            If there is no reading of that name.
        """
        reading = declared().get(path)
        if reading is not None and reading.compute is not None:
            found: object = reading.compute(self)
        else:
            group, _, name = path.partition(".")
            if not hasattr(type(self), group):
                raise InputError(
                    f'There is no reading "{path[:60]}"; choose one of those at the Desk.', quantity="reading", value=path[:60]
                )
            found = getattr(getattr(self, group), name, None)
        return found if isinstance(found, int | float) and not isinstance(found, bool) else None

    @cached_property
    def fault(self) -> MissingDataError | None:
        """What keeps the dough from being judged."""
        return dough_fault(self.mix)

    @property
    def one_dough(self) -> bool:
        """Whether there is one dough, of which everything is known."""
        return self.whole and self.fault is None

    @cached_property
    def dough(self) -> Dough:
        """Texture; values only."""
        return read_dough(self.mix, self.width, self.setting, self.missing)

    @cached_property
    def fizz(self) -> Fizz:
        """Gas of the batch."""
        return read_fizz(self.mix, self.setting)

    @cached_property
    def bath(self) -> Bath:
        """PH of the bath."""
        bath, self.out_of_range = read_bath(self.mix, self.setting, until_aired=self.until_aired)
        return bath

    @cached_property
    def active_fault(self) -> MissingDataError | None:
        """What keeps the surfactant from being counted."""
        return self._lather[1]

    @property
    def lather(self) -> Lather | None:
        """Foam of a dose."""
        return self._lather[0]

    @cached_property
    def _lather(self) -> tuple[Lather | None, MissingDataError | None]:
        return _if_known(lambda: read_lather(self.mix, self.width, self.setting))

    @cached_property
    def feel(self) -> Feel | None:
        """What a dose leaves."""
        return None if self.lather is None else _if_known(lambda: read_feel(self.mix, self.setting))[0]

    @cached_property
    def skin(self) -> Skin:
        """Harshness and scent."""
        return read_skin(self.mix, self.setting, self.missing, active_known=self.lather is not None)

    @cached_property
    def firmness(self) -> Firmness | None:
        """Firmness with its bands; values only."""
        return None if self.fault else read_firmness(self.mix, self.setting)

    @cached_property
    def drying(self) -> Dry | None:
        """Hours until dry."""
        return None if self.fault else read_drying(self.mix, self.setting)

    @cached_property
    def release(self) -> Release:
        """Minutes until gone."""
        return read_release(self.mix, self.setting, self.missing)

    @cached_property
    def piece(self) -> PieceReading | None:
        """Density and float."""
        return None if self.fault else read_piece(self.mix, self.setting, self.missing)

    @cached_property
    def shelf(self) -> Shelf:
        """Fizz lost on the shelf."""
        return read_shelf(self.mix, self.setting)

    @cached_property
    def puff(self) -> Puff:
        """Lift of the resting dough."""
        return puff(self.mix, dried_first=self.setting.dried_first)

    def mixed_c(self) -> float | None:
        """Temperature after mixing [°C]; several portions have none together."""
        setting = self.setting
        return mix_temperature(self.mix, setting.wet_c, setting.assumed.room_c, setting.bowl_j_k) if self.whole else None

    def firm_at(self, temperature_c: float) -> float | None:
        """Firmness at one temperature, without its band; None for dust."""
        if self.fault or self.setting.method.loose:
            return None
        assumed, kneaded = self.setting.assumed, self.setting.method.kneaded
        return piece_firmness(self.mix, temperature_c, assumed.room_c, assumed.packing, kneaded=kneaded)

    def money(self, name: str) -> float | None:
        """Cost of batch, piece or bath unrounded [USD]: a slope of whole cents would be zero or a jump."""
        if self.prices is None or np.isnan(self.prices).any():
            return None
        assumed, batch = self.setting.assumed, self.mix.of(self.prices)
        per_gram = batch / (self.mix.total_g * (1 - assumed.loss_fraction))
        return {"batch": batch, "piece": per_gram * assumed.piece_mass_g, "bath": per_gram * assumed.dose_g}[name]


def _if_known(read: Callable[[], Group]) -> tuple[Group | None, MissingDataError | None]:
    try:
        return read(), None
    except MissingDataError as error:
        return None, error
