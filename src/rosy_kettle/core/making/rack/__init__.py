"""What happens after the bench: pieces drying on trays, told by weighing them."""
