"""Practice: a bowl with hidden truth, corrected by feel; never part of the studio's own record."""
