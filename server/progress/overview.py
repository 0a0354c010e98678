"""A project at the bench at a glance: each unit and block with what is done, the stages, and where to go on. Counted from what is
kept with the lots, so that it costs the same however much was sewn."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass
from uuid import UUID

from django.db.models import Prefetch

from cutting.translate import now_of
from piecing.cutting.ledger import Pile
from piecing.drawings.unit import design_picture
from piecing.geometry.drawing import Drawing
from piecing.handling.progress import Tally
from piecing.messages import Message
from piecing.units import kind_of
from projects.models import PlannedUnit, Project
from projects.translate import spec_of

from .models import Lot
from .selectors import blocks_counted, tally_of_unit
from .subject import QUILT
from .taken import Short, short_of

__all__ = ["Bench", "BenchBlock", "BenchNext", "BenchUnit", "StageCount", "bench_of_project"]


@dataclass(frozen=True)
class BenchUnit:
    """A kind of unit; ``sewn_here`` is false for one of a single piece of cloth."""

    key: UUID
    title: Message
    picture: Drawing
    tally: Tally
    sewn_here: bool
    begun: bool


@dataclass(frozen=True, slots=True)
class BenchBlock:
    key: UUID
    name: str
    count: int
    joined: int
    begun: bool


@dataclass(frozen=True, slots=True)
class StageCount:
    """``done`` of so many ``of``, in what a stage counts: units, or blocks."""

    stage: str
    done: int
    of: int


@dataclass(frozen=True, slots=True)
class BenchNext:
    stage: str
    said: Message
    of: UUID | None


@dataclass(frozen=True)
class Bench:
    units: tuple[BenchUnit, ...]
    blocks: tuple[BenchBlock, ...]
    stages: tuple[StageCount, ...]
    quilt_left: bool
    begun: bool
    short: tuple[Short, ...]
    next: BenchNext | None


def bench_of_project(project: Project, *, quilt: bool = False, piles: Sequence[Pile] | None = None) -> Bench:
    """Everything of one project; ``quilt`` when one is put together, ``piles`` as they stand now if they are known."""
    units = [_unit(u) for u in _units(project)]
    begun = {lot.block_id for lot in project.lots.exclude(block=None)}
    blocks = [BenchBlock(b.key, b.name, b.wanted, b.joined, b.key in begun) for b in blocks_counted(project)]
    quilted = project.lots.filter(subject=QUILT, joined=True).exists()
    left = quilt and not quilted
    piles = now_of(project) if piles is None else piles
    stages = (_cut_count(piles), *_stages(units, blocks))
    under_way = project.lots.exists() or any(u.tally.trimmed for u in units)
    return Bench(
        tuple(units),
        tuple(blocks),
        stages,
        left,
        under_way,
        short_of(project, piles),
        _next(project, units, blocks, quilt_left=left),
    )


def _units(project: Project) -> Iterable[PlannedUnit]:
    return project.units.filter(deleted_at=None).prefetch_related(Prefetch("lots", Lot.objects.all()))


def _unit(unit: PlannedUnit) -> BenchUnit:
    kind, spec = kind_of(unit.kind), spec_of(unit)
    return BenchUnit(
        unit.pk,
        Message("{kind} finishing {size}", kind=kind.title, size=spec.size),
        design_picture(kind.design(spec), Message("")),
        tally_of_unit(unit),
        len(kind.parts) > 1,
        bool(unit.lots.all()),
    )


def _cut_count(piles: Iterable[Pile]) -> StageCount:
    """Pieces cut of those wanted, pile by pile."""
    wanted = [p for p in piles if p.wanted]
    return StageCount("cut", sum(min(p.have, p.wanted) for p in wanted), sum(p.wanted for p in wanted))


def _stages(units: list[BenchUnit], blocks: list[BenchBlock]) -> Iterator[StageCount]:
    sewn = [u for u in units if u.sewn_here]
    of = sum(u.tally.to_make for u in sewn)
    yield StageCount("sew", sum(min(u.tally.sewn, u.tally.to_make) for u in sewn), of)
    yield StageCount("press", sum(min(u.tally.pressed, u.tally.to_make) for u in sewn), of)
    yield StageCount("trim", sum(min(u.tally.trimmed, u.tally.to_make) for u in sewn), of)
    yield StageCount("join", sum(min(b.joined, b.count) for b in blocks), sum(b.count for b in blocks))


def _next(project: Project, units: list[BenchUnit], blocks: list[BenchBlock], *, quilt_left: bool) -> BenchNext | None:
    """What was begun and is not done comes before what was not begun; then in the order of the work."""
    sewn = [u for u in units if u.sewn_here]
    open_lots = project.lots.filter(unit__deleted_at=None, pressed=False).exclude(unit=None)
    begun = {lot.unit_id for lot in open_lots}
    for u in sorted(sewn, key=lambda u: u.key not in begun):
        left = u.tally.to_make - u.tally.pressed
        if left > 0:
            said = Message(
                "{title}: {n, plural, one {one is} other {# are}} still to sew and press.", title=u.title, n=left
            )
            return BenchNext("sew", said, u.key)
    for u in sewn:
        if u.tally.left_to_trim:
            said = Message(
                "{title}: {n, plural, one {one is} other {# are}} still to trim.", title=u.title, n=u.tally.left_to_trim
            )
            return BenchNext("trim", said, u.key)
    for b in sorted(blocks, key=lambda b: not b.begun):
        if b.joined < b.count:
            said = Message(
                "{name}: {n, plural, one {one block is} other {# blocks are}} still to join.",
                name=b.name,
                n=b.count - b.joined,
            )
            return BenchNext("join", said, b.key)
    if quilt_left and blocks:
        return BenchNext("quilt", Message("Every block is joined: put the quilt together."), None)
    return None
