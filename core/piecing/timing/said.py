"""Chores, sittings and what is behind, in words. Source: docs/theory, section 17.3."""

from __future__ import annotations

from ..messages import Message
from .effort import WorkStage
from .pace import PaceForecast
from .words import Minutes

__all__ = ["STAGE_WORDS", "behind_said", "forecast_said", "task_said"]

STAGE_WORDS = {
    WorkStage.CUT: "Cutting",
    WorkStage.SEW: "Sewing",
    WorkStage.PRESS: "Pressing",
    WorkStage.TRIM: "Trimming",
    WorkStage.JOIN: "Joining",
    WorkStage.QUILT: "Putting the quilt together",
}
"""What a stage is called as work."""
_DO = {
    WorkStage.CUT: "Cut {what}: {n}",
    WorkStage.SEW: "Sew {what}: {n}",
    WorkStage.PRESS: "Press {what}: {n}",
    WorkStage.TRIM: "Trim {what}: {n}",
    WorkStage.JOIN: "Join {what}: {n}",
    WorkStage.QUILT: "Put {what} together",
}


def task_said(stage: WorkStage, what: Message | str, count: int) -> Message:
    """What is done in a sitting: so many are finished in it; none: it is begun, or gone on with."""
    if not count:
        return Message("{stage}: {what}, as far as it goes", stage=STAGE_WORDS[stage], what=what)
    return Message(_DO[stage], what=what, n=f"{count:,}")


def behind_said(stage: WorkStage, what: str, until: int, through: int) -> Message:
    """What the plan that was kept would have done by now, and what is."""
    return Message(
        "{stage}, {what}: by the plan you kept {until} would be done by now, {through} are.",
        stage=STAGE_WORDS[stage],
        what=what,
        until=f"{until:,}",
        through=f"{through:,}",
    )


def forecast_said(told: PaceForecast) -> Message:
    """How long it takes: one figure, and from what to what it may well be."""
    if not told.minutes:
        return Message("Nothing is left to do.")
    return Message(
        "About {minutes}; it may be {quick} or {slow}.",
        minutes=Minutes(told.minutes),
        quick=Minutes(told.quick),
        slow=Minutes(told.slow),
    )
