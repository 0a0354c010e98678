"""Reads of stock, plan and purchases."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass, replace
from datetime import datetime
from fractions import Fraction
from functools import lru_cache
from typing import Any
from uuid import UUID

from blocks.quilt import quilt_of, sizes_of, strips_between_of, strips_cut_of
from blocks.selectors import blocks_of
from blocks.translate import apart_in, colourways_of, find_in, joining_of, makings_of, pattern_of
from piecing.blocks.boxes import with_finished
from piecing.blocks.counting import BlockOrder, Colourway, ordered_plans, unit_counts
from piecing.cutting import Cloth, CuttingPlan, WantedPiece, flaws
from piecing.cutting.buying import BackingPurchase, Purchase, Shop, backing_purchase, shop_step
from piecing.cutting.fitting import BlocksGiven, Suggestion, blocks_given, suggestions
from piecing.cutting.ledger import Pile, of_pile, pieces_left
from piecing.cutting.plan import ClothPlan, LeftOver, PlanCost, laid_again
from piecing.cutting.wanted import unit_pieces
from piecing.drawings.cloth import cloth_picture, first_said, strip_said
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.joining.thread import BOBBIN, Thread, block_join_length, run_said, thread_needed, unit_seam_length
from piecing.lengths import ZERO, Area, Length, Measure, inches, mm
from piecing.messages import Message
from piecing.quilts.joined import strips_said
from piecing.quilts.seams import binding_seam_length, quilt_join_length
from piecing.quilts.sizes import QuiltSizes
from piecing.quilts.top import cut_last_said
from piecing.trimming import Cutter
from piecing.units import kind_of
from projects.models import Project
from projects.selectors import get_project
from projects.translate import directions_of
from workrooms.selectors import current_workroom, owned_rulers

from . import jobs
from .models import CutPlan, Stock
from .purchasing import purchasing
from .translate import (
    binding_strips,
    block_counts,
    cloth_of,
    cloths_of,
    cost_from,
    cut_plan_of,
    name_of,
    now_of,
    piles_of,
    plain_of,
    plan_from,
    stock_data,
    stock_of,
    unit_plans_of,
)
from .waiting import waiting_of

__all__ = ["Buying", "CuttingSheet", "Possible", "buying_of", "possible_of", "sheet_of"]


@dataclass(frozen=True)
class StripView:
    number: int
    said: Message
    ruler: Message
    done: bool
    depth: Length
    top: float


@dataclass(frozen=True)
class ClothView:
    name: str
    fabric: str
    across: Length
    along: Length
    used: Length
    picture: Drawing
    letters: tuple[tuple[str, float, float], ...]
    first: Message | None
    strips: tuple[StripView, ...]
    left: tuple[LeftOver, ...]


@dataclass(frozen=True)
class CutPlanSheet:
    goal: str
    cloths: tuple[ClothView, ...]
    missing: tuple[Any, ...]
    gap_percent: float
    proven: bool
    strips: int
    depths: int
    used: Area
    cut: Area
    waste_percent: float
    flaws: tuple[Message, ...]
    changed: tuple[Message, ...]
    costs: tuple[Message, ...]
    name: str


@dataclass(frozen=True)
class JobView:
    running: bool
    share: float
    failed: str


@dataclass(frozen=True)
class CuttingSheet:
    project: Project
    stock: list[Stock]
    piles: tuple[Pile, ...]
    plan: CutPlanSheet | None
    job: JobView
    left: int
    undo: str
    waiting: tuple[Message, ...] = ()
    binding: Message | None = None
    last: Message | None = None


_INTERRUPTED = "Looking for the cuts was interrupted when the program stopped. Plan the cuts again."


def sheet_of(project: Project) -> CuttingSheet:
    # The job first: one that ends meanwhile has said so in the row.
    job = jobs.job_of(project.pk)
    seen = JobView(job.running, job.share, job.failed) if job else JobView(False, 0.0, "")
    stock, row = stock_of(project), cut_plan_of(project)
    piles = tuple(p for p in piles_of(project, row) if p.wanted or p.entry.cut or p.ready)
    if row and row.asked_at and not seen.running and not seen.failed:
        seen = JobView(False, 0.0, _INTERRUPTED)
    view = _plan_view(project, row, stock) if row else None
    undo = str(row.before.get("said", "")) if row else ""
    left, waiting, binding = sum(p.left for p in piles), tuple(waiting_of(project)), _binding_said(project, row)
    last = _cut_last(project, piles)
    return CuttingSheet(project, stock, piles, view, seen, left, undo, waiting, binding, last)


def _cut_last(project: Project, piles: Iterable[Pile]) -> Message | None:
    """What is better not cut yet, of what is still to cut."""
    sizes = sizes_of(project)
    still = [p.entry for p in piles if p.left]
    left = {(e.fabric, e.width, e.height) for e in still}
    # A strip longer than the cloth is wide is cut in several lengths.
    narrow = {(e.fabric, min(e.width, e.height)) for e in still}
    later = [
        p.name for p in (sizes.pieces if sizes else ()) if p.later and (p.fabric, p.cut_width, p.cut_height) in left
    ]
    cut = {s.between.key for s in strips_cut_of(project)}
    strips = sum(
        n
        for b in strips_between_of(project)
        for fabric, width, n in b.cut_widths(project.seam_allowance)
        if b.key not in cut and (fabric, width) in narrow
    )
    return cut_last_said(later, strips)


def _binding_said(project: Project, row: CutPlan | None) -> Message | None:
    sizes = sizes_of(project)
    return strips_said(binding_strips(sizes, row), sizes.choices.binding_strip) if sizes else None


def _plan_view(project: Project, row: CutPlan, stock: list[Stock]) -> CutPlanSheet | None:
    kept = plan_from(row)
    if kept is None:
        return None
    plan, pieces = kept
    room = project.workroom
    cutter, rulers = Cutter(room.cutter), owned_rulers(room)
    done = set(row.done)
    cloths = tuple(_cloth_view(c, cutter, rulers, done) for c in map(laid_again, plan.cloths))
    cut, used = float(plan.cut_area.value), float(plan.used_area.value)
    settled = piles_of(project, row, ticked=False)
    found = flaws(plan, pieces, [*(c for s in stock if (c := cloth_of(s)).kind.is_cloth), *_cut_up(plan)])
    return CutPlanSheet(
        row.goal,
        cloths,
        plan.missing,
        round(100 * plan.gap, 1),
        plan.proven,
        plan.strips,
        plan.depths,
        plan.used_area,
        plan.cut_area,
        round(100 * (1 - cut / used), 1) if used else 0.0,
        tuple(dict.fromkeys(f.said for f in found)),
        (
            *_piece_changes(row, pieces, settled, block_counts(project)),
            *_stock_changes(row, plan, stock),
        ),
        tuple(c.said for c in (PlanCost.of(plan), cost_from(row)) if c),
        name_of(row),
    )


def _cut_up(plan: CuttingPlan) -> list[Cloth]:
    """Pieces that the plan cuts smaller, as the cloths that they were when it was made."""
    found: dict[str, Cloth] = {}
    for c in plan.cloths:
        if of_pile(c.cloth):
            key = c.cloth.key.split("#")[0]
            nth = int(c.cloth.key.partition("#")[2] or 0) + 1
            found[key] = replace(c.cloth, key=key, count=max(nth, found[key].count if key in found else 1))
    return list(found.values())


def _stock_changes(row: CutPlan, plan: CuttingPlan, stock: Iterable[Stock]) -> Iterator[Message]:
    """A plan that was short, when there is other cloth by now; and cloth that is gone."""
    then = row.laid.get("stock")
    if plan.missing and then is not None and then != stock_data(c for s in stock if (c := cloth_of(s)).kind.is_cloth):
        yield Message("The stock has changed: what was short may be there now.")
    there, told = {str(s.pk) for s in stock}, set[str]()
    for cut in plan.cloths:
        key = cut.cloth.key.split("#")[0]
        if not of_pile(cut.cloth) and key not in there | told:
            told.add(key)
            yield Message("{cloth}, which this plan cuts, is no longer in the stock.", cloth=cut.cloth.called)


def _piece_changes(
    row: CutPlan, planned: Iterable[WantedPiece], piles: Iterable[Pile], blocks: Mapping[str, list[Any]]
) -> Iterator[Message]:
    """What is no longer as it was when the plan was made: blocks by their number, then piles by what is left to cut."""
    then = {p.key: p.count for p in planned}
    left = {p.entry.letter: p.left for p in piles if p.left or p.entry.letter in then}
    if all(left.get(k, 0) == n for k, n in then.items()) and all(k in then for k, n in left.items() if n):
        return
    before = row.laid.get("blocks", {})
    for key, (name, count) in blocks.items():
        was = before.get(key, [name, 0])[1]
        if before and was != count:
            yield Message(
                "{name}: {was, plural, =0 {no block} one {one block} other {# blocks}} became {count}.",
                name=name,
                was=was,
                count=count,
            )
    for letter in sorted({*then, *left}, key=lambda k: (len(k), k)):
        more = left.get(letter, 0) - then.get(letter, 0)
        if more:
            yield Message(
                "Pile {letter}: {n, plural, one {one piece} other {# pieces}} more to cut."
                if more > 0
                else "Pile {letter}: {n, plural, one {one piece} other {# pieces}} less to cut.",
                letter=letter,
                n=abs(more),
            )


def _cloth_view(c: ClothPlan, cutter: Cutter, rulers: Any, done: set[int]) -> ClothView:
    picture = cloth_picture(c, cutter)
    _, _, wide, high = picture.window
    letters = []
    for p in c.placed:
        x = float(p.x + p.width / 2)
        x = wide - x if cutter is Cutter.LEFT else x
        letters.append((p.piece.key, x / wide, float(p.y + p.height / 2) / high))
    said = ((s, strip_said(s, rulers, c.cloth)) for s in c.strips)
    strips = tuple(
        StripView(s.number, w.said, w.ruler, s.number in done, s.depth, float(s.y + s.depth / 2) / high)
        for s, w in said
    )
    name = c.cloth.called
    return ClothView(
        name,
        c.cloth.fabric,
        c.cloth.across,
        c.cloth.along,
        c.used,
        picture,
        tuple(letters),
        first_said(c.cloth),
        strips,
        c.left,
    )


@dataclass(frozen=True)
class Possible:
    """``blocks``: what the stock gives of each block alone. ``ways``: what would fit instead."""

    blocks: tuple[BlocksGiven, ...]
    ways: tuple[Suggestion, ...]


def possible_of(project: Project) -> Possible:
    """How many of each block the stock gives, and, when the plan is short, which other way of making fits.

    Worked out once for a state of the project, since it is looked at far more often than it changes.
    """
    return _possible(project.pk, project.updated_at)


@lru_cache(maxsize=64)
def _possible(key: UUID, _at: datetime) -> Possible:
    project = get_project(current_workroom(), key)
    find, cloths = find_in(project.workroom), cloths_of(project)
    quilt = quilt_of(project)
    directions = directions_of(project)
    blocks = []
    for block in blocks_of(project):
        if block.part:
            continue
        try:
            pattern = pattern_of(block, find).complete()
        except PiecingError:
            continue

        def pieces(n: int, pattern: Any = pattern, finished: Length = block.finished) -> list[WantedPiece]:
            units = unit_counts([BlockOrder(pattern, finished, (Colourway(n),))])
            plans = ordered_plans(
                units, makings_of(quilt), seam_allowance=project.seam_allowance, ruler_step=project.ruler_step
            )
            return [p for c in plans if c.plan for p in unit_pieces(c.plan, c.unit.spec.kind, directions)]

        blocks.append(blocks_given(pattern.name, pieces, cloths))
    return Possible(tuple(blocks), tuple(_ways(project, cloths)))


def _ways(project: Project, cloths: list[Any]) -> list[Suggestion]:
    row = cut_plan_of(project)
    kept = plan_from(row) if row else None
    if row is None or kept is None or not kept[0].missing:
        return []
    plans, rest = unit_plans_of(project), plain_of(project, row)

    def pieces(units: Any) -> list[WantedPiece]:
        made = [p for u in units for p in unit_pieces(u, u.spec.kind, directions_of(project))]
        return [*made, *rest]

    return list(suggestions(plans, pieces, cloths))


@dataclass(frozen=True)
class Buying:
    purchases: tuple[Purchase, ...]
    refusal: str
    shrinkage_percent: int
    wrong_cuts: int
    thread: Thread
    seam_said: Message
    thread_said: Message
    seams: tuple[tuple[Message, Length, Message], ...]
    backing: BackingPurchase | None
    backing_fabric: str
    better_coming: bool


def buying_of(project: Project, shrinkage: int = 3, wrong_cuts: int = 1, bobbin: int = 0) -> Buying:
    """What to buy for the whole project, its backing, and the thread that its seams take.

    ``shrinkage`` in a hundred; ``bobbin`` in yards, or in metres when the project is measured in millimetres (0: a common
    one).
    """
    measure = Measure(project.measure)
    shop = Shop(step=shop_step(measure), shrinkage=Fraction(shrinkage, 100), wrong_cuts=wrong_cuts)
    yard = mm(1000) if measure is Measure.MILLIMETRES else inches(36)
    sizes = sizes_of(project)
    row = cut_plan_of(project)
    seams = tuple(_seams(project, sizes, row))
    thread = thread_needed([length for _, length in seams], yard * bobbin if bobbin else BOBBIN)
    backing = backing_purchase(sizes.backing[0], shop) if sizes else None
    try:
        found, coming = purchasing(pieces_left(now_of(project)), shop)
        refusal = ""
    except PiecingError as misfit:
        found, coming, refusal = (), False, str(misfit)
    role = sizes.choices.backing_fabric if sizes else ""
    seam, whole = (run_said(length, measure) for length in (thread.seam, thread.thread))
    step = mm(10) if measure is Measure.MILLIMETRES else inches(1)
    told = tuple((said, length.round_up(step), run_said(length, measure)) for said, length in seams)
    return Buying(found, refusal, shrinkage, shop.wrong_cuts, thread, seam, whole, told, backing, role, coming)


def _seams(project: Project, sizes: QuiltSizes | None, row: CutPlan | None) -> Iterator[tuple[Message, Length]]:
    """What is sewn, lot by lot, and how long its seams are as they are sewn."""
    for unit in unit_plans_of(project):
        spec, kind, sewn = unit.spec, kind_of(unit.spec.kind), unit_seam_length(unit)
        if not sewn.sign:
            continue
        yield (
            Message(
                "{n, plural, one {one {one}} other {# {many}}} finishing {size}",
                n=unit.wanted,
                one=kind.title.lower(),
                many=kind.many,
                size=spec.size,
            ),
            sewn,
        )
    find = find_in(project.workroom)
    for block in blocks_of(project):
        try:
            whole = pattern_of(block, find)
            pattern = with_finished(whole, apart_in(block, whole))
            one = block_join_length(pattern, block.finished, project.seam_allowance, joining_of(block, pattern))
        except PiecingError:
            continue
        count = sum(w.count for w in colourways_of(block))
        yield (
            Message("joining {n, plural, one {one block} other {# blocks}} of {name}", n=count, name=pattern.name),
            one * count,
        )
    if sizes is not None:
        yield Message("joining the quilt, with what is between and round its blocks"), quilt_join_length(sizes)
        yield (
            Message("sewing the binding on, and its joins"),
            binding_seam_length(sizes, sum(binding_strips(sizes, row).values())),
        )
        best = sizes.backing[0]
        if best.seam > ZERO:
            yield Message("joining the backing"), best.seam
