"""The numbered steps of making one unit, from the piles to what is trimmed: words, pictures, what to check, what goes wrong.

Source: docs/theory, section 15.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from enum import StrEnum

from ..cautions import Risk, cautions
from ..drawings.acts import Wrong, act_back, act_front, wrong_ways
from ..geometry.drawing import Drawing
from ..geometry.sewing import Stack
from ..lengths import Length
from ..messages import Message
from ..planning.on_the_way import bias_said
from ..planning.unit_plan import UnitPlan
from ..units.acts import (
    Apart,
    LayCorner,
    LayPage,
    LayStack,
    MarkLines,
    Moment,
    Opening,
    Sewing,
    Take,
    TrimSquare,
)
from .from_map import SeamWays
from .marking import Marking
from .words import Speaker

__all__ = ["BenchStage", "UnitStep", "WrongSaid", "lighter_on_top", "unit_steps"]


class BenchStage(StrEnum):
    """The stages of the work at the bench."""

    SEW = "sew"
    PRESS = "press"
    TRIM = "trim"
    JOIN = "join"


@dataclass(frozen=True, slots=True)
class WrongSaid:
    """One way to go wrong: how it is seen before sewing, and after."""

    wrong: Wrong
    before: Message
    after: Message


@dataclass(frozen=True, slots=True)
class UnitStep:
    """``key`` is its name for good; ``times`` how often it is done in one go of the method."""

    key: str
    stage: BenchStage
    title: Message
    said: tuple[Message, ...]
    look: tuple[Message, ...]
    times: int
    front: Drawing
    back: Drawing | None
    wrong: tuple[WrongSaid, ...]
    cautions: tuple[Message, ...]
    moment: Moment


_WRONG = {
    "wrong_sides": (
        "Wrong sides together: you see the right side of the upper one.",
        "The allowance stands on the front. Unpick it before it is pressed.",
    ),
    "turned": (
        "Turned: another edge lies at the seam.",
        "The picture is another one. Unpick it, press it flat, lay it anew.",
    ),
    "other_line": (
        "The line runs into the corner instead of across it.",
        "The square folds back beside the corner. Unpick it and draw the other diagonal.",
    ),
    "other_hand": (
        "Left and right exchanged: two alike where a pair is wanted.",
        "It is the mirror image, and no turn makes it right. Unpick the seam.",
    ),
}


def lighter_on_top(moments: tuple[Moment, ...], values: Mapping[str, int]) -> tuple[Moment, ...]:
    """Of two plain squares laid together the lighter comes on top, so that the line shows. What comes out is the same."""
    swapped: dict[str, tuple[LayStack, Moment]] = {}
    for m in moments:
        a = m.act
        if not isinstance(a, LayStack) or a.lower.pieced or a.upper.pieced or m.stack is None:
            continue
        if values.get(a.upper.fabrics[0], 1) > values.get(a.lower.fabrics[0], 1):
            swapped[m.key.split(" ", 1)[1]] = (LayStack(a.upper, a.lower), m)
    if not swapped:
        return moments
    found = []
    for m in moments:
        seam = m.key.split(" ", 1)[-1]
        if seam not in swapped:
            found.append(m)
            continue
        act, lay = swapped[seam]
        assert lay.stack is not None
        stack = Stack(lay.stack.upper, lay.stack.lower, m.stack.stitches) if m.stack is not None else None
        match m.act:
            case MarkLines():
                found.append(replace(m, act=replace(m.act, on=act.upper), before=(lay.stack.lower,)))
            case LayStack():
                found.append(replace(m, act=act, stack=stack))
            case Sewing() | Apart():
                found.append(replace(m, stack=stack))
            case _:
                found.append(m)
    return tuple(found)


def unit_steps(
    plan: UnitPlan,
    names: Mapping[str, str],
    values: Mapping[str, int],
    marking: Marking = Marking.CENTRE,
    letters: Mapping[tuple[str, Length, Length, int], str] | None = None,
    mapped: SeamWays | None = None,
) -> tuple[UnitStep, ...]:
    """Every step of one go, in order. A unit of one piece has none but taking it."""
    speaker = Speaker(plan, names, values, marking, letters, mapped or SeamWays())
    moments = lighter_on_top(plan.simulated.making.moments, values)
    found: list[UnitStep] = []
    lay: Moment | None = None
    laid = {m.key.split(" ", 1)[1]: m for m in moments if isinstance(m.act, LayStack | LayPage | LayCorner)}
    sewn = {m.key.split(" ", 1)[1]: m for m in moments if isinstance(m.act, Sewing)}
    first = True
    for m in moments:
        seam = m.key.split(" ", 1)[-1]
        lay = laid.get(seam)
        act = lay.act if lay and isinstance(lay.act, LayStack | LayPage | LayCorner) else None
        stage, verb, said = _step_words(speaker, m, act)
        if not said:
            continue
        if isinstance(m.act, Sewing) and first:
            said, first = (*said, *speaker.setting()), False
        if isinstance(m.act, Take):
            said = (*said, *bias_said(plan))
        title = speaker.title(verb)
        alt = Message("{title}: {said}", title=title, said=said[0])
        wrong: tuple[WrongSaid, ...] = ()
        if m is lay and seam in sewn:
            ways = wrong_ways(m, sewn[seam], handed=plan.handed)
            wrong = tuple(WrongSaid(w, Message(_WRONG[w.code][0]), Message(_WRONG[w.code][1])) for w in ways)
        found.append(
            UnitStep(
                m.key,
                stage,
                title,
                said,
                speaker.check(m.act, handed=plan.handed),
                m.times,
                act_front(m, alt, _size(plan, m)),
                act_back(m, Message("The same from the back.")),
                wrong,
                _cautions(m),
                m,
            )
        )
    return tuple(found)


def _step_words(
    speaker: Speaker, m: Moment, lay: LayStack | LayPage | LayCorner | None
) -> tuple[BenchStage, str, tuple[Message, ...]]:
    match m.act:
        case Take():
            return BenchStage.SEW, "take", speaker.take(m.act)
        case MarkLines():
            return BenchStage.SEW, "mark", speaker.mark(m.act)
        case LayStack() | LayPage() | LayCorner():
            return BenchStage.SEW, "lay", speaker.lay(m.act)
        case Sewing():
            return BenchStage.SEW, "sew", speaker.sew(m.act, lay)
        case Apart():
            return BenchStage.SEW, "cut", speaker.cut(m.act)
        case Opening():
            return BenchStage.PRESS, "press", speaker.press(m.act.out, lay)
        case TrimSquare():
            if m.act.side is None:
                return BenchStage.PRESS, "measure", speaker.trim(m.act)
            return BenchStage.TRIM, "trim", speaker.trim(m.act)


def _cautions(m: Moment) -> tuple[Message, ...]:
    """Those of the tool that this act takes up; none where nothing can hurt."""
    match m.act:
        case Sewing():
            return cautions(Risk.NEEDLE)
        case Apart() | TrimSquare(side=float()):
            return cautions(Risk.BLADE)
        case Opening():
            return cautions(Risk.IRON)
    return ()


def _size(plan: UnitPlan, m: Moment) -> Length | None:
    """The cut size to write under a picture, where the piece that lies there has one."""
    if isinstance(m.act, MarkLines) and m.act.on.bit is not None:
        return plan.cuts.get(m.act.on.bit.name)
    if isinstance(m.act, LayStack) and m.act.lower.bit is not None:
        return plan.cuts.get(m.act.lower.bit.name)
    return None
