"""One quilt set in several ways of about one size, to look at side by side: what each takes.

Source: docs/theory, section 12.8.
"""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

from ..errors import QuiltImpossible
from ..lengths import ZERO, Area, Length
from ..messages import Message
from .choices import QuiltChoices, Setting
from .seams import quilt_join_length
from .sizes import QuiltSizes, quilt_sizes

__all__ = ["SettingBeside", "settings_beside"]


@dataclass(frozen=True, slots=True)
class SettingBeside:
    """One way to set the blocks: ``cloth`` is of the plain pieces, between and round them; ``seams`` are those that join them."""

    said: Message
    sizes: QuiltSizes
    cloth: Area
    seams: Length


def settings_beside(now: QuiltSizes) -> tuple[SettingBeside, ...]:
    """The quilt as it is, then others of about its size without its borders: straight, on point and staggered, with sashing and
    without. What cannot be, such as oblong blocks on point, is left out.
    """
    found = [_setting_beside(Message("as it is now"), now)]
    for said, choices in _others(now):
        try:
            sized = quilt_sizes(choices)
        except QuiltImpossible:
            continue
        if choices != now.choices:
            found.append(_setting_beside(said, sized))
    return tuple(found)


def _setting_beside(said: Message, sizes: QuiltSizes) -> SettingBeside:
    plain = Area.sum(p.area for p in sizes.pieces if not p.apart)
    return SettingBeside(said, sizes, plain, quilt_join_length(sizes))


def _others(now: QuiltSizes) -> Iterator[tuple[Message, QuiltChoices]]:
    c = now.choices
    sash = c.sash if c.sash > ZERO else (c.block_width / 6).round_near(c.ruler_step)
    bare = replace(c, half_blocks=False)
    for said, setting, strip, stones in (
        (Message("straight, edge to edge"), Setting.STRAIGHT, ZERO, False),
        (Message("straight, with sashing and cornerstones"), Setting.STRAIGHT, sash, True),
        (Message("on point"), Setting.ON_POINT, ZERO, False),
        (Message("on point, with sashing and cornerstones"), Setting.ON_POINT, sash, True),
        (Message("staggered, with plain cloth at the ends"), Setting.STAGGERED, ZERO, False),
    ):
        other = replace(bare, setting=setting, sash=strip, cornerstones=stones, sash_round=stones)
        yield (
            said,
            replace(other, columns=_fit(now.centre_width, other), rows=_fit(now.centre_height, other, down=True)),
        )


def _fit(size: Length, c: QuiltChoices, *, down: bool = False) -> int:
    """Blocks that come nearest to a size, one at least."""
    pitch = float((c.block_height if down else c.block_width) + c.sash)
    step = pitch * 2**0.5 if c.setting is Setting.ON_POINT else pitch
    return max(1, round(float(size) / step))
