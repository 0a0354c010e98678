"""What the finished quilt will measure when its blocks are brought to a common size, with an interval.

Source: docs/theory, section 18.3.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import sqrt

from ..lengths import ZERO, Length
from .choices import Setting
from .sizes import QuiltSizes, quilt_sizes

__all__ = ["FinishedQuilt", "QuiltHands", "finished_quilt"]

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
    """Finished ``width`` by ``height`` as planned with blocks of that size, as it most likely comes out, and how far off either way, nine
    times in ten; inches. ``sizes`` are those of everything else to cut."""

    sizes: QuiltSizes
    width: Length
    height: Length
    width_within: Length
    height_within: Length


def finished_quilt(planned: QuiltSizes, width: Length, height: Length, hands: QuiltHands) -> FinishedQuilt:
    """With blocks trimmed to ``width`` by ``height``, raw edge to raw edge; sashing, setting pieces and borders cut to go with them.

    A seam that takes e more than planned from each of two fabrics shortens what it joins by 2e; what is common to all of them adds up,
    what differs from seam to seam and from cut to cut adds by squares. Raises ``QuiltImpossible``.
    """
    s2 = planned.choices.seam_allowance * 2
    # What lies inside a pieced border is trimmed to what that border measures: from there on the quilt is as planned.
    pieced = next((r for r in reversed(planned.rounds) if r.row), None)
    if pieced is not None and pieced.row is not None:
        outer = 2 * (len(planned.rounds) - pieced.number)
        return _told(planned, pieced.row.across + 1 + outer, pieced.row.down + 1 + outer, hands)
    sizes = quilt_sizes(replace(planned.choices, block_width=width - s2, block_height=height - s2))
    c = sizes.choices
    across, down = (
        _seams(c.columns, c.setting, c.sash > ZERO, c.sash_round),
        _seams(c.rows, c.setting, c.sash > ZERO, c.sash_round),
    )
    # Borders are cut to what is measured: of their seams only the two at their outer edges are left.
    borders = 2 * len(c.borders)
    return _told(sizes, across + borders, down + borders, hands)


def _told(sizes: QuiltSizes, across: int, down: int, hands: QuiltHands) -> FinishedQuilt:
    """``across`` and ``down`` are the seams that one crosses from side to side."""
    return FinishedQuilt(
        sizes,
        _off(sizes.width, across, hands),
        _off(sizes.height, down, hands),
        _within(across, hands),
        _within(down, hands),
    )


def _seams(tracks: int, setting: Setting, sash: bool, round_about: bool) -> int:
    """Seams that one crosses from one side of the centre to the other."""
    steps = 2 * tracks if setting is Setting.ON_POINT else tracks
    between = max(0, steps - 1)
    return (2 * between + (2 if round_about else 0)) if sash else between


def _off(planned: Length, seams: int, hands: QuiltHands) -> Length:
    return Length.near(float(planned) - 2 * seams * hands.seam)


def _within(seams: int, hands: QuiltHands) -> Length:
    parts = seams + 1
    variance = (2 * seams * hands.unsure) ** 2 + seams * (2 * hands.seams) ** 2 + parts * hands.cut**2
    return Length.near(_NINE_TENTHS * sqrt(variance))
