"""What a ruler read, and how far that is from what the stage should give.

All lengths in inches. Source: docs/theory.md, section 7.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum

from ..errors import RowCountMissing, SizeOutOfRange, StripTestIncomplete
from ..lengths import ZERO, Length, inches
from ..planning import UnitPlan
from ..seams import StripTest
from ..wording import Said

__all__ = ["Comparison", "Reading", "ReadingKind", "compare", "target_of"]

LONGEST_ROW = 200


class ReadingKind(StrEnum):
    UNIT_WIDTH = "unit_width"
    UNIT_HEIGHT = "unit_height"
    RAW_SIZE = "raw_size"
    ROW_LENGTH = "row_length"
    STITCH_DISTANCE = "stitch_distance"
    STRIP_TEST = "strip_test"


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. ``row_units`` belongs to a row length, ``whole`` (all three strips) to a strip test.

    Raises ``RowCountMissing``, ``StripTestIncomplete``, ``StripTestImpossible`` or ``SizeOutOfRange``.
    """

    kind: ReadingKind
    value: Length
    row_units: int | None = None
    whole: Length | None = None
    key: str = ""

    def __post_init__(self) -> None:
        if self.value <= ZERO:
            raise SizeOutOfRange("A reading is above zero. Read it again, or leave it out.", field="value")
        if self.kind is ReadingKind.ROW_LENGTH and not (self.row_units and 2 <= self.row_units <= LONGEST_ROW):
            raise RowCountMissing(
                "A row's length says nothing without its number of units. Give a count from 2 to {most}.",
                field="row_units",
                most=LONGEST_ROW,
            )
        if self.kind is ReadingKind.STRIP_TEST:
            if self.whole is None:
                raise StripTestIncomplete(
                    "A strip test is two readings: the middle strip and all three together. Give both.", field="whole"
                )
            _ = self.strip_test

    @property
    def strip_test(self) -> StripTest:
        if self.whole is None:
            raise StripTestIncomplete("This reading is no strip test.", field="whole")
        return StripTest(self.value, self.whole)


def target_of(reading: Reading, plan: UnitPlan) -> Length:
    """What the reading should be, by the plan. For a strip test: the take-up it should show, the allowance itself."""
    choices = plan.choices
    match reading.kind:
        case ReadingKind.UNIT_WIDTH:
            return plan.target_width
        case ReadingKind.UNIT_HEIGHT:
            return plan.target_height
        case ReadingKind.RAW_SIZE:
            return plan.raw_at(plan.take_up)
        case ReadingKind.ROW_LENGTH:
            return choices.row(reading.row_units or 0)
        case ReadingKind.STITCH_DISTANCE:
            return choices.seam.stitch
        case ReadingKind.STRIP_TEST:
            return choices.seam_allowance


@dataclass(frozen=True, slots=True)
class Comparison:
    """A reading against its target. ``difference`` is reading minus target."""

    reading: Reading
    read: Length
    target: Length
    difference: Length
    said: Said
    off: bool


_CLOSE = inches("1/64")
_WORDS: dict[ReadingKind, tuple[str, str]] = {
    ReadingKind.STITCH_DISTANCE: ("narrow", "wide"),
    ReadingKind.STRIP_TEST: ("too little taken up", "too much taken up"),
}


def compare(reading: Reading, plan: UnitPlan) -> Comparison:
    """The reading beside its target, the sign in words."""
    target = target_of(reading, plan)
    read = reading.strip_test.take_up if reading.kind is ReadingKind.STRIP_TEST else reading.value
    difference = read - target
    off = abs(difference) >= _CLOSE
    return Comparison(reading, read, target, difference, _said(reading, plan, difference, off), off)


def _said(reading: Reading, plan: UnitPlan, difference: Length, off: bool) -> Said:
    if not off:
        return Said("as it should be")
    less, more = _WORDS.get(reading.kind, ("short", "long"))
    both = plan.choices.seam_allowance * 2
    if reading.kind is not ReadingKind.STITCH_DISTANCE and abs(abs(difference) - both) <= _CLOSE / 2:
        return Said(
            "{size} {way}: exactly two seam allowances. Finished and unfinished size mixed up, or a ruler's border counted?",
            size=abs(difference),
            way=less if difference < ZERO else more,
        )
    if reading.kind is ReadingKind.RAW_SIZE and reading.value < plan.target_width:
        return Said("{size} short, and too small to trim on all sides", size=abs(difference))
    return Said("{size} {way}", size=abs(difference), way=less if difference < ZERO else more)
