"""One use case a file: where stored data, reference tables and the core meet."""
