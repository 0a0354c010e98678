"""Whether a block will come out, by one's own hands: how many of its tips and of its blocks would be right.

Every figure of a block is a sum of errors (section 14.2), each normal with the spread these hands have; a tip is then right with
the probability of a normal, and a block with that of its sides together. Source: docs/theory, section 16.6.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace

import numpy as np
from scipy.special import ndtr

from ..diagnosis.causes import SOURCES, Cause, Source, parameters_of, scatter_of, sources_of
from ..diagnosis.faults import EASED, SEEN
from ..diagnosis.model import BlockModel, FeatureKind, Vector
from ..diagnosis.whatif import errors_of
from ..messages import Message

__all__ = ["Forecast", "Help", "OwnHands", "forecast", "helps"]

_DRAWS = 2_000
_STEADIER = 0.6
"""What practice makes of a spread, when it is asked what would help."""
_TIPS = (FeatureKind.EDGE_TIP, FeatureKind.CORNER_TIP)
_SIDES = (FeatureKind.ROW, FeatureKind.COLUMN)


@dataclass(frozen=True, slots=True)
class OwnHands:
    """What is known of these hands: what their seams take beyond the allowance and what their trimming is off, inches, and how much
    more or less than steady hands they vary, by source."""

    seam: float = 0.0
    trim: float = 0.0
    unsteady: tuple[tuple[Source, float], ...] = ()

    @property
    def factors(self) -> Mapping[Source, float]:
        """How much more than steady hands these vary, by source; one where nothing is known."""
        return {**dict.fromkeys(SOURCES, 1.0), **dict(self.unsteady)}


@dataclass(frozen=True, slots=True)
class Forecast:
    """Shares from 0 to 1: of all tips that lie within 1/32 of where they should (None: the block has none), and of blocks whose every
    side is within 1/16. ``off`` is what the block is off on the whole, across or down, whichever is more; inches."""

    tips: float | None
    blocks: float
    off: float

    @property
    def worth(self) -> float:
        """One figure to put arrangements in order by: blocks that come out, with their tips."""
        return self.blocks * (1.0 if self.tips is None else self.tips)


@dataclass(frozen=True, slots=True)
class Help:
    """Something that would help, and what would come of it."""

    said: Message
    then: Forecast


def forecast(model: BlockModel, hands: OwnHands) -> Forecast:
    """By normals; the sides of a block, which hang together, by 2,000 draws of their own (seeded)."""
    off = {Cause.SEAM: hands.seam, Cause.TRIM: hands.trim}
    mean = errors_of(model, {p.key: off[p.cause] for p in parameters_of(model) if p.cause in off})
    factors = np.array([hands.factors[s] for s in SOURCES])
    spread = scatter_of(model) * factors[sources_of(model).astype(int)]
    centre = np.asarray(model.matrix @ mean)
    variance = np.asarray(model.matrix.power(2) @ spread**2)
    tips = np.array([f.kind in _TIPS for f in model.features], dtype=bool)
    sides = np.nonzero([f.kind in _SIDES for f in model.features])[0]
    means = [float(centre[n].mean()) for k in _SIDES if len(n := np.nonzero([f.kind is k for f in model.features])[0])]
    right = _within(centre[tips], np.sqrt(variance[tips]))
    rows = model.matrix[sides].toarray()
    used = np.nonzero(rows.any(axis=0))[0]
    chance = np.random.default_rng(1869).standard_normal((_DRAWS, len(used)))
    drawn = centre[sides] + chance @ (rows[:, used] * spread[used]).T
    return Forecast(
        float(right.mean()) if len(right) else None,
        float((np.abs(drawn) <= EASED).all(axis=1).mean()),
        max(means, key=abs, default=0.0),
    )


def _within(centre: Vector, spread: Vector) -> Vector:
    spread = np.maximum(spread, 1e-9)
    return np.asarray(ndtr((SEEN - centre) / spread) - ndtr((-SEEN - centre) / spread))


def helps(model: BlockModel, hands: OwnHands) -> tuple[Help, ...]:
    """What would help, the most helpful first, by the block alone; only what makes a difference that one would notice."""
    now = forecast(model, hands)
    tried = [
        (Message("Set the guide so that the seam takes what is wanted."), replace(hands, seam=0.0)),
        (Message("Trim to the mark: units come out at their size."), replace(hands, trim=0.0)),
        (
            Message("A steadier seam: follow a guide, slow over crossings."),
            _steadier(hands, Source.SEAMS, Source.ALONG),
        ),
        (Message("Steadier trimming: a ruler that does not slip, a turning mat."), _steadier(hands, Source.UNITS)),
    ]
    found = [Help(said, forecast(model, other)) for said, other in tried if other != hands]
    better = [h for h in found if h.then.worth > now.worth + _NOTICED]
    return tuple(sorted(better, key=lambda h: -h.then.worth))


_NOTICED = 0.01


def _steadier(hands: OwnHands, *sources: Source) -> OwnHands:
    factors = hands.factors
    return replace(hands, unsteady=tuple((s, factors[s] * (_STEADIER if s in sources else 1.0)) for s in SOURCES))
