"""What the fields of projects, units and fabrics take."""

from __future__ import annotations

import re
from typing import Any

from api.patches import Reader
from api.photos import is_photo
from api.readers import (
    allowance_reader,
    cuts_reader,
    length_reader,
    maybe_length_reader,
    name_reader,
    one_of_reader,
    part_fabrics_reader,
    step_reader,
    whole_reader,
)
from piecing.errors import UnknownChoice
from piecing.lengths import Measure
from piecing.planning.unit_plan import MOST_UNITS
from piecing.units import KINDS, METHODS
from workrooms.models import MEASURES

from .models import DIRECTIONS, SCHOOLS, SIZE_BASES, VALUES

SEAM_FIELDS = ("seam_allowance", "stitch", "fold", "ruler_step")
"""What a project says of every seam and cut in it."""

__all__ = ["SEAM_FIELDS", "fabric_readers", "project_readers", "unit_readers"]


def _colour(value: Any) -> str:
    if not re.fullmatch(r"#[0-9a-fA-F]{6}", str(value)):
        raise UnknownChoice("A colour is written like #1d4e89.")
    return str(value).lower()


_LARGEST_SWATCH = 60_000
_WIDEST_SWATCH = 600


def _swatch(value: Any) -> str:
    """A small photo of the cloth as a data address; empty for none."""
    text = value if isinstance(value, str) else "?"
    if text and not is_photo(text, _LARGEST_SWATCH, _WIDEST_SWATCH):
        raise UnknownChoice("A swatch is a small photo, JPEG, PNG or WebP. Choose another one.")
    return text


def project_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "name": name_reader(120),
        "measure": one_of_reader(MEASURES, "measure"),
        "seam_allowance": allowance_reader(measure),
        "stitch": maybe_length_reader(measure),
        "fold": length_reader(measure),
        "ruler_step": step_reader(measure),
        "reading_step": step_reader(measure),
    }


def unit_readers(measure: Measure) -> dict[str, Reader]:
    return {
        "kind": one_of_reader(list(KINDS), "kind of unit"),
        "method": Reader(one_of_reader(sorted({m.name for m in METHODS}), "way of making a unit").read),
        "height": maybe_length_reader(measure),
        "part_fabrics": part_fabrics_reader,
        **{f"corner_{n}": length_reader(measure) for n in range(4)},
        "strip": length_reader(measure),
        "size_basis": one_of_reader(SIZE_BASES, "way of giving the size"),
        "finished": length_reader(measure),
        "block_finished": length_reader(measure),
        "units_across": whole_reader(100, "Units across"),
        "count": whole_reader(MOST_UNITS, "The number of units", least=0),
        "mirrored": whole_reader(MOST_UNITS, "The number of mirrored units", least=0),
        "ready": whole_reader(MOST_UNITS, "The number of units there already", least=0),
        "school": one_of_reader(SCHOOLS, "school"),
        "own_margin": maybe_length_reader(measure),
        "cuts": cuts_reader(measure),
    }


def fabric_readers() -> dict[str, Reader]:
    return {
        "name": name_reader(80),
        "colour": Reader(_colour),
        "value": one_of_reader(VALUES, "value"),
        "direction": one_of_reader(DIRECTIONS, "direction of a print"),
        "swatch": Reader(_swatch),
    }
