"""Finished blocks as they really measure: from the one pool of readings, what to bring them to, how to lay them, and what the quilt will
measure."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from functools import lru_cache
from math import hypot
from uuid import UUID

from blocks.models import Block
from blocks.quilt import planned_sizes_of, quilt_of, strips_between_of
from blocks.selectors import blocks_of
from blocks.translate import CENTRE, apart_in, colourways_of, find_in, lying_at, pattern_of, quilt_choices, top_of
from measuring.models import ReadingRow
from measuring.selectors import habit_figure, own_seams
from piecing.blocks.file_format import Find
from piecing.blocks.pattern import BlockPlacement, Layout, layout_of
from piecing.diagnosis import block_geometry, model_of
from piecing.diagnosis.habits import Habit
from piecing.diagnosis.model import FeatureKind
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.errors import PiecingError
from piecing.lengths import Length, finest_mark
from piecing.messages import Listing, Message
from piecing.quilts.arranging import BlockArrangement, BlockPlace, arrange_blocks, places_of
from piecing.quilts.choices import Setting, block_spots
from piecing.quilts.finished import FinishedQuilt, QuiltHands, finished_quilt
from piecing.quilts.measured import BlockAsMeasured, CommonSizes, common_sizes
from piecing.quilts.sizes import QuiltSizes
from piecing.quilts.top import KnownLengths, TopStep, brought_to, top_as_measured
from piecing.timing import again_minutes
from projects.models import Project
from workrooms.models import Workroom

__all__ = ["MeasuredKind", "MeasuredSheet", "measured_of"]

_KINDS = {ReadingKind.BLOCK_WIDTH.value: 0, ReadingKind.BLOCK_HEIGHT.value: 1}
_MOST = 900
Roles = tuple[tuple[str, str], ...]


@dataclass(frozen=True)
class One:
    """One finished block by its number: what was read across and down, and the names of those readings."""

    number: int
    width: ReadingRow | None
    height: ReadingRow | None


@dataclass(frozen=True)
class MeasuredKind:
    """Blocks of one kind: how many there are to be, what each should measure raw edge to raw edge, each as far as it was measured, and
    what to bring them to (none yet: none is measured both ways). ``numbering``: which numbers are in which colours, where there are several."""

    key: UUID
    name: str
    count: int
    width: Length
    height: Length
    ones: list[One]
    measured: list[int]
    sizes: CommonSizes | None
    numbering: Message | None = None


@dataclass(frozen=True)
class MeasuredSheet:
    """``rows`` say which block lies where, row by row as the quilt is seen; ``waiting`` what the arrangement waits for."""

    kinds: list[MeasuredKind]
    refusal: PiecingError | None
    arrangement: BlockArrangement | None
    rows: list[list[str]]
    waiting: Message | None
    quilt: FinishedQuilt | None
    top: tuple[TopStep, ...] = ()

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
            tips = _has_tips(layout_of(pattern), block.finished, project.seam_allowance)
        except PiecingError:
            continue
        try:
            kinds.append(_kind(project, block, pattern.name, tips))
        except PiecingError as found:
            refusal = found
            kinds.append(_kind(project, block, pattern.name, tips, offers=False))
    arrangement, rows, waiting = _arrangement(project, kinds, find)
    planned, known = planned_sizes_of(project), top_of(quilt_of(project))
    top = top_as_measured(planned, known, strips_between_of(project)) if planned else None
    finished = _quilt(room, planned, kinds, known) if planned else None
    return MeasuredSheet(kinds, refusal, arrangement, rows, waiting, finished, top.steps if top else ())


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
    numbers = [o.number for o in both]
    return MeasuredKind(block.pk, name, count, raw, height, ones, numbers, sizes, _numbering(block, project))


def _numbering(block: Block, project: Project) -> Message | None:
    ways = _numbered_colours(block)
    if len(ways) < 2:
        return None
    fabrics = {f.role: f.name for f in project.fabrics.all()}
    said = [
        Message(
            "from {first} on {colours}" if n == len(ways) - 1 else "{first} to {last} {colours}",
            first=first,
            last=last,
            colours=", ".join(f"{fabrics.get(b, b)} for {fabrics.get(a, a)}" for a, b in roles if a != b)
            or "as planned",
        )
        for n, (roles, first, last) in enumerate(ways)
    ]
    return Message("Numbers by colours: {ways}.", ways=Listing(said, "; "))


def _height(block: Block, project: Project) -> Length:
    """A block need not be square: its rows tell how high it is."""
    pattern = pattern_of(block, find_in(project.workroom))
    height: Length = block.finished * (pattern.height / pattern.width) + project.seam_allowance * 2
    return height


@dataclass(frozen=True)
class _Lying:
    """Where blocks lie in the quilt: places that name their kind by a number, what those kinds are (block and roles), and which places stand
    in one row to the eye."""

    places: tuple[BlockPlace, ...]
    kinds: tuple[tuple[UUID, Roles], ...]
    rows: tuple[tuple[int, ...], ...]


def _lying(project: Project, find: Find) -> _Lying | None:
    """None while no quilt is put together that can be laid."""
    quilt, blocks = quilt_of(project), blocks_of(project)
    if not quilt.begun:
        return None
    try:
        if quilt.setting == Setting.BY_HAND.value:
            return _by_hand(blocks, find)
        choices = quilt_choices(quilt, project, blocks, find)
        lying = lying_at(quilt, choices, blocks, find)
    except PiecingError:
        return None
    if not lying:
        return None
    at = [(way.block.pk, way.roles) for way, _ in lying]
    kinds = tuple(dict.fromkeys(at))
    places = places_of(choices, [kinds.index(k) for k in at], [lies.across for _, lies in lying])
    return _Lying(places, kinds, _in_rows([y for _, y in block_spots(choices)]))


def _by_hand(blocks: list[Block], find: Find) -> _Lying | None:
    """Blocks that lie in the centre as they are made; what is made for its place is no finished block to exchange."""
    centre = next((b for b in blocks if b.part == CENTRE), None)
    if centre is None:
        return None
    pattern = pattern_of(centre, find)
    places: list[BlockPlace] = []
    kinds: list[tuple[UUID, Roles]] = []
    for n in sorted(apart_in(centre, pattern), key=lambda n: pattern.box(pattern.places[n])[1::-1]):
        place = pattern.places[n]
        held = place.content
        assert isinstance(held, BlockPlacement)
        kind = (UUID(held.key), held.fabrics)
        kinds += [] if kind in kinds else [kind]
        left, top, width, height = map(float, pattern.box(place))
        places.append(BlockPlace(left, top, width, height, kinds.index(kind), place.orientation.across))
    return _Lying(tuple(places), tuple(kinds), _in_rows([p.top for p in places])) if places else None


def _in_rows(tops: Sequence[float]) -> tuple[tuple[int, ...], ...]:
    rows: dict[float, list[int]] = {}
    for n, top in enumerate(tops):
        rows.setdefault(top, []).append(n)
    return tuple(tuple(rows[top]) for top in sorted(rows))


def _numbered_colours(block: Block) -> list[tuple[Roles, int, int]]:
    """Its colours with the first and the last number of the blocks made in them; the last colours take what is measured beyond."""
    found, first = [], 1
    for way in colourways_of(block):
        if way.count > 0:
            found.append((way.roles, first, first + way.count - 1))
            first += way.count
    return [*found[:-1], *((roles, begin, _MOST) for roles, begin, _ in found[-1:])]


def _arrangement(
    project: Project, kinds: list[MeasuredKind], find: Find
) -> tuple[BlockArrangement | None, list[list[str]], Message | None]:
    """Of any quilt whose blocks are all measured: the arrangement, and what lies where, row by row."""
    lying = _lying(project, find)
    if lying is None:
        return None, [], Message("Where each lies best is told once the quilt is put together.")
    blocks, measured = {b.pk: b for b in blocks_of(project)}, {k.key: k for k in kinds}
    ones: list[tuple[int, UUID, One]] = []
    for n, (key, roles) in enumerate(lying.kinds):
        wanted = sum(p.kind == n for p in lying.places)
        ranges = (
            [(first, last) for r, first, last in _numbered_colours(blocks[key]) if r == roles] if key in blocks else []
        )
        found = [
            o
            for o in (measured[key].ones if key in measured else [])
            if o.number in measured[key].measured and any(first <= o.number <= last for first, last in ranges)
        ]
        ones += [(n, key, o) for o in found[:wanted]]
    if len(ones) < len(lying.places):
        return (
            None,
            [],
            Message(
                "Where each lies best is told when all {wanted} of the quilt are measured; {n} are.",
                wanted=len(lying.places),
                n=len(ones),
            ),
        )
    sides = tuple(
        (float(o.width.value), float(o.height.value))
        for _, _, o in ones
        if o.width and o.height and o.width.value and o.height.value
    )
    arrangement = _arrange(sides, lying.places, tuple(n for n, _, _ in ones))
    several = len({key for key, _ in lying.kinds}) > 1
    names = [f"{measured[key].name} {o.number}" if several else str(o.number) for _, key, o in ones]
    return arrangement, [[names[arrangement.blocks[p]] for p in row] for row in lying.rows], None


@lru_cache(maxsize=16)
def _arrange(
    sides: tuple[tuple[float, float], ...], places: tuple[BlockPlace, ...], kinds: tuple[int, ...]
) -> BlockArrangement:
    return arrange_blocks([w for w, _ in sides], [h for _, h in sides], places, kinds)


def _quilt(room: Workroom, planned: QuiltSizes, kinds: list[MeasuredKind], known: KnownLengths) -> FinishedQuilt | None:
    """From what was measured of the top, else with the best common size of its blocks; by her own seam and cutting as far as they are
    known. None while neither is: of a centre laid by hand, which no count of blocks tells, both ways."""
    best = kinds[0].sizes.best if len(kinds) == 1 and kinds[0].sizes else None
    if best is not None and planned.choices.setting is not Setting.BY_HAND:
        known = brought_to(planned, known, best.width, best.height)
    top = top_as_measured(planned, known)
    told = top.across and top.down if planned.choices.setting is Setting.BY_HAND else top.begun
    return finished_quilt(top, _hands(room)).by_the_ruler if told else None


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
