"""What is said at each step of joining a block: what lies beside what, where to pin, which way to press, where tips stand.

Source: docs/theory, section 15.
"""

from __future__ import annotations

import itertools
from collections.abc import Iterator, Sequence
from fractions import Fraction

from ..drawings.back import direction_said
from ..geometry.plane import Point
from ..joining.order import Joint, Section
from ..joining.pressing import Pressed
from ..joining.seams import joint_name
from ..lengths import Length
from ..messages import Listing, Message
from ..quilts.strips_between import strips_key, strips_length, strips_of
from ..trimming.whole_block import middle_crossing
from .sewn_block import Box, SewnBlock, faces_of

__all__ = ["join_said", "press_said", "tips_said"]

_MANY = 4
"""So many parts in a row are joined in pairs, and pairs of pairs."""
_RUN = 4
"""Longer runs of numbers are told by their first and last."""
_HAIR = 1e-6
"""Inches: no further apart two points are one."""


def join_said(
    sewn: SewnBlock, s: Section, parts: tuple[Message, ...], *, upright: bool, around: bool
) -> Iterator[Message]:
    """How the ``parts`` of a section, by their names, come together; ``around`` the first of them where the others go round it."""
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
        yield from _strips_between(sewn, s)
    if upright:
        yield Message("Turn each right one over onto its left neighbour, right sides together, and sew the right edge.")
    else:
        yield Message("Turn each lower one up onto its upper neighbour, right sides together, and sew the lower edge.")
    if _in_the_middle(sewn, s):
        yield Message("Begin at the crossing in the middle and sew outward, one way and then the other.")
    if len(parts) >= _MANY:
        yield Message("Join them in pairs, then pairs of pairs: so the row does not bow.")
    yield from _crossings(sewn, s)


def _strips_between(sewn: SewnBlock, s: Section) -> Iterator[Message]:
    """Blocks that are finished differ: what is sewn between them is cut to them, not to the plan."""
    strips = strips_of(s)
    if not strips:
        return
    measured = sewn.strips.get(strips_key(s, sewn.part))
    if measured is not None:
        yield Message(
            "The plain {n, plural, one {strip in it is} other {strips in it are}} {length} long, as you measured what {n, plural, one {it "
            "joins} other {they join}}.",
            n=len(strips),
            length=measured,
        )
        return
    yield Message(
        "The plain {n, plural, one {strip in it is} other {strips in it are}} cut only now, to the mean of three lengths of what {n, "
        "plural, one {it joins} other {they join}}; the plan has {length}.",
        n=len(strips),
        length=strips_length(s, sewn.part, sewn.allowance).round_near(sewn.mark),
    )


def _in_the_middle(sewn: SewnBlock, s: Section) -> bool:
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


def _crossings(sewn: SewnBlock, s: Section) -> Iterator[Message]:
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


def _along(sewn: SewnBlock, joint: Joint, at: tuple[float, float]) -> Length:
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


def press_said(sewn: SewnBlock, s: Section) -> Iterator[Message]:
    """Which way its seams go, by the map if there is one."""
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


def _several_ways(sewn: SewnBlock, s: Section) -> Message:
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


def tips_said(sewn: SewnBlock, s: Section) -> tuple[Message, ...]:
    """Where the tips at its edge stand, when slanting seams end there; plain squares have none."""
    part, high = float(sewn.part), float(sewn.layout.pattern.height)
    left, top, right, foot = (float(v) for v in s.box)
    across, along = (left * part, right * part), ((high - foot) * part, (high - top) * part)

    def at_edge(p: Point) -> bool:
        return any(abs(p[0] - x) < _HAIR for x in across) or any(abs(p[1] - y) < _HAIR for y in along)

    for outline, _ in faces_of(sewn, s):
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
