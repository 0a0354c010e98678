"""Rows of blocks measured before they are joined, columns where blocks are staggered: how they agree, and the sashing cut to them.

Source: docs/theory, section 18.4.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace
from statistics import median

from ..lengths import Length
from ..messages import Message
from ..tolerances import EASED
from .choices import QuiltChoices, Setting, raw_size
from .sizes import QuiltCentre, QuiltSizes, diagonal_rows, row_sash, sashes_along
from .top_readings import THREE, KnownLengths, TopReading, TopStep, mean_of, misread, reading, used_values

__all__ = ["MeasuredRows", "measured_rows"]


@dataclass(frozen=True, slots=True)
class MeasuredRows:
    """The stage, and the centre by what was measured; ``across`` and ``down`` tell whether it is known that way."""

    step: TopStep
    centre: QuiltCentre
    across: bool = False
    down: bool = False


@dataclass(frozen=True, slots=True)
class _Line:
    """One row or column: of how many blocks, what it should measure by the plan, and what by now."""

    blocks: int
    planned: Length
    expected: Length


def measured_rows(
    planned: QuiltSizes, c: QuiltChoices, centre: QuiltCentre, known: KnownLengths
) -> MeasuredRows | None:
    """``c`` and ``centre`` are with blocks as they are. ``None`` where there are no two rows to be joined."""
    lines = _lines(planned, c, centre)
    if len(lines) < 2:
        return None
    readings = tuple(_of_line(c, n, line, known) for n, line in enumerate(lines, 1))
    means, off, compared = dict[int, Length](), list[Message](), False
    for blocks in dict.fromkeys(line.blocks for line in lines):
        alike = [r for r, line in zip(readings, lines, strict=True) if line.blocks == blocks]
        values = used_values(alike)
        if len(values) < 2:
            continue
        # What one block can be eased, a row can be as often as it has blocks. A row further off is looked into, not gone by.
        limit, middle = EASED * blocks, median(map(float, values))
        agree = [v for v in values if abs(float(v) - middle) <= limit]
        mean = mean_of(c, agree or values)
        if agree and len(values) >= min(THREE, len(alike)):
            means[blocks] = mean
        off += _easing_said(alike, mean, limit)
        compared = True
    now, cut = _with_sashes(c, centre, means)
    said = [*misread(readings), *cut, *off]
    if compared and not off:
        said.append(Message("They are alike, as near as they need be."))
    step = TopStep("columns" if _upright(c) else "rows", _title(c), _how(c, lines), readings, tuple(said))
    if not means or c.setting is Setting.ON_POINT:
        # A diagonal row reaches from edge to edge of no quilt.
        return MeasuredRows(step, now)
    found = next(iter(means.values())) - c.seam_allowance * 2
    if _upright(c):
        return MeasuredRows(step, replace(now, height=found), down=True)
    return MeasuredRows(step, replace(now, width=found), across=True)


def _upright(c: QuiltChoices) -> bool:
    return c.setting is Setting.STAGGERED


def _lines(planned: QuiltSizes, c: QuiltChoices, centre: QuiltCentre) -> list[_Line]:
    match c.setting:
        case Setting.STRAIGHT:
            return [_Line(c.columns, raw_size(c, planned.centre_width), raw_size(c, centre.width))] * c.rows
        case Setting.STAGGERED:
            return [_Line(c.rows, raw_size(c, planned.centre_height), raw_size(c, centre.height))] * c.columns
        case Setting.ON_POINT:
            both = (planned.choices, c)
            return [
                _Line(n, *(raw_size(c, x.block_width * n + x.sash * sashes_along(x, n)) for x in both))
                for n in map(len, diagonal_rows(c))
            ]
        case Setting.BY_HAND:
            return []


def _of_line(c: QuiltChoices, n: int, line: _Line, known: KnownLengths) -> TopReading:
    if _upright(c):
        return reading(f"column {n}", Message("Column {n}", n=n), line.planned, line.expected, known)
    note = Message("should be {expected}", expected=line.expected) if c.setting is Setting.ON_POINT else None
    return reading(f"row {n}", Message("Row {n}", n=n), line.planned, line.expected, known, note)


def _title(c: QuiltChoices) -> Message:
    return Message("Columns, before they are joined") if _upright(c) else Message("Rows, before they are joined")


def _how(c: QuiltChoices, lines: Sequence[_Line]) -> Message:
    if c.setting is Setting.ON_POINT:
        return Message("Each diagonal row, sewn and pressed, along its middle, without the triangles at its ends.")
    expected = lines[0].expected
    if _upright(c):
        return Message("Each column, sewn and pressed, along its middle. Should be {expected}.", expected=expected)
    return Message("Each row of blocks, sewn and pressed, along its middle. Should be {expected}.", expected=expected)


def _with_sashes(
    c: QuiltChoices, centre: QuiltCentre, means: dict[int, Length]
) -> tuple[QuiltCentre, tuple[Message, ...]]:
    """Sashing beside rows that were measured, as long as those are."""
    if c.cornerstones or _upright(c):
        return centre, ()
    lengths = {row_sash(c, blocks): mean for blocks, mean in means.items()}
    said, pieces = [], []
    for p in centre.pieces:
        mean = lengths.get(p.name)
        if mean is None:
            pieces.append(p)
            continue
        note = Message("As long as the rows were measured.")
        pieces.append(
            replace(
                p, finished_height=mean - c.seam_allowance * 2, cut_height=mean, note=note, measured=True, later=False
            )
        )
        said.append(
            Message("Cut the {piece} {wide} × {long}, the mean of the rows.", piece=p.name, wide=p.cut_width, long=mean)
        )
    return replace(centre, pieces=tuple(pieces)), tuple(said)


def _easing_said(alike: Sequence[TopReading], mean: Length, limit: float) -> Iterator[Message]:
    for r in alike:
        if r.value is None or not r.used:
            continue
        by = r.value - mean
        if abs(float(by)) <= EASED:
            continue
        yield Message(
            "{row} is {by} {way} than {mean}: ease it in, a little at every block."
            if abs(float(by)) <= limit
            else "{row} is {by} {way} than {mean}, more than can be eased. Before it is joined, look at its seams and at each of its blocks.",
            row=r.where,
            by=abs(by),
            way="longer" if float(by) > 0 else "shorter",
            mean=mean,
        )
