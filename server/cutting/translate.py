"""Rows to core values, and a plan to plain data and back."""

from __future__ import annotations

from collections.abc import Iterable
from fractions import Fraction
from typing import Any

from django.db.models import QuerySet

from blocks.quilt import quilt_view
from blocks.translate import find_in
from measuring.selectors import plan_of
from piecing.cutting import Cloth, ClothKind, CuttingPlan, Direction, Goal, WantedPiece
from piecing.cutting.plan import ClothPlan, CutStrip, Missing, Placed
from piecing.cutting.wanted import lettered, plain_pieces, unit_pieces
from piecing.errors import PiecingError
from piecing.lengths import Length
from piecing.planning.unit_plan import UnitPlan
from piecing.units import kind_of
from projects.models import Project

from .models import CutPlan, Stock

__all__ = ["cloth_of", "directions_of", "plain_of", "plan_data", "plan_from", "stock_of", "unit_plans_of", "wanted_of"]


def live_stock(project: Project) -> QuerySet[Stock]:
    """Cloths there are, of fabrics there are."""
    return Stock.objects.filter(fabric__project=project, fabric__deleted_at=None, deleted_at=None)


def stock_of(project: Project) -> list[Stock]:
    return list(live_stock(project).select_related("fabric"))


def cloth_of(row: Stock) -> Cloth:
    return Cloth(str(row.pk), row.fabric.role, row.across, row.along, ClothKind(row.kind), row.count, row.name)


def directions_of(project: Project) -> dict[str, Direction]:
    return {f.role: Direction(f.direction) for f in project.fabrics.all()}


def unit_plans_of(project: Project) -> list[UnitPlan]:
    """The plan of every planned unit; those that cannot be planned are left out."""
    found = []
    for unit in project.units.all():
        unit.project = project
        try:
            found.append(plan_of(unit))
        except PiecingError:
            continue
    return found


def plain_of(project: Project, *, along: bool = False) -> tuple[WantedPiece, ...]:
    """Plain pieces of the quilt, if there are blocks."""
    view = quilt_view(project, find_in(project.workroom))
    return plain_pieces(view.sizes.pieces, directions_of(project), along=along) if view.sizes and view.picture else ()


def wanted_of(project: Project, *, along: bool = False) -> tuple[WantedPiece, ...]:
    """Every piece of every planned unit, and of the quilt if there are blocks."""
    directions = directions_of(project)
    units = (p for u in unit_plans_of(project) for p in unit_pieces(u, kind_of(u.spec.kind).title, directions))
    return lettered([*units, *plain_of(project, along=along), *_from_lists(project, directions)])


def _from_lists(project: Project, directions: dict[str, Direction]) -> list[WantedPiece]:
    """Pieces that came in by CSV."""
    row = CutPlan.objects.filter(project=project).first()
    found = []
    for n, (role, width, height, count, name) in enumerate(row.extra if row else ()):
        turns = directions.get(role, Direction.NONE) is Direction.NONE or width == height
        found.append(WantedPiece(f"list{n}", role, _length(width), _length(height), count, name, turns))
    return found


def plan_data(plan: CuttingPlan, pieces: Iterable[WantedPiece]) -> dict[str, Any]:
    """The plan exactly, with the pieces it was made for."""
    return {
        "gap": plan.gap,
        "proven": plan.proven,
        "pieces": [_piece_data(p) for p in pieces],
        "missing": [[m.piece.key, m.count] for m in plan.missing],
        "cloths": [
            {
                "cloth": _cloth_data(c.cloth),
                "used": str(c.used.rational),
                "strips": [
                    [s.number, str(s.y.rational), str(s.depth.rational), [_placed_data(p) for p in s.placed]]
                    for s in c.strips
                ],
            }
            for c in plan.cloths
        ],
    }


def _piece_data(p: WantedPiece) -> list[Any]:
    size = (str(p.width.rational), str(p.height.rational))
    return [p.key, p.fabric, *size, p.count, p.name, p.turns, p.gives, p.along_cloth]


def _cloth_data(c: Cloth) -> list[Any]:
    return [c.key, c.fabric, str(c.across.rational), str(c.along.rational), c.kind.value, c.name]


def _placed_data(p: Placed) -> list[str]:
    return [p.piece.key, *(str(x.rational) for x in (p.x, p.y, p.width, p.height))]


def _length(text: str) -> Length:
    return Length.of(Fraction(text))


def plan_from(row: CutPlan) -> tuple[CuttingPlan, tuple[WantedPiece, ...]] | None:
    """The plan kept, and its pieces; None when none was made."""
    data = row.laid
    if not data:
        return None
    pieces = {
        p[0]: WantedPiece(p[0], p[1], _length(p[2]), _length(p[3]), p[4], p[5], p[6], p[7], p[8])
        for p in data["pieces"]
    }
    cloths = []
    for c in data["cloths"]:
        key, fabric, across, along, kind, name = c["cloth"]
        cloth = Cloth(key, fabric, _length(across), _length(along), ClothKind(kind), 1, name)
        strips = tuple(
            CutStrip(
                number, _length(y), _length(depth), tuple(Placed(pieces[k], *map(_length, at)) for k, *at in placed)
            )
            for number, y, depth, placed in c["strips"]
        )
        cloths.append(ClothPlan(cloth, strips, _length(c["used"]), ()))
    missing = tuple(Missing(pieces[k], n) for k, n in data["missing"])
    plan = CuttingPlan(Goal(row.goal), tuple(cloths), missing, data["gap"], data["proven"])
    return plan, tuple(pieces.values())


def cutting_data(project: Project) -> dict[str, Any] | None:
    """The cutting plan with what is ticked, and the lists that came in, as they are kept; ``None`` before there is one."""
    row = CutPlan.objects.filter(project=project).first()
    if row is None:
        return None
    made = row.made_at.isoformat() if row.made_at else None
    return {
        "goal": row.goal,
        "along": row.along,
        "laid": row.laid,
        "done": row.done,
        "extra": row.extra,
        "made_at": made,
    }
