"""Someone who has never made the unit and does what the acts say, word for word, with scissors and needle of the engine.

Knows shapes, directions and edges; no method, no size but those on the piles, and nothing of how the acts came about.
"""

from __future__ import annotations

import itertools
from collections import defaultdict
from collections.abc import Iterator, Mapping
from math import atan2, degrees, hypot

from piecing.geometry.plane import Line, Point, area, meeting, rectangle, rotated, sides_of
from piecing.geometry.sewing import Needle, Patch, Piece, Stack, laid_on, trim, turned_over
from piecing.units.acts import (
    Align,
    Apart,
    Bit,
    Cutting,
    Form,
    LayCorner,
    LayPage,
    LayStack,
    MarkLines,
    Moment,
    Opening,
    Sewing,
    Take,
    Thing,
    Track,
    TrimSquare,
    Where,
    Which,
)

__all__ = ["follow", "squared"]

_NEAR = 1e-5
_WHERES = list(Where)


def _compass(dx: float, dy: float) -> str:
    return str(_WHERES[round(degrees(atan2(dy, dx)) / 45) % 8])


def cloth(bit: Bit, sizes: Mapping[str, float]) -> Piece:
    """Cut as the pile's label says."""
    a = sizes[bit.name]
    match bit.form:
        case Form.HALF:
            outline = ((0.0, 0.0), (a, 0.0), (0.0, a))
        case Form.QUARTER:
            outline = ((0.0, a / 2), (a / 2, 0.0), (a, a / 2))
        case Form.TEMPLATE:
            b = sizes[bit.by]
            outline = ((0.0, 0.0), (a, 0.0), (a / 2 if "goose" in bit.name else 0.0 if bit.mirrored else a, b))
        case Form.STRIP if not bit.by:
            outline = rectangle(a, 6 * a)
        case _:
            outline = rectangle(a, sizes[bit.by] if bit.by else a)
    return Piece((Patch(outline, bit.fabric),))


def _middle(piece: Piece, fabric: str = "") -> Point:
    total = x = y = 0.0
    for f in piece.faces:
        if fabric and f.fabric != fabric:
            continue
        o = f.outline
        for p, q in itertools.pairwise(o):
            part = area((o[0], p, q))
            total, x, y = total + part, x + part * (o[0][0] + p[0] + q[0]) / 3, y + part * (o[0][1] + p[1] + q[1]) / 3
    return x / total, y / total


def _fits(piece: Piece, told: tuple[tuple[str, str], ...]) -> bool:
    """Whether it lies as it is told to lie."""
    cx, cy = _middle(piece)
    for what, where in told:
        if what in ("right angle", "tip"):
            outline = piece.faces[0].outline
            longest = max(sides_of(outline), key=lambda s: hypot(s.end[0] - s.start[0], s.end[1] - s.start[1]))
            x, y = max(outline, key=longest.side)
        elif what == "long side":
            left, bottom, right, top = piece.extent
            if where != ("top" if top - bottom > right - left else "right"):
                return False
            continue
        elif what == "corner":
            x, y = max(piece.faces[0].outline, key=lambda p: p[1])
        else:
            x, y = _middle(piece, what)
        if _compass(x - cx, y - cy) != where:
            return False
    return True


def _edges(piece: Piece) -> Iterator[Line]:
    """Its outer edges, cloth on their left; those of several fabrics in one."""
    sides = [s for f in piece.faces for s in sides_of(f.outline)]
    for s in sides:
        inner = any(
            abs(s.side(t.start)) < _NEAR and abs(s.side(t.end)) < _NEAR and _opposite(s, t) and _overlap(s, t)
            for t in sides
        )
        if inner:
            continue
        same = [t for t in sides if abs(s.side(t.start)) < _NEAR and abs(s.side(t.end)) < _NEAR and not _opposite(s, t)]
        along = [s.along(p) for t in same for p in (t.start, t.end)]
        yield Line(s.at(min(along)), s.at(max(along)))


def _opposite(s: Line, t: Line) -> bool:
    (a, b), (c, d) = s.direction, t.direction
    return a * c + b * d < 0


def _overlap(s: Line, t: Line) -> bool:
    low, high = sorted((s.along(t.start), s.along(t.end)))
    return min(high, s.along(s.end)) - max(low, 0.0) > _NEAR


def _stood(piece: Piece, thing: Thing, *, on_right: bool) -> tuple[Piece, Line]:
    """Turned so that the edge to sew stands upright on the side told, lying as told."""
    found: dict[tuple[float, ...], tuple[Piece, Line]] = {}
    for e in _edges(piece):
        dx, dy = e.direction
        turn = (90 if on_right else -90) - degrees(atan2(dy, dx))
        lying = piece.mapped(lambda p, turn=turn: rotated(p, turn))  # type: ignore[misc]
        edge = Line(rotated(e.start, turn), rotated(e.end, turn))
        shown = {f.fabric for f in lying.faces for s in sides_of(f.outline) if _on(edge, s)}
        if shown == set(thing.edge) and _fits(lying, thing.lies) and _longest(piece, e) >= thing.long_side:
            key = tuple(
                sorted(
                    (round(x, 3), round(y, 3))
                    for f in lying.shifted(-edge.start[0], -edge.start[1]).faces
                    for x, y in f.outline
                )
            )  # type: ignore[assignment]
            found.setdefault(key, (lying, edge))
    if len(found) != 1:
        raise AssertionError(f"{len(found)} ways to lay {thing}")
    return next(iter(found.values()))


def _on(edge: Line, s: Line) -> bool:
    return abs(edge.side(s.start)) < _NEAR and abs(edge.side(s.end)) < _NEAR and not _opposite(edge, s)


def _longest(piece: Piece, e: Line) -> bool:
    lengths = [x.along(x.end) for x in _edges(piece)]
    return e.along(e.end) > max(lengths) - _NEAR and max(lengths) - min(lengths) > _NEAR


def squared(piece: Piece) -> list[Piece]:
    """Turned until its edges lie level and upright, four ways: of the turns that lay an edge level, the one it takes least room in."""

    def room(p: Piece) -> float:
        left, bottom, right, top = p.extent
        return (right - left) * (top - bottom)

    best = min(_level(piece), key=room)
    return [best.turned(t).at_origin() for t in (0, 90, 180, 270)]


def _level(piece: Piece) -> list[Piece]:
    """Turned by less than a quarter until one of its edges lies level, every way there is."""
    turns = {round(-degrees(atan2(e.direction[1], e.direction[0])) % 90, 6) % 90 for e in _edges(piece)}
    return [piece.turned(t) for t in sorted(turns)]


class _Hands:
    def __init__(self, sizes: Mapping[str, float], allowance: float, needle: Needle) -> None:
        self.sizes, self.allowance, self.needle = sizes, allowance, needle
        self.piles: dict[Bit, int] = defaultdict(int)
        self.made: dict[int, list[Piece]] = defaultdict(list)
        self.stack: Stack | None = None
        self.parts: list[Stack] = []
        self.last: list[Piece] = []

    def take(self, thing: Thing, *, keep: bool = False) -> Piece:
        if thing.bit is not None:
            if not keep:
                self.piles[thing.bit] -= 1
                assert self.piles[thing.bit] >= 0, f"no {thing.bit} left"
            return cloth(thing.bit, self.sizes)
        assert self.made[thing.number], f"there is no {thing}"
        return self.made[thing.number][-1] if keep else self.made[thing.number].pop()

    def square_to(self, piece: Piece, thing: Thing, *, face_down: bool = False) -> Piece:
        """Lying square, as told; face down it is seen from the back."""
        found = []
        for lying in (q for p in _level(piece) for q in (p.turned(t).at_origin() for t in (0, 90, 180, 270))):
            if face_down:
                left, bottom, right, top = lying.extent
                lying = turned_over(lying, Line(((left + right) / 2, bottom), ((left + right) / 2, top)))
            if _fits(lying, thing.lies):
                found.append(lying)
        alike = {
            tuple(sorted((f.fabric, *sorted((round(x, 3), round(y, 3)) for x, y in f.outline)) for f in p.faces))
            for p in found
        }
        assert len(alike) == 1, f"{len(alike)} ways to lay {thing}"
        return found[0]

    def stacked(self, act: LayStack) -> None:
        lower = self.square_to(self.take(act.lower), act.lower)
        upper = self.square_to(self.take(act.upper), act.upper, face_down=True)
        self.stack = Stack(lower, upper)

    def page(self, act: LayPage) -> None:
        left, onto = _stood(self.take(act.left), act.left, on_right=True)
        right, edge = _stood(self.take(act.right), act.right, on_right=False)
        a, b = onto.along(onto.end), edge.along(edge.end)
        low = {
            Align.ENDS: (a - b) / 2,
            Align.MIDDLES: (a - b) / 2,
            Align.LOWER: 0.0,
            Align.UPPER: a - b,
            Align.BEYOND: -act.beyond,
        }[act.align]
        self.stack, self.edge = Stack(left, laid_on(right, edge, onto, low)), onto

    def corner(self, act: LayCorner) -> None:
        base = self.take(act.lower)
        if act.lower.lies:
            base = self.square_to(base, act.lower)
        left, bottom, right, top = base.extent
        faces = []
        for at in act.at:
            one = self.take(act.upper)
            size = one.extent[2]
            x = left if "left" in at else right - size
            y = bottom if "lower" in at else top - size
            faces += one.shifted(x, y).faces
        self.stack = Stack(base, Piece(tuple(faces)))

    def _diagonals(self, which: Which) -> list[Line]:
        """Of the upper piece, where the line was drawn."""
        assert self.stack is not None
        left, bottom, right, top = self.stack.upper.extent
        rising, falling = Line((left, bottom), (right, top)), Line((left, top), (right, bottom))
        return {Which.RISING: [rising], Which.FALLING: [falling], Which.BOTH: [rising, falling]}[which]

    def sew(self, act: Sewing) -> None:
        stack = self.stack
        assert stack is not None
        match act.how:
            case Track.EDGE:
                stack = stack.sewn(act.name, self.edge, self.needle)
            case Track.ROUND:
                left, bottom, right, top = stack.lower.extent
                for n, side in enumerate(sides_of(rectangle(right - left, top - bottom, (left, bottom)))):
                    stack = stack.sewn(f"{act.name} {n}", side, self.needle)
            case Track.BESIDE:
                for n, line in enumerate(self._diagonals(act.which or Which.RISING)):
                    for way in (line, line.reversed()):
                        stack = stack.sewn(f"{act.name} {n}", way, self.needle)
            case Track.ON:
                line = self._diagonals(act.which or Which.RISING)[0]
                left, bottom, right, top = stack.upper.extent
                x = left if "left" in str(act.outside) else right
                y = bottom if "lower" in str(act.outside) else top
                # The corner that is cut off lies on the right of the line.
                self.line = line if line.side((x, y)) < 0 else line.reversed()
                stack = stack.sewn_on(act.name, self.line, self.needle)
        self.stack = stack

    def apart(self, act: Apart) -> None:
        if act.how in (Cutting.ACROSS, Cutting.TRUE):
            assert act.thing is not None
            piece = self.made[act.thing.number].pop()
            self.made[act.into].append(
                self._across(piece) if act.how is Cutting.ACROSS else self._trued(self.square_to(piece, act.thing))
            )
            return
        stack = self.stack
        assert stack is not None
        left, bottom, right, top = stack.lower.extent
        rising, falling = Line((left, bottom), (right, top)), Line((left, top), (right, bottom))
        match act.how:
            case Cutting.LINE:
                self.parts = list(stack.cut(self._diagonals(act.which or Which.RISING)[0]))
            case Cutting.BOTH:
                self.parts = [q for h in stack.cut(rising) for q in h.cut(falling)]
            case Cutting.EIGHT:
                x, y = (left + right) / 2, (bottom + top) / 2
                quarters = [
                    q for h in stack.cut(Line((x, bottom), (x, top))) for q in h.cut(Line((left, y), (right, y)))
                ]
                for q in quarters:
                    (a, b) = _middle(q.lower)
                    own = rising if (a < x) == (b < y) else falling
                    self.parts += q.cut(own)
            case Cutting.OFF:
                self.parts = [stack.cut(self.line.shifted(-self.allowance))[0]]

    def _across(self, piece: Piece) -> Piece:
        """From the end of the strips, as wide as one strip is cut."""
        lying = piece.at_origin()
        _, _, _, top = lying.extent
        side = self.sizes["square"]
        return trim(lying, Line((0.0, top - side), (1.0, top - side)))[0]

    def _trued(self, piece: Piece) -> Piece:
        """Straight across, an allowance beyond the inner corner, square to the line from corner to corner."""
        left, bottom, _, _ = piece.extent
        level = next(s.line for s in reversed(piece.seams) if abs(s.start[1] - s.end[1]) < _NEAR)
        upright = next(s.line for s in reversed(piece.seams) if abs(s.start[0] - s.end[0]) < _NEAR)
        inner = meeting(level, upright)
        reach = inner[0] - left + inner[1] - bottom + self.allowance * 2**0.5
        return trim(piece, Line((left + reach, bottom), (left, bottom + reach)))[0]

    def open(self, act: Opening) -> None:
        assert self.stack is not None
        parts = self.parts or [self.stack]
        opened = [p.opened(max(p.stitches, key=p.sewn_length).name) for p in parts]
        assert len(opened) == sum(n for _, n in act.out), f"{len(opened)} came out, {act.out} were told"
        for piece in opened:
            number = next(
                (t.number for t, _ in act.out if len(act.out) == 1 or self._alike(piece, t, opened, act)), None
            )
            assert number is not None
            self.made[number].append(piece)
        self.last, self.parts, self.stack = opened, [], None

    def _alike(self, piece: Piece, thing: Thing, opened: list[Piece], act: Opening) -> bool:
        """Of two that are mirrored the first told is the one on the left of the cut."""
        return [t for t, _ in act.out].index(thing) == opened.index(piece) % len(act.out)

    def trim(self, act: TrimSquare) -> None:
        pieces = self.made[act.thing.number]
        assert pieces
        for p in pieces:
            left, bottom, right, top = squared(p)[0].extent
            assert abs(right - left - act.raw) < 1e-6, "it does not measure what the step says"
        if act.side is None:
            return
        done = []
        for p in (squared(p)[0] for p in pieces):
            left, bottom, right, top = p.extent
            box = rectangle(act.side, act.side, ((left + right - act.side) / 2, (bottom + top - act.side) / 2))
            done.append(trim(p, *sides_of(box))[0].at_origin())
        self.made[act.into] += done
        pieces.clear()


def follow(moments: tuple[Moment, ...], sizes: Mapping[str, float], allowance: float, needle: Needle) -> list[Piece]:
    """Does one go, act after act; what comes of the last one. Each act as often as it says, seam by seam."""
    hands = _Hands(sizes, allowance, needle)
    groups: list[list[Moment]] = []
    for m in moments:
        seam = m.key.split(" ", 1)[-1]
        if groups and groups[-1][0].key.split(" ", 1)[-1] == seam:
            groups[-1].append(m)
        else:
            groups.append([m])
    for group in groups:
        for time in range(max(m.times for m in group)):
            for m in group:
                if time < m.times:
                    _do(hands, m)
    out = [p for pieces in hands.made.values() for p in pieces]
    if not out:
        # Nothing is sewn: the pieces as they were cut.
        return [cloth(bit, sizes) for bit, n in hands.piles.items() for _ in range(n)]
    assert not any(hands.piles.values()), f"left on the piles: {dict(hands.piles)}"
    return out


def _do(hands: _Hands, m: Moment) -> None:
    match m.act:
        case Take():
            for bit, n in m.act.bits:
                hands.piles[bit] += n
        case MarkLines():
            hands.take(m.act.on, keep=True)
        case LayStack():
            hands.stacked(m.act)
        case LayPage():
            hands.page(m.act)
        case LayCorner():
            hands.corner(m.act)
        case Sewing():
            hands.sew(m.act)
        case Apart():
            hands.apart(m.act)
        case Opening():
            hands.open(m.act)
        case TrimSquare():
            hands.trim(m.act)
