"""Whether a pressing nests, found again from nothing but where seams lie and where their allowances point.

Shares no code with the model in ``pressing``: seams are complex numbers here, and what meets what is read off the
drawing. Source: docs/theory, section 12.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

__all__ = ["Drawn", "PressingVerdict", "check_pressing"]

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


def check_pressing(seams: Sequence[Drawn]) -> PressingVerdict:
    """Look at every seam end that lies on a later seam, and at what comes to the same point from beyond."""
    nested, loose = 0, []
    tips = np.array([tip for s in seams for tip in (s.start, s.end)])
    tails = np.array([tail for s in seams for tail in (s.end, s.start)])
    points = [arrow for s in seams for arrow in (s.at_start, s.at_end)]
    sewn = np.repeat([s.sewn for s in seams], 2)
    for across in seams:
        along = (across.end - across.start) / abs(across.end - across.start)
        place, headings = (tips - across.start) / along, (tails - tips) / along
        on_it = (
            (np.abs(place.imag) < _NEAR) & (place.real > _NEAR) & (place.real < abs(across.end - across.start) - _NEAR)
        )
        found = np.nonzero((sewn < across.sewn) & on_it & (np.abs(headings.imag) > _NEAR))[0]
        ends: list[End] = [(complex(tips[n]), complex(headings[n] / abs(headings[n])), points[n]) for n in found]
        for tip, heading, arrow in ends:
            if heading.imag < 0:
                continue
            beyond = _beyond(tip, heading, ends)
            if not beyond:
                continue
            if _are_opposed(arrow, beyond[0], along):
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


def _are_opposed(one: complex | None, other: complex | None, along: complex) -> bool:
    if one is None or other is None:
        return False
    return (one / along).real * (other / along).real < 0
