"""What concerns the studio as a whole: its tables, its copies, its demonstration."""
