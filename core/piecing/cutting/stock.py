"""What there is to cut from, and what is wanted: rectangles of cloth, and pieces with their grain.

Lengths are exact. ``across`` runs from selvedge to selvedge, ``along`` with the selvedge. Source: docs/theory, section 13.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from enum import StrEnum
from fractions import Fraction
from math import gcd, lcm

from ..errors import ClothImpossible
from ..lengths import ZERO, Area, Length, Measure, inches, mm
from ..messages import Message

__all__ = ["CLOTH_WORDS", "Cloth", "ClothKind", "WantedPiece", "grain_said", "grid_of", "usual_size"]

LARGEST_CLOTH = inches(2_000)
MOST_PIECES = 20_000


class ClothKind(StrEnum):
    """What lies in the stock: cloth to cut from, and what is cut or sewn already.

    A triangle is known by the square that it was cut from, once or twice on its diagonals; a half-square unit by its raw side.
    """

    YARDAGE = "yardage"
    FAT_QUARTER = "fat_quarter"
    SQUARE = "square"
    STRIP = "strip"
    SCRAP = "scrap"
    HALF_TRIANGLE = "half_triangle"
    QUARTER_TRIANGLE = "quarter_triangle"
    HALF_SQUARE = "half_square"

    @property
    def is_cloth(self) -> bool:
        """Whether pieces are cut from it."""
        return self not in (ClothKind.HALF_TRIANGLE, ClothKind.QUARTER_TRIANGLE, ClothKind.HALF_SQUARE)

    @property
    def varies(self) -> bool:
        """Whether cloths of this kind are cut by hand, so that each may be wider than is known."""
        return self in (ClothKind.FAT_QUARTER, ClothKind.SCRAP)

    @property
    def of_a_square(self) -> int:
        """For triangles, how many of them a square gave: 2 or 4; else 1."""
        return {ClothKind.HALF_TRIANGLE: 2, ClothKind.QUARTER_TRIANGLE: 4}.get(self, 1)


CLOTH_WORDS = {
    ClothKind.YARDAGE: "Yardage",
    ClothKind.FAT_QUARTER: "Fat quarter",
    ClothKind.SQUARE: "Precut square",
    ClothKind.STRIP: "Precut strip",
    ClothKind.SCRAP: "Scrap",
    ClothKind.HALF_TRIANGLE: "Triangle, square cut once",
    ClothKind.QUARTER_TRIANGLE: "Triangle, square cut twice",
    ClothKind.HALF_SQUARE: "Half-square unit",
}
"""What a kind of cloth is called."""


def grain_said(kind: ClothKind, side: Length) -> Message | None:
    """How a triangle cut from a square of that side lies: which edges are how long, and on the straight grain."""
    if kind is ClothKind.HALF_TRIANGLE:
        return Message("legs of {side}, on the straight grain; its long edge on the bias", side=side)
    if kind is ClothKind.QUARTER_TRIANGLE:
        return Message("long edge of {side}, on the straight grain; its legs on the bias", side=side)
    return None


_SIZES = {
    ClothKind.YARDAGE: ((inches(40), inches(36)), (mm(1000), mm(1000))),
    ClothKind.FAT_QUARTER: ((inches(20), inches(18)), (mm(500), mm(500))),
    ClothKind.SQUARE: ((inches(10), inches(10)), (mm(250), mm(250))),
    ClothKind.STRIP: ((inches(40), inches("5/2")), (mm(1000), mm(65))),
    ClothKind.SCRAP: ((inches(8), inches(8)), (mm(200), mm(200))),
    ClothKind.HALF_TRIANGLE: ((inches("31/8"), inches("31/8")), (mm(100), mm(100))),
    ClothKind.QUARTER_TRIANGLE: ((inches("17/4"), inches("17/4")), (mm(110), mm(110))),
    ClothKind.HALF_SQUARE: ((inches("5/2"), inches("5/2")), (mm(65), mm(65))),
}


def usual_size(kind: ClothKind, measure: Measure) -> tuple[Length, Length]:
    """Usable size across and along to begin with, in inches or in round millimetres."""
    return _SIZES[kind][measure is Measure.MILLIMETRES]


@dataclass(frozen=True, slots=True)
class Cloth:
    """``count`` cloths alike: a fabric by its role, usable ``across`` and ``along`` the selvedge.

    ``across_most`` is as wide as they may be where not every one was measured, as with fat quarters; they are planned at ``across``.

    Raises ``ClothImpossible`` for sizes that cannot be.
    """

    key: str
    fabric: str
    across: Length
    along: Length
    kind: ClothKind = ClothKind.YARDAGE
    count: int = 1
    name: str = ""
    across_most: Length | None = None

    def __post_init__(self) -> None:
        for size, field in ((self.across, "across"), (self.along, "along")):
            if not ZERO < size <= LARGEST_CLOTH:
                raise ClothImpossible(
                    "A cloth is larger than nothing and under {most}.", field=field, most=LARGEST_CLOTH
                )
        if self.across_most is not None and not self.across <= self.across_most <= LARGEST_CLOTH:
            raise ClothImpossible(
                "Up to {most} is not as much as {across} across. Give the widest they may be, or leave it empty.",
                field="across_most",
                most=self.across_most,
                across=self.across,
            )
        if not 0 <= self.count <= MOST_PIECES:
            raise ClothImpossible("Count between 0 and {most} cloths.", field="count", most=f"{MOST_PIECES:,}")

    @property
    def area(self) -> Area:
        """Square inches of one such cloth."""
        return Area(self.across.area_with(self.along))

    @property
    def called(self) -> str:
        """Its name, or what kind of cloth it is."""
        return self.name or CLOTH_WORDS[self.kind].lower()

    @property
    def at_most(self) -> Cloth:
        """The same if it is as wide as it may be."""
        return replace(self, across=self.across_most or self.across)

    def one(self, n: int) -> Cloth:
        """The nth of several cloths alike, as a cloth of its own."""
        return replace(self, key=f"{self.key}#{n}", count=1)


@dataclass(frozen=True, slots=True)
class WantedPiece:
    """``count`` rectangles of one fabric: ``width`` across, ``height`` along the grain, when it matters.

    ``turns`` tells whether a piece may be cut lying on its side. ``gives`` 2 or 4 when it is cut further on its
    diagonals. ``along_cloth`` wants it cut lengthwise, as a border is. ``joined`` ones are strips that are joined end to end
    on the diagonal, so that shorter ones do as well. ``bits`` is how many of the parts that a piece gives are wanted, 0 for all.
    """

    key: str
    fabric: str
    width: Length
    height: Length
    count: int
    name: str = ""
    turns: bool = True
    gives: int = 1
    along_cloth: bool = False
    joined: bool = False
    bits: int = 0

    @property
    def bits_wanted(self) -> int:
        """Triangles wanted, where a piece is cut further; else pieces."""
        return self.bits or self.count * self.gives

    @property
    def area(self) -> Area:
        """Square inches of all pieces of this pile."""
        return Area(self.width.area_with(self.height) * self.count)


def grid_of(lengths: list[Length]) -> Fraction:
    """The largest step, in inches, that every length is a whole number of; sizes of cloth and pieces are rational.

    A step finer than 1/128 in. is coarsened to it (callers round pieces up and cloths down).
    """
    parts = [x.rational for x in lengths if x > ZERO]
    if not parts:
        return Fraction(1)
    step = Fraction(
        gcd(*(p.numerator * (lcm(*(q.denominator for q in parts)) // p.denominator) for p in parts)),
        lcm(*(q.denominator for q in parts)),
    )
    return max(step, Fraction(1, 128))
