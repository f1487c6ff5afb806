"""Why a reading is what it is, and what would move it."""

from rosy_kettle.core.change.why.constants import Constant, constants_of
from rosy_kettle.core.change.why.contributions import Contribution, contributions
from rosy_kettle.core.change.why.levers import Effect, Lever, levers

__all__ = ["Constant", "Contribution", "Effect", "Lever", "constants_of", "contributions", "levers"]
