"""Making it: the plan of a batch, and the bench."""
