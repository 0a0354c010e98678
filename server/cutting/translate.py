"""Rows to core values, and a plan to plain data and back."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import replace
from fractions import Fraction
from typing import Any

from django.db.models import QuerySet

from api.looked_up import looked_up_once
from blocks.quilt import sizes_of, strips_cut_of
from blocks.selectors import blocks_of
from measuring.selectors import plan_of
from piecing.cutting import Cloth, ClothKind, CuttingPlan, Goal, WantedPiece
from piecing.cutting.ledger import Entry, Pile, ledger, ticked_pieces
from piecing.cutting.plan import ClothPlan, CutStrip, Missing, Placed, PlanCost
from piecing.cutting.wanted import cut_as_measured, plain_pieces, unit_pieces
from piecing.errors import PiecingError
from piecing.lengths import Area, Length
from piecing.lengths.surd import Surd
from piecing.planning.unit_plan import UnitPlan, still_to_make
from piecing.prints import Direction
from piecing.quilts.joined import Strips, strips_settled
from piecing.quilts.sizes import QuiltSizes
from piecing.units import kind_of
from projects.models import Project
from projects.translate import directions_of

from .models import CutPile, CutPlan, Stock

__all__ = [
    "binding_data",
    "binding_strips",
    "block_counts",
    "cloth_of",
    "cloths_of",
    "cost_data",
    "cost_from",
    "cut_plan_of",
    "cutting_data",
    "entries_of",
    "kind_asked",
    "name_of",
    "now_of",
    "piles_of",
    "plain_of",
    "plan_data",
    "plan_from",
    "stock_data",
    "stock_of",
    "triangles_of",
    "unit_plans_of",
    "wanted_of",
]


def live_stock(project: Project) -> QuerySet[Stock]:
    """What the project has reserved, of fabrics there are."""
    return Stock.objects.filter(fabric__project=project, fabric__deleted_at=None, deleted_at=None)


@looked_up_once
def stock_of(project: Project) -> list[Stock]:
    return list(live_stock(project).select_related("fabric"))


def cloths_of(project: Project) -> list[Cloth]:
    """What pieces are cut from."""
    return [c for s in stock_of(project) if (c := cloth_of(s)).kind.is_cloth]


def triangles_of(project: Project) -> list[Cloth]:
    """What is cut already and used before squares are."""
    return [c for s in stock_of(project) if (c := cloth_of(s)).kind.of_a_square > 1]


def cloth_of(row: Stock) -> Cloth:
    role = row.fabric.role if row.fabric else ""
    return Cloth(str(row.pk), role, row.across, row.along, ClothKind(row.kind), row.count, row.name, row.across_most)


def kind_asked(changes: Mapping[str, Any]) -> ClothKind:
    """The kind of a cloth that is entered, yardage where none is told that there is; what is nonsense is refused with the rest."""
    return next((k for k in ClothKind if k.value == changes.get("kind")), ClothKind.YARDAGE)


@looked_up_once
def unit_plans_of(project: Project) -> list[UnitPlan]:
    """The plan of every planned unit, strips between blocks as they were measured; those that cannot be planned, or are all there already,
    are left out."""
    found = []
    for unit in project.units.all():
        unit.project = project
        if not sum(still_to_make(unit.count, unit.mirrored, unit.ready, unit.spoiled)):
            continue
        try:
            found.append(plan_of(unit))
        except PiecingError:
            continue
    return list(cut_as_measured(found, strips_cut_of(project)))


def plain_of(project: Project, row: CutPlan | None) -> tuple[WantedPiece, ...]:
    """Plain pieces of the quilt, if there are blocks; its binding from the strips that were chosen when cuts were planned."""
    sizes = sizes_of(project)
    if sizes is None:
        return ()
    pieces = plain_pieces(sizes.pieces, directions_of(project), along=row is not None and row.along)
    strips = binding_strips(sizes, row)
    return tuple(
        q
        for p in pieces
        for q in (
            [replace(p, key=f"{p.key}.{n}", height=h, count=c) for n, (h, c) in enumerate(strips.items())]
            if p.joined
            else [p]
        )
    )


def binding_strips(sizes: QuiltSizes, row: CutPlan | None) -> Strips:
    """The strips that the binding is joined from: those chosen, brought to what is needed by now."""
    c = sizes.choices
    kept = row.binding if row else {}
    mine = kept.get("strip") == str(c.binding_strip.rational)
    chosen = {_length(length): int(n) for length, n in kept["lengths"]} if mine else {}
    return strips_settled(sizes.binding.length, c.binding_strip, chosen, c.usable)


def binding_data(width: Length, strips: Strips) -> dict[str, Any]:
    """Strips chosen, as they are kept."""
    return {"strip": str(width.rational), "lengths": [[str(k.rational), n] for k, n in sorted(strips.items())]}


def wanted_of(project: Project, row: CutPlan | None) -> list[WantedPiece]:
    """Every piece of every planned unit, and of the quilt if there are blocks; ``row`` holds what was chosen for cutting."""
    directions = directions_of(project)
    units = (p for u in unit_plans_of(project) for p in unit_pieces(u, kind_of(u.spec.kind).title, directions))
    return [*units, *plain_of(project, row), *_from_lists(row, directions)]


def entries_of(project: Project) -> list[Entry]:
    """What is kept of the project's piles, of fabrics there are."""
    rows = CutPile.objects.filter(project=project, fabric__deleted_at=None).select_related("fabric")
    return [
        Entry(r.letter, r.fabric.role, r.width, r.height, r.gives, r.name, r.cut, r.spoiled, r.given, r.put_by)
        for r in rows
    ]


def piles_of(project: Project, row: CutPlan | None, *, ticked: bool = True) -> tuple[Pile, ...]:
    """Every pile as it stands, strips ticked on the plan ``row`` counted as cut; not ``ticked``, as last put down."""
    entries = entries_of(project)
    kept = plan_from(row) if row and ticked else None
    if row and kept:
        cut, given = ticked_pieces(kept[0], row.done)
        entries = [
            replace(e, cut=e.cut + cut.get(e.letter, 0), given=e.given + given.get(e.letter, 0)) for e in entries
        ]
    return ledger(wanted_of(project, row), entries, triangles_of(project))


@looked_up_once
def cut_plan_of(project: Project) -> CutPlan | None:
    return CutPlan.objects.filter(project=project).first()


@looked_up_once
def now_of(project: Project) -> tuple[Pile, ...]:
    """Every pile as it stands now, with what is ticked."""
    return piles_of(project, cut_plan_of(project))


def _from_lists(row: CutPlan | None, directions: dict[str, Direction]) -> list[WantedPiece]:
    """Pieces that came in by CSV."""
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


def cost_data(cost: PlanCost) -> list[Any]:
    """What another plan would cost, as it is kept."""
    return [cost.goal.value, str(cost.used.value.p), cost.strips, cost.depths, cost.cuts, cost.short]


def cost_from(row: CutPlan) -> PlanCost | None:
    """The cost of the plan that was found beside the one kept, if one was."""
    kept = row.laid.get("beside")
    if not kept:
        return None
    goal, used, strips, depths, cuts, short = kept
    return PlanCost(Goal(goal), Area(Surd(Fraction(used))), strips, depths, cuts, short)


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


def name_of(row: CutPlan) -> str:
    """What tells one plan from another."""
    return row.made_at.isoformat() if row.made_at else ""


def block_counts(project: Project) -> dict[str, list[Any]]:
    """Name and number of every block of the project, by key."""
    return {
        str(b.pk): [str(b.pattern.get("name", "")), sum(int(w["count"]) for w in b.colourways)]
        for b in blocks_of(project)
    }


def stock_data(cloths: Iterable[Cloth]) -> list[list[Any]]:
    """What there was to cut from."""
    return sorted([c.key, c.fabric, str(c.across.rational), str(c.along.rational), c.count] for c in cloths)


def cutting_data(project: Project) -> dict[str, Any] | None:
    """The cutting plan with what is ticked, and the lists that came in, as they are kept; ``None`` before there is one."""
    row = cut_plan_of(project)
    if row is None:
        return None
    made = row.made_at.isoformat() if row.made_at else None
    return {
        "goal": row.goal,
        "along": row.along,
        "binding": row.binding,
        "laid": row.laid,
        "done": row.done,
        "extra": row.extra,
        "made_at": made,
        "piles": [
            [
                p.letter,
                p.fabric.role,
                str(p.width.rational),
                str(p.height.rational),
                p.gives,
                p.name,
                p.cut,
                p.spoiled,
                p.given,
                p.put_by,
            ]
            for p in CutPile.objects.filter(project=project, fabric__deleted_at=None).select_related("fabric")
        ],
    }
