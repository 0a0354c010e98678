"""What a quilter should know of a plan before she cuts."""

from __future__ import annotations

from ..lengths import ZERO, inches
from ..messages import Message
from ..units import methods_of
from ..units.method import Hands
from ..units.notes import Note, method_notes
from .room import WANTED_SHARE
from .unit_plan import UnitPlan

__all__ = ["notes_of"]


_HAIR = inches("1/64")


def notes_of(p: UnitPlan) -> tuple[Note, ...]:
    """What is worth knowing of a plan before cloth is cut, the most pressing first."""
    found = [
        _room_note(p),
        _tip_note(p),
        _hand_note(p),
        _off_ruler_note(p),
        _spare_note(p),
        *method_notes(p.method, p),
        _by_records(p),
    ]
    return tuple(n for n in found if n)


def _room_note(p: UnitPlan) -> Note | None:
    if p.margin > _HAIR:
        return None
    if p.method.exact and p.margin == ZERO:
        return Note(
            "comes_out_exact", Message("This way comes out exact: cut and sewn true, there is nothing to trim.")
        )
    return Note(
        "no_margin",
        Message(
            "This leaves {margin} a side, a hair or nothing: any wobble in seam or cut makes a unit too small.",
            margin=p.margin,
        ),
        serious=True,
    )


def _tip_note(p: UnitPlan) -> Note | None:
    if not p.tip_set or p.method.exact:
        return None
    return Note(
        "tip_set",
        Message(
            "The tip stands {s} below the raw edge whatever the seam: trim the sides and the bottom, true the top.",
            s=p.allowance,
        ),
    )


def _hand_note(p: UnitPlan) -> Note | None:
    if not p.handed:
        return None
    other = p.made_mirrored - p.choices.mirrored
    over = p.made_as_drawn - p.choices.count
    if p.batch.hands is Hands.AS_WANTED or max(other, over) == 0:
        return Note("has_a_hand", Message("This unit has a hand: turned it stays itself, mirrored it is another unit."))
    one_handed = [
        m.title.lower()
        for m in methods_of(p.spec.kind)
        if m.batch(
            p.spec, p.cuts if m is p.method else m.minimum_cuts(p.spec, p.allowance, p.take_up), p.allowance, p.take_up
        ).hands
        is Hands.AS_WANTED
    ]
    return Note(
        "half_of_each_hand",
        Message(
            "This unit has a hand, and this way gives as many mirrored ones as ones as drawn: {spare} of {made} are not among "
            "those you want. Made from {other_way}, all are of the hand you want."
            if one_handed
            else "This unit has a hand, and this way gives as many mirrored ones as ones as drawn: {spare} of {made} are not "
            "among those you want.",
            spare=p.spare,
            made=p.made,
            other_way=one_handed[0] if one_handed else "",
        ),
        serious=True,
    )


def _off_ruler_note(p: UnitPlan) -> Note | None:
    step = p.choices.ruler_step
    off = next((t for t in (p.target_width, p.target_height) if not t.on_step(step)), None)
    if off is None:
        return None
    return Note(
        "target_off_ruler",
        Message(
            "The trim target {target} falls between the marks of a ruler in steps of {step}.", target=off, step=step
        ),
    )


def _spare_note(p: UnitPlan) -> Note | None:
    if p.spare <= 0 or (p.handed and p.batch.hands is Hands.HALF_EACH):
        return None
    return Note(
        "spare_unit",
        Message(
            "The method gives {units} at a time, so {n, plural, one {one unit is} other {# units are}} left over.",
            units=p.batch.units,
            n=p.spare,
        ),
    )


def _by_records(p: UnitPlan) -> Note | None:
    if p.room is None or p.room >= WANTED_SHARE:
        return None
    return Note(
        "fewer_than_99",
        Message(
            "By your own seam only {share} in 100 units can be trimmed on all four sides.", share=int(100 * p.room)
        ),
        serious=True,
    )
