"""Label: what is in the product by name, and in which order it is declared."""

from rosy_kettle.core.safety.label.composition import NamedPart, composition
from rosy_kettle.core.safety.label.declaration import declare

__all__ = ["NamedPart", "composition", "declare"]
