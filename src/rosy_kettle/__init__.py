"""Rosy Kettle: a workbench for people who formulate and make solid bath products."""
