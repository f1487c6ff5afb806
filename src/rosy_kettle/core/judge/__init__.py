"""Judging one formula: what every model says of it in its setting, or why it cannot be said."""
