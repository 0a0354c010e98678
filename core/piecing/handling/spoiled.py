"""Why something had to be made again, and what that cost in cloth and minutes.

Source: docs/theory, section 17.6.
"""

from __future__ import annotations

from enum import StrEnum

from ..lengths import Area
from ..planning.unit_plan import UnitPlan

__all__ = ["WHY_WORDS", "Why", "cloth_again"]


class Why(StrEnum):
    """What went wrong with a piece that is made again."""

    CUT = "cut"
    TURNED = "turned"
    SEAM = "seam"
    TRIMMED = "trimmed"
    CLOTH = "cloth"
    OTHER = "other"


WHY_WORDS = {
    Why.CUT: "cut wrong",
    Why.TURNED: "sewn the wrong way round",
    Why.SEAM: "seam off",
    Why.TRIMMED: "trimmed too small",
    Why.CLOTH: "frayed, stained or stretched",
    Why.OTHER: "something else",
}
"""What each is called."""


def cloth_again(plan: UnitPlan, units: int) -> dict[str, Area]:
    """Cloth by fabric role that goes into so many units more, in whole goes of the method: it does not cut half a pair."""
    goes = -(-units // plan.batch.units)
    found: dict[str, Area] = {}
    for piece in plan.pieces_for(plan.choices, goes):
        area = Area.near(float(piece.width) * float(piece.height) * piece.count)
        found[piece.role] = Area.sum([found[piece.role], area]) if piece.role in found else area
    return found
