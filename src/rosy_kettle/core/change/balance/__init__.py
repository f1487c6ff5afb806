"""Rebalancing: the least change of a formula that meets wanted bands."""

from rosy_kettle.core.change.balance.problem import (
    OBJECTIVES,
    BalanceProblem,
    BalanceResult,
    Change,
    Conflict,
    Target,
    parse_target,
)
from rosy_kettle.core.change.balance.solve import balance

__all__ = ["OBJECTIVES", "BalanceProblem", "BalanceResult", "Change", "Conflict", "Target", "balance", "parse_target"]
