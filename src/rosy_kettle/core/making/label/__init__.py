"""A label at true size: its texts by market, the heights of its letters, and where every line stands."""
