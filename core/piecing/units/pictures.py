"""One unit cut, sewn and trimmed: three drawings at one scale, taken from the engine.

Source: docs/theory.md, section 3.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Line, Point, Polygon, rectangle
from ..geometry.sewing import Piece, trim
from ..planning import UnitPlan
from ..wording import Said

__all__ = ["UnitPictures", "edges_of", "pictures", "trim_box"]


@dataclass(frozen=True, slots=True)
class UnitPictures:
    """``corner`` is the sewn unit's upper right corner, enlarged so that the margin can be seen."""

    cut: Drawing
    sewn: Drawing
    corner: Drawing
    trimmed: Drawing


def trim_box(plan: UnitPlan) -> Polygon:
    """Where the trim target lies in the raw unit: centred, so that the seam keeps its corners."""
    margin = float(plan.margin)
    side = float(plan.target)
    return rectangle(side, side, (margin, margin))


def edges_of(outline: Polygon) -> tuple[Line, ...]:
    """The sides of an anticlockwise outline as lines with the cloth on their left."""
    return tuple(Line(p, outline[(i + 1) % len(outline)]) for i, p in enumerate(outline))


def pictures(plan: UnitPlan) -> UnitPictures:
    """The three stages in one window size, so that their proportions compare by eye."""
    side = float(plan.cut)
    pad = side * 0.16
    raw = plan.method.sew(side, plan.choices.seam)
    return UnitPictures(
        _cut(plan, side, pad),
        _sewn(plan, raw, _window(float(plan.raw), side, pad)),
        _corner(plan, raw),
        _trimmed(plan, raw, _window(float(plan.raw), side, pad)),
    )


def _window(shown: float, widest: float, pad: float) -> tuple[float, float, float, float]:
    """A window of one size for every stage, with what is shown in its middle."""
    beside = (widest - shown) / 2 + pad
    return -beside, -beside, shown + beside, shown + beside


def _cut(plan: UnitPlan, side: float, pad: float) -> Drawing:
    lap = pad * 0.35
    sketch = Sketch()
    sketch.polygon("face", rectangle(side, side, (lap / 2, lap / 2)), "b")
    sketch.polygon("back", rectangle(side, side, (-lap / 2, -lap / 2)), "a")
    low, high = (-lap / 2, -lap / 2), (side - lap / 2, side - lap / 2)
    diagonal = Line(low, high)
    sketch.line("blade", low, high)
    stitch = float(plan.choices.seam.stitch)
    for sign in (1, -1):
        sketch.line("stitch", *_within(diagonal.shifted(sign * stitch), low, high))
    _bottom(sketch, low, (side - lap / 2, -lap / 2), pad, Said("{size}", size=plan.cut))
    return sketch.drawn(
        _window(side, side, pad),
        Said(
            "Two squares of {size} right sides together, a cutting line on the diagonal and a sewing line on either side of it.",
            size=plan.cut,
        ),
    )


def _within(line: Line, low: Point, high: Point) -> tuple[Point, Point]:
    """The stretch of a 45-degree line inside the square from ``low`` to ``high``."""
    rise = line.start[1] - line.start[0]
    first = max(low[0], low[1] - rise)
    last = min(high[0], high[1] - rise)
    return (first, first + rise), (last, last + rise)


def _bottom(sketch: Sketch, start: Point, end: Point, pad: float, label: Said) -> None:
    drop = pad * 0.42
    sketch.dimension(
        (start[0], start[1] - drop),
        (end[0], end[1] - drop),
        ((start[0] + end[0]) / 2, start[1] - drop),
        label,
    )


def _sewn(plan: UnitPlan, raw: Piece, window: tuple[float, float, float, float]) -> Drawing:
    side, margin, pad = float(plan.raw), float(plan.margin), float(plan.cut) * 0.16
    sketch = Sketch().piece(raw).polygon("target", trim_box(plan))
    _bottom(sketch, (0.0, 0.0), (side, 0.0), pad, Said("{size}", size=plan.raw))
    height = side * 0.5
    sketch.dimension(
        (side - margin, height), (side, height), (side + pad * 1.1, height), Said("{size}", size=plan.margin)
    )
    return sketch.drawn(
        window,
        Said(
            "The sewn unit, {raw} a side before trimming, with the trim line {margin} inside each edge.",
            raw=plan.raw,
            margin=plan.margin,
        ),
    )


def _corner(plan: UnitPlan, raw: Piece) -> Drawing:
    side, margin = float(plan.raw), float(plan.margin)
    reach = max(3.2 * margin, side * 0.06)
    low, high = side - reach, side + reach * 0.8
    height = side - reach * 0.4
    sketch = Sketch().piece(raw).polygon("target", trim_box(plan))
    sketch.dimension(
        (side - margin, height),
        (side, height),
        (side + reach * 0.42, height),
        Said("{size}", size=plan.margin),
    )
    return sketch.drawn(
        (low, low, high, high),
        Said("One corner enlarged: {margin} to trim between the raw edge and the trim line.", margin=plan.margin),
    )


def _trimmed(plan: UnitPlan, raw: Piece, window: tuple[float, float, float, float]) -> Drawing:
    box = trim_box(plan)
    unit, _ = trim(raw, *edges_of(box))
    margin, allowance, pad = float(plan.margin), float(plan.choices.seam_allowance), float(plan.cut) * 0.16
    finished = float(plan.finished)
    inner = margin + allowance
    sketch = Sketch().piece(unit).polygon("finished", rectangle(finished, finished, (inner, inner)))
    _bottom(sketch, box[0], box[1], pad, Said("{size}", size=plan.target))
    above = box[2][1] + pad * 0.42
    sketch.dimension(
        (inner, above), (inner + finished, above), (inner + finished / 2, above), Said("{size}", size=plan.finished)
    )
    return sketch.drawn(
        window,
        Said(
            "The unit trimmed to {target}; the dashed line shows the {finished} that stays visible once it is joined.",
            target=plan.target,
            finished=plan.finished,
        ),
    )
