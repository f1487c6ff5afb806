"""Reads recipe text as people write it: lines, amounts, units, everyday names."""

from rosy_kettle.reader.line_table import is_line_table, table_as_recipes
from rosy_kettle.reader.names import NameIndex, NameMatch
from rosy_kettle.reader.recipe import ReadLine, ReadRecipe, read_recipe
from rosy_kettle.reader.tidy import plain_text

__all__ = ["NameIndex", "NameMatch", "ReadLine", "ReadRecipe", "is_line_table", "plain_text", "read_recipe", "table_as_recipes"]
