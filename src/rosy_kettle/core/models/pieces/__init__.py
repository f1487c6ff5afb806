"""Pieces: how dense they are, how many a batch gives, what is lost on the way."""

from rosy_kettle.core.models.pieces.density import mix_true_density, packing_fraction
from rosy_kettle.core.models.pieces.yields import batch_for_pieces, pieces_from_batch, tool_piece_mass

__all__ = ["batch_for_pieces", "mix_true_density", "packing_fraction", "pieces_from_batch", "tool_piece_mass"]
