"""Which cautions stand at which stage of the bench. Source: docs/theory, section 15."""

from __future__ import annotations

from ..cautions import Risk, cautions
from ..messages import Message
from .steps import BenchStage

__all__ = ["cautions_for"]

_STAGES = {
    BenchStage.SEW: Risk.NEEDLE,
    BenchStage.PRESS: Risk.IRON,
    BenchStage.TRIM: Risk.BLADE,
    BenchStage.JOIN: Risk.NEEDLE,
}
_LONG = 40
"""Units in one sitting from which on a rest is spoken of."""


def cautions_for(*stages: BenchStage, cuts: bool = False, units: int = 0) -> tuple[Message, ...]:
    """What to mind at these stages; ``cuts`` when something is cut apart in them, ``units`` how many are worked in one sitting."""
    risks = [_STAGES[s] for s in stages]
    if cuts:
        risks.append(Risk.BLADE)
    if units > _LONG:
        risks.append(Risk.SITTING)
    return cautions(*risks)
