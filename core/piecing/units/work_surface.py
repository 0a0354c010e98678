"""The working surface of a method's script: sews, cuts and opens, keeps count of what was done, and writes down every act.

Pieces that several methods start from are made here too. Source: docs/theory, section 3.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterable, Mapping
from dataclasses import replace
from math import atan2, degrees, hypot

from ..geometry.plane import Line, Point, area, centroid, rectangle, rotated, sides_of
from ..geometry.sewing import Needle, Patch, Piece, Stack, joined, laid_on, oblong, square, trim, turned_over
from .acts import (
    Act,
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
    form_of,
    lies,
    turned_over_template,
)
from .method import Making

__all__ = ["WorkSurface", "half_triangle", "long_edge", "quarter_legs", "quarter_triangle"]


_SAME = 1e-6
"""Inches within which two sizes are one."""


def half_triangle(side: float, fabric: str) -> Piece:
    """Half of a square cut once on the diagonal: right angle lower right, legs on the straight grain."""
    return Piece((Patch(((0.0, 0.0), (side, 0.0), (side, side)), fabric),))


def long_edge(side: float) -> Line:
    """The long edge of that triangle, cloth on its left."""
    return Line((side, side), (0.0, 0.0))


def quarter_triangle(side: float, fabric: str) -> Piece:
    """Quarter of a square cut twice: base below and on the straight grain, apex above."""
    return Piece((Patch(((0.0, 0.0), (side, 0.0), (side / 2, side / 2)), fabric),))


def quarter_legs(side: float) -> tuple[Line, Line]:
    """Its left leg, from the apex down, and its right leg, up to the apex; cloth on the left of both."""
    apex = (side / 2, side / 2)
    return Line(apex, (0.0, 0.0)), Line((side, 0.0), apex)


_CORNERS = (Where.LOWER_LEFT, Where.LOWER_RIGHT, Where.UPPER_RIGHT, Where.UPPER_LEFT)


class WorkSurface:
    """Everything a script does goes through here, so that it can be counted, drawn and told. ``cuts`` are the sizes cut, by name."""

    def __init__(self, needle: Needle, cuts: Mapping[str, float]) -> None:
        self.needle = needle
        self._sizes = dict(cuts)
        self._sewn = 0.0
        self._seams = 0
        self._cuts = 0
        self._blades: list[Line] = []
        self.cut_off: Stack | None = None
        self._loose_bias = False
        self._moments: dict[str, Moment] = {}
        self._laid: dict[str, Act] = {}
        self._taken: dict[Bit, int] = {}
        self._results: list[tuple[tuple[object, ...], int]] = []
        self._halves: dict[int, int] = {}

    # What is written down

    def _seam_name(self, name: str, act: Act) -> str:
        """The name of a seam that is laid together so: its own, with a number when another one of that name is laid otherwise."""
        found, n = name, 1
        while self._laid.setdefault(found, act) != act:
            n += 1
            found = f"{name} {n}"
        return found

    def _note(self, verb: str, name: str, act: Act, **seen: object) -> None:
        """Writes an act down; the same act again is done once more in the same go."""
        key = f"{verb} {name}"
        known = self._moments.get(key)
        self._moments[key] = (
            replace(known, times=known.times + 1) if known else Moment(key, act, **seen)  # type: ignore[arg-type]
        )

    def _thing(self, piece: Piece, edge: Line | None = None, *, take: int = 1) -> Thing:
        """What one sees of a piece; taken from the piles if it was not made before."""
        fabrics = tuple(dict.fromkeys(f.fabric for f in piece.faces))
        along = edge_of(piece, edge) if edge else ()
        if len(piece.faces) == 1 and not piece.under:
            form, name, by = form_of(piece.faces[0], self._sizes)
            over = form is Form.TEMPLATE and turned_over_template(piece.faces[0].outline, self._sizes[name])
            bit = Bit(name, by, form, fabrics[0], over)
            self._taken[bit] = self._taken.get(bit, 0) + take
            return Thing(form, fabrics, lies(piece), bit, edge=along, long_side=_is_long(piece, edge))
        number = self._number(piece)
        return Thing(Form.PIECED, fabrics, lies(piece), number=number, edge=along, long_side=_is_long(piece, edge))

    def _number(self, piece: Piece) -> int:
        look = _look(piece)
        for known, number in self._results:
            if known == look:
                return number
        self._results.append((look, len(self._results) + 1))
        return len(self._results)

    def _out(self, pieces: Iterable[Piece]) -> tuple[tuple[Thing, int], ...]:
        found: dict[Thing, int] = {}
        for p in pieces:
            number = self._number(p)
            thing = Thing(Form.PIECED, tuple(dict.fromkeys(f.fabric for f in p.faces)), lies(p), number=number)
            same = next((t for t in found if t.number == number), thing)
            found[same] = found.get(same, 0) + 1
        return tuple(found.items())

    def _open(self, name: str, pieces: Iterable[Piece]) -> None:
        out = tuple(pieces)
        seen = tuple(dict.fromkeys(out))
        self._note("open", name, Opening(name, self._out(out)), after=seen[:2])

    # What is done

    def _count(self, stack: Stack) -> Stack:
        self._sewn += stack.sewn_length(stack.stitches[-1])
        self._seams += 1
        return stack

    def sew(self, stack: Stack, name: str, raw_edge: Line) -> Stack:
        """Sews two pieces along a raw edge, at the needle's distance from it."""
        return self._count(stack.sewn(name, raw_edge, self.needle))

    def sew_on(self, stack: Stack, name: str, line: Line) -> Stack:
        """Sews two pieces on a line drawn across them."""
        return self._count(stack.sewn_on(name, line, self.needle))

    def sew_both_sides(self, stack: Stack, name: str, line: Line) -> Stack:
        """Two seams, one each side of a line that will be cut on."""
        return self.sew(self.sew(stack, name, line), name, line.reversed())

    def cut(self, stack: Stack, along: Line) -> tuple[Stack, Stack]:
        """Cuts along a line; returns what lies left and right of it."""
        self._blades.append(along)
        self._cuts += 1
        return stack.cut(along)

    def join(
        self,
        lower: Piece,
        onto: Line,
        upper: Piece,
        edge: Line,
        name: str,
        meet: float = 0.0,
        *,
        loose: bool = False,
        crossing: bool = False,
    ) -> Piece:
        """``upper`` laid face down with its ``edge`` on the edge ``onto`` of ``lower``, sewn and opened.

        ``loose`` says that a raw bias edge is handled on the way, ``crossing`` that seams meet on the edge.
        """
        laid = laid_on(upper, edge, onto, meet)
        stack = Stack(lower, laid).sewn(name, onto, self.needle)
        self._count(stack)
        self._loose_bias = self._loose_bias or loose
        opened = joined(lower, laid, onto, name, self.needle)
        self._note_page(stack, onto, edge, meet, name, opened, crossing=crossing)
        return opened

    def _note_page(
        self, stack: Stack, onto: Line, edge: Line, meet: float, name: str, opened: Piece, *, crossing: bool
    ) -> None:
        turned, at = _upright(onto)
        lower, laid = turned(stack.lower), turned(stack.upper)
        line = Line(at(onto.start), at(onto.end))
        page = turned_over(laid, line)
        left = self._thing(lower, line)
        right = self._thing(page, line.reversed())
        lengths = onto.along(onto.end), edge.along(edge.end)
        align, beyond = _alignment(*lengths, meet)
        act = LayPage(left, right, align, beyond, crossing)
        name = self._seam_name(name, act)
        gap = max(lengths) * 0.16
        shown = Stack(lower, laid).sewn(name, line, self.needle)
        facing = (line, Line((line.end[0] + gap, line.end[1]), (line.start[0] + gap, line.start[1])))
        self._note("lay", name, act, before=(lower, page.shifted(gap, 0.0)), stack=Stack(lower, laid), edges=facing)
        stitch = shown.stitches[-1].line
        top = max((stitch.along(p) for f in laid.faces for p in f.outline), default=0.0)
        self._note(
            "sew", name, Sewing(name, Track.EDGE), stack=shown, begin=stitch.at(min(top, stitch.along(stitch.end)))
        )
        out = self._out((opened,))
        self._note("open", name, Opening(name, out), after=(turned(opened),))

    def half_square(self, side: float, lower_right: str, upper_left: str, name: str, *, loose: bool = False) -> Piece:
        """One half-square triangle out of a pair of squares, its lower left visible corner at the origin; ``loose`` out of two
        triangles."""
        a, b = half_triangle(side, lower_right), half_triangle(side, upper_left)
        edge = long_edge(side)
        if loose:
            unit = self.join(a, edge, b, edge, name).at_origin()
        else:
            laid = laid_on(b, edge, edge)
            self._count(Stack(a, laid).sewn(name, edge, self.needle))
            unit = joined(a, laid, edge, name, self.needle).at_origin()
            # Every other one fell off the pair before it.
            number = self._number(unit)
            self._halves[number] = self._halves.get(number, 0) ^ 1
            if self._halves[number]:
                diagonal = Line((0.0, 0.0), (side, side))
                stack = Stack(square(side, lower_right), turned_over(square(side, upper_left), diagonal))
                self._note_pair(stack, name, diagonal)
        self._cuts += 1
        return unit

    def trimmed(self, unit: Piece, side: float) -> Piece:
        """Trimmed to a square about its middle, lower left corner at the origin."""
        left, bottom, right, top = unit.extent
        box = rectangle(side, side, ((left + right - side) / 2, (bottom + top - side) / 2))
        done = trim(unit, *sides_of(box))[0].at_origin()
        self._note_trim(unit, done, right - left, side, sides_of(box))
        return done

    def _note_trim(self, unit: Piece, done: Piece, raw: float, side: float, blades: tuple[Line, ...]) -> None:
        number = self._number(unit)
        key = f"between {'' if number == 1 else number}".strip()
        if f"trim {key}" not in self._moments:
            act = TrimSquare(self._thing(unit), raw, side, self._number(done))
            self._note("trim", key, act, before=(unit,), blades=blades, after=(done,))

    def sew_pair(
        self, lower: Piece, upper: Piece, name: str, across: Line, *, over_seam: bool = False
    ) -> tuple[Piece, Piece]:
        """Two squares (pieced or plain) right sides together, sewn both sides of a diagonal, cut on it and opened."""
        stack = self.sew_both_sides(Stack(lower, turned_over(upper, across)), name, across)
        left, right = self.cut(stack, across)
        self._note_pair(Stack(lower, turned_over(upper, across)), name, across, over_seam=over_seam)
        return left.opened(), right.opened()

    def _note_pair(self, stack: Stack, name: str, across: Line, *, over_seam: bool = False) -> None:
        for p in (stack.lower, stack.upper):
            if len(p.faces) > 1 and not any(m.key.startswith("trim") for m in self._moments.values()):
                left, _, right, _ = p.extent
                thing = Thing(Form.PIECED, tuple(dict.fromkeys(f.fabric for f in p.faces)), number=self._number(p))
                key = f"between {'' if thing.number == 1 else thing.number}".strip()
                if f"measure {key}" not in self._moments:
                    self._note("measure", key, TrimSquare(thing, right - left, None), before=(p,))
        lower, upper = self._thing(stack.lower), self._thing(stack.upper)
        which, act = _which(across), LayStack(lower, upper, lower.pieced and upper.pieced)
        name = self._seam_name(name, act)
        # The line is drawn on the layer that lies on top.
        self._note("mark", name, MarkLines(upper, which, over_seam), before=(stack.upper,), drawn=(across,))
        self._note("lay", name, act, stack=stack, drawn=(across,))
        sewn = stack.sewn(name, across, self.needle).sewn(name, across.reversed(), self.needle)
        self._note("sew", name, Sewing(name, Track.BESIDE, which), stack=sewn, drawn=(across,), begin=across.start)
        self._note("cut", name, Apart(Cutting.LINE, which), stack=sewn, blades=(across,))
        self._open(name, (half.opened() for half in sewn.cut(across)))

    def stack(
        self, lower: Piece, upper: Piece, name: str, which: Which, drawn: tuple[Line, ...], *, mark: bool = True
    ) -> Stack:
        """Two squares right sides together, for scripts that sew and cut them in ways of their own; ``drawn`` on the upper one."""
        stack = Stack(lower, upper)
        one, other = self._thing(lower), self._thing(upper)
        if mark:
            self._note("mark", name, MarkLines(other, which), before=(upper,), drawn=drawn)
        self._note("lay", name, LayStack(one, other), stack=stack, drawn=drawn if mark else ())
        return stack

    def sewn_apart(
        self, stack: Stack, name: str, sewing: Sewing, apart: Apart, blades: tuple[Line, ...], out: Iterable[Piece]
    ) -> None:
        """Writes down how such a stack was sewn and cut apart, and what came of it."""
        drawn = () if sewing.how is Track.ROUND else blades[-2:]
        self._note("sew", name, sewing, stack=stack, drawn=drawn, begin=stack.stitches[0].line.start)
        self._note("cut", name, apart, stack=stack, blades=blades)
        self._open(name, out)

    def on_corners(
        self, base: Piece, small: float, fabric: str, at: tuple[Where, ...], name: str, line: Line
    ) -> tuple[Piece, Piece]:
        """Squares of ``small`` inches laid on corners of a piece, sewn both sides of the diagonal ``line``, cut on it, opened."""
        left, bottom, right, top = base.extent
        place = {
            Where.LOWER_LEFT: (left, bottom),
            Where.LOWER_RIGHT: (right - small, bottom),
            Where.UPPER_RIGHT: (right - small, top - small),
            Where.UPPER_LEFT: (left, top - small),
        }
        laid = Piece(tuple(f for w in at for f in square(small, fabric).shifted(*place[w]).faces))
        bare = Stack(base, laid)
        stack = self.sew_both_sides(bare, name, line)
        one = square(small, fabric)
        upper, which = self._thing(one, take=len(at)), _which(line)
        act = LayCorner(self._thing(base), upper, at)
        name = self._seam_name(name, act)
        self._note("mark", name, MarkLines(upper, which), before=(one,), drawn=(_diagonal(one, which),))
        self._note("lay", name, act, stack=bare, drawn=(line,))
        self._note("sew", name, Sewing(name, Track.BESIDE, which), stack=stack, drawn=(line,), begin=line.start)
        self._note("cut", name, Apart(Cutting.LINE, which), stack=stack, blades=(line,))
        halves = tuple(half.opened() for half in self.cut(stack, line))
        self._open(name, halves)
        return halves[0], halves[1]

    def flipped(self, piece: Piece, corner: int, size: float, fabric: str, allowance: float, name: str) -> Piece:
        """A square of ``size`` sewn on its diagonal over a corner, cut off outside the seam and folded over.

        Corners are counted from the lower left, anticlockwise.
        """
        left, bottom, right, top = piece.extent
        at: Point = ((left, right - size, right - size, left)[corner], (bottom, bottom, top - size, top - size)[corner])
        x, y = at
        ends = (
            ((x, y + size), (x + size, y)),
            ((x, y), (x + size, y + size)),
            ((x + size, y), (x, y + size)),
            ((x + size, y + size), (x, y)),
        )[corner]
        line = Line(*ends)
        cover = square(size, fabric).shifted(x, y)
        over = Line((x + size / 2, y), (x + size / 2, y + size))
        bare = Stack(piece, turned_over(cover, over))
        stack = self.sew_on(bare, name, line)
        blade = line.shifted(-allowance)
        which = _which(line)
        upper, act = self._thing(cover), LayCorner(self._thing(piece), self._thing(cover, take=0), (_CORNERS[corner],))
        name = self._seam_name(name, act)
        self._note("mark", name, MarkLines(upper, which), before=(cover,), drawn=(line,))
        self._note("lay", name, act, stack=bare, drawn=(line,))
        sewing = Sewing(name, Track.ON, which, _CORNERS[corner])
        self._note("sew", name, sewing, stack=stack, drawn=(line,), begin=line.start)
        self._note("cut", name, Apart(Cutting.OFF, which), stack=stack, blades=(blade,))
        kept, self.cut_off = self.cut(stack, blade)
        opened = kept.opened(stack.stitches[-1].name)
        self._open(name, (opened,))
        return opened

    def strips(self, one: str, other: str, side: float, name: str) -> Piece:
        """Two strips joined along their long edges and cut across at their own width: a row of two squares."""
        right, left = Line((side, 0.0), (side, side)), Line((0.0, side), (0.0, 0.0))
        lower, upper = square(side, one), square(side, other)
        laid = laid_on(upper, left, right)
        self._count(Stack(lower, laid).sewn(name, right, self.needle))
        row = joined(lower, laid, right, name, self.needle)
        long = side * 4
        edge = Line((side, 0.0), (side, long))
        a, b = oblong(side, long, one), oblong(side, long, other).shifted(side, 0.0)
        # Strips are as long as many rows take: only their width is cut to a size.
        bits = [Bit("square", "", Form.STRIP, f) for f in (one, other)]
        for bit in bits:
            self._taken[bit] = self._taken.get(bit, 0) + 1
        things = [
            Thing(Form.STRIP, (f,), lies(p), bit, edge=(f,), long_side=True)
            for f, p, bit in zip((one, other), (a, b), bits, strict=True)
        ]
        bare = Stack(a, turned_over(b, edge))
        stack = bare.sewn(name, edge, self.needle)
        lay = LayPage(things[0], things[1], Align.ENDS)
        name = self._seam_name(name, lay)
        self._note(
            "lay",
            name,
            lay,
            before=(a, b.shifted(side * 0.4, 0.0)),
            stack=bare,
            edges=(edge, Line((edge.end[0] + side * 0.4, long), (edge.start[0] + side * 0.4, 0.0))),
        )
        self._note("sew", name, Sewing(name, Track.EDGE), stack=stack, begin=stack.stitches[0].line.end)
        whole = stack.opened()
        self._note("open", name, Opening(name, self._out((whole,))), after=(whole,))
        ticks = tuple(Line((0.0, side * n), (side * 2, side * n)) for n in range(1, 4))
        self._note(
            "cut",
            name,
            Apart(Cutting.ACROSS, thing=self._thing(whole), into=self._number(row)),
            before=(whole,),
            blades=ticks,
        )
        return row

    def trued(self, piece: Piece, edge: Line, name: str) -> Piece:
        """An edge cut straight, an allowance beyond the inner corner."""
        kept, _ = piece.cut(edge)
        self._note(
            "cut",
            name,
            Apart(Cutting.TRUE, thing=self._thing(piece), into=self._number(kept)),
            before=(piece,),
            blades=(edge,),
        )
        return kept

    def spare(self) -> Piece:
        """The pair just cut off a flipped corner, sewn again an allowance from its cut: a small half-square triangle."""
        assert self.cut_off is not None
        raw_edge = self._blades[-1].reversed()
        return Stack(self.cut_off.lower, self.cut_off.upper).sewn("spare", raw_edge, self.needle).opened()

    def making(self, *units: Piece) -> Making:
        """What came of it, with every act on the way."""
        for u in units:
            if len(u.faces) == 1:
                self._thing(u)
        take = Moment("take", Take(tuple(self._taken.items())), before=tuple(self._pieces()))
        return Making(
            tuple(units), (take, *self._moments.values()), self._sewn, self._seams, self._cuts, self._loose_bias
        )

    def _pieces(self) -> Iterable[Piece]:
        """The bits taken, each once, side by side."""
        x, gap = 0.0, max(self._sizes.values(), default=1.0) * 0.08
        for bit in self._taken:
            piece = piece_of(bit, self._sizes)
            _, _, right, _ = piece.extent
            yield piece.shifted(x, 0.0)
            x += right + gap


def piece_of(bit: Bit, sizes: Mapping[str, float]) -> Piece:
    """A bit of cloth as it comes from its pile."""
    side = sizes[bit.name]
    match bit.form:
        case Form.HALF:
            return half_triangle(side, bit.fabric)
        case Form.QUARTER:
            return quarter_triangle(side, bit.fabric)
        case Form.STRIP if not bit.by:
            return oblong(side * 4, side, bit.fabric)
        case Form.TEMPLATE:
            high = sizes[bit.by]
            top = (side / 2, high) if bit.name.startswith("goose") else (0.0 if bit.mirrored else side, high)
            return Piece((Patch(((0.0, 0.0), (side, 0.0), top), bit.fabric),))
    return oblong(side, sizes[bit.by] if bit.by else side, bit.fabric)


def edge_of(piece: Piece, line: Line) -> tuple[str, ...]:
    """The fabrics that one sees along an edge."""
    found: dict[str, None] = {}
    for f in piece.faces:
        on = [line.along(p) for p in f.outline if abs(line.side(p)) < _SAME]
        if len(on) > 1 and max(on) - min(on) > _SAME:
            found.setdefault(f.fabric)
    return tuple(found)


def _is_long(piece: Piece, edge: Line | None) -> bool:
    if edge is None:
        return False
    if len(piece.faces) > 1:
        points = [p for f in piece.faces for p in f.outline]
        farthest = max(hypot(a[0] - b[0], a[1] - b[1]) for a in points for b in points)
        on = [edge.along(p) for p in points if abs(edge.side(p)) < _SAME]
        return bool(on) and max(on) - min(on) > farthest - _SAME
    lengths = [s.along(s.end) for s in sides_of(piece.faces[0].outline)]
    on = [edge.along(p) for p in piece.faces[0].outline if abs(edge.side(p)) < _SAME]
    return max(lengths) - min(lengths) > _SAME and bool(on) and max(on) - min(on) > max(lengths) - _SAME


def _look(piece: Piece) -> tuple[object, ...]:
    """What stays of a piece however it is shifted or turned, and not when it is turned over."""
    middles = [(f.fabric, round(area(f.outline), 4), centroid(f.outline)) for f in piece.faces]
    x = sum(m[2][0] for m in middles) / len(middles)
    y = sum(m[2][1] for m in middles) / len(middles)
    faces = sorted((f, a, round((p[0] - x) ** 2 + (p[1] - y) ** 2, 4)) for f, a, p in middles)
    # Which way round the faces follow: the sum of cross products of their middles, taken in the order of the list.
    ordered = sorted(middles, key=lambda m: (m[0], m[1], round((m[2][0] - x) ** 2 + (m[2][1] - y) ** 2, 4)))
    around = sum((a[2][0] - x) * (b[2][1] - y) - (a[2][1] - y) * (b[2][0] - x) for a, b in itertools.pairwise(ordered))
    return (tuple(faces), round(around, 3))


def _alignment(onto: float, edge: float, meet: float) -> tuple[Align, float]:
    if abs(meet) < _SAME and abs(onto - edge) < _SAME:
        return Align.ENDS, 0.0
    if abs(meet - (onto - edge) / 2) < _SAME:
        return Align.MIDDLES, 0.0
    if abs(meet) < _SAME:
        return Align.LOWER, 0.0
    if abs(meet + edge - onto) < _SAME:
        return Align.UPPER, 0.0
    return Align.BEYOND, -meet


def _which(line: Line) -> Which:
    dx, dy = line.direction
    return Which.RISING if dx * dy > 0 else Which.FALLING


def _diagonal(piece: Piece, which: Which) -> Line:
    left, bottom, right, top = piece.extent
    return Line((left, bottom), (right, top)) if which is Which.RISING else Line((left, top), (right, bottom))


def _upright(onto: Line):  # type: ignore[no-untyped-def]
    """Turns the table so that an edge stands upright, cloth on its left."""
    dx, dy = onto.direction
    turn = 90 - degrees(atan2(dy, dx))

    def at(p: Point) -> Point:
        return rotated(p, turn)

    return (lambda piece: piece.mapped(at)), at
