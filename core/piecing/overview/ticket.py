"""The bench ticket: one unit's cutting, sewing, pressing and trimming on one sheet, the same on paper as on screen.

Source: docs/theory, section 13.8.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from ..drawings.unit import design_picture
from ..geometry.drawing import Drawing
from ..lengths import Length
from ..messages import Message
from ..planning.on_the_way import laid_together, sizes_between
from ..planning.unit_plan import CutPiece, UnitPlan
from ..trimming import Cutter, Ruler, expectation, recipes

__all__ = ["NEEDLE", "Ticket", "ticket"]


NEEDLE = Message("Never sew over pins; take each out before the needle reaches it.")
_LONG_BATCH = 40
_REST = Message("A long batch: stand up now and then, rest the wrist.")


@dataclass(frozen=True, slots=True)
class Ticket:
    """``boxes`` are batches to tick off, ``per_box`` units each."""

    kind: str
    method: str
    wanted: Message
    cut: tuple[Message, ...]
    sew: tuple[Message, ...]
    press: Message
    trim: tuple[Message, ...]
    target: Length
    target_height: Length
    tips: tuple[Message, ...]
    boxes: int
    per_box: int
    cautions: tuple[Message, ...]
    picture: Drawing


def ticket(
    plan: UnitPlan, fabrics: Mapping[str, str], rulers: Sequence[Ruler], cutter: Cutter = Cutter.RIGHT
) -> Ticket:
    """One unit's ticket; ``fabrics`` are names by role."""
    recipe = recipes(plan, rulers, cutter)[0]
    stages = plan.simulated.making.stages
    expected = expectation(plan)
    tips = tuple(
        Message("{mark}: {at} from the {side} edge", mark=m.name, at=m.distance, side=m.side) for m in expected.marks
    )
    hands = Message("{drawn} as drawn, {other} mirrored", drawn=plan.choices.count, other=plan.choices.mirrored)
    cautions = (*recipe.cautions, NEEDLE, *((_REST,) if plan.made > _LONG_BATCH else ()))
    return Ticket(
        kind=plan.spec.kind,
        method=plan.method.name,
        wanted=hands if plan.handed else Message("{n} wanted, {made} made", n=plan.wanted, made=plan.made),
        cut=tuple(_cut(p, fabrics, plan) for p in plan.pieces),
        sew=(*laid_together(plan, fabrics), *(s.title for s in stages), *sizes_between(plan)),
        press=_press(plan),
        trim=tuple(Message("{title}: {how}", title=s.title, how=s.how) for s in recipe.steps),
        target=plan.target_width,
        target_height=plan.target_height,
        tips=tips,
        boxes=plan.batches,
        per_box=plan.batch.units,
        cautions=tuple(dict.fromkeys(cautions)),
        picture=design_picture(plan.kind.design(plan.spec), Message("The finished unit.")),
    )


def _cut(p: CutPiece, fabrics: Mapping[str, str], plan: UnitPlan) -> Message:
    name = fabrics.get(p.role, p.role.upper())
    further = {2: ", each cut once on the diagonal", 4: ", each cut on both diagonals"}.get(p.gives, "")
    return Message(
        "{n, plural, one {one square} other {# squares}} {w}, {fabric}{further}{which}"
        if p.is_square
        else "{n} of {w} by {h}, {fabric}{further}{which}",
        n=p.count,
        w=p.width,
        h=p.height,
        fabric=name,
        further=further,
        # Of several pieces, which one goes where; a diagonal says it already.
        which=f", {plan.method.size_name(p.name)}" if len(plan.pieces) > 2 and not further else "",
    )


def _press(plan: UnitPlan) -> Message:
    if len(plan.kind.parts) == 1:
        return Message("Press flat.")
    return Message("Set each seam closed, open it toward the darker cloth, press up and down, never across the bias.")
