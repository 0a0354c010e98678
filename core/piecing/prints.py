"""How the print of a cloth runs, and how often it comes round again.

Source: docs/theory, sections 12.8 and 13.1.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from .lengths import ZERO, Length

__all__ = ["PLAIN_PRINT", "ClothPrint", "Direction"]


class Direction(StrEnum):
    """How a print runs: ``NONE`` any way, ``STRIPES`` along the selvedge both ways, ``ONE_WAY`` along it, one way up."""

    NONE = "none"
    STRIPES = "stripes"
    ONE_WAY = "one_way"


@dataclass(frozen=True, slots=True)
class ClothPrint:
    """``along`` and ``across`` the selvedge it repeats after so much; nothing where its repeats need not meet at a seam."""

    direction: Direction = Direction.NONE
    along: Length = ZERO
    across: Length = ZERO

    @property
    def lies_one_way(self) -> bool:
        """Whether a piece turned a quarter would be seen to be."""
        return self.direction is not Direction.NONE or self.meets

    @property
    def meets(self) -> bool:
        """Whether it is to go on from one piece to the next."""
        return self.along > ZERO or self.across > ZERO

    def begun_every(self, length: Length) -> Length:
        """How far one length begins after the last, inches, for each to begin at the same place of the print: whole repeats."""
        if self.along == ZERO:
            return length
        return length.round_up(self.along)

    def shown_by_another(self, width: Length) -> Length:
        """What one more width adds beside the last where seams take it down to ``width``, inches: whole repeats, or nothing where it does
        not come round within it."""
        if self.across == ZERO:
            return width
        return self.across * self.across.whole_times(width)


PLAIN_PRINT = ClothPrint()
