"""Which way every seam is pressed, so that every crossing nests: a small constraint problem, solved to its optimum.

A seam goes to its left, to its right, or open. Two seams that meet across a later one nest when their allowances point
opposite ways along it. What cannot be had is weighed: first nesting, then the number of layers, then the wishes.
Source: docs/theory, section 12.7.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import TYPE_CHECKING, Any

from ..blocks.pattern import Pattern
from ..errors import CountOutOfRange
from ..messages import Message
from ..solver import cp, solve
from .order import Order
from .seams import BlockSeam, Meeting, block_seams, darkness, edge_meetings, meetings

if TYPE_CHECKING:
    from ortools.sat.python.cp_model import CpModel, IntVar

__all__ = ["Conflict", "Press", "Pressed", "PressingMap", "Wishes", "cost_of", "layers_at", "pressing_map"]

_NEST, _LAYERS, _DARK, _BULK, _OPEN = 10_000, 1_000, 20, 2, 120
"""What each shortfall costs. A dark wish is weighed by how much darker the one side is."""
_SECONDS = 4.0
MOST_SEAMS = 3_000


class Press(StrEnum):
    LEFT = "left"
    RIGHT = "right"
    OPEN = "open"


@dataclass(frozen=True, slots=True)
class Wishes:
    """``layers``: press open rather than let more than so many layers meet. ``spun``: points, in parts, to spin open."""

    to_dark: bool = True
    from_bulk: bool = True
    layers: int | None = None
    spun: tuple[tuple[float, float], ...] = ()
    repeats: bool = False


@dataclass(frozen=True, slots=True)
class Pressed:
    """One seam and where it goes: ``arrow`` is the unit vector its allowances point along (None when open).

    ``after`` is where it goes beyond each spun crossing, in order.
    """

    seam: BlockSeam
    way: Press
    after: tuple[tuple[float, Press], ...] = ()

    @property
    def arrow(self) -> tuple[float, float] | None:
        """Which way the allowance lies, as a unit vector; ``None`` pressed open."""
        return arrow_of(self.seam, self.way)

    @property
    def last_arrow(self) -> tuple[float, float] | None:
        """Where it goes at its end."""
        return arrow_of(self.seam, self.after[-1][1] if self.after else self.way)


def arrow_of(seam: BlockSeam, way: Press) -> tuple[float, float] | None:
    """Which way an allowance lies for a way of pressing, as a unit vector; ``None`` pressed open."""
    if way is Press.OPEN:
        return None
    x, y = seam.left
    return (x, y) if way is Press.LEFT else (-x, -y)


@dataclass(frozen=True, slots=True)
class Conflict:
    """A wish that had to give way, or a crossing that cannot nest: ``code`` is to_light, not_nested, not_spun or layers."""

    code: str
    said: Message
    at: tuple[float, float]


@dataclass(frozen=True)
class PressingMap:
    """``second`` is how every second block is pressed, when blocks repeat and one map alone cannot nest with itself."""

    pressed: tuple[Pressed, ...]
    second: tuple[Pressed, ...]
    crossings: tuple[Meeting, ...]
    nested: int
    pairs: int
    edge_nested: int
    edge_pairs: int
    most_layers: int
    conflicts: tuple[Conflict, ...]
    optimal: bool
    cost: int
    bound: int


@dataclass
class _Vars:
    """The choices of one seam: to the left, to the right, open; after each spun crossing again."""

    left: Any
    right: Any
    open: Any


class _PressingModel:
    """One copy of a block's seams in the model."""

    def __init__(
        self,
        model: CpModel,
        seams: Sequence[BlockSeam],
        found: Sequence[Meeting],
        wishes: Wishes,
        values: Sequence[tuple[float, float]],
    ) -> None:
        self.model, self.seams, self.meetings, self.wishes = model, seams, found, wishes
        self.cost: list[Any] = []
        self.unnested: list[tuple[Meeting | None, tuple[int, int], IntVar]] = []
        self.unspun: list[tuple[Meeting, IntVar]] = []
        self.pieces: list[list[_Vars]] = []
        self.spun: list[list[Meeting]] = [[] for _ in seams]
        for m in found:
            if _chosen(m, wishes):
                self.spun[m.on].append(m)
        ends = _ends(seams, found)
        for k in range(len(seams)):
            self.pieces.append([self._one(values[k], ends[k]) for _ in range(len(self.spun[k]) + 1)])
        for m in found:
            if m in self.spun[m.on]:
                self._spin(m)
            else:
                for pair in m.pairs:
                    nest(self, self, pair, m.at, m.at, seams[m.on].direction, self.unnested, m)
                if wishes.layers is not None:
                    self._layers(m, wishes.layers)

    def _one(self, value: tuple[float, float], ends: tuple[int, int]) -> _Vars:
        v = _Vars(*(self.model.new_bool_var("") for _ in range(3)))
        self.model.add_exactly_one(v.left, v.right, v.open)
        left, right = value
        if self.wishes.to_dark:
            lighter = v.left if left < right else v.right
            self.cost.append(round(_DARK * abs(left - right)) * lighter)
        if self.wishes.from_bulk:
            self.cost.append(_BULK * ends[0] * v.left + _BULK * ends[1] * v.right)
        self.cost.append(_OPEN * v.open)
        return v

    def hint(self, like: Sequence[Pressed]) -> None:
        """Begin the search at a pressing known already."""
        for pieces, p in zip(self.pieces, like, strict=False):
            for way, v in ((Press.LEFT, pieces[0].left), (Press.RIGHT, pieces[0].right), (Press.OPEN, pieces[0].open)):
                self.model.add_hint(v, p.way is way)

    def at_end(self, k: int, at: tuple[float, float]) -> _Vars:
        """The stretch of a seam that ends at a point."""
        s = self.seams[k]
        near_start = abs(s.start[0] - at[0]) + abs(s.start[1] - at[1]) < abs(s.end[0] - at[0]) + abs(s.end[1] - at[1])
        return self.pieces[k][0 if near_start else -1]

    def toward(self, k: int, at: tuple[float, float], u: tuple[float, float]) -> tuple[Any, Any]:
        """The choices that send a seam's allowance along ``u`` and against it."""
        v = self.at_end(k, at)
        forward = self.seams[k].left[0] * u[0] + self.seams[k].left[1] * u[1] > 0
        return (v.left, v.right) if forward else (v.right, v.left)

    def _spin(self, m: Meeting) -> None:
        """All allowances round the point go the same way round; given up, at the price of a crossing, if they cannot."""
        clockwise, not_spun = self.model.new_bool_var(""), self.model.new_bool_var("")
        self.unspun.append((m, not_spun))
        self.cost.append(_NEST * not_spun)
        u = self.seams[m.on].direction
        n = self.spun[m.on].index(m)
        before, after = self.pieces[m.on][n], self.pieces[m.on][n + 1]
        ways = [(before.left, before.right), (after.right, after.left)]
        for k, side in [(k, 1) for k in m.left] + [(k, -1) for k in m.right]:
            along, against = self.toward(k, m.at, u)
            ways.append((along, against) if side > 0 else (against, along))
        for one_way, other_way in ways:
            self.model.add_bool_or(not_spun, ~clockwise, one_way)
            self.model.add_bool_or(not_spun, clockwise, other_way)

    def _layers(self, m: Meeting, most: int) -> None:
        over = self.model.new_bool_var("")
        self.cost.append(_LAYERS * over)
        u, on = (
            self.seams[m.on].direction,
            self.pieces[m.on][sum(1 for s in self.spun[m.on] if _along(self, s) < _along(self, m))],
        )
        for back in (False, True):
            sums = []
            for group in (m.left, m.right):
                terms: Any = 1
                for k in group:
                    along, against = self.toward(k, m.at, u)
                    terms = terms + 2 * (against if back else along) + self.at_end(k, m.at).open
                sums.append(terms)
            a, b = sums
            for total, chosen in ((2 * a + b, on.left), (2 * b + a, on.right), (2 * a, on.open), (2 * b, on.open)):
                self.model.add(total <= most).only_enforce_if(chosen, ~over)


def _along(copy: _PressingModel, m: Meeting) -> float:
    s = copy.seams[m.on]
    return (m.at[0] - s.start[0]) * s.direction[0] + (m.at[1] - s.start[1]) * s.direction[1]


def nest(
    one: _PressingModel,
    other: _PressingModel,
    pair: tuple[int, int],
    here: tuple[float, float],
    there: tuple[float, float],
    u: tuple[float, float],
    unnested: list[Any],
    m: Meeting | None,
) -> None:
    """Two seams point opposite ways along ``u``, or the shortfall is paid for."""
    missed = one.model.new_bool_var("")
    along, against = one.toward(pair[0], here, u)
    along_too, against_too = other.toward(pair[1], there, u)
    if one is other and pair[0] == pair[1]:
        one.model.add(missed == 1)
    one.model.add_bool_or(missed, along, against)
    one.model.add_bool_or(missed, ~along, against_too)
    one.model.add_bool_or(missed, ~against, along_too)
    unnested.append((m, pair, missed))
    one.cost.append(_NEST * missed)


def _chosen(m: Meeting, wishes: Wishes) -> bool:
    near = any(abs(m.at[0] - x) + abs(m.at[1] - y) < 1e-3 for x, y in wishes.spun)
    return near and bool(m.left) and bool(m.right)


def _ends(seams: Sequence[BlockSeam], found: Sequence[Meeting]) -> list[tuple[int, int]]:
    """How many seams run into each from its left and from its right."""
    ends = [(0, 0) for _ in seams]
    for m in found:
        left, right = ends[m.on]
        ends[m.on] = (left + len(m.left), right + len(m.right))
    return ends


def layers_at(m: Meeting, pressed: Sequence[Pressed]) -> int:
    """The most layers of cloth round a crossing: base cloth and both allowances, doubled where seams are folded in."""
    seam = pressed[m.on]
    u, most = seam.seam.direction, 0
    for sign in (1, -1):
        a, b = (1 + sum(_folded(pressed[k], u, sign) for k in group) for group in (m.left, m.right))
        most = max(most, {Press.LEFT: 2 * a + b, Press.RIGHT: 2 * b + a, Press.OPEN: max(2 * a, 2 * b)}[seam.way])
    return most


def _folded(p: Pressed, u: tuple[float, float], sign: int) -> int:
    if p.arrow is None:
        return 1
    return 2 if (p.arrow[0] * u[0] + p.arrow[1] * u[1]) * sign > 0 else 0


def pressing_map(
    pattern: Pattern, order: Order, values: Mapping[str, int], wishes: Wishes | None = None
) -> PressingMap:
    """The best pressing of a block sewn in one order; ``values`` tells how dark each role is (0 light to 2 dark).

    Raises ``LayoutIncomplete``, ``CannotBeSewn``, ``CountOutOfRange`` for more than 3000 seams.
    """
    wishes = wishes or Wishes()
    seams = block_seams(pattern, order)
    if len(seams) > MOST_SEAMS:
        raise CountOutOfRange(
            "A pressing map takes {most} seams at most; this block has {given}.",
            most=f"{MOST_SEAMS:,}",
            given=f"{len(seams):,}",
        )
    found = meetings(seams)
    dark = darkness(pattern, seams, values)
    # Counting layers is the hard part: it is begun at the best pressing without it.
    without = () if wishes.layers is None else _solve(pattern, seams, found, replace(wishes, layers=None), dark).pressed
    one = _solve(pattern, seams, found, wishes, dark, like=without)
    if wishes.repeats and one.edge_nested < one.edge_pairs:
        return _solve(pattern, seams, found, wishes, dark, copies=2, like=one.pressed)
    return one


def _solve(
    pattern: Pattern,
    seams: tuple[BlockSeam, ...],
    found: tuple[Meeting, ...],
    wishes: Wishes,
    dark: tuple[tuple[float, float], ...],
    copies: int = 1,
    like: Sequence[Pressed] = (),
) -> PressingMap:
    model = cp().CpModel()
    blocks = [_PressingModel(model, seams, found, wishes, dark) for _ in range(copies)]
    edges: list[tuple[Any, tuple[int, int], Any]] = []
    if wishes.repeats:
        _edges(pattern, seams, blocks, edges)
    model.minimize(sum(c for b in blocks for c in b.cost))
    for block in blocks:
        block.hint(like)
    # Only the counting of layers needs cuts: without it nearly every choice comes out whole by itself.
    answer = solve(model, _SECONDS, probing=False, cuts=wishes.layers is not None)
    maps = [tuple(_read(b, answer, k) for k in range(len(seams))) for b in blocks]
    missed = [(m, pair) for m, pair, v in blocks[0].unnested if answer.on(v)]
    first = maps[0]
    unspun = [m for m, v in blocks[0].unspun if answer.on(v)]
    return PressingMap(
        pressed=first,
        second=maps[1] if copies > 1 else (),
        crossings=found,
        nested=sum(len(m.pairs) for m in found) - len(missed),
        pairs=sum(len(m.pairs) for m in found),
        edge_nested=sum(1 for _, _, v in edges if not answer.on(v)),
        edge_pairs=len(edges),
        most_layers=max((layers_at(m, first) for m in found if not _chosen(m, wishes)), default=3 if seams else 1),
        conflicts=(*_not_spun(first, unspun), *_conflicts(first, found, missed, wishes, dark)),
        optimal=answer.optimal,
        cost=answer.objective,
        bound=answer.bound,
    )


def _edges(pattern: Pattern, seams: tuple[BlockSeam, ...], blocks: list[_PressingModel], edges: list[Any]) -> None:
    wide, high = float(pattern.width), float(pattern.height)
    for e in edge_meetings(pattern, seams):
        u = (0.0, 1.0) if e.upright else (1.0, 0.0)
        here = (wide, e.at) if e.upright else (e.at, high)
        there = (0.0, e.at) if e.upright else (e.at, 0.0)
        for n, block in enumerate(blocks):
            other = blocks[(n + 1) % len(blocks)]
            for pair in e.pairs:
                nest(block, other, pair, here, there, u, edges, None)


def _read(block: _PressingModel, answer: Any, k: int) -> Pressed:
    ways = [
        Press.LEFT if answer.on(v.left) else Press.RIGHT if answer.on(v.right) else Press.OPEN for v in block.pieces[k]
    ]
    after = tuple((_along(block, m), w) for m, w in zip(block.spun[k], ways[1:], strict=True))
    return Pressed(block.seams[k], ways[0], after)


def _not_spun(pressed: Sequence[Pressed], unspun: Iterable[Meeting]) -> Iterable[Conflict]:
    for m in unspun:
        said = Message(
            "A crossing on {seam} cannot be spun: its seams are held by others.", seam=pressed[m.on].seam.name
        )
        yield Conflict("not_spun", said, m.at)


def _conflicts(
    pressed: Sequence[Pressed],
    found: Sequence[Meeting],
    missed: Sequence[tuple[Any, tuple[int, int]]],
    wishes: Wishes,
    dark: Sequence[tuple[float, float]],
) -> Iterable[Conflict]:
    for m, (k, other) in missed:
        yield Conflict(
            "not_nested",
            Message(
                "{one} and {other} cannot nest where they meet; pin there.",
                one=_capital(pressed[k].seam.name),
                other=pressed[other].seam.name,
            ),
            m.at,
        )
    if wishes.to_dark:
        yield from _to_light(pressed, found, dark)
    for m in found:
        if wishes.layers is not None and not _chosen(m, wishes) and (layers := layers_at(m, pressed)) > wishes.layers:
            yield Conflict(
                "layers",
                Message(
                    "{layers} layers meet on {seam}, whichever way its seams go; spin them open there, or grade the allowances.",
                    layers=layers,
                    seam=pressed[m.on].seam.name,
                ),
                m.at,
            )


def _to_light(
    pressed: Sequence[Pressed], found: Sequence[Meeting], dark: Sequence[tuple[float, float]]
) -> Iterable[Conflict]:
    partners: dict[int, list[tuple[int, Meeting]]] = {}
    for m in found:
        for a, b in m.pairs:
            partners.setdefault(a, []).append((b, m))
            partners.setdefault(b, []).append((a, m))
    for k, p in enumerate(pressed):
        if not _is_light(p, dark[k]):
            continue
        rival = next(((o, m) for o, m in partners.get(k, ()) if _both_dark(pressed, dark, k, o, m)), None)
        name = p.seam.name
        if rival:
            said = Message(
                "{one} and {other} cannot both go to the dark: {name} goes to the light.",
                one=_capital(pressed[rival[0]].seam.name),
                other=name,
                name=name,
            )
        elif partners.get(k):
            said = Message(
                "{name} goes to the light, so that it nests with {other}.",
                name=_capital(name),
                other=pressed[partners[k][0][0]].seam.name,
            )
        else:
            said = Message(
                "{name} goes to the light, away from the bulk or to keep the layers few.", name=_capital(name)
            )
        yield Conflict("to_light", said, p.seam.middle)


def _is_light(p: Pressed, value: tuple[float, float]) -> bool:
    left, right = value
    return (p.way is Press.LEFT and left < right - 1e-9) or (p.way is Press.RIGHT and right < left - 1e-9)


def _both_dark(pressed: Sequence[Pressed], dark: Sequence[tuple[float, float]], k: int, other: int, m: Meeting) -> bool:
    """Whether both, pressed to their dark, would point the same way along the seam they meet on."""
    if abs(dark[other][0] - dark[other][1]) < 1e-9:
        return False
    u = pressed[m.on].seam.direction
    signs = []
    for n in (k, other):
        arrow = arrow_of(pressed[n].seam, Press.LEFT if dark[n][0] > dark[n][1] else Press.RIGHT)
        assert arrow is not None
        signs.append(arrow[0] * u[0] + arrow[1] * u[1] > 0)
    return signs[0] == signs[1]


def _capital(text: str) -> str:
    return text[:1].upper() + text[1:]


def cost_of(pattern: Pattern, order: Order, ways: Sequence[Press], values: Mapping[str, int], wishes: Wishes) -> int:
    """What a given pressing costs (no spun crossings, no repeat): the model's objective by plain counting."""
    seams = block_seams(pattern, order)
    found, dark = meetings(seams), darkness(pattern, seams, values)
    pressed = [Pressed(s, w) for s, w in zip(seams, ways, strict=True)]
    ends, total = _ends(seams, found), 0
    for k, p in enumerate(pressed):
        if p.way is Press.OPEN:
            total += _OPEN
            continue
        if wishes.to_dark and _is_light(p, dark[k]):
            total += round(_DARK * abs(dark[k][0] - dark[k][1]))
        if wishes.from_bulk:
            total += _BULK * ends[k][0 if p.way is Press.LEFT else 1]
    for m in found:
        u = seams[m.on].direction
        for a, b in m.pairs:
            signs = [0 if x.arrow is None else x.arrow[0] * u[0] + x.arrow[1] * u[1] for x in (pressed[a], pressed[b])]
            total += _NEST * (not signs[0] * signs[1] < 0)
        if wishes.layers is not None and layers_at(m, pressed) > wishes.layers:
            total += _LAYERS
    return total
