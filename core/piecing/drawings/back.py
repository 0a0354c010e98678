"""The back of a block with every seam allowance on the side it is pressed to, and an arrow for each.

Seen from the back, left and right are exchanged. Source: docs/theory, section 12.7.
"""

from __future__ import annotations

from collections.abc import Iterator, Sequence

from ..blocks.geometry import cell_middle, placed_parts
from ..blocks.pattern import Pattern, layout_of
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, Polygon, area, clip, rectangle, sides_of
from ..joining.pressing import Press, Pressed, arrow_of
from ..lengths import Length
from ..messages import Listing, Message

__all__ = ["back_picture", "direction_said"]

_WAYS = {
    (1, 0): "right",
    (-1, 0): "left",
    (0, 1): "up",
    (0, -1): "down",
    (1, 1): "up and right",
    (-1, 1): "up and left",
    (1, -1): "down and right",
    (-1, -1): "down and left",
}


def direction_said(p: Pressed) -> Message:
    """Where a seam goes, as one sees it on the back."""
    ways = [p.way, *(w for _, w in p.after)]
    return Message("{ways}", ways=Listing([_direction(p, w) for w in ways], ", then "))


def _direction(p: Pressed, way: Press) -> str:
    arrow = arrow_of(p.seam, way)
    if arrow is None:
        return "open"
    x, y = -arrow[0], arrow[1]
    key = (0 if abs(x) < 0.2 else (1 if x > 0 else -1), 0 if abs(y) < 0.2 else (1 if y > 0 else -1))
    return _WAYS[key]


def back_picture(pattern: Pattern, pressed: Sequence[Pressed], finished: Length, allowance: Length) -> Drawing:
    """The block face down, its upper edge still on top."""
    layout, sketch = layout_of(pattern), Sketch()
    size = float(layout.part(finished))
    wide, high = float(finished), float(pattern.height) * size
    for cell in layout.cells:
        x, y = cell_middle(layout, cell, size)
        for part in placed_parts(cell.spec(layout.part(finished)), cell.orientation):
            sketch.polygon("back", tuple((wide - px - x, py + y) for px, py in reversed(part.outline)), part.role)
    smallest = min((float(min(c.width, c.height)) for c in layout.cells), default=1.0) * size
    depth = min(float(allowance), smallest / 4)
    for p in pressed:
        for start, end, way in _stretches(p):
            _flat(sketch, rectangle(wide, high), p, _back(start, size, wide), _back(end, size, wide), way, depth)
    for p in pressed:
        for start, end, way in _stretches(p):
            _arrow(sketch, p, _back(start, size, wide), _back(end, size, wide), way, smallest)
    return sketch.to_drawing(
        (0.0, 0.0, wide, high),
        Message(
            "{name} from the back: {seams, plural, one {one seam} other {# seams}}, each with the way it is pressed.",
            name=pattern.name,
            seams=len(pressed),
        ),
    )


def _back(p: Point, size: float, wide: float) -> Point:
    return wide - p[0] * size, p[1] * size


def _stretches(p: Pressed) -> Iterator[tuple[Point, Point, Press]]:
    """The seam in as many stretches as spun crossings make of it."""
    (x, y), (dx, dy) = p.seam.start, p.seam.direction
    stops = [0.0, *(along for along, _ in p.after), p.seam.length]
    for n, way in enumerate((p.way, *(w for _, w in p.after))):
        a, b = stops[n], stops[n + 1]
        yield (x + dx * a, y + dy * a), (x + dx * b, y + dy * b), way


def _to(p: Pressed, way: Press) -> list[Point]:
    if way is Press.OPEN:
        return [(-x, y) for x, y in (p.seam.left, (-p.seam.left[0], -p.seam.left[1]))]
    arrow = arrow_of(p.seam, way)
    return [(-arrow[0], arrow[1])] if arrow else []


def _flat(sketch: Sketch, block: Polygon, p: Pressed, start: Point, end: Point, way: Press, depth: float) -> None:
    for x, y in _to(p, way):
        strip: Polygon = (
            start,
            end,
            (end[0] + x * depth, end[1] + y * depth),
            (start[0] + x * depth, start[1] + y * depth),
        )
        strip = strip if area(strip) > 0 else strip[::-1]
        for side in sides_of(block):
            strip = clip(strip, side)
        sketch.polygon("allowance", strip)
    sketch.line("seam", start, end)


def _arrow(sketch: Sketch, p: Pressed, start: Point, end: Point, way: Press, smallest: float) -> None:
    """A broad triangle from the middle of the stretch, toward where it goes; open seams get one each way."""
    length = ((end[0] - start[0]) ** 2 + (end[1] - start[1]) ** 2) ** 0.5
    middle = ((start[0] + end[0]) / 2, (start[1] + end[1]) / 2)
    half = min(length * 0.22, smallest * 0.14)
    ux, uy = (end[0] - start[0]) / length * half, (end[1] - start[1]) / length * half
    for x, y in _to(p, way):
        tip = (middle[0] + x * half * 1.7, middle[1] + y * half * 1.7)
        sketch.polygon("arrow", ((middle[0] - ux, middle[1] - uy), (middle[0] + ux, middle[1] + uy), tip))
