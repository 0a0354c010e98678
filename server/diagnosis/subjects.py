"""What is diagnosed: a block of a project, a kind of unit in it, or sizes typed by hand; each is a block to the core."""

from __future__ import annotations

from collections.abc import Callable, Hashable, Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass
from functools import cached_property, lru_cache
from uuid import UUID

from blocks.models import Block
from blocks.selectors import get_block
from blocks.translate import find_in, pattern_of
from measuring.models import ReadingRow
from measuring.selectors import pool_of, record_for
from measuring.translate import reading_of
from piecing.blocks.pattern import Pattern, Place, UnitPlacement, layout_of
from piecing.diagnosis import OPEN_FOLD, BlockModel, Inference, block_geometry, infer, model_of, prior_of
from piecing.diagnosis.equations import RawSizes, equation_of, raw_sizes
from piecing.diagnosis.reading_kinds import PLAIN, ReadingKind
from piecing.diagnosis.readings import Reading, loosened, marked
from piecing.errors import PiecingError
from piecing.lengths import Length, Style
from piecing.messages import Message
from piecing.planning.plan import plan
from piecing.planning.room import QuilterRecord
from piecing.planning.unit_plan import Choices, UnitPlan
from piecing.units import UnitSpec, methods_of
from projects.models import PlannedUnit, Project
from projects.selectors import get_unit
from projects.translate import choices_of, style_of
from workrooms.models import Workroom

__all__ = ["Pool", "Scene", "Subject", "refused_by_number", "row_scene", "subject_of"]

_HABITS = (
    ReadingKind.CUT,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.RAW_WIDTH,
    ReadingKind.RAW_HEIGHT,
    ReadingKind.STITCH,
)
REMEMBERED = 1_200
"""Errors of units and seams in a block of which answers are remembered: those of larger ones would take much memory."""
_ROW = 3
"""Units in the row that a kind of unit is diagnosed in when the project does not say how many lie side by side."""


@dataclass(frozen=True)
class Scene:
    """A block with what is planned for it: the model, raw sizes and plans of its batches, and what is ``known`` of the quilter."""

    model: BlockModel
    plans: dict[int, UnitPlan]
    resolution: Length
    stitch: Length | None = None
    fold: Length | None = None
    known: Callable[[], QuilterRecord | None] = lambda: None

    @cached_property
    def record(self) -> QuilterRecord | None:
        """Her own seam; worked out only where it is asked for: taking down a reading does not ask."""
        return self.known()

    @cached_property
    def raw(self) -> dict[int, RawSizes]:
        return {b: raw_sizes(p) for b, p in self.plans.items()}

    def checked(self, reading: Reading) -> Reading:
        """With what lies there now. Raises ``ReadingMisplaced`` for a reading that this block has no place for."""
        if reading.kind in PLAIN:
            return reading
        equation_of(reading, self.model, self.resolution, self.raw)
        return marked(reading, self.model)

    def wanted_value(self, reading: Reading) -> Length | None:
        """What it should read, for a reading that speaks of how one cuts, sews or trims; None for the others."""
        if reading.kind not in _HABITS:
            return None
        return Length.near(equation_of(reading, self.model, self.resolution, self.raw).nominal)

    @property
    def key(self) -> Hashable:
        """What everything that is worked out of it depends on, besides readings."""
        return self.model, tuple(self.plans.items()), self.resolution, self.stitch, self.fold, self.record

    def inference(self, readings: Sequence[Reading]) -> Inference:
        """What the readings say; the last few are remembered, since a remedy tried or a picture drawn larger changes nothing of it."""
        worked = _remembered_inference if self.model.errors <= REMEMBERED else _remembered_inference.__wrapped__
        raw = tuple(self.raw.items())
        return worked(self.model, self.stitch, self.fold, self.record, self.resolution, raw, tuple(readings))


@lru_cache(maxsize=24)
def _remembered_inference(
    model: BlockModel,
    stitch: Length | None,
    fold: Length | None,
    record: QuilterRecord | None,
    resolution: Length,
    raw: tuple[tuple[int, RawSizes], ...],
    readings: tuple[Reading, ...],
) -> Inference:
    prior = prior_of(model, stitch=stitch, fold=fold, record=record)
    return infer(model, readings, prior, resolution=resolution, raw=dict(raw))


@dataclass(frozen=True)
class Pool:
    """The readings that speak of a subject: ``own`` rows with their readings, those taken elsewhere, and own rows that have no
    place any more, each with why."""

    own: tuple[tuple[ReadingRow, Reading], ...]
    elsewhere: tuple[Reading, ...]
    misplaced: tuple[tuple[ReadingRow, Message], ...]

    @property
    def all(self) -> list[Reading]:
        """Those taken elsewhere first: the newest of them all is an own one."""
        return [*self.elsewhere, *(r for _, r in self.own)]


@dataclass(frozen=True)
class Subject:
    """A block or a kind of unit of a project."""

    project: Project
    block: Block | None = None
    unit: PlannedUnit | None = None

    @property
    def style(self) -> Style:
        return style_of(self.project)

    def owns(self, row: ReadingRow) -> bool:
        if self.block is not None:
            return row.block_id == self.block.pk
        return self.unit is not None and row.unit_id == self.unit.pk

    @cached_property
    def scene(self) -> Scene:
        """Raises ``LayoutIncomplete`` or ``CannotBeSewn`` for a block that is not ready to be sewn."""
        project = self.project
        if self.block is not None:
            pattern = pattern_of(self.block, find_in(project.workroom))
            places = block_geometry(layout_of(pattern), self.block.finished)
            opened = set(self.block.sewn_open)
            folds = tuple(OPEN_FOLD if s.name in opened else 1.0 for s in places.seams)
            model = model_of(places, project.seam_allowance, folds)
            planned = [choices_of(u) for u in project.units.filter(deleted_at=None)]
        else:
            assert self.unit is not None
            planned = [choices_of(self.unit)]
            spec = planned[0].spec
            model = _row_model(spec, max(2, self.unit.units_across or _ROW), project.seam_allowance)
        plans = {}
        for b in model.places.batches:
            found = None if b.plain else _plan_for(b.spec, planned, project.seam_allowance)
            if found is not None:
                plans[b.number] = found
        return Scene(
            model,
            plans,
            project.reading_step,
            project.stitch,
            project.fold,
            lambda: record_for(project.workroom, project.seam_allowance, but=project),
        )

    @cached_property
    def pool(self) -> Pool:
        """One query."""
        own: list[tuple[ReadingRow, Reading]] = []
        elsewhere: list[Reading] = []
        misplaced: list[tuple[ReadingRow, Message]] = []
        for row in pool_of(self.project):
            try:
                reading = reading_of(row)
                if self.owns(row):
                    self.scene.checked(reading)
                    own.append((row, reading))
                    continue
                other = loosened(reading, self.scene.model)
                if other is not None:
                    self.scene.checked(other)
                    elsewhere.append(other)
            except PiecingError as refusal:
                if self.owns(row):
                    misplaced.append((row, refusal.said))
        return Pool(tuple(own), tuple(elsewhere), tuple(misplaced))


def subject_of(room: Workroom, kind: str, key: UUID) -> Subject:
    """``kind`` is blocks or units. Raises ``NotHere``."""
    if kind == "blocks":
        block = get_block(room, key)
        return Subject(block.project, block=block)
    unit = get_unit(room, key)
    return Subject(unit.project, unit=unit)


def _plan_for(spec: UnitSpec, planned: Sequence[Choices], allowance: Length) -> UnitPlan | None:
    """The project's own plan of such a unit, else one by its first method."""
    same = [c for c in planned if (c.spec.kind, c.spec.width, c.spec.height) == (spec.kind, spec.width, spec.height)]
    bare = [Choices(spec, m.name, seam_allowance=allowance) for m in methods_of(spec.kind)]
    for choices in (*same, *bare):
        try:
            return plan(choices)
        except PiecingError:
            continue
    return None


def _row_model(spec: UnitSpec, units: int, allowance: Length) -> BlockModel:
    """A block of one row."""
    width, height = spec.width.rational, spec.height.rational
    corners = tuple(c.rational / width for c in spec.corners)
    here = UnitPlacement(spec.kind, spec.part_fabrics, corners, spec.strip.rational / width)
    pattern = Pattern("row", (width,) * units, (height,), tuple(Place(n, 0, here) for n in range(units)))
    return model_of(block_geometry(layout_of(pattern), spec.width * units), allowance)


def row_scene(spec: UnitSpec, units: int, allowance: Length, resolution: Length) -> Scene:
    """A row of units that no project knows."""
    model = _row_model(spec, units, allowance)
    planned = None if model.places.batches[0].plain else _plan_for(spec, (), allowance)
    return Scene(model, {} if planned is None else {0: planned}, resolution)


@contextmanager
def refused_by_number(n: int) -> Iterator[None]:
    """A refusal says which of the readings typed, not which of its fields: the page shows it beside that line."""
    try:
        yield
    except PiecingError as refusal:
        refusal.field = f"readings.{n}"
        raise
