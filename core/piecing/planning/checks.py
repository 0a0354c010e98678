"""Sizes and allowances that make sense at all."""

from __future__ import annotations

from ..errors import SeamTooWide, SizeOutOfRange
from ..lengths import Length, inches
from ..units.spec import UnitSpec

__all__ = ["LARGEST_FINISHED", "SMALLEST_FINISHED", "check_allowance", "check_finished"]


SMALLEST_FINISHED = inches("1/4")


LARGEST_FINISHED = inches(60)


NARROWEST_SEAM = inches("1/16")
_WIDEST_SEAM = inches(1)


def check_allowance(allowance: Length) -> None:
    """Raises ``SeamTooWide`` unless it is from 1/16 in., below which cloth frays out of its seam, to an inch."""
    if not NARROWEST_SEAM <= allowance <= _WIDEST_SEAM:
        raise SeamTooWide(
            "The seam allowance is from {least} to {most}; {usual} is usual.",
            field="seam_allowance",
            least=NARROWEST_SEAM,
            most=_WIDEST_SEAM,
            usual=inches("1/4"),
        )


def check_finished(spec: UnitSpec) -> None:
    """Raises ``SizeOutOfRange`` for a unit too small to be sewn or larger than any bed."""
    for size, name in ((spec.width, "finished"), (spec.height, "height")):
        if not SMALLEST_FINISHED <= size <= LARGEST_FINISHED:
            raise SizeOutOfRange(
                "A unit finishes between {least} and {most}. Check the size, and whether inches or millimetres are meant.",
                field=name,
                least=SMALLEST_FINISHED,
                most=LARGEST_FINISHED,
            )
