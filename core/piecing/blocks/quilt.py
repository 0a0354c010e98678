"""Blocks to a quilt: straight, on point or staggered; sashing, borders, backing, binding, and every plain piece to cut.

All sizes are finished unless they are called cut. Source: docs/theory.md, section 12.8.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from math import ceil

from ..errors import QuiltImpossible
from ..lengths import ZERO, Area, Length, inches
from ..wording import Said

__all__ = [
    "Backing",
    "Binding",
    "Border",
    "Corners",
    "PlainPiece",
    "QuiltChoices",
    "QuiltSizes",
    "Setting",
    "block_spots",
    "quilt_sizes",
]

_MOST_BLOCKS = 900
_MOST_BORDERS = 6
_BACKING_SEAM = inches("1/2")
_JOIN_LOSS = inches(12)
"""Binding over and above the way round: for the last join and the corners."""


class Setting(StrEnum):
    STRAIGHT = "straight"
    ON_POINT = "on_point"
    STAGGERED = "staggered"


class Corners(StrEnum):
    """``OVERLAPPED``: two sides first, the other two across their ends. ``SQUARE``: a square in every corner."""

    OVERLAPPED = "overlapped"
    SQUARE = "square"


@dataclass(frozen=True, slots=True)
class Border:
    width: Length
    fabric: str
    corners: Corners = Corners.OVERLAPPED
    corner_fabric: str = ""


@dataclass(frozen=True, slots=True)
class QuiltChoices:
    """``oversize`` is added to setting triangles and to the length of borders, to be trimmed off again.

    ``sash_round`` puts sashing outside the outer blocks as well (on point it always is). ``usable`` is the width of cloth between selvedges.
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

    @property
    def blocks(self) -> int:
        if self.setting is Setting.ON_POINT:
            return self.columns * self.rows + (self.columns - 1) * (self.rows - 1)
        if self.setting is Setting.STAGGERED:
            return self.columns * self.rows - self.columns // 2
        return self.columns * self.rows


@dataclass(frozen=True, slots=True)
class PlainPiece:
    """A piece without a seam in it: what it is, its finished size, how large to cut it, and how many.

    ``cut_into`` is 2 or 4 when it is a square cut on one or both diagonals; ``pieces`` is what then comes out.
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
    note: Said | None = None

    @property
    def left_over(self) -> int:
        return self.count * self.cut_into - (self.needed or self.count * self.cut_into)

    @property
    def area(self) -> Area:
        return Area((self.cut_width.area_with(self.cut_height)) * self.count)


@dataclass(frozen=True, slots=True)
class Backing:
    """Panels of the cloth's usable width; ``along`` when the seams run up and down the quilt. ``length`` is to buy."""

    along: bool
    panels: int
    panel_length: Length
    length: Length
    width: Length
    height: Length


@dataclass(frozen=True, slots=True)
class Binding:
    strips: int
    strip: Length
    round_about: Length
    length: Length


@dataclass(frozen=True)
class QuiltSizes:
    """``centre`` is the blocks with their sashing; ``finished`` the whole; ``unfinished`` has its outer allowances."""

    choices: QuiltChoices
    centre_width: Length
    centre_height: Length
    width: Length
    height: Length
    pieces: tuple[PlainPiece, ...]
    backing: tuple[Backing, ...]
    binding: Binding
    notes: tuple[Said, ...]

    @property
    def unfinished_width(self) -> Length:
        return self.width + self.choices.seam_allowance * 2

    @property
    def unfinished_height(self) -> Length:
        return self.height + self.choices.seam_allowance * 2

    @property
    def blocks(self) -> int:
        return self.choices.blocks


def quilt_sizes(c: QuiltChoices) -> QuiltSizes:
    """Every size of a quilt. Raises ``QuiltImpossible``."""
    _check(c)
    pieces: list[PlainPiece] = []
    match c.setting:
        case Setting.STRAIGHT:
            width, height = _straight(c, pieces)
        case Setting.ON_POINT:
            width, height = _on_point(c, pieces)
        case Setting.STAGGERED:
            width, height = _staggered(c, pieces)
    outer = _borders(c, width, height, pieces)
    binding = _binding(c, *outer)
    pieces.append(_binding_piece(c, binding))
    return QuiltSizes(
        c, width, height, *outer, tuple(p for p in pieces if p.count), _backings(c, *outer), binding, tuple(_notes(c))
    )


def _check(c: QuiltChoices) -> None:
    if not (1 <= c.columns <= 60 and 1 <= c.rows <= 60) or c.blocks > _MOST_BLOCKS:
        raise QuiltImpossible(
            "A quilt has 1 to 60 blocks across and down, {most} in all.", field="columns", most=_MOST_BLOCKS
        )
    for size, field in ((c.block_width, "block_width"), (c.binding_strip, "binding_strip"), (c.usable, "usable")):
        if size <= c.seam_allowance:
            raise QuiltImpossible("This must be larger than a seam allowance, {s}.", field=field, s=c.seam_allowance)
    for size, field in ((c.sash, "sash"), (c.oversize, "oversize"), (c.backing_over, "backing_over")):
        if size < ZERO or size > inches(24):
            raise QuiltImpossible("Give zero or more, 24 in. at most.", field=field)
    if c.setting is Setting.ON_POINT and c.block_width != c.block_height:
        raise QuiltImpossible(
            "Only square blocks stand on point: this one finishes {w} by {h}.",
            field="setting",
            w=c.block_width,
            h=c.block_height,
        )
    if c.setting is Setting.STAGGERED and c.sash > ZERO:
        raise QuiltImpossible(
            "Blocks staggered by halves are set edge to edge. Take the sashing away, or set them straight.",
            field="sash",
        )
    if len(c.borders) > _MOST_BORDERS:
        raise QuiltImpossible("{most} borders at most.", field="borders", most=_MOST_BORDERS)
    for n, b in enumerate(c.borders):
        if b.width < inches("1/4") or b.width > inches(30):
            raise QuiltImpossible("A border finishes between 1/4 in. and 30 in.", field=f"borders.{n}.width")


def _plain(
    c: QuiltChoices,
    name: str,
    fabric: str,
    width: Length,
    height: Length,
    count: int,
    over: Length = ZERO,
    note: Said | None = None,
) -> PlainPiece:
    """A rectangle cut its finished size and two allowances, ``over`` longer, up to the ruler's step; its shorter side first."""
    short, long = min(width, height), max(width, height)
    s2 = c.seam_allowance * 2
    cut = (short + s2).round_up(c.ruler_step), (long + s2 + over).round_up(c.ruler_step)
    return PlainPiece(name, fabric, short, long, *cut, count, note=note)


def _straight(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    across, down = _gaps(c, c.columns), _gaps(c, c.rows)
    width = c.block_width * c.columns + c.sash * across
    height = c.block_height * c.rows + c.sash * down
    if c.sash > ZERO:
        _sashing(c, across, down, width, pieces)
    return width, height


def _gaps(c: QuiltChoices, blocks: int) -> int:
    return 0 if c.sash == ZERO else blocks + 1 if c.sash_round else blocks - 1


def _sashing(c: QuiltChoices, across: int, down: int, width: Length, pieces: list[PlainPiece]) -> None:
    pieces.append(_plain(c, "sashing beside blocks", c.sash_fabric, c.sash, c.block_height, across * c.rows))
    if c.cornerstones:
        pieces.append(
            _plain(c, "sashing above and below blocks", c.sash_fabric, c.sash, c.block_width, down * c.columns)
        )
        pieces.append(_plain(c, "cornerstone", c.cornerstone_fabric, c.sash, c.sash, across * down))
    else:
        measure = Said("Measure the rows before cutting; cut all to one length.")
        pieces.append(_plain(c, "sashing between rows", c.sash_fabric, c.sash, width, down, c.oversize, measure))


def _on_point(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    """Setting triangles carry the straight grain on the quilt's edge: side ones are quarters of a square, corners halves."""
    pitch = c.block_width + c.sash
    step = pitch.times_root2()
    extra = c.sash.times_root2()  # sashing on point always goes round the outer blocks
    width, height = step * c.columns + extra, step * c.rows + extra
    inner_columns, inner_rows = c.columns - 1, c.rows - 1
    sides = 2 * inner_columns + 2 * inner_rows
    s, over = c.seam_allowance, c.oversize
    # A quarter of a square G finishes a long edge of G less (2 + 2√2)s; a half of S finishes a short edge of S less (2 + √2)s.
    side_square = (step + s * 2 + s.times_root2() * 2 + over).round_up(c.ruler_step)
    corner_leg = (pitch + c.sash).over_root2()
    corner_square = (corner_leg + s * 2 + s.times_root2() + over).round_up(c.ruler_step)
    grain = Said("Straight grain along the quilt's edge. Trim to {s} beyond the blocks' corners.", s=s)
    pieces.append(
        PlainPiece(
            "side setting triangle",
            c.setting_fabric,
            step,
            step.over_root2(),
            side_square,
            side_square,
            -(-sides // 4),
            4,
            sides,
            grain,
        )
    )
    pieces.append(
        PlainPiece(
            "corner setting triangle",
            c.setting_fabric,
            corner_leg,
            corner_leg,
            corner_square,
            corner_square,
            2,
            2,
            4,
            grain,
        )
    )
    if c.sash > ZERO:
        _sashing_on_point(c, pieces)
    return width, height


def _sashing_on_point(c: QuiltChoices, pieces: list[PlainPiece]) -> None:
    """Diagonal rows: a sash between any two blocks of a row and at its ends; then sashing between rows, whole or pieced."""
    rows = _diagonal_rows(c)
    pieces.append(
        _plain(c, "sashing beside blocks", c.sash_fabric, c.sash, c.block_width, sum(len(r) + 1 for r in rows))
    )
    between = [len(a | b) for a, b in zip((set(), *rows), (*rows, set()), strict=True)]
    if c.cornerstones:
        pieces.append(_plain(c, "sashing above and below blocks", c.sash_fabric, c.sash, c.block_width, sum(between)))
        pieces.append(_plain(c, "cornerstone", c.cornerstone_fabric, c.sash, c.sash, sum(n + 1 for n in between)))
        return
    for n in sorted(set(between)):
        length = c.block_width * n + c.sash * (n + 1)
        name = f"sashing between rows, {n} block{'s' if n > 1 else ''} long"
        pieces.append(_plain(c, name, c.sash_fabric, c.sash, length, between.count(n), c.oversize))


def _diagonal_rows(c: QuiltChoices) -> list[set[int]]:
    """The blocks of each diagonal row, corner to corner, by where they stand in it."""
    rows: dict[int, set[int]] = {}
    for column, row in block_spots(c):
        rows.setdefault(column + row, set()).add(column - row)
    return [rows[k] for k in sorted(rows)]


def block_spots(c: QuiltChoices) -> list[tuple[int, int]]:
    """Where blocks lie: in whole steps, or in half steps on point (columns and rows of half a diagonal)."""
    if c.setting is Setting.ON_POINT:
        full = [(2 * x, 2 * y) for y in range(c.rows) for x in range(c.columns)]
        between = [(2 * x + 1, 2 * y + 1) for y in range(c.rows - 1) for x in range(c.columns - 1)]
        return sorted(full + between, key=lambda p: (p[1], p[0]))
    if c.setting is Setting.STAGGERED:
        return [(x, y) for y in range(c.rows) for x in range(c.columns) if not (x % 2 and y == c.rows - 1)]
    return [(x, y) for y in range(c.rows) for x in range(c.columns)]


def _staggered(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    """Every second column half a block lower, with half a block of plain cloth at its head and foot."""
    pieces.append(
        _plain(c, "half-block filler", c.setting_fabric, c.block_width, c.block_height / 2, 2 * (c.columns // 2))
    )
    return c.block_width * c.columns, c.block_height * c.rows


def _borders(c: QuiltChoices, width: Length, height: Length, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    measure = Said("Measure the quilt through its middle before cutting to length.")
    for n, b in enumerate(c.borders, 1):
        name = f"border {n}" if len(c.borders) > 1 else "border"
        wider = width + b.width * 2
        pieces.append(_plain(c, f"{name}, sides", b.fabric, b.width, height, 2, c.oversize, measure))
        if b.corners is Corners.SQUARE:
            pieces.append(_plain(c, f"{name}, top and bottom", b.fabric, b.width, width, 2, c.oversize, measure))
            pieces.append(_plain(c, f"{name}, corner squares", b.corner_fabric or b.fabric, b.width, b.width, 4))
        else:
            pieces.append(_plain(c, f"{name}, top and bottom", b.fabric, b.width, wider, 2, c.oversize, measure))
        width, height = wider, height + b.width * 2
    return width, height


def _binding(c: QuiltChoices, width: Length, height: Length) -> Binding:
    """Strips joined on the diagonal: each join costs one strip's width."""
    about = (width + height) * 2
    wanted = about + _JOIN_LOSS
    gained = c.usable - c.binding_strip
    if gained <= ZERO:
        raise QuiltImpossible(
            "A binding strip this wide leaves nothing of cloth {usable} wide.", field="binding_strip", usable=c.usable
        )
    strips = max(1, ceil(round(float(wanted - c.binding_strip) / float(gained), 9)))
    return Binding(strips, c.binding_strip, about, wanted)


def _binding_piece(c: QuiltChoices, binding: Binding) -> PlainPiece:
    return PlainPiece(
        "binding strip", c.binding_fabric, c.binding_strip, c.usable, c.binding_strip, c.usable, binding.strips
    )


def _backings(c: QuiltChoices, width: Length, height: Length) -> tuple[Backing, ...]:
    """Pieced with seams along the quilt's height, or across it; the one that takes less cloth first."""
    wide, high = width + c.backing_over * 2, height + c.backing_over * 2
    found = []
    for along, over, length in ((True, wide, high), (False, high, wide)):
        panels = 1
        while c.usable * panels - _BACKING_SEAM * 2 * (panels - 1) < over:
            panels += 1
        found.append(Backing(along, panels, length, length * panels, wide, high))
    return tuple(sorted(found, key=lambda b: (float(b.length), not b.along)))


def _notes(c: QuiltChoices) -> list[Said]:
    said = []
    if c.setting is Setting.ON_POINT:
        said.append(
            Said(
                "On point, a block that finishes {b} takes {d} across the quilt.",
                b=c.block_width,
                d=(c.block_width + c.sash).times_root2(),
            )
        )
    if c.setting is Setting.STAGGERED and c.columns < 2:
        said.append(Said("One column alone has nothing to be staggered against."))
    return said
