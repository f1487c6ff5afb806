"""What the studio's own record says: claims judged side by side, and factors learnt from what was seen."""
