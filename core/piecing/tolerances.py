"""What hands and eyes bear, in inches: judged figures that more than one part of the craft goes by.

Source: docs/theory, sections 14.8 and 18.1.
"""

from __future__ import annotations

__all__ = ["ABOUT", "EASED", "LEAST_FRAME", "SEEN", "TAPE", "THREAD", "UNEVEN"]

THREAD = 1 / 64
"""What people call a thread."""
SEEN = 1 / 32
"""Off by more it is seen: a tip that floats or is cut off."""
EASED = 1 / 16
"""An edge can be eased in by so much, between two pins."""
ABOUT = 1 / 128
"""An estimate may lie beyond a bound of the craft by so much: no ruler tells it."""
LEAST_FRAME = 1 / 4
"""A frame that shows less looks like a mistake."""
UNEVEN = 1 / 2
"""Lengths of a top that differ by more tell of an edge that was stretched, or of a row that strays; half an inch over three or four feet is
what borders of one length still bring together."""
TAPE = 1 / 24
"""One length of a top, laid flat on a table and read to the eighth, strays by so much (its standard deviation)."""
