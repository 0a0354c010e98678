"""What wears with use: a needle with the hours it sews, a blade with its cuts. Quiet notes, which the maker's word goes before.

Source: docs/theory, section 17.5.
"""

from __future__ import annotations

from ..messages import Message
from .words import Minutes

__all__ = ["blade_said", "needle_said"]


def needle_said(minutes: float, hours: int | None) -> Message | None:
    """What to say of a needle that has sewn so long when it is to be changed after so many hours; nothing before four fifths of
    them, or where no limit is set."""
    if not hours or minutes < 0.8 * 60 * hours:
        return None
    sewn = Minutes(minutes)
    if minutes < 60 * hours:
        return Message("The needle has sewn about {sewn}: have a fresh one at hand.", sewn=sewn)
    return Message("The needle has sewn about {sewn}. A fresh one is due, as you set it.", sewn=sewn)


def blade_said(cuts: int, limit: int | None) -> Message | None:
    """The same of a blade that has made so many cuts."""
    if not limit or cuts < 0.8 * limit:
        return None
    if cuts < limit:
        return Message("The blade has made about {cuts} cuts: have a fresh one at hand.", cuts=f"{cuts:,}")
    return Message("The blade has made about {cuts} cuts. A fresh one is due, as you set it.", cuts=f"{cuts:,}")
