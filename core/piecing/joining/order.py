"""The order of joining: which section is sewn to which, with the size to check after every step.

A layout can be sewn with straight seams when it falls apart along lines that cross no place, again and again. Where it
does not, four sections may run round a fifth like a windmill: then the first seam is sewn in part and finished last.
Anything else needs set-in corners and is refused. Source: docs/theory, section 12.6.
"""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction
from functools import lru_cache

from ..blocks.pattern import UPRIGHT, Layout, Pattern, Place, UnitPlacement
from ..errors import CannotBeSewn
from ..lengths import Length
from ..messages import Listing, Message

__all__ = [
    "ORDER_WORDS",
    "Joint",
    "Order",
    "Ordering",
    "Section",
    "Step",
    "check_sewable",
    "order_of",
    "orders",
    "steps",
]

Box = tuple[Fraction, Fraction, Fraction, Fraction]
"""Left, top, right, bottom in parts from the upper left corner."""
_MANY_CROSSINGS = 3
_LONG = 3
"""Sections more than so many times as long as wide, sewn to each other, tend to bow."""


class Order(StrEnum):
    ROWS = "rows"
    COLUMNS = "columns"
    PAIRS = "pairs"
    SECTIONS = "sections"


ORDER_WORDS = {
    Order.ROWS: ("Rows", "each row, then row to row"),
    Order.COLUMNS: ("Columns", "each column, then column to column"),
    Order.PAIRS: ("Pairs", "pairs, then pairs of pairs"),
    Order.SECTIONS: ("Sections", "squarish sections, joined to larger ones"),
}
"""What an order is called, and what it is in a line."""


@dataclass(frozen=True, slots=True)
class Joint:
    """A seam between sections: from ``start`` to ``end`` in parts, y downward; ``partial`` when it is finished last."""

    start: tuple[Fraction, Fraction]
    end: tuple[Fraction, Fraction]
    upright: bool
    partial: bool = False


@dataclass(frozen=True)
class Section:
    """What is sewn together: a single place, or sections joined one after the other along parallel seams."""

    box: Box
    parts: tuple[Section, ...] = ()
    joints: tuple[Joint, ...] = ()
    place: Place | None = None

    @property
    def width(self) -> Fraction:
        """Its width, in parts of the block."""
        return self.box[2] - self.box[0]

    @property
    def height(self) -> Fraction:
        """Its height, in parts of the block."""
        return self.box[3] - self.box[1]

    def walk(self) -> Iterator[Section]:
        """Sections in the order of sewing, the whole last."""
        for p in self.parts:
            yield from p.walk()
        if self.parts:
            yield self

    @property
    def all_joints(self) -> tuple[Joint, ...]:
        """Every seam, in the order of sewing."""
        return tuple(j for s in self.walk() for j in s.joints)


def _boxes(pattern: Pattern) -> tuple[tuple[Box, Place], ...]:
    found = []
    for p in pattern.places:
        left, top, wide, high = pattern.box(p)
        found.append(((left, top, left + wide, top + high), p))
    return tuple(found)


Held = Sequence[tuple[Box, Place]]


def _cuts(held: Held, upright: bool) -> list[Fraction]:
    """Where a straight line runs right through and crosses nothing."""
    lo, hi = (0, 2) if upright else (1, 3)
    found: list[Fraction] = []
    reached: Fraction | None = None
    for low, high in sorted({(b[lo], b[hi]) for b, _ in held}):
        if reached is not None and low >= reached and (not found or low > found[-1]):
            found.append(low)
        reached = high if reached is None else max(reached, high)
    return found


def _outline(held: Held) -> Box:
    boxes = [b for b, _ in held]
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


def _split(held: Held, upright: bool, at: Iterable[Fraction]) -> list[list[tuple[Box, Place]]]:
    lo = 0 if upright else 1
    edges = list(at)
    groups: list[list[tuple[Box, Place]]] = [[] for _ in range(len(edges) + 1)]
    for b, p in held:
        groups[bisect_right(edges, b[lo])].append((b, p))
    return groups


def _joint(box: Box, upright: bool, at: Fraction) -> Joint:
    return Joint((at, box[1]), (at, box[3]), True) if upright else Joint((box[0], at), (box[2], at), False)


def _section(held: Held, order: Order, last_upright: bool | None = None) -> Section:
    box = _outline(held)
    if len(held) == 1:
        return Section(box, place=held[0][1])
    across, down = _cuts(held, True), _cuts(held, False)
    if not across and not down:
        return _windmill(held, order, box)
    match order:
        case Order.ROWS:
            upright, at = (False, down) if down else (True, across)
        case Order.COLUMNS:
            upright, at = (True, across) if across else (False, down)
        case Order.PAIRS:
            upright, at = _halving(box, across, down)
        case Order.SECTIONS:
            upright, at = _squarish(box, across, down, last_upright)
    parts = tuple(_section(group, order, upright) for group in _split(held, upright, at))
    return Section(box, parts, tuple(_joint(box, upright, e) for e in at))


def _halving(box: Box, across: list[Fraction], down: list[Fraction]) -> tuple[bool, list[Fraction]]:
    """One cut, as near the middle as there is: rows apart from rows first, then within a row."""
    if down:
        return False, [min(down, key=lambda e: abs(e - (box[1] + box[3]) / 2))]
    return True, [min(across, key=lambda e: abs(e - (box[0] + box[2]) / 2))]


def _squarish(box: Box, across: list[Fraction], down: list[Fraction], last: bool | None) -> tuple[bool, list[Fraction]]:
    """The cut through the longer way, in thirds or halves, so that sections stay as square as can be."""
    wide, high = box[2] - box[0], box[3] - box[1]
    upright = (wide > high or (wide == high and last is False)) if across and down else bool(across)
    edges = across if upright else down
    low, length = (box[0], wide) if upright else (box[1], high)
    if len(edges) >= 2 and len(edges) % 2 == 0:
        thirds = [min(edges, key=lambda e: abs(e - low - length * n / 3)) for n in (1, 2)]
        if len(set(thirds)) == 2 and len(edges) % 3 == 2:
            return upright, thirds
    return upright, [min(edges, key=lambda e: abs(e - low - length / 2))]


def _windmill(held: Held, order: Order, box: Box) -> Section:
    """Four sections round a fifth: found from the lines that bound the middle one."""
    xs, ys = sorted({b[0] for b, _ in held})[1:], sorted({b[1] for b, _ in held})[1:]
    for x1 in xs:
        for x2 in (x for x in xs if x > x1):
            for y1 in ys:
                for y2 in (y for y in ys if y > y1):
                    for clockwise in (True, False):
                        found = _arms(held, box, (x1, y1, x2, y2), clockwise)
                        if found:
                            return _whirled(found, order, box, (x1, y1, x2, y2), clockwise)
    raise CannotBeSewn(
        "These places lock into each other: no straight seam parts them, nor a windmill round a middle. Sewing it needs "
        "set-in corners. Change a span so that some line runs right through.",
        field="layout",
    )


def _arms(held: Held, box: Box, mid: Box, clockwise: bool) -> list[list[tuple[Box, Place]]] | None:
    (left, top, right, foot), (x1, y1, x2, y2) = box, mid
    arms: list[Box] = (
        [(left, top, x2, y1), (x2, top, right, y2), (x1, y2, right, foot), (left, y1, x1, foot)]
        if clockwise
        else [(x1, top, right, y1), (x2, y1, right, foot), (left, y2, x2, foot), (left, top, x1, y2)]
    )
    groups: list[list[tuple[Box, Place]]] = [[] for _ in range(5)]
    for one, place in held:
        for n, arm in enumerate((*arms, mid)):
            if arm[0] <= one[0] and arm[1] <= one[1] and one[2] <= arm[2] and one[3] <= arm[3]:
                groups[n].append((one, place))
                break
        else:
            return None
    return groups if all(groups) else None


def _whirled(groups: list[list[tuple[Box, Place]]], order: Order, box: Box, mid: Box, clockwise: bool) -> Section:
    (left, top, right, foot), (x1, y1, x2, y2) = box, mid
    half = x1 + (x2 - x1) / 2
    if clockwise:
        order_of_arms = (4, 0, 1, 2, 3)
        joints = (
            Joint((half, y1), (x2, y1), False, partial=True),
            Joint((x2, top), (x2, y2), True),
            Joint((x1, y2), (right, y2), False),
            Joint((x1, y1), (x1, foot), True),
            Joint((left, y1), (half, y1), False, partial=True),
        )
    else:
        joints = (
            Joint((x1, y1), (half, y1), False, partial=True),
            Joint((x1, top), (x1, y2), True),
            Joint((left, y2), (x2, y2), False),
            Joint((x2, y1), (x2, foot), True),
            Joint((half, y1), (right, y1), False, partial=True),
        )
        order_of_arms = (4, 0, 3, 2, 1)
    parts = tuple(_section(groups[n], order) for n in order_of_arms)
    return Section(box, parts, joints)


def check_sewable(pattern: Pattern) -> None:
    """Whether it can be sewn at all is the same in every order, since a cut that is left out can be made later, and whatever lies in
    its places. Raises ``LayoutIncomplete``, ``CannotBeSewn``."""
    pattern.complete()
    if all(p.across == p.down == 1 for p in pattern.places):
        return  # Every line of the grid runs right through.
    _check_spans(pattern.columns, pattern.rows, tuple((p.column, p.row, p.across, p.down) for p in pattern.places))


@lru_cache(maxsize=512)
def _check_spans(
    columns: tuple[Fraction, ...], rows: tuple[Fraction, ...], spans: tuple[tuple[int, int, int, int], ...]
) -> None:
    nothing = UnitPlacement("", ())
    places = tuple(Place(c, r, nothing, UPRIGHT, across, down) for c, r, across, down in spans)
    _section(_boxes(Pattern("", columns, rows, places)), Order.ROWS)


@lru_cache(maxsize=512)
def order_of(pattern: Pattern, order: Order) -> Section:
    """The block sewn in one order. Raises ``LayoutIncomplete``, ``CannotBeSewn``."""
    return _section(_boxes(pattern.complete()), order)


@dataclass(frozen=True)
class Ordering:
    """One order with what it asks of the sewer; ``awkward`` counts seams in part, seams with many crossings at once, and
    long strips sewn to long strips."""

    order: Order
    section: Section
    partial: int
    crowded: int
    bowing: int
    deepest: int

    @property
    def awkward(self) -> int:
        """Seams that want care: sewn in part, into a corner, or across a bowing edge."""
        return self.partial + self.crowded + self.bowing

    @property
    def said(self) -> Message:
        """What is awkward about this order, or that nothing is."""
        awkward = (
            (
                self.partial,
                Message(
                    "{n, plural, one {one seam is} other {# seams are}} sewn in part and finished last", n=self.partial
                ),
            ),
            (
                self.crowded,
                Message(
                    "{n, plural, one {one seam has} other {# seams have}} more than {most} crossings to match at once",
                    n=self.crowded,
                    most=_MANY_CROSSINGS,
                ),
            ),
            (
                self.bowing,
                Message(
                    "{n, plural, one {one seam joins} other {# seams join}} long strips to long strips, which bow",
                    n=self.bowing,
                ),
            ),
        )
        told = [said for n, said in awkward if n]
        return Message("{told}.", told=Listing(told, "; ")) if told else Message("No awkward seam in it.")


def _crossings(section: Section) -> Iterator[tuple[Joint, int]]:
    """Every seam of a section with how many places it has where seams meet from both sides."""
    ends: dict[tuple[bool, Fraction, bool], set[Fraction]] = {}
    for p in section.parts:
        for j in p.all_joints:
            along, over = (1, 0) if not j.upright else (0, 1)
            for here, other in ((j.start, j.end), (j.end, j.start)):
                ends.setdefault((j.upright, here[over], other[over] > here[over]), set()).add(here[along])
    for joint in section.joints:
        along, over = (1, 0) if joint.upright else (0, 1)
        first, last = sorted((joint.start[along], joint.end[along]))
        # Seams of the other direction that end on this one, from its one side and from its other.
        sides = [ends.get((not joint.upright, joint.start[over], far), set()) for far in (False, True)]
        yield joint, sum(first < at < last for at in sides[0] & sides[1])


def _judged(order: Order, section: Section) -> Ordering:
    partial = crowded = bowing = 0
    for s in section.walk():
        partial += any(j.partial for j in s.joints)
        crowded += sum(n > _MANY_CROSSINGS for _, n in _crossings(s))
        for one, other in zip(s.parts, s.parts[1:], strict=False):
            joint = s.joints[0]
            long = all(_ratio(p, joint.upright) > _LONG for p in (one, other))
            bowing += bool(long and one.parts and other.parts)
    return Ordering(order, section, partial, crowded, bowing, _depth(section))


def _ratio(section: Section, upright: bool) -> Fraction:
    return section.height / section.width if upright else section.width / section.height


def _depth(section: Section) -> int:
    return 1 + max(map(_depth, section.parts)) if section.parts else 0


def orders(pattern: Pattern) -> tuple[Ordering, ...]:
    """Every order, the one with the fewest awkward seams first (on a tie rows, which are the simplest to keep sorted).

    Raises ``LayoutIncomplete``, ``CannotBeSewn``.
    """
    found: list[Ordering] = []
    for order in Order:
        judged = _judged(order, order_of(pattern, order))
        if not any(o.section == judged.section for o in found):
            found.append(judged)
    return tuple(sorted(found, key=lambda o: (o.awkward, o.partial, list(Order).index(o.order))))


def _named(places: Sequence[Place]) -> str:
    """A run of places: "row 1, columns 1 to 3"."""
    rows, columns = {p.row + 1 for p in places}, {p.column + 1 for p in places}
    if len(rows) == 1:
        return f"row {min(rows)}, columns {_to(columns)}"
    if len(columns) == 1:
        return f"column {min(columns)}, rows {_to(rows)}"
    names = [p.name for p in places]
    return ", ".join(names[:-1]) + " and " + names[-1]


def _to(numbers: set[int]) -> str:
    ordered = sorted(numbers)
    if ordered == list(range(ordered[0], ordered[-1] + 1)) and len(ordered) > 2:
        return f"{ordered[0]} to {ordered[-1]}"
    return ", ".join(map(str, ordered[:-1])) + f" and {ordered[-1]}" if len(ordered) > 1 else str(ordered[0])


@dataclass(frozen=True, slots=True)
class Step:
    """One thing to sew: what is joined, and what it should then measure, raw edge to raw edge."""

    said: Message
    width: Length
    height: Length
    crossings: int
    times: int
    box: Box


def steps(layout: Layout, order: Order, finished: Length, allowance: Length) -> tuple[Step, ...]:
    """The whole order step by step; the last one gives the block, still unfinished by two allowances."""
    section, part = order_of(layout.pattern, order), layout.part(finished)
    found = []
    for s in section.walk():
        crossings = sum(c for _, c in _crossings(s))
        width, height = part * s.width + allowance * 2, part * s.height + allowance * 2
        found.append(Step(_step_said(s, section), width, height, crossings, len(s.joints), s.box))
    return tuple(found)


def _step_said(s: Section, whole: Section) -> Message:
    if any(j.partial for j in s.joints):
        return Message(
            "Sew half of the first seam to the middle, then round it section by section, and finish the first seam last."
        )
    side = "side by side" if s.joints[0].upright else "one below the other"
    places = [p.place for p in s.parts if p.place]
    if len(places) == len(s.parts):
        return Message("{places}, {side}", places=_named(places), side=side)
    return Message(
        "{n} {what} {side}: the whole block" if s is whole else "{n} {what} {side}",
        n=len(s.parts),
        what="pieces" if all(p.place for p in s.parts) else "sections",
        side=side,
    )
