"""For whom formulas are judged."""
