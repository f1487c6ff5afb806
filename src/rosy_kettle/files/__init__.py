"""Open formats in and out."""

from rosy_kettle.files.formula_file import FormulaFile, formula_from_file, formula_to_file, read_formula_json

__all__ = ["FormulaFile", "formula_from_file", "formula_to_file", "read_formula_json"]
