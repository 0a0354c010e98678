"""What the finished quilt will measure, by its blocks or by its top as far as it was measured, with an interval.

Source: docs/theory, section 18.3.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, replace
from math import sqrt

from ..lengths import Length
from ..messages import Message
from ..tolerances import TAPE
from .choices import QuiltChoices, Setting
from .pieced import FittedRow
from .sizes import QuiltSizes, sashes_along
from .top import LastMeasured, TopAsMeasured

__all__ = ["FinishedQuilt", "QuiltHands", "finished_quilt", "seam_cost"]

_NINE_TENTHS = 1.645


@dataclass(frozen=True, slots=True)
class QuiltHands:
    """What one seam takes beyond the allowance from each side, with what is not known of that and its spread from seam to seam, and the
    spread of what is cut or trimmed; inches."""

    seam: float = 0.0
    unsure: float = 1 / 96
    seams: float = 1 / 90
    cut: float = 1 / 90


@dataclass(frozen=True, slots=True)
class FinishedQuilt:
    """Finished ``width`` by ``height`` as it most likely comes out, and how far off either way, nine times in ten; inches. ``by`` says what
    it is reckoned from, ``sizes`` are those of everything else to cut, ``why`` says what makes it another size than those."""

    sizes: QuiltSizes
    width: Length
    height: Length
    width_within: Length
    height_within: Length
    by: Message
    why: Message | None = None

    @property
    def by_the_ruler(self) -> FinishedQuilt:
        """The same by the marks of the ruler: the quilt to the nearest, how far off it may be to the next larger one."""
        step = self.sizes.choices.ruler_step
        return replace(
            self,
            width=self.width.round_near(step),
            height=self.height.round_near(step),
            width_within=self.width_within.round_up(step),
            height_within=self.height_within.round_up(step),
        )


def finished_quilt(top: TopAsMeasured, hands: QuiltHands) -> FinishedQuilt:
    """From blocks of one size, or from the last lengths measured of the top; sashing, setting pieces and borders cut to go with them.

    A seam that takes e more than planned from each of two fabrics shortens what it joins by 2e; what is common to all of them adds up,
    what differs from seam to seam and from cut to cut adds by squares.
    """
    sizes = top.sizes
    c, outer = sizes.choices, 2 * len(sizes.rounds)
    across = _way(sizes, top.across, _crossings(c, c.columns, outer), lambda row: row.across)
    down = _way(sizes, top.down, _crossings(c, c.rows, outer), lambda row: row.down)
    return FinishedQuilt(
        sizes,
        _off(sizes.width, across, hands),
        _off(sizes.height, down, hands),
        _within(across, hands),
        _within(down, hands),
        _by(top),
        _why(sizes, across, down, hands),
    )


def _by(top: TopAsMeasured) -> Message:
    c = top.sizes.choices
    if top.across or top.down or c.setting is Setting.BY_HAND:
        return Message("By what you measured of the top")
    s2 = c.seam_allowance * 2
    return Message("With blocks brought to {w} × {h}", w=c.block_width + s2, h=c.block_height + s2)


def _way(sizes: QuiltSizes, last: LastMeasured | None, blocks: _Crossed, units: Callable[[FittedRow], int]) -> _Crossed:
    """What is crossed one way from what is known of it outward: lengths measured, or the row of a pieced border, to which what lies inside
    was trimmed; or from ``blocks``."""
    pieced = next((r for r in reversed(sizes.rounds) if r.row), None)
    if pieced is not None and pieced.row is not None and (last is None or last.border <= pieced.number):
        return _straight(units(pieced.row) + 1 + 2 * (len(sizes.rounds) - pieced.number))
    if last is not None:
        return _Crossed(last.seams, last.seams, last.seams, TAPE / sqrt(3))
    return blocks


@dataclass(frozen=True, slots=True)
class _Crossed:
    """What one crosses from side to side: as many times what a seam takes from both sides as the length loses by what is ``common`` to
    all seams, and by how many ``seams`` and ``parts`` it varies; ``read``: by what a length that was measured strays, in inches."""

    common: float
    seams: float
    parts: float
    read: float = 0.0


def _straight(seams: int) -> _Crossed:
    return _Crossed(seams, seams, seams + 1)


def _crossings(c: QuiltChoices, tracks: int, borders: int) -> _Crossed:
    pieces = _pieces(c, tracks)
    if c.setting is not Setting.ON_POINT:
        return _straight(pieces - 1 + borders)
    # From corner to corner, along the diagonals of blocks: a block smaller by what its two seams take is smaller by root two of that,
    # its outer seams included, since these join the setting pieces. What varies goes by squares of a root of two less, two ways.
    return _Crossed(sqrt(2) * pieces + borders, pieces + borders, pieces + borders)


def _pieces(c: QuiltChoices, tracks: int) -> int:
    """Blocks and sashes in a row."""
    return tracks + sashes_along(c, tracks)


def seam_cost(c: QuiltChoices, across: float, down: float, by: float) -> tuple[float, float]:
    """What every seam that takes ``by`` more of either side takes off a quilt inside its borders, across and down, where it takes
    ``across`` and ``down`` off a block; all in inches."""
    pieces = [_pieces(c, tracks) for tracks in (c.columns, c.rows)]
    if c.setting is Setting.ON_POINT:
        # From corner to corner: up along one side of every block, down along the other, every piece between two seams.
        cost = [
            (tracks * (across + down) + 2 * n * 2 * by) / sqrt(2)
            for tracks, n in zip((c.columns, c.rows), pieces, strict=True)
        ]
        return cost[0], cost[1]
    return c.columns * across + (pieces[0] - 1) * 2 * by, c.rows * down + (pieces[1] - 1) * 2 * by


def _why(sizes: QuiltSizes, across: _Crossed, down: _Crossed, hands: QuiltHands) -> Message | None:
    if not hands.seam or not across.seams + down.seams:
        return None
    return Message(
        "With seams of just the allowance it would finish {width} by {height}. Yours take {more} than that, by what you measured of "
        "them, and {across} are crossed from side to side, {down} from top to bottom.",
        width=sizes.width,
        height=sizes.height,
        more="more" if hands.seam > 0 else "less",
        across=round(across.seams),
        down=round(down.seams),
    )


def _off(planned: Length, of: _Crossed, hands: QuiltHands) -> Length:
    return Length.near(float(planned) - 2 * of.common * hands.seam)


def _within(of: _Crossed, hands: QuiltHands) -> Length:
    variance = (
        (2 * of.common * hands.unsure) ** 2 + of.seams * (2 * hands.seams) ** 2 + of.parts * hands.cut**2 + of.read**2
    )
    return Length.near(_NINE_TENTHS * sqrt(variance))
