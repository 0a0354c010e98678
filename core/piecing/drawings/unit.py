"""One unit on its way: how it is made, as sewn, and trimmed. Every drawing is taken from the engine.

Source: docs/theory, section 3.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, bounds, sides_of, stretch_inside
from ..geometry.sewing import Stack, Stitch, trim
from ..lengths import Length
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from ..units.design import Design
from ..units.method import Stage
from ..units.simulate import Tip

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
    return sketch.drawn((0.0, 0.0, design.width, design.height), alt)


def pictures(plan: UnitPlan) -> UnitPictures:
    """Every stage of making, then the unit sewn and trimmed to one scale."""
    raw = plan.simulated.raw
    left, bottom, right, top = raw.extent
    pad = max(right - left, top - bottom) * _PAD
    window = (left - pad, bottom - pad, right + pad, top + pad)
    stages = tuple(StagePicture(s.title, _stage(plan, s)) for s in plan.simulated.making.stages)
    return UnitPictures(stages, _sewn(plan, window, pad), _corner(plan), _trimmed(plan, window, pad))


def _stage(plan: UnitPlan, stage: Stage) -> Drawing:
    sketch = Sketch()
    shown = stage.shown
    piece = shown.lower if isinstance(shown, Stack) else shown
    pieces = (shown.lower, shown.upper) if isinstance(shown, Stack) else (shown,)
    left, bottom, right, top = bounds(p.outline for q in pieces for p in q.faces)
    pad = max(right - left, top - bottom) * _PAD
    if isinstance(shown, Stack):
        lap = pad * 0.18
        sketch.piece(piece.shifted(lap, lap))
        for patch in shown.upper.shifted(-lap, -lap).faces:
            sketch.polygon("back", patch.outline, patch.fabric)
        for stitch in shown.stitches:
            _stitching(sketch, shown, stitch, lap)
    else:
        sketch.piece(piece)
    cloth = bounds(p.outline for q in pieces for p in q.faces)
    for blade in stage.blades:
        _across(sketch, "blade", blade, cloth, pad * 0.3)
    size = _cut_size(plan, right - left)
    if size is not None:
        _level(sketch, (left, bottom), (right, bottom), -pad * 0.55, size)
    square = max(right - left, top - bottom)
    x, y = (left + right - square) / 2, (bottom + top - square) / 2
    return sketch.drawn((x - pad, y - pad, x + square + pad, y + square + pad), stage.title)


def _stitching(sketch: Sketch, stack: Stack, stitch: Stitch, lap: float) -> None:
    for patch in stack.upper.faces:
        inside = stretch_inside(stitch.line, patch.outline)
        if inside:
            (x1, y1), (x2, y2) = stitch.line.at(inside[0]), stitch.line.at(inside[1])
            sketch.line("stitch", (x1 - lap, y1 - lap), (x2 - lap, y2 - lap))


def _across(sketch: Sketch, role: str, line: Line, box: Window, beyond: float) -> None:
    """A line drawn right across a box and a little past it."""
    left, bottom, right, top = box
    inside = stretch_inside(line, ((left, bottom), (right, bottom), (right, top), (left, top)))
    if inside:
        sketch.line(role, line.at(inside[0] - beyond), line.at(inside[1] + beyond))


def _cut_size(plan: UnitPlan, width: float) -> Length | None:
    return next((size for size in plan.cuts.values() if abs(float(size) - width) < 1e-6), None)


def _level(sketch: Sketch, start: Point, end: Point, drop: float, size: Length) -> None:
    y = start[1] + drop
    sketch.dimension((start[0], y), (end[0], y), ((start[0] + end[0]) / 2, y), Message("{size}", size=size))


def _upright(sketch: Sketch, start: Point, end: Point, beside: float, size: Length) -> None:
    x = start[0] + beside
    sketch.dimension((x, start[1]), (x, end[1]), (x, (start[1] + end[1]) / 2), Message("{size}", size=size))


def _sewn(plan: UnitPlan, window: Window, pad: float) -> Drawing:
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
    return sketch.drawn(
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
    return sketch.drawn(
        (right - reach, top - reach, right + reach * 0.8, top + reach * 0.8),
        Message("One corner enlarged: {margin} to trim beside the trim line.", margin=plan.margins.right),
    )


def _trimmed(plan: UnitPlan, window: Window, pad: float) -> Drawing:
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
    return sketch.drawn(
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
