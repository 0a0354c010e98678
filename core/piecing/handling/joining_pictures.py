"""Pictures of a block's sections as they come together.

Source: docs/theory, section 15.
"""

from __future__ import annotations

import itertools

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point
from ..joining.order import Section
from ..messages import Message
from .sewn_block import SewnBlock, faces_of, single_places

__all__ = ["section_picture"]

_MANY_FACES = 200
"""From so many on, places that look alike are drawn once and set down wherever they lie."""


def _draw(sketch: Sketch, sewn: SewnBlock, s: Section, off: Point) -> None:
    """The faces of a section, moved by ``off``."""
    singles = [p for p in (single_places(s) if s.place is None else (s,)) if p.place is not None]
    if sum(len(sewn.faces[p.place.name]) for p in singles if p.place) < _MANY_FACES:
        for outline, role in faces_of(sewn, s):
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


def section_picture(sewn: SewnBlock, s: Section, title: Message) -> Drawing:
    """The parts of a section a little apart, as they come together."""
    sketch = Sketch()
    part, high = float(sewn.part), float(sewn.layout.pattern.height)
    gap = float(max(s.width, s.height)) * part * 0.05
    upright = s.joints[0].upright
    boxes = []
    for n, p in enumerate(s.parts):
        off = (n * gap, 0.0) if upright else (0.0, -n * gap)
        left, top, right, foot = p.box
        _draw(sketch, sewn, p, off)
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
    return sketch.to_drawing(window, Message("{title}, its parts a little apart.", title=title))
