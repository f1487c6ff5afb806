"""What is known of the studio's ingredients."""
