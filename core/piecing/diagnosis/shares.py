"""Every figure of a block taken apart: what each cause adds to it.

Source: docs/theory, section 14.8.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from ..messages import Message
from .causes import Parameter, shape_of
from .inference import Inference
from .model import FeatureKind
from .names import feature_name

__all__ = ["Share", "shares_of"]


@dataclass(frozen=True, slots=True)
class Share:
    """What each cause adds to one figure of the block, in inches; ``parts`` by parameter, ``rest`` the units' own scatter."""

    feature: str
    name: Message
    whole: float
    low: float
    high: float
    parts: tuple[tuple[Parameter, float], ...]
    rest: float


def shares_of(found: Inference) -> tuple[Share, ...]:
    """Every figure of the block that is off, or was measured, taken apart; the worst two of each kind."""
    model = found.model
    causes = shape_of(model)
    shape = model.matrix @ causes
    values = model.deviations(found.block)
    taken: dict[FeatureKind, int] = {}
    shares = []
    for n in np.argsort(-np.abs(values)):
        f = model.features[n]
        if taken.get(f.kind, 0) >= 2:
            continue
        taken[f.kind] = taken.get(f.kind, 0) + 1
        parts = [(p, float(shape[n, k] * found.mean[k])) for k, p in enumerate(found.parameters[: found.common])]
        kept = tuple(x for x in sorted(parts, key=lambda x: -abs(x[1])) if abs(x[1]) > 1 / 256)[:5]
        rest = float(values[n]) - sum(v for _, v in kept)
        low, high = np.quantile(found.read_off(model.response(int(n))), (0.05, 0.95))
        shares.append(Share(f.key, feature_name(model, int(n)), float(values[n]), float(low), float(high), kept, rest))
    return tuple(shares)
