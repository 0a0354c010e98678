"""The finished picture of a unit, and whether it has a hand.

A unit has a hand when its picture cannot be turned into its mirror image. Source: docs/theory, section 4.
"""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

from ..geometry.plane import Point, Polygon, centroid, rotated

__all__ = ["Design", "Part", "has_hand"]


@dataclass(frozen=True, slots=True)
class Part:
    """One part of the finished picture: its outline in finished inches from the lower left corner, and its fabric role."""

    outline: Polygon
    role: str


@dataclass(frozen=True, slots=True)
class Design:
    width: float
    height: float
    parts: tuple[Part, ...]

    @property
    def quarter_turns(self) -> tuple[int, ...]:
        """The turns, in degrees, that lay the outline on itself."""
        return (0, 90, 180, 270) if abs(self.width - self.height) < 1e-9 else (0, 180)

    def turned(self, degrees: int) -> Design:
        """Turned about its middle by so many degrees, counterclockwise."""
        about = (self.width / 2, self.height / 2)
        return self._mapped(lambda p: rotated(p, degrees, about))

    def mirrored(self) -> Design:
        """Left and right exchanged."""
        return self._mapped(lambda p: (self.width - p[0], p[1]))

    def _mapped(self, point: object) -> Design:
        moved = tuple(Part(tuple(point(q) for q in p.outline), p.role) for p in self.parts)  # type: ignore[operator]
        return Design(self.width, self.height, moved)

    @property
    def probes(self) -> tuple[tuple[Point, str], ...]:
        """A point in the middle of each part, and the role one should see there."""
        return tuple((centroid(p.outline), p.role) for p in self.parts)

    def looks_like(self, other: Design) -> bool:
        """Whether nobody could tell the two apart by their parts and fabrics."""
        return _signature(self.parts) == _signature(other.parts)


def _signature(parts: Iterable[Part]) -> frozenset[tuple[str, frozenset[tuple[int, int]]]]:
    return frozenset((p.role, frozenset((round(x * 4096), round(y * 4096)) for x, y in p.outline)) for p in parts)


def has_hand(design: Design) -> bool:
    """Whether no turn of the mirror image gives the picture back."""
    mirror = design.mirrored()
    return not any(design.looks_like(mirror.turned(t)) for t in design.quarter_turns)
