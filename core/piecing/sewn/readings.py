"""What a ruler reads on units, seams, rows and blocks, and the equation of each reading.

A reading is ``nominal + response · errors + noise``. One tied to a unit or seam speaks of that one's own errors; one that
is not speaks of its batch, and its own scatter is noise. Source: docs/theory.md, section 14.6.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from math import hypot, sqrt

import numpy as np

from ..errors import ReadingMisplaced, SizeOutOfRange, StripTestIncomplete
from ..lengths import ZERO, Length, inches
from ..planning import UnitPlan
from ..seams import StripTest
from ..wording import Said
from .causes import SCATTER, SewnCause, parameters_of, scatter_of, shape_of
from .model import FeatureKind, Responses, SewnModel, Vector, miss
from .places import OUTWARD, CornerTip, Here, batch_name

__all__ = ["Equation", "RawSizes", "SewnKind", "SewnReading", "equation_of", "raw_sizes"]

HAND_NOISE = 1 / 128
"""Of laying the ruler and judging the edge, before the mark is chosen."""
STRIP_SCATTER = 1 / 128
CUT_SCATTER = 1 / 64
_WOBBLE = 1 / 128
"""Of the stitching at one spot around the seam's own course."""


class SewnKind(StrEnum):
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
    WAVY = "wavy"
    BOWED = "bowed"
    SHADOW = "shadow"
    FRAYED = "frayed"
    PICTURE_WRONG = "picture_wrong"
    RIGHT_WHEN_TURNED = "right_when_turned"


PLAIN = (
    SewnKind.WAVY,
    SewnKind.BOWED,
    SewnKind.SHADOW,
    SewnKind.FRAYED,
    SewnKind.PICTURE_WRONG,
    SewnKind.RIGHT_WHEN_TURNED,
)
"""Seen, not measured."""
OF_A_UNIT = (
    SewnKind.CUT,
    SewnKind.WIDTH,
    SewnKind.HEIGHT,
    SewnKind.RAW_WIDTH,
    SewnKind.RAW_HEIGHT,
    SewnKind.DIAGONAL_RISING,
    SewnKind.DIAGONAL_FALLING,
    SewnKind.MISS,
    SewnKind.CLEARANCE,
)
OF_THE_BLOCK = (SewnKind.TIP_GAP, SewnKind.CORNER_GAP, SewnKind.ROW, SewnKind.COLUMN, SewnKind.CROSSING)
_SIGNED = (SewnKind.MISS, SewnKind.TIP_GAP, SewnKind.CORNER_GAP, SewnKind.CROSSING)
"""Their sign says which way; all others are above zero."""
_MOST = inches(400)


@dataclass(frozen=True, slots=True)
class SewnReading:
    """One reading of a block. Which fields tell where it was taken depends on its kind.

    ``batch`` for a unit not yet laid, ``cell`` for one that is; ``corner`` ("bottom left") for a diagonal's miss;
    ``seam`` and ``spot`` (start, middle, end) for the stitching; ``feature`` (a key of the model) for what is joined.
    ``confirmed`` says that it was read again and is right. ``day`` tells apart seams sewn on different days.

    Raises ``SizeOutOfRange`` or ``StripTestIncomplete``.
    """

    kind: SewnKind
    value: Length | None = None
    batch: int = -1
    cell: int = -1
    corner: str = ""
    seam: int = -1
    spot: str = ""
    feature: str = ""
    whole: Length | None = None
    day: str = ""
    confirmed: bool = False
    key: str = ""

    def __post_init__(self) -> None:
        if self.kind in PLAIN:
            return
        if self.value is None:
            raise SizeOutOfRange("Type what the ruler reads.", field="value")
        if self.kind not in _SIGNED and self.value <= ZERO:
            raise SizeOutOfRange("A reading is above zero. Read it again, or leave it out.", field="value")
        if abs(self.value) > _MOST:
            raise SizeOutOfRange("A reading of more than {most} is no part of a block.", field="value", most=_MOST)
        if self.kind is SewnKind.STRIP_TEST:
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
        if self.kind is SewnKind.STRIP_TEST and self.whole is not None:
            return float(StripTest(self.value, self.whole).take_up)
        return float(self.value)


@dataclass(frozen=True, slots=True)
class RawSizes:
    """Of a batch before trimming: size as planned, what an inch of take-up loses, what an inch of cut size gains; and the
    size that its first pieces are cut to."""

    width: float
    height: float
    loss: float
    gain: float
    cut: float


def raw_sizes(plan: UnitPlan) -> RawSizes:
    """By the plan of the batch."""
    s = plan.choices.seam_allowance
    one = inches(1)
    raw = plan.raw_at(s)
    return RawSizes(
        float(raw),
        float(raw + plan.raw_height - plan.raw_width),
        float(plan.raw_at(ZERO) - plan.raw_at(one)),
        float(plan.raw_at(s, cut_off=one) - raw),
        float(next(iter(plan.cuts.values()))),
    )


@dataclass(frozen=True)
class Equation:
    """``of_causes`` (parameters,), ``of_errors`` (errors,; all zero when the scatter is in ``noise``), ``noise`` a variance."""

    nominal: float
    of_causes: Vector
    of_errors: Vector
    noise: float


def equation_of(
    reading: SewnReading, model: SewnModel, resolution: Length, raw: Mapping[int, RawSizes] | None = None
) -> Equation:
    """The equation of one reading taken with a ruler marked every ``resolution``.

    Raises ``ReadingMisplaced`` when it says it was taken where this block has nothing of the kind.
    """
    ruler = float(resolution) ** 2 / 12 + HAND_NOISE**2
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        if n is None or model.features[n].kind.value != reading.kind.value:
            raise _misplaced("This block has no such place. Pick it on the drawing again.", "feature")
        if model.features[n].kind in (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP, FeatureKind.CROSSING):
            ruler += HAND_NOISE**2
        return _tied(model, model.features[n].nominal, model.matrix[n], ruler)
    if reading.kind is SewnKind.STRIP_TEST:
        return _strip(model, ruler)
    if reading.kind is SewnKind.STITCH:
        return _stitch(reading, model, ruler)
    cell, tied = _unit_of(reading, model)
    if reading.kind in (SewnKind.CUT, SewnKind.RAW_WIDTH, SewnKind.RAW_HEIGHT):
        return _raw(reading, model, cell, raw or {}, ruler)
    nominal, row, extra = _of_unit(reading, model, cell)
    found = _tied(model, nominal, row, ruler) if tied else _loose(model, nominal, row, ruler)
    if extra:
        found.of_causes[_parameter(model, SewnCause.STRETCH, cell.batch)] += extra
    return found


def _misplaced(said: str, field: str) -> ReadingMisplaced:
    return ReadingMisplaced(said, field=field)


def _tied(model: SewnModel, nominal: float, row: Vector, noise: float) -> Equation:
    return Equation(nominal, row @ shape_of(model), row, noise)


def _loose(model: SewnModel, nominal: float, row: Vector, noise: float) -> Equation:
    """Of one unit or seam among those alike: what sets it apart from them is noise."""
    scatter = float(((row * scatter_of(model)) ** 2).sum())
    return Equation(nominal, row @ shape_of(model), np.zeros(model.errors), noise + scatter)


def _parameter(model: SewnModel, cause: SewnCause, batch: int = -1) -> int:
    for n, p in enumerate(parameters_of(model)):
        if p.cause is cause and p.batch == batch:
            return n
    raise _misplaced("These units have nothing of that kind to measure.", "kind")


def _causes(model: SewnModel, of: Mapping[tuple[SewnCause, int], float]) -> Vector:
    row = np.zeros(len(parameters_of(model)))
    for (cause, batch), by in of.items():
        row[_parameter(model, cause, batch)] += by
    return row


def _strip(model: SewnModel, ruler: float) -> Equation:
    # e = (W - 3m)/2: ten quarter-variances of the ruler, six quarters of the strips, half of the seams'.
    noise = 2.5 * ruler + 1.5 * STRIP_SCATTER**2 + 0.5 * SCATTER["mean"] ** 2
    row = _causes(model, {(SewnCause.SEAM, -1): 1.0, (SewnCause.FOLD, -1): 0.5})
    return Equation(float(model.allowance), row, np.zeros(model.errors), noise)


def _stitch(reading: SewnReading, model: SewnModel, ruler: float) -> Equation:
    spot = reading.spot or "middle"
    noise = ruler + _WOBBLE**2
    if reading.seam < 0 or not model.places.seams:
        of = {(SewnCause.SEAM, -1): 1.0}
        if spot in ("start", "end"):
            of[SewnCause(spot), -1] = 1.0
        scatter = SCATTER["mean"] ** 2 + SCATTER[spot] ** 2
        return Equation(float(model.allowance), _causes(model, of), np.zeros(model.errors), noise + scatter)
    if reading.seam >= len(model.places.seams):
        raise _misplaced("This block has no such seam. Pick it on the drawing again.", "seam")
    row = np.zeros(model.errors)
    row[[model.of_seam(reading.seam, "mean"), model.of_seam(reading.seam, spot)]] = 1.0
    return _tied(model, float(model.allowance), row, noise)


def _unit_of(reading: SewnReading, model: SewnModel) -> tuple[Here, bool]:
    cells = model.places.cells
    if reading.cell >= 0:
        if reading.cell >= len(cells):
            raise _misplaced("This block has no such unit. Pick it on the drawing again.", "cell")
        return cells[reading.cell], True
    found = next((c for c in cells if c.batch == reading.batch), None)
    if found is None:
        raise _misplaced("Say which unit was measured: pick it on the drawing, or its kind.", "cell")
    return found, False


def _raw(reading: SewnReading, model: SewnModel, cell: Here, raw: Mapping[int, RawSizes], ruler: float) -> Equation:
    sizes = raw.get(cell.batch)
    if sizes is None:
        raise _misplaced("These units have no cut and raw size by the plan.", "kind")
    if reading.kind is SewnKind.CUT:
        row = _causes(model, {(SewnCause.CUT, cell.batch): 1.0})
        return Equation(sizes.cut, row, np.zeros(model.errors), ruler + CUT_SCATTER**2)
    of = {
        (SewnCause.SEAM, -1): -sizes.loss,
        (SewnCause.FOLD, -1): -sizes.loss / 2,
        (SewnCause.CUT, cell.batch): sizes.gain,
        (SewnCause.STRETCH, cell.batch): 2**-1.5,
    }
    noise = ruler + (sizes.gain * CUT_SCATTER) ** 2 + (sizes.loss * SCATTER["mean"]) ** 2
    across = (reading.kind is SewnKind.RAW_WIDTH) != model.places.layout.cells[cell.number].lie.across
    return Equation(sizes.width if across else sizes.height, _causes(model, of), np.zeros(model.errors), noise)


def _of_unit(reading: SewnReading, model: SewnModel, cell: Here) -> tuple[float, Vector, float]:
    """Nominal, response of the unit's own errors, and what stretch does besides (inches per inch)."""
    rows = Responses(model.places)
    row, s = rows.blank(), float(model.allowance)
    wide, high = cell.width + 2 * s, cell.height + 2 * s
    match reading.kind:
        case SewnKind.WIDTH:
            rows.unit(row, cell.number, "width", 1.0)
            return wide, row, 0.0
        case SewnKind.HEIGHT:
            rows.unit(row, cell.number, "height", 1.0)
            return high, row, 0.0
        case SewnKind.CLEARANCE:
            tip = next((t for t in model.places.edge_tips if t.cell == cell.number), None)
            if tip is None:
                raise _misplaced("This unit has no tip in the middle of a side.", "kind")
            out = OUTWARD[tip.side]
            rows.unit(row, cell.number, "tip", 1.0)
            rows.unit(row, cell.number, "across", -out[0])
            rows.unit(row, cell.number, "up", -out[1])
            return s, row, 0.0
        case SewnKind.MISS:
            tip2 = _corner(reading, model, cell)
            miss(rows, row, cell, tip2, 1 / sqrt(2))
            return 0.0, row, 0.0
        case _:
            long = hypot(wide, high)
            rows.unit(row, cell.number, "width", wide / long)
            rows.unit(row, cell.number, "height", high / long)
            if model.places.batches[cell.batch].plain:
                return long, row, 0.0
            # Pulled along one diagonal, that one takes all of it and the other none; half is in the sides already.
            rising = cell.shift[0] * cell.shift[1] < 0
            along = (reading.kind is SewnKind.DIAGONAL_RISING) == rising
            return long, row, 0.5 if along else -0.5


def _corner(reading: SewnReading, model: SewnModel, cell: Here) -> CornerTip:
    found = [t for t in model.places.corner_tips if t.cell == cell.number]
    for t in found:
        if not reading.corner or reading.corner == f"{t.down} {t.across}":
            return t
    raise _misplaced("No diagonal runs into that corner of this unit.", "corner")


def reading_said(reading: SewnReading, model: SewnModel) -> Said:
    """What was measured and where, in words."""
    k = reading.kind
    where = _where(reading, model)
    names = {
        SewnKind.CUT: "a piece as cut",
        SewnKind.WIDTH: "trimmed width",
        SewnKind.HEIGHT: "trimmed height",
        SewnKind.RAW_WIDTH: "raw width",
        SewnKind.RAW_HEIGHT: "raw height",
        SewnKind.DIAGONAL_RISING: "diagonal, rising",
        SewnKind.DIAGONAL_FALLING: "diagonal, falling",
        SewnKind.MISS: f"diagonal past the {reading.corner or 'first'} corner",
        SewnKind.CLEARANCE: "tip to raw edge",
        SewnKind.STITCH: f"raw edge to stitching, {reading.spot or 'middle'}",
        SewnKind.STRIP_TEST: "strip test",
        SewnKind.WAVY: "lies wavy",
        SewnKind.BOWED: "a row is bowed",
        SewnKind.SHADOW: "dark cloth shows through",
        SewnKind.FRAYED: "an edge frays",
        SewnKind.PICTURE_WRONG: "the picture is wrong",
        SewnKind.RIGHT_WHEN_TURNED: "the picture is right when a unit is turned",
    }
    if k in OF_THE_BLOCK:
        return Said(where)
    return Said(f"{where}: {names[k]}" if where else names[k])


def _where(reading: SewnReading, model: SewnModel) -> str:
    if reading.kind in OF_THE_BLOCK:
        n = model.find(reading.feature)
        return feature_name(model, n) if n is not None else ""
    if reading.kind is SewnKind.STITCH and 0 <= reading.seam < len(model.places.seams):
        return model.places.seams[reading.seam].name
    if 0 <= reading.cell < len(model.places.cells):
        return model.places.cells[reading.cell].name
    if reading.kind in OF_A_UNIT and 0 <= reading.batch < len(model.places.batches):
        return f"one of the {batch_name(model.places, reading.batch)}"
    return ""


def feature_name(model: SewnModel, n: int) -> str:
    """A place to measure on a joined block."""
    f = model.features[n]
    match f.kind:
        case FeatureKind.ROW | FeatureKind.COLUMN:
            edge = {"top": "upper", "bottom": "lower"}.get(f.edge, f.edge)
            return f"{f.kind.value} {f.row + 1}, {edge} edge"
        case FeatureKind.EDGE_TIP:
            return f"{model.places.cells[f.cell].name}: tip at its {f.edge}"
        case FeatureKind.CORNER_TIP:
            return f"{model.places.cells[f.cell].name}: diagonal at its {f.edge} corner"
        case FeatureKind.CROSSING:
            return f"{model.places.seams[f.seam].name}, crossing {f.key.rsplit(':', 1)[1]}"
