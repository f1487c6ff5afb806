"""Firmness: how hard a finished piece is."""

from rosy_kettle.core.models.firmness.piece_firmness import piece_firmness

__all__ = ["piece_firmness"]
