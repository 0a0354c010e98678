"""Borders at the bench, plain, mitred and pieced: measured, cut, sewn on.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterator

from ..lengths import ZERO, Length
from ..messages import Message
from ..quilts.borders import Round
from ..quilts.choices import Corners, PlainPiece, QuiltChoices, raw_size
from ..quilts.sizes import QuiltSizes
from .quilt_step import QuiltStep, measures_said

__all__ = ["border_steps"]


def border_steps(sizes: QuiltSizes) -> Iterator[QuiltStep]:
    """Every border, from the inside out."""
    for r in sizes.rounds:
        if r.row is not None:
            yield from _pieced_steps(sizes.choices, r)
        elif r.border.corners is Corners.MITRED:
            yield from _mitred_steps(sizes, r)
        else:
            yield from _plain(sizes, r)


def _means() -> Message:
    return Message("Measure the quilt from top to bottom, at both sides and through the middle; take the mean.")


def _pinning_said() -> Message:
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
        (*(() if sides.measured else (_means(),)), _two_strips(sides, first[1]), _pinning_said()),
        measures_said(*first),
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
    said.append(_pinning_said())
    yield QuiltStep(
        f"border {r.number} ends",
        Message("Border {n}: top and bottom", n=r.number),
        tuple(said),
        measures_said(*whole),
        *whole,
    )


def _mitred_steps(sizes: QuiltSizes, r: Round) -> Iterator[QuiltStep]:
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
        measures_said(*whole),
        *whole,
    )


def _pieced_steps(c: QuiltChoices, r: Round) -> Iterator[QuiltStep]:
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
        measures_said(*sides),
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
        measures_said(*whole),
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
        measures_said(wide + s2, high + s2),
        wide + s2,
        high + s2,
    )
