"""Plans being looked for: one a project, two at a time, with how far each is and a stop that keeps the best so far.

That one is being looked for is also kept with the project (``CutPlan.asked_at``), so that it is known after a restart.
"""

from __future__ import annotations

import logging
import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from uuid import UUID

from django.db import connection

from api.problems import ApiError
from piecing.solver import Stop

__all__ = ["Job", "TooManyAtOnce", "job_of", "start", "stop"]


class TooManyAtOnce(ApiError):
    status = 503
    code = "too_many_at_once"
    title = "Too many at once"


@dataclass
class Job:
    seconds: float
    began: float | None = None
    stop: Stop = field(default_factory=Stop)
    thread: threading.Thread | None = None
    failed: str = ""

    @property
    def share(self) -> float:
        """How much of the time it was given has passed; nothing while it waits for its turn."""
        return 0.0 if self.began is None else min(0.99, (time.monotonic() - self.began) / self.seconds)

    @property
    def running(self) -> bool:
        return self.thread is not None and self.thread.is_alive()


_jobs: dict[UUID, Job] = {}
_lock = threading.Lock()
_AT_A_TIME = 2
_MOST_WAITING = 20
_turns = threading.BoundedSemaphore(_AT_A_TIME)


def start(project: UUID, seconds: float, work: Callable[[Stop], str]) -> Job:
    """Begin, unless one is running already; ``work`` returns why it failed, or nothing.

    Raises ``TooManyAtOnce`` when as many wait for their turn as may.
    """
    with _lock:
        known = _jobs.get(project)
        if known and known.running:
            return known
        if sum(j.running for j in _jobs.values()) >= _AT_A_TIME + _MOST_WAITING:
            raise TooManyAtOnce("Cutting plans of many projects are being looked for. Try again in a moment.")
        job = Job(seconds)

        def run() -> None:
            with _turns:
                job.began = time.monotonic()
                try:
                    job.failed = work(job.stop)
                except Exception as fault:
                    job.failed = "The cuts could not be planned. It is a fault of the program; nothing was changed."
                    logging.getLogger(__name__).exception("cutting plan", exc_info=fault)
                finally:
                    connection.close()

        job.thread = threading.Thread(target=run, daemon=True)
        _jobs[project] = job
        job.thread.start()
        return job


def job_of(project: UUID) -> Job | None:
    return _jobs.get(project)


def stop(project: UUID) -> None:
    """End it; what was found is kept."""
    job = _jobs.get(project)
    if job and job.running:
        job.stop.now()
        if job.thread:
            job.thread.join(timeout=0.9)
