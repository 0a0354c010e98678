"""The Lantern Deck set: what the demo holds. Readings come out of a hidden truth, drawn once and written down here."""

from __future__ import annotations

from dataclasses import dataclass, field

__all__ = [
    "DUE",
    "FREE",
    "LOG",
    "MACHINES",
    "PROJECTS",
    "SHELF",
    "TIMES",
    "DemoEntry",
    "DemoMachine",
    "DemoProject",
    "DemoReading",
    "DemoTest",
    "DemoTime",
]


@dataclass(frozen=True, slots=True)
class DemoReading:
    """``where`` holds its other fields."""

    kind: str
    value: str
    where: dict[str, object] = field(default_factory=dict)
    note: str = ""


@dataclass(frozen=True, slots=True)
class DemoUnit:
    kind: str
    choices: dict[str, object]
    readings: tuple[DemoReading, ...] = ()


@dataclass(frozen=True, slots=True)
class DemoBlock:
    """An arrangement of the library, so large, so many of it; and what was read on the first one sewn."""

    start: str
    finished: str
    count: int
    readings: tuple[DemoReading, ...] = ()


@dataclass(frozen=True, slots=True)
class DemoCloth:
    """Cloth in stock: its fabric's role, kind, size, number and name."""

    role: str
    kind: str
    across: str
    along: str
    count: int = 1
    name: str = ""


@dataclass(frozen=True, slots=True)
class DemoWork:
    """Work under way at one unit or block (``subject`` and its place in the list): lots done as a whole, steps done of the next
    one, and units trimmed."""

    subject: str
    place: int
    lots: int
    steps: int = 0
    trimmed: int = 0


@dataclass(frozen=True, slots=True)
class DemoProject:
    """``fabrics`` take the roles a, b, c, ... in their order."""

    key: str
    name: str
    fabrics: tuple[tuple[str, str, str], ...]
    units: tuple[DemoUnit, ...]
    blocks: tuple[DemoBlock, ...] = ()
    quilt: dict[str, object] = field(default_factory=dict)
    stock: tuple[DemoCloth, ...] = ()
    work: tuple[DemoWork, ...] = ()
    archived: bool = False
    machine: int = 1
    """The place of the machine it is sewn with."""
    begun: int = 0
    ended: int = 0
    """Days ago."""


@dataclass(frozen=True, slots=True)
class DemoTest:
    """A seam test so many days ago: a strip test with its middle and whole, or raw edge to stitching."""

    ago: int
    read: str
    whole: str = ""


@dataclass(frozen=True, slots=True)
class DemoMachine:
    """A machine set up so many days ago; ``came_from`` is the place of the one before it in the list."""

    ago: int
    fields: dict[str, str | bool]
    tests: tuple[DemoTest, ...]
    came_from: int | None = None


TAR = ("Tar", "#20262e", "dark")
FOG = ("Fog", "#cfd8dc", "light")
BUOY = ("Buoy", "#d8392b", "medium")
SLACKWATER = ("Slackwater", "#2f6f7e", "medium")
OILSKIN = ("Oilskin", "#f0b429", "light")
ROPE = ("Rope", "#c8b48a", "light")


_WIDTHS = ("4", "4", "3 31/32", "4", "4 1/32", "4")
_HALF_SEWN = (
    *(DemoReading("raw_width", v) for v in ("4 1/16", "4 3/32", "4 1/16")),
    *(DemoReading("width", v) for v in _WIDTHS),
    DemoReading("height", "4"),
    DemoReading("row", "10 3/4", {"count": 3}, "top row"),
    DemoReading("row", "10 23/32", {"count": 3}, "bottom row"),
    DemoReading("stitch", "9/32"),
    DemoReading("stitch", "9/32"),
    DemoReading("stitch", "5/16", note="at the bulky crossing"),
)
_FINISHED = (
    *(DemoReading("width", v) for v in ("4 1/2", "4 17/32", "4 1/2", "4 1/2")),
    DemoReading("row", "12 15/32", {"count": 3}),
    DemoReading("row", "12 1/2", {"count": 3}),
    DemoReading("stitch", "1/4"),
    DemoReading("stitch", "1/4"),
    DemoReading("stitch", "7/32"),
    DemoReading("strip_test", "1", {"whole": "3 1/2"}, "before the first seam"),
)
# One hourglass in three, its last seam at two places: from about the seventeenth on it runs 1/32 wider.
_DRIFTING = tuple(
    DemoReading("stitch", value, {"spot": "middle", "lot": "1", "nth": str(1 + 3 * n)})
    for n, both in enumerate((("9/32", "1/4"), ("1/4", "9/32"), ("9/32", "9/32"), ("1/4", "9/32"), ("9/32", "1/4"), ("9/32", "9/32"),
                              ("5/16", "5/16"), ("5/16", "9/32"), ("5/16", "11/32"), ("5/16", "5/16")))
    for value in both
)  # fmt: skip
_IN_LANTERN = {"size_basis": "block", "block_finished": "21/2", "units_across": 3}

# A seam 1/32 too wide and the half-square triangles trimmed 1/16 off the diagonal; nothing yet tells of the latter.
_LANTERN = (
    DemoReading("row", "10 3/4", {"feature": "row 1, top"}),
    DemoReading("row", "10 25/32", {"feature": "row 3, bottom"}),
    DemoReading("column", "10 13/16", {"feature": "column 1, left"}),
    DemoReading("stitch", "9/32", {"seam": "row 1 seam 1", "spot": "middle"}),
    DemoReading("stitch", "5/16", {"seam": "row 2 seam 2", "spot": "middle"}),
    DemoReading("stitch", "9/32", {"spot": "middle"}),
    DemoReading("stitch", "5/16", {"spot": "middle"}),
    DemoReading("width", "3 31/32", {"at_unit": "c1r1"}),
    DemoReading("width", "4", {"at_unit": "c3r1"}),
    DemoReading("height", "3 31/32", {"at_unit": "c1r1"}),
    DemoReading("width", "4", {"batch": "quarter_square_triangle 7/2 x 7/2"}),
    DemoReading("width", "4", {"batch": "quarter_square_triangle 7/2 x 7/2"}),
    DemoReading("width", "4", {"batch": "plain_square 7/2 x 7/2"}),
    DemoReading("cut", "4 15/32", {"batch": "half_square_triangle 7/2 x 7/2"}),
    DemoReading("cut", "5", {"batch": "quarter_square_triangle 7/2 x 7/2"}),
    DemoReading("corner_tip", "1/16", {"feature": "diagonal c2r1 bottom right", "lands": "across"}),
)

PROJECTS = (
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0003",
        "Bollard, two blocks",
        (ROPE, TAR, OILSKIN),
        (
            DemoUnit(
                "strip_split_square",
                {"finished": "4", "strip": "3/4", "part_fabrics": ["a", "a", "b"], "count": 8, "school": "generous"},
                _FINISHED,
            ),
            DemoUnit(
                "corner_triangle",
                {
                    "finished": "4",
                    "corner_0": "1",
                    "corner_1": "0",
                    "corner_2": "2",
                    "corner_3": "0",
                    "part_fabrics": ["a", "c", "c", "b", "c"],
                    "count": 8,
                },
            ),
        ),
        (DemoBlock("bollard", "16", 2),),
        {"columns": 1, "rows": 2},
        archived=True,
        machine=2,
        begun=92,
        ended=76,
    ),
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0002",
        "Wake, five rows",
        (SLACKWATER, FOG),
        (
            DemoUnit("flying_goose", {"finished": "11/2", "height": "11/4", "count": 30}),
            DemoUnit("rectangle", {"finished": "11/2", "height": "11/4", "part_fabrics": ["b"], "count": 10}),
        ),
        (DemoBlock("wake", "5 1/2", 5),),
        {"columns": 5, "rows": 1, "every_second": "half", "borders": [{"width": "2", "fabric": "a"}]},
    ),
    DemoProject(
        "5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001",
        "Lantern, twelve blocks",
        (BUOY, FOG, TAR),
        (
            DemoUnit("half_square_triangle", {**_IN_LANTERN, "count": 48}, _HALF_SEWN),
            DemoUnit(
                "quarter_square_triangle", {**_IN_LANTERN, "part_fabrics": ["c", "b", "a", "b"], "count": 48}, _DRIFTING
            ),
            DemoUnit("plain_square", {**_IN_LANTERN, "part_fabrics": ["a"], "count": 12}),
        ),
        (DemoBlock("lantern", "10 1/2", 12, _LANTERN),),
        {
            "columns": 3,
            "rows": 4,
            "sash": "1 1/2",
            "sash_fabric": "b",
            "cornerstones": True,
            "cornerstone_fabric": "a",
            "borders": [{"width": "1", "fabric": "a"}, {"width": "4", "fabric": "c", "corners": "square"}],
            "binding_fabric": "c",
        },
        (
            DemoCloth("a", "yardage", "40", "63", 1, "from the dry locker"),
            DemoCloth("a", "fat_quarter", "20", "18", 2),
            DemoCloth("b", "yardage", "40", "81"),
            DemoCloth("c", "yardage", "41", "72", 1, "end of the bolt"),
            DemoCloth("c", "scrap", "14", "9", 1, "after the mess curtains"),
        ),
        (DemoWork("units", 0, 1, 4, 12), DemoWork("units", 1, 1, 0, 8), DemoWork("blocks", 0, 1)),
        begun=39,
    ),
)


def _strips(*tests: tuple[int, str, str]) -> tuple[DemoTest, ...]:
    return tuple(DemoTest(*t) for t in tests)


# Seams of 0.262 before the needle was changed and of 0.282 after it, of 0.243 on the other machine; three strips of 1 1/2.
MACHINES = (
    DemoMachine(
        95,
        {"machine": "Galley machine", "foot": "quarter-inch", "plate": "single hole", "needle": "90", "thread": "cotton 50",
         "stitch_length": "2.0", "guide": "1/4"},
        (
            *_strips((95, "31/32", "3 7/16"), (95, "31/32", "3 15/32"), (88, "15/16", "3 13/32"), (81, "31/32", "3 15/32"),
                     (81, "15/16", "3 13/32"), (74, "31/32", "3 7/16"), (67, "31/32", "3 15/32"), (60, "31/32", "3 7/16"),
                     (60, "31/32", "3 15/32"), (53, "1", "3 1/2"), (46, "1", "3 1/2")),
            DemoTest(95, "1/4"), DemoTest(81, "1/4"), DemoTest(74, "1/4"), DemoTest(60, "1/4"), DemoTest(53, "1/4"),
        ),
    ),
    DemoMachine(
        40,
        {"needle": "75"},
        (
            *_strips((40, "15/16", "3 13/32"), (40, "31/32", "3 13/32"), (33, "15/16", "3 11/32"), (33, "15/16", "3 3/8"),
                     (26, "15/16", "3 13/32"), (19, "15/16", "3 13/32"), (19, "15/16", "3 11/32"), (12, "15/16", "3 13/32"),
                     (5, "15/16", "3 3/8"), (5, "15/16", "3 11/32"), (2, "15/16", "3 3/8")),
            DemoTest(40, "9/32"), DemoTest(33, "9/32"), DemoTest(19, "9/32"), DemoTest(12, "9/32"), DemoTest(5, "9/32"),
        ),
        came_from=0,
    ),
    DemoMachine(
        90,
        {"machine": "Wheelhouse machine", "foot": "open", "needle": "80", "thread": "cotton 50", "guide": "1/4", "starch": True},
        (
            *_strips((90, "1 1/32", "3 17/32"), (90, "1", "3 17/32"), (62, "1", "3 17/32"), (62, "1 1/32", "3 1/2"),
                     (30, "1", "3 17/32")),
            DemoTest(90, "7/32"), DemoTest(62, "7/32"), DemoTest(30, "1/4"),
        ),
    ),
)  # fmt: skip

SHELF = (
    {"cloth": "Rope", "kind": "fat_quarter", "across": "20", "across_most": "22", "along": "18", "count": "3"},
    {"cloth": "Oilskin", "kind": "yardage", "across": "40", "along": "27", "name": "left from the first bunk"},
    {"cloth": "Slackwater", "kind": "quarter_triangle", "across": "7", "count": "6", "name": "odd ones from the geese"},
    {"cloth": "Tar", "kind": "half_square", "other": "Fog", "across": "2 1/2", "count": "9"},
)
"""What no project has reserved, as it would be typed."""


@dataclass(frozen=True, slots=True)
class DemoTime:
    """Minutes put down so many days ago for a stage of a project (its place in the list): ``count`` things were done in them."""

    ago: int
    project: int
    stage: str
    minutes: str
    count: int
    note: str = ""


# She cuts and trims a little slower than is usual, and sews a little faster.
TIMES = tuple(
    DemoTime(*t)
    for t in (
        (88, 0, "cut", "34", 90, "strips first"), (86, 0, "sew", "9", 8), (84, 0, "press", "4", 16), (81, 0, "trim", "14", 16, "with the slotted ruler"),
        (79, 0, "join", "41", 2), (38, 2, "cut", "52", 140), (33, 2, "cut", "31", 76), (31, 2, "sew", "11", 32),
        (26, 2, "sew", "6", 16), (25, 2, "press", "5", 16), (24, 2, "trim", "11", 12), (19, 2, "sew", "15", 16, "hourglasses"),
        (18, 2, "press", "5", 16), (12, 2, "trim", "8", 8), (9, 2, "join", "13", 1), (5, 2, "sew", "7", 16),
    )
)  # fmt: skip
FREE = ((1, "19:30", "21:00"), (3, "20:00", "21:30"), (6, "15:00", "17:00"))
"""Day of the week (0 for Monday), from, to: between two watches."""
DUE = 70
"""Days until the twelve Lantern blocks are to be a quilt."""


@dataclass(frozen=True, slots=True)
class DemoEntry:
    """Something in the log so many days ago, of a project and perhaps one of its units (their places in the lists)."""

    ago: int
    kind: str
    text: str
    project: int | None = None
    unit: int | None = None
    fields: dict[str, object] = field(default_factory=dict)


LOG = (
    DemoEntry(93, "note", "The dry locker swept; cloth sorted by colour. No one is to iron on the chart table."),
    DemoEntry(87, "trial", "the generous one", 0, 0, {"cuts": {"square": "4 3/4"}, "width": "4 9/16"}),
    DemoEntry(78, "learned", "Two layers of strips at most: the third one creeps under the ruler.", 0),
    DemoEntry(34, "trial", "first try, guide at 1/4", 2, 0, {"cuts": {"square": "4 3/8"}, "width": "3 15/16"}),
    DemoEntry(33, "trial", "cut larger", 2, 0, {"cuts": {"square": "4 1/2"}, "width": "4 1/16"}),
    DemoEntry(21, "note", "Since the new needle the seams look wider. Strip test before the next lot.", 2),
    DemoEntry(4, "learned", "Hourglasses: measure every third one while sewing, not the pile afterwards.", 2),
)
