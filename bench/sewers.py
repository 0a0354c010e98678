"""Simulated quilters at a block, their truth hidden: what is named, held, found and settled, and how quickly."""

from __future__ import annotations

import time
from collections.abc import Iterator
from dataclasses import dataclass, field, replace

import numpy as np

from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.inference import Inference, infer
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.verdict import Status, Verdict, judge
from piecing.lengths import Length
from tests.polygons import BLOCKS, Table, Truth, Ways, sewn, table

__all__ = ["Score", "print_sewers", "quilters"]

_MOST = 10
STRESS = (
    ("scatter x 0.5", Ways(scatter=0.5)),
    ("scatter x 1.5", Ways(scatter=1.5)),
    ("scatter x 2", Ways(scatter=2.0)),
    ("5% of seams slip 1/16", Ways(slipping=0.05)),
    ("one reading in 15 wrong", Ways(wrong=1 / 15)),
    ("ruler 1/64 long", Ways(ruler=1 / 64)),
    ("same unit each time", Ways(same_unit=True)),
    ("cutting x 2", Ways(cutting=2.0)),
    ("read to 1 mm", Ways(mark=1 / 25.4)),
    ("read to 1/16", Ways(mark=1 / 16)),
)


def causes_here(t: Table, batch: int, *, joined: bool = True) -> list[str]:
    """What can go wrong in a batch of this block."""
    b = t.model.places.batches[batch]
    found = ["seam", "trim"]
    found += ["shift"] if (b.corners or b.tips) and b.slips else []
    found += ["tip"] if b.tips else []
    return found if joined or b.plain else [*found, "cut"]


@dataclass
class Score:
    quilters: int = 0
    right: int = 0
    wrong: int = 0
    true: int = 0
    readings: int = 0
    held: list[bool] = field(default_factory=list)
    when_true: list[int] = field(default_factory=list)
    took: list[float] = field(default_factory=list)
    slips: list[str] = field(default_factory=list)

    def line(self) -> str:
        n = max(self.quilters, 1)
        held = f"{np.mean(self.held):5.0%}" if self.held else "    -"
        return (
            f"right {self.right / n:5.0%}   wrong {self.wrong / n:6.1%}   called true {self.true / n:5.0%}   "
            f"interval {held}   readings {self.readings / n:4.1f}"
        )


def asked(
    t: Table, truth: Truth, ways: Ways, rng: np.random.Generator, most: int, *, joined: bool = True, on: bool = False
) -> Iterator[tuple[Inference, Verdict]]:
    """The diagnosis after each reading that was asked for; ``on`` goes on after it is settled."""
    block, readings = sewn(t, truth, ways, rng), list[Reading]()
    mark = Length.near(ways.mark)
    for n in range(most + 1):
        found = infer(t.model, readings, raw=t.raw, resolution=mark)
        verdict = judge(found)
        yield found, verdict
        if n == most or (not on and verdict.status in (Status.SETTLED, Status.TRUE)):
            return
        wanted = next_readings(found, verdict, raw=t.raw, resolution=mark, joined=joined)[0].reading
        readings.append(block.taken(wanted))


def quilters(count: int, size: float, ways: Ways, seed: int, most: int = _MOST, causes: tuple[str, ...] = ()) -> Score:
    """Quilters with one dominant cause of ``size`` and the others within a third of it; with none when ``size`` is zero."""
    rng, score = np.random.default_rng(seed), Score()
    tables = [table(*b) for b in BLOCKS]
    for n in range(count):
        t = tables[n % len(tables)]
        batch = int(rng.integers(len(t.model.places.batches)))
        here = [c for c in causes_here(t, batch) if not causes or c in causes] or list(causes) or ["seam"]
        cause = causes[n % len(causes)] if causes else here[int(rng.integers(len(here)))]
        small = max(size, 1 / 64) / 3
        of = {c: float(rng.uniform(-small, small)) for c in causes_here(t, batch)}
        of[cause] = (
            size * (1.0 if cause in ("fold", "stretch") else float(rng.choice((-1, 1)))) if size else of.get(cause, 0.0)
        )
        truth = Truth(batch=batch, scant=cause != "fold", **{"fold": float(rng.uniform(0.012, 0.03)), **of})
        if ways.cutting > 1 or cause == "stretch":
            truth = replace(truth, stretch=truth.stretch or float(rng.uniform(0, 1 / 40)))
        began = time.perf_counter()
        for k, (found, verdict) in enumerate(asked(t, truth, ways, rng, most, on=not size)):
            if not size and verdict.status is Status.TRUE:
                score.when_true.append(k)
                break
        score.took.append(time.perf_counter() - began)
        _count(score, truth, cause if size else "", found, verdict)
        score.readings += k
    return score


def _true_cause(found: Inference, truth: Truth, cause: str) -> str:
    for e in found.estimates:
        if cause and e.parameter.cause.value == cause and e.parameter.batch in (-1, truth.batch):
            return f"{truth.of(cause):+.3f} is held to lie from {e.low:+.3f} to {e.high:+.3f} after {len(found.readings)} readings"
    return f"{len(found.readings)} readings"


def _count(score: Score, truth: Truth, cause: str, found: Inference, verdict: Verdict) -> None:
    score.quilters += 1
    named = verdict.status in (Status.SETTLED, Status.SEVERAL, Status.MISTAKE)
    score.true += verdict.status is Status.TRUE
    p = verdict.leading
    good = named and p is not None and bool(cause) and p.cause.value == cause and p.batch in (-1, truth.batch)
    score.right += good
    bad = (
        (named and not good)
        or (verdict.status is Status.TRUE and bool(cause))
        or (verdict.status is Status.VARIES and bool(cause))
    )
    score.wrong += bad
    if bad:
        score.slips.append(
            f"{found.model.places.layout.pattern.name} {cause} batch {truth.batch}: {verdict.said}; {_true_cause(found, truth, cause)}"
        )
    for e in found.estimates:
        q = e.parameter
        if cause and q.cause.value == cause and q.batch in (-1, truth.batch) and q.axis == 0 and e.measured:
            size = truth.of(cause) if cause != "seam" else truth.seam - (truth.fold / 2 if truth.scant else 0.0)
            score.held.append(e.low <= size <= e.high)
