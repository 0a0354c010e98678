"""Plans being looked for: one a project, in a thread of its own, with how far it is and a stop that keeps the best so far."""

from __future__ import annotations

import threading
import time
from collections.abc import Callable
from dataclasses import dataclass, field
from uuid import UUID

from django.db import connection

from piecing.solver import Stop

__all__ = ["Job", "job_of", "start", "stop"]


@dataclass
class Job:
    seconds: float
    began: float = field(default_factory=time.monotonic)
    stop: Stop = field(default_factory=Stop)
    thread: threading.Thread | None = None
    failed: str = ""

    @property
    def share(self) -> float:
        """How much of the time it was given has passed."""
        return min(0.99, (time.monotonic() - self.began) / self.seconds)

    @property
    def running(self) -> bool:
        return self.thread is not None and self.thread.is_alive()


_jobs: dict[UUID, Job] = {}
_lock = threading.Lock()


def start(project: UUID, seconds: float, work: Callable[[Stop], str]) -> Job:
    """Begin, unless one is running already; ``work`` returns why it failed, or nothing."""
    with _lock:
        known = _jobs.get(project)
        if known and known.running:
            return known
        job = Job(seconds)

        def run() -> None:
            try:
                job.failed = work(job.stop)
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
            job.thread.join(timeout=5)
