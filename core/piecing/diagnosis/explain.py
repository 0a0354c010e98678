"""The working of a diagnosis: for every reading its equation, with the figures in it and where the equation comes from."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from ..messages import Message
from .causes import Parameter
from .inference import Inference
from .names import reading_said
from .reading_kinds import ReadingKind
from .said import cause_said

__all__ = ["Term", "Working", "workings"]

_EQUATIONS: dict[ReadingKind, tuple[str, str]] = {
    ReadingKind.CUT: ("cut piece = C + cut error", "14.6"),
    ReadingKind.WIDTH: ("width = U + trim error + stretch / 2√2", "14.6"),
    ReadingKind.HEIGHT: ("height = U + trim error + stretch / 2√2", "14.6"),
    ReadingKind.RAW_WIDTH: ("raw = R + gain × cut error − loss × (seam error + fold / 2)", "14.6"),
    ReadingKind.RAW_HEIGHT: ("raw = R + gain × cut error − loss × (seam error + fold / 2)", "14.6"),
    ReadingKind.DIAGONAL_RISING: ("diagonal = √(w² + h²) ± stretch / 2", "14.6"),
    ReadingKind.DIAGONAL_FALLING: ("diagonal = √(w² + h²) ± stretch / 2", "14.6"),
    ReadingKind.MISS: ("miss = the design's move square to the diagonal + its turn + (h − w) / 2√2", "14.2"),
    ReadingKind.CLEARANCE: ("clearance t = s + tip error − the design's move toward the edge", "14.2"),
    ReadingKind.STITCH: ("raw edge to stitching = s + seam error + drift at that spot", "14.2"),
    ReadingKind.STRIP_TEST: ("e = (W − 3m) / 2 = s + seam error + fold / 2", "2"),
    ReadingKind.TIP_GAP: ("gap = t − e", "14.2"),
    ReadingKind.CORNER_GAP: ("gap = e of the upright seam − e of the level seam + √2 × miss", "14.2"),
    ReadingKind.ROW: ("row = Σ widths − 2 Σ take-ups", "14.2"),
    ReadingKind.COLUMN: ("column = Σ heights − 2 Σ take-ups", "14.2"),
    ReadingKind.BLOCK_WIDTH: ("block = Σ widths of its middle row − 2 Σ take-ups", "14.2"),
    ReadingKind.BLOCK_HEIGHT: ("block = Σ heights of its middle column − 2 Σ take-ups", "14.2"),
    ReadingKind.CROSSING: ("step = Σ (width − take-ups) of one side − the same of the other", "14.2"),
}


@dataclass(frozen=True, slots=True)
class Term:
    """What one cause adds to a reading: so many times its estimate, in inches."""

    parameter: Parameter
    said: Message
    times: float
    adds: float


@dataclass(frozen=True)
class Working:
    """A reading's equation with its figures: ``nominal`` + the terms + ``own`` (this unit's or seam's own error) = ``fitted``."""

    index: int
    said: Message
    equation: str
    section: str
    read: float
    nominal: float
    terms: tuple[Term, ...]
    own: float
    fitted: float
    left_over: float
    odd: bool


def workings(found: Inference) -> tuple[Working, ...]:
    """One for every reading that was weighed, in their order."""
    return tuple(_workings(found))


def _workings(found: Inference) -> Iterator[Working]:
    odd = found.aside
    for n in found.weighed:
        reading, e = found.readings[n], found.equations[n]
        if e is None:
            continue
        adds = e.of_causes * found.mean[: found.common]
        terms = tuple(
            Term(p, cause_said(found.model, p, float(found.mean[k])), float(e.of_causes[k]), float(adds[k]))
            for k, p in enumerate(found.parameters[: found.common])
            if abs(e.of_causes[k]) > 1e-9 and abs(adds[k]) > 1 / 1000
        )
        equation, section = _EQUATIONS[reading.kind]
        yield Working(
            n,
            reading_said(reading, found.model),
            equation,
            f"docs/theory, section {section}",
            reading.read,
            e.nominal,
            terms,
            float(found.fitted[n] - e.nominal - np.sum(adds)),
            float(found.fitted[n]),
            float(found.residuals[n]),
            n in odd,
        )
