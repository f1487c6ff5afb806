"""What is done with a test in the tub: begun, measured, told."""
