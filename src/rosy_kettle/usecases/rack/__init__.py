"""What is done to pieces on the rack: set out, weighed, checked, wrapped."""
