"""Changes to the cutting plan and its piles. One function, one transaction; solving is not inside one."""

from __future__ import annotations

from collections.abc import Mapping
from datetime import datetime
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import F
from django.utils import timezone

from api.patches import apply_changes
from api.problems import NotHere, Refused
from api.readers import one_of_reader, whole_reader
from blocks.quilt import sizes_of
from piecing.cutting import Cloth, ClothKind, CuttingPlan, Goal
from piecing.cutting.joined import strips_for
from piecing.cutting.ledger import Pile, pieces_left, plan_of_the_rest, spare_cloths
from piecing.cutting.plan import LeftOver, PlanCost
from piecing.errors import CountOutOfRange, NothingToCut, PiecingError
from piecing.lengths import ZERO, Measure
from piecing.quilts.backing import BINDING
from piecing.solver import Stop
from projects.commands import exchange_letters, touch
from projects.models import Project
from projects.selectors import get_project
from workrooms.models import Workroom
from workrooms.once import change

from . import apart, jobs
from .ledger import keep_letters, keep_scraps, put_down, remembering, undo
from .models import GOALS, CutPile, CutPlan
from .translate import (
    binding_data,
    block_counts,
    cloths_of,
    cost_data,
    name_of,
    piles_of,
    plan_data,
    plan_from,
    stock_data,
)

__all__ = [
    "begin_plan",
    "change_pile",
    "keep_over",
    "mark_cut",
    "put_triangles_by",
    "stop_plan",
    "tick_strip",
    "undo_cutting",
]

_SECONDS = 6.0


def begin_plan(room: Workroom, key: UUID, goal: str, *, along: bool, wait: bool = False) -> Project:
    """Look for the cuts still to make, in the background. What is ticked is put down first: nothing cut is planned again.

    Raises ``Refused`` when nothing is wanted or there is no stock.
    """
    project = get_project(room, key)
    one_of_reader(GOALS, "goal")(goal)
    with transaction.atomic():
        row = CutPlan.objects.filter(project=project).first() or CutPlan(project=project)
        row.along = along
        piles = _piles_to_cut(project, row)
        cloths = cloths_of(project)
        if not cloths and not spare_cloths(piles):
            raise Refused(
                [NothingToCut("There is no cloth in stock. Enter what there is of each fabric first.", field="stock")]
            )
        asked = row.asked_at = timezone.now()
        row.save()
    blocks, stock = block_counts(project), stock_data(cloths)

    def work(stop: Stop) -> str:
        try:
            found = _looked_for(piles, cloths, Goal(goal), _SECONDS, stop)
        except PiecingError as refusal:
            CutPlan.objects.filter(project_id=key, asked_at=asked).update(asked_at=None)
            return str(refusal)
        laid = {**plan_data(found, pieces_left(piles)), "blocks": blocks, "stock": stock}
        fresh: dict[str, Any] = {
            "goal": goal,
            "along": along,
            "laid": laid,
            "done": [],
            "made_at": timezone.now(),
            "asked_at": None,
        }
        # Gone back meanwhile, nobody asks for it any more.
        if CutPlan.objects.filter(project_id=key, asked_at=asked).update(**fresh):
            touch(project)
            if not stop.asked:
                _cost_beside(project, fresh["made_at"], piles, cloths, Goal(goal), stop)
        return ""

    job = jobs.start(project.pk, _SECONDS, work)
    if wait and job.thread:
        job.thread.join()
    return get_project(room, key)


def _looked_for(piles: tuple[Pile, ...], cloths: list[Cloth], goal: Goal, seconds: float, stop: Stop) -> CuttingPlan:
    looks = apart.search if apart.is_running() else plan_of_the_rest
    return looks(piles, cloths, goal, seconds, stop)


def _cost_beside(
    project: Project, made_at: datetime, piles: tuple[Pile, ...], cloths: list[Cloth], goal: Goal, stop: Stop
) -> None:
    """What the other way of going about it would cost, kept with the plan so that one can weigh them."""
    other = Goal.FEWEST if goal is Goal.LEAST else Goal.LEAST
    found = _looked_for(piles, cloths, other, _SECONDS / 3, stop)
    with transaction.atomic():
        row = CutPlan.objects.filter(project=project, made_at=made_at).first()
        if row is not None and row.laid and not stop.asked:
            row.laid["beside"] = cost_data(PlanCost.of(found))
            row.save(update_fields=["laid"])


def _piles_to_cut(project: Project, row: CutPlan) -> tuple[Pile, ...]:
    """The ledger once what is ticked was put down. Raises ``Refused`` when nothing is left to cut."""
    if row.done:
        remembering(row, "before planning what is left", lambda: put_down(project, row))
    _choose_binding(project, row)
    piles = piles_of(project, row)
    if not any(p.wanted for p in piles):
        raise Refused([NothingToCut("Nothing is wanted from the stock yet. Plan a unit or a quilt first.")])
    if not any(p.left for p in piles):
        raise Refused([NothingToCut("Everything that is wanted is cut already.")])
    keep_letters(project, piles)
    return piles


def _choose_binding(project: Project, row: CutPlan) -> None:
    """Lengths of binding strips that come out of the cloth there is, beside what else is cut from it; not saved yet."""
    sizes = sizes_of(project)
    if sizes is None:
        return
    c = sizes.choices
    piles = [p for p in piles_of(project, row) if p.entry.fabric == c.binding_fabric]
    mine = [p for p in piles if p.joined or p.entry.name == BINDING]
    have = {p.entry.height: p.have for p in mine if p.entry.width == c.binding_strip and p.have > 0}
    others = pieces_left(p for p in piles if p not in mine)
    cloths = [cloth for cloth in cloths_of(project) if cloth.fabric == c.binding_fabric]
    strips = strips_for(sizes.binding.length, c.binding_strip, have, others, cloths, c.usable)
    row.binding = binding_data(c.binding_strip, strips)


def stop_plan(room: Workroom, key: UUID) -> Project:
    project = get_project(room, key)
    jobs.stop(project.pk)
    return project


@change
def tick_strip(room: Workroom, key: UUID, number: int, done: bool, plan: str = "") -> Project:
    """A strip cut, or not yet after all. ``plan`` names the plan whose strip it is; one of another plan is refused."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    kept = plan_from(row) if row else None
    if row is None or kept is None or (plan and plan != name_of(row)):
        raise Refused(
            [
                NothingToCut(
                    "Strip {number} belongs to a plan that was made anew since. Look at the plan as it is now, and tick there "
                    "what was cut.",
                    number=number,
                )
            ]
        )
    if number not in {s.number for c in kept[0].cloths for s in c.strips}:
        raise Refused([NothingToCut("This plan has no strip {number}.", number=number)])
    row.done = sorted(set(row.done) | {number} if done else set(row.done) - {number})
    if not done:
        _refuse_fewer(project, row)
    row.save(update_fields=["done"])
    touch(project)
    return project


def _refuse_fewer(project: Project, row: CutPlan) -> None:
    """Raises ``Refused`` when a pile would have fewer pieces cut than are put down as spoiled or used for something else."""
    short = next((p.entry for p in piles_of(project, row) if p.have < 0), None)
    if short is not None:
        raise Refused(
            [
                NothingToCut(
                    "{n, plural, one {One piece} other {# pieces}} of pile {letter} are put down as spoiled or used for something "
                    "else. Count fewer there before this strip is not cut after all.",
                    n=short.spoiled + short.given,
                    letter=short.letter,
                )
            ]
        )


@change
def exchange_fabrics(room: Workroom, key: UUID, one: str, other: str) -> Project:
    """Two fabrics change places everywhere; what is ticked is put down first as cut of the cloth that it was cut from, and the plan,
    which names its strips by the letters of before, is looked for anew. Raises what ``exchange_letters`` refuses."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    if row is not None:
        put_down(project, row)
        row.laid, row.done, row.before, row.asked_at = {}, [], {}, None
        row.save()
    return exchange_letters(room, key, one, other)


@change
def mark_cut(room: Workroom, key: UUID) -> Project:
    """Every strip of the plan is cut: pieces lie on their piles, cloths are used up, what is worth keeping comes back."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    kept = plan_from(row) if row else None
    if row is None or kept is None:
        raise Refused([NothingToCut("There is no cutting plan to mark as cut.")])

    def all_of_it() -> None:
        row.done = [s.number for c in kept[0].cloths for s in c.strips]
        put_down(project, row)

    remembering(row, "before all of it was marked as cut", all_of_it)
    row.save()
    touch(project)
    return get_project(room, key)


@change
def undo_cutting(room: Workroom, key: UUID) -> Project:
    """Plan, piles and stock as before strips were last put down."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    if row is None or not row.before:
        raise Refused([NothingToCut("There is nothing to take back here.")])
    if row.before["plan"] is not None and row.done:
        raise Refused(
            [
                NothingToCut(
                    "Strips of the newer plan are ticked, and going back would lose them. Take these ticks off first, or "
                    "plan what is left."
                )
            ]
        )
    row.asked_at = None
    undo(row)
    transaction.on_commit(lambda: jobs.stop(project.pk))
    touch(project)
    return get_project(room, key)


PILE_READERS = {
    "cut": whole_reader(20_000, "The number of pieces cut", least=0),
    "spoiled": whole_reader(20_000, "The number of pieces spoiled", least=0),
}


@change
def change_pile(room: Workroom, key: UUID, letter: str, changes: Mapping[str, Any], seen: Mapping[str, Any]) -> Project:
    """How many pieces of a pile were cut in all, and how many of them spoiled, as counted on the table."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    pile = next((p for p in piles_of(project, row) if p.entry.letter == letter), None)
    if pile is None:
        raise NotHere("There is no such pile here. What it was for may have been taken out.")
    keep_letters(project)
    kept = CutPile.objects.get(project=project, letter=letter)
    ticked = pile.entry.cut - kept.cut
    kept.cut = pile.entry.cut
    apply_changes(kept, PILE_READERS, changes, seen, Measure(project.measure))
    if kept.cut < ticked:
        raise Refused(
            [
                CountOutOfRange(
                    "{n, plural, one {One piece} other {# pieces}} of pile {letter} come from strips that are ticked. Take the tick "
                    "off a strip first, or count {n} at least.",
                    field="cut",
                    n=ticked,
                    letter=letter,
                )
            ]
        )
    if kept.spoiled + pile.entry.given > kept.cut:
        raise Refused(
            [
                CountOutOfRange(
                    "Of pile {letter} {cut, plural, one {one piece was} other {# pieces were}} cut; no more than that can be spoiled "
                    "or used for something else.",
                    field="spoiled",
                    cut=kept.cut,
                    letter=letter,
                )
            ]
        )
    kept.cut -= ticked
    kept.save()
    touch(project)
    return get_project(room, key)


@change
def put_triangles_by(room: Workroom, key: UUID, letter: str) -> Project:
    """Odd triangles of a pile that is cut go to the stock, where another pile can use them."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first() or CutPlan(project=project)
    pile = next((p for p in piles_of(project, row) if p.entry.letter == letter), None)
    if pile is None or not pile.odd:
        raise Refused([NothingToCut("Pile {letter} has no odd triangle.", letter=letter)])
    e, odd = pile.entry, pile.odd
    kind = ClothKind.HALF_TRIANGLE if e.gives == 2 else ClothKind.QUARTER_TRIANGLE

    def put_by() -> None:
        keep_letters(project)
        CutPile.objects.filter(project=project, letter=letter).update(put_by=F("put_by") + odd)
        left = LeftOver(f"from pile {letter}", e.fabric, ZERO, ZERO, e.width, e.width)
        keep_scraps(project, left, odd, kind.value)

    remembering(row, f"before odd triangles of pile {letter} were put by", put_by, plan=False)
    row.save()
    touch(project)
    return get_project(room, key)


@change
def keep_over(room: Workroom, key: UUID, letter: str) -> Project:
    """The pieces of a pile that are no longer wanted go to the stock as scraps."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first() or CutPlan(project=project)
    pile = next((p for p in piles_of(project, row) if p.entry.letter == letter), None)
    if pile is None or not pile.over:
        raise Refused([NothingToCut("Pile {letter} has no piece too many.", letter=letter)])
    e, over = pile.entry, pile.over

    def put_away() -> None:
        keep_letters(project)
        CutPile.objects.filter(project=project, letter=letter).update(given=F("given") + over)
        keep_scraps(project, LeftOver(f"from pile {letter}", e.fabric, ZERO, ZERO, e.width, e.height), over)

    remembering(row, f"before pile {letter} went to the scraps", put_away, plan=False)
    row.save()
    touch(project)
    return get_project(room, key)
