"""A block as a pattern: a grid of tracks, and in its places units and smaller blocks, each with its turn.

A pattern has no size. Tracks are parts of one scale, across and down alike, so that a block of 3 by 2 parts is half as
wide again as it is high; a finished width turns parts into inches. Rows are counted from the top. Fabrics are roles,
letters that a project gives its fabrics to. Source: docs/theory, section 12.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import cached_property, lru_cache
from itertools import accumulate, product
from math import gcd, lcm

from ..errors import LayoutIncomplete, NestedBlockDoesNotFit, PatternNotUnderstood, PlaceTaken, UnitDoesNotFit
from ..lengths import Length
from ..units import UnitSpec, kind_of

__all__ = [
    "MOST_TRACKS",
    "UPRIGHT",
    "BlockPlacement",
    "Cell",
    "Layout",
    "Orientation",
    "Pattern",
    "Place",
    "UnitPlacement",
    "carried_box",
    "layout_of",
    "whole_parts",
]

MOST_TRACKS = 100
"""Columns or rows of one grid at most."""
MOST_CELLS = 10_000
"""Units of one block, those of the blocks in it included."""
_NONE = (Fraction(0),) * 4


@dataclass(frozen=True, slots=True)
class Orientation:
    """How something lies in its place: mirrored left to right first, then turned so many quarters clockwise."""

    turn: int = 0
    mirrored: bool = False

    def then(self, outer: Orientation) -> Orientation:
        """This lie, seen when what holds it lies as ``outer`` says."""
        turn = outer.turn + (-self.turn if outer.mirrored else self.turn)
        return Orientation(turn % 4, self.mirrored != outer.mirrored)

    def turned(self, quarters: int) -> Orientation:
        """Turned by so many quarters to the right, the mirroring left as it is."""
        return Orientation((self.turn + quarters) % 4, self.mirrored)

    @property
    def across(self) -> bool:
        """Whether width and height change places."""
        return self.turn % 2 == 1

    @property
    def undone(self) -> Orientation:
        """The lie that, after this one, gives the upright picture back."""
        return self if self.mirrored else Orientation(-self.turn % 4)


UPRIGHT = Orientation()


@dataclass(frozen=True, slots=True)
class UnitPlacement:
    """A unit without a size: ``corners`` and ``strip`` are shares of its side."""

    kind: str
    part_fabrics: tuple[str, ...]
    corners: tuple[Fraction, ...] = _NONE
    strip: Fraction = Fraction(0)

    def __hash__(self) -> int:
        # Shares take long, and hardly ever tell two apart that are of one kind in the same fabrics.
        return hash((self.kind, self.part_fabrics))

    def dyed(self, roles: dict[str, str]) -> UnitPlacement:
        """With other fabric roles; those not named stay."""
        return replace(self, part_fabrics=tuple(roles.get(r, r) for r in self.part_fabrics))

    def spec(self, width: Length, height: Length) -> UnitSpec:
        """The unit at a finished size; corners and strip are shares of its width."""
        a, b, c, d = (width * share for share in self.corners)
        return UnitSpec(self.kind, width, height, self.part_fabrics, (a, b, c, d), width * self.strip)


@dataclass(frozen=True, slots=True)
class BlockPlacement:
    """A smaller block in a place, known by its key, its roles given others by ``fabrics``."""

    key: str
    pattern: Pattern
    fabrics: tuple[tuple[str, str], ...] = ()

    def dyed(self, roles: dict[str, str]) -> BlockPlacement:
        """The smaller block with its fabrics exchanged by role, its own exchange done first."""
        inner = dict(self.fabrics)
        now = {r: roles.get(inner.get(r, r), inner.get(r, r)) for r in self.pattern.roles}
        return replace(self, fabrics=tuple(sorted((k, v) for k, v in now.items() if k != v)))


Content = UnitPlacement | BlockPlacement


@dataclass(frozen=True, slots=True)
class Place:
    """Where something lies: its first column and row, how many it covers, and how it lies."""

    column: int
    row: int
    content: Content
    orientation: Orientation = UPRIGHT
    across: int = 1
    down: int = 1

    @property
    def spots(self) -> Iterator[tuple[int, int]]:
        """Every (column, row) covered."""
        return product(range(self.column, self.column + self.across), range(self.row, self.row + self.down))

    @property
    def name(self) -> str:
        """The place as it is said on screen, counted from one."""
        return f"row {self.row + 1}, column {self.column + 1}"


@dataclass(frozen=True)
class Pattern:
    """Raises ``PatternNotUnderstood`` for a grid that cannot be, ``PlaceTaken`` for places outside it or overlapping."""

    name: str
    columns: tuple[Fraction, ...]
    rows: tuple[Fraction, ...]
    places: tuple[Place, ...] = ()

    def __post_init__(self) -> None:
        for tracks, what in ((self.columns, "columns"), (self.rows, "rows")):
            if not 1 <= len(tracks) <= MOST_TRACKS:
                raise PatternNotUnderstood(
                    "A grid has 1 to {most} {what}, not {given}.",
                    field=what,
                    most=MOST_TRACKS,
                    what=what,
                    given=len(tracks),
                )
            if any(t <= 0 for t in tracks):
                raise PatternNotUnderstood("Every one of the {what} is wider than nothing.", field=what, what=what)
        taken: set[tuple[int, int]] = set()
        for p in self.places:
            spots = set(p.spots)
            if (
                not spots
                or min(p.column, p.row) < 0
                or p.column + p.across > len(self.columns)
                or p.row + p.down > len(self.rows)
            ):
                raise PlaceTaken("{place} lies outside the grid.", place=p.name.capitalize())
            if spots & taken:
                raise PlaceTaken("Two things lie at {place}. Clear it first.", place=p.name)
            taken |= spots
        ordered = tuple(sorted(self.places, key=lambda p: (p.row, p.column)))
        object.__setattr__(self, "places", ordered)

    def __hash__(self) -> int:
        return self._hash

    @cached_property
    def _hash(self) -> int:
        return hash((self.name, self.columns, self.rows, self.places))

    @cached_property
    def edges(self) -> tuple[tuple[Fraction, ...], tuple[Fraction, ...]]:
        """Every line of the grid in parts, from the left and from the top, the outer ones among them."""
        return tuple(accumulate(self.columns, initial=Fraction(0))), tuple(accumulate(self.rows, initial=Fraction(0)))

    @property
    def width(self) -> Fraction:
        """Parts across."""
        return self.edges[0][-1]

    @property
    def height(self) -> Fraction:
        """The sum of its rows, in parts."""
        return self.edges[1][-1]

    @cached_property
    def roles(self) -> tuple[str, ...]:
        """Every fabric role in it, in the order of the alphabet."""
        return tuple(sorted({r for content in {p.content for p in self.places} for r in _roles(content)}))

    @property
    def empty(self) -> tuple[tuple[int, int], ...]:
        """Every (column, row) with nothing in it, row by row."""
        taken = {s for p in self.places for s in p.spots}
        spots = ((c, r) for r in range(len(self.rows)) for c in range(len(self.columns)))
        return tuple(s for s in spots if s not in taken)

    def at(self, column: int, row: int) -> Place | None:
        """The place that covers a column and row, counted from nought; ``None`` where the block is empty."""
        return self.covering.get((column, row))

    @cached_property
    def covering(self) -> Mapping[tuple[int, int], Place]:
        """What lies at every (column, row) that is not empty."""
        return {s: p for p in self.places for s in p.spots}

    def box(self, place: Place) -> tuple[Fraction, Fraction, Fraction, Fraction]:
        """Left, top, width, height of a place in parts."""
        xs, ys = self.edges
        left, top = xs[place.column], ys[place.row]
        wide = self.columns[place.column] if place.across == 1 else xs[place.column + place.across] - left
        high = self.rows[place.row] if place.down == 1 else ys[place.row + place.down] - top
        return left, top, wide, high

    def complete(self) -> Pattern:
        """Itself. Raises ``LayoutIncomplete``, naming the empty places and counting them."""
        if self.empty:
            raise LayoutIncomplete(
                "{n, plural, one {One place of the block is} other {# places of the block are}} empty: {where}{more, plural, "
                "=0 {} other { and # more}}. Lay something there first.",
                n=len(self.empty),
                where="; ".join(f"row {r + 1}, column {c + 1}" for c, r in self.empty[:6]),
                more=max(0, len(self.empty) - 6),
            )
        return self


def _roles(content: Content) -> Iterable[str]:
    if isinstance(content, UnitPlacement):
        return content.part_fabrics
    names = dict(content.fabrics)
    return (names.get(r, r) for r in content.pattern.roles)


@dataclass(frozen=True, slots=True)
class Cell:
    """One unit where it ends up, in parts from the block's upper left corner; ``place`` is the block's own place."""

    left: Fraction
    top: Fraction
    width: Fraction
    height: Fraction
    unit: UnitPlacement
    orientation: Orientation
    place: int
    nested: bool = False

    def spec(self, part: Length) -> UnitSpec:
        """The unit as it is made, before it is turned, when one part finishes ``part``."""
        wide, high = (self.height, self.width) if self.orientation.across else (self.width, self.height)
        return self.unit.spec(part * wide, part * high)

    @property
    def right(self) -> Fraction:
        """Its right edge, in parts from the left of the block."""
        return self.left + self.width

    @property
    def bottom(self) -> Fraction:
        """Its lower edge, in parts from the top of the block."""
        return self.top + self.height


@dataclass(frozen=True)
class Layout:
    """A pattern down to its units."""

    pattern: Pattern
    cells: tuple[Cell, ...] = field(hash=False)
    _specs: dict[Length, tuple[UnitSpec, ...]] = field(default_factory=dict, init=False, repr=False, compare=False)

    @cached_property
    def _alike(self) -> tuple[tuple[int, ...], tuple[tuple[Cell, int], ...]]:
        """For each cell the number of its shape, and of each shape a cell and how many there are."""
        known: dict[object, int] = {}
        numbers: list[int] = []
        ones: list[Cell] = []
        for c in self.cells:
            # A block that is laid often gives the same objects again and again: these are told apart sooner than fractions are.
            same = (id(c.unit), id(c.width), id(c.height), c.orientation.across)
            n = known.get(same)
            if n is None:
                n = known.setdefault((c.unit, c.width, c.height, c.orientation.across), len(ones))
                known[same] = n
                if n == len(ones):
                    ones.append(c)
            numbers.append(n)
        often = Counter(numbers)
        return tuple(numbers), tuple((c, often[n]) for n, c in enumerate(ones))

    @property
    def shapes(self) -> tuple[tuple[Cell, int], ...]:
        """Units that are alike but for where they lie: one of each, and how many there are."""
        return self._alike[1]

    def specs(self, part: Length) -> tuple[UnitSpec, ...]:
        """The units as they are made when one part finishes ``part``, in the order of the cells; units that are alike are one object.
        The last size asked for is remembered.
        """
        known = self._specs.get(part)
        if known is None:
            made = [c.spec(part) for c, _ in self.shapes]
            known = tuple(made[n] for n in self._alike[0])
            self._specs.clear()
            self._specs[part] = known
        return known

    def part(self, finished: Length) -> Length:
        """What one part finishes when the whole block finishes so wide."""
        return finished / self.pattern.width

    def cells_of(self, place: int) -> tuple[Cell, ...]:
        """The cells of one place by its number: one for a unit, all units of it for a smaller block."""
        return tuple(c for c in self.cells if c.place == place)


_laid: dict[Pattern, Layout] = {}


def layout_of(pattern: Pattern) -> Layout:
    """The units of a block, those of the blocks in it included; the last thousand are remembered.

    Raises ``UnitDoesNotFit`` for a square unit in a place that is not square, ``NestedBlockDoesNotFit`` for a smaller
    block of another shape than its place, ``PatternNotUnderstood`` for one with too many units.
    """
    known = _laid.get(pattern)
    if known is None:
        known = Layout(pattern, tuple(_cells(pattern)))
        if len(_laid) > 1000:
            _laid.clear()
        _laid[pattern] = known
    return known


def _cells(pattern: Pattern) -> list[Cell]:
    found: list[Cell] = []
    for n, place in enumerate(pattern.places):
        box = pattern.box(place)
        if isinstance(place.content, UnitPlacement):
            _fits(place, box[2], box[3])
            found.append(Cell(*box, place.content, place.orientation, n))
        else:
            found.extend(_inner_cells(place, place.content, box, n))
        if len(found) > MOST_CELLS:
            raise PatternNotUnderstood("A block holds {most} units at most.", field="layout", most=f"{MOST_CELLS:,}")
    return found


def _fits(place: Place, width: Fraction, height: Fraction) -> None:
    assert isinstance(place.content, UnitPlacement)
    kind = kind_of(place.content.kind)
    if len(place.content.part_fabrics) != len(kind.parts):
        raise PatternNotUnderstood(
            "The unit at {place} has {parts} parts; {given} fabrics are given.",
            field="layout",
            place=place.name,
            parts=len(kind.parts),
            given=len(place.content.part_fabrics),
        )
    if not kind.free_height and width != height:
        raise UnitDoesNotFit(
            "The unit at {place} is square, and its place is {wider} than it is {higher}. Lay it in a square place, or make the tracks alike.",
            place=place.name,
            wider="wider" if width > height else "higher",
            higher="high" if width > height else "wide",
        )


def _inner_cells(place: Place, held: BlockPlacement, box: tuple[Fraction, ...], n: int) -> tuple[Cell, ...]:
    (left, top, wide, high), orientation = box, place.orientation
    own_wide, own_high = held.pattern.width, held.pattern.height
    seen_wide, seen_high = (own_high, own_wide) if orientation.across else (own_wide, own_high)
    if seen_wide * high != seen_high * wide:
        raise NestedBlockDoesNotFit(
            "“{name}” is {own_wide} by {own_high} parts, and its place at {place} is {wide} by {high}: it would be "
            "pulled out of shape. Give it a place of its own shape.",
            name=held.pattern.name,
            own_wide=str(seen_wide),
            own_high=str(seen_high),
            place=place.name,
            wide=str(wide),
            high=str(high),
        )
    return _set_down(held, orientation, wide / seen_wide, left, top, n)


@lru_cache(maxsize=8192)
def _set_down(
    held: BlockPlacement, orientation: Orientation, scale: Fraction, left: Fraction, top: Fraction, n: int
) -> tuple[Cell, ...]:
    """While one place of many changes, what lies in the others stays where it is."""
    return tuple(
        Cell(left + c.left, top + c.top, c.width, c.height, c.unit, c.orientation, n, nested=True)
        for c in _scaled_cells(held, orientation, scale)
    )


@lru_cache(maxsize=512)
def _scaled_cells(held: BlockPlacement, orientation: Orientation, scale: Fraction) -> tuple[Cell, ...]:
    """The cells of a smaller block as it lies, from its own corner, in parts of the block that holds it. A quilt lays one block a
    hundred times; what is the same each time is worked out once."""
    pattern, roles = held.pattern, dict(held.fabrics)
    found = []
    for c in layout_of(pattern).cells:
        x, y, w, h = (side * scale for side in carried_box(c, pattern.width, pattern.height, orientation))
        unit = c.unit.dyed(roles) if roles else c.unit
        found.append(Cell(x, y, w, h, unit, c.orientation.then(orientation), c.place, nested=True))
    return tuple(found)


def carried_box(
    c: Cell, width: Fraction, height: Fraction, orientation: Orientation
) -> tuple[Fraction, Fraction, Fraction, Fraction]:
    """The box of a cell in a block of this size, once that block is mirrored and turned."""
    x, y, w, h = c.left, c.top, c.width, c.height
    if orientation.mirrored:
        x = width - x - w
    for _ in range(orientation.turn):
        x, y, w, h = height - y - h, x, h, w
        width, height = height, width
    return x, y, w, h


def whole_parts(shares: Iterable[Fraction]) -> Fraction:
    """The smallest number that gives a whole one when multiplied with any of the shares."""
    shares = [s for s in shares if s > 0]
    return Fraction(lcm(*(s.denominator for s in shares)), gcd(*(s.numerator for s in shares)))
