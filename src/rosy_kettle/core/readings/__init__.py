"""What is said of a formula: the registry of readings, and the one evaluation."""
