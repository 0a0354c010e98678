"""How a line to sew by is marked: three schools, and what each asks of the hands. Source: docs/theory, section 15."""

from __future__ import annotations

from enum import StrEnum

__all__ = ["MARKING_WORDS", "Marking"]


class Marking(StrEnum):
    CENTRE = "centre"
    LINES = "lines"
    GUIDE = "guide"


MARKING_WORDS = {
    Marking.CENTRE: ("One line", "draw the line between, sew beside it, cut on it"),
    Marking.LINES: ("Two lines", "draw both sewing lines and sew on them"),
    Marking.GUIDE: ("No line", "the corner follows a guide on the machine bed"),
}
"""What a school of marking is called, and what it is in a line."""
