"""Work laid into free evenings: chores batched, what is due first first, and what will be late.

Source: docs/theory, section 17.3.
"""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from datetime import date, datetime, timedelta
from math import ceil, exp, floor

from ..messages import Message
from .effort import STAGE_ORDER, WorkStage
from .free import Stretch
from .pace import Pace, usual_pace
from .words import Day

__all__ = [
    "BREAK_AFTER",
    "Chore",
    "Late",
    "Plan",
    "Sitting",
    "Task",
    "in_order",
    "late_said",
    "plan_sittings",
    "rests_said",
]

BREAK_AFTER, BREAK = 50.0, 5.0
"""Minutes of work, and of standing up and resting the wrists after them."""
_SETTING_OUT = 5.0
"""Minutes to clear the table for another stage: iron, mat, machine."""
_LEAST = 8.0
"""Minutes: a chore is not begun, or taken up, for less than this."""
_FIVE = 5
"""Minutes to which the end of an evening is told."""
_NEARLY = 1e-9


@dataclass(frozen=True, slots=True)
class Chore:
    """``count`` things of one kind through one stage: ``usual`` minutes each. ``of`` is the name of the kind for good, ``said`` what
    it is called; ``due`` by when, ``batch`` which of the things due then (blocks one after the other), ``project`` of
    which project."""

    stage: WorkStage
    of: str
    said: Message
    count: int
    usual: float
    due: date | None = None
    batch: int = 0
    project: str = ""


@dataclass(frozen=True, slots=True)
class Task:
    """A part of a chore in one sitting: so many are finished in it, in so many minutes. None finished: it is gone on with."""

    chore: Chore
    count: int
    minutes: float


@dataclass(frozen=True, slots=True)
class Sitting:
    """One free stretch with what is done in it."""

    begins: datetime
    ends: datetime
    tasks: tuple[Task, ...]

    @property
    def minutes(self) -> float:
        """Minutes of work in it, without setting out and rest."""
        return sum(t.minutes for t in self.tasks)


@dataclass(frozen=True, slots=True)
class Plan:
    """``sittings`` in order; ``done`` by chore when its last piece is finished; ``left`` is what found no free time."""

    sittings: tuple[Sitting, ...]
    done: Mapping[Chore, date]
    left: tuple[Chore, ...]


def in_order(chores: Iterable[Chore]) -> list[Chore]:
    """By the day they are due, those without one last; of the same day by batch, stage by stage, so that one chore is done in
    one go. Earliest due first leaves the least lateness that any order can; within one day the order is that of the work."""
    last = date.max
    return sorted((c for c in chores if c.count), key=lambda c: (c.due or last, c.batch, STAGE_ORDER[c.stage]))


def plan_sittings(
    chores: Sequence[Chore], free: Sequence[Stretch], paces: Mapping[WorkStage, Pace], slow: float = 0.0
) -> Plan:
    """The chores, in their order, laid into free stretches. ``slow`` 0 as it most likely goes; 1 where every stage takes as much
    longer as its pace is unsure."""
    table = _Table(chores, paces, slow)
    sittings = []
    for stretch in free:
        if not table.left:
            break
        tasks, worked = table.fill(stretch)
        if tasks:
            ends = stretch.begins + timedelta(minutes=_FIVE * ceil(worked / _FIVE - _NEARLY))
            sittings.append(Sitting(stretch.begins, min(ends, stretch.ends), tuple(tasks)))
    return Plan(tuple(sittings), table.done, tuple(table.rest()))


class _Table:
    """What is left to do, taken off from the front."""

    def __init__(self, chores: Sequence[Chore], paces: Mapping[WorkStage, Pace], slow: float) -> None:
        self.left = [c for c in chores if c.count]
        self.done: dict[Chore, date] = {}
        self._each = {s: _longer(paces.get(s, usual_pace()), slow) for s in WorkStage}
        self._still = dict.fromkeys(self.left, 0)
        self._begun: dict[Chore, float] = {}
        """Minutes already put into a thing that takes longer than one evening."""

    def each(self, chore: Chore) -> float:
        return max(chore.usual * self._each[chore.stage], _NEARLY)

    def rest(self) -> list[Chore]:
        return [replace(c, count=c.count - self._still[c]) for c in self.left]

    def fill(self, stretch: Stretch) -> tuple[list[Task], float]:
        """One evening's tasks, and the minutes from its beginning to its end."""
        tasks: list[Task] = []
        used = work = 0.0
        stage: WorkStage | None = None
        while self.left:
            chore = self.left[0]
            setting = _SETTING_OUT if stage not in (None, chore.stage) else 0.0
            room = _room(stretch.minutes - used - setting, work)
            wanted = self.each(chore) * (chore.count - self._still[chore]) - self._begun.get(chore, 0.0)
            if room < min(_LEAST, wanted) - _NEARLY:
                break
            task = self._take(chore, room, wanted, stretch)
            if task is None:
                break
            tasks.append(task)
            stage = chore.stage
            used += (
                setting
                + task.minutes
                + BREAK * (floor((work + task.minutes) / BREAK_AFTER) - floor(work / BREAK_AFTER))
            )
            work += task.minutes
        # Nobody rests after the last stitch.
        over = BREAK if tasks and work % BREAK_AFTER < _NEARLY else 0.0
        return tasks, min(used - over, stretch.minutes)

    def _take(self, chore: Chore, room: float, wanted: float, stretch: Stretch) -> Task | None:
        each, still, begun = self.each(chore), self._still[chore], self._begun.get(chore, 0.0)
        if wanted <= room + _NEARLY:
            self.left.pop(0)
            self.done[chore] = stretch.begins.date()
            return Task(chore, chore.count - still, wanted)
        count = floor((room + begun) / each + _NEARLY)
        if count == 0 and not begun and each <= _room(stretch.minutes, 0.0) + _NEARLY:
            # It fits into another evening as a whole: nothing is left half sewn for a few minutes.
            return None
        minutes = room if count == 0 else count * each - begun
        self._still[chore] = still + count
        self._begun[chore] = begun + room if count == 0 else 0.0
        return Task(chore, count, minutes)


def _room(minutes: float, work: float) -> float:
    """Minutes of work that fit where so many are left, when so many were worked before in one go; the rests lie between."""
    room = 0.0
    until = BREAK_AFTER - work % BREAK_AFTER
    while minutes > 0:
        room += min(until, minutes)
        minutes -= until + BREAK
        until = BREAK_AFTER
    return room


def _longer(pace: Pace, slow: float) -> float:
    return pace.factor * exp(slow * pace.unsure)


@dataclass(frozen=True, slots=True)
class Late:
    """A day that is due, when it would be done (None: no free time is left for it), and when if it goes slowly."""

    due: date
    done: date | None
    slow: date | None

    @property
    def late(self) -> bool:
        """Whether it is late as things most likely go."""
        return self.done is None or self.done > self.due

    @property
    def tight(self) -> bool:
        """Whether it is in time, but not if it goes slowly."""
        return not self.late and (self.slow is None or self.slow > self.due)


def late_said(late: Late, today: date) -> Message:
    """One due day in words."""
    due = Day(late.due, today)
    if late.done is None:
        return Message("Due {due}: the free time that is known does not reach so far.", due=due)
    done = Day(late.done, today)
    if late.late:
        return Message("Due {due}; as things go it is done {done}.", due=due, done=done)
    if late.tight:
        return Message("Due {due}: done {done}, in time unless it goes slowly.", due=due, done=done)
    return Message("Due {due}: done {done}, in good time.", due=due, done=done)


def rests_said() -> Message:
    """What is kept free between chores."""
    return Message(
        "One chore at a time, what is due first first. {clear} minutes are kept to clear the table for another stage, and {rest} to stand up "
        "and rest your wrists after every {work} of work. Nothing reminds you.",
        clear=round(_SETTING_OUT),
        rest=round(BREAK),
        work=round(BREAK_AFTER),
    )
