"""Every way and every school that can make one unit, side by side, the recommended one first.

Source: docs/theory, section 11.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

from ..errors import PiecingError
from ..lengths import Length, finest_mark, inches
from ..messages import Listing, Message
from ..planning.holdings import Holding, largest_unit, units_from
from ..planning.plan import plan
from ..planning.room import WANTED_SHARE, QuilterRecord
from ..planning.schools import School
from ..planning.unit_plan import Choices, UnitPlan
from ..trimming import Fit, Ruler, fit, trimmed_plan
from ..trimming.registers import register_for
from ..units import Method, methods_of
from ..units.method import Cuts, Hands

__all__ = ["Comparison", "InAll", "Way", "compare"]

_ENOUGH = inches("1/32")


@dataclass(frozen=True)
class Way:
    """One method under one school: its plan and what a person weighs. ``pieces``, ``seams``, ``sewn`` (inches) and ``cuts_apart``
    are shares of one unit, which the score weighs; the same for all units wanted stand under ``in_all``."""

    method: Method
    school: School
    plan: UnitPlan | None
    refusal: PiecingError | None = None
    cloth: float = 0.0
    waste_share: float = 0.0
    pieces: float = 0.0
    seams: float = 0.0
    sewn: float = 0.0
    cuts_apart: float = 0.0
    bias_outside: float = 0.0
    loose_bias: bool = False
    hands: Hands = Hands.AS_WANTED
    at_hand: int | None = None
    largest: Length | None = None
    ruler: Fit | None = None
    score: float = float("inf")
    drawbacks: tuple[Message, ...] = ()

    @property
    def in_all(self) -> InAll:
        """What is cut and sewn for all that are wanted; nothing for a way that is refused."""
        if self.plan is None:
            return InAll(0, 0, 0.0, 0)
        making, batches = self.plan.simulated.making, self.plan.batches
        pieces = sum(p.count for p in self.plan.pieces)
        return InAll(pieces, making.seams * batches, making.sewn * batches, making.cuts_apart * batches)


@dataclass(frozen=True, slots=True)
class InAll:
    """Pieces to cut from the cloth, seams to sew and their length in inches, and cuts between or through what was sewn."""

    pieces: int
    seams: int
    sewn: float
    cuts_apart: int


@dataclass(frozen=True)
class Comparison:
    """``ways`` are sorted, the recommended one first; ``reason`` says why, and is None when nothing can be recommended."""

    ways: tuple[Way, ...]
    reason: Message | None


def compare(
    choices: Choices,
    *,
    rulers: Sequence[Ruler] = (),
    holdings: Sequence[Holding] = (),
    record: QuilterRecord | None = None,
) -> Comparison:
    """Plan every method and school for one unit and these numbers."""
    ways: list[Way] = []
    for method in methods_of(choices.spec.kind):
        for school in School:
            ways.append(
                _way(replace(choices, method=method.name, school=school, cuts=Cuts()), method, rulers, holdings, record)
            )
    ways.sort(key=lambda w: (w.plan is None, w.score))
    best = ways[0]
    return Comparison(tuple(ways), _reason(best, ways) if best.plan and not best.drawbacks else _least_bad(best))


def _way(
    choices: Choices,
    method: Method,
    rulers: Sequence[Ruler],
    holdings: Sequence[Holding],
    record: QuilterRecord | None,
) -> Way:
    try:
        p = plan(choices, record)
    except PiecingError as refusal:
        return Way(method, choices.school, None, refusal)
    batch, making, simulated = p.batch, p.simulated.making, p.simulated
    kept = simulated.kept * p.wanted
    cloth = float(p.cloth.value)
    way = Way(
        method=method,
        school=choices.school,
        plan=p,
        cloth=cloth,
        waste_share=1 - kept / cloth,
        pieces=sum(piece.count for piece in p.pieces) / p.made,
        seams=making.seams / batch.units,
        sewn=making.sewn / batch.units,
        cuts_apart=making.cuts_apart / batch.units,
        bias_outside=sum(simulated.bias.values()) / 4,
        loose_bias=making.loose_bias,
        hands=batch.hands if p.handed else Hands.AS_WANTED,
        at_hand=units_from(p, holdings) if holdings else None,
        largest=_largest(choices, holdings, record),
        ruler=_ruler(p, rulers) if rulers else None,
    )
    drawbacks = tuple(_drawbacks(way, p))
    return replace(way, drawbacks=drawbacks, score=_score(way, len(drawbacks)))


def _largest(choices: Choices, holdings: Sequence[Holding], record: QuilterRecord | None) -> Length | None:
    sizes = [unit.spec.width for h in holdings if (unit := largest_unit(choices, h, record))]
    return max(sizes, default=None)


def _ruler(p: UnitPlan, rulers: Sequence[Ruler]) -> Fit:
    shown = trimmed_plan(p)
    return fit(rulers, shown.target_width, shown.target_height, diagonal=register_for(shown).diagonal)


def _drawbacks(way: Way, p: UnitPlan) -> list[Message]:
    """What speaks against a way so strongly that another one is recommended when there is one."""
    found = []
    if p.margin < _ENOUGH and not (p.method.exact and p.spec.kind not in _TRIMMED):
        found.append(Message("leaves next to nothing to trim"))
    if way.hands is Hands.HALF_EACH and p.made_as_drawn - p.choices.count != p.made_mirrored - p.choices.mirrored:
        found.append(Message("half of what it gives is the other hand"))
    if p.room is not None and p.room < WANTED_SHARE:
        found.append(Message("only {share} in 100 can be trimmed", share=int(p.room * 100)))
    if way.at_hand is not None and way.at_hand < p.wanted:
        found.append(Message("the pieces at hand give {count}", count=way.at_hand))
    if way.ruler is not None and way.ruler.ruler is None:
        found.append(Message("no ruler of yours trims it"))
    found += [n.said for n in p.notes if n.serious and n.code in ("tips_off", "joined_width")]
    return found


_TRIMMED = ("half_square_triangle", "flying_goose")
"""Kinds that other ways trim: there a way without margin has to be worth its exactness."""


def _score(way: Way, drawbacks: int) -> float:
    """Cloth wasted, and what handling costs: the smaller, the better. Weights are in hundredths of the cloth."""
    steady = {School.LITTLE: 0.0, School.RECORDS: -1.0, School.OWN_MARGIN: 1.0, School.GENEROUS: 2.0, School.EXACT: 6.0}
    return (
        100 * drawbacks
        + 100 * way.waste_share
        + 30 * way.bias_outside
        + 12 * way.loose_bias
        + 3 * way.seams
        + 1.5 * way.pieces
        + steady[way.school]
    )


def _reason(way: Way, ways: Sequence[Way]) -> Message:
    """Why it is first: what it does better than the other ways without a drawback, and what it leaves to trim."""
    assert way.plan is not None
    rivals = [w for w in ways if w.plan is not None and not w.drawbacks and w.method is not way.method]
    best = [
        said
        for better, said in (
            (_least(way, rivals, lambda w: w.cloth), Message("the least cloth")),
            (_least(way, rivals, lambda w: w.in_all.pieces), Message("the fewest pieces to cut")),
            (_least(way, rivals, lambda w: w.in_all.sewn), Message("the least to sew")),
        )
        if better
    ]
    margin = way.plan.margin.round_near(finest_mark(way.plan.choices.ruler_step))
    parts = [Message("about {margin} a side to trim", margin=margin) if margin.sign else Message("nothing to trim")]
    if way.bias_outside < _STRAIGHT:
        parts.append(Message("straight grain outside"))
    if not way.loose_bias:
        parts.append(Message("no loose bias edge to handle"))
    if way.at_hand is not None:
        parts.append(Message("the pieces at hand give {at_hand}", at_hand=way.at_hand))
    listed = Listing(parts, ", ", " and ")
    if best and rivals:
        return Message(
            "Of the ways without a drawback it takes {best}; {parts}.", best=Listing(best, ", ", " and "), parts=listed
        )
    if rivals:
        return Message("No other way without a drawback is better in all: {parts}.", parts=listed)
    return Message("It is the only way without a drawback: {parts}.", parts=listed)


_STRAIGHT = 0.2
"""Share of bias round a unit up to which its edge is called straight grain."""


def _least(way: Way, rivals: Sequence[Way], of: Callable[[Way], float]) -> bool:
    """Whether no rival takes as little."""
    return all(of(way) < of(w) - 1e-9 for w in rivals)


def _least_bad(way: Way) -> Message | None:
    if way.plan is None:
        return None
    return Message("Nothing is without a drawback here; this one {drawback}.", drawback=way.drawbacks[0])
