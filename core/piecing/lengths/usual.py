"""What sizes begin with in either measure: round figures that a ruler of that measure shows.

Nothing is converted: a quilter who measures in millimetres sews 6 mm and cuts to 5 mm, not 6.35 and 3.175.
"""

from __future__ import annotations

from dataclasses import dataclass

from .format import Measure
from .length import Length, inches, mm

__all__ = ["Usual", "finest_mark", "reads_round", "round_size", "usual"]


@dataclass(frozen=True, slots=True)
class Usual:
    """Seam allowance, steps of cutting and of reading, finished unit and block, one part of a block of few, of some and of many
    parts; of a quilt: binding strip as cut, backing beyond each edge, usable width of cloth, what borders are cut longer."""

    seam_allowance: Length
    ruler_step: Length
    reading_step: Length
    unit: Length
    block: Length
    parts: tuple[Length, Length, Length]
    binding_strip: Length
    backing_over: Length
    usable: Length
    oversize: Length


_INCHES = Usual(
    inches("1/4"),
    inches("1/8"),
    inches("1/32"),
    inches("7/2"),
    inches("21/2"),
    (inches("7/2"), inches("5/2"), inches("3/2")),
    inches("9/4"),
    inches(4),
    inches(40),
    inches("1/2"),
)
_MILLIMETRES = Usual(mm(6), mm(5), mm(1), mm(90), mm(270), (mm(90), mm(60), mm(40)), mm(60), mm(100), mm(1000), mm(10))


def usual(measure: Measure) -> Usual:
    """What is usual in a measure."""
    return _MILLIMETRES if measure is Measure.MILLIMETRES else _INCHES


def finest_mark(step: Length) -> Length:
    """The finest mark that is cut to or read: a millimetre on a ruler stepped in millimetres, else a sixteenth."""
    one = mm(1)
    return one if step.on_step(one) else min(step, inches("1/16"))


def round_size(size: Length, measure: Measure) -> Length:
    """The nearest size that is round in a measure: fives of millimetres, or quarters of an inch; at least one of them."""
    step = mm(5) if measure is Measure.MILLIMETRES else inches("1/4")
    return max(step, size.round_near(step))


def reads_round(size: Length, measure: Measure) -> bool:
    """Whether a size reads without a fraction of a millimetre, or in sixteenths of an inch."""
    return size.on_step(mm(1) if measure is Measure.MILLIMETRES else inches("1/16"))
