"""What a ruler reads on units, seams, rows and blocks: where each reading is taken, and its equation.

A reading is ``nominal + response · errors + noise``. One tied to a unit or seam by name speaks of that one's own errors;
one that is not speaks of any of its batch, and what sets that one apart is noise. Source: docs/theory, section 14.6.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum
from math import hypot, sqrt

import numpy as np

from ..errors import ReadingMisplaced, RowCountMissing, SizeOutOfRange, StripTestIncomplete
from ..lengths import ZERO, Length, inches
from ..planning.seam import StripTest
from ..planning.unit_plan import UnitPlan
from .causes import SCATTER, SOURCES, Cause, Parameter, drawn_out, parameters_of, scatter_of, shape_of, sources_of
from .model import BlockModel, FeatureKind, Response, Responses, Vector, clearance, miss
from .places import OUTWARD, CornerTip, PlacedUnit, UnitBatch

__all__ = [
    "ACROSS_SEAMS",
    "NEEDS_RAW",
    "OF_ANY_BLOCK",
    "OF_A_UNIT",
    "OF_THE_BLOCK",
    "PLAIN",
    "READING_WORDS",
    "SIDED",
    "Equation",
    "RawSizes",
    "ReadOn",
    "Reading",
    "ReadingKind",
    "equation_of",
    "kinds_offered",
    "loosened",
    "marked",
    "moved",
    "raw_sizes",
]

HAND_NOISE = 1 / 140
"""Of laying the ruler and judging the edge, before the mark is chosen."""
STRIP_SCATTER = 1 / 128
CUT_SCATTER = 1 / 64
_WOBBLE = 1 / 160
"""Of the stitching at one spot around the seam's own course."""


class ReadingKind(StrEnum):
    CUT = "cut"
    WIDTH = "width"
    HEIGHT = "height"
    RAW_WIDTH = "raw_width"
    RAW_HEIGHT = "raw_height"
    DIAGONAL_RISING = "diagonal_rising"
    DIAGONAL_FALLING = "diagonal_falling"
    MISS = "miss"
    CLEARANCE = "clearance"
    STITCH = "stitch"
    STRIP_TEST = "strip_test"
    TIP_GAP = "edge_tip"
    CORNER_GAP = "corner_tip"
    ROW = "row"
    COLUMN = "column"
    CROSSING = "crossing"
    BLOCK_WIDTH = "block_width"
    BLOCK_HEIGHT = "block_height"
    WAVY = "wavy"
    BOWED = "bowed"
    SHADOW = "shadow"
    FRAYED = "frayed"
    PICTURE_WRONG = "picture_wrong"
    RIGHT_WHEN_TURNED = "right_when_turned"
    SEAM_INSIDE_OUT = "seam_inside_out"
    TWO_ALIKE = "two_alike"


class ReadOn(StrEnum):
    """What a reading is taken on: a unit, one of its corners, its tip, a seam, a place of the joined block, strips sewn for it;
    or it is only seen."""

    UNIT = "unit"
    CORNER = "corner"
    TIP = "tip"
    SEAM = "seam"
    FEATURE = "feature"
    NOTHING = "none"
    SEEN = "seen"


@dataclass(frozen=True, slots=True)
class ReadingWords:
    """What a reading is called, what it is taken on, and just where the ruler lies; ``plain`` what it is called of a piece that is cut
    and never trimmed, where that is something else."""

    title: str
    on: ReadOn
    where: str = ""
    plain: str = ""


READING_WORDS = {
    ReadingKind.CUT: ReadingWords(
        "A piece as cut", ReadOn.UNIT, "one side of a piece, cut edge to cut edge, before it is sewn"
    ),
    ReadingKind.RAW_WIDTH: ReadingWords(
        "Raw width", ReadOn.UNIT, "the unit sewn, pressed and not yet trimmed: across it as it is made"
    ),
    ReadingKind.RAW_HEIGHT: ReadingWords(
        "Raw height", ReadOn.UNIT, "the unit sewn, pressed and not yet trimmed: up and down it as it is made"
    ),
    ReadingKind.WIDTH: ReadingWords(
        "Trimmed width",
        ReadOn.UNIT,
        "raw edge to raw edge through its middle, across the unit as it is made, however it lies",
        "Width",
    ),
    ReadingKind.HEIGHT: ReadingWords(
        "Trimmed height",
        ReadOn.UNIT,
        "raw edge to raw edge through its middle, up and down the unit as it is made, however it lies",
        "Height",
    ),
    ReadingKind.DIAGONAL_RISING: ReadingWords(
        "Diagonal, rising", ReadOn.UNIT, "from its lower left to its upper right raw corner, not pulled"
    ),
    ReadingKind.DIAGONAL_FALLING: ReadingWords(
        "Diagonal, falling", ReadOn.UNIT, "from its upper left to its lower right raw corner, not pulled"
    ),
    ReadingKind.MISS: ReadingWords(
        "Diagonal past the corner",
        ReadOn.CORNER,
        "the ruler on the diagonal seam, drawn out to the raw edge: how far from the corner it passes, square to it",
    ),
    ReadingKind.CLEARANCE: ReadingWords(
        "Tip to raw edge", ReadOn.TIP, "before joining: from the tip straight to the raw edge it points at"
    ),
    ReadingKind.STITCH: ReadingWords(
        "Raw edge to stitching", ReadOn.SEAM, "on the back, allowance lifted flat: from the raw edge to the stitches"
    ),
    ReadingKind.STRIP_TEST: ReadingWords(
        "Strip test",
        ReadOn.NOTHING,
        "three strips of one width, sewn and pressed to one side: the middle one seam to seam, then all three",
    ),
    ReadingKind.ROW: ReadingWords(
        "Row", ReadOn.FEATURE, "joined, pressed and lying flat: raw edge to raw edge along the line shown"
    ),
    ReadingKind.COLUMN: ReadingWords(
        "Column", ReadOn.FEATURE, "joined, pressed and lying flat: raw edge to raw edge along the line shown"
    ),
    ReadingKind.TIP_GAP: ReadingWords(
        "Tip to its seam", ReadOn.FEATURE, "on the front after joining: from the tip to the seam it should touch"
    ),
    ReadingKind.CORNER_GAP: ReadingWords(
        "Diagonal to its corner",
        ReadOn.FEATURE,
        "on the front after joining: along the seam, from the corner to where the diagonal ends",
    ),
    ReadingKind.CROSSING: ReadingWords(
        "Step at a crossing",
        ReadOn.FEATURE,
        "on the front after joining: along the seam, from one seam end to the other",
    ),
    ReadingKind.BLOCK_WIDTH: ReadingWords(
        "One block across",
        ReadOn.NOTHING,
        "any of the blocks, joined, pressed and lying flat: raw edge to raw edge through its middle",
    ),
    ReadingKind.BLOCK_HEIGHT: ReadingWords(
        "One block down",
        ReadOn.NOTHING,
        "any of the blocks, joined, pressed and lying flat: raw edge to raw edge through its middle",
    ),
    ReadingKind.WAVY: ReadingWords("It lies wavy", ReadOn.SEEN),
    ReadingKind.BOWED: ReadingWords("A row is bowed", ReadOn.SEEN),
    ReadingKind.SHADOW: ReadingWords("Dark cloth shows through", ReadOn.SEEN),
    ReadingKind.FRAYED: ReadingWords("Edges fray", ReadOn.SEEN),
    ReadingKind.PICTURE_WRONG: ReadingWords("The picture is wrong", ReadOn.SEEN),
    ReadingKind.RIGHT_WHEN_TURNED: ReadingWords("It comes right when a unit is turned", ReadOn.SEEN),
    ReadingKind.SEAM_INSIDE_OUT: ReadingWords("An allowance shows on the front", ReadOn.SEEN),
    ReadingKind.TWO_ALIKE: ReadingWords("Two units alike where mirrored ones are wanted", ReadOn.SEEN),
}
PLAIN = (
    ReadingKind.WAVY,
    ReadingKind.BOWED,
    ReadingKind.SHADOW,
    ReadingKind.FRAYED,
    ReadingKind.PICTURE_WRONG,
    ReadingKind.RIGHT_WHEN_TURNED,
    ReadingKind.SEAM_INSIDE_OUT,
    ReadingKind.TWO_ALIKE,
)
"""Seen, not measured."""
NEEDS_RAW = (ReadingKind.CUT, ReadingKind.RAW_WIDTH, ReadingKind.RAW_HEIGHT)
"""Taken before trimming: they speak of the way the unit is made."""
OF_A_UNIT = (
    *NEEDS_RAW,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.DIAGONAL_RISING,
    ReadingKind.DIAGONAL_FALLING,
    ReadingKind.MISS,
    ReadingKind.CLEARANCE,
)
OF_THE_BLOCK = (
    ReadingKind.TIP_GAP,
    ReadingKind.CORNER_GAP,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
    ReadingKind.CROSSING,
)
ACROSS_SEAMS = (ReadingKind.ROW, ReadingKind.COLUMN, ReadingKind.BLOCK_WIDTH, ReadingKind.BLOCK_HEIGHT)
"""Lengths of what is joined: they answer for its units and its seams."""
OF_ANY_BLOCK = {ReadingKind.BLOCK_WIDTH: FeatureKind.ROW, ReadingKind.BLOCK_HEIGHT: FeatureKind.COLUMN}
"""Of one block among those alike, whole."""
SIDED = (ReadingKind.MISS, ReadingKind.TIP_GAP, ReadingKind.CORNER_GAP, ReadingKind.CROSSING)
"""Those that may lie on either of two sides; below zero inside means the second of them. All others are above zero."""
_BY_RULER = (
    *NEEDS_RAW,
    ReadingKind.WIDTH,
    ReadingKind.HEIGHT,
    ReadingKind.DIAGONAL_RISING,
    ReadingKind.DIAGONAL_FALLING,
    ReadingKind.CLEARANCE,
    ReadingKind.STITCH,
    ReadingKind.ROW,
    ReadingKind.COLUMN,
    ReadingKind.BLOCK_WIDTH,
    ReadingKind.BLOCK_HEIGHT,
)
"""From an edge to a mark: an error of the ruler, or of how its edge is laid, is in each of them alike."""
_MOST = inches(400)
LONGEST_ROW = 200


@dataclass(frozen=True, slots=True)
class Reading:
    """One reading. Which fields tell where it was taken depends on its kind; all of them are names that stay.

    ``unit`` (such as c3r1) for a unit laid in the block, ``batch`` for any of that kind and size; ``corner`` ("bottom left")
    for a diagonal's miss; ``seam`` and ``spot`` (start, middle, end) for the stitching; ``feature`` (a key of the model) for
    what is joined; ``count`` for a row of so many units of a batch, wherever it lies. ``mark`` says what lay there when it was taken: where that has changed, the reading is of something that
    is no longer in the block. ``confirmed`` says that it was read again and is right. ``day`` tells apart seams sewn on
    different days, and ``apart`` says how far, in inches, the mean seam of that day may lie from today's for being long ago or of
    another set-up.

    Raises ``SizeOutOfRange`` or ``StripTestIncomplete``.
    """

    kind: ReadingKind
    value: Length | None = None
    batch: str = ""
    unit: str = ""
    corner: str = ""
    seam: str = ""
    spot: str = ""
    feature: str = ""
    whole: Length | None = None
    count: int = 0
    day: str = ""
    mark: str = ""
    confirmed: bool = False
    key: str = ""
    apart: float = 0.0

    def __post_init__(self) -> None:
        if self.kind in PLAIN:
            return
        if self.value is None:
            raise SizeOutOfRange("Type what the ruler reads.", field="value")
        if self.kind not in SIDED and self.value <= ZERO:
            raise SizeOutOfRange("A reading is above zero. Read it again, or leave it out.", field="value")
        if abs(self.value) > _MOST:
            raise SizeOutOfRange("A reading of more than {most} is no part of a block.", field="value", most=_MOST)
        if self.kind is ReadingKind.ROW and not self.feature and not 2 <= self.count <= LONGEST_ROW:
            raise RowCountMissing(
                "A row's length says nothing without its number of units. Give a count from 2 to {most}.",
                field="count",
                most=LONGEST_ROW,
            )
        if self.kind is ReadingKind.STRIP_TEST:
            if self.whole is None:
                raise StripTestIncomplete(
                    "A strip test is two readings: the middle strip and all three together. Give both.", field="whole"
                )
            _ = StripTest(self.value, self.whole)

    @property
    def read(self) -> float:
        """Inches: the take-up of a strip test, else the value."""
        if self.value is None:
            return 0.0
        if self.kind is ReadingKind.STRIP_TEST and self.whole is not None:
            return float(StripTest(self.value, self.whole).take_up)
        return float(self.value)

    @property
    def piece(self) -> tuple[str, ...]:
        """The one spot of the one piece it was taken on; empty when any of many may have been measured.

        Reading the same spot again shows the same mark again: what the marks leave unsaid is common to all of them.
        """
        where = (self.unit, self.seam, self.spot, self.corner, self.feature)
        return (self.kind.value, *where) if self.unit or self.seam or self.feature else ()


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
    def noise(self) -> float:
        """Variance of everything that is not the causes' or the errors', for steady hands."""
        return float(self.loose.sum()) + self.hand + self.mark


def marked(reading: Reading, model: BlockModel) -> Reading:
    """The same reading with what lies there now, and of which batch that is. Raises ``ReadingMisplaced`` when nothing of the
    kind does."""
    unit = model.places.unit(reading.unit) if reading.unit else None
    batch = model.places.batches[unit.batch].key if unit is not None else reading.batch
    return replace(reading, mark=_mark(reading, model), batch=batch)


def _mark(reading: Reading, model: BlockModel) -> str:
    places = model.places
    if reading.kind in PLAIN:
        return ""
    if reading.feature:
        n = model.find(reading.feature)
        if n is None or model.features[n].kind.value != reading.kind.value:
            raise ReadingMisplaced("This block has no such place. Pick it on the drawing again.", field="feature")
        return model.mark_of(n)
    if reading.unit:
        unit = places.unit(reading.unit)
        if unit is None:
            raise ReadingMisplaced("This block has no such unit. Pick it on the drawing again.", field="unit")
        return places.mark(unit)
    if reading.seam:
        n = places.seam(reading.seam)
        if n is None:
            raise ReadingMisplaced("This block has no such seam. Pick it on the drawing again.", field="seam")
        return places.seam_mark(n)
    if reading.batch and places.batch(reading.batch) is None:
        raise ReadingMisplaced("This block has no such units. Pick one on the drawing, or its kind.", field="batch")
    return ""


def moved(reading: Reading, by: Length) -> Reading:
    """What a seam reading or strip test would have been with the guide moved ``by`` so much away from the needle: the stitching moves
    as much; the middle strip of a test loses two seams of it, the whole four. One that is moved to nothing stays as it was."""
    if reading.value is None or by == ZERO:
        return reading
    if reading.kind is ReadingKind.STRIP_TEST and reading.whole is not None:
        value, whole = reading.value - by * 2, reading.whole - by * 4
        return replace(reading, value=value, whole=whole) if min(value, whole) > ZERO else reading
    value = reading.value + by
    return replace(reading, value=value) if reading.kind is ReadingKind.STITCH and value > ZERO else reading


def equation_of(
    reading: Reading, model: BlockModel, resolution: Length, raw: Mapping[int, RawSizes] | None = None
) -> Equation:
    """The equation of one reading taken with a ruler marked every ``resolution``.

    Raises ``ReadingMisplaced`` when it says it was taken where this block has nothing of the kind, or has something else
    now than when it was taken.
    """
    mark = _mark(reading, model)
    if reading.mark and reading.mark != mark:
        raise ReadingMisplaced("What was measured here is no longer in the block.", field="feature")
    found = _found(reading, model, raw or {})
    by_ruler = 1.0 if reading.kind in _BY_RULER else 0.0
    return replace(found, mark=float(resolution) ** 2 / 12 * found.mark, by_ruler=by_ruler or found.by_ruler)


def _found(reading: Reading, model: BlockModel, raw: Mapping[int, RawSizes]) -> Equation:
    """With ``mark`` counted in marks of the ruler."""
    if reading.kind is ReadingKind.ROW and not reading.feature:
        return _any_row(reading, model)
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        if n is None:
            raise ReadingMisplaced("Say where on the block: pick it on the drawing.", field="feature")
        small = model.features[n].kind in (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP, FeatureKind.CROSSING)
        return _tied(model, model.features[n].nominal, model.response(n), 2.0 if small else 1.0)
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
    found = _tied(model, nominal, row) if tied else _loose(model, nominal, row)
    for p, by in extra.items():
        found.of_causes[parameters_of(model).index(p)] += by
    return found


def _tied(model: BlockModel, nominal: float, row: Vector, hand: float = 1.0, wobble: float = 0.0) -> Equation:
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
    return _tied(model, float(model.allowance), row, wobble=_WOBBLE)


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


def loosened(reading: Reading, model: BlockModel) -> Reading | None:
    """What a reading taken elsewhere says of this block: a seam of any seam, a unit of any of its kind and size. None when it
    says nothing of it, as of places in another block, or of sides that only that block has."""
    if reading.kind in (ReadingKind.STITCH, ReadingKind.STRIP_TEST):
        return replace(reading, batch="", unit="", seam="", mark="", feature="")
    of_any = reading.kind in OF_A_UNIT or (reading.kind is ReadingKind.ROW and reading.count >= 2)
    turned = reading.kind in (ReadingKind.MISS, ReadingKind.DIAGONAL_RISING, ReadingKind.DIAGONAL_FALLING)
    if not of_any or turned or reading.feature or model.places.batch(reading.batch) is None:
        return None
    return replace(reading, unit="", corner="", mark="")


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
            tip = next((t for t in model.places.edge_tips if t.cell == cell.number), None)
            if tip is None:
                raise ReadingMisplaced("This unit has no tip in the middle of a side.", field="kind")
            clearance(rows, row, tip)
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


def kinds_offered(model: BlockModel, *, of_row: bool = False) -> tuple[ReadingKind, ...]:
    """Every kind of reading that can be taken of this block, in the order of the work; of a loose row, no columns or crossings."""
    has = {f.kind.value for f in model.features} - ({"column", "crossing"} if of_row else set())
    batches = model.places.batches
    able = {
        ReadOn.TIP: any(b.tips for b in batches),
        ReadOn.CORNER: any(b.corners for b in batches),
        ReadOn.UNIT: True,
        ReadOn.SEAM: True,
        ReadOn.NOTHING: True,
        ReadOn.SEEN: True,
    }
    made = any(not b.plain for b in batches)
    return tuple(
        kind
        for kind, words in READING_WORDS.items()
        if (kind.value in has if words.on is ReadOn.FEATURE else able[words.on])
        and (made or kind not in NEEDS_RAW)
        and (kind not in OF_ANY_BLOCK or (not of_row and OF_ANY_BLOCK[kind].value in has))
    )
