"""Pure computation about bath formulas: see README.md in this folder."""
