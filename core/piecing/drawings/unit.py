"""One unit on its way: how it is made, as sewn, and trimmed. Every drawing is taken from the engine.

Source: docs/theory, section 3.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Point, sides_of
from ..geometry.sewing import trim
from ..lengths import Length
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from ..units.acts import LayCorner, LayStack, Sewing, Track
from ..units.design import Design
from ..units.simulate import Tip
from .acts import act_front

__all__ = ["StagePicture", "UnitPictures", "design_picture", "pictures"]

Window = tuple[float, float, float, float]
_PAD = 0.16
"""Room around a picture, as a share of what is shown."""


@dataclass(frozen=True, slots=True)
class StagePicture:
    title: Message
    drawing: Drawing


@dataclass(frozen=True, slots=True)
class UnitPictures:
    """``corner`` is the sewn unit's upper right corner, enlarged so that the margin can be seen."""

    stages: tuple[StagePicture, ...]
    sewn: Drawing
    corner: Drawing
    trimmed: Drawing


def design_picture(design: Design, alt: Message) -> Drawing:
    """The finished picture alone, edge to edge."""
    sketch = Sketch()
    for part in design.parts:
        sketch.polygon("face", part.outline, part.role)
    return sketch.to_drawing((0.0, 0.0, design.width, design.height), alt)


def pictures(plan: UnitPlan) -> UnitPictures:
    """Every stage of making, then the unit sewn and trimmed to one scale."""
    raw = plan.simulated.raw
    left, bottom, right, top = raw.extent
    pad = max(right - left, top - bottom) * _PAD
    window = (left - pad, bottom - pad, right + pad, top + pad)
    return UnitPictures(
        _stages(plan), _sewn_drawing(plan, window, pad), _corner(plan), _trimmed_drawing(plan, window, pad)
    )


def _stages(plan: UnitPlan) -> tuple[StagePicture, ...]:
    """One picture a seam: what is laid together, where it is sewn and where it is cut; seams that look alike once."""
    moments = plan.simulated.making.moments
    found: dict[str, StagePicture] = {}
    for m in moments:
        verb, _, seam = m.key.partition(" ")
        sewing = m.act
        if verb != "sew" or not isinstance(sewing, Sewing):
            continue
        lay = next(x.act for x in moments if x.key == f"lay {seam}")
        cut = next((x for x in moments if x.key == f"cut {seam}" and x.stack is not None), m)
        title = Message(_STAGES[sewing.how])
        found.setdefault(str(title) + str(lay), StagePicture(title, act_front(cut, title, _base(plan, lay))))
    return tuple(found.values())


_STAGES = {
    Track.BESIDE: "Right sides together, sewn both sides of the line, to be cut on it",
    Track.ROUND: "Right sides together, sewn right round, to be cut on both diagonals",
    Track.ON: "A square on the corner, sewn on its diagonal, to be folded back",
    Track.EDGE: "Right sides together, sewn along one edge",
}


def _base(plan: UnitPlan, lay: object) -> Length | None:
    """The cut size of the piece beneath."""
    bit = lay.lower.bit if isinstance(lay, LayStack | LayCorner) else None
    return plan.cuts.get(bit.name) if bit is not None else None


def _level(sketch: Sketch, start: Point, end: Point, drop: float, size: Length) -> None:
    y = start[1] + drop
    sketch.dimension((start[0], y), (end[0], y), ((start[0] + end[0]) / 2, y), Message("{size}", size=size))


def _upright(sketch: Sketch, start: Point, end: Point, beside: float, size: Length) -> None:
    x = start[0] + beside
    sketch.dimension((x, start[1]), (x, end[1]), (x, (start[1] + end[1]) / 2), Message("{size}", size=size))


def _sewn_drawing(plan: UnitPlan, window: Window, pad: float) -> Drawing:
    unit = plan.simulated
    sketch = Sketch().piece(unit.raw).polygon("target", unit.box)
    (x1, y1), _, (x2, y2), _ = unit.box
    margins = plan.margins
    left, bottom = x1 - float(margins.left), y1 - float(margins.bottom)
    right, top = x2 + float(margins.right), y2 + float(margins.top)
    _level(sketch, (left, bottom), (right, bottom), -pad * 0.42, plan.raw_width)
    if not plan.spec.is_square:
        _upright(sketch, (left, bottom), (left, top), -pad * 0.42, plan.raw_height)
    height = (y1 + y2) / 2
    sketch.dimension((x2, height), (right, height), (right + pad * 1.1, height), Message("{size}", size=margins.right))
    return sketch.to_drawing(
        window,
        Message(
            "The sewn unit, {raw} before trimming, with the trim line inside it and {margin} to come off the side with "
            "the least room.",
            raw=plan.raw_width,
            margin=plan.margin,
        ),
    )


def _corner(plan: UnitPlan) -> Drawing:
    unit = plan.simulated
    x, y = unit.box[2]
    margin = float(plan.margins.right)
    right = x + margin
    top = y + float(plan.margins.top)
    reach = max(3.2 * margin, 3.2 * (top - y), float(plan.target_width) * 0.06)
    height = top - reach * 0.4
    sketch = Sketch().piece(unit.raw).polygon("target", unit.box)
    sketch.dimension(
        (x, height), (right, height), (right + reach * 0.42, height), Message("{size}", size=plan.margins.right)
    )
    return sketch.to_drawing(
        (right - reach, top - reach, right + reach * 0.8, top + reach * 0.8),
        Message("One corner enlarged: {margin} to trim beside the trim line.", margin=plan.margins.right),
    )


def _trimmed_drawing(plan: UnitPlan, window: Window, pad: float) -> Drawing:
    unit = plan.simulated
    trimmed, _ = trim(unit.raw, *sides_of(unit.box))
    (x1, y1), _, (x2, y2), _ = unit.box
    s = float(plan.allowance)
    inner = ((x1 + s, y1 + s), (x2 - s, y1 + s), (x2 - s, y2 - s), (x1 + s, y2 - s))
    sketch = Sketch().piece(trimmed).polygon("finished", inner)
    _level(sketch, (x1, y1), (x2, y1), -pad * 0.42, plan.target_width)
    _level(sketch, inner[3], inner[2], s + pad * 0.42, plan.spec.width)
    if not plan.spec.is_square:
        _upright(sketch, (x1, y1), (x1, y2), -pad * 0.42, plan.target_height)
    for tip in unit.tips:
        _tip(sketch, tip, (x1, y1), (x2, y2), s)
    return sketch.to_drawing(
        window,
        Message(
            "The unit trimmed to {target}; the dashed line shows the {finished} that stays visible once it is joined.",
            target=plan.target_width,
            finished=plan.spec.width,
        ),
    )


def _tip(sketch: Sketch, tip: Tip, low: Point, high: Point, allowance: float) -> None:
    """A tip that stands near one raw edge is marked, with its distance."""
    side, distance = tip.nearest
    if distance > 2 * allowance:
        return
    x, y = low[0] + tip.at[0], low[1] + tip.at[1]
    edge = {"left": (low[0], y), "right": (high[0], y), "bottom": (x, low[1]), "top": (x, high[1])}[side]
    sketch.mark("tip", (x, y))
    sketch.line("clearance", (x, y), edge)
