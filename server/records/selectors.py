"""Reads of the quilter's records: her machine, her hands over time, what kept diagnoses came to, a lot while it is sewn."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date
from math import hypot, sqrt
from uuid import UUID

from django.db.models import Count

from diagnosis.models import SavedDiagnosis
from measuring.models import ReadingRow
from measuring.selectors import SeamRow, day_of, habit_figure, offs_of, own_seams, reading_noise, seams_of
from piecing.diagnosis.causes import FOLD_USUAL
from piecing.diagnosis.faults import SEEN
from piecing.diagnosis.habits import Figure, Habit
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.record import SeamHands
from piecing.diagnosis.verdict import Status
from piecing.diagnosis.words import sure_in_words
from piecing.lengths import Length
from piecing.planning.seam import StripTest
from piecing.records import (
    CERTAINTIES,
    STEADY_SPREAD,
    Bar,
    Calibration,
    GuideSearch,
    GuideTest,
    LotWatch,
    RunPoint,
    SamplingPlan,
    TurnedOut,
    Watched,
    bars_of,
    calibrations,
    find_seam,
    next_to_measure,
    run_of,
    sampling_plan,
    seam_off,
    watch_lot,
)
from projects.models import PlannedUnit, Project
from setups.models import SetUp
from setups.selectors import days_out, name_of, set_ups
from workrooms.models import Workroom

__all__ = ["HandsShown", "LotSheet", "RecordsSheet", "hands_of", "kept_diagnoses", "lot_of", "records_of"]

NEWEST_TESTS = 40
"""Tests of the set-up in use that are listed; all of them are in the sheet to download."""


@dataclass(frozen=True)
class RecordsSheet:
    """Every set-up with how many tests it has, the newest of the one in use, and where its guide should stand."""

    room: Workroom
    set_ups: list[SetUp]
    tests: dict[UUID, list[ReadingRow]]
    counts: dict[UUID, int]
    current: SetUp | None
    search: GuideSearch | None


def records_of(room: Workroom) -> RecordsSheet:
    """Four queries."""
    rows = list(set_ups(room).select_related("came_from"))
    held = ReadingRow.objects.filter(test_of__in=rows, deleted_at=None)
    counts = dict(held.order_by().values_list("test_of").annotate(Count("pk")))
    current = next((s for s in rows if s.in_use), None)
    newest = held.filter(test_of=current).order_by("-day", "-order", "-taken_at")[:NEWEST_TESTS] if current else []
    tests = {s.pk: list(newest) if s is current else [] for s in rows}
    search = _search(room, current, tests[current.pk]) if current is not None else None
    return RecordsSheet(room, rows, tests, counts, current, search)


_LATEST = 3
"""Strip tests that the search for a seam looks at: before them the machine may have been another."""


def _search(room: Workroom, current: SetUp, newest: Sequence[ReadingRow]) -> GuideSearch:
    strips = [r for r in newest if r.kind == ReadingKind.STRIP_TEST.value and r.guide is not None][:_LATEST]
    tests = [GuideTest(r.guide, StripTest(r.value, r.whole)) for r in reversed(strips) if r.value and r.whole]
    return find_seam(tests, room.seam_allowance, current.guide_step, room.reading_step)


@dataclass(frozen=True)
class SetUpChange:
    """From this day on another set-up was in use."""

    day: date
    name: str


@dataclass(frozen=True)
class HandsShown:
    """The figures of every habit that something is known of, runs over time, and the spread beside what is assumed."""

    figures: dict[Habit, Figure]
    runs: dict[Habit, tuple[RunPoint, ...]]
    bars: dict[Habit, tuple[Bar, ...]]
    changes: list[SetUpChange]
    out: list[date]
    names: dict[str, str]


def hands_of(room: Workroom) -> HandsShown:
    """A dozen queries, of the newest readings."""
    read, seams = seams_of(room, room.seam_allowance), own_seams(room)
    figures: dict[Habit, Figure] = dict(seams.figures) if seams is not None else {}
    values: dict[Habit, list[tuple[date, str, float]]] = {Habit.SEAM: _seam_run(room, read, seams)}
    noise = reading_noise(room.reading_step)
    for habit in (Habit.CUTTING, Habit.TRIMMING):
        values[habit] = [(o.day, str(o.set_up or ""), o.off) for o in offs_of(room, habit)]
        figure = habit_figure(room, habit)
        if figure is not None:
            figures[habit] = figure
    rows = list(set_ups(room))
    return HandsShown(
        figures,
        {h: run_of(v) for h, v in values.items() if v},
        {h: bars_of(h, [x for _, _, x in v], figures[h], noise) for h, v in values.items() if v and h in figures},
        [SetUpChange(s.began, name_of(s)) for s in reversed(rows)],
        sorted(days_out(room)),
        {str(s.pk): name_of(s) for s in rows},
    )


def _seam_run(room: Workroom, rows: Sequence[SeamRow], seams: SeamHands | None) -> list[tuple[date, str, float]]:
    """What each seam took beyond the allowance, by day and set-up."""
    fold = seams.figures[Habit.FOLD].mean if seams is not None and Habit.FOLD in seams.figures else FOLD_USUAL
    told = ((row, seam_off(row.reading(), room.seam_allowance, fold)) for row in rows if row.value is not None)
    return [(day_of(row), str(row.set_up or ""), off) for row, off in told if off is not None]


def kept_diagnoses(room: Workroom) -> tuple[list[SavedDiagnosis], tuple[Calibration, ...]]:
    """Diagnoses kept in any project, the newest first, and how often each sureness turned out right. One query."""
    rows = [
        row
        for row in SavedDiagnosis.objects.filter(deleted_at=None).select_related("block__project", "unit__project")
        if _project_of(row).workroom_id == room.pk and _project_of(row).deleted_at is None
    ]
    told = [
        (
            sure_in_words(max(float(row.said.get("sure") or 0.0), _NAMED)),
            TurnedOut(row.turned_out) if row.turned_out else None,
        )
        for row in rows
        if row.said.get("status") in _SAID
    ]
    return rows, calibrations(told)


_SAID = {s.value for s in Status} - {Status.UNSETTLED.value, Status.NO_READINGS.value, Status.DOUBTED.value}
_NAMED = 0.75
"""What is named at all is said to be likely at least (see the verdict)."""


def _project_of(row: SavedDiagnosis) -> Project:
    subject = row.block or row.unit
    assert subject is not None
    return subject.project


@dataclass(frozen=True)
class LotSheet:
    """One lot of a unit while it is worked: what was measured in the order sewn, what is said of it, and how many to measure."""

    kind: ReadingKind
    lot: int
    units: int
    rows: list[ReadingRow]
    measured: list[Watched]
    watch: LotWatch
    plans: list[SamplingPlan]
    next: int
    own: bool


BORNE = Length.near(SEEN)
"""What a unit may be off: more is seen."""


def lot_of(unit: PlannedUnit, kind: ReadingKind, lot: int, units: int) -> LotSheet:
    """Readings of one kind that say which unit of the lot they are of. Some queries."""
    room = unit.project.workroom
    rows = [
        r
        for r in unit.readings.filter(deleted_at=None, kind=kind.value, lot=lot, nth__gt=0).order_by("nth", "order")
        if r.value is not None and r.wanted is not None
    ]
    spread, own, usual = _spread_of(room, kind, but=rows)
    found: dict[int, list[float]] = {}
    for r in rows:
        found.setdefault(r.nth, []).append(_off(r))
    measured = [Watched(nth, sum(offs) / len(offs), len(offs)) for nth, offs in sorted(found.items())]
    noise = reading_noise(room.reading_step)
    count = max(units, *(m.unit for m in measured), 1) if measured else max(units, 1)
    watch = watch_lot(measured, spread=spread, noise=noise, usual=usual)
    read = hypot(spread, noise / sqrt(_times_read(measured)))
    plans = [sampling_plan(count, read, BORNE, certainty) for certainty in CERTAINTIES]
    next_one = next_to_measure(watch, measured, plans[1].every, count)
    return LotSheet(kind, lot, count, rows, measured, watch, plans, next_one, own)


def _times_read(measured: Sequence[Watched]) -> float:
    """How often each unit is read, on the whole; once where nothing was."""
    return max(1.0, sum(m.readings for m in measured) / max(1, len(measured)))


def _off(row: ReadingRow) -> float:
    assert row.value is not None
    assert row.wanted is not None
    return float(row.value - row.wanted)


def _spread_of(room: Workroom, kind: ReadingKind, *, but: Sequence[ReadingRow]) -> tuple[float, bool, float]:
    """The quilter's own spread from unit to unit, whether it is her own, and where hers usually lie. The lot itself is judged by what
    was known before it."""
    lot, steady = {r.pk for r in but}, STEADY_SPREAD[kind]
    if kind is ReadingKind.STITCH:
        seams = own_seams(room, but=lot)
        if seams is not None:
            figure = seams.figures[Habit.SEAM]
            return steady * figure.spread / figure.assumed, True, figure.mean - FOLD_USUAL / 2
    if kind in (ReadingKind.WIDTH, ReadingKind.HEIGHT):
        trimming = habit_figure(room, Habit.TRIMMING, but=lot)
        if trimming is not None and trimming.sure != "open":
            return trimming.spread, True, 0.0
    return steady, False, 0.0
