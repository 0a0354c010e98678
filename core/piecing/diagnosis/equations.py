"""The equation of each reading: ``nominal + response · errors + noise``.

One tied to a unit or seam by name speaks of that one's own errors; one that is not speaks of any of its batch, and what sets that one apart
is noise. Source: docs/theory, section 14.6.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from math import hypot, sqrt

import numpy as np

from ..errors import ReadingMisplaced
from ..lengths import Length, inches
from ..planning.unit_plan import UnitPlan
from .causes import SCATTER, SOURCES, Cause, Parameter, drawn_out, parameters_of, scatter_of, shape_of, sources_of
from .model import BlockModel, FeatureKind, Response, Responses, Vector, clearance, miss
from .places import OUTWARD, CornerTip, EdgeTip, PlacedUnit, UnitBatch
from .reading_kinds import BY_RULER, DIAGONALS, NEEDS_RAW, OF_ANY_BLOCK, OF_THE_BLOCK, ReadingKind
from .readings import Reading, mark_now

__all__ = ["CUT_SCATTER", "HAND_NOISE", "STRIP_SCATTER", "Equation", "RawSizes", "equation_of", "raw_sizes"]

HAND_NOISE = 1 / 140
"""Of laying the ruler and judging the edge, before the mark is chosen."""
STRIP_SCATTER = 1 / 128
CUT_SCATTER = 1 / 64
_WOBBLE = 1 / 160
"""Of the stitching at one spot around the seam's own course."""
_ANY_TIP = 1 / 64
"""By which a tip lies nearer to its edge than the mean of a unit's tips, for how seldom and how far units lie off their lines: where it
was not told which of them was read."""


@dataclass(frozen=True, slots=True)
class RawSizes:
    """Of a batch before trimming, across and up the unit as made: size as planned, what an inch of take-up loses of it, what
    an inch of cut size gains; and the size that its first pieces are cut to. All in inches."""

    width: float
    height: float
    width_loss: float
    height_loss: float
    width_gain: float
    height_gain: float
    cut: float


_GIVES = 1 / 96
"""Inches by which cloth on the bias gives under the hand that lays a ruler along it, and one unit is drawn out more than the next."""
_SMALL_STEP = inches("1/64")


def raw_sizes(plan: UnitPlan) -> RawSizes:
    """By the way the batch is made: its own closed form, just above and below the plan."""
    spec, s, made = plan.choices.spec, plan.choices.seam_allowance, plan.method
    larger = plan.cuts.but(**{name: size + _SMALL_STEP for name, size in plan.cuts.items()})
    now, sewn_wider, cut_larger = (
        [float(v) for v in made.raw(spec, cuts, s, take_up)]
        for cuts, take_up in ((plan.cuts, s), (plan.cuts, s + _SMALL_STEP), (larger, s))
    )
    step = float(_SMALL_STEP)
    return RawSizes(
        width=now[0],
        height=now[1],
        width_loss=(now[0] - sewn_wider[0]) / step,
        height_loss=(now[1] - sewn_wider[1]) / step,
        width_gain=(cut_larger[0] - now[0]) / step,
        height_gain=(cut_larger[1] - now[1]) / step,
        cut=float(next(iter(plan.cuts.values()))),
    )


@dataclass(frozen=True)
class Equation:
    """``of_causes`` (parameters,) and ``of_errors`` (errors,; zero when any of many was measured); ``loose`` (sources,) the
    variances by which such a one differs from the rest. ``hand`` is the variance of laying the ruler, ``mark`` that of
    choosing one of its marks; ``by_ruler`` how often an error of the ruler is in it."""

    nominal: float
    of_causes: Vector
    of_errors: Vector
    loose: Vector
    hand: float
    mark: float
    by_ruler: float

    @property
    def ruler_mark(self) -> float:
        """Inches between the marks of which one was chosen."""
        return sqrt(12 * self.mark)

    @property
    def noise(self) -> float:
        """Variance of everything that is not the causes' or the errors', for steady hands."""
        return float(self.loose.sum()) + self.hand + self.mark


def equation_of(
    reading: Reading, model: BlockModel, resolution: Length, raw: Mapping[int, RawSizes] | None = None
) -> Equation:
    """The equation of one reading taken with a ruler marked every ``resolution``.

    Raises ``ReadingMisplaced`` when it says it was taken where this block has nothing of the kind, or has something else
    now than when it was taken.
    """
    mark = mark_now(reading, model)
    if reading.mark and reading.mark != mark:
        raise ReadingMisplaced("What was measured here is no longer in the block.", field="feature")
    found = _equation_in_marks(reading, model, raw or {})
    by_ruler = 1.0 if reading.kind in BY_RULER else 0.0
    return replace(found, mark=float(resolution) ** 2 / 12 * found.mark, by_ruler=by_ruler or found.by_ruler)


def _equation_in_marks(reading: Reading, model: BlockModel, raw: Mapping[int, RawSizes]) -> Equation:
    """With ``mark`` counted in marks of the ruler."""
    if reading.kind is ReadingKind.ROW and not reading.feature:
        return _any_row(reading, model)
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        if n is None:
            raise ReadingMisplaced("Say where on the block: pick it on the drawing.", field="feature")
        small = model.features[n].kind in (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP, FeatureKind.CROSSING)
        return _tied_equation(model, model.features[n].nominal, model.response(n), 2.0 if small else 1.0)
    if reading.kind in OF_ANY_BLOCK:
        return _any_block(reading, model)
    if reading.kind is ReadingKind.STRIP_TEST:
        return _strip(model)
    if reading.kind is ReadingKind.STITCH:
        return _stitch(reading, model)
    cell, tied = _unit_of(reading, model)
    if reading.kind in NEEDS_RAW:
        return _raw(reading, model, cell, raw)
    nominal, row, extra = _of_unit(reading, model, cell)
    found = _tied_equation(model, nominal, row) if tied else _loose(model, nominal, row)
    if reading.kind in DIAGONALS and model.places.batches[cell.batch].strains:
        found = replace(found, hand=found.hand + _GIVES**2)
    if reading.kind is ReadingKind.CLEARANCE and len(_tips(reading, model, cell)) > 1:
        found = replace(found, hand=found.hand + _ANY_TIP**2)
    for p, by in extra.items():
        found.of_causes[parameters_of(model).index(p)] += by
    return found


def _tied_equation(model: BlockModel, nominal: float, row: Vector, hand: float = 1.0, wobble: float = 0.0) -> Equation:
    hands = hand * HAND_NOISE**2 + wobble**2
    return Equation(nominal, row @ shape_of(model), row, np.zeros(len(SOURCES)), hands, 1.0, 0.0)


def _loose(model: BlockModel, nominal: float, row: Vector) -> Equation:
    """Of one unit among those alike: what sets it apart from them is noise."""
    variance = (row * scatter_of(model)) ** 2
    loose = np.bincount(sources_of(model), variance, len(SOURCES)).astype(np.float64)
    return Equation(nominal, row @ shape_of(model), np.zeros(model.errors), loose, HAND_NOISE**2, 1.0, 0.0)


def _causes(model: BlockModel, of: Mapping[Parameter, float]) -> Vector:
    row, params = np.zeros(len(parameters_of(model))), parameters_of(model)
    for p, by in of.items():
        if p not in params:
            raise ReadingMisplaced("These units have nothing of that kind to measure.", field="kind")
        row[params.index(p)] += by
    return row


def _of_sources(**variances: float) -> Vector:
    return np.array([variances.get(s.value, 0.0) for s in SOURCES])


def _strip(model: BlockModel) -> Equation:
    """e = (W - 3m)/2: an error of the ruler is in both and leaves -1 of itself; ten quarters of each other variance of one
    reading, six quarters of the strips' own, half of the seams'."""
    row = _causes(model, {Parameter(Cause.SEAM): 1.0, Parameter(Cause.FOLD): 0.5})
    loose = _of_sources(seams=0.5 * SCATTER["mean"] ** 2)
    hands = 2.5 * HAND_NOISE**2 + 1.5 * STRIP_SCATTER**2
    return Equation(float(model.allowance), row, np.zeros(model.errors), loose, hands, 2.5, -1.0)


def _stitch(reading: Reading, model: BlockModel) -> Equation:
    spot = reading.spot or "middle"
    if not reading.seam or not model.places.seams:
        of = {Parameter(Cause.SEAM): 1.0}
        if spot in ("start", "end"):
            of[Parameter(Cause(spot))] = 1.0
        loose = _of_sources(seams=SCATTER["mean"] ** 2, along=SCATTER[spot] ** 2)
        hands = HAND_NOISE**2 + _WOBBLE**2
        return Equation(float(model.allowance), _causes(model, of), np.zeros(model.errors), loose, hands, 1.0, 1.0)
    n = model.places.seam(reading.seam)
    assert n is not None
    row = np.zeros(model.errors)
    row[[model.of_seam(n, "mean"), model.of_seam(n, spot)]] = 1.0
    return _tied_equation(model, float(model.allowance), row, wobble=_WOBBLE)


def _any_row(reading: Reading, model: BlockModel) -> Equation:
    """A row of so many units of a batch, side by side as they are made: n widths less 2 (n - 1) take-ups."""
    first, _ = _unit_of(reading, model)
    batch, n = model.places.batches[first.batch], reading.count
    of = {
        Parameter(Cause.SEAM): -2.0 * (n - 1),
        Parameter(Cause.FOLD): -1.0 * (n - 1),
        Parameter(Cause.TRIM, batch.number): float(n),
    }
    for axis in range(len(batch.strains)):
        of[Parameter(Cause.STRETCH, batch.number, axis)] = n * drawn_out(batch, axis, float(model.allowance))[0]
    loose = _of_sources(units=n * SCATTER["width"] ** 2, seams=4 * (n - 1) * SCATTER["mean"] ** 2)
    nominal = n * float(batch.spec.width) + 2 * float(model.allowance)
    return Equation(nominal, _causes(model, of), np.zeros(model.errors), loose, HAND_NOISE**2, 1.0, 0.0)


def _any_block(reading: Reading, model: BlockModel) -> Equation:
    """A whole block among those alike: its middle row or column, what sets this one apart from the others being noise."""
    kind = OF_ANY_BLOCK[reading.kind]
    lines = [n for n, f in enumerate(model.features) if f.kind is kind]
    if not lines:
        raise ReadingMisplaced("A block of one unit is measured as that unit.", field="kind")
    middle = lines[len(lines) // 2]
    return _loose(model, model.features[middle].nominal, model.response(middle))


def _unit_of(reading: Reading, model: BlockModel) -> tuple[PlacedUnit, bool]:
    """The unit, or, for any of a batch, its first one as it is made: upright."""
    if reading.unit:
        found = model.places.unit(reading.unit)
        assert found is not None
        return found, True
    batch = model.places.batch(reading.batch) if reading.batch else None
    first = next((c for c in model.places.cells if batch is not None and c.batch == batch.number), None)
    if first is None:
        raise ReadingMisplaced("Say which unit was measured: pick it on the drawing, or its kind.", field="unit")
    return first, False


def _raw(reading: Reading, model: BlockModel, cell: PlacedUnit, raw: Mapping[int, RawSizes]) -> Equation:
    sizes = raw.get(cell.batch)
    if sizes is None:
        raise ReadingMisplaced("These units have no cut and raw size by the plan.", field="kind")
    batch = model.places.batches[cell.batch]
    blank, cut = np.zeros(model.errors), Parameter(Cause.CUT, cell.batch)
    if reading.kind is ReadingKind.CUT:
        loose = _of_sources(cutting=CUT_SCATTER**2)
        return Equation(sizes.cut, _causes(model, {cut: 1.0}), blank, loose, HAND_NOISE**2, 1.0, 0.0)
    wide = reading.kind is ReadingKind.RAW_WIDTH
    size, loss, gain = (
        (sizes.width, sizes.width_loss, sizes.width_gain)
        if wide
        else (sizes.height, sizes.height_loss, sizes.height_gain)
    )
    of = {Parameter(Cause.SEAM): -loss, Parameter(Cause.FOLD): -loss / 2, cut: gain}
    for axis in range(len(batch.strains)):
        of[Parameter(Cause.STRETCH, cell.batch, axis)] = drawn_out(batch, axis, float(model.allowance))[not wide]
    loose = _of_sources(cutting=(gain * CUT_SCATTER) ** 2, seams=(loss * SCATTER["mean"]) ** 2)
    return Equation(size, _causes(model, of), blank, loose, HAND_NOISE**2, 1.0, 0.0)


def _of_unit(reading: Reading, model: BlockModel, cell: PlacedUnit) -> tuple[float, Vector, dict[Parameter, float]]:
    """Nominal, response of the unit's own errors, and what stretch does to a diagonal besides.

    Width and height are the unit's own, as it is made, however it lies; corners and diagonals are named as it lies in the
    block, or as it is made when any of its kind was measured.
    """
    rows = Responses(model.places)
    row: Response = {}
    s = float(model.allowance)
    batch = model.places.batches[cell.batch]
    match reading.kind:
        case ReadingKind.WIDTH | ReadingKind.HEIGHT:
            wide = reading.kind is ReadingKind.WIDTH
            size = float(batch.spec.width if wide else batch.spec.height)
            rows.unit(row, cell.number, "width" if wide != cell.orientation.across else "height", 1.0)
            return size + 2 * s, rows.dense(row), {}
        case ReadingKind.CLEARANCE:
            tips = _tips(reading, model, cell)
            for tip in tips:
                one: Response = {}
                clearance(rows, one, tip)
                for at, by in one.items():
                    row[at] = row.get(at, 0.0) + by / len(tips)
            return s, rows.dense(row), {}
        case ReadingKind.MISS:
            miss(rows, row, cell, _corner(reading, model, cell), 1 / sqrt(2))
            return 0.0, rows.dense(row), {}
        case _:
            return _diagonal(reading, model, cell, batch, rows)


def _diagonal(
    reading: Reading, model: BlockModel, cell: PlacedUnit, batch: UnitBatch, rows: Responses
) -> tuple[float, Vector, dict[Parameter, float]]:
    row: Response = {}
    s = float(model.allowance)
    wide, high = cell.width + 2 * s, cell.height + 2 * s
    long = hypot(wide, high)
    rows.unit(row, cell.number, "width", wide / long)
    rows.unit(row, cell.number, "height", high / long)
    up = 1.0 if reading.kind is ReadingKind.DIAGONAL_RISING else -1.0
    way = cell.as_made((wide / long, up * high / long)) if reading.unit else (0.0, 0.0)
    if not reading.unit:
        w, h = (high, wide) if cell.orientation.across else (wide, high)
        way = (w / long, up * h / long)
    extra = {}
    for axis, ways in enumerate(batch.strains):
        drawn = sum((way[0] * d[0] + way[1] * d[1]) ** 2 for d in ways) / len(ways)
        by_width, by_height = drawn_out(batch, axis, s)
        if cell.orientation.across:
            by_width, by_height = by_height, by_width
        # The sides' part of it is in their own errors already.
        extra[Parameter(Cause.STRETCH, batch.number, axis)] = drawn - (wide * by_width + high * by_height) / long
    return long, rows.dense(row), extra


def _tips(reading: Reading, model: BlockModel, cell: PlacedUnit) -> Sequence[EdgeTip]:
    """The tip that was read, on its side as the unit lies, or as it is made when any of a kind was measured; all of them when it
    was not told which."""
    tips = model.places.edge_tips_of.get(cell.number, ())
    found = [t for t in tips if reading.corner in ("", _side_of(t, reading, cell))]
    if not tips:
        raise ReadingMisplaced("This unit has no tip in the middle of a side.", field="kind")
    if not found:
        raise ReadingMisplaced("No tip of this unit points at that side.", field="corner")
    return found


def _side_of(tip: EdgeTip, reading: Reading, cell: PlacedUnit) -> str:
    return tip.side if reading.unit else cell.side_as_made(tip.side)


def _corner(reading: Reading, model: BlockModel, cell: PlacedUnit) -> CornerTip:
    """The corner as it lies in the block; for any of a kind, the one that is so named on the unit as it is made."""
    found = [t for t in model.places.corner_tips if t.cell == cell.number]
    for t in found:
        if not reading.corner:
            return t
        at = (OUTWARD[t.across][0] + OUTWARD[t.down][0], OUTWARD[t.across][1] + OUTWARD[t.down][1])
        x, y = at if reading.unit else cell.as_made(at)
        if reading.corner == f"{'top' if y > 0 else 'bottom'} {'right' if x > 0 else 'left'}":
            return t
    raise ReadingMisplaced("No diagonal runs into that corner of this unit.", field="corner")
