"""When pieces are dry, from a weigh-ins file."""

from __future__ import annotations

from rosy_kettle.core.making.rack.formula_prior import prior_of_formula
from rosy_kettle.core.making.rack.weigh_ins import DryingFit, fit_drying
from rosy_kettle.core.records import Tables
from rosy_kettle.files.weigh_ins_file import WeighInsFile
from rosy_kettle.usecases.formulas.check_formula import check_formula

__all__ = ["fit_weigh_ins"]


def fit_weigh_ins(file: WeighInsFile, tables: Tables) -> DryingFit:
    """Return when the pieces of a file are dry.

    Raises
    ------
    InputError
        If the formula names what is not known.
    """
    formula = None if file.formula is None else check_formula(file.formula, tables)
    prior = prior_of_formula(formula, tables)
    return fit_drying([each.weigh_in() for each in file.weigh_ins], file.scale_step_g, prior, file.tare_g)
