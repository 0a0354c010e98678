"""What is chosen of a quilt, where its blocks stand, and the pieces without a seam that it takes.

All sizes are finished unless they are called cut. Source: docs/theory, section 12.8.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from ..lengths import ZERO, Area, Length, finest_mark, inches
from ..messages import Message
from ..prints import PLAIN_PRINT, ClothPrint
from .pieced import PiecedRow

__all__ = [
    "BackingWay",
    "Border",
    "Corners",
    "PlainPiece",
    "QuiltChoices",
    "Setting",
    "block_spots",
    "filler_spots",
    "plain_piece",
]


class Setting(StrEnum):
    """``BY_HAND``: one arrangement of blocks, spacers and strips laid by hand or by rule; it stands as the one block of the quilt."""

    STRAIGHT = "straight"
    ON_POINT = "on_point"
    STAGGERED = "staggered"
    BY_HAND = "by_hand"


class Corners(StrEnum):
    """``OVERLAPPED``: two sides first, the other two across their ends. ``SQUARE``: a square in every corner. ``MITRED``: every
    corner sewn on its diagonal.
    """

    OVERLAPPED = "overlapped"
    SQUARE = "square"
    MITRED = "mitred"


class BackingWay(StrEnum):
    """``LEAST``: whichever of the first two takes less cloth. ``STRIP``: one length of cloth, and a strip beside it."""

    LEAST = "least"
    ALONG = "along"
    ACROSS = "across"
    STRIP = "strip"


@dataclass(frozen=True, slots=True)
class Border:
    """``fabric`` is the plain border's, and of a ``pieced`` one the plain strip's inside it, if it takes one."""

    width: Length
    fabric: str
    corners: Corners = Corners.OVERLAPPED
    corner_fabric: str = ""
    pieced: PiecedRow | None = None


@dataclass(frozen=True, slots=True)
class QuiltChoices:
    """``oversize`` is added to setting triangles and to the length of borders, to be trimmed off again.

    ``sash_round`` puts sashing outside the outer blocks as well (on point it always is). ``usable`` is the width of cloth between selvedges.
    ``backing_print`` is how the backing's print runs, and how often it comes round where it is to go on across seams.
    ``stagger`` is how far every second column lies lower, a share of the block; ``half_blocks`` fills its ends with parts of blocks
    in place of plain cloth. ``sleeve`` is the finished depth of a hanging sleeve,
    nothing for none.
    """

    columns: int
    rows: int
    block_width: Length
    block_height: Length
    setting: Setting = Setting.STRAIGHT
    sash: Length = ZERO
    sash_fabric: str = "a"
    sash_round: bool = False
    cornerstones: bool = False
    cornerstone_fabric: str = "b"
    setting_fabric: str = "b"
    borders: tuple[Border, ...] = ()
    binding_strip: Length = inches("9/4")
    binding_fabric: str = "a"
    backing_fabric: str = "b"
    backing_over: Length = inches(4)
    usable: Length = inches(40)
    seam_allowance: Length = inches("1/4")
    ruler_step: Length = inches("1/8")
    oversize: Length = inches("1/2")
    stagger: Fraction = Fraction(1, 2)
    half_blocks: bool = False
    backing_way: BackingWay = BackingWay.LEAST
    backing_print: ClothPrint = PLAIN_PRINT
    sleeve: Length = ZERO

    @property
    def blocks(self) -> int:
        """Blocks in the quilt by its setting; on point those between the rows are counted."""
        if self.setting is Setting.ON_POINT:
            return self.columns * self.rows + (self.columns - 1) * (self.rows - 1)
        if self.setting is Setting.STAGGERED:
            return self.columns * self.rows - self.columns // 2
        return self.columns * self.rows


@dataclass(frozen=True, slots=True)
class PlainPiece:
    """A piece without a seam in it: what it is, its finished size, how large to cut it, and how many.

    ``cut_into`` is 2 or 4 when it is a square cut on one or both diagonals; ``needed`` is what is wanted of what then comes
    out. ``joined`` is the binding: strips that are joined end to end. ``mitred``: both its ends are sewn on the diagonal.
    ``apart`` is no part of the top. ``later``: it is cut as long as what it is sewn to measures, without anything to trim off.
    ``measured``: that is done, and it is cut to it once and for all.
    """

    name: str
    fabric: str
    finished_width: Length
    finished_height: Length
    cut_width: Length
    cut_height: Length
    count: int
    cut_into: int = 1
    needed: int = 0
    note: Message | None = None
    joined: bool = False
    mitred: bool = False
    apart: bool = False
    measured: bool = False
    later: bool = False

    @property
    def edge(self) -> Length:
        """Once round one finished piece; a half of a square is known by its two short sides, a quarter by its long one, a strip
        mitred at both ends by its longer side.
        """
        if self.mitred:
            return self.finished_height * 2 - self.finished_width * 2 + self.finished_width.times_root2() * 2
        if self.cut_into == 2:
            return self.finished_width * 2 + self.finished_width.times_root2()
        if self.cut_into == 4:
            return self.finished_width + self.finished_width.times_root2()
        return (self.finished_width + self.finished_height) * 2

    @property
    def left_over(self) -> int:
        """Triangles that are cut and not used, where squares are cut on their diagonals."""
        return self.count * self.cut_into - (self.needed or self.count * self.cut_into)

    @property
    def area(self) -> Area:
        """Square inches of all pieces of this pile."""
        return Area((self.cut_width.area_with(self.cut_height)) * self.count)


def raw_size(c: QuiltChoices, shows: Length) -> Length:
    """From raw edge to raw edge what shows so much between its seams, to the nearest mark of a ruler: so a strip is cut, so a top measures."""
    return (shows + c.seam_allowance * 2).round_near(finest_mark(c.ruler_step))


def plain_piece(
    c: QuiltChoices,
    name: str,
    fabric: str,
    width: Length,
    height: Length,
    count: int,
    over: Length = ZERO,
    note: Message | None = None,
) -> PlainPiece:
    """A rectangle cut its finished size and two allowances, to the nearest mark of a ruler: nothing is trimmed off it, so what is
    cut too large finishes too large. ``over`` is cut longer, up to the usual step, to be trimmed; its shorter side first."""
    short, long = min(width, height), max(width, height)
    longer = (long + c.seam_allowance * 2 + over).round_up(c.ruler_step) if over > ZERO else raw_size(c, long)
    return PlainPiece(name, fabric, short, long, raw_size(c, short), longer, count, note=note)


def filler_spots(c: QuiltChoices) -> list[tuple[int, bool]]:
    """The ends of the columns that lie lower, column by column: its number, and whether it is the head (else the foot)."""
    if c.setting is not Setting.STAGGERED:
        return []
    return [(x, head) for x in range(1, c.columns, 2) for head in (True, False)]


def block_spots(c: QuiltChoices) -> list[tuple[int, int]]:
    """Where blocks lie: in whole steps, or in half steps on point (columns and rows of half a diagonal)."""
    if c.setting is Setting.ON_POINT:
        full = [(2 * x, 2 * y) for y in range(c.rows) for x in range(c.columns)]
        between = [(2 * x + 1, 2 * y + 1) for y in range(c.rows - 1) for x in range(c.columns - 1)]
        return sorted(full + between, key=lambda p: (p[1], p[0]))
    if c.setting is Setting.STAGGERED:
        return [(x, y) for y in range(c.rows) for x in range(c.columns) if not (x % 2 and y == c.rows - 1)]
    return [(x, y) for y in range(c.rows) for x in range(c.columns)]
