"""The plan of choices that may not be saved yet, the comparison of every way, and the recipes of a saved unit."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from api.problems import Refused
from measuring.models import ReadingRow
from measuring.selectors import plan_or_refuse, record_for
from piecing.drawings.ladder import Ladder, ladders
from piecing.drawings.unit import UnitPictures, design_picture, pictures
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style, hair
from piecing.messages import Message
from piecing.overview.compare import Comparison, compare
from piecing.planning.holdings import parse_holdings
from piecing.planning.on_the_way import bias_said, laid_together, sizes_between
from piecing.planning.plan import SchoolOffer, finished_unit, offers, plan
from piecing.planning.room import QuilterRecord
from piecing.planning.schools import School
from piecing.planning.seam_cost import SeamCost, seam_cost
from piecing.planning.unit_plan import Choices, UnitPlan, ready_said, still_to_make
from piecing.trimming import Cutter, Expectation, Recipe, expectation, margin_read, recipes, trimmed_plan
from piecing.units import UnitSpec, kind_of
from projects.models import PlannedUnit
from projects.readers import SEAM_FIELDS, project_readers, unit_readers
from workrooms.models import Workroom
from workrooms.selectors import owned_rulers

__all__ = ["Planned", "Trim", "compare_choices", "plan_choices", "read_choices", "trim_of"]

_SHAPE_FIELDS = ("finished", "block_finished", "height", "strip", *(f"corner_{n}" for n in range(4)))
_UNIT_FIELDS = tuple(f for f in unit_readers(Measure.INCHES) if f not in _SHAPE_FIELDS)


@dataclass(frozen=True, slots=True)
class Planned:
    """``plan``, ``ladders`` and ``pictures`` are None when the choices are refused; ``refusal`` says why."""

    plan: UnitPlan | None
    refusal: PiecingError | None
    offers: tuple[SchoolOffer, ...]
    ladders: tuple[Ladder, ...]
    pictures: UnitPictures | None
    design: Any
    seam_cost: SeamCost
    on_the_way: tuple[Message, ...]


def read_choices(typed: Mapping[str, Any]) -> tuple[Choices, int, Message | None]:
    """Typed fields to core choices, the units across, and what is there already; every field that cannot be read is refused at
    once."""
    measure = Measure(typed["measure"])
    readers = project_readers(measure) | unit_readers(measure)
    read: dict[str, Any] = {}
    refusals: list[PiecingError] = []
    for field in (*SEAM_FIELDS, *_UNIT_FIELDS, *_shape_fields(typed)):
        try:
            read[field] = readers[field](typed.get(field))
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    if refusals:
        raise Refused(refusals, Style(measure))
    choices = {f: read[f] for f in (*SEAM_FIELDS, "own_margin", "cuts", "method")}
    count, mirrored = still_to_make(read["count"], read["mirrored"], read["ready"])
    if not count + mirrored:
        count, mirrored = read["count"], read["mirrored"]
    said = ready_said(read["count"] + read["mirrored"], read["ready"])
    made = Choices(spec=_spec(read), school=School(read["school"]), count=count, mirrored=mirrored, **choices)
    return made, read["units_across"], said


def _shape_fields(typed: Mapping[str, Any]) -> tuple[str, ...]:
    """Only the fields that this kind of unit has are read; what stands in the others is kept for later."""
    size = "block_finished" if typed["size_basis"] == "block" else "finished"
    kind = kind_of(typed["kind"])
    corners = tuple(f"corner_{n}" for n in range(4)) if kind.has_corners else ()
    strip = ("strip",) if kind.has_strip else ()
    height = ("height",) if kind.free_height else ()
    return (size, *height, *corners, *strip)


def _spec(read: Mapping[str, Any]) -> UnitSpec:
    kind = kind_of(read["kind"])
    width: Length = (
        read["finished"] if "finished" in read else finished_unit(read["block_finished"], read["units_across"])
    )
    if len(read["part_fabrics"]) != len(kind.parts):
        usual = kind.usual_spec(width)
        read = {**read, "part_fabrics": usual.part_fabrics}
    zero = Length.of(0)
    corners = tuple(read.get(f"corner_{n}", zero) for n in range(4))
    height = read.get("height") or kind.default_height(width)
    return UnitSpec(kind.name, width, height, tuple(read["part_fabrics"]), corners, read.get("strip", zero))


def _read(typed: Mapping[str, Any]) -> tuple[Choices, int, Message | None, Style]:
    style = Style(Measure(typed["measure"]))
    try:
        choices, across, there = read_choices(typed)
        _ = choices.seam
    except PiecingError as misfit:
        raise Refused([misfit], style) from None
    return choices, across, there, style


def plan_choices(room: Workroom, typed: Mapping[str, Any]) -> Planned:
    """Everything the Plan screen shows. Raises ``Refused`` when a field cannot be read or no school can plan it."""
    choices, across, there, style = _read(typed)
    record = record_for(room, choices.seam_allowance)
    side_by_side = offers(choices, record)
    planned, refusal = _try(choices, record)
    if planned is None and all(o.plan is None for o in side_by_side):
        raise Refused([refusal] if refusal else [], style)
    spec = choices.spec
    return Planned(
        planned,
        refusal,
        side_by_side,
        ladders(planned, style.measure) if planned else (),
        pictures(planned) if planned else None,
        design_picture(kind_of(spec.kind).design(spec), Message("The finished unit.")),
        seam_cost(across, hair(style.measure)),
        (
            *([there] if there else []),
            *laid_together(planned, typed["names"]),
            *bias_said(planned),
            *sizes_between(planned),
        )
        if planned
        else (),
    )


def _try(choices: Choices, record: QuilterRecord | None) -> tuple[UnitPlan | None, PiecingError | None]:
    try:
        return plan(choices, record), None
    except PiecingError as refusal:
        return None, refusal


def compare_choices(room: Workroom, typed: Mapping[str, Any], at_hand: str) -> Comparison:
    """Every method and school for these choices, with the rulers owned and the pieces at hand."""
    choices, _, _, style = _read(typed)
    try:
        holdings = parse_holdings(at_hand, style.measure)
        record = record_for(room, choices.seam_allowance)
        return compare(choices, rulers=owned_rulers(room), holdings=holdings, record=record)
    except PiecingError as refusal:
        raise Refused([refusal.at("at_hand")], style) from None


@dataclass(frozen=True, slots=True)
class Trim:
    """``margin_read`` is what raw units measured so far leave a side, from ``raw_readings`` of them; ``on_the_way`` is what is
    trimmed before."""

    shown: UnitPlan
    recipes: tuple[Recipe, ...]
    expectation: Expectation
    margin_read: Length | None
    raw_readings: int
    cutter: str
    on_the_way: tuple[Message, ...]


def trim_of(unit: PlannedUnit) -> Trim:
    """The recipes of a saved unit for the rulers owned and the hand that cuts."""
    room = unit.project.workroom
    planned = plan_or_refuse(unit)
    read = ReadingRow.objects.filter(unit=unit, kind="raw_width", deleted_at=None).values_list("value", flat=True)
    raw = [value for value in read if value is not None]
    return Trim(
        trimmed_plan(planned),
        recipes(planned, owned_rulers(room), Cutter(room.cutter)),
        expectation(planned),
        margin_read(planned, raw),
        len(raw),
        room.cutter,
        (*bias_said(planned), *sizes_between(planned)),
    )
