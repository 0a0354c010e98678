"""Whether a pressing nests, found again from nothing but where seams lie and where their allowances point.

Shares no code with the model in ``pressing``: seams are complex numbers here, and what meets what is read off the
drawing. Source: docs/theory.md, section 12.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

__all__ = ["Drawn", "Verdict", "checked"]

_NEAR = 1e-5


@dataclass(frozen=True, slots=True)
class Drawn:
    """A seam as drawn: its ends, where its allowance points (None when open), and when it was sewn."""

    start: complex
    end: complex
    points: complex | None
    sewn: int


@dataclass(frozen=True, slots=True)
class Verdict:
    """``loose``: points where two seams that go on into each other point the same way, or one lies open."""

    nested: int
    loose: tuple[complex, ...]


def checked(seams: Sequence[Drawn]) -> Verdict:
    """Look at every seam end that lies on a later seam, and at what comes to the same point from beyond."""
    nested, loose = 0, []
    for across in seams:
        along = (across.end - across.start) / abs(across.end - across.start)
        ends = []
        for s in seams:
            if s.sewn < across.sewn:
                for tip, tail in ((s.start, s.end), (s.end, s.start)):
                    place = (tip - across.start) / along
                    if abs(place.imag) < _NEAR and _NEAR < place.real < abs(across.end - across.start) - _NEAR:
                        heading = (tail - tip) / along
                        if abs(heading.imag) > _NEAR:
                            ends.append((tip, heading / abs(heading), s))
        for tip, heading, s in ends:
            if heading.imag < 0:
                continue
            partner = _beyond(tip, heading, ends)
            if partner is None:
                continue
            if _opposed(s, partner, along):
                nested += 1
            else:
                loose.append(tip)
    return Verdict(nested, tuple(loose))


def _beyond(tip: complex, heading: complex, ends: Sequence[tuple[complex, complex, Drawn]]) -> Drawn | None:
    """The seam going straight on from here; or, if there is none and none other is its straight line, its reflection."""
    other_side = [(h, s) for t, h, s in ends if abs(t - tip) < _NEAR and h.imag < 0]
    straight = [s for h, s in other_side if abs(h + heading) < 1e-3]
    if straight:
        return straight[0]
    this_side = [h for t, h, _ in ends if abs(t - tip) < _NEAR and h.imag > 0]
    reflected = [
        s
        for h, s in other_side
        if abs(h - heading.conjugate()) < 1e-3 and not any(abs(h + g) < 1e-3 for g in this_side)
    ]
    return reflected[0] if reflected else None


def _opposed(one: Drawn, other: Drawn, along: complex) -> bool:
    if one.points is None or other.points is None:
        return False
    return (one.points / along).real * (other.points / along).real < 0
