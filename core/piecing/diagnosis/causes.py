"""What can go wrong with a block: causes common to its seams or to a batch of its units, and single seams and units.

Every judged figure here (how large a cause is when there is one, how often, how much hands vary) is derived in
docs/theory, section 14.3; change them there and here together.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache
from math import hypot

import numpy as np
from numpy.typing import NDArray

from .model import OF_SEAM, OF_UNIT, BlockModel, Vector
from .places import PlacedUnit, UnitBatch

__all__ = [
    "CAUSE_WORDS",
    "FOLD_USUAL",
    "SCATTER",
    "SOURCES",
    "Cause",
    "Parameter",
    "Source",
    "drawn_out",
    "effect_of",
    "parameters_of",
    "scatter_of",
    "shape_of",
    "singles_of",
    "sources_of",
    "touched_by",
]


class Cause(StrEnum):
    SEAM = "seam"
    START = "start"
    END = "end"
    FOLD = "fold"
    TRIM = "trim"
    SHIFT = "shift"
    TIP = "tip"
    CUT = "cut"
    STRETCH = "stretch"
    SOME_SEAMS = "some_seams"
    ONE_SEAM = "one_seam"
    ONE_UNIT = "one_unit"


CAUSE_WORDS = {
    Cause.SEAM: "Stitching distance",
    Cause.START: "Drift at the start of seams",
    Cause.END: "Drift at the end of seams",
    Cause.FOLD: "Fold",
    Cause.TRIM: "Trimmed size",
    Cause.SHIFT: "Off the diagonal",
    Cause.TIP: "Clearance above the tip",
    Cause.CUT: "Cut size",
    Cause.STRETCH: "Stretch on the bias",
    Cause.SOME_SEAMS: "Some of the seams",
    Cause.ONE_SEAM: "One seam",
    Cause.ONE_UNIT: "One unit",
}
"""What a cause is called."""
FOLD_USUAL = 1 / 64
"""Where none was measured: between paid for and the usual 1/32."""


class Source(StrEnum):
    """Where hands vary from one piece to the next."""

    UNITS = "units"
    SEAMS = "seams"
    ALONG = "along"
    CUTTING = "cutting"


SOURCES = tuple(Source)
SCATTER = {
    "width": 1 / 104,
    "height": 1 / 104,
    "across": 1 / 160,
    "up": 1 / 160,
    "turn": 1 / 180,
    "tip": 1 / 112,
    "mean": 1 / 120,
    "start": 1 / 120,
    "middle": 1 / 180,
    "end": 1 / 120,
    "fold": 1 / 256,
}
"""Standard deviations in inches of one unit or seam around what the causes make of it, for steady hands."""
_ALONG = ("start", "middle", "end")
_WHOLE, _SIDES = "whole", ("width", "height")


@dataclass(frozen=True, slots=True)
class Parameter:
    """One cause, in inches. ``batch`` tells whose units (-1: the seams of all) and ``axis`` which way they slipped or were
    drawn; for a single seam or unit ``place`` is its number and ``spot`` where along it or what of it, for some seams the number
    of their group."""

    cause: Cause
    batch: int = -1
    axis: int = 0
    place: int = -1
    spot: str = ""

    @property
    def key(self) -> str:
        """Short and unlike any other of the same block."""
        parts = [self.cause.value]
        if self.batch >= 0:
            parts.append(f"{self.batch}")
        if self.axis:
            parts.append(f"way{self.axis + 1}")
        if self.place >= 0:
            parts += [f"{self.place}", self.spot]
        return "-".join(parts)

    @property
    def single(self) -> bool:
        """Whether it is of one seam, unit or group of seams rather than of all of a batch."""
        return self.place >= 0


@lru_cache(maxsize=64)
def parameters_of(model: BlockModel) -> tuple[Parameter, ...]:
    """Every common cause there can be in a block: those of the seams, then those of each batch."""
    found = [Parameter(c) for c in (Cause.SEAM, Cause.START, Cause.END, Cause.FOLD)]
    for b in model.places.batches:
        found.append(Parameter(Cause.TRIM, b.number))
        if b.corners or b.tips:
            found += [Parameter(Cause.SHIFT, b.number, axis) for axis in range(len(b.slips))]
        if b.tips:
            found.append(Parameter(Cause.TIP, b.number))
        if not b.plain:
            found.append(Parameter(Cause.CUT, b.number))
            found += [Parameter(Cause.STRETCH, b.number, axis) for axis in range(len(b.strains))]
    return tuple(found)


def singles_of(model: BlockModel, touched: NDArray[np.int64] | None = None) -> Iterator[Parameter]:
    """Every single seam, as a whole or toward its start, middle or end, every group of them, and every single unit, in size or
    off its lines; only those that have one of the ``touched`` errors, if given."""
    errors = np.arange(model.errors) if touched is None else touched
    of_units = len(OF_UNIT) * len(model.places.cells)
    seams = np.unique((errors[errors >= of_units] - of_units) // len(OF_SEAM))
    cells = np.unique(errors[errors < of_units] // len(OF_UNIT))
    for n in map(int, seams):
        for spot in (_WHOLE, *_ALONG):
            yield Parameter(Cause.ONE_SEAM, place=n, spot=spot)
    for n, group in enumerate(model.places.seam_groups):
        if np.isin(group.seams, seams).any():
            yield Parameter(Cause.SOME_SEAMS, place=n, spot=_WHOLE)
    for c in (model.places.cells[int(k)] for k in cells):
        b = model.places.batches[c.batch]
        yield Parameter(Cause.ONE_UNIT, place=c.number, spot="size")
        for side in _SIDES:
            yield Parameter(Cause.ONE_UNIT, place=c.number, spot=side)
        if b.corners or b.tips:
            for axis in range(len(b.slips)):
                yield Parameter(Cause.ONE_UNIT, axis=axis, place=c.number, spot="slip")
        if b.tips:
            yield Parameter(Cause.ONE_UNIT, place=c.number, spot="tip")


def drawn_out(batch: UnitBatch, axis: int, allowance: float) -> tuple[float, float]:
    """Width and height of the unit as made, inches for an inch by which its bias is drawn out.

    A pull by the share ε along unit vectors d lengthens the sides by ε d_x² w and ε d_y² h; σ = ε times the diagonal.
    """
    w, h = float(batch.spec.width) + 2 * allowance, float(batch.spec.height) + 2 * allowance
    ways = batch.strains[axis]
    share = 1 / hypot(w, h) / len(ways)
    return w * share * sum(d[0] ** 2 for d in ways), h * share * sum(d[1] ** 2 for d in ways)


def effect_of(model: BlockModel, p: Parameter) -> Vector:
    """(errors,): what an inch of this cause makes of every error of units and seams."""
    row = np.zeros(model.errors)
    for n, by in touched_by(model, p).items():
        row[n] = by
    return row


def touched_by(model: BlockModel, p: Parameter) -> dict[int, float]:
    """The errors that an inch of this cause changes, by their numbers, each with what it makes of it in inches."""
    row: dict[int, float] = {}
    if p.cause is Cause.ONE_SEAM:
        row[model.of_seam(p.place, "mean" if p.spot == _WHOLE else p.spot)] = 1.0
    elif p.cause is Cause.SOME_SEAMS:
        for n in model.places.seam_groups[p.place].seams:
            row[model.of_seam(n, "mean")] = 1.0
    elif p.cause is Cause.ONE_UNIT:
        _on_unit(model, row, model.places.cells[p.place], p)
    elif p.batch < 0:
        what = {Cause.SEAM: "mean", Cause.START: "start", Cause.END: "end", Cause.FOLD: "fold"}[p.cause]
        for n in range(len(model.places.seams)):
            row[model.of_seam(n, what)] = 1.0
    else:
        for cell in model.places.cells:
            if cell.batch == p.batch:
                _on_unit(model, row, cell, p)
    return row


def _on_unit(model: BlockModel, row: dict[int, float], cell: PlacedUnit, p: Parameter) -> None:
    batch = model.places.batches[cell.batch]
    wide, high = (model.of_unit(cell.number, side) for side in _SIDES)
    what = p.spot or p.cause.value
    if what in ("size", "trim"):
        row[wide] = row[high] = 1.0
    elif what in _SIDES:
        row[model.of_unit(cell.number, what)] = 1.0
    elif what in ("slip", "shift"):
        _add_shift(model, row, cell, batch.slips[p.axis], 1.0)
    elif what == "tip" and batch.tip is not None:
        # More cloth above the tip means that the whole design lies so much further from that edge, its base corners too.
        _add_shift(model, row, cell, batch.tip, -1.0)
    elif what == "tip":
        row[model.of_unit(cell.number, "tip")] = 1.0
    elif what == "stretch":
        by_width, by_height = drawn_out(batch, p.axis, float(model.allowance))
        if cell.orientation.across:
            by_width, by_height = by_height, by_width
        row[wide], row[high] = by_width, by_height


def _add_shift(model: BlockModel, row: dict[int, float], cell: PlacedUnit, own: tuple[float, float], by: float) -> None:
    x, y = cell.toward(own)
    row[model.of_unit(cell.number, "across")] = by * x
    row[model.of_unit(cell.number, "up")] = by * y


@lru_cache(maxsize=64)
def shape_of(model: BlockModel) -> Vector:
    """(errors, parameters): what a common cause of one inch makes of every error."""
    return np.array([effect_of(model, p) for p in parameters_of(model)]).T


@lru_cache(maxsize=64)
def scatter_of(model: BlockModel) -> Vector:
    """(errors,): standard deviation of every error around what the causes make of it, for steady hands."""
    units = [SCATTER[w] for w in OF_UNIT] * len(model.places.cells)
    return np.array(units + [SCATTER[w] for w in OF_SEAM] * len(model.places.seams))


@lru_cache(maxsize=64)
def sources_of(model: BlockModel) -> Vector:
    """(errors,): the number of the source, in ``SOURCES``, that each error varies with."""
    units = [0] * (len(OF_UNIT) * len(model.places.cells))
    seam = [2 if w in _ALONG else 1 for w in OF_SEAM]
    return np.array(units + seam * len(model.places.seams))
