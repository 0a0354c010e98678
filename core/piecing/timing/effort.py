"""What the work of each stage usually takes: minutes for a piece, a unit, a block, the quilt.

They are only what a first forecast begins with; a quilter's own minutes replace them. Source: docs/theory, section 17.1.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

from ..blocks.counting import BlockOrder, Colourway, ordered_plans, unit_counts
from ..blocks.pattern import Pattern
from ..joining.order import Order
from ..joining.seams import block_seams
from ..joining.thread import block_join_length
from ..lengths import Length
from ..planning.unit_plan import UnitPlan
from ..units.acts import Apart, LayCorner, LayPage, LayStack, MarkLines, Opening, Sewing, Take, TrimSquare

__all__ = [
    "STAGE_ORDER",
    "Effort",
    "WorkStage",
    "again_minutes",
    "block_minutes",
    "piece_minutes",
    "quilt_minutes",
    "unit_minutes",
]


class WorkStage(StrEnum):
    """The stages that take time, in the order of the work."""

    CUT = "cut"
    SEW = "sew"
    PRESS = "press"
    TRIM = "trim"
    JOIN = "join"
    QUILT = "quilt"


STAGE_ORDER = {stage: n for n, stage in enumerate(WorkStage)}


@dataclass(frozen=True, slots=True)
class Effort:
    """Usual minutes, judged from practice: a piece sub-cut from a strip, a line drawn, two pieces laid and pinned, an inch sewn
    with starting and stopping, threads cut, a seam pressed, a unit trimmed on four sides, two units matched and joined, a part of the quilt pinned to the next."""

    PIECE = 0.3
    LINE = 0.35
    LAY = 0.25
    INCH = 1 / 25
    APART = 0.15
    PRESS = 0.25
    TRIM = 0.7
    MATCH = 0.8
    PART = 1.5


_LAYS = (LayStack, LayPage, LayCorner)


def piece_minutes(pieces: int) -> float:
    """Cutting so many pieces."""
    return Effort.PIECE * pieces


def unit_minutes(plan: UnitPlan) -> dict[WorkStage, float]:
    """Sewing, pressing and trimming one unit, read off the acts of making one batch. Nothing to sew for one of a single piece."""
    making, units = plan.simulated.making, plan.batch.units
    sew = float(making.sewn) * Effort.INCH
    press = trim = 0.0
    for moment in making.moments:
        act = moment.act
        if isinstance(act, _LAYS):
            sew += Effort.LAY * moment.times
        elif isinstance(act, MarkLines):
            sew += Effort.LINE * moment.times
        elif isinstance(act, Apart):
            sew += Effort.APART * moment.times
        elif isinstance(act, Opening):
            press += Effort.PRESS * moment.times * sum(times for _, times in act.out)
        elif isinstance(act, TrimSquare) and act.side is not None:
            trim += Effort.TRIM * moment.times
        else:
            assert isinstance(act, Take | Sewing | TrimSquare)
    if len(plan.kind.parts) == 1:
        return {}
    return {
        WorkStage.SEW: sew / units,
        WorkStage.PRESS: press / units,
        WorkStage.TRIM: trim / units + Effort.TRIM,
    }


def block_minutes(pattern: Pattern, finished: Length, allowance: Length, order: Order = Order.ROWS) -> float:
    """Joining the units of one block, its seams pressed. Raises what ``block_seams`` refuses."""
    joins = sum(1 for s in block_seams(pattern, order) if not s.inner)
    length = float(block_join_length(pattern, finished, allowance, order))
    return joins * (Effort.MATCH + Effort.PRESS) + length * Effort.INCH


@lru_cache(maxsize=256)
def again_minutes(pattern: Pattern, finished: Length, allowance: Length, step: Length) -> float:
    """Making one block once more from cloth: its pieces cut, its units made in their usual ways, a dozen of them at a time, and joined.
    Raises what ``block_seams`` refuses; a unit that cannot be planned at this size counts nothing.
    """
    dozen = 12
    minutes = 0.0
    for one in ordered_plans(
        unit_counts([BlockOrder(pattern, finished, (Colourway(dozen),))]), {}, seam_allowance=allowance, ruler_step=step
    ):
        if one.plan is not None:
            minutes += piece_minutes(sum(p.count for p in one.plan.pieces)) / dozen
            minutes += sum(unit_minutes(one.plan).values()) * one.unit.total / dozen
    return minutes + block_minutes(pattern, finished, allowance)


def quilt_minutes(parts: int, seam: Length) -> float:
    """Joining a quilt of so many parts with so much seam in all: its seams are pinned, and pressed along their whole length."""
    return max(0, parts - 1) * Effort.PART + float(seam) * Effort.INCH * 2
