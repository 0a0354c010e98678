"""Own records: whether units cut by what was read of a quilter's seams can nearly all be trimmed.

The seams are drawn here from the craft's table alone (a square cut for eight gives raw units of half of it less r2 e), and
the cloth is where it is shortest: at the worse of the two ends of the seam.
"""

from __future__ import annotations

from math import sqrt

import numpy as np

from piecing.diagnosis.readings import Reading, ReadingKind
from piecing.diagnosis.record import record_of
from piecing.lengths import Length, inches
from piecing.planning.schools import record_cuts
from piecing.units import UnitSpec, method_for

__all__ = ["print_records", "trimmable"]

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


def print_records() -> None:
    print("\nOwn records, eight at a time, ruler in eighths: units of 100 with room (aim 99)")
    rng = np.random.default_rng(51)
    for label, seams, ends in (
        ("steady, 1/120 and 1/120", 1 / 120, 1 / 120),
        ("seams 1/96, ends 1/96", 1 / 96, 1 / 96),
        ("seams 1/64, ends 1/64", 1 / 64, 1 / 64),
        ("seams 1/96, ends 1/48", 1 / 96, 1 / 48),
    ):
        print(f"    {label:<28} {100 * trimmable(seams, ends, rng):5.1f}")
