"""Blocks drawn: finished, taken apart with the allowances shaded, and many side by side.

Every outline comes from a unit's own design or from the engine; y runs upward here and is turned by ``Sketch``.
Source: docs/theory, section 12.3.
"""

from __future__ import annotations

from fractions import Fraction
from math import isclose

from ..blocks.geometry import cell_middle, lying, placed_parts, sew_unit
from ..blocks.pattern import UPRIGHT, BlockPlacement, Layout, Orientation
from ..errors import PlanError
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, rectangle
from ..lengths import Length
from ..messages import Message
from ..units import UnitSpec

__all__ = ["apart_picture", "block_picture", "draw_block", "side_by_side"]

_MANY_HELD = 8
"""Blocks in a block from which each kind of them is drawn once."""
_MARGIN = 0.02
"""Room around a picture, as a share of its longer side."""


def draw_block(
    sketch: Sketch, layout: Layout, finished: Length, at: Point = (0.0, 0.0), orientation: Orientation = UPRIGHT
) -> None:
    """A finished block, its own middle laid at ``at`` plus half its size, lying as told; empty places are left open."""
    part, width = layout.part(finished), float(finished)
    height = width * float(layout.pattern.height / layout.pattern.width)
    seen = (height, width) if orientation.across else (width, height)
    middle = (at[0] + seen[0] / 2, at[1] + seen[1] / 2)
    for cell, spec in zip(layout.cells, layout.specs(part), strict=True):
        x, y = cell_middle(layout, cell, float(part))
        cx, cy = lying((x - width / 2, y - height / 2), orientation)
        for p in placed_parts(spec, cell.orientation.then(orientation)):
            sketch.polygon("face", tuple((px + cx + middle[0], py + cy + middle[1]) for px, py in p.outline), p.role)


def _open_places(sketch: Sketch, layout: Layout, part: float) -> None:
    p = layout.pattern
    xs = [float(x) * part for x in p.edges[0]]
    ys = [float(p.height - y) * part for y in p.edges[1]]
    for c, r in p.empty:
        sketch.polygon("empty", rectangle(xs[c + 1] - xs[c], ys[r] - ys[r + 1], (xs[c], ys[r + 1])))


def _draw_held(sketch: Sketch, layout: Layout, finished: Length) -> None:
    """A block that holds many others: each kind of these is drawn once, and set down wherever it lies."""
    part, pattern, high = float(layout.part(finished)), layout.pattern, float(layout.pattern.height)
    alike: dict[tuple[object, Orientation, Fraction, Fraction], tuple[int, list[Point]]] = {}
    for n, place in enumerate(pattern.places):
        left, top, wide, down = pattern.box(place)
        middle = (float(left + wide / 2) * part, (high - float(top + down / 2)) * part)
        alike.setdefault((place.content, place.orientation, wide, down), (n, []))[1].append(middle)
    cells: dict[int, list[int]] = {}
    for n, cell in enumerate(layout.cells):
        cells.setdefault(cell.place, []).append(n)
    specs = layout.specs(layout.part(finished))
    for first, middles in alike.values():
        one, (x0, y0) = Sketch(), middles[0]
        for n in cells[first]:
            cell = layout.cells[n]
            x, y = cell_middle(layout, cell, part)
            for p in placed_parts(specs[n], cell.orientation):
                one.polygon("face", tuple((px + x - x0, py + y - y0) for px, py in p.outline), p.role)
        sketch.stamp(one, middles)


def block_picture(layout: Layout, finished: Length) -> Drawing:
    """The block as it will show, empty places marked."""
    sketch, wide = Sketch(), float(finished)
    high = wide * float(layout.pattern.height / layout.pattern.width)
    if sum(isinstance(p.content, BlockPlacement) for p in layout.pattern.places) > _MANY_HELD:
        _draw_held(sketch, layout, finished)
    else:
        draw_block(sketch, layout, finished)
    _open_places(sketch, layout, float(layout.part(finished)))
    return sketch.to_drawing((0.0, 0.0, wide, high), _alt(layout, finished))


def _alt(layout: Layout, finished: Length) -> Message:
    empty = len(layout.pattern.empty)
    return Message(
        "{name}, finishing {size}: {units, plural, one {one unit} other {# units}} in a grid of {columns} by {rows}{empty, "
        "plural, =0 {} one {; one place empty} other {; # places empty}}.",
        name=layout.pattern.name,
        size=finished,
        units=len(layout.cells),
        columns=len(layout.pattern.columns),
        rows=len(layout.pattern.rows),
        empty=empty,
    )


def apart_picture(layout: Layout, finished: Length, allowance: Length) -> Drawing:
    """Every unit as it is trimmed, drawn apart, with the part that vanishes into seam allowances shaded."""
    part, s = float(layout.part(finished)), float(allowance)
    smallest = min((float(min(c.width, c.height)) * part for c in layout.cells), default=1.0)
    spread = 1 + (2 * s + 0.3 * s) / smallest
    sketch = Sketch()
    for cell in layout.cells:
        x, y = cell_middle(layout, cell, part)
        _unit_apart(sketch, cell.spec(layout.part(finished)), cell.orientation, (x * spread, y * spread), s)
    wide, high = (
        float(finished) * spread,
        float(finished) * float(layout.pattern.height / layout.pattern.width) * spread,
    )
    pad = max(wide, high) * _MARGIN
    return sketch.to_drawing(
        (-pad, -pad, wide + pad, high + pad),
        Message(
            "{name} taken apart: every unit trimmed, the shaded rim {s} wide goes into the seams.",
            name=layout.pattern.name,
            s=allowance,
        ),
    )


def _unit_apart(sketch: Sketch, spec: UnitSpec, orientation: Orientation, at: Point, s: float) -> None:
    piece = sew_unit(spec, s)
    if piece is None:
        return
    left, bottom, right, top = piece.extent
    middle = ((left + right) / 2, (bottom + top) / 2)

    def here(p: Point) -> Point:
        x, y = lying((p[0] - middle[0], p[1] - middle[1]), orientation)
        return x + at[0], y + at[1]

    for face in piece.faces:
        sketch.polygon("face", tuple(here(p) for p in face.outline), face.fabric)
    outer = rectangle(right - left, top - bottom, (left, bottom))
    inner = rectangle(right - left - 2 * s, top - bottom - 2 * s, (left + s, bottom + s))
    for n in range(4):
        rim = (outer[n], outer[(n + 1) % 4], inner[(n + 1) % 4], inner[n])
        sketch.polygon("allowance", tuple(here(p) for p in rim))


def side_by_side(
    layout: Layout, finished: Length, across: int, down: int, every_second: Orientation = UPRIGHT
) -> Drawing:
    """Several of a block, every second one lying as told, so that what they make together shows.

    Raises ``PlanError`` when blocks that are not square are to be turned a quarter.
    """
    p, wide = layout.pattern, float(finished)
    high = wide * float(p.height / p.width)
    if every_second.across and not isclose(wide, high):
        raise PlanError("Blocks that are not square can be turned half round only.", field="every_second")
    sketch = Sketch()
    for row in range(down):
        for column in range(across):
            orientation = every_second if (row + column) % 2 else UPRIGHT
            draw_block(sketch, layout, finished, (column * wide, (down - 1 - row) * high), orientation)
    for n in range(1, across):
        sketch.line("block-edge", (n * wide, 0.0), (n * wide, down * high))
    for n in range(1, down):
        sketch.line("block-edge", (0.0, n * high), (across * wide, n * high))
    alt = Message(
        "{name}, {across} by {down} of it{how}.", name=p.name, across=across, down=down, how=_how(every_second)
    )
    return sketch.to_drawing((0.0, 0.0, across * wide, down * high), alt)


def _how(orientation: Orientation) -> str:
    words = {
        (0, True): "every second one mirrored",
        (1, False): "every second one turned a quarter",
        (2, False): "every second one turned half round",
    }
    said = words.get((orientation.turn, orientation.mirrored))
    return f", {said}" if said else ""
