"""A block as it comes out, what its readings say, and what can be tried. Nothing here is kept but read."""

from __future__ import annotations

from collections.abc import Hashable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

import numpy as np

from blocks.models import Block
from blocks.quilt import quilt_of
from cutting.translate import cloths_of
from measuring.models import ReadingRow
from piecing.cutting.fitting import fits
from piecing.cutting.wanted import unit_pieces
from piecing.diagnosis import Inference, Status, Verdict, judge
from piecing.diagnosis.asking import NextReading, next_readings
from piecing.diagnosis.causes import parameters_of
from piecing.diagnosis.explain import Working, workings
from piecing.diagnosis.faults import EASED, SEEN, Fault, faults_of
from piecing.diagnosis.reading_kinds import NEEDS_RAW
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import Remedy, changes_for_the_rest, done_first, remedies_of
from piecing.diagnosis.said import cause_said
from piecing.diagnosis.shares import Share, shares_of
from piecing.diagnosis.whatif import Outcomes, errors_of, outcomes, seam_costs
from piecing.drawings.as_sewn import as_sewn
from piecing.drawings.ladder import Ladder, ladders
from piecing.geometry.drawing import Drawing
from piecing.lengths import Length
from piecing.messages import Message
from piecing.planning.plan import offers, plan
from piecing.planning.room import QuilterRecord, room_share
from piecing.quilts.choices import QuiltChoices, Setting
from piecing.quilts.finished import seam_cost
from piecing.units import UnitSpec
from projects.models import Project
from projects.translate import directions_of

from .models import SavedDiagnosis
from .subjects import REMEMBERED, Pool, Scene, Subject, refused_by_number, row_scene

__all__ = [
    "DiagnosisSheet",
    "Tried",
    "WorkingSheet",
    "by_hand",
    "judged_sheet",
    "ladders_of",
    "sheet_of",
    "summary_of",
    "what_if",
    "working_of",
]


SHOWN = 200
"""Readings listed on a screen."""


@dataclass(frozen=True)
class DiagnosisSheet:
    """Everything the screen shows of a subject as its readings make it."""

    scene: Scene
    pool: Pool
    found: Inference
    verdict: Verdict
    drawing: Drawing
    before: Drawing | None
    faults: tuple[Fault, ...]
    next: tuple[NextReading, ...]
    this_block: tuple[Remedy, ...]
    the_batch: tuple[Remedy, ...]
    saved: tuple[SavedDiagnosis, ...] = ()
    stock: Mapping[str, Message] = field(default_factory=dict)
    ladders: tuple[Ladder, ...] = ()
    tried: str = ""
    factor: float = 4.0

    @property
    def first(self) -> Remedy | None:
        """What is done before anything else."""
        return done_first(self.verdict, self.this_block, self.the_batch)

    @property
    def rows(self) -> tuple[ReadingRow, ...]:
        return tuple(row for row, _ in self.pool.own)

    @property
    def newest(self) -> tuple[ReadingRow, ...]:
        """The readings that are shown; ``earlier`` are left out of sight, and still in the sheet that is saved."""
        return self.rows[-SHOWN:]

    @property
    def earlier(self) -> int:
        return max(0, len(self.rows) - SHOWN)


@dataclass(frozen=True)
class WorkingSheet:
    """How a diagnosis was worked out: every figure of the block taken apart, and every reading's equation."""

    sheet: DiagnosisSheet
    shares: tuple[Share, ...]
    readings: tuple[Working, ...]

    @property
    def left_over(self) -> float:
        """What the causes leave unexplained of a reading, inches: the root of the mean square over those used."""
        odd = self.sheet.found.aside
        used = [w.left_over for w in self.readings if w.index not in odd]
        return float(np.sqrt(np.mean(np.square(used)))) if used else 0.0


def working_of(sheet: DiagnosisSheet) -> WorkingSheet:
    """By itself: whoever puts down a reading does not wait for what is seldom looked at."""
    return WorkingSheet(sheet, shares_of(sheet.found), workings(sheet.found))


def sheet_of(subject: Subject, factor: float = 4.0, tried: str = "") -> DiagnosisSheet:
    """With what the project knows besides. Raises ``LayoutIncomplete`` or ``CannotBeSewn``."""
    sheet = judged_sheet(subject, factor, tried)
    saved = SavedDiagnosis.objects.filter(block=subject.block, unit=subject.unit, deleted_at=None)
    return replace(sheet, stock=_in_stock(subject.project, sheet), saved=tuple(saved), ladders=ladders_of(subject))


def judged_sheet(subject: Subject, factor: float = 4.0, tried: str = "") -> DiagnosisSheet:
    """What the readings alone say. Raises ``LayoutIncomplete`` or ``CannotBeSewn``."""
    quilt = subject.project.blocks.filter(deleted_at=None)
    ways = [w for b in quilt if subject.block is None or b.pk == subject.block.pk for w in b.colourways]
    blocks = sum(int(w["count"]) for w in ways) if subject.block is not None else 1
    return _sheet(subject.scene, subject.pool, factor, tried, blocks)


def ladders_of(subject: Subject) -> tuple[Ladder, ...]:
    """The size ladders of a kind of unit with the readings on them; none for a block."""
    planned = subject.scene.plans.get(0)
    if subject.unit is None or planned is None:
        return ()
    taken: dict[str, list[Length]] = {}
    for row, _ in subject.pool.own:
        dimensions = {"width": ("size", "width"), "height": ("size", "height"), "raw_width": ("size", "width", "half")}
        for dimension in dimensions.get(row.kind, ()):
            if row.value is not None:
                taken.setdefault(dimension, []).append(row.value)
    return tuple(ladders(planned, subject.style.measure, taken))


@dataclass(frozen=True)
class _Asked:
    """What an answer depends on, to know it again by."""

    key: Hashable
    readings: tuple[Reading, ...]
    factor: float
    tried: str
    blocks: int
    scene: Scene = field(compare=False)
    by_hand: bool = False


def _sheet(
    scene: Scene, pool: Pool, factor: float, tried: str, blocks: int, *, by_hand: bool = False
) -> DiagnosisSheet:
    """The last answers are remembered, without the rows of the database that they were read from."""
    asked = _Asked(scene.key, tuple(pool.all), factor, tried, blocks, scene, by_hand)
    worked = _work_out if scene.model.errors <= REMEMBERED else _work_out.__wrapped__
    return replace(worked(asked), scene=scene, pool=pool)


@lru_cache(maxsize=32)
def _work_out(asked: _Asked) -> DiagnosisSheet:
    scene, readings, factor = asked.scene, asked.readings, asked.factor
    found = scene.inference(readings)
    verdict = judge(found)
    this_block = remedies_of(found, verdict, scene.plans, blocks=asked.blocks) if found.measured or found.seen else ()
    errors = found.block if found.measured else np.zeros(scene.model.errors)
    faults = faults_of(scene.model, scene.model.deviations(errors))
    if _sizes_are_right(found, verdict):
        faults = tuple(f for f in faults if f.eased)
    drawing, before = as_sewn(scene.model, errors, faults, factor), None
    remedy = next((r for r in this_block if r.code == asked.tried and r.change is not None and r.change.is_drawn), None)
    if remedy is not None and remedy.change is not None:
        before = drawing
        after = remedy.change.of(errors, found.mean)
        faults = faults_of(scene.model, remedy.change.deviations(scene.model, errors, after))
        drawing = as_sewn(scene.model, after, faults, factor)
    joined = not readings or any(r.kind not in NEEDS_RAW for r in readings)
    return DiagnosisSheet(
        scene=scene,
        pool=Pool((), (), ()),
        found=found,
        verdict=verdict,
        drawing=drawing,
        before=before,
        faults=faults,
        next=next_readings(
            found, verdict, resolution=scene.resolution, raw=scene.raw, joined=joined, by_hand=asked.by_hand
        )[:4],
        this_block=this_block,
        the_batch=changes_for_the_rest(found, verdict),
        tried=remedy.code if remedy else "",
        factor=factor,
    )


def _sizes_are_right(found: Inference, verdict: Verdict) -> bool:
    """Whether nothing is to be seen but what pins ease: the block is true, or not judged, or what is wrong is no matter of its sizes."""
    of_sizes = found.mistake is not None and bool(found.mistake[0].parameters or found.mistake[0].errors)
    return verdict.status in (Status.TRUE, Status.DOUBTED, Status.NO_READINGS) or (
        verdict.status is Status.MISTAKE and not of_sizes
    )


def _in_stock(project: Project, sheet: DiagnosisSheet) -> dict[str, Message]:
    """Whether the stock holds the cloth of units that would be made or cut again, by the remedy's code."""
    again = [(r, r.batch) for r in sheet.this_block if r.pieces is not None and r.batch is not None]
    if not again:
        return {}
    fabrics = {f.role: f.name or f"fabric {f.role.upper()}" for f in project.fabrics.all()}
    found: dict[str, Message] = {}
    cloths, directions = cloths_of(project), directions_of(project)
    for remedy, number in again:
        planned = sheet.scene.plans.get(number)
        if planned is None:
            continue
        count = sheet.scene.model.places.batches[number].count
        more = plan(replace(planned.choices, count=count, mirrored=0))
        held = fits(unit_pieces(more, more.spec.kind, directions), cloths, 0.2)
        names = ", ".join(fabrics.get(r, r) for r in sorted({p.role for p in more.pieces}))
        found[remedy.code] = Message(
            "The stock holds them ({names})." if held else "The stock does not hold them ({names}).", names=names
        )
    return found


def by_hand(
    spec: UnitSpec, units: int, allowance: Length, resolution: Length, readings: Sequence[Reading], factor: float
) -> DiagnosisSheet:
    """A row of units that no project knows: sizes typed by hand. Raises what the sizes are refused for, or a reading, by its number."""
    scene = row_scene(spec, units, allowance, resolution)
    return _sheet(scene, Pool((), tuple(_by_number(scene, readings)), ()), factor, "", 1, by_hand=True)


def _by_number(scene: Scene, readings: Sequence[Reading]) -> Iterator[Reading]:
    for n, reading in enumerate(readings):
        with refused_by_number(n):
            yield scene.checked(reading)


@dataclass(frozen=True, slots=True)
class Room:
    """Share of a batch's units with room to trim on all sides, by the quilter's own seam and cut, in one school."""

    batch: int
    school: str
    share: float | None


@dataclass(frozen=True)
class Tried:
    """A block with only these causes at work: ``width`` and ``height`` beyond what they should be; what each seam ``seen`` too wide
    takes off the block ``across`` and ``down``, and off the quilt. All in inches."""

    drawing: Drawing
    causes: tuple[tuple[str, Message], ...]
    faults: tuple[Fault, ...]
    width: float
    height: float
    across: float
    down: float
    seen: float
    eased: float
    seams_across: int
    seams_down: int
    quilt_across: float
    quilt_down: float
    of_many: Outcomes | None
    rooms: tuple[Room, ...] = field(default_factory=tuple)


def what_if(block: Block, causes: Mapping[str, float], factor: float, scatter: float, blocks: int) -> Tried:
    """``causes`` in inches by key; ``blocks`` of them for the figures of many (none when 0)."""
    scene = Subject(block.project, block=block).scene
    model = scene.model
    known = {p.key for p in parameters_of(model)}
    causes = {k: v for k, v in causes.items() if k in known}
    errors = errors_of(model, causes)
    deviations = model.deviations(errors)
    faults = faults_of(model, deviations)
    rows = [n for n, f in enumerate(model.features) if f.kind.value == "row"]
    columns = [n for n, f in enumerate(model.features) if f.kind.value == "column"]
    costs = seam_costs(model)
    quilt = quilt_of(block.project)
    many = outcomes(model, causes, 1864, blocks, scatter) if blocks else None
    around = QuiltChoices(
        quilt.columns,
        quilt.rows,
        block.finished,
        block.finished,
        Setting(quilt.setting),
        quilt.sash,
        sash_round=quilt.sash_round,
    )
    quilt_across, quilt_down = seam_cost(around, costs.across, costs.down, SEEN)
    return Tried(
        as_sewn(model, errors, faults, factor),
        tuple((p.key, cause_said(model, p, causes[p.key])) for p in parameters_of(model) if causes.get(p.key)),
        faults,
        float(np.mean(deviations[rows])) if rows else 0.0,
        float(np.mean(deviations[columns])) if columns else 0.0,
        costs.across,
        costs.down,
        SEEN,
        EASED,
        costs.seams_across,
        costs.seams_down,
        quilt_across,
        quilt_down,
        many,
        _rooms(scene, causes, scatter) if blocks else (),
    )


def _rooms(scene: Scene, causes: Mapping[str, float], scatter: float) -> tuple[Room, ...]:
    s = float(scene.model.allowance)
    record = QuilterRecord(s + causes.get("seam", 0.0) + causes.get("fold", 0.0) / 2, scatter / 64, scatter / 64, 10)
    found = []
    for batch, planned in scene.plans.items():
        for offer in offers(planned.choices, record):
            p = offer.plan
            share = None if p is None else room_share(p.method, p.spec, p.cuts, p.allowance, record, top=not p.tip_set)
            found.append(Room(batch, offer.school.value, share))
    return tuple(found)


def summary_of(subject: Subject) -> dict[str, Any]:
    """The diagnosis in sentences, to be kept as it was said."""
    sheet, style = sheet_of(subject), subject.style
    v = sheet.verdict
    return {
        "status": v.status.value,
        "headline": v.said.text(style),
        "sure": round(v.sure, 3),
        "leading": v.leading.cause.value if v.leading else "",
        "causes": [x.said.text(style) for x in v.leads if x.measured][:4],
        "readings": [f"{w.said.text(style)} {style.text(Length.near(w.read))}" for w in workings(sheet.found)],
        "faults": [f.said.text(style) for f in sheet.faults],
        # Where a reading comes first nothing is advised yet.
        "this_block": [r.title.text(style) for r in sheet.this_block if r.possible][:6] if sheet.first else [],
        "the_batch": [r.title.text(style) for r in sheet.the_batch],
    }
