"""Blocks into rows, rows into the quilt, borders: what is sewn to what, what it should measure, and what is cut only then.

A strip that joins parts of unknown length is cut to what they measure. Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..lengths import ZERO, Length
from ..messages import Message
from ..quilts.choices import Corners, QuiltChoices, Setting, block_spots
from ..quilts.sizes import QuiltSizes

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
        case Setting.STRAIGHT:
            centre = _straight(sizes)
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
    if sashed:
        lines = c.rows + 1 if c.sash_round else c.rows - 1
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
            said = [
                Message("Measure three rows across their middles, and take the mean."),
                Message(
                    "Cut {n, plural, one {one strip} other {# strips}} {w} wide to that length, not to a plan's figure.",
                    n=lines,
                    w=c.sash + s2,
                ),
                Message("Mark quarters on strip and row; pin mark on mark."),
            ]
            yield QuiltStep(
                "sashing", Message("Sashing between rows"), tuple(said), _measures(wide, c.sash + s2), wide, c.sash + s2
            )
    if c.rows > 1:
        yield _rows(sizes, c.rows, sashed=sashed)


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
    rows: dict[int, int] = {}
    for x, y in block_spots(c):
        rows[x + y] = rows.get(x + y, 0) + 1
    for n, blocks in enumerate((rows[k] for k in sorted(rows)), 1):
        long = (c.block_width + c.sash) * blocks + s2
        said = [
            Message(
                "Diagonal row {n}: {blocks, plural, one {one block} other {# blocks side by side}}.", n=n, blocks=blocks
            ),
            Message(
                "Sew a setting triangle to each end; its right angle lies at the edge of the quilt, flush at one end."
            ),
            Message("Press toward the triangles. Lift them: their short edges lie on the bias."),
        ]
        yield QuiltStep(
            f"row {n}",
            Message("Diagonal row {n}", n=n),
            tuple(said),
            (
                Message(
                    "Its blocks measure {w} by {h} without the triangles, raw edge to raw edge.",
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
            Message("Join the diagonal rows; match crossings first, then ends."),
            Message("Sew the four corner triangles on last."),
            Message("Trim the edges {s} beyond the corners of the blocks, square in every corner.", s=c.seam_allowance),
        ),
        _measures(wide, high),
        wide,
        high,
    )


def _staggered(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    c, s2 = sizes.choices, sizes.choices.seam_allowance * 2
    wide, high = c.block_width + s2, sizes.centre_height + s2
    for n in range(1, c.columns + 1):
        said = [Message("Lay the blocks of column {n} one below the other, and look once more.", n=n)]
        if n % 2 == 0:
            said.append(Message("Half a block of plain cloth goes at its head and at its foot."))
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
    c: QuiltChoices = sizes.choices
    s2 = c.seam_allowance * 2
    width, height = sizes.centre_width, sizes.centre_height
    for n, b in enumerate(c.borders, 1):
        cut = b.width + s2
        sides = width + b.width * 2 + s2, height + s2
        yield QuiltStep(
            f"border {n} sides",
            Message("Border {n}: left and right", n=n),
            (
                Message("Measure the quilt from top to bottom, at both sides and through the middle; take the mean."),
                Message(
                    "Cut two strips {cut} wide to that length. The plan has {length}.", cut=cut, length=height + s2
                ),
                Message("Pin middles, ends, quarters; ease in what differs. Press toward the border."),
            ),
            _measures(*sides),
            *sides,
        )
        whole = width + b.width * 2 + s2, height + b.width * 2 + s2
        said = [Message("Measure across in the same way, and take the mean.")]
        if b.corners is Corners.SQUARE:
            said.append(
                Message(
                    "Cut two strips {cut} wide to what it was before the sides went on: {length}.",
                    cut=cut,
                    length=width + s2,
                )
            )
            said.append(Message("Sew a square {cut} to each end of both strips.", cut=cut))
        else:
            said.append(
                Message("Cut two strips {cut} wide to that length. The plan has {length}.", cut=cut, length=whole[0])
            )
        said.append(Message("Pin middles, ends, quarters; ease in what differs. Press toward the border."))
        yield QuiltStep(
            f"border {n} ends", Message("Border {n}: top and bottom", n=n), tuple(said), _measures(*whole), *whole
        )
        width, height = width + b.width * 2, height + b.width * 2
