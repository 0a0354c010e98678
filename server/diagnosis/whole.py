"""Finished blocks as they really measure: from the one pool of readings, what to bring them to, how to lay them, and what the quilt will
measure."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from math import hypot
from uuid import UUID

from blocks.models import Block
from blocks.quilt import quilt_of
from blocks.selectors import blocks_of
from blocks.translate import colourways_of, find_in, pattern_of
from cutting.translate import quilt_sizes_of
from measuring.models import ReadingRow
from measuring.selectors import habit_figure, own_seams
from piecing.blocks.pattern import Layout, laid
from piecing.diagnosis import block_geometry, model_of
from piecing.diagnosis.habits import Habit
from piecing.diagnosis.model import FeatureKind
from piecing.diagnosis.readings import ReadingKind
from piecing.errors import PiecingError
from piecing.lengths import Length, finest_mark
from piecing.messages import Message
from piecing.quilts.arranging import BlockArrangement, arranged
from piecing.quilts.choices import Setting
from piecing.quilts.finished import FinishedQuilt, QuiltHands, finished_quilt
from piecing.quilts.measured import BlockAsMeasured, CommonSizes, common_sizes
from piecing.timing import again_minutes
from projects.models import Project
from workrooms.models import Workroom

__all__ = ["MeasuredKind", "MeasuredSheet", "measured_of"]

_KINDS = {ReadingKind.BLOCK_WIDTH.value: 0, ReadingKind.BLOCK_HEIGHT.value: 1}
_MOST = 900


@dataclass(frozen=True)
class One:
    """One finished block by its number: what was read across and down, and the names of those readings."""

    number: int
    width: ReadingRow | None
    height: ReadingRow | None


@dataclass(frozen=True)
class MeasuredKind:
    """Blocks of one kind: how many there are to be, what each should measure raw edge to raw edge, each as far as it was measured, and
    what to bring them to (none yet: none is measured both ways)."""

    key: UUID
    name: str
    count: int
    width: Length
    height: Length
    ones: list[One]
    measured: list[int]
    sizes: CommonSizes | None


@dataclass(frozen=True)
class MeasuredSheet:
    """``arrangement`` holds numbers of blocks of the one ``kind`` that fills the quilt; ``waiting`` says what it waits for."""

    kinds: list[MeasuredKind]
    refusal: PiecingError | None
    arrangement: BlockArrangement | None
    numbers: list[int]
    waiting: Message | None
    quilt: FinishedQuilt | None

    @property
    def unlike(self) -> Length | None:
        """What neighbours differ in all."""
        return None if self.arrangement is None else Length.near(self.arrangement.unlike)

    @property
    def before(self) -> Length | None:
        """The same as they lie in the order of their numbers."""
        return None if self.arrangement is None else Length.near(self.arrangement.before)

    @property
    def least(self) -> Length | None:
        """What no arrangement goes below."""
        return None if self.arrangement is None else Length.near(self.arrangement.least)


def measured_of(room: Workroom, project: Project) -> MeasuredSheet:
    """Some dozen queries. A block that is not laid out yet is left out."""
    kinds: list[MeasuredKind] = []
    refusal: PiecingError | None = None
    find = find_in(room)
    for block in blocks_of(project):
        if block.part:
            continue
        try:
            pattern = pattern_of(block, find).complete()
            tips = _has_tips(laid(pattern), block.finished, project.seam_allowance)
        except PiecingError:
            continue
        try:
            kinds.append(_kind(project, block, pattern.name, tips))
        except PiecingError as found:
            refusal = found
            kinds.append(_kind(project, block, pattern.name, tips, offers=False))
    arrangement, numbers, waiting = _arrangement(project, kinds)
    return MeasuredSheet(kinds, refusal, arrangement, numbers, waiting, _quilt(room, project, kinds))


@lru_cache(maxsize=64)
def _has_tips(layout: Layout, finished: Length, allowance: Length) -> bool:
    """Whether points of the block lie at its edges."""
    model = model_of(block_geometry(layout, finished), allowance)
    return any(f.kind is FeatureKind.CORNER_TIP for f in model.features) or any(
        f.kind is FeatureKind.EDGE_TIP for f in model.features
    )


def _kind(project: Project, block: Block, name: str, tips: bool, *, offers: bool = True) -> MeasuredKind:
    count = min(_MOST, sum(w.count for w in colourways_of(block)))
    raw = block.finished + project.seam_allowance * 2
    height = _height(block, project)
    found: dict[int, list[ReadingRow | None]] = {}
    for r in block.readings.filter(deleted_at=None, kind__in=list(_KINDS), nth__gt=0).order_by("order"):
        found.setdefault(r.nth, [None, None])[_KINDS[r.kind]] = r
    ones = [One(n, *found.get(n, [None, None])) for n in range(1, max([count, *found]) + 1)]
    both = [o for o in ones if o.width and o.height]
    sizes = None
    if both and offers:
        blocks = [
            BlockAsMeasured(f"{name} {o.number}", o.width.value, o.height.value, tips)
            for o in both
            if o.width and o.height and o.width.value and o.height.value
        ]
        pattern = pattern_of(block, find_in(project.workroom)).complete()
        again = again_minutes(pattern, block.finished, project.seam_allowance, project.ruler_step)
        sizes = common_sizes(blocks, raw, height, finest_mark(project.ruler_step), again)
    return MeasuredKind(block.pk, name, count, raw, height, ones, [o.number for o in both], sizes)


def _height(block: Block, project: Project) -> Length:
    """A block need not be square: its rows tell how high it is."""
    pattern = pattern_of(block, find_in(project.workroom))
    height: Length = block.finished * (pattern.height / pattern.width) + project.seam_allowance * 2
    return height


def _arrangement(
    project: Project, kinds: list[MeasuredKind]
) -> tuple[BlockArrangement | None, list[int], Message | None]:
    """Of a quilt of one kind of block, in straight rows, all measured."""
    quilt = quilt_of(project)
    if not quilt.begun or quilt.setting != Setting.STRAIGHT.value or len(kinds) != 1:
        return (
            None,
            [],
            Message("Where each lies best is worked out for a quilt of one kind of block in straight rows."),
        )
    (kind,) = kinds
    wanted = quilt.columns * quilt.rows
    ones = [o for o in kind.ones if o.number in set(kind.measured)]
    if len(ones) < wanted:
        return (
            None,
            [],
            Message(
                "Where each lies best is told when all {wanted} of the quilt are measured; {n} are.",
                wanted=wanted,
                n=len(ones),
            ),
        )
    ones = ones[:wanted]
    sides = tuple(
        (float(o.width.value), float(o.height.value))
        for o in ones
        if o.width and o.height and o.width.value and o.height.value
    )
    return _arranged(sides, quilt.rows, quilt.columns), [o.number for o in ones], None


@lru_cache(maxsize=16)
def _arranged(sides: tuple[tuple[float, float], ...], rows: int, columns: int) -> BlockArrangement:
    return arranged([w for w, _ in sides], [h for _, h in sides], rows, columns)


def _quilt(room: Workroom, project: Project, kinds: list[MeasuredKind]) -> FinishedQuilt | None:
    """With the best common size, by her own seam and cutting as far as they are known."""
    planned = quilt_sizes_of(project)
    if planned is None or len(kinds) != 1 or kinds[0].sizes is None or planned.choices.setting is Setting.BY_HAND:
        return None
    best = kinds[0].sizes.best
    try:
        return finished_quilt(planned, best.width, best.height, _hands(room))
    except PiecingError:
        return None


def _hands(room: Workroom) -> QuiltHands:
    known = QuiltHands()
    seams, trimming = own_seams(room), habit_figure(room, Habit.TRIMMING)
    if seams is not None:
        figure = seams.figures[Habit.SEAM]
        known = QuiltHands(
            figure.mean if figure.off else 0.0, (figure.high - figure.low) / 3.29, figure.spread, known.cut
        )
    if trimming is not None and trimming.sure != "open":
        known = QuiltHands(known.seam, known.unsure, known.seams, hypot(trimming.spread, 1 / 200))
    return known
