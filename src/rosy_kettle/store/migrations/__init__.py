"""Migrations of the studio file."""
