"""A year of the invented studio: batches in their weather, what rack and tub made of them, and a bias nobody told it of."""
