"""A search in a process of its own finds what one here finds, ends when it is asked to, and is not lost when that process dies."""

from __future__ import annotations

import os
import pickle
import signal
import subprocess
import threading
import time
from unittest import TestCase

from cutting import apart
from piecing.cutting import Cloth, Goal
from piecing.cutting.ledger import Entry, Pile, plan_of_the_rest
from piecing.lengths import inches
from piecing.solver import Stop

PILES = [Pile(Entry("A", "a", inches("9/2"), inches("9/2")), 20), Pile(Entry("B", "a", inches(3), inches("11/2")), 12)]
CLOTHS = [Cloth("bolt", "a", inches(40), inches(36))]


def children() -> list[int]:
    """Processes of the pool: those of this one that were spawned."""
    said = subprocess.run(
        ["ps", "--ppid", str(os.getpid()), "-o", "pid=,args="], capture_output=True, text=True, check=True
    )
    return [int(line.split()[0]) for line in said.stdout.splitlines() if "spawn_main" in line]


class ApartTest(TestCase):
    def test_the_same_plan_as_here(self) -> None:
        here = plan_of_the_rest(PILES, CLOTHS, Goal.LEAST, 2.0)
        there = apart.search(PILES, CLOTHS, Goal.LEAST, 2.0, Stop())
        self.assertEqual((there.used_area, there.missing), (here.used_area, here.missing))
        self.assertEqual(pickle.loads(pickle.dumps(inches(1).times_root2())), inches(1).times_root2())

    def test_it_ends_when_it_is_asked_to(self) -> None:
        many = [Pile(Entry(chr(65 + n), "a", inches(n + 7) / 4, inches(n * 3 % 11 + 9) / 4), 11) for n in range(20)]
        cloths = [Cloth(f"c{n}", "a", inches(20), inches(18), count=3) for n in range(4)]
        apart.search(PILES, CLOTHS, Goal.LEAST, 1.0, Stop())
        stop = Stop()
        threading.Timer(0.5, stop.now).start()
        began = time.monotonic()
        apart.search(many, cloths, Goal.LEAST, 60.0, stop)
        self.assertLess(time.monotonic() - began, 30)

    def test_a_process_that_dies_does_not_lose_the_search(self) -> None:
        apart.search(PILES, CLOTHS, Goal.LEAST, 1.0, Stop())
        for child in children():
            os.kill(child, signal.SIGKILL)
        found = apart.search(PILES, CLOTHS, Goal.LEAST, 1.0, Stop())
        self.assertEqual(found.missing, ())
        self.assertEqual(apart.search(PILES, CLOTHS, Goal.LEAST, 1.0, Stop()).missing, ())
