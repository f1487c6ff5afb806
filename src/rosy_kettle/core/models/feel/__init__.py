"""Feel: oil, ring, slip, tint and stain of a bath."""

from rosy_kettle.core.models.feel.bath_feel import BathFeel, bath_feel

__all__ = ["BathFeel", "bath_feel"]
