"""Finished blocks as they really measure: a size that they are all brought to, and what that costs each.

Source: docs/theory, section 18.1.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from enum import StrEnum

from ..errors import CountOutOfRange, SizeOutOfRange
from ..lengths import ZERO, Length
from ..messages import Message
from ..tolerances import EASED, LEAST_FRAME, SEEN

__all__ = ["BlockAsMeasured", "BlockFate", "CommonSize", "CommonSizes", "Fate", "borne_said", "common_sizes"]

_EASED, _SEEN, _FRAME = Length.near(EASED), Length.near(SEEN), Length.near(LEAST_FRAME)
_REACH = 8
"""Marks of the ruler below and above what is planned at which a size is looked for."""


class Fate(StrEnum):
    """What becomes of a block at a common size."""

    AS_IT_IS = "as_it_is"
    TRIM = "trim"
    TIPS = "tips"
    EASE = "ease"
    FRAME = "frame"
    AGAIN = "again"


_TROUBLE = {Fate.AS_IT_IS: 0.0, Fate.TRIM: 2.0, Fate.EASE: 3.0, Fate.TIPS: 15.0, Fate.FRAME: 20.0}
"""Minutes, or what one would give to be spared it (judged): points cut off are worth a quarter of an hour each block. What making
one again takes depends on the block."""
_AGAIN_USUAL = 75.0
"""Minutes for a block of which nothing is known."""


@dataclass(frozen=True, slots=True)
class BlockAsMeasured:
    """One finished block, raw edge to raw edge; ``tips`` whether it has points at its edges that trimming would cut."""

    name: str
    width: Length
    height: Length
    tips: bool = True


@dataclass(frozen=True, slots=True)
class BlockFate:
    """``trim`` off each side, the way that has more of it; ``short`` the way that lacks most, zero where nothing lacks."""

    block: BlockAsMeasured
    fate: Fate
    trim: Length
    short: Length

    @property
    def said(self) -> Message:
        """What to do with it."""
        match self.fate:
            case Fate.AS_IT_IS:
                return Message("It fits as it is.")
            case Fate.TRIM:
                return Message("Trim off {by}, half on each side.", by=self.trim * 2)
            case Fate.TIPS if self.short > ZERO:
                return Message(
                    "Trimming off {by}, half on each side, cuts off its points; the other way it is {short} short: ease it in.",
                    by=self.trim * 2,
                    short=self.short,
                )
            case Fate.TIPS:
                return Message("Trimming off {by}, half on each side, cuts off its points.", by=self.trim * 2)
            case Fate.EASE:
                return Message("It is {by} short: ease it in.", by=self.short)
            case Fate.FRAME:
                return Message(
                    "It is {by} short: frame it with a strip that shows {wide}, and trim that.",
                    by=self.short,
                    wide=self.short / 2,
                )
            case Fate.AGAIN:
                return Message(
                    "It is {by} short: more than can be eased, less than a frame. Make it again.", by=self.short
                )


@dataclass(frozen=True)
class CommonSize:
    """All blocks brought to ``width`` by ``height``, raw edge to raw edge; ``trouble`` in minutes of work, points cut off among it.
    ``again`` are the minutes that making one of them anew takes.
    """

    width: Length
    height: Length
    fates: tuple[BlockFate, ...]
    again: float = _AGAIN_USUAL

    @property
    def trouble(self) -> float:
        """Of all of them."""
        return sum(_TROUBLE.get(f.fate, self.again) for f in self.fates)

    def count(self, fate: Fate) -> int:
        """How many blocks meet this fate."""
        return sum(1 for f in self.fates if f.fate is fate)


@dataclass(frozen=True)
class CommonSizes:
    """The ``smallest`` size, to which all can be trimmed and none is eased; the size that was ``planned``; and the ``best``, with the least
    trouble. They may be the same."""

    smallest: CommonSize
    planned: CommonSize
    best: CommonSize


def common_sizes(
    blocks: Sequence[BlockAsMeasured], width: Length, height: Length, mark: Length, again: float = _AGAIN_USUAL
) -> CommonSizes:
    """Sizes that the ruler shows by its ``mark``; ``width`` by ``height`` is what was planned, raw edge to raw edge; ``again`` the
    minutes that making one block anew takes.

    Raises ``CountOutOfRange`` without a block, and ``SizeOutOfRange`` for one that cannot be such a block: less than half of what
    was planned, or more than twice.
    """
    if not blocks:
        raise CountOutOfRange("Measure at least one block first.", field="blocks")
    for b in blocks:
        if not (width / 2 < b.width < width * 2 and height / 2 < b.height < height * 2):
            raise SizeOutOfRange(
                "{name} measures {w} by {h}, where {pw} by {ph} is planned. Look at the figures again.",
                field="width",
                name=b.name,
                w=b.width,
                h=b.height,
                pw=width,
                ph=height,
            )
    least = min(min(b.width - width, b.height - height) for b in blocks)
    # Both ways change by as much: what is square stays square.
    smallest = _at(blocks, width, height, least.round_down(mark), again)
    offers = [_at(blocks, width, height, mark * n, again) for n in range(-_REACH, _REACH + 1)]
    planned = offers[_REACH]
    best = min([planned, smallest, *offers], key=lambda c: (c.trouble, abs(float(c.width - width))))
    return CommonSizes(smallest, planned, best)


def _at(blocks: Sequence[BlockAsMeasured], width: Length, height: Length, by: Length, again: float) -> CommonSize:
    across, down = width + by, height + by
    return CommonSize(across, down, tuple(_fate(b, across, down) for b in blocks), again)


def _fate(b: BlockAsMeasured, width: Length, height: Length) -> BlockFate:
    over = max(b.width - width, b.height - height, ZERO)
    short = max(width - b.width, height - b.height, ZERO)
    trim = over / 2
    if short > _EASED:
        fate = Fate.FRAME if short / 2 >= _FRAME else Fate.AGAIN
    elif b.tips and trim > _SEEN:
        fate = Fate.TIPS
    elif short > ZERO:
        fate = Fate.EASE
    else:
        fate = Fate.TRIM if over > ZERO else Fate.AS_IT_IS
    return BlockFate(b, fate, trim, short)


def borne_said() -> Message:
    """What is borne of a block that is brought to size."""
    return Message(
        "An edge can be eased in by {eased}; points are cut off when more than {seen} is trimmed beside them; a frame that shows less "
        "than {frame} looks like a mistake.",
        eased=_EASED,
        seen=_SEEN,
        frame=_FRAME,
    )
