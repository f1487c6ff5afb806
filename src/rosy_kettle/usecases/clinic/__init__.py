"""Troubles looked into, and practice."""
