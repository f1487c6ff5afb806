"""Labels of formulas and batches."""
