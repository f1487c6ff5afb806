"""Labels of formulas and batches."""

__all__ = ["USUAL_LABEL_MM"]

USUAL_LABEL_MM = (60.0, 40.0)
"""Width and height of a label where none are asked for [mm]; they stand here because the command line starts without the rest."""
