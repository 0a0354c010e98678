"""The usual cautions, each said once. They give way to the makers' instructions and the rules of the room.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from enum import StrEnum

from .messages import Message

__all__ = ["CAUTIONS", "DEFER", "Risk", "cautions"]


class Risk(StrEnum):
    """Where someone can be hurt."""

    BLADE = "blade"
    IRON = "iron"
    NEEDLE = "needle"
    RIPPER = "ripper"
    SITTING = "sitting"


CAUTIONS: dict[Risk, tuple[Message, ...]] = {
    Risk.BLADE: (
        Message("Close the blade every time you put it down."),
        Message("Cut away from the body, fingers clear of the ruler's edge; a cut-proof glove helps."),
        Message("Change a nicked blade: it slips."),
    ),
    Risk.IRON: (Message("Steam burns. Leave nothing under the iron, and unplug it when you walk away."),),
    Risk.NEEDLE: (
        Message("Never sew over pins; take each out before the needle reaches it."),
        Message("Keep hands clear of the needle. Wear glasses: a needle may break."),
    ),
    Risk.RIPPER: (Message("Unpick away from yourself, on the table, never toward the hand that holds the cloth."),),
    Risk.SITTING: (Message("A long sitting: stand up now and then, rest the wrist."),),
}
DEFER = Message("The makers' instructions and the rules of the room come first.")


def cautions(*risks: Risk) -> tuple[Message, ...]:
    """What to mind of each risk, once, and to whom it gives way."""
    return (*(m for r in dict.fromkeys(risks) for m in CAUTIONS[r]), DEFER)
