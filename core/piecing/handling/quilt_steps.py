"""Blocks into rows, rows into the quilt, borders: what is sewn to what, what it should measure, and what is cut only then.

A strip that joins parts of unknown length is cut to what they measure. Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..lengths import ZERO
from ..messages import Message
from ..quilts.choices import QuiltChoices, Setting, block_spots, raw_size
from ..quilts.sizes import QuiltSizes, row_sash
from .border_steps import border_steps
from .quilt_step import QuiltStep, measures_said

__all__ = ["quilt_steps"]

_MANY = 4


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
            centre = _staggered_steps(sizes)
    return (*centre, *border_steps(sizes))


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
        yield QuiltStep(f"row {n}", Message("Row {n}", n=n), tuple(said), measures_said(wide, high), wide, high)
    lines = c.rows + 1 if c.sash_round else c.rows - 1
    if sashed and lines:
        if c.cornerstones:
            said = [
                Message(
                    "{n, plural, one {One line} other {# lines}} of sashing with a cornerstone between every two.",
                    n=lines,
                ),
                Message("Press toward the sashing, so that it nests with the rows."),
            ]
        else:
            said = [*_long_sashes(sizes, lines), Message("Mark quarters on strip and row; pin mark on mark.")]
        deep = c.sash + s2
        title = Message("Sashing between rows")
        yield QuiltStep("sashing", title, tuple(said), measures_said(wide, deep), wide, deep)
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
    return QuiltStep("rows", Message("Rows to the quilt"), tuple(said), measures_said(wide, high), wide, high)


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
        measures_said(wide, high),
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


def _staggered_steps(sizes: QuiltSizes) -> Iterator[QuiltStep]:
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
        yield QuiltStep(f"column {n}", Message("Column {n}", n=n), tuple(said), measures_said(wide, high), wide, high)
    if c.columns > 1:
        wide = sizes.centre_width + s2
        yield QuiltStep(
            "columns",
            Message("Columns to the quilt"),
            (
                Message("Join column to column. Seams do not meet here: pin middles and quarters."),
                Message("Begin the next seam at the other end, so that the quilt stays straight."),
            ),
            measures_said(wide, high),
            wide,
            high,
        )
