"""Reads of the bench: the steps of a unit, a block or the quilt, its lots with what is done, and what is left of everything."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from uuid import UUID

from api.problems import Refused
from blocks.joining import found_map
from blocks.quilt import QuiltSheet, quilt_view, strips_cut_of
from blocks.selectors import blocks_of, get_block
from blocks.translate import apart_in, colourways_of, find_in, joining_of, pattern_of, values_of
from measuring.selectors import plan_or_refuse
from piecing.blocks.boxes import with_finished
from piecing.blocks.pattern import layout_of
from piecing.cautions import CAUTIONS, Risk
from piecing.drawings.block import block_picture
from piecing.drawings.unit import design_picture
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.handling.cautions import cautions_for
from piecing.handling.joining_steps import JoinStep, colourways_said, join_steps
from piecing.handling.lots import LotPlan, goes_left, part_in_lots, usual_lot, wound_before
from piecing.handling.marking import Marking
from piecing.handling.progress import LotDone, Tally, tally_of
from piecing.handling.quilt_step import QuiltStep
from piecing.handling.quilt_steps import quilt_steps
from piecing.handling.steps import BenchStage, UnitStep, unit_steps
from piecing.joining.thread import BOBBIN, PER_SEAM, block_join_length, run_said
from piecing.lengths import ZERO, Length, Measure
from piecing.messages import Message
from piecing.overview.ticket import HandsOfUnit
from piecing.planning.on_the_way import bias_said, laid_together
from piecing.planning.unit_plan import UnitPlan, still_to_make
from piecing.trimming import Cutter, Recipe, trim_block
from piecing.units import kind_of
from projects.models import PlannedUnit, Project
from projects.selectors import get_project, get_unit
from projects.translate import spec_of, style_of
from workrooms.models import Workroom
from workrooms.selectors import owned_rulers

from .models import Handling, Lot
from .subject import QUILT, BenchSubject, SubjectKind, block_subject, unit_subject
from .translate import Letters, letters_of, made_as, names_of, plan_as, same_unit, seam_ways

__all__ = [
    "BlockBench",
    "CountedBlock",
    "LotView",
    "QuiltBench",
    "Run",
    "UnitBench",
    "block_bench",
    "handling_of",
    "hands_of",
    "lot_steps",
    "quilt_bench",
    "tally_of_unit",
    "unit_bench",
]


def handling_of(project: Project, subject: str) -> Handling:
    """As it was chosen, or as is usual."""
    found = Handling.objects.filter(subject=subject).first()
    return found or Handling(subject=subject, project=project)


@dataclass(frozen=True)
class StepDone:
    step: str
    keys: tuple[UUID, ...]


@dataclass(frozen=True)
class LotView:
    """``done`` are the steps that are, each with the names under which it was put down; ``wind`` says to put a fresh bobbin in before
    it. One that is not ``begun`` may still change."""

    number: int
    goes: int
    units: int
    done: tuple[StepDone, ...]
    begun: bool
    thread: Message | None
    wind: bool


@dataclass(frozen=True)
class Run:
    """Lots made to one plan; ``earlier`` when the unit is planned otherwise by now."""

    steps: tuple[UnitStep, ...]
    lots: tuple[LotView, ...]
    per_go: int
    earlier: bool
    counts: bool
    said: Message | None


@dataclass(frozen=True)
class UnitBench:
    unit: PlannedUnit
    title: Message
    picture: Drawing
    trim_width: Length
    trim_height: Length
    marking: str
    lot_goes: int | None
    usual_goes: int
    runs: tuple[Run, ...]
    tally: Tally
    bias: tuple[Message, ...]
    pairs: tuple[Message, ...]
    ripper_cautions: tuple[Message, ...]
    sew_cautions: tuple[Message, ...]
    press_cautions: tuple[Message, ...]
    trim_cautions: tuple[Message, ...]


def _begun_lots(rows: Iterable[Lot], seam: Length, measure: Measure) -> list[LotView]:
    return [
        LotView(
            row.number,
            row.goes,
            row.units,
            _steps_done(row),
            True,
            _thread_said(seam * row.goes * PER_SEAM, measure),
            False,
        )
        for row in rows
    ]


def _coming(later: Sequence[LotPlan], per_go: int, measure: Measure) -> list[LotView]:
    wound = wound_before(later, BOBBIN)
    return [
        LotView(p.number, p.goes, p.goes * per_go, (), False, _thread_said(p.thread, measure), p.number in wound)
        for p in later
    ]


def _thread_said(thread: Length, measure: Measure) -> Message | None:
    return run_said(thread, measure) if thread.sign else None


def _steps_done(row: Lot) -> tuple[StepDone, ...]:
    done: dict[str, list[UUID]] = {}
    for d in row.done.all():
        if not d.undone and d.step:
            done.setdefault(d.step, []).append(d.pk)
    return tuple(StepDone(step, tuple(keys)) for step, keys in done.items())


def lots_of(project: Project, subject: str) -> list[Lot]:
    return list(project.lots.filter(subject=subject).prefetch_related("done"))


def hands_of(unit: PlannedUnit, planned: UnitPlan, letters: Letters | None = None) -> HandsOfUnit:
    """What the bench knows of a unit beyond its plan, with its lots as they are and as they would be. ``letters`` of the project's piles
    are given where several of its units are looked at."""
    project, handling = unit.project, handling_of(unit.project, unit_subject(unit.pk))
    rows, per_go = lots_of(project, unit_subject(unit.pk)), planned.batch.units
    made = sum(r.units for r in rows if same_unit(r.made_as, planned.spec))
    # When every one is there already the plan still shows them all, for the sizes' sake.
    wanted = sum(still_to_make(unit.count, unit.mirrored, unit.ready, unit.spoiled))
    lots = part_in_lots(
        goes_left(wanted, per_go, made),
        handling.lot_goes or usual_lot(per_go),
        _seam(planned),
        after=max((r.number for r in rows), default=0),
    )
    return HandsOfUnit(
        names_of(project),
        values_of(project),
        Marking(handling.marking),
        letters_of(project) if letters is None else letters,
        lots,
        BOBBIN,
        seam_ways(unit, planned.spec),
        _done_said(tally_of_unit(unit)) if len(planned.kind.parts) > 1 else None,
    )


def _done_said(t: Tally) -> Message | None:
    """What is done so far, in a line; nothing before the first."""
    if not t.sewn + t.trimmed:
        return None
    return Message(
        "So far {sewn} sewn, {pressed} pressed, {trimmed} trimmed of {wanted}.",
        sewn=t.sewn,
        pressed=t.pressed,
        trimmed=t.trimmed,
        wanted=t.to_make,
    )


def _seam(planned: UnitPlan) -> Length:
    return Length.near(planned.simulated.making.sewn)


def _steps(planned: UnitPlan, hands: HandsOfUnit) -> tuple[UnitStep, ...]:
    """Of a unit without a seam there is nothing to sew."""
    if len(planned.kind.parts) == 1:
        return ()
    return unit_steps(planned, hands.names, hands.values, hands.marking, hands.letters, hands.mapped)


def unit_bench(room: Workroom, key: UUID) -> UnitBench:
    """A unit at the bench. Raises ``Refused`` when it cannot be planned."""
    unit = get_unit(room, key)
    return bench_of(unit, plan_or_refuse(unit))


def bench_of(unit: PlannedUnit, planned: UnitPlan) -> UnitBench:
    hands, now = hands_of(unit, planned), made_as(planned)
    project, handling = unit.project, handling_of(unit.project, unit_subject(unit.pk))
    rows = lots_of(project, unit_subject(unit.pk))
    steps, seam, per_go = _steps(planned, hands), _seam(planned), planned.batch.units
    runs: list[Run] = []
    earlier: dict[str, list[Lot]] = {}
    mine: list[Lot] = []
    for row in rows:
        if row.made_as == now:
            mine.append(row)
        else:
            earlier.setdefault(str(sorted(row.made_as.items())), []).append(row)
    measure = Measure(project.measure)
    coming = _coming(hands.lots if steps else (), per_go, measure)
    runs.append(Run(steps, (*_begun_lots(mine, seam, measure), *coming), per_go, False, True, None))
    for group in earlier.values():
        runs.append(_earlier_run(planned, hands, group, measure))
    cuts = any(s.key.startswith("cut") for s in steps)
    spec, kind = planned.spec, kind_of(planned.spec.kind)
    return UnitBench(
        unit,
        Message("{kind} finishing {size}", kind=kind.title, size=spec.size),
        design_picture(kind.design(spec), Message("The finished unit.")),
        planned.target_width,
        planned.target_height,
        handling.marking,
        handling.lot_goes,
        usual_lot(per_go),
        tuple(runs),
        tally_of_unit(unit),
        bias_said(planned),
        laid_together(planned, hands.names),
        CAUTIONS[Risk.RIPPER],
        cautions_for(BenchStage.SEW, cuts=cuts, units=planned.made),
        cautions_for(BenchStage.PRESS),
        cautions_for(BenchStage.TRIM, units=planned.made),
    )


def _earlier_run(planned: UnitPlan, hands: HandsOfUnit, rows: Sequence[Lot], measure: Measure) -> Run:
    kept = rows[0].made_as
    counts = same_unit(kept, planned.spec)
    said = (
        Message("Begun by another method or other sizes; it goes on as it was begun.")
        if counts
        else Message("Begun before the unit was changed: it does not count for the plan as it is now.")
    )
    try:
        then = plan_as(planned, kept)
        steps, seam, per_go = _steps(then, hands), _seam(then), then.batch.units
    except PiecingError:
        steps, seam, per_go = (), ZERO, rows[0].units // max(1, rows[0].goes)
    return Run(steps, tuple(_begun_lots(rows, seam, measure)), per_go, True, counts, said)


def tally_of_unit(unit: PlannedUnit) -> Tally:
    """What is done of a unit, from what is kept with its lots: no step is worked out for it."""
    spec = spec_of(unit)
    lots = [LotDone(r.units, r.sewn, r.pressed, same_unit(r.made_as, spec)) for r in unit.lots.all()]
    sewn = len(kind_of(unit.kind).parts) > 1
    return tally_of(unit.count + unit.mirrored, unit.ready, lots, unit.trimmed, unit.spoiled, sewn=sewn)


@dataclass(frozen=True)
class BlockBench:
    """``lots`` are of whole blocks."""

    key: UUID
    name: str
    picture: Drawing
    count: int
    joined: int
    colourways: tuple[Message, ...]
    steps: tuple[JoinStep, ...]
    lots: tuple[LotView, ...]
    join_cautions: tuple[Message, ...]
    press_cautions: tuple[Message, ...]
    nests: bool
    trim: Recipe | None

    @cached_property
    def pictured(self) -> tuple[tuple[Drawing, ...], tuple[PicturedStep, ...]]:
        """Every drawing once, and the steps with the numbers of theirs: the map of pressing is one for all of them."""
        numbers: dict[int, int] = {}
        drawings: list[Drawing] = []

        def number(drawing: Drawing | None) -> int | None:
            if drawing is None:
                return None
            if id(drawing) not in numbers:
                numbers[id(drawing)] = len(drawings)
                drawings.append(drawing)
            return numbers[id(drawing)]

        steps = tuple(PicturedStep(s, number(s.front), number(s.back)) for s in self.steps)
        return tuple(drawings), steps


@dataclass(frozen=True)
class PicturedStep:
    """A step with the numbers of its drawings."""

    step: JoinStep
    front: int | None
    back: int | None


def block_bench(room: Workroom, key: UUID) -> BlockBench:
    """A block at the bench: how its units are joined and pressed. Raises ``Refused`` while it is not laid out."""
    block = get_block(room, key)
    project = get_project(room, block.project_id)
    try:
        pattern = pattern_of(block, find_in(room)).complete()
        order, found, _ = found_map(block, pattern, values_of(project))
        apart = apart_in(block, pattern)
        strips = strips_cut_of(project) if apart else ()
        steps = join_steps(
            pattern, order, block.finished, project.seam_allowance, project.ruler_step, found, apart, strips
        )
        seam = block_join_length(with_finished(pattern, apart), block.finished, project.seam_allowance, order)
        picture = block_picture(layout_of(pattern), block.finished)
    except PiecingError as refusal:
        raise Refused([refusal], style_of(project)) from None
    subject = block_subject(block.pk)
    ways = colourways_of(block)
    count = sum(w.count for w in ways)
    rows = lots_of(project, subject)
    measure = Measure(project.measure)
    begun = _begun_lots(rows, seam, measure)
    left = max(0, count - sum(r.units for r in rows))
    later = part_in_lots(left, 1, seam, after=max((r.number for r in rows), default=0))
    return BlockBench(
        block.pk,
        pattern.name,
        picture,
        count,
        sum(r.units for r in rows if r.joined),
        colourways_said(ways, names_of(project)),
        steps,
        (*begun, *_coming(later, 1, measure)),
        cautions_for(BenchStage.JOIN),
        cautions_for(BenchStage.PRESS),
        found.nested == found.pairs,
        # A strip of a border, a centre: what is round it is fitted to it, it is not trimmed to a size.
        None
        if block.part
        else trim_block(pattern, block.finished, project.seam_allowance, owned_rulers(room), Cutter(room.cutter)),
    )


@dataclass(frozen=True)
class QuiltBench:
    steps: tuple[QuiltStep, ...]
    done: tuple[StepDone, ...]
    picture: Drawing | None
    cautions: tuple[Message, ...]
    refusal: str


def quilt_bench(project: Project) -> QuiltBench:
    """The quilt at the bench; no step while none is put together, or while it cannot be sewn."""
    sheet: QuiltSheet = quilt_view(project)
    cautions = cautions_for(BenchStage.JOIN)
    if sheet.sizes is None:
        return QuiltBench((), (), None, cautions, str(sheet.refusal.said) if sheet.refusal else "")
    rows = lots_of(project, QUILT)
    done = tuple(d for r in rows for d in _steps_done(r))
    return QuiltBench(quilt_steps(sheet.sizes), done, sheet.picture, cautions, "")


def lot_steps(project: Project, subject: str, lot: Lot | None) -> dict[str, BenchStage]:
    """Every step of a lot by name, with its stage. Raises ``Refused`` when what it belongs to cannot be planned or laid."""
    match BenchSubject.kept(subject):
        case BenchSubject(SubjectKind.UNIT, UUID() as key):
            planned = plan_or_refuse(get_unit(project.workroom, key))
            if lot is not None and lot.made_as and lot.made_as != made_as(planned):
                planned = plan_as(planned, lot.made_as)
            if len(planned.kind.parts) == 1:
                return {}
            steps = unit_steps(planned, names_of(project), values_of(project), _marking(subject))
            return {s.key: s.stage for s in steps}
        case BenchSubject(SubjectKind.BLOCK, UUID() as key):
            block = get_block(project.workroom, key)
            pattern = pattern_of(block, find_in(project.workroom))
            found = join_steps(
                pattern,
                joining_of(block, pattern),
                block.finished,
                project.seam_allowance,
                project.ruler_step,
                apart=apart_in(block, pattern),
            )
            return {s.key: s.stage for s in found}
    return {s.key: BenchStage.JOIN for s in quilt_bench(project).steps}


def _marking(subject: str) -> Marking:
    found = Handling.objects.filter(subject=subject).first()
    return Marking(found.marking) if found else Marking.CENTRE


@dataclass(frozen=True, slots=True)
class CountedBlock:
    """A block of a project: how many there are to be, and how many are joined."""

    key: UUID
    name: str
    wanted: int
    joined: int


def blocks_counted(project: Project) -> list[CountedBlock]:
    """Each block in its place. Two queries."""
    joined: dict[object, int] = {}
    for lot in project.lots.filter(joined=True, unit=None).exclude(block=None):
        joined[lot.block_id] = joined.get(lot.block_id, 0) + lot.units
    return [
        CountedBlock(b.pk, str(b.pattern.get("name", "")), sum(w.count for w in colourways_of(b)), joined.get(b.pk, 0))
        for b in blocks_of(project)
    ]
