"""Putting down what was cut: the ledger's rows, the stock it came from, and the way back. Called within a change."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Mapping
from typing import Any

from django.db.models import F, Max, Q
from django.db.models.functions import Greatest
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from piecing.cutting.ledger import Pile, of_pile, remains, ticked_pieces
from piecing.cutting.plan import ClothPlan, LeftOver
from projects.models import Project

from .models import CutPile, CutPlan, Stock
from .translate import live_stock, piles_of, plan_from

__all__ = ["keep_letters", "keep_scraps", "put_down", "remembering", "undo"]


def keep_letters(project: Project, piles: Iterable[Pile] | None = None) -> None:
    """From now on every pile that is wanted keeps its letter, and the name of what it is for."""
    fabrics = {f.role: f.pk for f in project.fabrics.all()}
    known = {r.letter: r for r in CutPile.objects.filter(project=project)}
    if piles is None:
        piles = piles_of(project, CutPlan.objects.filter(project=project).first(), ticked=False)
    for p in piles:
        e = p.entry
        if e.fabric not in fabrics:
            continue
        if e.letter not in known:
            CutPile.objects.create(
                project=project,
                fabric_id=fabrics[e.fabric],
                letter=e.letter,
                width=e.width,
                height=e.height,
                gives=e.gives,
                name=e.name,
            )
        elif p.wanted and known[e.letter].name != e.name:
            CutPile.objects.filter(pk=known[e.letter].pk).update(name=e.name)


def remembering(row: CutPlan, said: str, act: Callable[[], object], *, plan: bool = True) -> None:
    """Does it, and keeps in the row (not saved) what it changed: piles by how much, cloths from what to what, and the ``plan`` that
    stood, so that ``undo`` takes back this and nothing that was entered since."""
    stood = _plan_of(row) if plan else None
    piles, stock = _piles(row), _stock(row)
    act()
    now_piles, now_stock = _piles(row), _stock(row)
    more = {k: [n - o for n, o in zip(now, piles.get(k, (0, 0, 0)), strict=True)] for k, now in now_piles.items()}
    row.before = {
        "said": said,
        "plan": stood,
        "piles": {k: by for k, by in more.items() if any(by)},
        "stock": {k: [old, now_stock[k]] for k, old in stock.items() if now_stock[k] != old},
        "made": [k for k in now_stock if k not in stock],
    }


def _plan_of(row: CutPlan) -> dict[str, Any]:
    made = row.made_at.isoformat() if row.made_at else None
    return {
        "laid": row.laid,
        "done": row.done,
        "goal": row.goal,
        "along": row.along,
        "binding": row.binding,
        "made_at": made,
    }


def _piles(row: CutPlan) -> dict[str, tuple[int, int, int]]:
    """Pieces cut and given away, and triangles put by, by letter."""
    return {p.letter: (p.cut, p.given, p.put_by) for p in CutPile.objects.filter(project_id=row.project_id)}


def _stock(row: CutPlan) -> dict[str, list[Any]]:
    """How many of each cloth there are, and since when there is none."""
    cloths = Stock.objects.filter(fabric__project_id=row.project_id)
    return {str(s.pk): [s.count, s.deleted_at.isoformat() if s.deleted_at else None] for s in cloths}


def put_down(project: Project, row: CutPlan) -> bool:
    """Strips ticked on the plan are cut for good: their pieces lie on the piles, their cloths are used up, and what is left of
    those is in the stock with its real size. Returns whether any were."""
    kept = plan_from(row)
    if kept is None or not row.done:
        return False
    keep_letters(project)
    cut, given = ticked_pieces(kept[0], row.done)
    for letter in {*cut, *given}:
        CutPile.objects.filter(project=project, letter=letter).update(
            cut=F("cut") + cut.get(letter, 0), given=F("given") + given.get(letter, 0)
        )
    for cloth in kept[0].cloths:
        if any(s.number in set(row.done) for s in cloth.strips):
            _use_up(project, cloth, row.done)
    row.laid, row.done = {}, []
    return True


def _use_up(project: Project, plan: ClothPlan, done: Iterable[int]) -> None:
    if not of_pile(plan.cloth):
        source = live_stock(project).filter(pk=plan.cloth.key.split("#")[0]).first()
        if source is None:
            # Taken out of the stock, or put on the shelf, meanwhile: nothing of it comes back.
            return
        source.count = max(0, source.count - 1)
        source.deleted_at = None if source.count else timezone.now()
        source.save(update_fields=["count", "deleted_at"])
    for left in remains(plan, done):
        whole = left.width == plan.cloth.across and plan.cloth.kind.value == "yardage"
        keep_scraps(project, left, 1, "yardage" if whole else "scrap")


def keep_scraps(project: Project, left: LeftOver, count: int, kind: str = "scrap") -> None:
    """Cloth that comes back into the stock under its name."""
    fabric = project.fabrics.filter(role=left.fabric).first()
    if fabric is None:
        return
    last = Stock.objects.filter(fabric__project=project).aggregate(last=Max("position"))["last"] or 0
    Stock.objects.create(
        workroom=project.workroom,
        fabric=fabric,
        position=last + 1,
        kind=kind,
        across=left.width,
        along=left.height,
        count=count,
        name=left.name[:80],
    )


def undo(row: CutPlan) -> None:
    """Takes back what was put down last. What was counted, entered or changed since then stays."""
    before: Mapping[str, Any] = row.before
    for letter, (cut, given, *put_by) in before["piles"].items():
        pile = CutPile.objects.filter(project_id=row.project_id, letter=letter)
        pile.update(cut=Greatest(F("cut") - cut, 0), given=Greatest(F("given") - given, 0))
        if put_by:
            pile.update(put_by=Greatest(F("put_by") - put_by[0], 0))
    now = _stock(row)
    for key, (old, then) in before["stock"].items():
        if now.get(key) == then:
            Stock.objects.filter(pk=key).update(count=old[0], deleted_at=old[1] and parse_datetime(old[1]))
    # What was put on the shelf since is taken back too; what another project reserved is that one's.
    mine = Q(fabric__project_id=row.project_id) | Q(fabric=None)
    Stock.objects.filter(mine, pk__in=before["made"], deleted_at=None).update(deleted_at=timezone.now())
    if before["plan"] is not None:
        stood = before["plan"]
        row.laid, row.done, row.goal, row.along = stood["laid"], stood["done"], stood["goal"], stood["along"]
        row.binding = stood.get("binding", {})
        row.made_at = parse_datetime(stood["made_at"]) if stood["made_at"] else None
    row.before = {}
    row.save()
