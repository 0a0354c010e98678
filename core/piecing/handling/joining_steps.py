"""Joining a block step by step: named sections, crossings to pin, the size to check, which way to press; nested blocks first.

Source: docs/theory, section 15.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import cached_property

from ..blocks.counting import Colourway
from ..blocks.editing import whole_mirrored
from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import BlockPlacement, Cell, Layout, Pattern, Place, UnitPlacement, laid
from ..cautions import Risk, cautions
from ..cutting.ledger import letter_of
from ..drawings.back import back_picture, direction_said
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point
from ..joining.order import Joint, Order, Section, order_of, orders
from ..joining.pressing import Pressed, PressingMap
from ..joining.seams import joint_name
from ..lengths import Length, finest_mark
from ..messages import Capital, Listing, Message
from ..trimming.whole_block import middle_crossing
from ..units import kind_of
from .steps import BenchStage

__all__ = ["JoinAct", "JoinStep", "colourways_said", "join_steps"]

_MANY = 4
"""So many parts in a row are joined in pairs, and pairs of pairs."""
_RUN = 4
"""Longer runs of numbers are told by their first and last."""
_HAIR = 1e-6
"""Inches: no further apart two points are one."""


@dataclass(frozen=True, slots=True)
class JoinAct:
    """``parts`` by name, from the left to the right when ``upright`` seams join them, else from the top down; a place is named
    by its row and column. ``round_middle``: the first part is the middle, the others go round it."""

    name: str
    parts: tuple[str, ...]
    upright: bool
    round_middle: bool = False


def colourways_said(ways: Sequence[Colourway], names: Mapping[str, str]) -> tuple[Message, ...]:
    """How many blocks there are in which fabrics; nothing where all are as drawn. ``names`` by role."""
    if all(one == other for way in ways for one, other in way.roles):
        return ()
    return tuple(
        Message(
            "{n, plural, one {# block} other {# blocks}} with {swaps}.",
            n=way.count,
            swaps=Listing(swaps, last=" and "),
        )
        if (swaps := _swaps(way, names))
        else Message("{n, plural, one {# block} other {# blocks}} in the colours drawn.", n=way.count)
        for way in ways
        if way.count
    )


def _swaps(way: Colourway, names: Mapping[str, str]) -> list[Message]:
    return [
        Message("{new} in place of {old}", new=names.get(new, new.upper()), old=names.get(old, old.upper()))
        for old, new in way.roles
        if old != new
    ]


@dataclass(frozen=True, slots=True)
class JoinStep:
    """``key`` is its name for good; ``width`` by ``height`` is what the result should measure, raw edge to raw edge."""

    key: str
    stage: BenchStage
    block: str
    title: Message
    said: tuple[Message, ...]
    look: tuple[Message, ...]
    times: int
    width: Length
    height: Length
    front: Drawing
    back: Drawing | None
    cautions: tuple[Message, ...]
    act: JoinAct


@dataclass(frozen=True)
class _Sewn:
    """One block on the way: its layout dyed as it lies, how it is sewn, and how it is pressed if that is known; ``of_blocks``: of blocks that
    are finished, as a centre laid by hand is."""

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


def join_steps(
    pattern: Pattern,
    order: Order,
    finished: Length,
    allowance: Length,
    ruler_step: Length,
    pressing: PressingMap | None = None,
    apart: frozenset[int] = frozenset(),
) -> tuple[JoinStep, ...]:
    """Every step of joining one block whose units are trimmed; its places in ``apart``, by number, hold blocks that are joined for
    themselves. Raises ``LayoutIncomplete``, ``CannotBeSewn``.
    """
    layout = laid(pattern.complete())
    pressed = {p.seam.name: p for p in pressing.pressed} if pressing else {}
    whole = _Sewn(
        layout,
        layout.cells,
        order,
        layout.part(finished),
        allowance,
        finest_mark(ruler_step),
        pressed,
        pressing,
        "",
        1,
        bool(apart),
    )
    return (*_nested(whole, apart), *_own(whole, finished))


def _nested(outer: _Sewn, apart: frozenset[int] = frozenset()) -> Iterator[JoinStep]:
    """Blocks in the block, each kind once, with their own sizes to check."""
    seen: dict[tuple[Pattern, tuple[tuple[str, str], ...], Fraction], list[Place]] = {}
    for number, place in enumerate(outer.layout.pattern.places):
        if isinstance(place.content, BlockPlacement) and number not in apart:
            # One that lies mirrored is another block to sew: no turn makes it of the first.
            held = place.content.pattern
            inner = whole_mirrored(held) if place.orientation.mirrored else held
            wide = outer.layout.pattern.box(place)[3 if place.orientation.across else 2]
            seen.setdefault((inner, place.content.fabrics, wide), []).append(place)
    for n, ((inner, fabrics, wide), places) in enumerate(seen.items()):
        layout, roles = laid(inner), dict(fabrics)
        own = replace(
            outer,
            layout=layout,
            cells=tuple(replace(c, unit=c.unit.dyed(roles)) for c in layout.cells),
            order=orders(inner)[0].order,
            part=outer.part * wide / inner.width,
            pressed=_pressed_within(outer, places[0]),
            map=None,
            key=f"{outer.key}block {n + 1} ",
            of_blocks=False,
            times=outer.times * len(places),
        )
        yield from _nested(own)
        yield from _own(own, own.part * inner.width)


def _pressed_within(outer: _Sewn, place: Place) -> dict[str, Pressed]:
    """How the map presses the seams of a block that lies upright; one that is turned is told by the map alone."""
    if place.orientation.turn or place.orientation.mirrored:
        return {}
    head = f"{place.name}, "
    return {name.removeprefix(head): p for name, p in outer.pressed.items() if name.startswith(head)}


def _own(sewn: _Sewn, finished: Length) -> Iterator[JoinStep]:
    pattern = sewn.layout.pattern
    section = order_of(pattern, sewn.order)
    if not section.parts:
        return
    names = _names(pattern, section)
    back = back_picture(pattern, sewn.map.pressed, finished, sewn.allowance) if sewn.map else None
    for s in section.walk():
        name = names[s.box]
        parts = tuple(names[p.box] for p in s.parts)
        upright = s.joints[0].upright
        around = any(j.partial for j in s.joints)
        width, height = (sewn.part * side + sewn.allowance * 2 for side in (s.width, s.height))
        key = f"{sewn.key}{_key(s)}"
        act = JoinAct(str(name), tuple(map(str, parts)), upright, around)
        whole = s is section
        title = (
            Message("{block}: the whole block", block=pattern.name) if whole else Message("{name}", name=Capital(name))
        )
        front = _picture(sewn, s, title)
        yield JoinStep(
            f"join {key}",
            BenchStage.JOIN,
            pattern.name,
            title,
            tuple(_said(sewn, s, parts, upright=upright, around=around)),
            (
                Message("It measures {w} by {h}, raw edge to raw edge.", w=width, h=height),
                *_tips_said(sewn, s),
            ),
            sewn.times,
            width,
            height,
            front,
            None,
            cautions(Risk.NEEDLE),
            act,
        )
        yield JoinStep(
            f"press {key}",
            BenchStage.PRESS,
            pattern.name,
            title,
            tuple(_press_said(sewn, s)),
            (Message("Flat from the front, no pleat beside the seams; {w} by {h}.", w=width, h=height),),
            sewn.times,
            width,
            height,
            front,
            back,
            cautions(Risk.IRON),
            act,
        )


def _key(s: Section) -> str:
    return ",".join(str(v) for v in s.box)


Box = tuple[Fraction, Fraction, Fraction, Fraction]


def _names(pattern: Pattern, whole: Section) -> dict[Box, Message]:
    """What each section is called: a place by row and column, a whole row or column by its number, others by letters in the
    order of sewing."""
    found: dict[Box, Message] = {}
    letters = 0
    xs, ys = pattern.edges
    for s in [*_singles(whole), *whole.walk()]:
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


def _singles(s: Section) -> Iterator[Section]:
    for p in s.parts:
        if p.place is not None:
            yield p
        yield from _singles(p)


def _span(what: str, first: int, last: int) -> Message:
    if what == "row":
        return Message("row {n}", n=first) if first == last else Message("rows {a} to {b}", a=first, b=last)
    return Message("column {n}", n=first) if first == last else Message("columns {a} to {b}", a=first, b=last)


def _said(sewn: _Sewn, s: Section, parts: tuple[Message, ...], *, upright: bool, around: bool) -> Iterator[Message]:
    if around:
        yield Message(
            "Begin with {middle}. Lay {first} on it, flush {end}: begin there, and sew only half of that seam. It stays open where that "
            "one stands out.",
            middle=parts[0],
            first=parts[1],
            end=_flush(s.parts[0].box, s.parts[1].box),
        )
        yield Message("Then go round: join {rest}, each along its whole edge.", rest=Listing(parts[2:], last=" and "))
        yield Message("Sew the other half of the first seam last.")
        return
    yield from _which(s, parts, upright=upright)
    if sewn.of_blocks:
        yield from _strips_between(sewn, s, upright=upright)
    if upright:
        yield Message("Turn each right one over onto its left neighbour, right sides together, and sew the right edge.")
    else:
        yield Message("Turn each lower one up onto its upper neighbour, right sides together, and sew the lower edge.")
    if _in_the_middle(sewn, s):
        yield Message("Begin at the crossing in the middle and sew outward, one way and then the other.")
    if len(parts) >= _MANY:
        yield Message("Join them in pairs, then pairs of pairs: so the row does not bow.")
    yield from _crossings(sewn, s)


def _strips_between(sewn: _Sewn, s: Section, *, upright: bool) -> Iterator[Message]:
    """Blocks that are finished differ: what is sewn between them is cut to them, not to the plan."""
    strips = [p for p in s.parts if _is_strip(p, upright=upright)]
    if strips and len(strips) < len(s.parts):
        yield Message(
            "The plain {n, plural, one {strip in it is} other {strips in it are}} cut only now, to the mean of three lengths of what {n, "
            "plural, one {it joins} other {they join}}; the plan has {length}.",
            n=len(strips),
            length=(sewn.part * (s.height if upright else s.width) + sewn.allowance * 2).round_near(sewn.mark),
        )


def _is_strip(s: Section, *, upright: bool) -> bool:
    """Plain cloth, longer along its seam than it is across."""
    held = s.place.content if s.place else None
    along, wide = (s.height, s.width) if upright else (s.width, s.height)
    return isinstance(held, UnitPlacement) and len(kind_of(held.kind).parts) == 1 and along > wide


def _in_the_middle(sewn: _Sewn, s: Section) -> bool:
    """Whether the last seam of a block has the block's middle crossing on it: that is the place one sees first."""
    pattern = sewn.layout.pattern
    middle = (pattern.width / 2, pattern.height / 2)
    whole = (s.width, s.height) == (pattern.width, pattern.height)
    through = any(j.start[0] == middle[0] if j.upright else j.start[1] == middle[1] for j in s.joints if not j.partial)
    return whole and through and middle_crossing(pattern)


def _flush(middle: Box, first: Box) -> str:
    """At which end a longer piece lies even with the middle one that it is joined to."""
    left, top, right, foot = (a == b for a, b in zip(middle, first, strict=True))
    if left or right:
        return "on the right" if right else "on the left"
    return "at the foot" if foot and not top else "at the top"


def _which(s: Section, parts: tuple[Message, ...], *, upright: bool) -> Iterator[Message]:
    side = "side by side" if upright else "one below the other"
    places = [p.place for p in s.parts]
    if all(places) and len({p.row for p in places if p}) == 1:
        columns = _numbers([p.column + 1 for p in places if p])
        yield Message("Row {row}: lay columns {columns} {side}.", row=places[0].row + 1, columns=columns, side=side)  # type: ignore[union-attr]
    elif all(places) and len({p.column for p in places if p}) == 1:
        rows = _numbers([p.row + 1 for p in places if p])
        yield Message("Column {column}: lay rows {rows} {side}.", column=places[0].column + 1, rows=rows, side=side)  # type: ignore[union-attr]
    elif len(parts) > _MANY:
        yield Message("Lay {first} to {last} {side}.", first=parts[0], last=parts[-1], side=side)
    else:
        yield Message("Lay {parts} {side}.", parts=Listing(parts, last=" and "), side=side)


def _numbers(numbers: Sequence[int]) -> Listing:
    """Numbers as one says them: "1, 2 and 5", and a longer run as "1 to 26"."""
    runs: list[list[int]] = []
    for n in numbers:
        if runs and runs[-1][-1] + 1 == n:
            runs[-1].append(n)
        else:
            runs.append([n])
    told: list[str | Message] = []
    for run in runs:
        if len(run) > _RUN:
            told.append(Message("{first} to {last}", first=run[0], last=run[-1]))
        else:
            told += map(str, run)
    return Listing(told, last=" and ")


def _in_order(ways: Sequence[str]) -> Listing:
    """Which way each seam goes, what comes again and again told once."""
    runs: list[tuple[str, int]] = []
    for way in ways:
        if runs and runs[-1][0] == way:
            runs[-1] = (way, runs[-1][1] + 1)
        else:
            runs.append((way, 1))
    if len(runs) * 2 > len(ways):
        return Listing(ways)
    return Listing([Message("{n, plural, one {{way}} other {# times {way}}}", n=n, way=way) for way, n in runs])


def _crossings(sewn: _Sewn, s: Section) -> Iterator[Message]:
    """Where to pin: the places along each seam where others meet, and whether they nest there."""
    if sewn.map is None:
        n = len(_meeting_points(s))
        if n:
            yield Message("Pin the {n, plural, one {crossing} other {# crossings}} first, then the ends.", n=n)
        return
    apart: list[Length] = []
    nested: list[Length] = []
    for joint in s.joints:
        name = joint_name(sewn.layout.pattern, joint)
        for m in sewn.map.crossings:
            seam = sewn.map.pressed[m.on]
            if seam.seam.name != name or not m.pairs:
                continue
            at = _along(sewn, joint, m.at)
            good = all(_nest(sewn.map.pressed[a], sewn.map.pressed[b], seam.seam.direction) for a, b in m.pairs)
            where = nested if good else apart
            if at not in where:
                where.append(at)
    end = "the top" if s.joints[0].upright else "the left"
    if nested:
        yield Message(
            "Crossings at {at} from {end}: the seams nest. Push them together and pin.",
            at=Listing(sorted(nested)[:6], last=" and "),
            end=end,
        )
    if apart:
        yield Message(
            "Crossings at {at} from {end}: these seams do not nest. Pin on both sides of each.",
            at=Listing(sorted(apart)[:6], last=" and "),
            end=end,
        )


def _meeting_points(s: Section) -> set[Fraction]:
    """Where seams of the parts run into the seams that join them, from both sides."""
    found: set[Fraction] = set()
    for one, other in zip(s.parts, s.parts[1:], strict=False):
        along = 1 if s.joints[0].upright else 0
        ends = [
            {e[along] for j in p.all_joints if j.upright != s.joints[0].upright for e in (j.start, j.end)}
            for p in (one, other)
        ]
        found |= ends[0] & ends[1]
    return found


def _along(sewn: _Sewn, joint: Joint, at: tuple[float, float]) -> Length:
    """How far a point lies along a joint from its upper or left raw end."""
    high = sewn.layout.pattern.height
    (x, y) = joint.start
    off = (
        Fraction(at[0]).limit_denominator(4096) - x
        if not joint.upright
        else high - Fraction(at[1]).limit_denominator(4096) - y
    )
    return (sewn.part * off + sewn.allowance).round_near(sewn.mark)


def _nest(one: Pressed, other: Pressed, u: tuple[float, float]) -> bool:
    if one.arrow is None or other.arrow is None:
        return False
    a, b = (p.arrow[0] * u[0] + p.arrow[1] * u[1] for p in (one, other))  # type: ignore[index]
    return a * b < 0


def _press_said(sewn: _Sewn, s: Section) -> Iterator[Message]:
    ways: dict[str, int] = {}
    spun = False
    for joint in s.joints:
        p = sewn.pressed.get(joint_name(sewn.layout.pattern, joint))
        if p is not None:
            way = str(direction_said(p))
            ways[way] = ways.get(way, 0) + 1
            spun = spun or bool(p.after)
    yield Message("Set each seam closed, let it cool, then open it from the front with the nose of the iron.")
    if not ways:
        yield Message("Press as the pressing map shows it.")
    elif len(ways) == 1:
        (way,) = ways
        yield (
            Message("Press the {n, plural, one {seam} other {seams}} open: bulk gathers here.", n=len(s.joints))
            if way == "open"
            else Message(
                "Seen from the back, press the {n, plural, one {seam} other {seams}} {way}.", n=len(s.joints), way=way
            )
        )
    else:
        yield _several_ways(sewn, s)
    if spun:
        yield Message("Spin the crossing: undo the two or three stitches inside the allowance there.")
        yield Message("Lay all four allowances the same way round; a small square shows in the middle.")
    yield Message("If an allowance twists, snip beside the stitching, never into it, and lay each part its own way.")
    yield Message("Let it cool flat under a weight.")


def _several_ways(sewn: _Sewn, s: Section) -> Message:
    """Where each seam goes, as one comes to it on the back: face down, what was on the right lies on the left."""

    def ways(joints: Sequence[Joint]) -> Listing:
        named = [sewn.pressed[joint_name(sewn.layout.pattern, j)] for j in joints]
        return _in_order([str(direction_said(p)) for p in named])

    if all(j.upright for j in s.joints):
        across = sorted(s.joints, key=lambda j: -j.start[0])
        return Message("Seen from the back, from left to right: {ways}.", ways=ways(across))
    if not any(j.upright for j in s.joints):
        down = sorted(s.joints, key=lambda j: j.start[1])
        return Message("Seen from the back, from top to bottom: {ways}.", ways=ways(down))
    return Message("Seen from the back, in the order of sewing: {ways}.", ways=ways(s.joints))


def _parts(sewn: _Sewn, s: Section) -> Iterator[tuple[tuple[Point, ...], str]]:
    """The finished outlines of the parts of a section and their fabrics, in inches of the block."""
    for one in _singles(s) if s.place is None else (s,):
        if one.place is not None:
            yield from sewn.faces[one.place.name]


def _tips_said(sewn: _Sewn, s: Section) -> tuple[Message, ...]:
    """Where the tips at its edge stand, when slanting seams end there; plain squares have none."""
    part, high = float(sewn.part), float(sewn.layout.pattern.height)
    left, top, right, foot = (float(v) for v in s.box)
    across, along = (left * part, right * part), ((high - foot) * part, (high - top) * part)

    def at_edge(p: Point) -> bool:
        return any(abs(p[0] - x) < _HAIR for x in across) or any(abs(p[1] - y) < _HAIR for y in along)

    for outline, _ in _parts(sewn, s):
        for a, b in itertools.pairwise((*outline, outline[0])):
            slants = abs(a[0] - b[0]) > _HAIR and abs(a[1] - b[1]) > _HAIR
            if slants and (at_edge(a) or at_edge(b)):
                return (
                    Message(
                        "Every tip stands {s} from the raw edge. It looks too far in, and it is right.",
                        s=sewn.allowance,
                    ),
                )
    return ()


_MANY_FACES = 200
"""From so many on, places that look alike are drawn once and set down wherever they lie."""


def _drawn(sketch: Sketch, sewn: _Sewn, s: Section, off: Point) -> None:
    """The faces of a section, moved by ``off``."""
    singles = [p for p in (_singles(s) if s.place is None else (s,)) if p.place is not None]
    if sum(len(sewn.faces[p.place.name]) for p in singles if p.place) < _MANY_FACES:
        for outline, role in _parts(sewn, s):
            sketch.polygon("face", tuple((x + off[0], y + off[1]) for x, y in outline), role)
        return
    part, high = float(sewn.part), float(sewn.layout.pattern.height)
    alike: dict[tuple[tuple[tuple[Point, ...], str], ...], list[Point]] = {}
    for p in singles:
        assert p.place is not None
        left, top, right, foot = map(float, p.box)
        x, y = (left + right) / 2 * part, (high - (top + foot) / 2) * part
        about = tuple(
            (tuple((round(px - x, 6), round(py - y, 6)) for px, py in outline), role)
            for outline, role in sewn.faces[p.place.name]
        )
        alike.setdefault(about, []).append((x + off[0], y + off[1]))
    for faces, at in alike.items():
        one = Sketch()
        for outline, role in faces:
            one.polygon("patch", outline, role)
        sketch.stamp(one, at)


def _picture(sewn: _Sewn, s: Section, title: Message) -> Drawing:
    """The parts of a section a little apart, as they come together."""
    sketch = Sketch()
    part, high = float(sewn.part), float(sewn.layout.pattern.height)
    gap = float(max(s.width, s.height)) * part * 0.05
    upright = s.joints[0].upright
    boxes = []
    for n, p in enumerate(s.parts):
        off = (n * gap, 0.0) if upright else (0.0, -n * gap)
        left, top, right, foot = p.box
        _drawn(sketch, sewn, p, off)
        boxes.append(
            (
                float(left) * part + off[0],
                (high - float(foot)) * part + off[1],
                float(right) * part + off[0],
                (high - float(top)) * part + off[1],
            )
        )
    for one, other in itertools.pairwise(boxes):
        if upright:
            sketch.line("fresh", (one[2], max(one[1], other[1])), (one[2], min(one[3], other[3])))
        else:
            sketch.line("fresh", (max(one[0], other[0]), one[1]), (min(one[2], other[2]), one[1]))
    pad = gap * 0.6
    window = (
        min(b[0] for b in boxes) - pad,
        min(b[1] for b in boxes) - pad,
        max(b[2] for b in boxes) + pad,
        max(b[3] for b in boxes) + pad,
    )
    return sketch.drawn(window, Message("{title}, its parts a little apart.", title=title))
