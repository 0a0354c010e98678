"""The usual cautions, each once and where its risk is. They give way to the makers' instructions and the rules of the room.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from enum import StrEnum

from ..messages import Message
from .steps import BenchStage

__all__ = ["CAUTIONS", "DEFER", "Risk", "cautions_for"]


class Risk(StrEnum):
    """Where someone can be hurt."""

    BLADE = "blade"
    IRON = "iron"
    NEEDLE = "needle"
    RIPPER = "ripper"
    SITTING = "sitting"


CAUTIONS: dict[Risk, tuple[Message, ...]] = {
    Risk.BLADE: (
        Message("Close the blade every time you put it down."),
        Message("Cut away from the body, fingers clear of the ruler's edge; a cut-proof glove helps."),
        Message("Change a nicked blade: it slips."),
    ),
    Risk.IRON: (Message("Steam burns. Stand the iron up, and unplug it when you leave."),),
    Risk.NEEDLE: (
        Message("Never sew over pins; take each out before the needle reaches it."),
        Message("Keep hands clear of the needle. Wear glasses: a needle may break."),
    ),
    Risk.RIPPER: (Message("Unpick away from yourself, on the table, never toward the hand that holds the cloth."),),
    Risk.SITTING: (Message("A long sitting: stand up now and then, rest the wrist."),),
}
DEFER = Message("The makers' instructions and the rules of the room come first.")

_STAGES = {
    BenchStage.SEW: (Risk.NEEDLE,),
    BenchStage.PRESS: (Risk.IRON,),
    BenchStage.TRIM: (Risk.BLADE,),
    BenchStage.JOIN: (Risk.NEEDLE,),
}
_LONG = 40
"""Units in one sitting from which on a rest is spoken of."""


def cautions_for(stage: BenchStage, *, cuts: bool = False, units: int = 0) -> tuple[Message, ...]:
    """What to mind at a stage; ``cuts`` when something is cut apart in it, ``units`` how many are worked in one sitting."""
    risks = [*_STAGES[stage]]
    if cuts and Risk.BLADE not in risks:
        risks.append(Risk.BLADE)
    if units > _LONG:
        risks.append(Risk.SITTING)
    return (*(m for r in risks for m in CAUTIONS[r]), DEFER)
