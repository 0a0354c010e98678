"""Cutting plans looked for in processes of their own, so that the one that answers people is not held up by a search.

Begun by the server alone; everywhere else a search runs where it is asked for.
"""

from __future__ import annotations

import atexit
import multiprocessing
import os
import threading
import time
from collections.abc import Sequence
from concurrent.futures import ProcessPoolExecutor
from concurrent.futures.process import BrokenProcessPool
from multiprocessing.synchronize import Event
from queue import Empty, Queue

from piecing.cutting import Cloth, CuttingPlan, Goal
from piecing.cutting.ledger import Pile, plan_of_the_rest
from piecing.solver import Stop, warm

__all__ = ["begin", "is_running", "search"]

_WORKERS = 2
_STEP = 0.1
"""Seconds between two looks at whether a search is to stop."""
_NICER = 19
"""How much later than other processes a search gets its turn of the processor."""

_events: Sequence[Event] = ()
_slots: Queue[int] = Queue()
_pool: ProcessPoolExecutor | None = None
_lock = threading.Lock()
_on = False


def begin() -> None:
    """From now on searches run apart; the processes start with the first one."""
    global _on
    _on = True


def is_running() -> bool:
    """Whether searches run apart."""
    return _on


def search(piles: Sequence[Pile], cloths: Sequence[Cloth], goal: Goal, seconds: float, stop: Stop) -> CuttingPlan:
    """As ``plan_of_the_rest``, elsewhere; here when the other process has died."""
    pool = _start()
    try:
        slot = _slots.get(timeout=seconds)
    except Empty:
        return plan_of_the_rest(piles, cloths, goal, seconds, stop)
    event = _events[slot]
    try:
        event.clear()
        found = pool.submit(_search, slot, tuple(piles), tuple(cloths), goal, seconds)
        while not found.done():
            if stop.asked:
                event.set()
            time.sleep(_STEP)
        return found.result()
    except BrokenProcessPool:
        _forget(pool)
        return plan_of_the_rest(piles, cloths, goal, seconds, stop)
    finally:
        _slots.put(slot)


def _start() -> ProcessPoolExecutor:
    global _pool, _events
    with _lock:
        if _pool is None:
            context = multiprocessing.get_context("spawn")
            if not _events:
                _events = [context.Event() for _ in range(_WORKERS)]
                for n in range(_WORKERS):
                    _slots.put(n)
                atexit.register(_end)
            _pool = ProcessPoolExecutor(_WORKERS, context, initializer=_ready, initargs=(list(_events), os.getpid()))
        return _pool


def _forget(pool: ProcessPoolExecutor) -> None:
    global _pool
    with _lock:
        if _pool is pool:
            _pool = None
    pool.shutdown(wait=False, cancel_futures=True)


def _end() -> None:
    for event in _events:
        event.set()
    if _pool is not None:
        _pool.shutdown(wait=False, cancel_futures=True)


def _ready(events: Sequence[Event], parent: int) -> None:
    """In the other process: nobody waits for it, and it does not outlive the one that asks."""
    global _events
    _events = events
    if hasattr(os, "nice"):
        os.nice(_NICER)
    threading.Thread(target=_end_with, args=(parent,), daemon=True).start()
    warm()


def _end_with(parent: int) -> None:
    while os.getppid() == parent:
        time.sleep(1)
    os._exit(0)


def _search(slot: int, piles: Sequence[Pile], cloths: Sequence[Cloth], goal: Goal, seconds: float) -> CuttingPlan:
    """In the other process."""
    stop, over = Stop(), threading.Event()

    def listen() -> None:
        while not over.wait(_STEP) and not stop.asked:
            if _events[slot].is_set():
                stop.now()

    threading.Thread(target=listen, daemon=True).start()
    try:
        return plan_of_the_rest(piles, cloths, goal, seconds, stop)
    finally:
        over.set()
