"""What a unit trimmed true shows, and how it looks when the trim slipped by a sixteenth. Source: docs/theory, section 6."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..geometry.drawing import Drawing, Sketch
from ..geometry.plane import Polygon, sides_of
from ..geometry.sewing import trim
from ..lengths import ZERO, Length, inches
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from ..units.kind import Mark
from .registers import register_for, tip_stands

__all__ = ["Expectation", "expectation", "margin_read"]

_SLIP = inches("1/16")


@dataclass(frozen=True, slots=True)
class Expectation:
    """``marks``: tips and crossings with their distances. ``true`` and ``slipped`` enlarge the same spot of the unit."""

    marks: tuple[Mark, ...]
    says: Message
    reassures: Message | None
    true: Drawing
    slipped: Drawing
    slip: Length


def margin_read(plan: UnitPlan, raw_sizes: Sequence[Length]) -> Length | None:
    """What the raw units measured so far leave a side, on average; None when none was measured."""
    if not raw_sizes:
        return None
    mean = Length.near(sum(float(r) for r in raw_sizes) / len(raw_sizes))
    rule = plan.method.ladders(plan.spec)[0]
    target = plan.method.rungs(rule, plan.spec, plan.cuts, plan.allowance, plan.take_up)[2]
    return (mean - target) / 2


def expectation(plan: UnitPlan) -> Expectation:
    """The marks of the plan's kind, and two drawings of the spot that tells."""
    register = register_for(plan)
    stands = tip_stands(plan)
    marks = tuple(
        replace(m, distance=stands) if m.name.startswith("tip") else m
        for m in plan.kind.marks(plan.spec, plan.allowance)
    )
    tips = any(m.distance == stands for m in marks)
    box = plan.simulated.box
    dx, dy = (float(_SLIP) * d for d in register.slip)
    moved = tuple((x + dx, y + dy) for x, y in box)
    return Expectation(
        marks=marks,
        says=register.true,
        reassures=Message(
            "Every tip stands {s} in from the raw edge. That looks wrong and is right: the next seam takes it up.",
            s=stands,
        )
        if tips
        else None,
        true=_spot(plan, box, register.look_at, Message("As it should be.")),
        slipped=_spot(
            plan, moved, register.look_at, Message("The same spot when the trim slipped by {slip}.", slip=_SLIP)
        ),
        slip=_SLIP,
    )


def _spot(plan: UnitPlan, box: Polygon, look_at: tuple[float, float], alt: Message) -> Drawing:
    unit, _ = trim(plan.simulated.raw, *sides_of(box))
    (x1, y1), (x2, y2) = box[0], box[2]
    reach = max(float(plan.allowance) * 3, 0.2 * min(x2 - x1, y2 - y1))
    x = x1 + (x2 - x1) * look_at[0]
    y = y1 + (y2 - y1) * look_at[1]
    sketch = Sketch().piece(unit)
    s = float(plan.allowance)
    if plan.allowance > ZERO:
        sketch.polygon("finished", ((x1 + s, y1 + s), (x2 - s, y1 + s), (x2 - s, y2 - s), (x1 + s, y2 - s)))
    left = x - reach if look_at[0] >= 1 else x - reach / 1.4
    low = y - reach if look_at[1] >= 1 else y - reach / 1.4
    return sketch.to_drawing((left, low, left + reach * 1.4, low + reach * 1.4), alt)
