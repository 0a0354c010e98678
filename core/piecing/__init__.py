"""The craft of cutting, sewing, trimming and mending pieced units, as pure computation.

No Django, no HTTP, no files. Start at ``planning.plan`` (what to cut), ``trimming.recipes`` (how to trim),
``ladder.ladders`` (the sizes on one scale) and ``diagnosis.infer`` and ``diagnosis.judge`` (what the readings say).
"""

from .diagnosis import Inference, Reading, ReadingKind, Verdict, infer, judge
from .errors import PiecingError
from .ladder import ladders
from .lengths import Length, Measure, Style, parse_length
from .oversize import QuilterRecord, School
from .pictures import pictures
from .planning import Choices, UnitPlan, offers, plan
from .seams import Seam, StripTest
from .trimming import expectation, recipes
from .units import UnitSpec

__all__ = [
    "Choices",
    "Inference",
    "Length",
    "Measure",
    "PiecingError",
    "QuilterRecord",
    "Reading",
    "ReadingKind",
    "School",
    "Seam",
    "StripTest",
    "Style",
    "UnitPlan",
    "UnitSpec",
    "Verdict",
    "expectation",
    "infer",
    "judge",
    "ladders",
    "offers",
    "parse_length",
    "pictures",
    "plan",
    "recipes",
]
