"""From lines to a mix in a setting: the palette of what they are made of, masses with slopes, every default filled in."""
