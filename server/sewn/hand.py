"""A diagnosis without a project: sizes and readings typed by hand, nothing kept."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from common.problems import Refused
from common.readers import length_reader
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style, inches, mm
from piecing.planning import check_allowance, check_finished
from piecing.diagnosis.readings import Reading
from piecing.units import UnitSpec, kind_of

from .selectors import SewnSheet, by_hand
from .translate import typed_reading

__all__ = ["by_hand_sheet"]


def by_hand_sheet(body: Mapping[str, Any], style: Style) -> SewnSheet:
    """Every size and reading that cannot be read is refused at once, each by its field."""
    measure = style.measure
    refusals: list[PiecingError] = []
    sizes: dict[str, Length] = {}
    for field in ("finished", "seam_allowance"):
        try:
            sizes[field] = length_reader(measure)(body[field])
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    readings: list[Reading] = []
    for n, typed in enumerate(body["readings"]):
        try:
            readings.append(typed_reading({"batch": 0, **typed}, measure))
        except PiecingError as refusal:
            # Which of the readings, not which of its fields: the page shows it beside that line.
            refusal.field = f"readings.{n}"
            refusals.append(refusal)
    if refusals:
        raise Refused(refusals, style)
    resolution = mm(1) / 2 if measure is Measure.MILLIMETRES else inches("1/32")
    try:
        kind = kind_of(body["kind"])
        check_allowance(sizes["seam_allowance"])
        check_finished(UnitSpec(kind.name, sizes["finished"], sizes["finished"], tuple(kind.usual)))
        spec: UnitSpec = kind.usual_spec(sizes["finished"])
        check_finished(spec)
        kind.check(spec, sizes["seam_allowance"])
        return by_hand(spec, body["units"], sizes["seam_allowance"], resolution, readings, body["factor"])
    except PiecingError as refusal:
        raise Refused([refusal.at("finished")], style) from None
