"""A block as it comes out, what its readings say, and what can be tried. Nothing here is kept but read."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from functools import cached_property
from typing import Any

import numpy as np

from blocks.models import Block
from blocks.selectors import quilt_of
from blocks.translate import find_in, pattern_of
from cutting.translate import cloth_of, directions_of, stock_of
from piecing.blocks.pattern import Layout, Pattern, Place, UnitHere, laid
from piecing.cutting.fitting import fits
from piecing.cutting.wanted import unit_pieces
from piecing.errors import PiecingError
from piecing.geometry.drawing import Drawing
from piecing.lengths import Length, Style
from piecing.oversize import QuilterRecord, room_share
from piecing.planning import Choices, UnitPlan, offers, plan
from piecing.diagnosis.asking import NextReading, next_readings
from piecing.diagnosis.batch_changes import for_the_batch
from piecing.diagnosis.causes import parameters_of
from piecing.diagnosis.explain import Working, workings
from piecing.diagnosis.faults import EASED, SEEN, Fault, faults_of
from piecing.diagnosis.inference import Inference, infer, prior_of
from piecing.diagnosis.model import BlockModel, model_of
from piecing.diagnosis.picture import as_sewn
from piecing.diagnosis.places import places_of
from piecing.diagnosis.readings import PLAIN, RawSizes, Reading, equation_of, raw_sizes
from piecing.diagnosis.remedies import Remedy, deviations_after, for_this_block, sewn_errors
from piecing.diagnosis.verdict import Verdict, cause_said, judge
from piecing.diagnosis.whatif import Outcomes, errors_of, outcomes, seam_costs
from piecing.units import UnitSpec, methods_of
from piecing.wording import Said
from projects.models import Project
from projects.translate import choices_of, style_of
from readings.selectors import record_for

from .models import Kept, Measured
from .translate import reading_of

__all__ = ["Scene", "SewnSheet", "Tried", "by_hand", "model_for", "sheet_of", "summary_of", "what_if"]


@dataclass(frozen=True)
class Scene:
    """A block with what is planned for it: the model, raw sizes and plans of its batches, and what is known of the quilter."""

    model: BlockModel
    plans: dict[int, UnitPlan]
    resolution: Length
    stitch: Length | None = None
    fold: Length | None = None
    record: QuilterRecord | None = None

    @cached_property
    def raw(self) -> dict[int, RawSizes]:
        return {b: raw_sizes(p) for b, p in self.plans.items()}

    def check(self, reading: Reading) -> None:
        """Raises ``ReadingMisplaced`` for a reading that this block has no place for."""
        if reading.kind not in PLAIN:
            equation_of(reading, self.model, self.resolution, self.raw)

    def inferred(self, readings: Sequence[Reading]) -> Inference:
        prior = prior_of(self.model, stitch=self.stitch, fold=self.fold, record=self.record)
        return infer(self.model, readings, prior, resolution=self.resolution, raw=self.raw)


def model_for(block: Block) -> Scene:
    """Raises ``LayoutIncomplete`` or ``CannotBeSewn`` for a block that is not ready to be sewn."""
    project = block.project
    pattern = pattern_of(block, find_in(project.workroom))
    model = model_of(places_of(laid(pattern), block.finished), project.seam_allowance)
    units = [choices_of(u) for u in project.units.filter(deleted_at=None)]
    plans = {}
    for b in model.places.batches:
        if not b.plain:
            planned = _plan_for(b.spec, units, project)
            if planned is not None:
                plans[b.number] = planned
    return Scene(
        model,
        plans,
        project.reading_step,
        project.stitch,
        project.fold,
        record_for(project.workroom, project.seam_allowance),
    )


def _plan_for(spec: UnitSpec, units: Sequence[Choices], project: Project) -> UnitPlan | None:
    """The project's own plan of such a unit, else one by its first method."""
    same = [u for u in units if (u.spec.kind, u.spec.width, u.spec.height) == (spec.kind, spec.width, spec.height)]
    bare = [Choices(spec, m.name, seam_allowance=project.seam_allowance) for m in methods_of(spec.kind)]
    for choices in (*same, *bare):
        try:
            return plan(choices)
        except PiecingError:
            continue
    return None


@dataclass(frozen=True)
class SewnSheet:
    """Everything the screen shows of a block as its readings make it. ``misplaced`` are rows with no place in it any more."""

    scene: Scene
    rows: tuple[Measured, ...]
    misplaced: tuple[tuple[Measured, Said], ...]
    found: Inference
    verdict: Verdict
    drawing: Drawing
    faults: tuple[Fault, ...]
    next: tuple[NextReading, ...]
    this_block: tuple[Remedy, ...]
    the_batch: tuple[Remedy, ...]
    workings: tuple[Working, ...]
    kept: tuple[Kept, ...] = ()
    stock: Mapping[str, Said] = field(default_factory=dict)
    tried: str = ""
    factor: float = 4.0

    @property
    def left_over(self) -> float:
        """What the causes leave unexplained of a reading, inches: the root of the mean square over those used."""
        odd = {o.index for o in self.found.odd}
        used = [w.left_over for w in self.workings if w.index not in odd]
        return float(np.sqrt(np.mean(np.square(used)))) if used else 0.0


def sheet_of(block: Block, factor: float = 4.0, tried: str = "") -> SewnSheet:
    scene = model_for(block)
    rows = list(block.measured.filter(deleted_at=None))
    good: list[tuple[Measured, Reading]] = []
    misplaced: list[tuple[Measured, Said]] = []
    for row in rows:
        try:
            reading = reading_of(row)
            scene.check(reading)
            good.append((row, reading))
        except PiecingError as refusal:
            misplaced.append((row, refusal.said))
    kept = tuple(block.kept.filter(deleted_at=None))
    sheet = _sheet(
        scene,
        [r for _, r in good],
        factor,
        tried,
        rows=tuple(r for r, _ in good),
        misplaced=tuple(misplaced),
        kept=kept,
    )
    return replace(sheet, stock=_in_stock(block.project, sheet))


def _in_stock(project: Project, sheet: SewnSheet) -> dict[str, Said]:
    """For every remedy that cuts new pieces, whether the stock holds them."""
    found: dict[str, Said] = {}
    again = [r.code for r in sheet.this_block if r.code.startswith("make_again:")]
    if not again:
        return found
    fabrics = {f.role: f.name for f in project.fabrics.all()}
    cloths, directions = [cloth_of(s) for s in stock_of(project)], directions_of(project)
    for code in again:
        number = int(code.split(":")[1])
        planned = sheet.scene.plans.get(number)
        if planned is None:
            continue
        count = sheet.scene.model.places.batches[number].count
        more = plan(replace(planned.choices, count=count, mirrored=0))
        held = fits(unit_pieces(more, more.spec.kind, directions), cloths, 0.2)
        names = ", ".join(fabrics.get(r, r) for r in sorted({p.role for p in more.pieces}))
        found[code] = Said(f"{'The stock holds them' if held else 'The stock does not hold them'} ({names}).")
    return found


def _sheet(scene: Scene, readings: Sequence[Reading], factor: float, tried: str, **rest: Any) -> SewnSheet:
    found = scene.inferred(readings)
    measured = any(e is not None for e in found.equations)
    this_block = for_this_block(found, scene.plans) if measured else ()
    errors = sewn_errors(found) if measured else np.zeros(scene.model.errors)
    remedy = next((r for r in this_block if r.code == tried and r.errors is not None), None)
    if remedy is not None and remedy.errors is not None:
        errors = remedy.errors
    faults = faults_of(scene.model, deviations_after(scene.model, errors, remedy.accepted if remedy else 0.0))
    verdict = judge(found)
    return SewnSheet(
        scene=scene,
        found=found,
        verdict=verdict,
        drawing=as_sewn(scene.model, errors, faults, factor),
        faults=faults,
        next=next_readings(found, resolution=scene.resolution, raw=scene.raw)[:4],
        this_block=this_block,
        the_batch=for_the_batch(found) if measured else (),
        workings=workings(found),
        tried=remedy.code if remedy else "",
        factor=factor,
        **{"rows": (), "misplaced": (), **rest},
    )


def by_hand(
    spec: UnitSpec, units: int, allowance: Length, resolution: Length, readings: Sequence[Reading], factor: float
) -> SewnSheet:
    """A row of units that no project knows: sizes typed by hand. Raises what the sizes or readings are refused for."""
    scene = hand_scene(spec, units, allowance, resolution)
    for reading in readings:
        scene.check(reading)
    return _sheet(scene, readings, factor, "")


def hand_scene(spec: UnitSpec, units: int, allowance: Length, resolution: Length) -> Scene:
    width, height = spec.width.rational, spec.height.rational
    corners = tuple(c.rational / width for c in spec.corners)
    here = UnitHere(spec.kind, spec.ring, corners, spec.strip.rational / width)
    pattern = Pattern("row", (width,) * units, (height,), tuple(Place(n, 0, here) for n in range(units)))
    layout: Layout = laid(pattern)
    model = model_of(places_of(layout, spec.width * units), allowance)
    plans = {}
    for m in methods_of(spec.kind):
        try:
            plans[0] = plan(Choices(spec, m.name, seam_allowance=allowance))
            break
        except PiecingError:
            continue
    return Scene(model, {} if model.places.batches[0].plain else plans, resolution)


@dataclass(frozen=True, slots=True)
class Room:
    """Share of a batch's units with room to trim on all sides, by the quilter's own seam and cut, in one school."""

    batch: int
    school: str
    share: float | None


@dataclass(frozen=True)
class Tried:
    """A block with only these causes at work."""

    drawing: Drawing
    causes: tuple[tuple[str, Said], ...]
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
    scene = model_for(block)
    model = scene.model
    known = {p.key for p in parameters_of(model)}
    causes = {k: v for k, v in causes.items() if k in known}
    errors = errors_of(model, causes)
    deviations = model.deviations(errors)
    faults = faults_of(model, deviations)
    rows = [n for n, f in enumerate(model.features) if f.kind.value == "row"]
    columns = [n for n, f in enumerate(model.features) if f.kind.value == "column"]
    across, down, n_across, n_down = seam_costs(model)
    quilt = quilt_of(block.project)
    many = outcomes(model, causes, np.random.default_rng(1864), blocks, scatter) if blocks else None
    # Between blocks there is one seam more for each block that follows: two for each when sashing lies between.
    joins = 2 if float(quilt.sash) > 0 else 1
    between_across, between_down = joins * (quilt.columns - 1), joins * (quilt.rows - 1)
    return Tried(
        as_sewn(model, errors, faults, factor),
        tuple((p.key, cause_said(model, p, causes[p.key])) for p in parameters_of(model) if causes.get(p.key)),
        faults,
        float(np.mean(deviations[rows])) if rows else 0.0,
        float(np.mean(deviations[columns])) if columns else 0.0,
        across,
        down,
        SEEN,
        EASED,
        n_across,
        n_down,
        across * quilt.columns - between_across * 2 * SEEN,
        down * quilt.rows - between_down * 2 * SEEN,
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


def summary_of(block: Block) -> dict[str, Any]:
    """The diagnosis in sentences, to be kept as it was said."""
    sheet = sheet_of(block)
    style: Style = style_of(block.project)
    v = sheet.verdict
    return {
        "status": v.status.value,
        "sure": round(v.sure, 3),
        "leading": v.leading.key if v.leading else "",
        "causes": [x.said.text(style) for x in v.leads[:4]],
        "readings": [w.said.text(style) + " " + style.text(Length.near(w.read)) for w in sheet.workings],
        "faults": [f.said.text(style) for f in sheet.faults],
        "this_block": [r.title.text(style) for r in sheet.this_block if r.possible][:6],
        "the_batch": [r.title.text(style) for r in sheet.the_batch],
    }
