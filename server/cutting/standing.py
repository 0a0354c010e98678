"""Where a project stands: what is laid out, planned, cut and left, and what to do next."""

from __future__ import annotations

from dataclasses import dataclass

from blocks.quilt import quilt_view
from blocks.rounding import sizes_off
from blocks.selectors import blocks_of
from blocks.translate import find_in, pattern_of
from measuring.models import ReadingRow
from measuring.selectors import plan_of
from piecing.cutting.ledger import Pile
from piecing.errors import PiecingError
from piecing.messages import Listing, Message, MidSentence
from piecing.units import kind_of
from projects.models import PlannedUnit, Project
from projects.translate import spec_of

from .translate import live_stock, now_of

__all__ = ["Next", "Standing", "standing_of", "waiting_of"]


@dataclass(frozen=True, slots=True)
class Next:
    """The stage to go to, and why."""

    stage: str
    said: Message


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


def standing_of(project: Project) -> Standing:
    """Everything at a glance."""
    find = find_in(project.workroom)
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
    view = quilt_view(project, find)
    quilt = None
    if view.sizes is not None:
        quilt = Message(
            "{n, plural, one {one block} other {# blocks}}, finishing {w} by {h}",
            n=view.sizes.blocks,
            w=view.sizes.width,
            h=view.sizes.height,
        )
    piles = tuple(p for p in now_of(project) if p.wanted or p.entry.cut)
    wanted, left = sum(p.wanted for p in piles), sum(p.left for p in piles)
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
        _next(project, bool(blocks), bool(waiting), wanted, left, readings),
    )


def waiting_of(project: Project) -> list[Message]:
    """What cannot be cut for yet, with the reason: blocks, units, the quilt."""
    find, waiting = find_in(project.workroom), []
    for b in blocks_of(project):
        try:
            pattern_of(b, find).complete()
        except PiecingError as refusal:
            waiting.append(Message("{name}: {why}", name=str(b.pattern.get("name", "")), why=refusal.said))
    for u in project.units.all():
        u.project = project
        try:
            plan_of(u)
        except PiecingError as refusal:
            waiting.append(Message("{unit}: {why}", unit=kind_of(u.kind).title, why=refusal.said))
    view = quilt_view(project, find)
    if view.refusal is not None:
        waiting.append(Message("The quilt: {why}", why=MidSentence(view.refusal.said)))
    return waiting


def _unit_said(u: PlannedUnit) -> Message:
    kind, n, spec = kind_of(u.kind), u.count + u.mirrored, spec_of(u)
    blocks = ", ".join(sorted({str(name) for name, _, _ in u.of_blocks.values()}))
    return Message(
        "{n, plural, one {one {one}} other {# {many}}} finishing {size}, for {blocks}"
        if blocks
        else "{n, plural, one {one {one}} other {# {many}}} finishing {size}, planned by hand",
        n=n,
        one=kind.name.lower(),
        many=kind.many,
        blocks=blocks,
        size=spec.width if spec.width == spec.height else Listing((spec.width, spec.height), " by "),
    )


def _next(project: Project, blocks: bool, waiting: bool, wanted: int, left: int, readings: int) -> Next:
    if not wanted and not blocks:
        return Next("begin", Message("Lay out a block, or plan a unit: what to cut follows."))
    if waiting and not wanted:
        return Next("blocks", Message("Finish laying out: then its pieces can be cut."))
    if left and left == wanted and not live_stock(project).exists():
        return Next("cut", Message("Put down what cloth there is, or see what to buy; then plan the cuts."))
    if left:
        return Next(
            "cut",
            Message("{n, plural, one {One piece is} other {# pieces are}} still to cut.", n=left),
        )
    if not readings:
        return Next("trim", Message("All is cut. Sew a first unit and see on Trim what the ruler should read."))
    return Next("measure", Message("All is cut. Measure a unit now and then, and see early when a seam runs off."))
