"""What every kind of unit answers: its parts, its finished picture, and where its trim target lies in a sewn unit."""

from __future__ import annotations

from abc import ABC, abstractmethod
from dataclasses import dataclass

from ..errors import SizeOutOfRange
from ..geometry.plane import Line, Point, Polygon, meeting, rectangle
from ..geometry.sewing import Piece, SewnSeam
from ..lengths import ZERO, Length, inches
from .design import Design, Part
from .spec import UnitSpec

__all__ = ["Kind", "Mark", "crossing", "long_seams", "part"]


_QUARTER = inches("1/4")


@dataclass(frozen=True, slots=True)
class Mark:
    """A point that tells whether a trimmed unit is true: its name, and its distance to the raw edge named (exact)."""

    name: str
    side: str
    distance: Length


class Kind(ABC):
    """One kind of unit; ``parts`` names its parts in the order of a spec's fabrics."""

    name: str
    title: str
    many: str
    line: str
    """What one of them is called, several, and what it is in a line."""
    parts: tuple[str, ...]
    usual: str
    """The fabric roles of the parts as the unit is most often made."""
    free_height: bool = False
    in_oblong: str = ""
    in_square: str = ""
    """Of plain cloth: the kind it is in a place of that shape, where it is another one."""
    has_strip: bool = False
    has_corners: bool = False

    def check(self, spec: UnitSpec, allowance: Length) -> None:
        """Raises a ``PlanError`` for a unit that cannot be, whichever way it is made."""
        del allowance
        if not self.free_height and not spec.is_square:
            raise SizeOutOfRange("This unit is square: give one finished size.", field="height")

    def default_height(self, width: Length) -> Length:
        """The height that goes with a width when none is given; as high as wide."""
        return width

    def usual_spec(self, width: Length) -> UnitSpec:
        """A unit of this kind to begin with."""
        strip = (width / 7).round_up(_QUARTER) if self.has_strip else ZERO
        corner = (width / 3).round_near(_QUARTER) if self.has_corners else ZERO
        corners = (ZERO, ZERO, corner, ZERO)
        return UnitSpec(self.name, width, self.default_height(width), tuple(self.usual), corners, strip)

    @abstractmethod
    def design(self, spec: UnitSpec) -> Design:
        """The finished picture."""

    @abstractmethod
    def anchor(self, spec: UnitSpec, unit: Piece, allowance: float) -> Point:
        """The middle of the trim target in a sewn unit, found from its seams as a ruler finds it."""

    @abstractmethod
    def marks(self, spec: UnitSpec, allowance: Length) -> tuple[Mark, ...]:
        """Where tips and crossings lie in a unit trimmed true."""

    def box(self, spec: UnitSpec, unit: Piece, allowance: float) -> Polygon:
        """The trim target laid into a sewn unit."""
        width, height = (float(x) + 2 * allowance for x in (spec.width, spec.height))
        x, y = self.anchor(spec, unit, allowance)
        return rectangle(width, height, (x - width / 2, y - height / 2))


def part(spec: UnitSpec, index: int, *corners: Point) -> Part:
    """A part of a design, given by its corners as shares of width and height."""
    width, height = float(spec.width), float(spec.height)
    return Part(tuple((x * width, y * height) for x, y in corners), spec.part_fabrics[index])


def long_seams(unit: Piece) -> list[SewnSeam]:
    """The seams that show, longest first."""

    def length(seam: SewnSeam) -> float:
        (x1, y1), (x2, y2) = seam.start, seam.end
        return -((x2 - x1) ** 2 + (y2 - y1) ** 2)

    return sorted(unit.seams, key=length)


def crossing(unit: Piece) -> Point:
    """Where the longest seam meets the longest one not parallel to it."""
    first, *rest = long_seams(unit)
    for other in rest:
        try:
            return meeting(first.line, Line(other.start, other.end))
        except ZeroDivisionError:
            continue
    (x1, y1), (x2, y2) = first.start, first.end
    return (x1 + x2) / 2, (y1 + y2) / 2
