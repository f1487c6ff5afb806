"""Codes and their facts, put into words: the only place where the core's findings become sentences."""
