"""A diagnosis without a project: sizes and readings typed by hand, nothing kept."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from api.problems import Refused
from api.readers import length_reader
from measuring.translate import typed_readers
from piecing.diagnosis.reading_kinds import PLAIN, ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.errors import PiecingError
from piecing.lengths import Length, Measure, Style, inches, mm
from piecing.planning.checks import check_allowance, check_finished
from piecing.units import UnitSpec, kind_of

from .selectors import DiagnosisSheet, by_hand
from .subjects import refused_by_number

__all__ = ["by_hand_sheet"]


def by_hand_sheet(body: Mapping[str, Any], style: Style) -> DiagnosisSheet:
    """Every size and reading that cannot be read is refused at once, each by its field."""
    measure = style.measure
    refusals: list[PiecingError] = []
    sizes: dict[str, Length] = {}
    for field in ("finished", "seam_allowance"):
        try:
            sizes[field] = length_reader(measure)(body[field])
        except PiecingError as refusal:
            refusals.append(refusal.at(field))
    typed: list[Reading] = []
    for n, line in enumerate(body["readings"]):
        try:
            with refused_by_number(n):
                typed.append(_typed_reading(line, measure, body["units"]))
        except PiecingError as refusal:
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
        key = f"{spec.kind} {spec.width.rational} x {spec.height.rational}"
        placed = [_of_batch(r, key) for r in typed]
        return by_hand(spec, body["units"], sizes["seam_allowance"], resolution, placed, body["factor"])
    except PiecingError as refusal:
        raise Refused([refusal.at("finished")], style) from None


def _typed_reading(line: Mapping[str, Any], measure: Measure, units: int) -> Reading:
    """One reading as typed, of no unit in particular. Raises core refusals."""
    wanted = {"kind": None, **line}
    read = {f: reader(wanted[f]) for f, reader in typed_readers(measure).items() if f in wanted}
    kind = ReadingKind(read.pop("kind"))
    value = None if kind in PLAIN else read.pop("value", None)
    read.pop("value", None)
    if kind is ReadingKind.ROW and not read.get("count") and not read.get("feature"):
        read["count"] = units
    return Reading(kind, value, unit=read.pop("at_unit", ""), **read)


def _of_batch(reading: Reading, key: str) -> Reading:
    return reading if reading.unit or reading.feature else replace(reading, batch=key)
