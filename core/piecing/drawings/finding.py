"""A block as it lies on the table, what lies wrong ringed."""

from __future__ import annotations

from ..blocks.comparing import Finding
from ..blocks.editing import whole_turned
from ..blocks.pattern import Pattern, layout_of
from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import rectangle
from ..lengths import Length
from .block import draw_block

__all__ = ["finding_picture"]


def finding_picture(seen: Pattern, finding: Finding, finished: Length) -> Drawing:
    """The block as it lies on the table, faults ringed."""
    upright = whole_turned(seen, -finding.whole % 4)
    layout, sketch = layout_of(upright), Sketch()
    draw_block(sketch, layout, finished)
    part = float(layout.part(finished))
    for fault in finding.faults:
        place = upright.at(fault.column, fault.row)
        if place:
            left, top, wide, high = (float(x) * part for x in upright.box(place))
            base = float(upright.height) * part - top - high
            inset = min(wide, high) * 0.06
            sketch.polygon("fault", rectangle(wide - 2 * inset, high - 2 * inset, (left + inset, base + inset)))
    return sketch.to_drawing((0.0, 0.0, float(finished), float(upright.height) * part), finding.said)
