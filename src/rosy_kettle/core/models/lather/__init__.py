"""Lather: the surfactant a bath gets, and the foam it makes."""

from rosy_kettle.core.models.lather.active_surfactant import active_share, tub_concentration
from rosy_kettle.core.models.lather.foam import Foam, foam

__all__ = ["Foam", "active_share", "foam", "tub_concentration"]
