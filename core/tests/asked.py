"""Readings asked for one after another and taken on a simulated block; what is to be seen on it."""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from piecing.diagnosis.asking import next_readings
from piecing.diagnosis.faults import faults_seen
from piecing.diagnosis.inference import Inference, infer
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.verdict import Status, Verdict, judge
from piecing.lengths import Length

from .polygons import Sewn

__all__ = ["asked", "faults_on"]


def asked(block: Sewn, most: int, *, joined: bool = True, on: bool = False) -> Iterator[tuple[Inference, Verdict]]:
    """The diagnosis after each reading that was asked for; ``on`` goes on after it is settled."""
    t, readings, mark = block.table, list[Reading](), Length.near(block.ways.mark)
    for n in range(most + 1):
        found = infer(t.model, readings, raw=t.raw, resolution=mark)
        verdict = judge(found)
        yield found, verdict
        if n == most or (not on and verdict.status in (Status.SETTLED, Status.TRUE)):
            return
        wanted = next_readings(found, verdict, raw=t.raw, resolution=mark, joined=joined)[0].reading
        readings.append(block.taken(wanted))


def faults_on(block: Sewn) -> int:
    """How many faults a block has, by what its polygons measure."""
    model = block.table.model
    return int(faults_seen(model, np.array([[block.feature(f.key) - f.nominal for f in model.features]]))[0])
