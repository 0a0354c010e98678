"""What one seam takes: stitching distance, fold, take-up, and the three-strip test.

Source: docs/theory, section 2. All lengths in inches, perpendicular to the raw edge.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import SeamTooWide, StripTestImpossible
from ..lengths import ZERO, Length, inches

__all__ = ["NARROWEST_ALLOWANCE", "Seam", "StripTest", "fold_from"]

NARROWEST_ALLOWANCE = Length.of(1) * 3 / 16
"""Below 3/16 in. the cloth frays out of the seam; no advice here goes under it."""


@dataclass(frozen=True, slots=True)
class Seam:
    """A seam as it is really sewn: ``stitch`` from the raw edge, pressed to one side with fold ``fold``.

    Raises ``SeamTooWide`` when the stitching distance is not above zero or the fold is negative.
    """

    stitch: Length
    fold: Length = ZERO

    def __post_init__(self) -> None:
        if self.stitch <= ZERO:
            raise SeamTooWide(
                "A seam needs an allowance above zero. Give the stitching distance, such as {usual}.",
                field="stitch",
                usual=inches("1/4"),
            )
        if self.fold < ZERO or self.fold > self.stitch:
            raise SeamTooWide(
                "The fold lies between zero and the stitching distance, {stitch}; a thread or two is usual.",
                field="fold",
                stitch=self.stitch,
            )

    @property
    def take_up(self) -> Length:
        """e = stitch + fold/2: what each of the two fabrics loses to the seam."""
        return self.stitch + self.fold / 2


@dataclass(frozen=True, slots=True)
class StripTest:
    """Three strips of one width sewn side by side and pressed: middle strip and whole width, as read."""

    middle: Length
    whole: Length

    def __post_init__(self) -> None:
        if self.middle <= ZERO or self.whole <= ZERO:
            raise StripTestImpossible(
                "Both widths of a strip test are above zero. Measure the middle strip and all three."
            )
        if self.take_up <= ZERO:
            raise StripTestImpossible(
                "The whole must be more than three times the middle strip, since the outer strips keep an unsewn edge. "
                "Check whether the two figures were exchanged.",
            )

    @property
    def strip_width(self) -> Length:
        """w = W - 2m, the width the strips were really cut."""
        return self.whole - self.middle * 2

    @property
    def take_up(self) -> Length:
        """e = (W - 3m)/2."""
        return (self.whole - self.middle * 3) / 2


def fold_from(take_up: Length, stitch: Length) -> Length:
    """f = 2(e - d): the fold, from a strip test and the stitching distance measured on the back."""
    return (take_up - stitch) * 2
