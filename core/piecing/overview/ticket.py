"""The bench ticket: what a unit or a block is sewn from without a screen, the same on paper as on screen.

Its steps are those of the bench, its trimming is the recipe's, its sizes are the plan's: nothing is said anew here.
Source: docs/theory, section 13.8.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field

from ..drawings.unit import design_picture
from ..geometry.drawing import Drawing
from ..handling.cautions import cautions_for
from ..handling.from_map import SeamWays
from ..handling.joining_steps import JoinStep
from ..handling.lots import LotPlan, wound_before
from ..handling.marking import Marking
from ..handling.quilt_step import QuiltStep
from ..handling.steps import BenchStage, UnitStep, unit_steps
from ..lengths import Length, inches
from ..messages import Listing, Message
from ..planning.on_the_way import laid_together
from ..planning.unit_plan import CutPiece, UnitPlan
from ..trimming import Cutter, Recipe, Ruler, expectation, recipes

__all__ = ["BlockTicket", "HandsOfUnit", "QuiltTicket", "Ticket", "block_ticket", "ticket"]

Letters = Mapping[tuple[str, Length, Length, int], str]


@dataclass(frozen=True)
class HandsOfUnit:
    """What the bench knows beyond the plan: fabrics' ``names`` and ``values`` by role, how lines are marked, the piles' letters,
    the lots, what a bobbin holds, how the pressing map presses the seams within the unit, and what is done so far."""

    names: Mapping[str, str]
    values: Mapping[str, int] = field(default_factory=dict)
    marking: Marking = Marking.CENTRE
    letters: Letters | None = None
    lots: tuple[LotPlan, ...] = ()
    bobbin: Length = inches(2500)
    mapped: SeamWays | None = None
    done: Message | None = None


@dataclass(frozen=True)
class Ticket:
    """One unit; of a single piece, cut to size, nothing is sewn or trimmed. ``lots`` are boxes to tick off, ``per_go`` units for each go; a fresh bobbin goes in before those ``wound``."""

    kind: str
    method: str
    wanted: Message
    done: Message | None
    cut: tuple[Message, ...]
    pairs: tuple[Message, ...]
    steps: tuple[UnitStep, ...]
    recipe: Recipe | None
    target: Length
    target_height: Length
    tips: tuple[Message, ...]
    lots: tuple[LotPlan, ...]
    wound: tuple[int, ...]
    goes: int
    per_go: int
    cautions: tuple[Message, ...]
    picture: Drawing


@dataclass(frozen=True)
class BlockTicket:
    """One block: in which order it is joined, how it is pressed, what to check."""

    name: str
    wanted: Message
    steps: tuple[JoinStep, ...]
    cautions: tuple[Message, ...]
    picture: Drawing


@dataclass(frozen=True)
class QuiltTicket:
    """Blocks into rows, rows into the quilt, its borders."""

    wanted: Message
    steps: tuple[QuiltStep, ...]
    cautions: tuple[Message, ...]
    picture: Drawing


def ticket(plan: UnitPlan, hands: HandsOfUnit, rulers: Sequence[Ruler], cutter: Cutter = Cutter.RIGHT) -> Ticket:
    """One unit's ticket."""
    recipe = recipes(plan, rulers, cutter)[0]
    steps = unit_steps(plan, hands.names, hands.values, hands.marking, hands.letters, hands.mapped)
    expected = expectation(plan)
    tips = tuple(
        Message("{mark}: {at} from the {side} edge", mark=m.name, at=m.distance, side=m.side) for m in expected.marks
    )
    drawn = Message("{drawn} as drawn, {other} mirrored", drawn=plan.choices.count, other=plan.choices.mirrored)
    sewn = len(plan.kind.parts) > 1
    stages = (BenchStage.TRIM, *((BenchStage.SEW, BenchStage.PRESS) if sewn else ()))
    return Ticket(
        kind=plan.spec.kind,
        method=plan.method.name,
        wanted=drawn if plan.handed else Message("{n} wanted, {made} made", n=plan.wanted, made=plan.made),
        done=hands.done,
        cut=tuple(_cut_said(p, hands, plan) for p in plan.pieces),
        pairs=laid_together(plan, hands.names),
        steps=steps if sewn else (),
        recipe=recipe if sewn else None,
        target=plan.target_width,
        target_height=plan.target_height,
        tips=tips,
        lots=hands.lots,
        wound=wound_before(hands.lots, hands.bobbin),
        goes=plan.batches,
        per_go=plan.batch.units,
        cautions=cautions_for(*stages, units=plan.made),
        picture=design_picture(plan.kind.design(plan.spec), Message("The finished unit.")),
    )


def block_ticket(
    name: str, count: int, steps: tuple[JoinStep, ...], picture: Drawing, colourways: Sequence[Message] = ()
) -> BlockTicket:
    """One block's ticket, from the steps of joining it."""
    wanted = Message("{n, plural, one {one block} other {# blocks}} to join", n=count)
    if colourways:
        wanted = Message("{wanted}. In all {ways}", wanted=wanted, ways=Listing(colourways, " "))
    return BlockTicket(name, wanted, steps, cautions_for(BenchStage.JOIN, BenchStage.PRESS), picture)


def _cut_said(p: CutPiece, hands: HandsOfUnit, plan: UnitPlan) -> Message:
    name = hands.names.get(p.role, p.role.upper())
    further = {2: ", each cut once on the diagonal", 4: ", each cut on both diagonals"}.get(p.gives, "")
    letter = (hands.letters or {}).get((p.role, p.width, p.height, p.gives), "")
    said = Message(
        "{n, plural, one {one square} other {# squares}} {w}, {fabric}{further}{which}"
        if p.is_square
        else "{n} of {w} by {h}, {fabric}{further}{which}",
        n=p.count,
        w=p.width,
        h=p.height,
        fabric=name,
        further=further,
        # Of several pieces, which one goes where; a diagonal says it already.
        which=f", {plan.method.size_name(p.name)}" if plan.told_apart and not further else "",
    )
    return Message("{letter}: {said}", letter=letter, said=said) if letter else said
