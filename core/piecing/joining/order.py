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
from math import lcm

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


GridBox = tuple[int, int, int, int]
"""Left, top, right, bottom in steps of a grid so fine that every edge, and every middle of two, lies on it: whole numbers are compared
ten times as fast as fractions, and a large quilt takes a hundred thousand comparisons."""
Held = Sequence[tuple[GridBox, Place]]


def _held_places(pattern: Pattern) -> tuple[Held, int]:
    """Every place with its box, and how many steps there are in a part."""
    boxes = [pattern.box(p) for p in pattern.places]
    fine = 2 * lcm(*(v.denominator for box in boxes for v in box))
    steps = [[v.numerator * (fine // v.denominator) for v in box] for box in boxes]
    held = tuple(
        ((left, top, left + wide, top + high), p)
        for (left, top, wide, high), p in zip(steps, pattern.places, strict=True)
    )
    return held, fine


def _cuts(held: Held, upright: bool) -> list[int]:
    """Where a straight line runs right through and crosses nothing."""
    lo, hi = (0, 2) if upright else (1, 3)
    found: list[int] = []
    reached: int | None = None
    for low, high in sorted({(b[lo], b[hi]) for b, _ in held}):
        if reached is not None and low >= reached and (not found or low > found[-1]):
            found.append(low)
        reached = high if reached is None else max(reached, high)
    return found


def _outline(held: Held) -> GridBox:
    boxes = [b for b, _ in held]
    return min(b[0] for b in boxes), min(b[1] for b in boxes), max(b[2] for b in boxes), max(b[3] for b in boxes)


def _split(held: Held, upright: bool, at: Iterable[int]) -> list[list[tuple[GridBox, Place]]]:
    lo = 0 if upright else 1
    edges = list(at)
    groups: list[list[tuple[GridBox, Place]]] = [[] for _ in range(len(edges) + 1)]
    for b, p in held:
        groups[bisect_right(edges, b[lo])].append((b, p))
    return groups


def _halving(box: GridBox, across: list[int], down: list[int]) -> tuple[bool, list[int]]:
    """One cut, as near the middle as there is: rows apart from rows first, then within a row."""
    if down:
        return False, [min(down, key=lambda e: abs(2 * e - box[1] - box[3]))]
    return True, [min(across, key=lambda e: abs(2 * e - box[0] - box[2]))]


def _squarish(box: GridBox, across: list[int], down: list[int], last: bool | None) -> tuple[bool, list[int]]:
    """The cut through the longer way, in thirds or halves, so that sections stay as square as can be."""
    wide, high = box[2] - box[0], box[3] - box[1]
    upright = (wide > high or (wide == high and last is False)) if across and down else bool(across)
    edges = across if upright else down
    low, length = (box[0], wide) if upright else (box[1], high)
    if len(edges) >= 2 and len(edges) % 2 == 0:
        thirds = [min(edges, key=lambda e: abs(3 * (e - low) - length * n)) for n in (1, 2)]
        if len(set(thirds)) == 2 and len(edges) % 3 == 2:
            return upright, thirds
    return upright, [min(edges, key=lambda e: abs(2 * (e - low) - length))]


def _arms(held: Held, box: GridBox, mid: GridBox, clockwise: bool) -> list[list[tuple[GridBox, Place]]] | None:
    (left, top, right, foot), (x1, y1, x2, y2) = box, mid
    arms: list[GridBox] = (
        [(left, top, x2, y1), (x2, top, right, y2), (x1, y2, right, foot), (left, y1, x1, foot)]
        if clockwise
        else [(x1, top, right, y1), (x2, y1, right, foot), (left, y2, x2, foot), (left, top, x1, y2)]
    )
    groups: list[list[tuple[GridBox, Place]]] = [[] for _ in range(5)]
    for one, place in held:
        for n, arm in enumerate((*arms, mid)):
            if arm[0] <= one[0] and arm[1] <= one[1] and one[2] <= arm[2] and one[3] <= arm[3]:
                groups[n].append((one, place))
                break
        else:
            return None
    return groups if all(groups) else None


class _Sewing:
    """Takes a block apart in one order; what it finds is told in parts of the block again."""

    def __init__(self, pattern: Pattern, order: Order) -> None:
        self.order = order
        self.held, self._fine = _held_places(pattern)
        self._parts: dict[int, Fraction] = {}

    def whole(self) -> Section:
        """All of it. Raises ``CannotBeSewn``."""
        return self._section(self.held)

    def _at(self, step: int) -> Fraction:
        found = self._parts.get(step)
        if found is None:
            found = self._parts[step] = Fraction(step, self._fine)
        return found

    def _box(self, box: GridBox) -> Box:
        return self._at(box[0]), self._at(box[1]), self._at(box[2]), self._at(box[3])

    def _seam(self, x1: int, y1: int, x2: int, y2: int, *, partial: bool = False) -> Joint:
        return Joint((self._at(x1), self._at(y1)), (self._at(x2), self._at(y2)), x1 == x2, partial)

    def _joint(self, box: GridBox, upright: bool, at: int) -> Joint:
        return self._seam(at, box[1], at, box[3]) if upright else self._seam(box[0], at, box[2], at)

    def _section(self, held: Held, last_upright: bool | None = None) -> Section:
        box = _outline(held)
        if len(held) == 1:
            return Section(self._box(box), place=held[0][1])
        across, down = _cuts(held, True), _cuts(held, False)
        if not across and not down:
            return self._windmill(held, box)
        match self.order:
            case Order.ROWS:
                upright, at = (False, down) if down else (True, across)
            case Order.COLUMNS:
                upright, at = (True, across) if across else (False, down)
            case Order.PAIRS:
                upright, at = _halving(box, across, down)
            case Order.SECTIONS:
                upright, at = _squarish(box, across, down, last_upright)
        parts = tuple(self._section(group, upright) for group in _split(held, upright, at))
        return Section(self._box(box), parts, tuple(self._joint(box, upright, e) for e in at))

    def _windmill(self, held: Held, box: GridBox) -> Section:
        """Four sections round a fifth: found from the lines that bound the middle one."""
        xs, ys = sorted({b[0] for b, _ in held})[1:], sorted({b[1] for b, _ in held})[1:]
        for x1 in xs:
            for x2 in (x for x in xs if x > x1):
                for y1 in ys:
                    for y2 in (y for y in ys if y > y1):
                        for clockwise in (True, False):
                            found = _arms(held, box, (x1, y1, x2, y2), clockwise)
                            if found:
                                return self._whirl(found, box, (x1, y1, x2, y2), clockwise)
        raise CannotBeSewn(
            "These places lock into each other: no straight seam parts them, nor a windmill round a middle. Sewing it needs "
            "set-in corners. Change a span so that some line runs right through.",
            field="layout",
        )

    def _whirl(self, groups: list[list[tuple[GridBox, Place]]], box: GridBox, mid: GridBox, clockwise: bool) -> Section:
        (left, top, right, foot), (x1, y1, x2, y2) = box, mid
        half, seam = (x1 + x2) // 2, self._seam
        if clockwise:
            order_of_arms = (4, 0, 1, 2, 3)
            joints = (
                seam(half, y1, x2, y1, partial=True),
                seam(x2, top, x2, y2),
                seam(x1, y2, right, y2),
                seam(x1, y1, x1, foot),
                seam(left, y1, half, y1, partial=True),
            )
        else:
            joints = (
                seam(x1, y1, half, y1, partial=True),
                seam(x1, top, x1, y2),
                seam(left, y2, x2, y2),
                seam(x2, y1, x2, foot),
                seam(half, y1, right, y1, partial=True),
            )
            order_of_arms = (4, 0, 3, 2, 1)
        parts = tuple(self._section(groups[n]) for n in order_of_arms)
        return Section(self._box(box), parts, joints)


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
    _Sewing(Pattern("", columns, rows, places), Order.ROWS).whole()


@lru_cache(maxsize=512)
def order_of(pattern: Pattern, order: Order) -> Section:
    """The block sewn in one order. Raises ``LayoutIncomplete``, ``CannotBeSewn``."""
    return _Sewing(pattern.complete(), order).whole()


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
    ends: dict[tuple[bool, tuple[int, int], bool], dict[tuple[int, int], Fraction]] = {}
    for p in section.parts:
        for j in p.all_joints:
            along, over = (1, 0) if not j.upright else (0, 1)
            onward = j.end[over] > j.start[over]
            # By numerator and denominator: to hash a fraction takes a modular power.
            for here, away in ((j.start, onward), (j.end, not onward)):
                side = ends.setdefault((j.upright, here[over].as_integer_ratio(), away), {})
                side[here[along].as_integer_ratio()] = here[along]
    for joint in section.joints:
        along, over = (1, 0) if joint.upright else (0, 1)
        first, last = sorted((joint.start[along], joint.end[along]))
        # Seams of the other direction that end on this one, from its one side and from its other.
        on = joint.start[over].as_integer_ratio()
        near, far = (ends.get((not joint.upright, on, away), {}) for away in (False, True))
        yield joint, sum(first < near[at] < last for at in near.keys() & far.keys())


def _ordering_of(order: Order, section: Section) -> Ordering:
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


@lru_cache(maxsize=128)
def orders(pattern: Pattern) -> tuple[Ordering, ...]:
    """Every order, the one with the fewest awkward seams first (on a tie rows, which are the simplest to keep sorted).

    Raises ``LayoutIncomplete``, ``CannotBeSewn``.
    """
    found: list[Ordering] = []
    for order in Order:
        judged = _ordering_of(order, order_of(pattern, order))
        if not any(o.section == judged.section for o in found):
            found.append(judged)
    return tuple(sorted(found, key=lambda o: (o.awkward, o.partial, list(Order).index(o.order))))


def _names_of(places: Sequence[Place]) -> str:
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
        return Message("{places}, {side}", places=_names_of(places), side=side)
    return Message(
        "{n} {what} {side}: the whole block" if s is whole else "{n} {what} {side}",
        n=len(s.parts),
        what="pieces" if all(p.place for p in s.parts) else "sections",
        side=side,
    )
