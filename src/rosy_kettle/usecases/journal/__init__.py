"""The journal: what has happened, told in one line of time."""
