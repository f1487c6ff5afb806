"""What would change a reading: balance, substitutes, levers, comparisons, and why."""
