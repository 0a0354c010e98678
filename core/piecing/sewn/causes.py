"""Causes common to a block's seams or to a batch of its units, and what each does to every error.

Source: docs/theory.md, section 14.3, which derives the priors and spreads below; change them there and here together.
"""

from __future__ import annotations

from dataclasses import dataclass
from enum import StrEnum
from functools import lru_cache

import numpy as np

from .model import OF_SEAM, OF_UNIT, SewnModel, Vector

__all__ = [
    "FOLD_USUAL",
    "LEADING",
    "PRIOR",
    "SCATTER",
    "Parameter",
    "SewnCause",
    "parameters_of",
    "scatter_of",
    "shape_of",
]


class SewnCause(StrEnum):
    SEAM = "seam"
    START = "start"
    END = "end"
    FOLD = "fold"
    TRIM = "trim"
    SHIFT = "shift"
    TIP = "tip"
    CUT = "cut"
    STRETCH = "stretch"


LEADING = (SewnCause.SEAM, SewnCause.TRIM, SewnCause.SHIFT, SewnCause.TIP, SewnCause.CUT)
"""Those weighed against each other for the lead; the rest are small and judged by their intervals."""
FOLD_USUAL = 3 / 128
PRIOR = {
    SewnCause.SEAM: 3 / 64,
    SewnCause.START: 1 / 64,
    SewnCause.END: 1 / 64,
    SewnCause.FOLD: 1 / 160,
    SewnCause.TRIM: 3 / 64,
    SewnCause.SHIFT: 3 / 64,
    SewnCause.TIP: 3 / 64,
    SewnCause.CUT: 3 / 64,
    SewnCause.STRETCH: 1 / 96,
}
"""Standard deviations in inches, before any reading."""
SCATTER = {
    "width": 1 / 64,
    "height": 1 / 64,
    "across": 1 / 96,
    "up": 1 / 96,
    "turn": 1 / 128,
    "tip": 1 / 64,
    "mean": 1 / 96,
    "start": 1 / 96,
    "middle": 1 / 128,
    "end": 1 / 96,
    "fold": 1 / 256,
}
"""Standard deviations in inches of one unit or seam around what the causes make of it."""
_STRETCHED = 2**-1.5
"""A square pulled longer by σ on one diagonal is wider and higher by σ / 2 r2."""


@dataclass(frozen=True, slots=True)
class Parameter:
    """One cause; ``batch`` tells whose units, -1 for the seams of all."""

    cause: SewnCause
    batch: int = -1

    @property
    def key(self) -> str:
        return self.cause.value if self.batch < 0 else f"{self.cause.value}:{self.batch}"

    @property
    def prior_sd(self) -> float:
        return PRIOR[self.cause]

    @property
    def prior_mean(self) -> float:
        return FOLD_USUAL if self.cause is SewnCause.FOLD else 0.0


@lru_cache(maxsize=64)
def parameters_of(model: SewnModel) -> tuple[Parameter, ...]:
    """Every cause there can be in a block: those of the seams, then those of each batch."""
    found = [Parameter(c) for c in (SewnCause.SEAM, SewnCause.START, SewnCause.END, SewnCause.FOLD)]
    for b in model.places.batches:
        found.append(Parameter(SewnCause.TRIM, b.number))
        if b.corners:
            found.append(Parameter(SewnCause.SHIFT, b.number))
        if b.tips:
            found.append(Parameter(SewnCause.TIP, b.number))
        if not b.plain:
            found += [Parameter(SewnCause.CUT, b.number), Parameter(SewnCause.STRETCH, b.number)]
    return tuple(found)


@lru_cache(maxsize=64)
def shape_of(model: SewnModel) -> Vector:
    """(errors, parameters): what a cause of one inch makes of every error."""
    params = parameters_of(model)
    shape = np.zeros((model.errors, len(params)))
    for n, p in enumerate(params):
        for cell in model.places.cells if p.batch >= 0 else ():
            if cell.batch != p.batch:
                continue
            match p.cause:
                case SewnCause.TRIM:
                    shape[[model.of_unit(cell.number, "width"), model.of_unit(cell.number, "height")], n] = 1.0
                case SewnCause.STRETCH:
                    sides = [model.of_unit(cell.number, "width"), model.of_unit(cell.number, "height")]
                    shape[sides, n] = _STRETCHED
                case SewnCause.SHIFT:
                    shape[model.of_unit(cell.number, "across"), n] = cell.shift[0]
                    shape[model.of_unit(cell.number, "up"), n] = cell.shift[1]
                case SewnCause.TIP:
                    shape[model.of_unit(cell.number, "tip"), n] = 1.0
                case _:
                    pass
        if p.batch < 0:
            what = {SewnCause.SEAM: "mean", SewnCause.START: "start", SewnCause.END: "end", SewnCause.FOLD: "fold"}[
                p.cause
            ]
            for seam in range(len(model.places.seams)):
                shape[model.of_seam(seam, what), n] = 1.0
    return shape


@lru_cache(maxsize=64)
def scatter_of(model: SewnModel) -> Vector:
    """(errors,): standard deviation of every error around what the causes make of it."""
    units = [SCATTER[w] for w in OF_UNIT] * len(model.places.cells)
    return np.array(units + [SCATTER[w] for w in OF_SEAM] * len(model.places.seams))
