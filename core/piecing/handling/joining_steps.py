"""Joining a block step by step: named sections, crossings to pin, the size to check, which way to press; nested blocks first.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction

from ..blocks.counting import Colourway
from ..blocks.editing import whole_mirrored
from ..blocks.pattern import BlockPlacement, Pattern, Place, layout_of
from ..cautions import Risk, cautions
from ..drawings.back import back_picture
from ..geometry.drawing import Drawing
from ..joining.order import Order, Section, order_of, orders
from ..joining.pressing import Pressed, PressingMap
from ..lengths import Length, finest_mark
from ..messages import Capital, Listing, Message
from ..quilts.strips_between import StripsCut
from .joining_pictures import section_picture
from .joining_words import join_said, press_said, tips_said
from .sewn_block import SewnBlock, section_names
from .steps import BenchStage

__all__ = ["JoinAct", "JoinStep", "colourways_said", "join_steps"]


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


def join_steps(
    pattern: Pattern,
    order: Order,
    finished: Length,
    allowance: Length,
    ruler_step: Length,
    pressing: PressingMap | None = None,
    apart: frozenset[int] = frozenset(),
    strips: Iterable[StripsCut] = (),
) -> tuple[JoinStep, ...]:
    """Every step of joining one block whose units are trimmed; its places in ``apart``, by number, hold blocks that are joined for
    themselves, and the ``strips`` between these were cut to what was measured. Raises ``LayoutIncomplete``, ``CannotBeSewn``.
    """
    layout = layout_of(pattern.complete())
    pressed = {p.seam.name: p for p in pressing.pressed} if pressing else {}
    whole = SewnBlock(
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
        {s.between.key: s.length for s in strips},
    )
    return (*_nested_steps(whole, apart), *_own(whole, finished))


def _nested_steps(outer: SewnBlock, apart: frozenset[int] = frozenset()) -> Iterator[JoinStep]:
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
        layout, roles = layout_of(inner), dict(fabrics)
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
        yield from _nested_steps(own)
        yield from _own(own, own.part * inner.width)


def _pressed_within(outer: SewnBlock, place: Place) -> dict[str, Pressed]:
    """How the map presses the seams of a block that lies upright; one that is turned is told by the map alone."""
    if place.orientation.turn or place.orientation.mirrored:
        return {}
    head = f"{place.name}, "
    return {name.removeprefix(head): p for name, p in outer.pressed.items() if name.startswith(head)}


def _own(sewn: SewnBlock, finished: Length) -> Iterator[JoinStep]:
    pattern = sewn.layout.pattern
    section = order_of(pattern, sewn.order)
    if not section.parts:
        return
    names = section_names(pattern, section)
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
        front = section_picture(sewn, s, title)
        yield JoinStep(
            f"join {key}",
            BenchStage.JOIN,
            pattern.name,
            title,
            tuple(join_said(sewn, s, parts, upright=upright, around=around)),
            (
                Message("It measures {w} by {h}, raw edge to raw edge.", w=width, h=height),
                *tips_said(sewn, s),
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
            tuple(press_said(sewn, s)),
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
