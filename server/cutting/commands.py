"""Changes to stock and cutting plan. One function, one transaction; solving is not inside one."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from datetime import datetime
from fractions import Fraction
from typing import Any
from uuid import UUID

from django.db import transaction
from django.db.models import F, Max
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import length_reader, maybe_length_reader, note_reader, one_of_reader, whole_reader
from blocks.quilt import sizes_of
from piecing.cutting import Cloth, ClothKind, CuttingPlan, Goal
from piecing.cutting.joined import strips_for
from piecing.cutting.ledger import Pile, of_pile, pieces_left, plan_of_the_rest, spare_cloths, ticked_pieces
from piecing.cutting.plan import LeftOver, PlanCost
from piecing.cutting.stock import usual_size
from piecing.errors import ClothImpossible, CountOutOfRange, NothingToCut, PiecingError
from piecing.lengths import ZERO, Length, Measure, Style
from piecing.quilts.backing import BINDING
from piecing.solver import Stop
from projects.commands import exchange_letters, touch
from projects.models import Project
from projects.selectors import get_fabric, get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from . import apart, jobs
from .ledger import keep_letters, keep_scraps, put_down, remembering, undo
from .models import GOALS, KINDS, CutPile, CutPlan, Stock
from .translate import (
    binding_data,
    block_counts,
    cloths_of,
    cost_data,
    kind_asked,
    live_stock,
    name_of,
    piles_of,
    plan_data,
    plan_from,
    stock_data,
)

__all__ = [
    "as_can_be",
    "begin_plan",
    "change_pile",
    "checked",
    "delete_stock",
    "keep_over",
    "mark_cut",
    "put_stock",
    "put_triangles_by",
    "restore_stock",
    "stock_readers",
    "stop_plan",
    "take_cutting",
    "tick_strip",
    "undo_cutting",
]

_SECONDS = 6.0
MOST_STOCK = 400


def stock_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader(KINDS, "kind of cloth"),
        "across": length_reader(measure),
        "along": length_reader(measure),
        "across_most": maybe_length_reader(measure),
        "count": whole_reader(2_000, "The number of cloths", least=0),
        "name": note_reader(80),
        "other": note_reader(80),
    }


@change
def put_stock(
    room: Workroom, fabric_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Project:
    """A cloth entered or changed; its key is made by the caller."""
    fabric = get_fabric(room, fabric_key)
    project, style = fabric.project, style_of(fabric.project)
    row = Stock.objects.filter(pk=key).first()
    if row is not None and (row.fabric is None or row.fabric.project_id != project.pk):
        raise NotHere("This cloth is on the shelf or reserved for another project by now.")
    if row is None:
        if live_stock(project).count() >= MOST_STOCK:
            raise Refused([ClothImpossible("A project holds {most} cloths at most.", most=MOST_STOCK)])
        last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0
        across, along = usual_size(kind_asked(changes), style.measure)
        row = Stock(pk=key, workroom=room, fabric=fabric, position=last + 1, across=across, along=along)
        row._state.adding = True
    row.fabric = fabric
    apply_changes(row, stock_readers(style.measure), changes, seen, style.measure)
    checked(row, style.measure)
    row.save()
    touch(project)
    return get_project(room, project.pk)


def checked(row: Stock, measure: Measure) -> None:
    """Raises ``Refused`` for what cannot be."""
    try:
        as_can_be(row)
    except PiecingError as refusal:
        raise Refused([refusal], Style(measure)) from None


def as_can_be(row: Stock) -> Stock:
    """What is cut or sewn already is known by one side. Raises ``ClothImpossible``."""
    if not ClothKind(row.kind).is_cloth:
        row.along, row.across_most = row.across, None
    Cloth("", "", row.across, row.along, ClothKind(row.kind), row.count, row.name, row.across_most)
    return row


def _get(room: Workroom, key: UUID) -> Stock:
    row = Stock.objects.select_related("fabric__project").filter(pk=key, fabric__project__workroom=room).first()
    if row is None:
        raise NotHere("There is no such cloth here. It may have been removed in another window.")
    return row


@change
def delete_stock(room: Workroom, key: UUID) -> Project:
    """Hidden, not erased: ``restore_stock`` is the undo."""
    return _stamp(_get(room, key), room, timezone.now())


@change
def restore_stock(room: Workroom, key: UUID) -> Project:
    return _stamp(_get(room, key), room, None)


def _stamp(row: Stock, room: Workroom, at: Any) -> Project:
    row.deleted_at = at
    row.save(update_fields=["deleted_at"])
    assert row.fabric is not None
    touch(row.fabric.project)
    return get_project(room, row.fabric.project_id)


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
    looks = apart.search if apart.begun() else plan_of_the_rest
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


def take_cutting(project: Project, data: Mapping[str, Any] | None, renewed: Mapping[str, str]) -> None:
    """A cutting plan from a project's file; ``renewed`` gives the cloths their new keys. Raises ``Refused``.

    Read through as it is when it is shown, so that nothing is kept that could not be.
    """
    if data is None:
        return
    # As it is by now: what the file brought in before this is not in what was read of the project at its beginning.
    project = get_project(project.workroom, project.pk)
    made = parse_datetime(data["made_at"]) if data.get("made_at") else None
    row = CutPlan(project=project, goal=data["goal"], along=data["along"], made_at=made)
    row.binding = data.get("binding", {})
    row.done, row.extra = list(data["done"]), [list(e) for e in data["extra"]]
    try:
        row.laid = _with_keys(data["laid"], renewed)
        row.save(force_insert=True)
        _take_piles(project, data["piles"] if "piles" in data else _piles_of(data["laid"]))
        _without_cloth(row, renewed)
        # With what is ticked: pieces spoiled may have come from strips that were not put down yet.
        if any(p.have < 0 for p in piles_of(project, row)):
            raise ValueError("more spoiled than cut")
    except (KeyError, ValueError, TypeError, IndexError, ZeroDivisionError, PiecingError):
        raise Refused([NothingToCut("The cutting plan cannot be read as one.", field="laid")]) from None


def _without_cloth(row: CutPlan, renewed: Mapping[str, str]) -> None:
    """A plan whose cloth did not come along is not kept; what is ticked on it was cut all the same."""
    kept = plan_from(row)
    missing = kept and any(
        not of_pile(c.cloth) and c.cloth.key.split("#")[0] not in renewed.values() for c in kept[0].cloths
    )
    if kept and missing:
        cut, given = ticked_pieces(kept[0], row.done)
        for pile in CutPile.objects.filter(project=row.project):
            pile.cut += cut.get(pile.letter, 0)
            pile.given += given.get(pile.letter, 0)
            pile.save()
        row.laid, row.done = {}, []
        row.save()


def _piles_of(laid: Mapping[str, Any]) -> Iterable[Iterable[Any]]:
    """Of a file from before there was a ledger: the piles of its plan, under the letters that stand in it."""
    found: dict[tuple[Any, ...], list[Any]] = {}
    for letter, role, width, height, _count, name, _turns, gives, *_ in laid.get("pieces", ()):
        found.setdefault((role, width, height, gives), [letter, role, width, height, gives, name, 0, 0, 0])
    return found.values()


def _take_piles(project: Project, piles: Iterable[Iterable[Any]]) -> None:
    fabrics = {f.role: f for f in project.fabrics.all()}
    for letter, role, width, height, gives, name, cut, spoiled, given, *put_by in piles:
        CutPile.objects.create(
            project=project,
            fabric=fabrics[role],
            letter=letter,
            width=Length.of(Fraction(width)),
            height=Length.of(Fraction(height)),
            gives=gives,
            name=name,
            cut=cut,
            spoiled=spoiled,
            given=given,
            put_by=put_by[0] if put_by else 0,
        )


def _with_keys(laid: Mapping[str, Any], renewed: Mapping[str, str]) -> dict[str, Any]:
    """A plan as it is kept, its cloths under their new keys; ``#n`` behind a key is the nth of several alike."""
    cloths = []
    for cloth in laid.get("cloths", []):
        key, nth, number = str(cloth["cloth"][0]).partition("#")
        cloths.append({**cloth, "cloth": [renewed.get(key, key) + nth + number, *cloth["cloth"][1:]]})
    return {**laid, "cloths": cloths} if laid else {}
