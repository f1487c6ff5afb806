"""The invented demo studio."""
