"""A reading: what the ruler showed, and the names of where it was taken, which stay.

Source: docs/theory, section 14.6.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from itertools import combinations

from ..errors import ReadingMisplaced, RowCountMissing, SizeOutOfRange, StripTestIncomplete
from ..lengths import ZERO, Length, inches
from ..planning.seam import StripTest
from .model import BlockModel
from .reading_kinds import DIAGONALS, OF_A_UNIT, PLAIN, SEWN, SIDED, ReadingKind

__all__ = [
    "LONGEST_ROW",
    "Reading",
    "TwoSettings",
    "loosened",
    "mark_now",
    "marked",
    "moved",
    "two_settings",
]

_MOST = inches(400)
_SEVERAL, _MOVED = 2, 3 / 64 - 1e-6
"""Seams of one day, and inches between two, from which they were sewn at two settings: no mean of a day strays so far by itself."""
LONGEST_ROW = 200


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. Which fields tell where it was taken depends on its kind; all of them are names that stay.

    ``unit`` (such as c3r1) for a unit laid in the block, ``batch`` for any of that kind and size; ``corner`` ("bottom left")
    for a diagonal's miss, or the side that a tip points at ("top") where a unit has several of them; ``seam`` and ``spot`` (start, middle, end) for the stitching; ``feature`` (a key of the model) for
    what is joined; ``count`` for a row of so many units of a batch, wherever it lies. ``mark`` says what lay there when it was taken: where that has changed, the reading is of something that
    is no longer in the block. ``confirmed`` says that it was read again and is right. ``day`` tells apart seams sewn on
    different days, and ``apart`` says how far, in inches, the mean seam of that day may lie from today's for being long ago or of
    another set-up.

    Raises ``SizeOutOfRange`` or ``StripTestIncomplete``.
    """

    kind: ReadingKind
    value: Length | None = None
    batch: str = ""
    unit: str = ""
    corner: str = ""
    seam: str = ""
    spot: str = ""
    feature: str = ""
    whole: Length | None = None
    count: int = 0
    day: str = ""
    mark: str = ""
    confirmed: bool = False
    key: str = ""
    apart: float = 0.0

    def __post_init__(self) -> None:
        if self.kind in PLAIN:
            return
        if self.value is None:
            raise SizeOutOfRange("Type what the ruler reads.", field="value")
        if self.kind not in SIDED and self.value <= ZERO:
            raise SizeOutOfRange("A reading is above zero. Read it again, or leave it out.", field="value")
        if abs(self.value) > _MOST:
            raise SizeOutOfRange("A reading of more than {most} is no part of a block.", field="value", most=_MOST)
        if self.kind is ReadingKind.ROW and not self.feature and not 2 <= self.count <= LONGEST_ROW:
            raise RowCountMissing(
                "A row's length says nothing without its number of units. Give a count from 2 to {most}.",
                field="count",
                most=LONGEST_ROW,
            )
        if self.kind is ReadingKind.STRIP_TEST:
            if self.whole is None:
                raise StripTestIncomplete(
                    "A strip test is two readings: the middle strip and all three together. Give both.", field="whole"
                )
            _ = StripTest(self.value, self.whole)

    @property
    def read(self) -> float:
        """Inches: the take-up of a strip test, else the value."""
        if self.value is None:
            return 0.0
        if self.kind is ReadingKind.STRIP_TEST and self.whole is not None:
            return float(StripTest(self.value, self.whole).take_up)
        return float(self.value)

    @property
    def piece(self) -> tuple[str, ...]:
        """The one spot of the one piece it was taken on; empty when any of many may have been measured.

        Reading the same spot again shows the same mark again: what the marks leave unsaid is common to all of them.
        """
        where = (self.unit, self.seam, self.spot, self.corner, self.feature)
        return (self.kind.value, *where) if self.unit or self.seam or self.feature else ()


@dataclass(frozen=True, slots=True)
class TwoSettings:
    """Seams that two days, written 2026-11-25, sewed apart: ``before`` and ``after`` in inches, raw edge to stitching, on the mean."""

    first: str
    before: float
    last: str
    after: float


def two_settings(readings: Iterable[Reading]) -> TwoSettings | None:
    """Where several seams of each of two days were read on the back and all of one lie deeper than all of the other: the guide was moved
    between them. Of more such days the last, and the last one before it that is so."""
    days: dict[str, list[float]] = {}
    for r in readings:
        if r.kind is ReadingKind.STITCH and r.day:
            days.setdefault(r.day, []).append(r.read)
    several = {day: read for day, read in days.items() if len(read) >= _SEVERAL}
    for last, first in combinations(sorted(several, reverse=True), 2):
        one, other = several[first], several[last]
        before, after = sum(one) / len(one), sum(other) / len(other)
        if abs(after - before) >= _MOVED and (max(one) < min(other) or max(other) < min(one)):
            return TwoSettings(first, before, last, after)
    return None


def marked(reading: Reading, model: BlockModel) -> Reading:
    """The same reading with what lies there now, and of which batch that is. Raises ``ReadingMisplaced`` when nothing of the
    kind does."""
    batch = model.places.batch_of(reading.unit, reading.batch)
    return replace(reading, mark=mark_now(reading, model), batch=batch)


def mark_now(reading: Reading, model: BlockModel) -> str:
    """What lies where a reading was taken. Raises ``ReadingMisplaced`` when nothing of the kind does."""
    places = model.places
    if reading.kind in PLAIN:
        return ""
    if reading.feature:
        n = model.find(reading.feature)
        if n is None or model.features[n].kind.value != reading.kind.value:
            raise ReadingMisplaced("This block has no such place. Pick it on the drawing again.", field="feature")
        return model.mark_of(n)
    if reading.unit:
        unit = places.unit(reading.unit)
        if unit is None:
            raise ReadingMisplaced("This block has no such unit. Pick it on the drawing again.", field="unit")
        return places.mark(unit)
    if reading.seam:
        n = places.seam(reading.seam)
        if n is None:
            raise ReadingMisplaced("This block has no such seam. Pick it on the drawing again.", field="seam")
        return places.seam_mark(n)
    if reading.batch and places.batch(reading.batch) is None:
        raise ReadingMisplaced("This block has no such units. Pick one on the drawing, or its kind.", field="batch")
    return ""


def moved(reading: Reading, by: Length) -> Reading:
    """What a seam reading or strip test would have been with the guide moved ``by`` so much away from the needle: the stitching moves
    as much; the middle strip of a test loses two seams of it, the whole four. One that is moved to nothing stays as it was."""
    if reading.value is None or by == ZERO:
        return reading
    if reading.kind is ReadingKind.STRIP_TEST and reading.whole is not None:
        value, whole = reading.value - by * 2, reading.whole - by * 4
        return replace(reading, value=value, whole=whole) if min(value, whole) > ZERO else reading
    value = reading.value + by
    return replace(reading, value=value) if reading.kind is ReadingKind.STITCH and value > ZERO else reading


def loosened(reading: Reading, model: BlockModel) -> Reading | None:
    """What a reading taken elsewhere says of this block: a seam of any seam, a unit of any of its kind and size. None when it
    says nothing of it, as of places in another block, or of sides that only that block has."""
    if reading.kind in SEWN:
        return replace(reading, batch="", unit="", seam="", mark="", feature="")
    of_any = reading.kind in OF_A_UNIT or (reading.kind is ReadingKind.ROW and reading.count >= 2)
    turned = reading.kind in (ReadingKind.MISS, *DIAGONALS)
    if not of_any or turned or reading.feature or model.places.batch(reading.batch) is None:
        return None
    return replace(reading, unit="", corner="", mark="")
