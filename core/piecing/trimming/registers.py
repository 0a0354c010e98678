"""How the ruler finds its place on each kind of unit: which of its lines lie on which seam.

Source: docs/theory, section 6.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..lengths import ZERO, Length, inches
from ..messages import Listing, Message
from ..planning.unit_plan import UnitPlan
from ..units import square_in_square
from ..units.corner_triangle import CORNERS

__all__ = ["Register", "register_for", "tip_stands"]


@dataclass(frozen=True, slots=True)
class Register:
    """``diagonal``: the 45-degree line into the ruler's corner lies on a seam that runs to that corner.

    ``cross``: a point of the design, in inches from the trimmed unit's lower left corner, that two ruler lines meet on.
    ``slants``: two 45-degree lines from that point lie on seams. ``lay`` and ``keep`` say it, before and after the turn;
    ``true`` says what the trimmed unit shows; ``slip`` is the direction in which a slipped ruler hurts most.
    """

    lay: Message
    keep: Message | None
    true: Message
    diagonal: bool = False
    cross: tuple[Length, Length] | None = None
    slants: bool = False
    slip: tuple[float, float] = (1.0, 0.0)
    look_at: tuple[float, float] = (1.0, 1.0)


def _middle(p: UnitPlan) -> tuple[Length, Length]:
    return p.target_width / 2, p.target_height / 2


def _half_square(p: UnitPlan) -> Register:
    return Register(
        Message("Put the 45-degree line on the seam, the {u} marks inside the far raw edges.", u=p.target_width),
        Message("the 45-degree line still on the seam"),
        Message("The seam runs into two corners."),
        diagonal=True,
    )


def _hourglass(p: UnitPlan) -> Register:
    return Register(
        Message(
            "Put the 45-degree line on one seam and the {half} marks on the crossing; the other seam runs to the other "
            "corners of the {u} square.",
            half=p.target_width / 2,
            u=p.target_width,
        ),
        Message("the 45-degree line on the seam and the crossing under the {half} marks", half=p.target_width / 2),
        Message("Each seam runs into a corner; the crossing lies {half} from every edge.", half=p.target_width / 2),
        diagonal=True,
        cross=_middle(p),
    )


def _split(p: UnitPlan) -> Register:
    return Register(
        Message(
            "Put the 45-degree line on the long seam and the {half} marks where the short seam meets it.",
            half=p.target_width / 2,
        ),
        Message(
            "the 45-degree line on the long seam, the meeting point under the {half} marks", half=p.target_width / 2
        ),
        Message("The long seam runs into two corners, the short one into the third."),
        diagonal=True,
        cross=_middle(p),
    )


def _goose(p: UnitPlan) -> Register:
    return Register(
        Message(
            "Put the tip under the {half} mark across and {s} below the upper edge, both 45-degree lines on the seams.",
            half=p.target_width / 2,
            s=p.allowance,
        ),
        Message("the tip now {s} above the {h} mark", s=p.allowance, h=p.target_height),
        Message("The tip stands {s} below the raw edge, the seams run into the lower corners.", s=p.allowance),
        cross=(p.target_width / 2, p.target_height - p.allowance),
        slants=True,
        slip=(0.0, -1.0),
        look_at=(0.5, 1.0),
    )


def _corners(p: UnitPlan) -> Register:
    sizes = [k + p.allowance * 2 for k in p.spec.corners if k > ZERO]
    crossings = Message("The seams cross the raw edges {k} from their corners.", k=sizes[0])
    if len(set(sizes)) > 1:
        crossings = Message(
            "The seams cross the raw edges at {small} to {large} from their corners.",
            small=min(sizes),
            large=max(sizes),
        )
    whole = [CORNERS[n] for n, k in enumerate(p.spec.corners) if k == ZERO]
    lay = (
        Message(
            "Let as much cloth show past the {u} marks on every side, the ruler's edges even with the raw edges at the {where} "
            "corner, which was not sewn.",
            u=p.target_width,
            where=whole[0],
        )
        if len(whole) == 1
        else Message(
            "Let as much cloth show past the {u} marks on every side, the ruler's edges even with the raw edges at the {where} "
            "corners, which were not sewn.",
            u=p.target_width,
            where=Listing(whole, last=" and "),
        )
        if whole
        else Message(
            "Let as much cloth show past the {u} marks on every side: no corner is left to lay it on.", u=p.target_width
        )
    )
    return Register(
        lay,
        None,
        crossings,
        look_at=(1.0, 0.5),
    )


def _strip(p: UnitPlan) -> Register:
    return Register(
        Message(
            "Put the 45-degree line down the middle of the strip, the {u} marks inside the far raw edges.",
            u=p.target_width,
        ),
        Message("the 45-degree line down the middle of the strip"),
        Message("The middle of the strip runs into two corners, its edges {k} from them.", k=p.spec.strip.over_root2()),
        diagonal=True,
    )


def tip_stands(p: UnitPlan) -> Length:
    """How far the tips of a trimmed unit stand from the raw edge: an allowance, or what the centre's cut size leaves."""
    if p.method is not square_in_square.CORNER_TRIANGLES:
        return p.allowance
    leaves = square_in_square.tip_clearance(p.spec, p.cuts, p.allowance, p.take_up)
    return leaves if any(n.code == "tips_off" for n in p.notes) else p.allowance


def _tips_told(p: UnitPlan, stands: Length) -> Message:
    """What the trimmed unit shows, and what to do where the centre cannot leave an allowance: the same as the plan says."""
    off = stands - p.allowance
    if not off.sign:
        return Message("Every tip stands {s} from its raw edge.", s=stands)
    if off.sign > 0:
        return Message(
            "Every tip stands {s} from its raw edge, {off} more than an allowance. Sew the seams that join it {off} deeper, and they "
            "touch.",
            s=stands,
            off=off,
        )
    return Message(
        "Every tip stands {s} from its raw edge, {off} less than an allowance. Sew the seams that join it {off} shallower, never under "
        "{least}, or the tips are cut off.",
        s=stands,
        off=abs(off),
        least=inches("3/16"),
    )


def _diamond(p: UnitPlan) -> Register:
    stands = tip_stands(p)
    return Register(
        Message(
            "Put the {half} lines on opposite tips, each tip {s} inside the edges of the {u} square.",
            half=p.target_width / 2,
            s=stands,
            u=p.target_width,
        ),
        Message("the tips under the {half} lines", half=p.target_width / 2),
        _tips_told(p, stands),
        cross=_middle(p),
        slip=(0.0, -1.0),
        look_at=(0.5, 1.0),
    )


def _joined_register(p: UnitPlan) -> Register:
    return Register(
        Message(
            "Put the 45-degree line on the long seam between the halves, the {u} marks inside the far raw edges.",
            u=p.target_width,
        ),
        Message("the 45-degree line on the long seam"),
        Message("The long seam runs into two corners."),
        diagonal=True,
        cross=_middle(p),
    )


def _patches(p: UnitPlan) -> Register:
    return Register(
        Message("Put the {half} lines on both seams, crossing on crossing.", half=p.target_width / 2),
        Message("the {half} lines on the seams", half=p.target_width / 2),
        Message("The crossing lies {half} from every edge.", half=p.target_width / 2),
        cross=_middle(p),
        look_at=(0.5, 1.0),
    )


def _plain(p: UnitPlan) -> Register:
    return Register(
        Message("Lay two edges along the {u} marks.", u=p.target_width),
        Message("edges along the marks"),
        Message("{w} by {h}, square in every corner.", w=p.target_width, h=p.target_height),
    )


_REGISTERS: dict[str, Callable[[UnitPlan], Register]] = {
    "half_square_triangle": _half_square,
    "quarter_square_triangle": _hourglass,
    "split_quarter_square_triangle": _split,
    "flying_goose": _goose,
    "corner_triangle": _corners,
    "strip_split_square": _strip,
    "square_in_square": _diamond,
    "banded_hourglass": _joined_register,
    "pieced_half": _joined_register,
    "four_patch": _patches,
}


def register_for(plan: UnitPlan) -> Register:
    """Which lines of the ruler lie where on this plan's unit."""
    return _REGISTERS.get(plan.spec.kind, _plain)(plan)
