"""Words as people type or paste them: one line, and something to see in it."""

from __future__ import annotations

import re
import unicodedata

__all__ = ["can_be_seen", "one_line"]

_UNSEEN = re.compile(r"[\s\x00-\x1f\x7f-\x9f\u00ad\u200b\u200e\u200f\u2028-\u202e\u2060-\u206f\ufeff]+")
"""White space, control characters, and what has no width or turns the direction of writing."""


def one_line(text: str, longest: int) -> str:
    """At most ``longest`` characters of it on one line; what cannot be seen, and what turns the direction of writing, becomes a space."""
    return _UNSEEN.sub(" ", text).strip()[:longest]


def can_be_seen(text: str) -> bool:
    """Whether it has at least one letter, figure or sign."""
    return any(unicodedata.category(c)[0] in "LNPS" for c in text)
