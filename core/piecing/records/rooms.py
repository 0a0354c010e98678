"""How many units of a block have something to trim, by one's own hands: made the usual way, and every other way.

Source: docs/theory, section 16.6.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

from ..blocks.counting import BlockOrder, Colourway, MakingChoice, ordered_plans, unit_counts
from ..blocks.pattern import Pattern
from ..diagnosis.causes import SCATTER
from ..diagnosis.equations import CUT_SCATTER
from ..diagnosis.habits import FEWEST
from ..diagnosis.record import spread_at_worse_end
from ..errors import PiecingError
from ..lengths import Area, Length
from ..messages import Message
from ..planning.plan import plan
from ..planning.room import QuilterRecord
from ..planning.schools import SCHOOL_WORDS, School
from ..planning.unit_plan import Choices, UnitPlan
from ..units import kind_of, methods_of
from ..units.spec import UnitSpec

__all__ = ["BlockRooms", "UnitMaking", "UnitRooms", "block_rooms", "steady_record"]

_OFFERED = (School.EXACT, School.LITTLE, School.GENEROUS, School.RECORDS)


@dataclass(frozen=True)
class UnitMaking:
    """One way to make a unit and one school of oversizing: the share of units with room, 0 to 1, and the ``cloth`` of one."""

    method: str
    school: School
    title: str
    share: float
    cloth: Area

    @property
    def said(self) -> Message:
        """The way and the school, as one calls them."""
        return Message("{way}, {school}", way=self.title, school=SCHOOL_WORDS[self.school][0].lower())


@dataclass(frozen=True)
class UnitRooms:
    """``count`` of one unit a block, made as is ``usual``, and ``others`` that leave room more often, the least cloth first of those that
    do as well."""

    spec: UnitSpec
    count: int
    usual: UnitMaking
    others: tuple[UnitMaking, ...]

    @property
    def said(self) -> Message:
        """What the unit is."""
        return Message("{many} finishing {size}", many=kind_of(self.spec.kind).many, size=self.spec.size)


@dataclass(frozen=True)
class BlockRooms:
    """Every unit of a block that is sewn, and how many of them ``cannot`` be made at this size."""

    units: tuple[UnitRooms, ...]
    cannot: int

    @property
    def share(self) -> float | None:
        """Of all units, the share with room; None where none is sewn or some cannot be made."""
        count = sum(u.count for u in self.units)
        return sum(u.usual.share * u.count for u in self.units) / count if count and not self.cannot else None


def steady_record(allowance: Length) -> QuilterRecord:
    """Steady hands, all true: for a quilter of whom nothing is known."""
    spread = spread_at_worse_end(SCATTER["mean"] ** 2, SCATTER["end"])
    return QuilterRecord(float(allowance), spread, CUT_SCATTER, 0)


@lru_cache(maxsize=1_024)
def block_rooms(
    pattern: Pattern,
    finished: Length,
    allowance: Length,
    step: Length,
    record: QuilterRecord,
    school: School = School.LITTLE,
    *,
    ways: bool = False,
) -> BlockRooms:
    """Made the usual way by one school, and with ``ways`` every other way too. Raises ``LayoutIncomplete``."""
    if school is School.RECORDS and record.readings < FEWEST:
        school = School.LITTLE
    units = unit_counts([BlockOrder(pattern, finished, (Colourway(1),))])
    found, cannot = [], 0
    makings = {u.spec.kind: MakingChoice(school=school) for u in units}
    for c in ordered_plans(units, makings, seam_allowance=allowance, ruler_step=step, record=record):
        if len(kind_of(c.unit.spec.kind).parts) == 1:
            continue
        if c.plan is None:
            cannot += c.unit.total
            continue
        usual = _making(c.plan)
        others = _others(c.plan, record, usual) if ways else ()
        found.append(UnitRooms(c.unit.spec, c.unit.total, usual, others))
    return BlockRooms(tuple(found), cannot)


def _making(found: UnitPlan) -> UnitMaking:
    share = found.room if found.room is not None else 1.0
    cloth = Area.near(float(found.cloth.value) / max(1, found.wanted))
    return UnitMaking(found.method.name, found.choices.school, found.method.title, share, cloth)


def _others(now: UnitPlan, record: QuilterRecord, usual: UnitMaking) -> tuple[UnitMaking, ...]:
    """Every way and school with room more often by one in a hundred or more; of those within half of one in a hundred, less cloth first."""
    found = []
    c = now.choices
    for method in methods_of(c.spec.kind):
        for school in _OFFERED:
            if school is School.RECORDS and record.readings < FEWEST:
                continue
            choices = Choices(
                c.spec, method.name, school, c.count, c.mirrored, c.seam_allowance, None, c.fold, c.ruler_step
            )
            try:
                found.append(_making(plan(choices, record)))
            except PiecingError:
                continue
    better = [m for m in found if m.share > usual.share + 0.01]
    return tuple(sorted(better, key=lambda m: (-round(m.share * 200), float(m.cloth.value))))[:3]
