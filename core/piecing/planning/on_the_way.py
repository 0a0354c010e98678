"""What lies between the pieces as cut and the unit: which fabrics are laid together, and squares that are measured or trimmed.

All of it is read off the acts of making one batch. Source: docs/theory, section 3.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass

from ..lengths import Length, finest_mark
from ..messages import Listing, Message
from ..units.acts import LayCorner, LayPage, LayStack, Thing, TrimSquare
from .unit_plan import UnitPlan

__all__ = ["LaidTogether", "bias_said", "laid_pairs", "laid_together", "on_mark", "sizes_between"]

_MOSTLY = 0.5
"""A side lies on the bias when so much of it does."""
_SEVERAL = 3
"""With so many fabrics it is asked which goes with which; with two there is nothing to choose."""


@dataclass(frozen=True, slots=True)
class LaidTogether:
    """Two pieces that are sewn to each other: the fabrics that either one shows."""

    lower: tuple[str, ...]
    upper: tuple[str, ...]


def laid_pairs(plan: UnitPlan) -> tuple[LaidTogether, ...]:
    """What is laid on what, in the order of the work and each once."""
    found: dict[LaidTogether, None] = {}
    for m in plan.simulated.making.moments:
        pair: tuple[Thing, Thing] | None = None
        match m.act:
            case LayStack() | LayCorner():
                pair = m.act.lower, m.act.upper
            case LayPage():
                pair = m.act.left, m.act.right
        if pair:
            found.setdefault(LaidTogether(pair[0].fabrics, pair[1].fabrics))
    return tuple(found)


def laid_together(plan: UnitPlan, names: Mapping[str, str]) -> tuple[Message, ...]:
    """Which fabrics are paired with which, in the order of the work, where three or more meet; ``names`` by role."""
    if len(set(plan.spec.part_fabrics)) < _SEVERAL:
        return ()
    steps = laid_pairs(plan)
    if _one_takes_all(steps):
        return (
            Message(
                "{first} takes {rest}.",
                first=_and(steps[0].lower, names),
                rest=Listing([_and(t.upper, names) for t in steps], ", then "),
            ),
        )
    plain = [t for t in steps if len(t.lower) == len(t.upper) == 1 and t.lower != t.upper]
    said = [Message("{lower} with {upper}", lower=_and(t.lower, names), upper=_and(t.upper, names)) for t in plain]
    found = [Message("Pair {pairs}.", pairs=Listing(said, last=" and "))]
    for t in steps:
        one, other = (t.lower, t.upper) if len(t.lower) >= len(t.upper) else (t.upper, t.lower)
        if len(one) > 1:
            found.append(
                Message("Then what is {one} with what is {other}.", one=_and(one, names), other=_and(other, names))
                if len(other) > 1
                else Message("Then what is {one} with {other}.", one=_and(one, names), other=_and(other, names))
            )
    return tuple(dict.fromkeys(found))


def _one_takes_all(steps: tuple[LaidTogether, ...]) -> bool:
    """Whether every further fabric is sewn by itself onto the piece so far, as corners are."""
    return all(len(t.upper) == 1 for t in steps)


def _and(fabrics: tuple[str, ...], names: Mapping[str, str]) -> Listing:
    return Listing([names.get(f, f.upper()) for f in fabrics], last=" and ")


def on_mark(size: float, mark: Length) -> Length:
    """A size that was cut by, back from the engine's figures: on the mark that it stood on, when it stood on one."""
    found = Length.near(size).round_near(mark)
    return found if abs(float(found) - size) < 1e-6 else Length.near(size)


def bias_said(plan: UnitPlan) -> tuple[Message, ...]:
    """What is asked of the hands where raw edges lie on the bias: said in the plan, at the machine, at the ruler, on the ticket."""
    making = plan.simulated
    said = []
    if max(making.bias.values(), default=0.0) > _MOSTLY:
        said.append(
            Message(
                "The outer edges of these units lie on the bias: starch before cutting, press up and down, never tug."
            )
        )
    if making.making.loose_bias:
        said.append(Message("The long raw edges lie on the bias: lift them, lay them, do not pull."))
    return tuple(said)


def sizes_between(plan: UnitPlan) -> tuple[Message, ...]:
    """Half-square triangles on the way to the unit planned: what they measure as sewn, and what they are trimmed to."""
    mark = finest_mark(plan.choices.ruler_step)
    found: dict[Message, None] = {}
    for m in plan.simulated.making.moments:
        if isinstance(m.act, TrimSquare):
            raw = Length.near(m.act.raw).round_near(mark)
            found.setdefault(
                Message("On the way, the half-square triangles measure about {raw}; they are not trimmed.", raw=raw)
                if m.act.side is None
                else Message(
                    "On the way, the half-square triangles measure about {raw}: trim them to {size}, the seam through both corners.",
                    raw=raw,
                    size=on_mark(m.act.side, mark),
                )
            )
    return tuple(found)
