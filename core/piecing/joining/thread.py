"""Thread: how much the seams of a project take, and how many bobbins to wind. Source: docs/theory, section 13.7."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from math import ceil

from ..blocks.pattern import Pattern
from ..lengths import Length, Measure, inches, mm
from ..messages import Message
from ..planning.unit_plan import UnitPlan
from .order import Order
from .seams import block_seams

__all__ = ["BOBBIN", "PER_SEAM", "Thread", "block_join_length", "run_said", "thread_needed", "unit_seam_length"]

PER_SEAM = 3
"""Thread on top and in the bobbin together, for each inch of seam."""


BOBBIN = inches(36 * 65)
"""Thread on a common bobbin: 65 yards."""
_BY_THE_YARD = 2
"""Yards, or metres, from which seam and thread are told by them."""


@dataclass(frozen=True, slots=True)
class Thread:
    """Length of seam, of thread, and how many bobbins of ``bobbin`` each to wind (its half of the thread, and one over)."""

    seam: Length
    thread: Length
    bobbins: int


def unit_seam_length(plan: UnitPlan) -> Length:
    """All that is sewn for the units of a plan, as it is sewn: through the pieces as cut, before anything is trimmed."""
    return Length.near(plan.simulated.making.sewn * plan.batches)


def block_join_length(pattern: Pattern, finished: Length, allowance: Length, order: Order = Order.ROWS) -> Length:
    """The seams that join the units of one block, each sewn from raw edge to raw edge. Raises what ``block_seams`` refuses."""
    part = float(finished) / float(pattern.width)
    joins = (s for s in block_seams(pattern, order) if not s.inner)
    return Length.near(sum(s.length * part + 2 * float(allowance) for s in joins))


def thread_needed(seams: Iterable[Length], bobbin: Length) -> Thread:
    """Thread and bobbins for seams of these lengths; ``bobbin`` is what one holds. Half the thread is the bobbin's;
    the first one wound is counted.
    """
    seam = Length.near(sum(float(s) for s in seams)).round_up(inches(1))
    thread = seam * PER_SEAM
    return Thread(seam, thread, ceil(float(thread) / 2 / float(bobbin)) + 1 if float(seam) else 0)


def run_said(length: Length, measure: Measure) -> Message:
    """A run of seam or thread as it is told: in whole yards or metres, rounded up; a short one in whole inches or centimetres."""
    metric = measure is Measure.MILLIMETRES
    whole = mm(1000) if metric else inches(36)
    if length < whole * _BY_THE_YARD:
        return Message("{length}", length=length.round_up(mm(10) if metric else inches(1)))
    count = int(length.round_up(whole).rational / whole.rational)
    return Message("{count} m", count=count) if metric else Message("{count} yd", count=count)
