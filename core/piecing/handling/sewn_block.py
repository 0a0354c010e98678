"""A block on the way to being joined: its sections, what they are called, and the outlines of their parts.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from fractions import Fraction
from functools import cached_property

from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import Cell, Layout, Pattern
from ..cutting.ledger import letter_of
from ..geometry.plane import Point
from ..joining.order import Order, Section
from ..joining.pressing import Pressed, PressingMap
from ..lengths import Length
from ..messages import Message

__all__ = ["Box", "SewnBlock", "faces_of", "section_names", "single_places"]


@dataclass(frozen=True)
class SewnBlock:
    """One block on the way: its layout dyed as it lies, how it is sewn, and how it is pressed if that is known; ``of_blocks``: of blocks that
    are finished, as a centre laid by hand is; ``strips``: how long those between them are by what was measured."""

    layout: Layout
    cells: tuple[Cell, ...]
    order: Order
    part: Length
    allowance: Length
    mark: Length
    pressed: Mapping[str, Pressed]
    map: PressingMap | None
    key: str
    times: int
    of_blocks: bool = False
    strips: Mapping[str, Length] = field(default_factory=dict)

    @cached_property
    def faces(self) -> Mapping[str, tuple[tuple[tuple[Point, ...], str], ...]]:
        """The finished outlines of every place and their fabrics, by the name of the place; in inches of the block."""
        specs, part = Layout(self.layout.pattern, self.cells).specs(self.part), float(self.part)
        found: dict[str, list[tuple[tuple[Point, ...], str]]] = {}
        for cell, spec in zip(self.cells, specs, strict=True):
            x, y = cell_middle(self.layout, cell, part)
            name = self.layout.pattern.places[cell.place].name
            found.setdefault(name, []).extend(
                (tuple((px + x, py + y) for px, py in q.outline), q.role) for q in placed_parts(spec, cell.orientation)
            )
        return {name: tuple(faces) for name, faces in found.items()}


Box = tuple[Fraction, Fraction, Fraction, Fraction]


def section_names(pattern: Pattern, whole: Section) -> dict[Box, Message]:
    """What each section is called: a place by row and column, a whole row or column by its number, others by letters in the
    order of sewing."""
    found: dict[Box, Message] = {}
    letters = 0
    xs, ys = pattern.edges
    for s in [*single_places(whole), *whole.walk()]:
        left, top, right, foot = s.box
        if s.place is not None:
            found[s.box] = Message("{place}", place=s.place.name)
        elif s is whole:
            found[s.box] = Message("the block")
        elif (left, right) == (xs[0], xs[-1]) and top in ys and foot in ys:
            found[s.box] = _span("row", ys.index(top) + 1, ys.index(foot))
        elif (top, foot) == (ys[0], ys[-1]) and left in xs and right in xs:
            found[s.box] = _span("column", xs.index(left) + 1, xs.index(right))
        else:
            found[s.box] = Message("section {letter}", letter=letter_of(letters))
            letters += 1
    return found


def single_places(s: Section) -> Iterator[Section]:
    """The places in a section that hold one thing each."""
    for p in s.parts:
        if p.place is not None:
            yield p
        yield from single_places(p)


def _span(what: str, first: int, last: int) -> Message:
    if what == "row":
        return Message("row {n}", n=first) if first == last else Message("rows {a} to {b}", a=first, b=last)
    return Message("column {n}", n=first) if first == last else Message("columns {a} to {b}", a=first, b=last)


def faces_of(sewn: SewnBlock, s: Section) -> Iterator[tuple[tuple[Point, ...], str]]:
    """The finished outlines of the parts of a section and their fabrics, in inches of the block."""
    for one in single_places(s) if s.place is None else (s,):
        if one.place is not None:
            yield from sewn.faces[one.place.name]
