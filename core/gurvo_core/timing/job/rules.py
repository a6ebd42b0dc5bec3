"""What several of the timing's rules hold: nothing before the wheel is set up, and how near shown and typed must be."""

__all__ = ["SAME_SHOWN_DEG", "SET_UP_FIRST"]

SAME_SHOWN_DEG = 0.005  # what was shown and sent back differs by rounding at most
SET_UP_FIRST = "set up the wheel first: its numbering is not known yet"
