"""The quilt drawn: blocks where they lie, sashing, setting triangles and borders, all at their finished sizes.

Source: docs/theory, section 12.8.
"""

from __future__ import annotations

from collections.abc import Callable, Iterator, Sequence
from functools import lru_cache

from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import UPRIGHT, Layout, Orientation, Pattern, layout_of
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, Polygon, area, clip, rectangle, rotated, sides_of
from ..lengths import ZERO, Length
from ..messages import Message
from ..quilts.borders import Round
from ..quilts.choices import Corners, QuiltChoices, Setting, block_spots, filler_spots
from ..quilts.laid import Laid
from ..quilts.sizes import QuiltSizes

__all__ = ["block_middles", "quilt_picture"]

_FAR = 20_000
"""Units from which a quilt is drawn as from afar: on a screen each is a few dots then."""


@lru_cache(maxsize=256)
def _faces(layout: Layout, finished: Length, orientation: Orientation) -> tuple[tuple[Polygon, str, int], ...]:
    """Every part of a block about its middle: outline, role, number of its cell."""
    part = layout.part(finished)
    wide = float(finished)
    high = wide * float(layout.pattern.height / layout.pattern.width)
    found = []
    for n, (cell, spec) in enumerate(zip(layout.cells, layout.specs(part), strict=True)):
        x, y = cell_middle(layout, cell, float(part))
        x, y = x - wide / 2, y - high / 2
        cx, cy = rotated((-x, y) if orientation.mirrored else (x, y), -90 * orientation.turn)
        for p in placed_parts(spec, cell.orientation.then(orientation)):
            found.append((tuple((a + cx, b + cy) for a, b in p.outline), p.role, n))
    return tuple(found)


def block_middles(q: QuiltSizes) -> list[Point]:
    """The middle of every block, y upward from the lower left corner of the blocks' centre, in the order of ``block_spots``."""
    c = q.choices
    wide, high, sash = float(c.block_width), float(c.block_height), float(c.sash)
    total = float(q.centre_height)
    if c.setting is Setting.ON_POINT:
        half = (wide + sash) * 2**0.5 / 2
        first = wide * 2**0.5 / 2 + sash * 2**0.5
        return [(first + x * half, total - first - y * half) for x, y in block_spots(c)]
    rim = sash if c.sash_round else 0.0
    found = []
    for x, y in block_spots(c):
        drop = high * float(c.stagger) if c.setting is Setting.STAGGERED and x % 2 else 0.0
        found.append((rim + x * (wide + sash) + wide / 2, total - rim - y * (high + sash) - high / 2 - drop))
    return found


def _filler_middles(q: QuiltSizes) -> list[Point]:
    """The middles of the parts of blocks at the ends of lower columns, in the order of ``filler_spots``."""
    c, total = q.choices, float(q.centre_height)
    wide, high, share = float(c.block_width), float(c.block_height), float(c.stagger)
    return [
        (x * wide + wide / 2, total - high * share / 2 if head else high * (1 - share) / 2)
        for x, head in filler_spots(c)
    ]


def quilt_picture(q: QuiltSizes, at: Callable[[int], Laid] | Sequence[Laid], fillers: Sequence[Laid] = ()) -> Drawing:
    """``at`` tells what lies at each spot, in the order of ``block_spots``; ``fillers`` the parts of blocks in that of
    ``filler_spots``, where there are any.
    """
    c, sketch = q.choices, Sketch()
    wide, high = float(q.width), float(q.height)
    x0, y0 = (wide - float(q.centre_width)) / 2, (high - float(q.centre_height)) / 2
    for r in reversed(q.rounds):
        _draw_round(sketch, r, wide, high)
    box = rectangle(float(q.centre_width), float(q.centre_height), (x0, y0))
    straight = c.setting in (Setting.STRAIGHT, Setting.BY_HAND)
    if not straight or c.sash > ZERO:
        sketch.polygon("face", box, c.sash_fabric if straight else c.setting_fabric)
    for outline, fabric in _lattice(q):
        sketch.polygon("face", _clipped(tuple((x + x0, y + y0) for x, y in outline), box), fabric)
    alike: dict[object, tuple[Laid, list[Point]]] = {}
    spots = block_middles(q)
    lying = [at[n] if isinstance(at, Sequence) else at(n) for n in range(len(spots))]
    if fillers:
        spots, lying = spots + _filler_middles(q), [*lying, *fillers]
    for held, (x, y) in zip(lying, spots, strict=True):
        # By which layout it is, not by what is in it: that would be asked of every unit at every spot.
        key = (id(held.layout), held.orientation, held.roles, held.units)
        alike.setdefault(key, (held, []))[1].append((x + x0, y + y0))
    cells = sum(len(held.layout.cells) * len(here) for held, here in alike.values())
    for held, here in alike.values():
        sketch.stamp(_sketch_of(held, c, far=cells > _FAR), here, 45.0 if c.setting is Setting.ON_POINT else 0.0)
    said = Message(
        "The quilt, finishing {w} by {h}: {n, plural, one {one block} other {# blocks}} of {b}.",
        w=q.width,
        h=q.height,
        n=q.blocks,
        b=c.block_width,
    )
    return sketch.to_drawing((0.0, 0.0, wide, high), said)


def _clipped(outline: Polygon, box: Polygon) -> Polygon:
    for side in sides_of(box):
        outline = clip(outline, side)
        if not outline:
            break
    return outline or box[:1] * 3


def _sketch_of(laid: Laid, c: QuiltChoices, *, far: bool) -> Sketch:
    """A block about its middle; from ``far``, where a unit is a dot of the screen, each unit in the fabric that it has most of."""
    sketch = Sketch()
    roles, units = dict(laid.roles), {n: dict(r) for n, r in laid.units}

    def dyed(role: str, n: int) -> str:
        own = units.get(n)
        return own[role] if own and role in own else roles.get(role, role)

    faces = _faces(laid.layout, c.block_width, laid.orientation)
    if not far:
        for outline, role, n in faces:
            sketch.polygon("face", outline, dyed(role, n))
        return sketch
    shares: dict[int, dict[str, float]] = {}
    corners: dict[int, list[Point]] = {}
    for outline, role, n in faces:
        fabric = dyed(role, n)
        shares.setdefault(n, {})[fabric] = shares.get(n, {}).get(fabric, 0.0) + abs(area(outline))
        corners.setdefault(n, []).extend(outline)
    for n, held in shares.items():
        xs, ys = [x for x, _ in corners[n]], [y for _, y in corners[n]]
        box = rectangle(max(xs) - min(xs), max(ys) - min(ys), (min(xs), min(ys)))
        sketch.polygon("patch", box, max(sorted(held), key=lambda f: held[f]))
    return sketch


def _draw_round(sketch: Sketch, r: Round, wide: float, high: float) -> None:
    """One border where it lies in the whole; what is inside it is drawn over it later."""
    b, out_wide, out_high = r.border, float(r.wide), float(r.high)
    x, y = (wide - out_wide) / 2, (high - out_high) / 2
    sketch.polygon("face", rectangle(out_wide, out_high, (x, y)), b.fabric)
    if r.row is not None:
        _draw_row(sketch, r, (x, y))
        return
    w = float(b.width)
    corners = [(a, c) for a in (x, x + out_wide - w) for c in (y, y + out_high - w)]
    match b.corners:
        case Corners.SQUARE:
            for corner in corners:
                sketch.polygon("face", rectangle(w, w, corner), b.corner_fabric or b.fabric)
        case Corners.MITRED:
            for a, c in corners:
                # From the outer corner to the inner one.
                rising = (a == x) == (c == y)
                sketch.line("seam", (a, c if rising else c + w), (a + w, c + w if rising else c))
        case Corners.OVERLAPPED:
            for line in (y + w, y + out_high - w):
                sketch.line("seam", (x, line), (x + out_wide, line))


def _draw_row(sketch: Sketch, r: Round, corner: Point) -> None:
    """The four strips of a pieced border, each about its own middle, and the line of the plain strip's seams."""
    assert r.row is not None
    x, y = corner
    wide, high, deep = float(r.wide), float(r.high), float(r.row.depth)
    for pattern, middles, turn in (
        (r.row.ends, (x + wide / 2, y + high - deep / 2), 0.0),
        (r.row.ends, (x + wide / 2, y + deep / 2), 180.0),
        (r.row.sides, (x + deep / 2, y + high / 2), 0.0),
        (r.row.sides, (x + wide - deep / 2, y + high / 2), 180.0),
    ):
        sketch.stamp(_strip(pattern), [middles], turn)
    above = float(r.row.above)
    for line in (y + deep + above, y + high - deep - above) if above else ():
        sketch.line("seam", (x + deep, line), (x + wide - deep, line))


@lru_cache(maxsize=64)
def _strip(pattern: Pattern) -> Sketch:
    sketch = Sketch()
    for outline, role, _ in _faces(layout_of(pattern), Length.of(pattern.width), UPRIGHT):
        sketch.polygon("face", outline, role)
    return sketch


def _lattice(q: QuiltSizes) -> Iterator[tuple[Polygon, str]]:
    """Sashing and cornerstones on point; cornerstones of a straight quilt, whose sashing is the ground; seams of fillers."""
    c, sash = q.choices, float(q.choices.sash)
    wide, high = float(c.block_width), float(c.block_height)
    if sash == 0:
        return
    around: dict[tuple[int, int], Point] = {}
    for x, y in block_middles(q):
        if c.setting is Setting.ON_POINT:
            big = (wide + 2 * sash) / 2
            yield (
                tuple((x + a, y + b) for a, b in (rotated(p, 45) for p in rectangle(2 * big, 2 * big, (-big, -big)))),
                c.sash_fabric,
            )
        for a in (-1, 1):
            for b in (-1, 1):
                dx, dy = a * (wide + sash) / 2, b * (high + sash) / 2
                if c.setting is Setting.ON_POINT:
                    dx, dy = rotated((dx, dy), 45)
                around[round((x + dx) * 256), round((y + dy) * 256)] = (x + dx, y + dy)
    if c.cornerstones:
        angle = 45.0 if c.setting is Setting.ON_POINT else 0.0
        for x, y in around.values():
            if angle or (0 < x < float(q.centre_width) and 0 < y < float(q.centre_height)):
                yield (
                    tuple(
                        (x + a, y + b)
                        for a, b in (rotated(p, angle) for p in rectangle(sash, sash, (-sash / 2, -sash / 2)))
                    ),
                    c.cornerstone_fabric,
                )
