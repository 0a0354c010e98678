"""What a seam, a fold or a trim costs a block, and how blocks of this quilter come out: Monte Carlo, worst case, root-sum-square.

Source: docs/theory, section 14.9.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import NDArray

from .causes import parameters_of, scatter_of, shape_of
from .faults import SEEN
from .model import BlockModel, FeatureKind, Vector

__all__ = ["Outcomes", "SeamCosts", "Spread", "errors_of", "outcomes", "seam_costs"]

_AT_ONCE = 20_000
_KEPT = 4_000_000
"""Figures of many blocks that are kept for the next time a cause is moved: sixteen megabytes."""
_LIMITS = 2.0
"""Standard deviations that the worst case lets every unit and seam stray."""


def errors_of(model: BlockModel, causes: Mapping[str, float]) -> Vector:
    """(errors,): the block in which only these causes are at work, in inches by their keys. Unknown keys are passed over."""
    of = np.array([causes.get(p.key, 0.0) for p in parameters_of(model)])
    return np.asarray(shape_of(model) @ of)


@dataclass(frozen=True, slots=True)
class Spread:
    """Of one figure over many blocks, inches beyond what it should be: mean, spread, nine in ten, and both bounds.

    ``rss`` is the spread by adding variances, ``worst`` the reach if every unit and seam strays by two of its standard
    deviations, all the wrong way.
    """

    key: str
    mean: float
    sd: float
    low: float
    high: float
    rss: float
    worst: float


@dataclass(frozen=True)
class Outcomes:
    """Shares are of all tips, or of blocks. ``histogram`` counts blocks by width, from ``narrowest`` to ``widest``, inches off, in
    steps alike."""

    blocks: int
    width: Spread
    height: Spread
    tips_cut: float | None
    tips_floating: float | None
    corners_off: float | None
    crossings_off: float | None
    blocks_small: float
    histogram: tuple[int, ...]
    narrowest: float
    widest: float

    @property
    def planned_at(self) -> float | None:
        """Where the width as planned lies between the narrowest and the widest, as a share; none where it lies beyond them."""
        share = -self.narrowest / (self.widest - self.narrowest)
        return share if 0 <= share <= 1 else None


def _sides(model: BlockModel) -> tuple[list[int], list[int]]:
    rows = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.ROW]
    columns = [n for n, f in enumerate(model.features) if f.kind is FeatureKind.COLUMN]
    return rows, columns


def _straying_seams(model: BlockModel, scatter: float, rng: np.random.Generator, blocks: int) -> NDArray[np.float32]:
    """(blocks, figures): how far chance alone brings every figure off, inches."""
    sd = scatter_of(model) * scatter
    # Only errors that reach a figure are drawn; single precision is finer than any ruler here.
    used = model.reached[sd[model.reached] > 0]
    matrix = (model.matrix[:, used] * sd[used]).T.astype(np.float32).tocsr()
    return np.asarray(rng.standard_normal((blocks, len(used)), dtype=np.float32) @ matrix)


@lru_cache(maxsize=4)
def _strayed_before(model: BlockModel, scatter: float, seed: int, blocks: int) -> NDArray[np.float32]:
    """By chance a block strays as it does whatever the causes are: only that is drawn anew for which hands are unsteadier."""
    return _straying_seams(model, scatter, np.random.default_rng(seed), blocks)


def outcomes(
    model: BlockModel, causes: Mapping[str, float], seed: int, blocks: int = 10_000, scatter: float = 1.0
) -> Outcomes:
    """``blocks`` of this quilter: means by ``causes``, every unit and seam around them, ``scatter`` times as unsteady as usual; drawn by
    chance from ``seed``, the same ones for every cause."""
    mean = errors_of(model, causes)
    sd = scatter_of(model) * scatter
    centre = (model.matrix @ mean).astype(np.float32)
    rng = None if blocks * len(model.features) <= _KEPT else np.random.default_rng(seed)
    rows, columns = _sides(model)
    kinds = {k: np.array([n for n, f in enumerate(model.features) if f.kind is k], dtype=int) for k in FeatureKind}
    widths, heights = np.empty(blocks, np.float32), np.empty(blocks, np.float32)
    cut = floating = corners = crossings = 0
    small = 0
    for start in range(0, blocks, _AT_ONCE):
        count = min(_AT_ONCE, blocks - start)
        if rng is None:
            seen = _strayed_before(model, scatter, seed, blocks)[start : start + count] + centre
        else:
            seen = _straying_seams(model, scatter, rng, count) + centre
        widths[start : start + count] = seen[:, rows].mean(axis=1)
        heights[start : start + count] = seen[:, columns].mean(axis=1)
        edge = seen[:, kinds[FeatureKind.EDGE_TIP]]
        cut += int((edge < -SEEN).sum())
        floating += int((edge > SEEN).sum())
        corners += int((np.abs(seen[:, kinds[FeatureKind.CORNER_TIP]]) > SEEN).sum())
        crossings += int((np.abs(seen[:, kinds[FeatureKind.CROSSING]]) > 2 * SEEN).sum())
        sides = np.minimum(widths[start : start + count], heights[start : start + count])
        small += int((sides < -2 * SEEN).sum())

    def share(count: int, kind: FeatureKind) -> float | None:
        return count / (blocks * len(kinds[kind])) if len(kinds[kind]) else None

    counts, edges = np.histogram(widths, bins=24)
    return Outcomes(
        blocks,
        _spread("width", widths, model.matrix[rows].mean(axis=0), sd),
        _spread("height", heights, model.matrix[columns].mean(axis=0), sd),
        share(cut, FeatureKind.EDGE_TIP),
        share(floating, FeatureKind.EDGE_TIP),
        share(corners, FeatureKind.CORNER_TIP),
        share(crossings, FeatureKind.CROSSING),
        small / blocks,
        tuple(int(c) for c in counts),
        float(edges[0]),
        float(edges[-1]),
    )


def _spread(key: str, drawn: NDArray[np.float32], row: Vector, sd: Vector) -> Spread:
    low, high = np.quantile(drawn, (0.05, 0.95))
    return Spread(
        key,
        float(drawn.mean(dtype=np.float64)),
        float(drawn.std(dtype=np.float64)),
        float(low),
        float(high),
        float(np.sqrt(((row * sd) ** 2).sum())),
        float((np.abs(row) * sd * _LIMITS).sum()),
    )


@dataclass(frozen=True, slots=True)
class SeamCosts:
    """What every seam sewn too wide takes off the block ``across`` and ``down``, in inches, and how many seams lie so."""

    across: float
    down: float
    seams_across: int
    seams_down: int


def seam_costs(model: BlockModel, by: float = SEEN) -> SeamCosts:
    """What each seam sewn ``by`` inches too wide costs."""
    rows, columns = _sides(model)
    deviation = model.matrix @ errors_of(model, {"seam": by})
    across = float(-deviation[rows].min()) if rows else 0.0
    down = float(-deviation[columns].min()) if columns else 0.0
    return SeamCosts(across, down, round(across / by / 2), round(down / by / 2))
