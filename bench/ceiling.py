"""What ten readings could tell about at best: somebody who knows beforehand how large a cause is, how steady the hands are and that the
ruler is right, and only asks which cause it is, or whether there is none.

Exact Bayes over all causes of a block, by the core's equations of the readings and their scatter. Each reading is chosen for what parts the
causes that are left, one after another and not looking ahead; so it is near what can be known at best, and no proof of it.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from bench.sewers import causes_here
from piecing.diagnosis.candidates import candidates
from piecing.diagnosis.causes import parameters_of, scatter_of
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.inference import infer
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.lengths import Length, inches
from tests.polygons import BLOCKS, Table, table

__all__ = ["print_ceiling"]

_SIZE, _OTHERS = 1 / 32, 1 / 96
"""Inches: a dominant cause, and what others may come to beside it."""
_MOST, _REPEATS, _PARTED = 10, 4, 24
_FOLDS = 0.018
"""Inches: the range of folds, all of them paid for."""

Cause = tuple[str, int]
NONE: Cause = ("", -1)


@dataclass(frozen=True)
class Known:
    """A block: ``causes`` (hypotheses,) with what each makes of all readings that there are, ``means`` (hypotheses, readings) and
    ``spreads`` (hypotheses, readings, readings) in inches, and how likely each is beforehand."""

    causes: tuple[Cause, ...]
    means: NDArray[np.float64]
    spreads: NDArray[np.float64]
    weights: NDArray[np.float64]


def known(t: Table) -> Known:
    model, one = t.model, Length.of(1)
    single = [r for r in candidates(infer(model, [], raw=t.raw)) if not r.feature]
    of_block = [Reading(ReadingKind(f.kind.value), one, feature=f.key) for f in model.features]
    equations = [equation_of(r, model, inches("1/32"), t.raw) for r in [*single * _REPEATS, *of_block]]
    effect = np.array([e.of_causes for e in equations])
    touching = np.array([e.of_errors for e in equations]) * scatter_of(model)
    at = {(p.cause.value, p.batch): n for n, p in enumerate(parameters_of(model)) if p.axis == 0}
    fold = effect[:, at["fold", -1]] - effect[:, at["seam", -1]] / 2
    chance = touching @ touching.T + np.diag([e.noise for e in equations]) + np.outer(fold, fold) * _FOLDS**2 / 12
    causes, means, spreads, weights = (
        list[Cause](),
        list[NDArray[np.float64]](),
        list[NDArray[np.float64]](),
        list[float](),
    )
    batches = [b.number for b in model.places.batches]
    for b in batches:
        columns = {c: effect[:, at.get((c, b), at.get((c, -1), 0))] for c in causes_here(t, b)}
        for named in ("", *columns):
            others = sum(np.outer(v, v) for c, v in columns.items() if c != named) * _OTHERS**2 / 3
            for side in (-1, 1) if named else (0,):
                causes.append((named, -1 if named in ("", "seam") else b))
                means.append(side * _SIZE * columns[named] if named else np.zeros(len(equations)))
                spreads.append(chance + others)
                weights.append(0.5 / len(batches) / (2 * len(columns) if named else 1))
    return Known(tuple(causes), np.array(means), np.array(spreads), np.array(weights))


def told(k: Known, true: int, rng: np.random.Generator) -> Iterator[dict[Cause, float]]:
    """After each reading how likely each cause is, to somebody who knows all else; ``true`` numbers what really is."""
    reads = rng.multivariate_normal(k.means[true], k.spreads[true], method="cholesky")
    means, spreads, logs = k.means.copy(), k.spreads.copy(), np.log(k.weights)
    unlike = np.array([[a != b for b in k.causes] for a in k.causes])
    taken: list[int] = []
    for _ in range(_MOST):
        chance = np.exp(logs - logs.max())
        likely = np.argsort(-chance)[:_PARTED]
        variances = np.diagonal(spreads, axis1=1, axis2=2)
        mean, var = means[likely], variances[likely]
        # How far two of them lie apart in a reading (Bhattacharyya), for each pair that is not of one cause.
        apart = (mean[:, None] - mean) ** 2 / (4 * (var[:, None] + var) + 1e-12)
        pairs = np.outer(chance[likely], chance[likely]) * unlike[np.ix_(likely, likely)]
        worth = np.einsum("ij,ijr->r", pairs, 1 - np.exp(-apart))
        worth[taken] = -1.0
        n = int(worth.argmax())
        taken.append(n)
        off = reads[n] - means[:, n]
        logs = logs - off**2 / variances[:, n] / 2 - np.log(variances[:, n]) / 2
        gain = spreads[:, :, n] / variances[:, n, None]
        means = means + gain * off[:, None]
        spreads = spreads - gain[:, :, None] * spreads[:, n, None, :]
        spreads[:, n, n] = 1e-9
        chance = np.exp(logs - logs.max()) / np.exp(logs - logs.max()).sum()
        yield {c: float(sum(w for w, x in zip(chance, k.causes, strict=True) if x == c)) for c in set(k.causes)}


def _ended(steps: list[dict[Cause, float]], named: float, none: float) -> tuple[Cause | None, int]:
    for n, chances in enumerate(steps, 1):
        best = max((c for c in chances if c != NONE), key=lambda c: chances[c])
        if chances[best] >= named:
            return best, n
        if chances[NONE] >= none:
            return NONE, n
    return None, _MOST


def print_ceiling(count: int = 160) -> None:
    rng, blocks = np.random.default_rng(7), [known(table(*b)) for b in BLOCKS]
    dominant, nothing = [], []
    for n in range(count):
        k = blocks[n % len(blocks)]
        of = [i for i, c in enumerate(k.causes) if c != NONE]
        true = int(rng.choice(of, p=k.weights[of] / k.weights[of].sum()))
        dominant.append((k.causes[true], list(told(k, true, rng))))
        nothing.append(list(told(k, k.causes.index(NONE), rng)))
    print(
        f"\nWho knows all but which cause of 1/32 it is, at {len(BLOCKS)} blocks ({count} each), by at most {_MOST} readings"
    )
    for none in (0.80, 0.90, 0.93, 0.95):
        ends = [(true, _ended(steps, 0.9, none)[0]) for true, steps in dominant]
        true_ends = [_ended(steps, 0.9, none) for steps in nothing]
        right = sum(a == b for a, b in ends) / count
        wrong = sum(b is not None and a != b for a, b in ends) / count
        by = [sum(end == NONE and n <= most for end, n in true_ends) / count for most in (6, _MOST)]
        print(
            f"  true from a chance of {none:.0%}: right {right:.0%}, wrong {wrong:.1%}; true blocks called true by the sixth reading "
            f"{by[0]:.0%}, by the tenth {by[1]:.0%}"
        )
