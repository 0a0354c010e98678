"""Reads of joining and pressing."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any
from uuid import UUID

from api.problems import Refused
from piecing.blocks.boxes import with_finished
from piecing.blocks.pattern import Pattern, layout_of
from piecing.blocks.sizing import BlockSizes, sizes
from piecing.drawings.back import back_picture, direction_said
from piecing.drawings.block import block_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.joining.order import Order, Ordering, Step, orders, steps
from piecing.joining.pressing import PressingMap, Wishes, pressing_map
from piecing.joining.pressing_check import Drawn, check_pressing
from projects.translate import style_of
from workrooms.models import Workroom

from .models import Block
from .readers import as_asked
from .selectors import block_and_pattern
from .translate import apart_in, joining_of, values_of

__all__ = ["CrossingView", "JoinedView", "PressedView", "SeamWay", "found_map", "joined_view", "pressed_view"]


_MOST_AT_ONCE = 400
"""Units over which pressing is looked for in one go."""


@dataclass(frozen=True)
class JoinedView:
    orders: tuple[Ordering, ...]
    order: Order
    steps: tuple[Step, ...]
    sizes: BlockSizes


def joined_view(room: Workroom, key: UUID, order: str | None = None) -> JoinedView:
    """Joined in the order that is kept, or as if ``order`` were. Raises ``Refused``."""
    block, project, pattern = block_and_pattern(room, key)
    try:
        as_asked(block, order, None)
        known = orders(pattern)
        wanted = joining_of(block, pattern)
        way = next((o.order for o in known if o.order == wanted), known[0].order)
        layout = layout_of(pattern)
        sized = sizes(layout, block.finished, project.seam_allowance, project.ruler_step)
        return JoinedView(known, way, steps(layout, way, block.finished, project.seam_allowance), sized)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None


@dataclass(frozen=True, slots=True)
class SeamWay:
    name: str
    way: str


@dataclass(frozen=True, slots=True)
class CrossingView:
    x: float
    y: float
    left: float
    top: float
    spun: bool
    plain: bool


@dataclass(frozen=True)
class PressedView:
    """``sound`` is the word of the separate checker."""

    map: PressingMap
    order: Order
    front: Drawing
    back: Drawing
    second: Drawing | None
    seams: tuple[SeamWay, ...]
    sound: bool
    crossings: tuple[CrossingView, ...]
    wishes: dict[str, Any]


def _wishes(block: Block) -> dict[str, Any]:
    return {"to_dark": True, "from_bulk": True, "layers": None, "repeats": False, "spun": [], **block.pressing}


def found_map(block: Block, pattern: Pattern, values: dict[str, int]) -> tuple[Order, PressingMap, Wishes]:
    """How a block is sewn and pressed; the last ones found are remembered. Of a large centre laid by hand only what joins its blocks
    is found: each block has a map of its own. Raises what ``pressing_map`` refuses."""
    if len(layout_of(pattern).cells) > _MOST_AT_ONCE:
        pattern = with_finished(pattern, apart_in(block, pattern))
    wishes = _wishes(block)
    spun = tuple((x, y) for x, y in wishes["spun"])
    asked = Wishes(wishes["to_dark"], wishes["from_bulk"], wishes["layers"], spun, wishes["repeats"])
    order = joining_of(block, pattern)
    return order, _map(pattern, order, tuple(sorted(values.items())), asked), asked


@lru_cache(maxsize=64)
def _map(pattern: Pattern, order: Order, values: tuple[tuple[str, int], ...], wishes: Wishes) -> PressingMap:
    return pressing_map(pattern, order, dict(values), wishes)


def pressed_view(room: Workroom, key: UUID, order: str | None = None, wished: str | None = None) -> PressedView:
    """The pressing map of a saved block, or as if it were joined and pressed as asked; found and then checked by another route.
    Raises ``Refused``."""
    block, project, pattern = block_and_pattern(room, key)
    try:
        as_asked(block, order, wished)
        wishes = _wishes(block)
        way, found, asked = found_map(block, pattern, values_of(project))
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    back = back_picture(pattern, found.pressed, block.finished, project.seam_allowance)
    second = back_picture(pattern, found.second, block.finished, project.seam_allowance) if found.second else None
    seams = tuple(SeamWay(p.seam.name, str(direction_said(p))) for p in found.pressed)
    front = block_picture(layout_of(pattern), block.finished)
    return PressedView(
        found, way, front, back, second, seams, _sound(found), tuple(_crossings(pattern, found, asked)), wishes
    )


def _sound(found: PressingMap) -> bool:
    """Whether the separate checker, shown the drawing, finds as many meetings nested as the model claims.

    A spun crossing nests as well: its seams go round it.
    """

    def points(arrow: tuple[float, float] | None) -> complex | None:
        return None if arrow is None else complex(*arrow)

    drawn = [
        Drawn(complex(*p.seam.start), complex(*p.seam.end), points(p.arrow), points(p.last_arrow), p.seam.level)
        for p in found.pressed
    ]
    verdict = check_pressing(drawn)
    return verdict.nested == found.nested and len(verdict.loose) == found.pairs - found.nested


def _crossings(pattern: Pattern, found: PressingMap, wishes: Wishes) -> Iterator[CrossingView]:
    """Where seams run in from both sides: the point, its place on the back as shares, whether spun, whether four meet."""
    wide, high = float(pattern.width), float(pattern.height)
    for m in found.crossings:
        if m.left and m.right:
            x, y = m.at
            spun = any(abs(x - a) + abs(y - b) < 1e-3 for a, b in wishes.spun)
            joins = [any(not found.pressed[k].seam.inner for k in side) for side in (m.left, m.right, (m.on,))]
            plain = all(joins)
            yield CrossingView(x, y, 1 - x / wide, 1 - y / high, spun, plain)
