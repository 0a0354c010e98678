"""Minutes and evenings: how well a pace foretells, and how soon the pages of the records answer when there is much in them."""

from __future__ import annotations

from datetime import timedelta
from random import Random
from statistics import median
from uuid import uuid4

from bench.in_process import InProcess, in_process

__all__ = ["print_evenings"]

_PAGES = (
    "records",
    "records/hands",
    "records/diagnoses",
    "records/forecasts",
    "times",
    "evenings",
    "log",
    "log?q=third",
    "projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001/time",
    "projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001/story",
    "exchange/records",
)


def _foretold(sittings: int, rng: Random, rounds: int = 600) -> tuple[float, float]:
    """Share of forecasts whose range held, and how far off the middle was, half the time: quilters whose pace is uniform in its
    logarithm, whose luck is gamma."""
    from piecing.timing import Timed, WorkStage, pace_of, time_for

    held, off = 0, []
    for _ in range(rounds):
        own = 2 ** rng.uniform(-1, 1)
        pace = pace_of(
            [Timed(m * own * rng.gammavariate(12, 1 / 12), m) for m in (rng.uniform(10, 60) for _ in range(sittings))]
        )
        told = time_for({WorkStage.SEW: 300.0}, {WorkStage.SEW: pace})
        came = sum(60 * own * rng.gammavariate(12, 1 / 12) for _ in range(5))
        held += told.quick <= came <= told.slow
        off.append(abs(told.minutes / came - 1))
    return held / rounds, median(off)


def _fill(many: int) -> None:
    """So many seam tests, and half as many stretches of work and log entries, over two years."""
    from django.utils import timezone

    from journal.models import LogEntry
    from measuring.models import ReadingRow
    from piecing.lengths import inches
    from projects.models import Project
    from setups.models import SetUp
    from timing.models import STAGES, WorkTime
    from workrooms.selectors import current_workroom

    rng, room, now = Random(5), current_workroom(), timezone.now()
    machine = SetUp.objects.filter(in_use=True).get()
    projects = list(Project.objects.all())
    values = [inches(f"{n}/64") for n in range(15, 20)]
    ReadingRow.objects.bulk_create(
        ReadingRow(pk=uuid4(), test_of=machine, set_up=machine, guide=machine.guide, kind="stitch", value=rng.choice(values), wanted=inches("1/4"),
                   spot=rng.choice(["start", "middle", "end"]), day=(now - timedelta(days=rng.uniform(0, 700))).date().isoformat(), order=n)
        for n in range(many)
    )  # fmt: skip
    times = []
    for _ in range(many // 2):
        began = now - timedelta(days=rng.uniform(0, 700))
        minutes = rng.uniform(5, 90)
        told = {"stage": rng.choice(STAGES)[0], "began": began, "ended": began, "minutes": minutes, "count": 20}
        times.append(
            WorkTime(
                pk=uuid4(), workroom=room, project=rng.choice(projects), usual=minutes * rng.uniform(0.6, 1.6), **told
            )
        )
    WorkTime.objects.bulk_create(times)
    LogEntry.objects.bulk_create(
        LogEntry(pk=uuid4(), workroom=room, project=rng.choice(projects), kind="note", day=(now - timedelta(days=rng.uniform(0, 700))).date(),
                 text=f"The {rng.choice(['first', 'second', 'third'])} try of row {n}")
        for n in range(many // 2)
    )  # fmt: skip


def _page(app: InProcess, path: str) -> tuple[float, float]:
    """The first answer, and the middle one of five more."""
    first = app.ask("get", path).took
    return first, median(app.ask("get", path).took for _ in range(5))


def print_evenings() -> None:
    print(
        "\nHow long five hours of usual work take, foretold from timed sittings: the range holds 8 in 10; off by, half the time"
    )
    rng = Random(11)
    for sittings in (0, 1, 2, 4, 8, 20):
        held, off = _foretold(sittings, rng)
        print(f"    {sittings:>3} sittings: held {held:4.0%}, off by {off:4.0%}")
    with in_process() as app:
        from io import StringIO

        from django.core.management import call_command

        call_command("lantern_deck", stdout=StringIO())
        print(
            "\nPages of the records, ms: first answer, then (aim 200)         demo             10,000 tests, 5,000 stretches, 5,000 entries"
        )
        few = {path: _page(app, path) for path in _PAGES}
        _fill(10_000)
        for path in _PAGES:
            (a, b), (c, d) = few[path], _page(app, path)
            print(f"    {path.split('/')[-1]:<24}{a:>20.0f} {b:>6.0f} {c:>16.0f} {d:>6.0f}")
