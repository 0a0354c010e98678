"""Where a project stands: what is laid out, planned, cut and left, and what to do next."""

from __future__ import annotations

from dataclasses import dataclass
from uuid import UUID

from blocks.quilt import quilt_view
from blocks.rounding import sizes_off
from blocks.selectors import blocks_of
from cutting.translate import live_stock, now_of
from cutting.waiting import waiting_of
from measuring.models import ReadingRow
from piecing.cutting.ledger import Pile
from piecing.messages import Message
from piecing.units import kind_of
from projects.models import PlannedUnit, Project
from projects.translate import spec_of

from .overview import Bench, bench_of_project

__all__ = ["Next", "Standing", "standing_of"]


@dataclass(frozen=True, slots=True)
class Next:
    """The stage to go to, and why; ``of`` is the unit or block that it is for, if it is for one."""

    stage: str
    said: Message
    of: UUID | None = None


@dataclass(frozen=True, slots=True)
class _Facts:
    blocks: bool
    waiting: bool
    wanted: int
    left: int
    readings: int
    bench: Bench


@dataclass(frozen=True)
class Standing:
    """``waiting`` says what keeps blocks and units from being cut for, ``off`` which sizes do not read round; ``piles`` is the cut list."""

    blocks: tuple[Message, ...]
    units: tuple[Message, ...]
    quilt: Message | None
    waiting: tuple[Message, ...]
    off: tuple[Message, ...]
    piles: tuple[Pile, ...]
    wanted: int
    left: int
    readings: int
    next: Next
    bench: Bench


def standing_of(project: Project) -> Standing:
    """Everything at a glance."""
    blocks = [
        Message(
            "{n} {name}, finishing {size}",
            n=sum(int(w["count"]) for w in b.colourways),
            name=str(b.pattern.get("name", "")),
            size=b.finished,
        )
        for b in blocks_of(project)
    ]
    waiting = waiting_of(project)
    units = list(project.units.all())
    view = quilt_view(project)
    quilt = None
    if view.sizes is not None:
        quilt = Message(
            "{n, plural, one {one block} other {# blocks}}, finishing {w} by {h}",
            n=view.sizes.blocks,
            w=view.sizes.width,
            h=view.sizes.height,
        )
    every = now_of(project)
    piles = tuple(p for p in every if p.wanted or p.entry.cut)
    wanted, left = sum(p.wanted for p in piles), sum(p.left for p in piles)
    bench = bench_of_project(project, quilt=view.sizes is not None, piles=every)
    readings = ReadingRow.objects.filter(project=project, deleted_at=None).count()
    return Standing(
        tuple(blocks),
        tuple(map(_unit_said, units)),
        quilt,
        tuple(waiting),
        tuple(sizes_off(project)),
        piles,
        wanted,
        left,
        readings,
        _next(project, _Facts(bool(blocks), bool(waiting), wanted, left, readings, bench)),
        bench,
    )


def _unit_said(u: PlannedUnit) -> Message:
    kind, n, spec = kind_of(u.kind), u.count + u.mirrored, spec_of(u)
    blocks = ", ".join(sorted({str(name) for name, _, _ in u.of_blocks.values()}))
    return Message(
        "{n, plural, one {one {one}} other {# {many}}} finishing {size}, for {blocks}"
        if blocks
        else "{n, plural, one {one {one}} other {# {many}}} finishing {size}, planned by hand",
        n=n,
        one=kind.title.lower(),
        many=kind.many,
        blocks=blocks,
        size=spec.size,
    )


def _next(project: Project, facts: _Facts) -> Next:
    if not facts.wanted and not facts.blocks:
        return Next("begin", Message("Lay out a block, or plan a unit: what to cut follows."))
    if facts.waiting and not facts.wanted:
        return Next("blocks", Message("Finish laying out: then its pieces can be cut."))
    if facts.left and facts.left == facts.wanted and not live_stock(project).exists():
        return Next("cut", Message("Put down what cloth there is, or see what to buy; then plan the cuts."))
    bench = facts.bench
    cut = Message("{n, plural, one {One piece is} other {# pieces are}} still to cut.", n=facts.left)
    if bench.next is not None and (bench.begun or not facts.left):
        said = Message("{said} {cut}", said=bench.next.said, cut=cut) if facts.left else bench.next.said
        return Next(bench.next.stage, said, bench.next.of)
    if facts.left:
        return Next("cut", cut)
    if not facts.readings:
        return Next("measure", Message("All is made. Measure a block, and look at every point."))
    return Next("measure", Message("All is made. Measure now and then, and see early when a seam runs off."))
