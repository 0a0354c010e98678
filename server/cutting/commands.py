"""Changes to stock and cutting plan. One function, one transaction; solving is not inside one."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any
from uuid import UUID

from django.db.models import Max
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from api.patches import Reader, apply_changes
from api.problems import NotHere, Refused
from api.readers import length_reader, note_reader, one_of_reader, whole_reader
from piecing.cutting import Goal, cutting_plan
from piecing.cutting.plan import ClothPlan, laid_again
from piecing.errors import ClothImpossible, NothingToCut, PiecingError
from piecing.lengths import Measure, inches
from piecing.solver import Stop
from projects.commands import touch
from projects.models import Project
from projects.selectors import get_fabric, get_project
from projects.translate import style_of
from workrooms.models import Workroom
from workrooms.once import change

from . import jobs
from .models import GOALS, KINDS, CutPlan, Stock
from .translate import cloth_of, live_stock, plan_data, plan_from, stock_of, wanted_of

__all__ = [
    "begin_plan",
    "delete_stock",
    "mark_cut",
    "put_stock",
    "restore_stock",
    "stock_readers",
    "stop_plan",
    "take_cutting",
    "tick_strip",
]

_SECONDS = 6.0
MOST_STOCK = 400


def stock_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader([k for k, _ in KINDS], "kind of cloth"),
        "across": length_reader(measure),
        "along": length_reader(measure),
        "count": whole_reader(2_000, "The number of cloths", least=0),
        "name": note_reader(80),
    }


@change
def put_stock(
    room: Workroom, fabric_key: UUID, key: UUID, changes: Mapping[str, Any], seen: Mapping[str, Any]
) -> Project:
    """A cloth entered or changed; its key is made by the caller."""
    fabric = get_fabric(room, fabric_key)
    project, style = fabric.project, style_of(fabric.project)
    row = Stock.objects.filter(pk=key).first()
    if row is not None and row.fabric.project_id != project.pk:
        raise NotHere("This key belongs to another project.")
    if row is None:
        if live_stock(project).count() >= MOST_STOCK:
            raise Refused([ClothImpossible("A project holds {most} cloths at most.", most=MOST_STOCK)])
        last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0
        row = Stock(pk=key, fabric=fabric, position=last + 1, across=inches(40), along=inches(36))
        row._state.adding = True
    row.fabric = fabric
    apply_changes(row, stock_readers(style.measure), changes, seen, style.measure)
    try:
        cloth_of(row)
    except PiecingError as refusal:
        raise Refused([refusal], style) from None
    row.save()
    touch(project)
    return get_project(room, project.pk)


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
    touch(row.fabric.project)
    return get_project(room, row.fabric.project_id)


def begin_plan(room: Workroom, key: UUID, goal: str, *, along: bool, wait: bool = False) -> Project:
    """Look for a cutting plan in the background. Raises ``Refused`` when nothing is wanted or there is no stock."""
    project = get_project(room, key)
    one_of_reader([g for g, _ in GOALS], "goal")(goal)
    pieces = wanted_of(project, along=along)
    cloths = [cloth_of(s) for s in stock_of(project)]
    if not pieces:
        raise Refused([NothingToCut("Nothing is wanted from the stock yet. Plan a unit or a quilt first.")])
    if not cloths:
        raise Refused(
            [NothingToCut("There is no cloth in stock. Enter what there is of each fabric first.", field="stock")]
        )

    def work(stop: Stop) -> str:
        try:
            found = cutting_plan(pieces, cloths, Goal(goal), _SECONDS, stop)
        except PiecingError as refusal:
            CutPlan.objects.filter(project_id=key).update(asked_at=None)
            return str(refusal)
        CutPlan.objects.update_or_create(
            project_id=key,
            defaults={
                "goal": goal,
                "along": along,
                "laid": plan_data(found, pieces),
                "done": [],
                "made_at": timezone.now(),
                "asked_at": None,
            },
        )
        touch(project)
        return ""

    CutPlan.objects.update_or_create(project=project, defaults={"asked_at": timezone.now()})
    job = jobs.start(project.pk, _SECONDS, work)
    if wait and job.thread:
        job.thread.join()
    return get_project(room, key)


def stop_plan(room: Workroom, key: UUID) -> Project:
    project = get_project(room, key)
    jobs.stop(project.pk)
    return project


@change
def tick_strip(room: Workroom, key: UUID, number: int, done: bool) -> Project:
    """A strip cut, or not yet after all."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    if row is not None:
        row.done = sorted(set(row.done) | {number} if done else set(row.done) - {number})
        row.save(update_fields=["done"])
        touch(project)
    return project


@change
def mark_cut(room: Workroom, key: UUID) -> Project:
    """The plan is cut: its cloths are used up, and what is worth keeping comes back as named scraps."""
    project = get_project(room, key)
    row = CutPlan.objects.filter(project=project).first()
    kept = plan_from(row) if row else None
    if row is None or kept is None:
        raise Refused([NothingToCut("There is no cutting plan to mark as cut.")])
    fabrics = {f.role: f for f in project.fabrics.all()}
    last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0
    for cloth in map(laid_again, kept[0].cloths):
        last = _use_up(cloth, fabrics, last)
    row.laid, row.done = {}, []
    row.save()
    touch(project)
    return get_project(room, key)


def _use_up(plan: ClothPlan, fabrics: Mapping[str, Any], last: int) -> int:
    source = Stock.objects.filter(pk=plan.cloth.key.split("#")[0]).first()
    if source is not None:
        source.count = max(0, source.count - 1)
        source.deleted_at = None if source.count else timezone.now()
        source.save(update_fields=["count", "deleted_at"])
    for left in plan.left:
        last += 1
        whole = left.width == plan.cloth.across and plan.cloth.kind.value == "yardage"
        Stock.objects.create(
            fabric=fabrics[left.fabric],
            position=last,
            kind="yardage" if whole else "scrap",
            across=left.width,
            along=left.height,
            name=left.name[:80],
        )
    return last


def take_cutting(project: Project, data: Mapping[str, Any] | None, renewed: Mapping[str, str]) -> None:
    """A cutting plan from a project's file; ``renewed`` gives the cloths their new keys. Raises ``Refused``.

    Read through as it is when it is shown, so that nothing is kept that could not be.
    """
    if data is None:
        return
    made = parse_datetime(data["made_at"]) if data.get("made_at") else None
    row = CutPlan(project=project, goal=data["goal"], along=data["along"], made_at=made)
    row.done, row.extra = list(data["done"]), [list(e) for e in data["extra"]]
    try:
        row.laid = _with_keys(data["laid"], renewed)
        row.save(force_insert=True)
        plan_from(row)
        wanted_of(project)
    except (KeyError, ValueError, TypeError, IndexError, ZeroDivisionError, PiecingError):
        raise Refused([NothingToCut("The cutting plan cannot be read as one.", field="laid")]) from None


def _with_keys(laid: Mapping[str, Any], renewed: Mapping[str, str]) -> dict[str, Any]:
    """A plan as it is kept, its cloths under their new keys; ``#n`` behind a key is the nth of several alike."""
    cloths = []
    for cloth in laid.get("cloths", []):
        key, nth, number = str(cloth["cloth"][0]).partition("#")
        cloths.append({**cloth, "cloth": [renewed.get(key, key) + nth + number, *cloth["cloth"][1:]]})
    return {**laid, "cloths": cloths} if laid else {}
