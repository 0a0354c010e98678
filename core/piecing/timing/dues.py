"""When what has to be done: all by a day, a block each week or month, a stage a week as groups set it.

Source: docs/theory, section 17.4.
"""

from __future__ import annotations

from datetime import date, timedelta
from enum import StrEnum

from dateutil.relativedelta import relativedelta

from .effort import STAGE_ORDER, WorkStage

__all__ = ["Rhythm", "due_of"]


class Rhythm(StrEnum):
    """How the days are set by which things have to be done."""

    NONE = "none"
    DAY = "day"
    BLOCK_WEEK = "block_week"
    BLOCK_MONTH = "block_month"
    STAGE_WEEK = "stage_week"


def due_of(rhythm: Rhythm, first: date | None, stage: WorkStage, block: int, blocks: int) -> date | None:
    """The day by which a stage of the so-and-so-many-th of ``blocks`` (from nought) has to be done, when the ``first`` thing is due
    on that day. A month later is the same day of the month, or its last day. The quilt is due with what comes after the last
    block."""
    if first is None or rhythm is Rhythm.NONE:
        return None
    if rhythm is Rhythm.DAY:
        return first
    if rhythm is Rhythm.STAGE_WEEK:
        return first + timedelta(weeks=STAGE_ORDER[stage])
    nth = blocks if stage is WorkStage.QUILT else block
    return first + (timedelta(weeks=nth) if rhythm is Rhythm.BLOCK_WEEK else relativedelta(months=nth))
