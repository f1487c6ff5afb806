"""Fats: what sets, what melts, and how fast a warm dough cools."""
