"""Arrangements laid by rule, to go on from by hand: a quilt as it is set, one with sashing of several strips, and a sampler of blocks of
several sizes.

One part of their grid is one inch. Source: docs/theory, section 12.11.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from ..blocks.boxes import Box, pattern_of, plain_box
from ..blocks.pattern import UPRIGHT, BlockPlacement, Orientation, Pattern
from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from .choices import QuiltChoices, Setting, block_spots

__all__ = ["Sampled", "SashStrip", "StripCrossing", "as_set", "sampler", "sashed_pattern"]

_MOST = 400
"""Blocks of one arrangement."""
_LEAST_COPING, _LEAST_STRIP = inches("1/2"), inches("1/4")
_MOST_STRIPS = 5


class StripCrossing(StrEnum):
    """Where strips between columns meet strips between rows. ``RUN``: those between rows run through. ``PLAIN``: a cornerstone of one
    piece. ``CHEQUERED``: a patch for every two strips that cross, in the first two fabrics of the strips by turns."""

    RUN = "run"
    PLAIN = "plain"
    CHEQUERED = "chequered"


@dataclass(frozen=True, slots=True)
class SashStrip:
    """One of the strips side by side that make a sash: what it finishes, and its fabric."""

    width: Length
    fabric: str


@dataclass(frozen=True, slots=True)
class Sampled:
    """One block of a sampler and what it finishes, as it lies."""

    placement: BlockPlacement
    width: Length
    height: Length


def as_set(c: QuiltChoices, lying: Sequence[tuple[BlockPlacement, Orientation]], name: str) -> Pattern:
    """A quilt set straight or staggered, with sashing, cornerstones and fillers, as an arrangement; ``lying`` in the order of
    ``block_spots``. Raises ``QuiltImpossible`` for one on point, whose blocks stand on no grid.
    """
    if c.setting is Setting.ON_POINT:
        raise QuiltImpossible(
            "Blocks on point stand on no rows and columns. Set them straight or staggered first, then go on by hand.",
            field="setting",
        )
    wide, high, sash = c.block_width.rational, c.block_height.rational, c.sash.rational
    rim = sash if c.sash_round else Fraction(0)
    boxes, lower = [], c.setting is Setting.STAGGERED
    for (x, y), (placement, orientation) in zip(block_spots(c), lying, strict=True):
        drop = high * c.stagger if lower and x % 2 else Fraction(0)
        boxes.append(Box(rim + x * (wide + sash), rim + y * (high + sash) + drop, wide, high, placement, orientation))
    if lower:
        for x in range(1, c.columns, 2):
            foot = high * (c.rows - 1 + c.stagger)
            boxes.append(plain_box(x * wide, Fraction(0), wide, high * c.stagger, c.setting_fabric))
            boxes.append(plain_box(x * wide, foot, wide, high * (1 - c.stagger), c.setting_fabric))
    if sash:
        boxes += _sashes(c, wide, high, sash)
    return pattern_of(name, boxes)


def _sashes(c: QuiltChoices, wide: Fraction, high: Fraction, sash: Fraction) -> list[Box]:
    rim = sash if c.sash_round else Fraction(0)
    first = 0 if c.sash_round else 1
    last = 1 if c.sash_round else 0
    upright = [rim - sash + n * (wide + sash) for n in range(first, c.columns + last)]
    level = [rim - sash + n * (high + sash) for n in range(first, c.rows + last)]
    boxes = [plain_box(x, rim + y * (high + sash), sash, high, c.sash_fabric) for x in upright for y in range(c.rows)]
    whole = wide * c.columns + sash * len(upright)
    for y in level:
        if not c.cornerstones:
            boxes.append(plain_box(Fraction(0), y, whole, sash, c.sash_fabric))
            continue
        boxes += [plain_box(rim + n * (wide + sash), y, wide, sash, c.sash_fabric) for n in range(c.columns)]
        boxes += [plain_box(x, y, sash, sash, c.cornerstone_fabric) for x in upright]
    return boxes


def sashed_pattern(
    c: QuiltChoices,
    lying: Sequence[tuple[BlockPlacement, Orientation]],
    across: Sequence[SashStrip],
    down: Sequence[SashStrip],
    crossing: StripCrossing,
    cornerstone: str,
    name: str,
) -> Pattern:
    """Blocks in straight rows with a sash of the strips ``across`` between columns, as they follow one another from left to right, and of
    those ``down`` between rows, from top to bottom; outside the outer blocks as well where ``c.sash_round`` says so. Strips one way
    only run the whole length. ``lying`` in the order of ``block_spots``.

    Raises ``QuiltImpossible`` for no strip, too many, or one too narrow to sew straight.
    """
    if not 1 <= c.blocks <= _MOST:
        raise QuiltImpossible(
            "An arrangement is laid from 1 to {most} blocks; {n} are asked for.",
            field="columns",
            most=_MOST,
            n=c.blocks,
        )
    _check_strips(across, down)
    wide, high = c.block_width.rational, c.block_height.rational
    rim = int(c.sash_round)
    columns, width = _tracks(c.columns, wide, across, rim)
    rows, height = _tracks(c.rows, high, down, rim)
    boxes = [
        Box(columns[x], rows[y], wide, high, placement, orientation)
        for (x, y), (placement, orientation) in zip(block_spots(c), lying, strict=True)
    ]
    # Strips with none to cross them are as long as the quilt.
    beside = [(top, high) for top in rows] if down else [(Fraction(0), height)]
    for left, sash in _strips_at(columns, wide, across, rim):
        boxes += [plain_box(left, top, sash.width.rational, tall, sash.fabric) for top, tall in beside]
    over = [(left, wide) for left in columns]
    runs = crossing is StripCrossing.RUN or not across
    for top, sash in _strips_at(rows, high, down, rim):
        if runs:
            boxes.append(plain_box(Fraction(0), top, width, sash.width.rational, sash.fabric))
        else:
            boxes += [plain_box(left, top, far, sash.width.rational, sash.fabric) for left, far in over]
    if across and down and not runs:
        boxes += _crossings(columns, rows, wide, high, across, down, rim, crossing, cornerstone)
    return pattern_of(name, boxes)


def _check_strips(across: Sequence[SashStrip], down: Sequence[SashStrip]) -> None:
    if not across and not down:
        raise QuiltImpossible("Give at least one strip, between columns or between rows.", field="across")
    for strips, field in ((across, "across"), (down, "down")):
        if len(strips) > _MOST_STRIPS:
            raise QuiltImpossible(
                "A sash is made of {most} strips at most; {n} are given.", field=field, most=_MOST_STRIPS, n=len(strips)
            )
        if any(s.width < _LEAST_STRIP for s in strips):
            raise QuiltImpossible("Every strip shows {least} at least.", field=field, least=_LEAST_STRIP)


def _total(strips: Sequence[SashStrip]) -> Fraction:
    return sum((s.width.rational for s in strips), Fraction(0))


def _tracks(count: int, size: Fraction, strips: Sequence[SashStrip], rim: int) -> tuple[list[Fraction], Fraction]:
    """Where each block of a row begins, and how long the row is."""
    sash = _total(strips)
    begins = [rim * sash + n * (size + sash) for n in range(count)]
    return begins, begins[-1] + size + rim * sash


def _strips_at(
    begins: Sequence[Fraction], size: Fraction, strips: Sequence[SashStrip], rim: int
) -> list[tuple[Fraction, SashStrip]]:
    """Where every single strip begins: behind each block but the last, and before the first and behind the last with a rim."""
    sash, found = _total(strips), []
    for at in [*([Fraction(0)] * rim), *(b + size for b in (begins if rim else begins[:-1]))]:
        along = at
        for s in strips if sash else ():
            found.append((along, s))
            along += s.width.rational
    return found


def _crossings(
    columns: Sequence[Fraction],
    rows: Sequence[Fraction],
    wide: Fraction,
    high: Fraction,
    across: Sequence[SashStrip],
    down: Sequence[SashStrip],
    rim: int,
    crossing: StripCrossing,
    cornerstone: str,
) -> list[Box]:
    lefts, tops = _strips_at(columns, wide, across, rim), _strips_at(rows, high, down, rim)
    if crossing is StripCrossing.PLAIN:
        return [
            plain_box(x, y, _total(across), _total(down), cornerstone)
            for x, _ in lefts[:: len(across)]
            for y, _ in tops[:: len(down)]
        ]
    first, *others = dict.fromkeys(s.fabric for s in (*across, *down))
    # The outer strips go on beside the patch in the middle: of three and three a nine-patch.
    second = others[0] if others else cornerstone
    return [
        plain_box(
            x, y, u.width.rational, v.width.rational, second if (i % len(across) + j % len(down)) % 2 == 0 else first
        )
        for i, (x, u) in enumerate(lefts)
        for j, (y, v) in enumerate(tops)
    ]


def sampler(blocks: Sequence[Sampled], width: Length, gap: Length, fabric: str, step: Length, name: str) -> Pattern:
    """Blocks of several sizes in rows that all finish ``width``: the highest first, each row filled from the left as far as it
    goes, what is left over shared out between the blocks on the ruler's ``step``. A block lower than its row gets a coping strip
    above and below, or one below where two would be too narrow; ``gap`` lies between blocks and between rows.

    Raises ``QuiltImpossible`` for a block wider than that, for no block, and for more than an arrangement holds.
    """
    if not blocks or len(blocks) > _MOST:
        raise QuiltImpossible(
            "An arrangement is laid from 1 to {most} blocks; {n} are asked for.",
            field="blocks",
            most=_MOST,
            n=len(blocks),
        )
    widest = max(b.width for b in blocks)
    if widest > width:
        raise QuiltImpossible(
            "The widest block finishes {w}, and the quilt is to finish {given}. Make it wider.",
            field="width",
            w=widest,
            given=width,
        )
    if gap < ZERO or ZERO < gap < inches("1/4"):
        raise QuiltImpossible(
            "Between blocks lies nothing, or a strip of {least} at least.", field="gap", least=inches("1/4")
        )
    boxes: list[Box] = []
    top = ZERO
    for n, row in enumerate(_rows(blocks, width, gap)):
        if n and gap > ZERO:
            boxes.append(_strip(ZERO, top, width, gap, fabric))
            top = top + gap
        high = max(b.height for b in row)
        left = ZERO
        for b, before in zip(row, _gaps(row, width, gap, step), strict=True):
            if before > ZERO:
                boxes.append(_strip(left, top, before, high, fabric))
            left = left + before
            boxes += _coped_boxes(b, left, top, high, fabric, step)
            left = left + b.width
        if left < width:
            boxes.append(_strip(left, top, width - left, high, fabric))
        top = top + high
    return pattern_of(name, boxes)


def _rows(blocks: Sequence[Sampled], width: Length, gap: Length) -> list[list[Sampled]]:
    """First fit, highest first: each block goes into the first row that has room for it."""
    rows: list[list[Sampled]] = []
    for b in sorted(blocks, key=lambda b: (-float(b.height), -float(b.width))):
        for row in rows:
            used = sum((r.width for r in row), ZERO) + gap * len(row)
            if used + b.width <= width:
                row.append(b)
                break
        else:
            rows.append([b])
    return rows


def _gaps(row: Sequence[Sampled], width: Length, gap: Length, step: Length) -> list[Length]:
    """What lies before each block of a row; the rest, if any, lies after the last one."""
    left = width - sum((b.width for b in row), ZERO)
    if len(row) == 1:
        half = (left / 2).round_down(step)
        return [half if half >= _LEAST_COPING else ZERO]
    between = (left / (len(row) - 1)).round_down(step)
    gaps = [ZERO, *[max(between, gap)] * (len(row) - 1)]
    # What the ruler's steps leave over goes into the last gap: every row ends flush.
    gaps[-1] = gaps[-1] + left - sum(gaps, ZERO)
    return gaps


def _coped_boxes(b: Sampled, left: Length, top: Length, high: Length, fabric: str, step: Length) -> list[Box]:
    short = high - b.height
    above = (short / 2).round_down(step)
    if above < _LEAST_COPING:
        above = ZERO
    found = [_box_of(b, left, top + above)]
    if above > ZERO:
        found.append(_strip(left, top, b.width, above, fabric))
    if short > above:
        found.append(_strip(left, top + above + b.height, b.width, short - above, fabric))
    return found


def _box_of(b: Sampled, left: Length, top: Length) -> Box:
    return Box(left.rational, top.rational, b.width.rational, b.height.rational, b.placement, UPRIGHT)


def _strip(left: Length, top: Length, width: Length, height: Length, fabric: str) -> Box:
    return plain_box(left.rational, top.rational, width.rational, height.rational, fabric)
