"""What lies on the table at each act, front and back, and what it looks like when it went wrong: all from the engine.

Source: docs/theory, section 3.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import atan2, degrees

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, bounds, rotated, sides_of, stretch_inside
from ..geometry.sewing import Piece, SewnSeam, Stack, Stitch, laid_on, turned_over
from ..lengths import Length
from ..messages import Message
from ..units.acts import LayCorner, LayPage, LayStack, MarkLines, Moment, Track

__all__ = ["Wrong", "act_back", "act_front", "wrong_ways"]

_PAD = 0.1
_LAP = 0.025
"""How far the upper layer is drawn off the lower one, as a share of the window, so that both are seen."""


@dataclass(frozen=True, slots=True)
class Wrong:
    """A way to go wrong: ``code`` is wrong_sides, turned, other_line or other_hand; ``before`` it is sewn, and ``after``."""

    code: str
    before: Drawing | None
    after: Drawing


def act_front(m: Moment, alt: Message, size: Length | None = None) -> Drawing:
    """The table at an act, seen from above."""
    if isinstance(m.act, MarkLines):
        return _marking_drawing(m, alt, size)
    if isinstance(m.act, LayPage) and m.before:
        return _page(m.before, m.edges, alt)
    if m.stack is not None:
        return _stack(m.stack, alt, drawn=m.drawn, blades=m.blades, begin=m.begin, size=size)
    return _pieces(m.after or m.before, alt, blades=() if m.after and m.act is not None else m.blades, size=size)


def act_back(m: Moment, alt: Message) -> Drawing | None:
    """The same turned over, where that shows something: the lower layer, or where the allowances lie."""
    if m.stack is not None and m.stack.stitches and not m.blades:
        left, bottom, right, top = _extent((m.stack.lower, m.stack.upper))
        over = Line(((left + right) / 2, bottom), ((left + right) / 2, top))
        back = Stack(turned_over(m.stack.upper, over), turned_over(m.stack.lower, over))
        lines = tuple(
            Stitch(s.name, Line(over.mirror(s.line.start), over.mirror(s.line.end)), s.fold) for s in m.stack.stitches
        )
        return _stack(Stack(back.lower, back.upper, lines), alt)
    if m.after and m.after[0].seams:
        return _backs(m.after, alt)
    return None


def _extent(pieces: Iterable[Piece]) -> tuple[float, float, float, float]:
    return bounds(p.outline for q in pieces for p in q.faces)


def _window(pieces: Iterable[Piece]) -> tuple[float, float, float, float]:
    left, bottom, right, top = _extent(pieces)
    pad = max(right - left, top - bottom) * _PAD
    return left - pad, bottom - pad, right + pad, top + pad


def _dimension(sketch: Sketch, box: tuple[float, float, float, float], size: Length | None) -> tuple[float, ...]:
    left, bottom, right, top = box
    if size is None:
        return box
    pad = (right - left) * 0.08
    y = bottom - pad * 0.2
    inner = (right - left) * _PAD / (1 + 2 * _PAD)
    sketch.dimension((left + inner, y), (right - inner, y), ((left + right) / 2, y), Message("{size}", size=size))
    return left, bottom - pad * 1.4, right, top


def _pieces(
    pieces: tuple[Piece, ...], alt: Message, blades: tuple[Line, ...] = (), size: Length | None = None
) -> Drawing:
    sketch = Sketch()
    shown = _side_by_side(pieces)
    for p in shown:
        sketch.piece(p)
    box = _window(shown)
    for b in blades:
        _across(sketch, "blade", b, box)
    return sketch.to_drawing(_dimension(sketch, box, size), alt)  # type: ignore[arg-type]


def _side_by_side(pieces: tuple[Piece, ...]) -> tuple[Piece, ...]:
    """Pieces that would lie over each other, one beside the next."""
    placed: list[Piece] = []
    for p in pieces:
        if placed:
            left, bottom, right, top = _extent(placed)
            x1, y1, x2, y2 = p.extent
            if x1 < right and x2 > left and y1 < top and y2 > bottom:
                p = p.shifted(right - x1 + (right - left) * 0.08, (bottom + top - y1 - y2) / 2)
        placed.append(p)
    return tuple(placed)


def _backs(pieces: tuple[Piece, ...], alt: Message) -> Drawing:
    turned = []
    for p in _side_by_side(pieces):
        left, bottom, right, top = p.extent
        turned.append(turned_over(p, Line(((left + right) / 2, bottom), ((left + right) / 2, top))))
    sketch = Sketch()
    for p in turned:
        _back(sketch, p)
    return sketch.to_drawing(_window(turned), alt)


def _back(sketch: Sketch, p: Piece) -> None:
    for f in p.faces:
        sketch.polygon("back", f.outline, f.fabric)
    for f in p.under:
        sketch.polygon("under", f.outline, f.fabric)


def _marking_drawing(m: Moment, alt: Message, size: Length | None) -> Drawing:
    sketch, piece = Sketch(), m.before[0]
    for f in piece.faces:
        sketch.polygon("back", f.outline, f.fabric)
    box = _window((piece,))
    for line in m.drawn:
        _across(sketch, "mark", line, _extent((piece,)))
    return sketch.to_drawing(_dimension(sketch, box, size), alt)  # type: ignore[arg-type]


def _page(pieces: tuple[Piece, ...], edges: tuple[Line, ...], alt: Message) -> Drawing:
    """Left and right side by side; the edges that are sewn to each other are lined."""
    sketch = Sketch()
    for piece in pieces:
        sketch.piece(piece)
    for piece, edge in zip(pieces, edges, strict=True):
        on = _on(piece, edge)
        if on:
            sketch.line("fresh", on.start, on.end)
    return sketch.to_drawing(_window(pieces), alt)


def _on(piece: Piece, edge: Line) -> Line | None:
    """The stretch of an edge where cloth of the piece lies along it."""
    on = [edge.along(p) for f in piece.faces for p in f.outline if abs(edge.side(p)) < 1e-6]
    return Line(edge.at(min(on)), edge.at(max(on))) if len(on) > 1 and max(on) - min(on) > 1e-6 else None


def _stack(
    stack: Stack,
    alt: Message,
    *,
    drawn: tuple[Line, ...] = (),
    blades: tuple[Line, ...] = (),
    begin: Point | None = None,
    size: Length | None = None,
    face_up: bool = False,
) -> Drawing:
    left, bottom, right, top = _extent((stack.lower, stack.upper))
    lap = max(right - left, top - bottom) * _LAP

    def off(p: Point) -> Point:
        return p[0] - lap, p[1] - lap

    sketch = Sketch().piece(stack.lower)
    for patch in stack.upper.faces:
        sketch.polygon("face" if face_up else "back", tuple(off(p) for p in patch.outline), patch.fabric)
    cover = bounds(p.outline for p in stack.upper.faces)
    for line in drawn:
        inside = _inside(line, cover)
        if inside:
            sketch.line("mark", off(inside[0]), off(inside[1]))
    for stitch in stack.stitches:
        for patch in stack.upper.faces:
            stretch = stretch_inside(stitch.line, patch.outline)
            if stretch:
                sketch.line("stitch", off(stitch.line.at(stretch[0])), off(stitch.line.at(stretch[1])))
    if begin is not None and stack.stitches:
        found = [s for p in stack.upper.faces if (s := stretch_inside(stack.stitches[0].line, p.outline))]
        ends = (
            [stack.stitches[0].line.at(x) for x in (min(s[0] for s in found), max(s[1] for s in found))]
            if found
            else [begin]
        )
        sketch.mark("tip", off(min(ends, key=lambda p: (p[0] - begin[0]) ** 2 + (p[1] - begin[1]) ** 2)))
    box = _window((stack.lower, stack.upper))
    box = (box[0] - lap, box[1] - lap, box[2], box[3])
    for b in blades:
        _across(sketch, "blade", b, box)
    return sketch.to_drawing(_dimension(sketch, box, size), alt)  # type: ignore[arg-type]


def _inside(line: Line, box: tuple[float, float, float, float]) -> tuple[Point, Point] | None:
    left, bottom, right, top = box
    found = stretch_inside(line, ((left, bottom), (right, bottom), (right, top), (left, top)))
    return (line.at(found[0]), line.at(found[1])) if found else None


def _across(sketch: Sketch, role: str, line: Line, box: tuple[float, float, float, float]) -> None:
    inside = _inside(line, box)
    if inside:
        sketch.line(role, *inside)


# What it looks like when it went wrong


def wrong_ways(lay: Moment, sew: Moment, *, handed: bool) -> tuple[Wrong, ...]:
    """The mistakes that are made at one seam, those that show: laid wrong sides together, turned, sewn on the other line, and, of a
    unit with a hand, two exchanged."""
    right = _outcome(sew)
    if right is None or lay.stack is None:
        return ()
    found = [_wrong_sides(lay, right)]
    act = lay.act
    if isinstance(act, LayPage):
        turned = _page_turned(lay, sew)
        if turned is not None:
            found.append(turned)
        if handed and act.left != act.right:
            mirror = turned_over(right, Line((0.0, 0.0), (0.0, 1.0))).at_origin()
            found.append(Wrong("other_hand", None, _pieces((mirror,), _AFTER)))
    elif isinstance(act, LayStack) and act.upper.pieced:
        found += _stack_turned(lay, sew, right)
    elif isinstance(act, LayCorner) and sew.stack is not None:
        found += _other_line(lay, sew)
    return tuple(found)


_BEFORE = Message("Wrong, before it is sewn.")
_AFTER = Message("Wrong, after it is sewn.")


def _outcome(sew: Moment) -> Piece | None:
    """What comes of the seam when it is right."""
    stack = sew.stack
    if stack is None or not stack.stitches:
        return None
    return _opened_outcome(stack, sew)


def _opened_outcome(stack: Stack, sew: Moment) -> Piece:
    how = getattr(sew.act, "how", Track.EDGE)
    if how is Track.BESIDE and sew.drawn:
        first = stack.cut(sew.drawn[0])[0]
        return first.opened(max(first.stitches, key=first.sewn_length).name)
    if how is Track.ROUND:
        left, bottom, right, top = stack.lower.extent
        quarter = stack.cut(Line((left, bottom), (right, top)))[0].cut(Line((left, top), (right, bottom)))[0]
        return quarter.opened(max(quarter.stitches, key=quarter.sewn_length).name)
    return stack.opened(stack.stitches[0].name)


def _wrong_sides(lay: Moment, right: Piece) -> Wrong:
    """Before, the upper one shows its right side; after, the allowance stands on the front."""
    assert lay.stack is not None
    sketch = Sketch()
    for f in right.faces:
        sketch.polygon("face", f.outline, f.fabric)
    seam = next((s for s in reversed(right.seams)), None)
    for u in right.under:
        if seam is None or _beside(seam, u.outline):
            sketch.polygon("back", u.outline, u.fabric)
    return Wrong("wrong_sides", _stack(lay.stack, _BEFORE, face_up=True), sketch.to_drawing(_window((right,)), _AFTER))


def _beside(seam: SewnSeam, outline: tuple[Point, ...]) -> bool:
    return min(abs(seam.line.side(p)) for p in outline) < 0.08


def _page_turned(lay: Moment, sew: Moment) -> Wrong | None:
    """The right one with another of its edges to the seam."""
    left, right = lay.before
    onto, facing = lay.edges
    stitches = sew.stack.stitches if sew.stack else ()
    if len(right.faces) > 1:
        turned, edge = right.mapped(lambda p: rotated(p, 180)), None
        for f in turned.faces:
            for s in sides_of(f.outline):
                far = all(s.side(p) > -1e-6 for g in turned.faces for p in g.outline)
                if far and s.direction[1] < -0.999:
                    edge = _on(turned, s)
    else:
        sides = sides_of(right.faces[0].outline)
        lengths = sorted(s.along(s.end) for s in sides)
        if lengths[-1] - lengths[0] < 1e-6 or len(sides) > 3:
            return None
        here = min(sides, key=lambda s: abs(facing.side(s.start)) + abs(facing.side(s.end)))
        other = sides[(sides.index(here) + 1) % len(sides)]
        turn = -90 - degrees(atan2(other.direction[1], other.direction[0]))
        turned = right.mapped(lambda p: rotated(p, turn))
        edge = Line(rotated(other.start, turn), rotated(other.end, turn))
    onto_here = _on(left, onto)
    if edge is None or onto_here is None or not stitches:
        return None
    distance = abs(onto.side(stitches[0].line.start))
    upper = laid_on(turned, edge, onto_here, (onto_here.along(onto_here.end) - edge.along(edge.end)) / 2)
    stack = Stack(left, upper, (Stitch("wrong", onto_here.shifted(distance), stitches[0].fold),))
    x, y = facing.start[0] - edge.start[0], (facing.start[1] + facing.end[1] - edge.start[1] - edge.end[1]) / 2
    there = Line((edge.start[0] + x, edge.start[1] + y), (edge.end[0] + x, edge.end[1] + y))
    return Wrong(
        "turned", _page((left, turned.shifted(x, y)), (onto, there), _BEFORE), _pieces((stack.opened(),), _AFTER)
    )


def _stack_turned(lay: Moment, sew: Moment, right: Piece) -> list[Wrong]:
    assert lay.stack is not None
    assert sew.stack is not None
    upper = lay.stack.upper.turned(90)
    stack = Stack(lay.stack.lower, upper, sew.stack.stitches)
    wrong = _opened_outcome(stack, sew)
    if _alike(wrong, right):
        return []
    return [Wrong("turned", _stack(Stack(lay.stack.lower, upper), _BEFORE, drawn=lay.drawn), _pieces((wrong,), _AFTER))]


def _alike(one: Piece, other: Piece) -> bool:
    def look(p: Piece) -> list[tuple[str, float]]:
        return sorted((f.fabric, round(sum(x * x + y * y for x, y in f.outline), 3)) for f in p.at_origin().faces)

    return look(one) == look(other)


def _other_line(lay: Moment, sew: Moment) -> list[Wrong]:
    """The seam on the other diagonal of the corner square."""
    assert lay.stack is not None
    assert sew.stack is not None
    if len(lay.stack.upper.faces) > 1:
        return []
    left, bottom, right, top = lay.stack.upper.extent
    was = sew.stack.stitches[0].line.direction
    other = Line((left, top), (right, bottom)) if was[0] * was[1] > 0 else Line((left, bottom), (right, top))
    bl, bb, br, bt = lay.stack.lower.extent
    if other.side(((bl + br) / 2, (bb + bt) / 2)) < 0:
        other = other.reversed()
    stack = Stack(lay.stack.lower, lay.stack.upper, (Stitch("wrong", other, 0.0),))
    before = Stack(lay.stack.lower, lay.stack.upper)
    return [Wrong("other_line", _stack(before, _BEFORE, drawn=(other,)), _pieces((stack.opened(),), _AFTER))]
