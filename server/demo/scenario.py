"""The Lantern Deck set: what the demo holds. Readings come out of a hidden truth, drawn once and written down here."""

from __future__ import annotations

from dataclasses import dataclass, field

__all__ = ["PROJECTS", "DemoProject", "DemoReading"]


@dataclass(frozen=True, slots=True)
class DemoReading:
    kind: str
    value: str
    row_units: int | None = None
    whole: str = ""
    note: str = ""


@dataclass(frozen=True, slots=True)
class DemoProject:
    key: str
    name: str
    fabrics: tuple[tuple[str, str, str, str], ...]
    unit: dict[str, object]
    readings: tuple[DemoReading, ...] = field(default=())
    archived: bool = False


TAR = ("Tar", "#20262e", "dark")
FOG = ("Fog", "#cfd8dc", "light")
BUOY = ("Buoy", "#d8392b", "medium")
SLACKWATER = ("Slackwater", "#2f6f7e", "medium")
OILSKIN = ("Oilskin", "#f0b429", "light")
ROPE = ("Rope", "#c8b48a", "light")


def _two(a: tuple[str, str, str], b: tuple[str, str, str]) -> tuple[tuple[str, str, str, str], ...]:
    return (("a", *a), ("b", *b))


_WIDTHS = ("4", "4", "3 31/32", "4", "4 1/32", "4")
_HALF_SEWN = (
    *(DemoReading("raw_size", v) for v in ("4 1/16", "4 3/32", "4 1/16")),
    *(DemoReading("unit_width", v) for v in _WIDTHS),
    DemoReading("unit_height", "4"),
    DemoReading("row_length", "10 3/4", 3, note="top row"),
    DemoReading("row_length", "10 23/32", 3, note="bottom row"),
    DemoReading("stitch_distance", "9/32"),
    DemoReading("stitch_distance", "9/32"),
    DemoReading("stitch_distance", "5/16", note="at the bulky crossing"),
)
_FINISHED = (
    *(DemoReading("unit_width", v) for v in ("4", "4 1/32", "4", "4")),
    DemoReading("row_length", "10 31/32", 3),
    DemoReading("row_length", "11", 3),
    DemoReading("stitch_distance", "1/4"),
    DemoReading("stitch_distance", "1/4"),
    DemoReading("stitch_distance", "7/32"),
    DemoReading("strip_test", "1", whole="3 1/2", note="before the first seam"),
)

PROJECTS = (
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0003",
        "Lantern, trial block",
        _two(TAR, OILSKIN),
        {"finished": "7/2", "count": 4, "school": "generous"},
        _FINISHED,
        archived=True,
    ),
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0002",
        "Wake, corner pieces",
        _two(SLACKWATER, FOG),
        {"finished": "11/4", "count": 30, "school": "little"},
    ),
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001",
        "Lantern, twelve blocks",
        _two(BUOY, FOG),
        {"finished": "7/2", "size_basis": "block", "block_finished": "21/2", "units_across": 3, "count": 48},
        _HALF_SEWN,
    ),
)
