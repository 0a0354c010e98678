"""From what is planned to what is cut: the pieces of units, and plain ones, by fabric.

Source: docs/theory, section 13.1.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping
from dataclasses import replace
from math import ceil

from ..lengths import Length, inches
from ..planning.unit_plan import CutPiece, UnitPlan
from ..prints import Direction
from ..quilts.choices import PlainPiece
from ..quilts.strips_between import StripsCut
from .stock import WantedPiece

__all__ = ["cut_as_measured", "plain_pieces", "unit_pieces"]

_USABLE = inches(40)
_LONG = 2
"""Oblong pieces this many times as long as wide are borders and sashing: they are cut along the cloth when asked for."""


def _turns(direction: Direction, width: Length, height: Length) -> bool:
    return direction is Direction.NONE or width == height


def unit_pieces(
    plan: UnitPlan, kind: str, directions: Mapping[str, Direction], usable: Length = _USABLE
) -> tuple[WantedPiece, ...]:
    """What one unit's plan cuts. Strips longer than the cloth is wide become several."""
    found = []
    for n, p in enumerate(plan.pieces):
        direction = directions.get(p.role, Direction.NONE)
        name = kind if len(plan.pieces) == 1 else f"{kind}, {plan.method.size_name(p.name)}"
        if p.height > usable and p.width < p.height and p.count == 1:
            whole = p.width.whole_into(usable)
            length = p.width * max(1, whole)
            count = ceil(float(p.height) / float(length) - 1e-9)
            found.append(
                WantedPiece(
                    f"{kind}{n}", p.role, p.width, length, count, name, _turns(direction, p.width, length), p.gives
                )
            )
            continue
        found.append(
            WantedPiece(
                f"{kind}{n}",
                p.role,
                p.width,
                p.height,
                p.count,
                name,
                _turns(direction, p.width, p.height),
                p.gives,
                bits=p.count * p.gives - p.left_over,
            )
        )
    return tuple(found)


def cut_as_measured(plans: Iterable[UnitPlan], strips: Iterable[StripsCut]) -> tuple[UnitPlan, ...]:
    """The plans with strips between blocks cut to what was measured there: of each plan as many pieces as are still to make, those that were
    not measured as planned."""
    told = [(spec, n, s.length) for s in strips for spec, n in s.between.units]
    found: list[UnitPlan] = []
    for plan in plans:
        mine = [(n, long) for spec, n, long in told if spec == plan.spec]
        if not mine:
            found.append(plan)
            continue
        (piece,) = plan.pieces
        left, by_length = piece.count, Counter[Length]()
        for n, long in mine:
            by_length[long] += min(n, left)
            left -= min(n, left)
        sizes = [(piece, left), *((_as_long(plan, piece, long), n) for long, n in by_length.items())]
        found += [replace(plan, pieces=(replace(p, count=n),)) for p, n in sizes if n]
    return tuple(found)


def _as_long(plan: UnitPlan, piece: CutPiece, long: Length) -> CutPiece:
    """The piece with its longer side ``long``, and as much over as was planned."""
    if plan.spec.width > plan.spec.height:
        return replace(piece, width=long + piece.width - plan.choices.target_width)
    return replace(piece, height=long + piece.height - plan.choices.target_height)


def plain_pieces(
    pieces: Iterable[PlainPiece], directions: Mapping[str, Direction], *, along: bool = False
) -> tuple[WantedPiece, ...]:
    """Sashing, borders, setting pieces and binding. ``along`` asks for borders to be cut with the selvedge."""
    found = []
    for n, p in enumerate(pieces):
        direction = directions.get(p.fabric, Direction.NONE)
        border = along and p.name.startswith("border") and p.cut_height > p.cut_width * _LONG
        # A binding shows half a finger of its print: it is cut whichever way it comes out.
        turns = p.joined or _turns(direction, p.cut_width, p.cut_height)
        found.append(
            WantedPiece(
                f"plain{n}",
                p.fabric,
                p.cut_width,
                p.cut_height,
                p.count,
                p.name,
                turns,
                p.cut_into,
                border,
                p.joined,
                p.needed or p.count * p.cut_into,
            )
        )
    return tuple(found)
