"""Orders and the week they are made in."""
