"""The clinic: why a piece went wrong, from its formula, its record and a few questions."""
