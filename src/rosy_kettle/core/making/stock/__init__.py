"""Lots of ingredients: which one a batch draws from, and what is worth saying of them."""
