"""The craft of cutting, sewing, trimming and mending pieced units, as pure computation.

No Django, no HTTP, no files. Each room has a public face of its own: ``lengths``, ``units``, ``planning`` (what to cut),
``trimming`` (how to trim), ``blocks`` and ``quilts`` (what they need), ``joining`` (order, seams, pressing), ``cutting`` (from
which cloth), ``diagnosis`` (what readings say), ``drawings``, ``overview``. The names here are where to start.
"""

from .blocks import Pattern, layout_of, pattern_data, pattern_from
from .cutting import Cloth, CuttingPlan, WantedPiece, cutting_plan
from .diagnosis import Inference, Reading, ReadingKind, Verdict, infer, judge
from .drawings import ladders, pictures
from .errors import PiecingError
from .lengths import Length, Measure, Style, parse_length
from .messages import Message
from .planning import Choices, QuilterRecord, School, Seam, StripTest, UnitPlan, offers, plan
from .quilts import QuiltChoices, quilt_sizes
from .trimming import expectation, recipes
from .units import UnitSpec

__all__ = [
    "Choices",
    "Cloth",
    "CuttingPlan",
    "Inference",
    "Length",
    "Measure",
    "Message",
    "Pattern",
    "PiecingError",
    "QuiltChoices",
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
    "WantedPiece",
    "cutting_plan",
    "expectation",
    "infer",
    "judge",
    "ladders",
    "layout_of",
    "offers",
    "parse_length",
    "pattern_data",
    "pattern_from",
    "pictures",
    "plan",
    "quilt_sizes",
    "recipes",
]
