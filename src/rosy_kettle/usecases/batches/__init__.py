"""What is done to a batch: planned, begun, followed at the bench, told."""
