"""From a finished size to what to cut: one unit's plan, and the same under every other school.

All lengths in inches, areas in square inches. Source: docs/theory.md, sections 4 and 5.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from fractions import Fraction

from .errors import CountOutOfRange, CutTooSmall, PiecingError, SeamTooWide, SizeOutOfRange
from .lengths import ZERO, Area, Length, inches
from .oversize import QuilterRecord, School, room_share, school_cut
from .seams import Seam
from .units import CutPieces, UnitMethod, method_for
from .wording import Said

__all__ = [
    "LARGEST_FINISHED",
    "MOST_UNITS",
    "SMALLEST_FINISHED",
    "Choices",
    "Note",
    "SchoolOffer",
    "SeamCost",
    "UnitPlan",
    "check_allowance",
    "finished_unit",
    "offers",
    "plan",
    "seam_cost",
]

SMALLEST_FINISHED = inches("1/4")
LARGEST_FINISHED = inches(60)
MOST_UNITS = 10_000
_HAIR = inches("1/64")


@dataclass(frozen=True, slots=True)
class Choices:
    """What the quilter decides. ``cut`` is set when the squares are already cut, else the school names it."""

    finished: Length
    kind: str = "half_square_triangle"
    method: str = "pair"
    school: School = School.LITTLE
    count: int = 1
    seam_allowance: Length = inches("1/4")
    stitch: Length | None = None
    fold: Length = ZERO
    ruler_step: Length = inches("1/8")
    own_margin: Length | None = None
    cut: Length | None = None

    @property
    def seam(self) -> Seam:
        """The seam as this quilter sews it; at the nominal allowance unless told otherwise."""
        return Seam(self.stitch or self.seam_allowance, self.fold)

    @property
    def target(self) -> Length:
        """U = F + 2s: the trim target, raw edge to raw edge."""
        return self.row(1)

    def row(self, units: int) -> Length:
        """n F + 2s: what a joined row of ``units`` should measure, raw edge to raw edge."""
        return self.finished * units + self.seam_allowance * 2


@dataclass(frozen=True, slots=True)
class Note:
    """Something the plan has to say: a stable ``code``; ``serious`` when it should stop the scissors."""

    code: str
    said: Said
    serious: bool = False


@dataclass(frozen=True, slots=True)
class UnitPlan:
    """Every figure of one unit's plan."""

    choices: Choices
    method: UnitMethod
    cut: Length
    raw: Length
    batches: int
    made: int
    pieces: tuple[CutPieces, ...]
    cloth: Area
    trimmings: Area
    room: float | None
    notes: tuple[Note, ...]

    @property
    def target(self) -> Length:
        return self.choices.target

    @property
    def finished(self) -> Length:
        return self.choices.finished

    @property
    def margin(self) -> Length:
        """(R - U)/2: what can come off each side."""
        return (self.raw - self.target) / 2

    @property
    def spare(self) -> int:
        """Units made beyond those wanted."""
        return self.made - self.choices.count

    @property
    def waste_share(self) -> float:
        """Of the cloth cut, the share that ends as trimmings or in spare units."""
        cloth, trimmings = float(self.cloth.value), float(self.trimmings.value)
        return (trimmings * self.choices.count + cloth * self.spare) / (cloth * self.made)


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


def check_allowance(allowance: Length) -> None:
    """Raises ``SeamTooWide`` unless it is above zero and at most an inch."""
    if not ZERO < allowance <= Length.of(1):
        raise SeamTooWide(
            "The seam allowance is above zero and at most 1 in.; 1/4 in. is usual.", field="seam_allowance"
        )


def _check(choices: Choices) -> None:
    if not SMALLEST_FINISHED <= choices.finished <= LARGEST_FINISHED:
        raise SizeOutOfRange(
            "A unit finishes between 1/4 in. and 60 in. Check the size, and whether inches or millimetres are meant.",
            field="finished",
        )
    check_allowance(choices.seam_allowance)
    if choices.seam_allowance > choices.finished:
        raise SeamTooWide(
            "The seam allowance is wider than the unit finishes. Give a larger unit or a smaller allowance.",
            field="seam_allowance",
        )
    if choices.stitch is not None and abs(choices.stitch - choices.seam_allowance) > choices.seam_allowance / 2:
        raise SeamTooWide(
            "Stitches lie within half an allowance of the seam allowance; scant is a thread or two under it.",
            field="stitch",
        )
    if not 1 <= choices.count <= MOST_UNITS:
        raise CountOutOfRange("Plan between 1 and {most} units.", field="count", most=f"{MOST_UNITS:,}")


def plan(choices: Choices, record: QuilterRecord | None = None) -> UnitPlan:
    """Work out one unit.

    Raises ``SizeOutOfRange``, ``SeamTooWide``, ``CountOutOfRange``; ``CutTooSmall`` (with the smallest cut
    that works in its data) when a given cut cannot reach the target; and what ``school_cut`` raises.
    """
    _check(choices)
    method = method_for(choices.kind, choices.method)
    take_up = choices.seam.take_up
    cut = choices.cut if choices.cut is not None else _by_school(choices, method, take_up, record)
    raw = method.raw(cut, take_up)
    if raw < choices.target:
        _refuse_small(choices, method, take_up)
    batches = -(-choices.count // method.batch.units)
    made = batches * method.batch.units
    pieces = tuple(CutPieces(role, n * batches, cut) for role, n in method.batch.squares_per_role)
    return UnitPlan(
        choices=choices,
        method=method,
        cut=cut,
        raw=raw,
        batches=batches,
        made=made,
        pieces=pieces,
        cloth=Area(cut.area_with(cut) * sum(p.count for p in pieces)),
        trimmings=Area(method.trimmings(cut, choices.target, take_up) * made),
        room=room_share(method, cut, choices.target, record) if record else None,
        notes=_notes(choices, cut, (raw - choices.target) / 2, made),
    )


def _by_school(choices: Choices, method: UnitMethod, take_up: Length, record: QuilterRecord | None) -> Length:
    return school_cut(
        choices.school,
        method,
        choices.finished,
        choices.seam_allowance,
        take_up,
        choices.ruler_step,
        own_margin=choices.own_margin,
        record=record,
    )


def _refuse_small(choices: Choices, method: UnitMethod, take_up: Length) -> None:
    smallest = method.cut_for(choices.target, take_up).round_up(choices.ruler_step)
    raise CutTooSmall(
        "Squares of {cut} sew to less than the trim target of {target}. The smallest that works is {smallest}.",
        field="cut",
        cut=choices.cut or smallest,
        target=choices.target,
        smallest=smallest,
    )


def _notes(choices: Choices, cut: Length, margin: Length, made: int) -> tuple[Note, ...]:
    notes = []
    if margin <= _HAIR:
        notes.append(
            Note(
                "no_margin",
                Said(
                    "This leaves {margin} a side, a hair or nothing: any wobble in seam or cut makes a unit too small.",
                    margin=margin,
                ),
                serious=True,
            )
        )
    if not choices.target.on_step(choices.ruler_step):
        notes.append(
            Note(
                "target_off_ruler",
                Said(
                    "The trim target {target} falls between the marks of a ruler in steps of {step}.",
                    target=choices.target,
                    step=choices.ruler_step,
                ),
            )
        )
    if cut > Length.of(Fraction(20)):
        notes.append(
            Note(
                "wider_than_ruler",
                Said("These squares are wider than most rulers: cut with two, or on the mat's lines."),
            )
        )
    if made > choices.count:
        notes.append(Note("spare_unit", Said("The method gives two at a time, so one unit is left over.")))
    return tuple(notes)


def offers(choices: Choices, record: QuilterRecord | None = None) -> tuple[SchoolOffer, ...]:
    """The same unit under every school, in the schools' own order."""

    def one(school: School) -> SchoolOffer:
        try:
            return SchoolOffer(school, plan(replace(choices, school=school, cut=None), record))
        except PiecingError as refusal:
            return SchoolOffer(school, None, refusal)

    return tuple(one(school) for school in School)


@dataclass(frozen=True, slots=True)
class SeamCost:
    """What ``slip`` too much take-up in every inner seam costs a row of ``units``."""

    units: int
    seams: int
    slip: Length
    cost: Length


def seam_cost(across: int, slip: Length) -> SeamCost:
    """2(n - 1) times the slip, for a row of ``across`` units; of two, when there is but one."""
    units = max(2, across)
    return SeamCost(units, units - 1, slip, slip * (2 * (units - 1)))
