"""What is done to a formula: read, checked, judged, kept, listed."""
