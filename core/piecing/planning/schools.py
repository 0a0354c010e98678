"""Schools of oversizing: how much larger than bare need to cut, so that a unit can be trimmed true.

A school names cut sizes; each is then rounded up to what the ruler shows. No school goes below the bare sizes, so a
higher school never leaves less margin. Source: docs/theory, section 5.
"""

from __future__ import annotations

from enum import StrEnum
from itertools import count

from ..errors import NoMarginGiven, RecordsTooFew
from ..lengths import ZERO, Length
from ..units.method import Cuts, Method
from ..units.spec import UnitSpec
from .room import WANTED_SHARE, QuilterRecord, room_share

__all__ = ["SCHOOL_WORDS", "School", "record_cuts", "record_margin", "rounded", "school_cuts"]


class School(StrEnum):
    EXACT = "exact"
    LITTLE = "little"
    GENEROUS = "generous"
    OWN_MARGIN = "own_margin"
    RECORDS = "records"


SCHOOL_WORDS = {
    School.EXACT: ("Exact", "least cloth, nothing to spare"),
    School.LITTLE: ("Trim a little", "what most people do"),
    School.GENEROUS: ("Generous", "for wandering seams and slippery cloth"),
    School.OWN_MARGIN: ("Your margin", "so much off each side"),
    School.RECORDS: ("Your records", "99 in 100 can be trimmed, by your own seam"),
}
"""What a school is called, and what it is in a line."""


def rounded(method: Method, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length, step: Length) -> Cuts:
    """Every size up to the ruler's step, but for those that follow from others."""
    up = Cuts((name, size if name in method.templated else size.round_up(step)) for name, size in cuts.items())
    return method.reconciled_cuts(spec, cuts, up, (allowance, take_up), step)


def record_margin(method: Method, spec: UnitSpec, allowance: Length, record: QuilterRecord, step: Length) -> Length:
    """The margin to plan so that at least 99 in 100 units have room on all four sides, in eighths of the ruler's step.

    It hardly depends on the size of the unit: scatter does not grow with it.
    """
    take_up = Length.near(record.take_up_mean)
    cuts = Cuts()
    for n in count():
        wider = rounded(
            method, spec, method.minimum_cuts(spec, allowance, take_up, step * n / 8), allowance, take_up, step
        )
        if wider != cuts and room_share(method, spec, wider, allowance, record) >= WANTED_SHARE:
            return step * n / 8
        cuts = wider
    raise AssertionError("unreachable")


def record_cuts(method: Method, spec: UnitSpec, allowance: Length, record: QuilterRecord | None, step: Length) -> Cuts:
    """The smallest ruler-friendly sizes at which at least 99 in 100 units have room on all four sides."""
    if record is None:
        raise RecordsTooFew(
            "There are not enough readings of your own seam yet. Measure seams on the back or sew strip tests: four of them, and twelve for sureness.",
            field="school",
        )
    margin = record_margin(method, spec, allowance, record, step)
    take_up = Length.near(record.take_up_mean)
    return rounded(method, spec, method.minimum_cuts(spec, allowance, take_up, margin), allowance, take_up, step)


def school_cuts(
    school: School,
    method: Method,
    spec: UnitSpec,
    allowance: Length,
    take_up: Length,
    step: Length,
    *,
    own_margin: Length | None = None,
    record: QuilterRecord | None = None,
) -> Cuts:
    """The cut sizes of a school, on the ruler's step.

    Raises ``NoMarginGiven`` when the school is one's own margin and none is given, ``RecordsTooFew``
    when it is one's records and there are none.
    """
    bare = method.minimum_cuts(spec, allowance, take_up)
    match school:
        case School.EXACT:
            wanted = bare
        case School.RECORDS:
            return record_cuts(method, spec, allowance, record, step)
        case School.OWN_MARGIN:
            if own_margin is None or own_margin < ZERO:
                raise NoMarginGiven("Say how much should come off each side, such as 1/16.", field="own_margin")
            wanted = method.minimum_cuts(spec, allowance, take_up, own_margin)
        case _:
            rule = method.thumb_cuts(spec, allowance, 1 if school is School.LITTLE else 2)
            wanted = Cuts((name, max(size, rule[name])) for name, size in bare.items())
    return rounded(method, spec, wanted, allowance, take_up, step)
