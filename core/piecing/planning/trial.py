"""A trial piece: cut to these sizes it came to so much. Is there room to trim, and how should the rest be cut?

Source: docs/theory, section 17.6.
"""

from __future__ import annotations

from dataclasses import dataclass

from ..errors import SizeOutOfRange
from ..lengths import ZERO, Length
from ..messages import Message
from ..units import method_for
from ..units.method import Cuts
from .plan import checked_kind
from .unit_plan import Choices

__all__ = ["Trial", "trial_of"]

_AMPLE = 3
"""Marks of the ruler: more room than that is cloth cut off for nothing."""


@dataclass(frozen=True, slots=True)
class Trial:
    """What it came to beside what was expected of these cuts with this quilter's seam, and what it is trimmed to; ``height`` is None
    where only one way was measured. ``larger`` is by how much every piece should be cut larger (below zero: smaller) to leave one
    ``mark`` of the ruler to trim."""

    width: Length
    height: Length | None
    expected_width: Length
    expected_height: Length
    target_width: Length
    target_height: Length
    larger: Length
    mark: Length

    @property
    def room(self) -> Length:
        """What can be trimmed off in all, the way that has less of it; below zero where cloth is missing."""
        across = self.width - self.target_width
        return across if self.height is None else min(across, self.height - self.target_height)

    @property
    def off(self) -> Length:
        """How much larger than expected it came out, the first way."""
        return self.width - self.expected_width

    def sentences(self) -> tuple[Message, ...]:
        """Room, what was expected, and what to do with the rest."""
        return (self._room_said(), *self._off_said(), *self._next_said())

    def _room_said(self) -> Message:
        if self.room < ZERO:
            return Message("It is {by} too small to be trimmed to {to}.", by=-self.room, to=self.target_width)
        if not self.room.sign:
            return Message("It is just {to}, with nothing to trim away.", to=self.target_width)
        return Message("It leaves {room} to trim away to {to}, in all.", room=self.room, to=self.target_width)

    def _off_said(self) -> tuple[Message, ...]:
        if abs(self.off) * 2 < self.mark / 2:
            return (Message("That is what these cuts should come to with your seam."),)
        expected = self.expected_width
        if self.off < ZERO:
            return (
                Message(
                    "These cuts should come to {expected} with your seam: look at the seam and the fold.",
                    expected=expected,
                ),
            )
        return (
            Message(
                "These cuts should come to {expected} with your seam: it takes less than is known of it.",
                expected=expected,
            ),
        )

    def _next_said(self) -> tuple[Message, ...]:
        if self.room < self.mark / 2:
            return (Message("Cut every piece {by} larger, and try one again.", by=self.larger),)
        if self.room > self.mark * _AMPLE and self.larger < ZERO:
            return (Message("Every piece could be cut {by} smaller.", by=-self.larger),)
        return (Message("The rest can be cut so."),)


def trial_of(choices: Choices, cuts: Cuts, width: Length, height: Length | None = None) -> Trial:
    """One unit made of pieces cut to ``cuts``, which need not reach the target, measured before it was trimmed.

    Raises what the kind and the method refuse, and ``SizeOutOfRange`` for a size that no such piece can come to.
    """
    checked_kind(choices)
    method = method_for(choices.spec.kind, choices.method)
    spec, allowance, take_up = choices.spec, choices.seam_allowance, choices.seam.take_up
    expected = method.raw(spec, cuts, allowance, take_up)
    for measured, should, field in ((width, expected[0], "width"), (height, expected[1], "height")):
        if measured is not None and not should / 2 < measured < should * 2:
            raise SizeOutOfRange(
                "These cuts come to about {should}; {measured} cannot be of the same piece. Look at the figures again.",
                field=field,
                should=should,
                measured=measured,
            )
    step = choices.ruler_step
    grown = method.raw(spec, Cuts((n, s + step) for n, s in cuts.items()), allowance, take_up)
    found = Trial(width, height, *expected, choices.target_width, choices.target_height, ZERO, step)
    gain = min((g - e for g, e in zip(grown, expected, strict=True)), key=float)
    larger = ZERO
    if gain > ZERO:
        missing = step - found.room
        larger = Length.near(float(missing) / float(gain) * float(step)).round_up(step)
    return Trial(width, height, *expected, choices.target_width, choices.target_height, larger, step)
