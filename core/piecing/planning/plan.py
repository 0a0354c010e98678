"""From a finished size to what to cut: one unit's plan, and the same under every other school.

All lengths in inches, areas in square inches. Source: docs/theory, sections 4 and 5.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from ..errors import CountOutOfRange, CutTooSmall, PiecingError, SeamTooWide, SizeOutOfRange
from ..lengths import ZERO, Area, Length
from ..units import Kind, Method, kind_of, method_for
from ..units.method import Batch, Cuts, Hands
from ..units.notes import Note
from .checks import LARGEST_FINISHED, check_allowance, check_finished
from .notes import notes_of
from .room import QuilterRecord, room_share
from .schools import School, rounded, school_cuts
from .unit_plan import MOST_UNITS, Choices, CutPiece, UnitPlan, batch_of, comes_in_two_hands, pieces_for_batches

__all__ = ["Note", "SchoolOffer", "finished_unit", "offers", "pieces_of", "plan"]


@dataclass(frozen=True, slots=True)
class SchoolOffer:
    """One school for these choices: its plan, or why it has none."""

    school: School
    plan: UnitPlan | None
    refusal: PiecingError | None = None


def finished_unit(block: Length, across: int) -> Length:
    """The finished size of one unit in a block of ``across`` equal units."""
    if not 1 <= across <= 100:
        raise CountOutOfRange("A block has between 1 and 100 units across.", field="units_across")
    return block / across


def checked_kind(choices: Choices) -> Kind:
    """The kind of a choice that can be made. Raises a ``PlanError`` or ``SeamTooWide`` that says what works instead."""
    spec = choices.spec
    check_finished(spec)
    check_allowance(choices.seam_allowance)
    if choices.seam_allowance > min(spec.width, spec.height):
        raise SeamTooWide(
            "The seam allowance is wider than the unit finishes. Give a larger unit or a smaller allowance.",
            field="seam_allowance",
        )
    if choices.stitch is not None and abs(choices.stitch - choices.seam_allowance) > choices.seam_allowance / 2:
        raise SeamTooWide(
            "Stitches lie within half an allowance of the seam allowance; scant is a thread or two under it.",
            field="stitch",
        )
    if not min(choices.count, choices.mirrored) >= 0 or not 1 <= choices.count + choices.mirrored <= MOST_UNITS:
        raise CountOutOfRange("Plan between 1 and {most} units.", field="count", most=f"{MOST_UNITS:,}")
    kind = kind_of(spec.kind)
    kind.check(spec, choices.seam_allowance)
    return kind


def plan(choices: Choices, record: QuilterRecord | None = None) -> UnitPlan:
    """Work out one unit.

    Raises ``SizeOutOfRange``, ``SeamTooWide``, ``CountOutOfRange``; what the kind and the method refuse;
    ``CutTooSmall`` (with the smallest cut that works in its data) when given cuts cannot reach the target; and what
    ``school_cuts`` raises.
    """
    kind, method = checked_kind(choices), method_for(choices.spec.kind, choices.method)
    spec, allowance, take_up = choices.spec, choices.seam_allowance, choices.seam.take_up
    method.refuse(spec, allowance)
    cuts = _cuts(choices, method, record)
    margins = method.margins(spec, cuts, allowance, take_up)
    if margins.least < ZERO and choices.cuts:
        # Less than the school would take may go with what is cut already.
        cuts = _beside_given(choices, method, _smallest(choices, method))
        margins = method.margins(spec, cuts, allowance, take_up)
    if margins.least < ZERO:
        _refuse_small(choices, method, cuts)
    batch = batch_of(method, choices, cuts)
    is_handed = comes_in_two_hands(spec)
    batches, drawn, mirrored = _goes(choices, batch, is_handed)
    pieces = pieces_for_batches(choices, batch, cuts, batches)
    raw_width, raw_height = method.raw(spec, cuts, allowance, take_up)
    made_plan = UnitPlan(
        choices=choices,
        kind=kind,
        method=method,
        cuts=cuts,
        raw_width=raw_width,
        raw_height=raw_height,
        margins=margins,
        batches=batches,
        made_as_drawn=drawn,
        made_mirrored=mirrored,
        handed=is_handed,
        pieces=pieces,
        spares=tuple(replace(s, count=s.count * batches) for s in batch.spares),
        cloth=Area.sum(p.area for p in pieces),
        room=None,
        notes=(),
    )
    if record:
        room = room_share(method, spec, cuts, allowance, record, top=not made_plan.tip_set)
        made_plan = replace(made_plan, room=room)
    return replace(made_plan, notes=notes_of(made_plan))


def _cuts(choices: Choices, method: Method, record: QuilterRecord | None) -> Cuts:
    """The school's sizes, with those that are cut already put in their place."""
    take_up = choices.seam.take_up
    by_school = school_cuts(
        choices.school,
        method,
        choices.spec,
        choices.seam_allowance,
        take_up,
        choices.ruler_step,
        own_margin=choices.own_margin,
        record=record,
    )
    return _beside_given(choices, method, by_school) if choices.cuts else by_school


def _beside_given(choices: Choices, method: Method, cuts: Cuts) -> Cuts:
    """The ``cuts`` with those that are cut already in their place, and with what depends on these brought in line with them."""
    given = {name: size for name, size in choices.cuts.items() if name in cuts}
    if any(size <= ZERO or size > LARGEST_FINISHED * 4 for size in given.values()):
        raise SizeOutOfRange("A cut size is above zero, {most} at most.", field="cut", most=LARGEST_FINISHED * 4)
    laid = cuts.but(**given)
    seam = choices.seam_allowance, choices.seam.take_up
    return method.reconciled_cuts(choices.spec, laid, laid, seam, choices.ruler_step).but(**given)


def _smallest(choices: Choices, method: Method) -> Cuts:
    spec, allowance, take_up = choices.spec, choices.seam_allowance, choices.seam.take_up
    least = method.minimum_cuts(spec, allowance, take_up)
    return rounded(method, spec, least, allowance, take_up, choices.ruler_step)


def _goes(choices: Choices, batch: Batch, is_handed: bool) -> tuple[int, int, int]:
    """How many batches, and how many units of each hand they give."""
    if not is_handed or batch.hands is Hands.AS_WANTED:
        total = choices.count + choices.mirrored
        batches = -(-total // batch.units)
        over = batches * batch.units - total
        drawn = choices.count + over if is_handed else batches * batch.units
        return batches, drawn, batches * batch.units - drawn
    each = batch.units // 2
    batches = max(-(-choices.count // each), -(-choices.mirrored // each))
    return batches, batches * each, batches * each


def pieces_of(choices: Choices) -> tuple[CutPiece, ...]:
    """The pieces of one batch at the school's sizes, without asking whether the unit makes sense."""
    method = method_for(choices.spec.kind, choices.method)
    cuts = _cuts(choices, method, None)
    return pieces_for_batches(choices, batch_of(method, choices, cuts), cuts, 1)


def _refuse_small(choices: Choices, method: Method, cuts: Cuts) -> None:
    smallest, seam = _smallest(choices, method), (choices.seam_allowance, choices.seam.take_up)
    beside = method.reconciled_cuts(choices.spec, cuts, cuts, seam, choices.ruler_step)
    least = {n: max(smallest[n], beside[n]) for n in cuts}
    name = next((n for n in choices.cuts if n in cuts and cuts[n] < least[n]), next(iter(cuts)))
    if least[name] > smallest[name]:
        raise CutTooSmall(
            "Cut at {cut} beside the others, this sews to less than it should. The smallest that goes with them is {smallest}.",
            field=f"cuts.{name}",
            cut=cuts[name],
            smallest=least[name],
        )
    raise CutTooSmall(
        "Cut at {cut}, this sews to less than the trim target of {target}. The smallest that works is {smallest}.",
        field=f"cuts.{name}",
        cut=cuts[name],
        target=choices.target_width,
        smallest=smallest[name],
    )


def offers(choices: Choices, record: QuilterRecord | None = None) -> tuple[SchoolOffer, ...]:
    """The same unit under every school, in the schools' own order."""

    def one(school: School) -> SchoolOffer:
        try:
            return SchoolOffer(school, plan(replace(choices, school=school, cuts=Cuts()), record))
        except PiecingError as refusal:
            return SchoolOffer(school, None, refusal)

    return tuple(one(school) for school in School)
