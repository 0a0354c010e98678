"""Putting down what was cut: the ledger's rows, the stock it came from, and the way back. Called within a change."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from typing import Any

from django.db.models import F, Max
from django.utils import timezone
from django.utils.dateparse import parse_datetime

from piecing.cutting.ledger import Pile, of_pile, remains, ticked_pieces
from piecing.cutting.plan import ClothPlan, LeftOver
from projects.models import Project

from .models import CutPile, CutPlan, Stock
from .translate import piles_of, plan_from

__all__ = ["keep_letters", "keep_scraps", "put_down", "undo", "what_stands"]


def keep_letters(project: Project, piles: Iterable[Pile] | None = None) -> None:
    """From now on every pile that is wanted keeps its letter, and the name of what it is for."""
    fabrics = {f.role: f.pk for f in project.fabrics.all()}
    known = {r.letter: r for r in CutPile.objects.filter(project=project)}
    for p in piles if piles is not None else piles_of(project):
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


def what_stands(row: CutPlan, said: str) -> dict[str, Any]:
    """Plan, piles and stock as they are, to be gone back to."""
    return {
        "said": said,
        "laid": row.laid,
        "done": row.done,
        "goal": row.goal,
        "along": row.along,
        "made_at": row.made_at.isoformat() if row.made_at else None,
        "piles": {p.letter: [p.cut, p.spoiled, p.given] for p in CutPile.objects.filter(project_id=row.project_id)},
        "stock": [
            [str(s.pk), s.count, s.deleted_at.isoformat() if s.deleted_at else None]
            for s in Stock.objects.filter(fabric__project_id=row.project_id)
        ],
    }


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
        source = Stock.objects.filter(pk=plan.cloth.key.split("#")[0]).first()
        if source is None or source.deleted_at is not None:
            # Taken out of the stock meanwhile: nothing of it comes back.
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
        fabric=fabric,
        position=last + 1,
        kind=kind,
        across=left.width,
        along=left.height,
        count=count,
        name=left.name[:80],
    )


def undo(row: CutPlan) -> None:
    """Back to what stood before the last strips were put down; cloth entered since then stays."""
    before: Mapping[str, Any] = row.before
    for letter, (cut, spoiled, given) in before["piles"].items():
        CutPile.objects.filter(project_id=row.project_id, letter=letter).update(cut=cut, spoiled=spoiled, given=given)
    CutPile.objects.filter(project_id=row.project_id).exclude(letter__in=before["piles"]).update(
        cut=0, spoiled=0, given=0
    )
    known = {key: (count, gone) for key, count, gone in before["stock"]}
    for stock in Stock.objects.filter(fabric__project_id=row.project_id):
        if str(stock.pk) in known:
            stock.count, stock.deleted_at = known[str(stock.pk)]
        elif str(stock.pk) in before.get("made", []):
            stock.deleted_at = timezone.now()
        else:
            continue
        stock.save(update_fields=["count", "deleted_at"])
    row.laid, row.done, row.goal, row.along = before["laid"], before["done"], before["goal"], before["along"]
    row.made_at = parse_datetime(before["made_at"]) if before["made_at"] else None
    row.before = {}
    row.save()
