"""Borders, cut to the length of what they are sewn to; pieced ones with the plain strip that makes them fit.

Source: docs/theory, sections 12.8 and 12.10.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace

from ..blocks.pattern import Pattern
from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from ..messages import Message
from .choices import Border, Corners, PlainPiece, QuiltChoices, plain_piece
from .pieced import FittedRow, fitted_row, renamed

__all__ = ["QuiltPart", "Round", "mitre_over", "part_pieces", "rounds_of"]

_MITRE_OVER = inches(4)
"""A mitred border is cut longer by so much, and trimmed when its corner is sewn."""


@dataclass(frozen=True, slots=True)
class Round:
    """One border: ``width`` by ``height`` is what it goes round, ``wide`` by ``high`` what then is; ``row`` where it is pieced.
    ``across_known`` and ``down_known``: the top was measured that way, and what is sewn along it is cut to length at once."""

    number: int
    border: Border
    name: str
    width: Length
    height: Length
    wide: Length
    high: Length
    row: FittedRow | None = None
    across_known: bool = False
    down_known: bool = False

    @property
    def sides(self) -> str:
        """What the plain pieces of its sides are called: the border's, or the strip's inside a pieced one."""
        return f"{self.name}, plain strip at the sides" if self.row else f"{self.name}, sides"

    @property
    def ends(self) -> str:
        """The same of its top and its bottom."""
        return f"{self.name}, plain strip above and below" if self.row else f"{self.name}, top and bottom"

    @property
    def inner(self) -> tuple[Length, Length]:
        """What the pieced row itself goes round: the quilt with the plain strip inside the row."""
        if self.row is None:
            return self.width, self.height
        return self.wide - self.row.depth * 2, self.high - self.row.depth * 2


@dataclass(frozen=True, slots=True)
class QuiltPart:
    """A part of the quilt that is pieced as a block is, beside its blocks: ``key`` is its name for good, ``width`` what it
    finishes across. ``pattern`` is ``None`` where the blocks themselves say what it is.
    """

    key: str
    pattern: Pattern | None
    width: Length
    height: Length
    count: int


def mitre_over(c: QuiltChoices) -> Length:
    """By how much a mitred border is cut longer than it finishes at its outer edge, allowances apart."""
    return max(c.oversize, _MITRE_OVER)


def rounds_of(c: QuiltChoices, width: Length, height: Length) -> tuple[Round, ...]:
    """Every border from the inside out. Raises ``QuiltImpossible`` for one that cannot go round."""
    found = []
    for n, b in enumerate(c.borders, 1):
        name = f"border {n}" if len(c.borders) > 1 else "border"
        row = _fitted_row(c, b, n - 1, width, height)
        if row is None:
            one = Round(n, b, name, width, height, width + b.width * 2, height + b.width * 2)
        else:
            wide, high = (size + (gap + row.depth) * 2 for size, gap in ((width, row.beside), (height, row.above)))
            named = replace(
                row,
                sides=renamed(row.sides, f"{name.capitalize()}, sides"),
                ends=renamed(row.ends, f"{name.capitalize()}, top and bottom"),
            )
            one = Round(n, b, name, width, height, wide, high, named)
        found.append(one)
        width, height = one.wide, one.high
    return tuple(found)


def _fitted_row(c: QuiltChoices, b: Border, n: int, width: Length, height: Length) -> FittedRow | None:
    if b.pieced is None:
        return None
    try:
        return fitted_row(b.pieced, b.width, width, height, c.ruler_step, b.corner_fabric or b.fabric)
    except QuiltImpossible as refusal:
        raise refusal.within(f"borders.{n}") from None


def part_pieces(c: QuiltChoices, rounds: Iterable[Round], pieces: list[PlainPiece]) -> tuple[QuiltPart, ...]:
    """Adds the plain pieces of every border to ``pieces``; returns the pieced parts."""
    parts: list[QuiltPart] = []
    for r in rounds:
        if r.row is not None:
            _spacers(c, r, r.row, pieces)
            wide, high = r.inner
            parts.append(QuiltPart(f"border {r.number} sides", r.row.sides, r.row.depth, high, 2))
            parts.append(QuiltPart(f"border {r.number} ends", r.row.ends, wide + r.row.depth * 2, r.row.depth, 2))
        elif r.border.corners is Corners.MITRED:
            _add_mitred(c, r, pieces)
        else:
            _plain(c, r, pieces)
    return tuple(parts)


def _cut_along(c: QuiltChoices, name: str, fabric: str, width: Length, length: Length, *, known: bool) -> PlainPiece:
    """A strip sewn along the top: longer than planned until the top was measured, then just as long as it is."""
    if known:
        note = Message("As long as the top was measured.")
        return replace(plain_piece(c, name, fabric, width, length, 2, note=note), measured=True)
    over = Message("{over} of it to trim off, once the top is measured.", over=c.oversize)
    piece = plain_piece(c, name, fabric, width, length, 2, c.oversize, over if c.oversize > ZERO else None)
    return replace(piece, later=c.oversize == ZERO)


def _plain(c: QuiltChoices, r: Round, pieces: list[PlainPiece]) -> None:
    b = r.border
    pieces.append(_cut_along(c, r.sides, b.fabric, b.width, r.height, known=r.down_known))
    square = b.corners is Corners.SQUARE
    across = r.width if square else r.wide
    pieces.append(_cut_along(c, r.ends, b.fabric, b.width, across, known=r.across_known))
    if square:
        pieces.append(plain_piece(c, f"{r.name}, corner squares", b.corner_fabric or b.fabric, b.width, b.width, 4))


def _add_mitred(c: QuiltChoices, r: Round, pieces: list[PlainPiece]) -> None:
    note = Message("Long enough for its mitres; the corner is marked and sewn before the rest is cut off.")
    for name, length, known in ((r.sides, r.high, r.down_known), (r.ends, r.wide, r.across_known)):
        one = plain_piece(c, name, r.border.fabric, r.border.width, length, 2, mitre_over(c), note)
        pieces.append(
            PlainPiece(
                one.name,
                one.fabric,
                r.border.width,
                length,
                one.cut_width,
                one.cut_height,
                2,
                note=note,
                mitred=True,
                measured=known,
            )
        )


def _spacers(c: QuiltChoices, r: Round, row: FittedRow, pieces: list[PlainPiece]) -> None:
    """The plain strip inside a pieced row. Nothing is trimmed off its width: the row fits because of it."""
    fabric, known = r.border.fabric, r.across_known and r.down_known
    if row.beside > ZERO:
        pieces.append(_cut_along(c, r.sides, fabric, row.beside, r.height, known=r.down_known))
    if row.above > ZERO:
        pieces.append(_cut_along(c, r.ends, fabric, row.above, r.inner[0], known=known))
