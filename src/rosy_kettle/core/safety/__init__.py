"""Rules of safety and labelling, what they find, and the declaration of the label."""
