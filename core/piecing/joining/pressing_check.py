"""Whether a pressing nests, found again from nothing but where seams lie and where their allowances point.

Shares no code with the model in ``pressing``: seams are complex numbers here, and what meets what is read off the
drawing. Source: docs/theory, section 12.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Drawn", "PressingVerdict", "checked"]

_NEAR = 1e-5


@dataclass(frozen=True, slots=True)
class Drawn:
    """A seam as drawn: its ends, where its allowance points at either of them (None when open), and when it was sewn."""

    start: complex
    end: complex
    at_start: complex | None
    at_end: complex | None
    sewn: int


@dataclass(frozen=True, slots=True)
class PressingVerdict:
    """``loose``: points where two seams that go on into each other point the same way, or one lies open."""

    nested: int
    loose: tuple[complex, ...]


def checked(seams: Sequence[Drawn]) -> PressingVerdict:
    """Look at every seam end that lies on a later seam, and at what comes to the same point from beyond."""
    nested, loose = 0, []
    for across in seams:
        along = (across.end - across.start) / abs(across.end - across.start)
        ends: list[End] = []
        for s in seams:
            if s.sewn < across.sewn:
                for tip, tail, points in ((s.start, s.end, s.at_start), (s.end, s.start, s.at_end)):
                    place = (tip - across.start) / along
                    if abs(place.imag) < _NEAR and _NEAR < place.real < abs(across.end - across.start) - _NEAR:
                        heading = (tail - tip) / along
                        if abs(heading.imag) > _NEAR:
                            ends.append((tip, heading / abs(heading), points))
        for tip, heading, points in ends:
            if heading.imag < 0:
                continue
            beyond = _beyond(tip, heading, ends)
            if not beyond:
                continue
            if _opposed(points, beyond[0], along):
                nested += 1
            else:
                loose.append(tip)
    return PressingVerdict(nested, tuple(loose))


End = tuple[complex, complex, complex | None]
"""Where a seam ends, where it comes from, where its allowance points."""


def _beyond(tip: complex, heading: complex, ends: Sequence[End]) -> list[complex | None]:
    """The allowance of the seam going straight on from here; or, if no seam does and none other is its straight line, of
    its reflection. Empty when nothing goes on."""
    other_side = [(h, points) for t, h, points in ends if abs(t - tip) < _NEAR and h.imag < 0]
    straight = [points for h, points in other_side if abs(h + heading) < 1e-3]
    if straight:
        return straight
    this_side = [h for t, h, _ in ends if abs(t - tip) < _NEAR and h.imag > 0]
    return [
        points
        for h, points in other_side
        if abs(h - heading.conjugate()) < 1e-3 and not any(abs(h + g) < 1e-3 for g in this_side)
    ]


def _opposed(one: complex | None, other: complex | None, along: complex) -> bool:
    if one is None or other is None:
        return False
    return (one / along).real * (other / along).real < 0
