"""Request and response models, one noun a file."""
