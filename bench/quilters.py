"""How well simulated quilters are understood: hidden truths, readings rounded to 1/32, the verdicts counted."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np

from piecing.diagnosis import Cause, Diagnosis, Status, diagnose
from piecing.planning import plan
from tests.quilters import Habits, Truth, any_truth, one_cause, readings_of
from tests.samples import half_square

__all__ = ["print_quilters"]

_PLAN = plan(half_square())
_SIZES = (("1/32", 1 / 32), ("3/64", 3 / 64), ("1/16", 1 / 16))
_FELT = (Cause.SEAM, Cause.FOLD, Cause.TRIM)


def _dominant(size: float, quilters: int, seed: int) -> tuple[float, float, float]:
    """Shares named right, named wrong, and not settled (two sure causes named together count as not settled)."""
    rng = np.random.default_rng(seed)
    right = wrong = 0
    for i in range(quilters):
        cause = ("seam", "trim")[i % 2]
        v = diagnose(_PLAN, readings_of(one_cause(rng, cause, size), _PLAN, rng)).verdict
        named = v.status in (Status.SETTLED, Status.TRUE) and v.leading is not None
        right += named and v.leading == Cause(cause)
        wrong += named and v.leading != Cause(cause)
    return right / quilters, wrong / quilters, 1 - (right + wrong) / quilters


def _held(d: Diagnosis, truth: Truth) -> dict[Cause, bool]:
    by_cause = {f.estimate.cause: f.estimate for f in d.findings}
    return {c: by_cause[c].low <= getattr(truth, c.value) <= by_cause[c].high for c in _FELT}


def _coverage(draw: Callable[[np.random.Generator], Truth], habits: Habits | None, quilters: int) -> dict[Cause, float]:
    rng = np.random.default_rng(23)
    held = dict.fromkeys(_FELT, 0)
    for _ in range(quilters):
        truth = draw(rng)
        for cause, inside in _held(diagnose(_PLAN, readings_of(truth, _PLAN, rng, habits=habits)), truth).items():
            held[cause] += inside
    return {c: n / quilters for c, n in held.items()}


def _even_fold(rng: np.random.Generator) -> Truth:
    truth = any_truth(rng)
    return Truth(truth.seam, rng.uniform(1 / 64, 1 / 32), truth.trim)


def print_quilters(quilters: int = 1000) -> None:
    print(f"\nSimulated quilters ({quilters} each): 4 unit widths, 2 rows of 4, 3 stitching distances, read to 1/32")
    print("  dominant cause, stitching distance or trimmed size      right   wrong   not settled")
    for name, size in _SIZES:
        right, wrong, open_ = _dominant(size, quilters, 17)
        print(f"    at {name:<5} (aim at 3/64 and more: right 90)          {right:6.1%} {wrong:7.1%} {open_:8.1%}")
    print("  90% intervals that hold the truth (aim 85 to 95)         seam    fold    trim")
    unsteady = Habits(seam=1 / 72, along=1 / 72, unit=1 / 48)
    for name, draw, habits in (
        ("as the priors say", any_truth, None),
        ("fold anywhere from 1/64 to 1/32", _even_fold, None),
        ("a hand a third unsteadier than assumed", any_truth, unsteady),
    ):
        held = _coverage(draw, habits, quilters)
        print(f"    {name:<48}" + "".join(f"{held[c]:8.1%}" for c in _FELT))
