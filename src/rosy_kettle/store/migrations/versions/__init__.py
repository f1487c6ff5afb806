"""One migration a file, by number."""
