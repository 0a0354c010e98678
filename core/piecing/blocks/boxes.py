"""Patterns from boxes: things laid where they are meant to lie, and a part cut out of a block.

Source: docs/theory, section 12.11.
"""

from __future__ import annotations

from bisect import bisect_left
from collections.abc import Iterable
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from itertools import pairwise

from ..errors import QuiltImpossible
from ..units import kind_of
from .pattern import UPRIGHT, Cell, Content, Orientation, Pattern, Place, UnitPlacement, layout_of, whole_parts

__all__ = ["Box", "cropped", "in_whole_parts", "pattern_of", "plain_box", "with_finished"]


@dataclass(frozen=True, slots=True)
class Box:
    """Something that lies at ``left`` and ``top`` and covers ``width`` by ``height``, in parts, as it is seen."""

    left: Fraction
    top: Fraction
    width: Fraction
    height: Fraction
    content: Content
    orientation: Orientation = UPRIGHT


def plain_box(left: Fraction, top: Fraction, width: Fraction, height: Fraction, fabric: str) -> Box:
    """A plain piece: a square where it is one."""
    kind = "plain_square" if width == height else "rectangle"
    return Box(left, top, width, height, UnitPlacement(kind, (fabric,)))


def pattern_of(name: str, boxes: Iterable[Box]) -> Pattern:
    """The grid whose lines are the edges of all boxes, and the boxes in it. Places that no box covers stay empty.

    Raises ``PlaceTaken`` where two overlap, ``PatternNotUnderstood`` for more lines than a grid may have.
    """
    boxes = list(boxes)
    xs = sorted({x for b in boxes for x in (b.left, b.left + b.width)})
    ys = sorted({y for b in boxes for y in (b.top, b.top + b.height)})
    places = []
    for b in boxes:
        column, row = bisect_left(xs, b.left), bisect_left(ys, b.top)
        across = bisect_left(xs, b.left + b.width) - column
        down = bisect_left(ys, b.top + b.height) - row
        places.append(Place(column, row, b.content, b.orientation, across, down))
    columns = tuple(b - a for a, b in pairwise(xs))
    rows = tuple(b - a for a, b in pairwise(ys))
    return Pattern(name, columns, rows, tuple(places))


def cropped(pattern: Pattern, top: Fraction, height: Fraction, name: str) -> Pattern:
    """The part of a block from ``top`` down so far, both shares of its height, with its units where they lie; blocks in it are
    taken down to their units. Raises ``QuiltImpossible`` where the cut runs through a unit that is not plain.
    """
    first, last = pattern.height * top, pattern.height * (top + height)
    boxes = []
    for cell in layout_of(pattern.complete()).cells:
        above, below = max(cell.top, first), min(cell.bottom, last)
        if above >= below:
            continue
        whole = (above, below) == (cell.top, cell.bottom)
        if not whole and not _plain(cell):
            raise QuiltImpossible(
                "At this share the cut through “{name}” runs through {unit}. Take a share at one of its seams, or fill with "
                "plain cloth.",
                field="stagger",
                name=pattern.name,
                unit=kind_of(cell.unit.kind).title.lower(),
            )
        if whole:
            boxes.append(Box(cell.left, cell.top - first, cell.width, cell.height, cell.unit, cell.orientation))
        else:
            fabric = cell.unit.part_fabrics[0]
            boxes.append(plain_box(cell.left, above - first, cell.width, below - above, fabric))
    return pattern_of(name, boxes)


def _plain(cell: Cell) -> bool:
    return len(kind_of(cell.unit.kind).parts) == 1


@lru_cache(maxsize=256)
def in_whole_parts(pattern: Pattern) -> Pattern:
    """The same pattern in the smallest whole parts, as people count them: "7 1 7" in place of "21/2 3/2 21/2"."""
    times = whole_parts((*pattern.columns, *pattern.rows))
    columns, rows = (tuple(t * times for t in tracks) for tracks in (pattern.columns, pattern.rows))
    return replace(pattern, columns=columns, rows=rows)


def with_finished(pattern: Pattern, apart: Iterable[int]) -> Pattern:
    """The pattern with a plain piece in each of these places, by number: blocks that are joined for themselves, so that what is left
    is how they are joined to each other.
    """
    held = set(apart)
    if not held:
        return pattern
    places = []
    for n, p in enumerate(pattern.places):
        _, _, wide, high = pattern.box(p)
        kind = "plain_square" if wide == high else "rectangle"
        places.append(replace(p, content=UnitPlacement(kind, ("a",)), orientation=UPRIGHT) if n in held else p)
    return replace(pattern, places=tuple(places))
