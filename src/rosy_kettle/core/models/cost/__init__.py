"""Cost: decimal arithmetic from prices to a piece and a bath."""

from rosy_kettle.core.models.cost.formula_cost import FormulaCost, formula_cost

__all__ = ["FormulaCost", "formula_cost"]
