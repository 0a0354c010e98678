"""What is only seen, not measured, and what it makes likely.

Source: docs/theory, section 14.7.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from ..messages import Message
from .reading_kinds import ReadingKind
from .readings import Reading

__all__ = ["HEADLINES", "Seen", "seen_of"]


@dataclass(frozen=True, slots=True)
class Seen:
    """A mistake that only the eye finds, with how likely it is after what was seen."""

    code: str
    said: Message
    why: Message
    probability: float

    @property
    def noticed(self) -> bool:
        """Whether it is likely enough to be said, and answered."""
        return self.probability >= _NOTICED


_NOTICED = 0.5
_SEEN = {
    "turned_unit": (
        "A unit lies turned",
        "The picture is wrong and comes right when one unit is turned; sizes have nothing to do with it.",
    ),
    "wrong_hand": (
        "A unit of the wrong hand",
        "The picture is wrong, and no turn puts it right: it is a mirror image.",
    ),
    "two_alike": (
        "Two units alike where a pair of mirrored ones is wanted",
        "Their seams do not nest: both lie the same way.",
    ),
    "wrong_sides": (
        "Two pieces sewn wrong sides together",
        "The allowance shows on the front: unpick before pressing.",
    ),
    "joined_in_turn": ("Rows joined one after another", "A row's two edges differ in length: it bows."),
    "pressed_to_light": (
        "Pressed to the light side",
        "The dark allowance lies under the light cloth.",
    ),
    "blade": ("A dull or nicked blade", "Edges fray and readings scatter rather than shift."),
}
HEADLINES = ("turned_unit", "wrong_hand", "two_alike", "wrong_sides")
"""Those that are the whole of the matter: nothing about sizes is said above them."""


def seen_of(readings: Sequence[Reading]) -> tuple[Seen, ...]:
    """What the eye found, the likeliest first. It has nothing to do with sizes, and is weighed by itself."""
    seen = {r.kind for r in readings}
    odds: dict[str, float] = {}
    if ReadingKind.RIGHT_WHEN_TURNED in seen:
        odds["turned_unit"] = 40.0
    elif ReadingKind.TWO_ALIKE in seen:
        odds["two_alike"] = 20.0
    elif ReadingKind.PICTURE_WRONG in seen:
        odds["turned_unit"], odds["wrong_hand"] = 10.0, 8.0
    for kind, code, by in (
        (ReadingKind.SEAM_INSIDE_OUT, "wrong_sides", 40.0),
        (ReadingKind.BOWED, "joined_in_turn", 6.0),
        (ReadingKind.FRAYED, "blade", 6.0),
        (ReadingKind.SHADOW, "pressed_to_light", 6.0),
    ):
        odds |= {code: by} if kind in seen else {}
    total = sum(odds.values()) + 1.0
    found = [Seen(c, Message(_SEEN[c][0]), Message(_SEEN[c][1]), o / total) for c, o in odds.items()]
    return tuple(sorted(found, key=lambda s: -s.probability))
