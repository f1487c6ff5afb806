"""Every constant the models rest on, named, with unit, source, confidence and range: one frozen record a subject.

A studio that has learnt better carries other values in its tables; nowhere else do constants live.
"""

from rosy_kettle.core.parameters.all import USUAL, Parameters, records
from rosy_kettle.core.parameters.declared import Constant, constants_in

__all__ = ["USUAL", "Constant", "Parameters", "constants_in", "records"]
