"""The plan of choices that may not be saved yet, and the recipes of a saved unit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from common.problems import Refused
from piecing.errors import PiecingError
from piecing.ladder import Ladder, ladder
from piecing.lengths import Measure, Style
from piecing.oversize import School
from piecing.planning import Choices, SchoolOffer, SeamCost, UnitPlan, finished_unit, offers, plan, seam_cost
from piecing.units.pictures import UnitPictures, pictures
from projects.readers import project_readers, unit_readers
from readings.selectors import record_for
from workrooms.models import Workroom

__all__ = ["Planned", "plan_choices", "read_choices"]

_FIELDS = ("seam_allowance", "stitch", "fold", "ruler_step", "finished", "block_finished", "units_across", "count")
_ALSO = ("school", "own_margin", "cut", "size_basis")


@dataclass(frozen=True, slots=True)
class Planned:
    """``plan``, ``ladder`` and ``pictures`` are None when the choices are refused; ``refusal`` says why."""

    plan: UnitPlan | None
    refusal: PiecingError | None
    offers: tuple[SchoolOffer, ...]
    ladder: Ladder | None
    pictures: UnitPictures | None
    seam_cost: SeamCost


def read_choices(typed: Mapping[str, Any]) -> tuple[Choices, int]:
    """Typed fields to core choices and the units across; every field that cannot be read is refused at once."""
    measure = Measure(typed["measure"])
    readers = project_readers(measure) | unit_readers(measure)
    unused = "finished" if typed["size_basis"] == "block" else "block_finished"
    read: dict[str, Any] = {}
    refusals: list[PiecingError] = []
    for field in (*_FIELDS, *_ALSO):
        if field == unused:
            continue
        try:
            read[field] = readers[field](typed.get(field))
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    if refusals:
        raise Refused(refusals, Style(measure))
    across = read.pop("units_across")
    if read.pop("size_basis") == "block":
        read["finished"] = finished_unit(read.pop("block_finished"), across)
    return Choices(**{**read, "school": School(read["school"])}), across


def plan_choices(room: Workroom, typed: Mapping[str, Any]) -> Planned:
    """Everything the Plan screen shows. Raises ``Refused`` when a field cannot be read or no school can plan it."""
    style = Style(Measure(typed["measure"]))
    try:
        choices, across = read_choices(typed)
        _ = choices.seam
    except PiecingError as misfit:
        raise Refused([misfit], style) from None
    record = record_for(room, choices.seam_allowance)
    side_by_side = offers(choices, record)
    planned, refusal = _try(choices, record)
    if planned is None and all(o.plan is None for o in side_by_side):
        raise Refused([refusal] if refusal else [], style)
    return Planned(
        planned,
        refusal,
        side_by_side,
        ladder(planned, style.measure) if planned else None,
        pictures(planned) if planned else None,
        seam_cost(across, style.hair),
    )


def _try(choices: Choices, record: Any) -> tuple[UnitPlan | None, PiecingError | None]:
    try:
        return plan(choices, record), None
    except PiecingError as refusal:
        return None, refusal
