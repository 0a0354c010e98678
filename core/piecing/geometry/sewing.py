"""Cut, lay together, sew, open with a fold, trim: the craft's own operations on flat cloth.

A ``Piece`` is what lies on the table, right side up: patches one sees (``faces``) and cloth folded
away beneath (``under``). ``sew`` takes two pieces already laid right sides together, the upper one
face down and hence drawn mirrored, and opens them along the fold. Source: docs/theory.md, section 3.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace

from .plane import Line, Point, Polygon, area, bounds, clip, mirror_all, rectangle, shift, turn

__all__ = ["Patch", "Piece", "SewnSeam", "cut", "lay_face_down", "sew", "square", "trim"]

_ON_FOLD = 1e-7
"""Inches; corners made by clipping lie this near to the line that made them."""


@dataclass(frozen=True, slots=True)
class Patch:
    """One convex bit of one fabric: its outline, and the direction of its straight grain."""

    outline: Polygon
    fabric: str
    grain: Point = (1.0, 0.0)


@dataclass(frozen=True, slots=True)
class SewnSeam:
    """Where a seam shows on the right side: the fold line, from its first to its last point."""

    start: Point
    end: Point


@dataclass(frozen=True, slots=True)
class Piece:
    faces: tuple[Patch, ...]
    under: tuple[Patch, ...] = ()
    seams: tuple[SewnSeam, ...] = ()

    @property
    def cloth(self) -> float:
        """Square inches of fabric in it, seen and folded away."""
        return sum(abs(area(p.outline)) for p in self.faces + self.under)

    @property
    def extent(self) -> tuple[float, float, float, float]:
        """Left, bottom, right, top of what one sees."""
        return bounds([p.outline for p in self.faces])

    def mapped(self, outline: Callable[[Polygon], Polygon], point: Callable[[Point], Point]) -> Piece:
        def patches(group: tuple[Patch, ...]) -> tuple[Patch, ...]:
            origin = point((0.0, 0.0))
            moved = []
            for p in group:
                tip = point(p.grain)
                moved.append(replace(p, outline=outline(p.outline), grain=(tip[0] - origin[0], tip[1] - origin[1])))
            return tuple(moved)

        seams = tuple(SewnSeam(point(s.start), point(s.end)) for s in self.seams)
        return Piece(patches(self.faces), patches(self.under), seams)

    def shifted(self, dx: float, dy: float) -> Piece:
        return self.mapped(lambda o: shift(o, dx, dy), lambda p: (p[0] + dx, p[1] + dy))

    def turned(self, quarter_turns: int) -> Piece:
        left, bottom, right, top = self.extent
        about = ((left + right) / 2, (bottom + top) / 2)
        return self.mapped(lambda o: turn(o, quarter_turns, about), lambda p: turn((p,), quarter_turns, about)[0])

    def at_origin(self) -> Piece:
        left, bottom, _, _ = self.extent
        return self.shifted(-left, -bottom)


def square(side: float, fabric: str) -> Piece:
    """A square cut on the straight grain, its corner at the origin."""
    return Piece((Patch(rectangle(side, side), fabric),))


def lay_face_down(piece: Piece, over: Line) -> Piece:
    """The piece turned over along ``over``: as it lies on another one, right sides together."""
    return piece.mapped(lambda o: mirror_all(o, over), over.mirror)


def _kept(patches: tuple[Patch, ...], line: Line) -> tuple[Patch, ...]:
    clipped = (replace(p, outline=clip(p.outline, line)) for p in patches)
    return tuple(p for p in clipped if p.outline)


def _seams_kept(seams: tuple[SewnSeam, ...], line: Line) -> tuple[SewnSeam, ...]:
    out = []
    for s in seams:
        a, b = line.side(s.start), line.side(s.end)
        if a <= 0 and b <= 0:
            continue
        meet = a / (a - b) if (a < 0) != (b < 0) else 0.0
        at = (s.start[0] + meet * (s.end[0] - s.start[0]), s.start[1] + meet * (s.end[1] - s.start[1]))
        out.append(SewnSeam(at if a < 0 else s.start, at if b < 0 else s.end))
    return tuple(out)


def _left_of(piece: Piece, line: Line) -> Piece:
    return Piece(_kept(piece.faces, line), _kept(piece.under, line), _seams_kept(piece.seams, line))


def cut(piece: Piece, along: Line) -> tuple[Piece, Piece]:
    """What lies left and right of one straight cut."""
    return _left_of(piece, along), _left_of(piece, along.reversed())


def sew(lower: Piece, upper: Piece, raw_edge: Line, take_up: float, take_up_at_end: float | None = None) -> Piece:
    """Sew two pieces that lie right sides together, then open them.

    ``raw_edge`` runs with the cloth on its left; the fold comes to lie ``take_up`` inches inside it
    (a different amount at its end, when given). Everything between fold and raw edge goes under.
    """
    fold = raw_edge.shifted(take_up, take_up_at_end)
    stays, opens = _left_of(lower, fold), lay_face_down(_left_of(upper, fold), fold)
    away = fold.reversed()
    hidden = (lower, upper)
    allowance = tuple(p for piece in hidden for p in _kept(piece.faces + piece.under, away))
    return Piece(
        stays.faces + opens.faces,
        stays.under + opens.under + allowance,
        (*stays.seams, *opens.seams, _seam_along(fold, stays)),
    )


def _seam_along(fold: Line, piece: Piece) -> SewnSeam:
    """The stretch of ``fold`` that the visible cloth really touches."""
    dx, dy = fold.direction
    on = [p for patch in piece.faces for p in patch.outline if abs(fold.side(p)) < _ON_FOLD]
    on.sort(key=lambda p: p[0] * dx + p[1] * dy)
    return SewnSeam(on[0], on[-1])


def trim(piece: Piece, *lines: Line) -> tuple[Piece, float]:
    """Cut away what lies right of each line; returns the rest and the square inches that fell off."""
    rest = piece
    for line in lines:
        rest = _left_of(rest, line)
    return rest, piece.cloth - rest.cloth
