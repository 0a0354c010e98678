"""Blocks into rows, rows into the quilt, borders: what is sewn to what, what it should measure, and what is cut only then.

A strip that joins parts of unknown length is cut to what they measure. Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass

from ..lengths import ZERO, Length
from ..messages import Message
from ..quilts.borders import Round
from ..quilts.choices import Corners, PlainPiece, QuiltChoices, Setting, block_spots, raw_size
from ..quilts.sizes import QuiltSizes, row_sash

__all__ = ["QuiltStep", "quilt_steps"]

_MANY = 4


@dataclass(frozen=True, slots=True)
class QuiltStep:
    """``key`` is its name for good; ``width`` by ``height``, raw edge to raw edge, is what comes out when all is true."""

    key: str
    title: Message
    said: tuple[Message, ...]
    look: tuple[Message, ...]
    width: Length
    height: Length


def quilt_steps(sizes: QuiltSizes) -> tuple[QuiltStep, ...]:
    """Every step from finished blocks to the quilt top."""
    c = sizes.choices
    match c.setting:
        case Setting.STRAIGHT if c.blocks > 1 or c.sash > ZERO:
            centre = _straight(sizes)
        case Setting.STRAIGHT | Setting.BY_HAND:
            # One block, or one arrangement with an order of joining of its own: nothing is joined to it but borders.
            centre = iter(())
        case Setting.ON_POINT:
            centre = _on_point(sizes)
        case Setting.STAGGERED:
            centre = _staggered(sizes)
    return (*centre, *_borders(sizes))


def _measures(w: Length, h: Length) -> tuple[Message, ...]:
    return (Message("It should measure {w} by {h}, raw edge to raw edge.", w=w, h=h),)


def _straight(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    c, s2 = sizes.choices, sizes.choices.seam_allowance * 2
    sashed = c.sash > ZERO
    wide, high = sizes.centre_width + s2, c.block_height + s2
    for n in range(1, c.rows + 1):
        said = [Message("Lay the blocks of row {n} as the picture has them, and look once more.", n=n)]
        if sashed:
            said.append(
                Message("Sew a sash between every two blocks, and one at each end.")
                if c.sash_round
                else Message("Sew a sash between every two blocks.")
            )
        else:
            said.append(Message("Turn each right one over onto its left neighbour; match crossings, then ends."))
        if c.columns >= _MANY:
            said.append(Message("Join them in pairs, then pairs of pairs: so the row does not bow."))
        said.append(
            Message("Press toward the sashing.")
            if sashed
            else Message("Press this row to the {side}.", side="left" if n % 2 else "right")
        )
        yield QuiltStep(f"row {n}", Message("Row {n}", n=n), tuple(said), _measures(wide, high), wide, high)
    lines = c.rows + 1 if c.sash_round else c.rows - 1
    if sashed:
        if lines and c.cornerstones:
            said = [
                Message(
                    "{n, plural, one {One line} other {# lines}} of sashing with a cornerstone between every two.",
                    n=lines,
                ),
                Message("Press toward the sashing, so that it nests with the rows."),
            ]
            yield QuiltStep(
                "sashing", Message("Sashing between rows"), tuple(said), _measures(wide, c.sash + s2), wide, c.sash + s2
            )
        elif lines:
            said = [*_long_sashes(sizes, lines), Message("Mark quarters on strip and row; pin mark on mark.")]
            yield QuiltStep(
                "sashing", Message("Sashing between rows"), tuple(said), _measures(wide, c.sash + s2), wide, c.sash + s2
            )
    if c.rows > 1 or (sashed and lines):
        yield _rows(sizes, c.rows, sashed=sashed)


def _long_sashes(sizes: QuiltSizes, lines: int) -> Iterator[Message]:
    c = sizes.choices
    sash = sizes.piece(row_sash(c, c.columns))
    if sash.measured:
        yield Message(
            "Cut {n, plural, one {one strip} other {# strips}} {wide} × {long}, as the rows were measured.",
            n=lines,
            wide=sash.cut_width,
            long=sash.cut_height,
        )
        return
    yield Message("Measure three rows across their middles, and take the mean.")
    yield Message(
        "Cut {n, plural, one {one strip} other {# strips}} {w} wide to that length, not to a plan's figure.",
        n=lines,
        w=raw_size(c, c.sash),
    )


def _rows(sizes: QuiltSizes, rows: int, *, sashed: bool) -> QuiltStep:
    s2 = sizes.choices.seam_allowance * 2
    wide, high = sizes.centre_width + s2, sizes.centre_height + s2
    said = [
        Message("Join row to sashing to row.")
        if sashed
        else Message("Join row to row; match crossings first, then ends."),
        Message("Begin the next seam at the other end, so that the quilt stays straight."),
    ]
    if rows >= _MANY:
        said.append(Message("Join rows in pairs, then pairs of pairs."))
    said.append(Message("Press these seams all one way, or open where bulk gathers."))
    return QuiltStep("rows", Message("Rows to the quilt"), tuple(said), _measures(wide, high), wide, high)


def _on_point(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    c, s2 = sizes.choices, sizes.choices.seam_allowance * 2
    diagonals: dict[int, list[tuple[int, int]]] = {}
    for x, y in block_spots(c):
        diagonals.setdefault(x + y, []).append((x, y))
    rows = [sorted(diagonals[k]) for k in sorted(diagonals)]
    sashed = c.sash > ZERO
    for n, spots in enumerate(rows, 1):
        blocks = len(spots)
        long = c.block_width * blocks + (c.sash * (blocks + 1) if sashed else ZERO) + s2
        said = [
            Message(
                "Diagonal row {n}: {blocks, plural, one {one block} other {# blocks side by side}}, with sashes between them and one at each "
                "end."
                if sashed and blocks > 1
                else "Diagonal row {n}: one block with a sash at each end."
                if sashed
                else "Diagonal row {n}: {blocks, plural, one {one block} other {# blocks side by side}}.",
                n=n,
                blocks=blocks,
            ),
            Message("Lay it level before you, the end that lies lower left in the quilt on the left."),
            *(_long_sash(c, rows, n - 1) if sashed else ()),
            *_ends(*_triangles(c, spots)),
        ]
        yield QuiltStep(
            f"row {n}",
            Message("Diagonal row {n}", n=n),
            tuple(said),
            (
                Message(
                    "Its blocks and sashes measure {w} by {h} without the triangles, raw edge to raw edge."
                    if sashed
                    else "Its blocks measure {w} by {h} without the triangles, raw edge to raw edge.",
                    w=long,
                    h=c.block_height + s2,
                ),
            ),
            long,
            c.block_height + s2,
        )
    wide, high = sizes.centre_width + s2, sizes.centre_height + s2
    yield QuiltStep(
        "rows",
        Message("Rows to the quilt"),
        (
            Message("Join row to sashing to row.")
            if sashed
            else Message("Join the diagonal rows; match crossings first, then ends."),
            Message("Sew the four corner triangles on last."),
            Message("Trim the edges {s} beyond the corners of the blocks, square in every corner.", s=c.seam_allowance),
        ),
        _measures(wide, high),
        wide,
        high,
    )


def _triangles(c: QuiltChoices, spots: Sequence[tuple[int, int]]) -> tuple[str, str]:
    """At the left and the right end of a diagonal row, the edge with which the right angle of its setting triangle is flush: it stands
    in the notch between two outer blocks. Empty at the corners of the quilt, where a corner triangle is sewn on last."""
    (x, y), (over, up) = spots[0], spots[-1]
    far, deep = 2 * (c.columns - 1), 2 * (c.rows - 1)
    # Left of the first block lies the quilt's left edge, where the next block meets it from below, or its foot.
    left = "" if (x, y) == (0, deep) else "lower" if x == 0 else "upper"
    right = "" if (over, up) == (far, 0) else "lower" if up == 0 else "upper"
    return left, right


def _ends(left: str, right: str) -> Iterator[Message]:
    """What closes a diagonal row at its ends."""
    if left and left == right:
        yield Message(
            "Sew a setting triangle to each end: its right angle flush with the {edge} edge, its long side to the edge of the quilt.",
            edge=left,
        )
    elif left and right:
        yield Message(
            "Sew a setting triangle to each end, its long side to the edge of the quilt: on the left its right angle is flush with the "
            "{left} edge, on the right with the {right} one.",
            left=left,
            right=right,
        )
    elif left or right:
        yield Message(
            "Sew a setting triangle to the {side} end: its right angle flush with the {edge} edge, its long side to the edge of the quilt. "
            "At the other end a corner triangle comes last.",
            side="left" if left else "right",
            edge=left or right,
        )
    else:
        yield Message("At its ends corner triangles come last.")
    if left or right:
        yield Message("Press toward the triangles. Lift them: their short edges lie on the bias.")


def _long_sash(c: QuiltChoices, rows: Sequence[Sequence[tuple[int, int]]], n: int) -> Iterator[Message]:
    """The long sashes that go on before the triangles, which reach over their ends. Between two rows of one length one is longer than
    both: where two such lie, a seam is sewn in two parts."""
    blocks, made = len(rows[n]), "pieced with cornerstones" if c.cornerstones else "cut"
    above = n == 0 or blocks > len(rows[n - 1])
    below = n == len(rows) - 1 or blocks > len(rows[n + 1])
    if above and below:
        yield Message("Sew a long sash, {made} as long as this row, to its upper and to its lower edge.", made=made)
    elif above or below:
        yield Message(
            "Sew a long sash, {made} as long as this row, to its {edge} edge first: a triangle reaches over its end.",
            made=made,
            edge="upper" if above else "lower",
        )
    else:
        # A triangle reaches over the end of the sash that its right angle does not touch: that sash goes on before it.
        first, last = ("left", "right") if _triangles(c, rows[n])[0] == "lower" else ("right", "left")
        yield Message(
            "The long sashes above and below are one block longer than this row. Sew the upper one on as far as the row reaches, even with "
            "its {first} end; then the {first} triangle; the lower one, all of it, even with the {last} end; the {last} triangle; and close "
            "the seam of the upper one last.",
            first=first,
            last=last,
        )


def _staggered(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    c, s2 = sizes.choices, sizes.choices.seam_allowance * 2
    wide, high = c.block_width + s2, sizes.centre_height + s2
    for n in range(1, c.columns + 1):
        said = [Message("Lay the blocks of column {n} one below the other, and look once more.", n=n)]
        if n % 2 == 0:
            said.append(
                Message("Parts of blocks go at its head and at its foot; look which way up they lie.")
                if c.half_blocks
                else Message("Plain cloth goes at its head and at its foot.")
            )
        if c.rows >= _MANY:
            said.append(Message("Join them in pairs, then pairs of pairs: so the column does not bow."))
        yield QuiltStep(f"column {n}", Message("Column {n}", n=n), tuple(said), _measures(wide, high), wide, high)
    if c.columns > 1:
        wide = sizes.centre_width + s2
        yield QuiltStep(
            "columns",
            Message("Columns to the quilt"),
            (
                Message("Join column to column. Seams do not meet here: pin middles and quarters."),
                Message("Begin the next seam at the other end, so that the quilt stays straight."),
            ),
            _measures(wide, high),
            wide,
            high,
        )


def _borders(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    for r in sizes.rounds:
        if r.row is not None:
            yield from _pieced(sizes.choices, r)
        elif r.border.corners is Corners.MITRED:
            yield from _mitred(sizes, r)
        else:
            yield from _plain(sizes, r)


def _means() -> Message:
    return Message("Measure the quilt from top to bottom, at both sides and through the middle; take the mean.")


def _pinned() -> Message:
    return Message("Pin middles, ends, quarters; ease in what differs. Press toward the border.")


def _two_strips(strip: PlainPiece, planned: Length) -> Message:
    """Of a border that is measured before it is cut, and what was measured where it was."""
    if strip.measured:
        return Message("Cut two strips {cut} × {long}, as you measured.", cut=strip.cut_width, long=strip.cut_height)
    return Message(
        "Cut two strips {cut} wide to that length. The plan has {length}.", cut=strip.cut_width, length=planned
    )


def _plain(sizes: QuiltSizes, r: Round) -> Iterator[QuiltStep]:
    c, b = sizes.choices, r.border
    s2 = c.seam_allowance * 2
    first, sides, ends = (r.wide + s2, r.height + s2), sizes.piece(r.sides), sizes.piece(r.ends)
    yield QuiltStep(
        f"border {r.number} sides",
        Message("Border {n}: left and right", n=r.number),
        (*(() if sides.measured else (_means(),)), _two_strips(sides, first[1]), _pinned()),
        _measures(*first),
        *first,
    )
    whole = r.wide + s2, r.high + s2
    said = [] if ends.measured else [Message("Measure across in the same way, and take the mean.")]
    if b.corners is Corners.SQUARE:
        cut = raw_size(c, b.width)
        said.append(
            _two_strips(ends, r.width + s2)
            if ends.measured
            else Message(
                "Cut two strips {cut} wide to what it was before the sides went on: {length}.",
                cut=cut,
                length=r.width + s2,
            )
        )
        said.append(Message("Sew a square {cut} to each end of both strips.", cut=cut))
    else:
        said.append(_two_strips(ends, whole[0]))
    said.append(_pinned())
    yield QuiltStep(
        f"border {r.number} ends",
        Message("Border {n}: top and bottom", n=r.number),
        tuple(said),
        _measures(*whole),
        *whole,
    )


def _mitred(sizes: QuiltSizes, r: Round) -> Iterator[QuiltStep]:
    """All four sides are sewn on, each from allowance to allowance, before any corner is."""
    c = sizes.choices
    s2 = c.seam_allowance * 2
    whole = r.wide + s2, r.high + s2
    sides, ends = sizes.piece(r.sides), sizes.piece(r.ends)
    known = sides.measured and ends.measured
    measure = (_means(), Message("Measure across in the same way, and take the mean."))
    yield QuiltStep(
        f"border {r.number} sides",
        Message("Border {n}: all four strips", n=r.number),
        (
            *(() if known else measure),
            Message(
                "Strips are cut {cut} wide: two {high} long, two {wide}.",
                cut=sides.cut_width,
                high=sides.cut_height,
                wide=ends.cut_height,
            ),
            Message(
                "Mark the middle of each strip, and from there half of {high} or of {wide} to either side, as you measured.",
                high=r.height + s2,
                wide=r.width + s2,
            )
            if known
            else Message("Mark the middle of each strip, and from there half of what was measured to either side."),
            Message("Pin mark to corner; the ends hang over. Ease in what differs."),
            Message(
                "Begin and end each seam {s} from the edge, backstitched. Press toward the border.", s=c.seam_allowance
            ),
        ),
        (Message("Each seam ends where its neighbour ends, and no stitch goes past."),),
        *whole,
    )
    yield QuiltStep(
        f"border {r.number} ends",
        Message("Border {n}: the mitred corners", n=r.number),
        (
            Message("Fold the quilt on its diagonal, right sides together, so that two strips lie edge on edge."),
            Message("Lay the ruler's 45 degree line on that edge, and draw from the last stitch to the outer edge."),
            Message("Sew on the line, from the inner corner outward, and open the corner."),
            Message("Look whether it lies flat and square; then trim to {s} and press open.", s=c.seam_allowance),
        ),
        _measures(*whole),
        *whole,
    )


def _pieced(c: QuiltChoices, r: Round) -> Iterator[QuiltStep]:
    assert r.row is not None
    s2, row = c.seam_allowance * 2, r.row
    high = r.inner[1]
    if row.beside > ZERO or row.above > ZERO:
        yield _spacers(c, r)
    sides = r.wide + s2, high + s2
    yield QuiltStep(
        f"border {r.number} sides",
        Message("Border {n}: pieced strips at left and right", n=r.number),
        (
            Message("Each strip should measure {w} by {h}, raw edge to raw edge.", w=row.depth + s2, h=high + s2),
            _means(),
            Message(
                "Where strip and quilt differ, take a seam or two of the strip a little wider or narrower; never cut off a unit."
            ),
            Message(
                "Turn one strip half round. Pin middles, ends, quarters, with the units on top so that tips are seen."
            ),
            Message("Press away from the units."),
        ),
        _measures(*sides),
        *sides,
    )
    whole = r.wide + s2, r.high + s2
    yield QuiltStep(
        f"border {r.number} ends",
        Message("Border {n}: pieced strips at top and bottom", n=r.number),
        (
            Message("Each strip, corners included, should measure {w} by {h}.", w=whole[0], h=row.depth + s2),
            Message("Turn one strip half round. Match the seams of its corners first, then pin middle and quarters."),
            Message("Press away from the units."),
        ),
        _measures(*whole),
        *whole,
    )


def _spacers(c: QuiltChoices, r: Round) -> QuiltStep:
    """The plain strip inside a pieced row: here the quilt is trimmed to fit the row, not the row to the quilt."""
    assert r.row is not None
    s2, row = c.seam_allowance * 2, r.row
    wide, high = r.inner
    said = [Message("This strip makes the pieced border fit. Piece that border first, and measure it.")]
    if row.beside > ZERO:
        said.append(Message("Sew a strip cut {cut} wide to the left and the right.", cut=raw_size(c, row.beside)))
    if row.above > ZERO:
        said.append(Message("Sew a strip cut {cut} wide to top and bottom.", cut=raw_size(c, row.above)))
    said.append(Message("Trim the whole to what the pieced strips measure, the same at opposite sides."))
    return QuiltStep(
        f"border {r.number} plain strip",
        Message("Border {n}: the plain strip inside it", n=r.number),
        tuple(said),
        _measures(wide + s2, high + s2),
        wide + s2,
        high + s2,
    )
