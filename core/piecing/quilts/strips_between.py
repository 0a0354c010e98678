"""Plain strips between the blocks of a centre laid by hand: blocks that are finished differ, so strips are cut to what they join.

Every length measured is from raw edge to raw edge, with both allowances. Source: docs/theory, section 18.4.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from functools import lru_cache

from ..blocks.pattern import BlockPlacement, Pattern, UnitPlacement, layout_of
from ..joining.order import Order, Section, order_of
from ..lengths import Length
from ..messages import Listing, Message
from ..tolerances import EASED
from ..units import kind_of
from ..units.spec import UnitSpec
from .choices import QuiltChoices
from .top_readings import (
    THREE,
    KnownLengths,
    TopReading,
    TopStep,
    mean_of,
    misread,
    three_lengths,
    used_values,
)

__all__ = [
    "StripsBetween",
    "StripsCut",
    "measured_strips",
    "strips_between",
    "strips_key",
    "strips_length",
    "strips_of",
]

_TOLD = 3
"""Of more strips than so many in a row the first and the last are told."""


@dataclass(frozen=True, slots=True)
class StripsBetween:
    """Plain strips sewn to blocks along the seams of one section: ``key`` says where that lies, in inches, and stays; ``places`` of the strips
    by row and column; ``units`` they are, with how many of each; ``length`` of all of them by the plan. ``upright`` seams join them."""

    key: str
    places: tuple[str, ...]
    upright: bool
    units: tuple[tuple[UnitSpec, int], ...]
    length: Length

    def cut_widths(self, allowance: Length) -> Iterator[tuple[str, Length, int]]:
        """Of which fabric, how wide and how many: what does not hang on the length."""
        for spec, n in self.units:
            yield spec.part_fabrics[0], min(spec.width, spec.height) + allowance * 2, n


@dataclass(frozen=True, slots=True)
class StripsCut:
    """What they are cut to by what was measured: the ``length`` raw edge to raw edge."""

    between: StripsBetween
    length: Length


def strips_of(s: Section) -> tuple[Section, ...]:
    """Of what one section joins the plain cloth that is longer along its seam than it is across; nothing where no block is joined to it,
    and where its middle is gone round."""
    if not s.joints or any(j.partial for j in s.joints):
        return ()
    upright = s.joints[0].upright
    strips = tuple(p for p in s.parts if _is_strip(p, upright=upright))
    return strips if any(_holds_block(p) for p in s.parts if p not in strips) else ()


def _is_strip(s: Section, *, upright: bool) -> bool:
    held = s.place.content if s.place else None
    along, wide = (s.height, s.width) if upright else (s.width, s.height)
    return isinstance(held, UnitPlacement) and len(kind_of(held.kind).parts) == 1 and along > wide


def _holds_block(s: Section) -> bool:
    if s.place is not None:
        return isinstance(s.place.content, BlockPlacement)
    return any(map(_holds_block, s.parts))


def strips_key(s: Section, part: Length) -> str:
    """The name of its strips: where the section lies in the centre, in inches, which stays when something is laid elsewhere."""
    return "strips at " + " ".join(f"{float(part * side):g}" for side in s.box)


def strips_length(s: Section, part: Length, allowance: Length) -> Length:
    """How long they are by the plan: the section along its seams, with both allowances."""
    return part * (s.height if s.joints[0].upright else s.width) + allowance * 2


@lru_cache(maxsize=64)
def strips_between(pattern: Pattern, order: Order, finished: Length, allowance: Length) -> tuple[StripsBetween, ...]:
    """Every section with such strips, in the order of sewing, of a centre finishing ``finished`` across. Raises ``LayoutIncomplete``,
    ``CannotBeSewn``."""
    section, layout = order_of(pattern, order), layout_of(pattern)
    part = layout.part(finished)
    specs = {c.place: spec for c, spec in zip(layout.cells, layout.specs(part), strict=True) if not c.nested}
    at = {pattern.places[n].name: spec for n, spec in specs.items()}
    found = []
    for s in section.walk():
        places = tuple(p.place.name for p in strips_of(s) if p.place)
        if not places:
            continue
        upright = s.joints[0].upright
        units = Counter(at[name] for name in places)
        length = strips_length(s, part, allowance)
        found.append(StripsBetween(strips_key(s, part), places, upright, tuple(units.items()), length))
    return tuple(found)


def measured_strips(
    c: QuiltChoices, between: Iterable[StripsBetween], known: KnownLengths
) -> Iterator[tuple[TopStep, StripsCut | None]]:
    """What is measured before each of them is cut, and what it is cut to once three lengths are known."""
    for b in between:
        raw = b.length
        edges = ("left edge", "right edge") if b.upright else ("upper edge", "lower edge")
        finished = raw - c.seam_allowance * 2
        readings = tuple(replace(r, finished=finished) for r in three_lengths(b.key, edges, raw, raw, known))
        values = used_values(readings)
        cut = StripsCut(b, mean_of(c, values)) if len(values) == THREE else None
        how = Message(
            "What is joined to {n, plural, one {it} other {them}}, sewn and pressed, along the seam. Should be {expected}.",
            n=len(b.places),
            expected=raw,
        )
        said = (*misread(readings), *_uneven(readings), *(_cut_said(c, cut) if cut else ()))
        yield TopStep(b.key, _title(b), how, readings, said), cut


def _title(b: StripsBetween) -> Message:
    n = len(b.places)
    if n == 1:
        return Message("Before the strip at {place} is cut", place=b.places[0])
    if n <= _TOLD:
        return Message("Before the strips at {places} are cut", places=Listing(b.places, " and "))
    return Message("Before the strips from {first} to {last} are cut", first=b.places[0], last=b.places[-1])


def _uneven(readings: Iterable[TopReading]) -> Iterator[Message]:
    values = used_values(readings)
    # From what lies between them each is off by half of that.
    if len(values) > 1 and max(values) - min(values) > Length.near(EASED * 2):
        yield Message(
            "They differ by {by}: before anything is cut, look whether one was stretched, or trimmed too small.",
            by=max(values) - min(values),
        )


def _cut_said(c: QuiltChoices, cut: StripsCut) -> Iterator[Message]:
    for _, wide, n in cut.between.cut_widths(c.seam_allowance):
        yield Message(
            "Cut the {n, plural, one {strip} other {# strips}} {wide} × {long}.", n=n, wide=wide, long=cut.length
        )
