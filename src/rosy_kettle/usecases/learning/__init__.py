"""What the studio's own work makes of the defaults."""
