"""What the readings say: of every cause, of single seams and units, of slips and mistakes, and of the hands themselves.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property
from math import log

import numpy as np
from numpy.typing import NDArray

from ..lengths import Length, inches
from ..messages import Message
from ..tolerances import THREAD
from .causes import SOURCES, Parameter, parameters_of
from .equations import Equation, RawSizes, equation_of
from .estimates import Estimate, Outlier, estimates_of, fitted_by, lone_readings, readings_aside
from .mistake import Mistake
from .mistakes import headline
from .model import BlockModel, Vector
from .possible import leading_in, possible_blocks
from .priors import Prior, Steadiness, after_seeing, prior_of
from .reading_kinds import OF_ANY_BLOCK, OF_THE_BLOCK, PLAIN, ReadingKind
from .readings import Reading
from .seen import Seen, seen_of
from .sets import LikelySet, hands_of, likely_sets, likely_singles
from .system import System, readings_weighed

__all__ = ["Inference", "infer", "prior_of"]

_OF_SEAMS = (ReadingKind.STITCH, ReadingKind.STRIP_TEST, *OF_THE_BLOCK, *OF_ANY_BLOCK)


@dataclass(frozen=True)
class Inference:
    """``parameters`` are the common causes and then the single seams and units that may be off. ``draws`` (draws, parameters)
    and ``sewn`` (draws, errors) are blocks that these readings leave possible, the unmeasured scatter of every unit and seam
    included; ``leading`` (draws,) numbers the cause that leads in each, -1 where
    none does, and ``sizes`` (draws, parameters) says what each does;
    ``lone`` are readings taken again and found right that differ from the rest: that one piece is off by itself.
    ``looked`` (draws,) whether nothing is large there of which nothing was read. ``block`` (errors,) is their
    mean, ``mean`` (parameters,) that of the causes. ``hands`` weighs every kind of hands. ``weighed`` are the indices of the
    readings used, in their order."""

    model: BlockModel
    prior: Prior
    readings: tuple[Reading, ...]
    equations: tuple[Equation | None, ...]
    weighed: tuple[int, ...]
    parameters: tuple[Parameter, ...]
    estimates: tuple[Estimate, ...]
    mean: Vector
    draws: NDArray[np.float64]
    sewn: NDArray[np.float32]
    leading: NDArray[np.int64]
    sizes: NDArray[np.float64]
    looked: NDArray[np.bool_]
    block: Vector
    fitted: Vector
    odd: tuple[Outlier, ...]
    lone: tuple[Outlier, ...]
    mistake: tuple[Mistake, Message, float] | None
    seen: tuple[Seen, ...]
    hands: tuple[tuple[Steadiness, float], ...]

    @property
    def common(self) -> int:
        """How many parameters are of batches and of all seams; those of single places come after them."""
        return len(parameters_of(self.model))

    @property
    def measured(self) -> bool:
        """Whether any reading was used."""
        return bool(self.weighed)

    @property
    def expected(self) -> bool:
        """Whether what is said of seams, rows and tips rests on records and on what is usual: nothing was read of any of them."""
        return not any(self.readings[n].kind in _OF_SEAMS for n in self.weighed)

    @cached_property
    def off(self) -> Vector:
        """(readings,): inches that each reads beyond its mark; 0 for one that says nothing of sizes."""
        marks = [r.read if e is None else e.nominal for r, e in zip(self.readings, self.equations, strict=True)]
        return np.array([r.read - m for r, m in zip(self.readings, marks, strict=True)], dtype=float)

    @property
    def aside(self) -> frozenset[int]:
        """The numbers of the readings that are set aside."""
        return frozenset(o.index for o in self.odd)

    @cached_property
    def residuals(self) -> Vector:
        """What each reading says beyond what was fitted, in inches, shape (readings,); 0 for one that was not used."""
        return np.array(
            [
                r.read - f if self.equations[n] is not None else 0.0
                for n, (r, f) in enumerate(zip(self.readings, self.fitted, strict=True))
            ]
        )

    @cached_property
    def factors(self) -> dict[str, float]:
        """By source: how much more than steady hands these vary, on the whole."""
        return {s.value: float(np.exp(sum(w * log(h.of(s)) for h, w in self.hands))) for s in SOURCES}

    @cached_property
    def unsteady(self) -> float:
        """Probability that units or seams vary by one and a half times what steady hands do, or more."""
        return float(sum(w for h, w in self.hands if max(h.factors[:3]) >= 1.5))

    def read_off(self, response: Vector) -> Vector:
        """(draws,): what a figure that answers so to the errors, shape (errors,), is in every possible block, beyond true."""
        reached = np.nonzero(response)[0]
        return np.asarray(self.sewn[:, reached].astype(np.float64) @ response[reached])

    def estimate(self, p: Parameter) -> Estimate:
        """The estimate of one parameter. Raises ``ValueError`` for one that the model has not."""
        return self.estimates[self.parameters.index(p)]

    @property
    def lost(self) -> Vector:
        """(draws,): inches that each fabric loses to a seam beyond what is wanted, by the stitching and by the fold."""
        return np.asarray(self.draws[:, 0] - self.prior.offset + (self.draws[:, 3] - self.prior.paid) / 2)

    @property
    def nearly_none(self) -> float:
        """Chance that nothing leads, or nothing but a fold of which no more than a thread is not paid for."""
        return float(((self.leading < 0) | ((self.leading == 3) & (self.lost < THREAD))).mean())

    def chance(self, n: int) -> float:
        """That cause ``n`` leads; -1: that none does."""
        return float((self.leading == n).mean())


def infer(
    model: BlockModel,
    readings: Sequence[Reading],
    prior: Prior | None = None,
    *,
    resolution: Length = inches("1/32"),
    raw: Mapping[int, RawSizes] | None = None,
    rng: np.random.Generator | None = None,
) -> Inference:
    """Everything the readings say; ``rng`` only draws from what they leave open (seeded when not given).

    Raises ``ReadingMisplaced`` for a reading that this block has no place for.
    """
    prior = after_seeing(model, prior or prior_of(model), readings)
    equations = tuple(None if r.kind in PLAIN else equation_of(r, model, resolution, raw) for r in readings)
    rng = rng or np.random.default_rng(1852)
    system = System(model, prior, tuple(readings), equations, readings_weighed(readings, equations))
    sets = likely_sets(system)
    params = (*parameters_of(model), *likely_singles(sets))
    possible = possible_blocks(system, sets, params, rng)
    leading, sizes = leading_in(model, prior, params, possible, system.erased_batches())
    return Inference(
        model,
        prior,
        system.readings,
        equations,
        system.used,
        params,
        estimates_of(system, sets, params, sizes, leading),
        possible.causes.mean(axis=0),
        possible.causes,
        possible.errors,
        leading,
        sizes,
        np.asarray(~(possible.large[:, : system.common] & system.silent).any(axis=1)),
        np.asarray(possible.errors.mean(axis=0, dtype=np.float64), dtype=np.float64),
        fitted_by(system, sets),
        readings_aside(system, sets),
        lone_readings(system, sets),
        _headline(system, sets),
        seen_of(system.readings),
        hands_of(system, sets),
    )


def _headline(system: System, sets: Sequence[LikelySet]) -> tuple[Mistake, Message, float] | None:
    struck = [k for k, c in enumerate(system.what) if c.mistake >= 0]
    return headline(system.mistakes, [sum(s.weight for s in sets if k in s.of) for k in struck])
