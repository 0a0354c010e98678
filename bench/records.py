"""Own records: whether units cut by what was read of a quilter's seams can nearly all be trimmed.

The seams are drawn here from the craft's table alone (a square cut for eight gives raw units of half of it less r2 e), and
the cloth is where it is shortest: at the worse of the two ends of the seam.
"""

from __future__ import annotations

from dataclasses import dataclass, field
from math import sqrt

import numpy as np

from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.causes import Cause
from piecing.diagnosis.inference import infer, prior_of
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.record import record_of
from piecing.diagnosis.verdict import Status, judge
from piecing.lengths import Length, inches
from piecing.planning.schools import record_cuts
from piecing.units import UnitSpec, method_for
from tests.polygons import BLOCKS, Truth, Ways, sewn, table

__all__ = ["from_the_record", "print_records", "trimmable"]

_MARK, _FINISHED = 1 / 32, 3
_SPOTS = ("start", "middle", "end")


def trimmable(seams: float, ends: float, rng: np.random.Generator, *, records: int = 25, units: int = 4000) -> float:
    """Share of eight-at-a-time units with room, over records of twelve readings each of hands whose seams and seam ends
    scatter by so much, inches."""
    method = method_for("half_square_triangle", "eight")
    spec = UnitSpec("half_square_triangle", inches(_FINISHED), inches(_FINISHED), ("dark", "light"))
    shares = []
    for _ in range(records):
        mean = 0.25 + rng.uniform(-1, 1) / 48
        readings = []
        for n in range(12):
            spot = _SPOTS[n % 3]
            at = mean + rng.normal(0, seams) + rng.normal(0, ends if spot != "middle" else ends / 2)
            read = round((at + rng.uniform(-1, 1) / 100) / _MARK) * _MARK
            readings.append(Reading(ReadingKind.STITCH, Length.near(read), spot=spot))
        record = record_of(inches("1/4"), readings)
        cut = float(record_cuts(method, spec, inches("1/4"), record, inches("1/8"))["square"])
        fold = 1 / 128
        worse = mean + fold + rng.normal(0, seams, units) + rng.normal(0, ends, (units, 2)).max(axis=1)
        sides = cut / 2 + rng.normal(0, 1 / 64, units) / 2 - sqrt(2) * worse
        shares.append(float((sides >= _FINISHED + 0.5).mean()))
    return float(np.mean(shares))


@dataclass
class _Told:
    readings: list[int] = field(default_factory=list)
    held: list[bool] = field(default_factory=list)
    right: list[bool] = field(default_factory=list)


def from_the_record(count: int = 96, most: int = 10) -> dict[str, _Told]:
    """Quilters whose seams are off by habit (or not), diagnosed with and without the twelve seam tests they sewed before."""
    rng, told = np.random.default_rng(9), {"without": _Told(), "with": _Told()}
    tables = [table(*b) for b in BLOCKS]
    for n in range(count):
        t, habit = tables[n % len(tables)], (-1 / 32, 0.0, 1 / 32)[n % 3]
        truth = Truth(batch=0, scant=True, seam=habit, fold=float(rng.uniform(0.012, 0.03)))
        before = sewn(t, truth, Ways(), rng)
        tests = [before.taken(_TESTS[k % len(_TESTS)]) for k in range(12)]
        record = record_of(t.model.allowance, tests)
        for way, prior in (("without", None), ("with", prior_of(t.model, record=record))):
            block, readings = sewn(t, truth, Ways(), np.random.default_rng(n)), list[Reading]()
            for k in range(most + 1):
                found = infer(t.model, readings, prior, raw=t.raw)
                verdict = judge(found)
                if k == most or (k and verdict.status in (Status.SETTLED, Status.TRUE)):
                    break
                readings.append(block.taken(next_readings(found, verdict, raw=t.raw, joined=True)[0].reading))
            seam = next(e for e in found.estimates if e.parameter.cause is Cause.SEAM)
            told[way].readings.append(k)
            if seam.measured:
                told[way].held.append(seam.low <= habit - truth.fold / 2 <= seam.high)
            wanted = Status.SETTLED if habit else Status.TRUE
            told[way].right.append(verdict.status is wanted)
    return told


_TESTS = (
    Reading(ReadingKind.STRIP_TEST, inches(1), whole=inches("7/2")),
    Reading(ReadingKind.STITCH, inches("1/4"), spot="middle"),
)


def print_records() -> None:
    print("\nReadings until a diagnosis is settled, without and with twelve seam tests behind it (aim: a third fewer)")
    for way, t in from_the_record().items():
        held = f"{np.mean(t.held):4.0%}" if t.held else "   -"
        print(
            f"    {way:<8} {np.mean(t.readings):4.1f} readings; settled right {np.mean(t.right):4.0%}; the seam's interval holds {held}"
        )
    print("\nOwn records, eight at a time, ruler in eighths: units of 100 with room (aim 99)")
    rng = np.random.default_rng(51)
    for label, seams, ends in (
        ("steady, 1/120 and 1/120", 1 / 120, 1 / 120),
        ("seams 1/96, ends 1/96", 1 / 96, 1 / 96),
        ("seams 1/64, ends 1/64", 1 / 64, 1 / 64),
        ("seams 1/96, ends 1/48", 1 / 96, 1 / 48),
    ):
        print(f"    {label:<28} {100 * trimmable(seams, ends, rng):5.1f}")
