"""From a finished size to what to cut: one unit's plan, and the same under every other school.

All lengths in inches, areas in square inches. Source: docs/theory.md, sections 4 and 5.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from .errors import CountOutOfRange, CutTooSmall, PiecingError, SeamTooWide, SizeOutOfRange
from .geometry.sewing import Needle
from .lengths import ZERO, Area, Length, inches
from .oversize import WANTED_SHARE, QuilterRecord, School, room_share, rounded, school_cuts
from .seams import Seam
from .units import Kind, Method, kind_of, method_for, methods_of
from .units.design import has_hand
from .units.method import Batch, Cuts, Hands, Margins, PieceRule, Spare
from .units.notes import Note, method_notes
from .units.simulate import Made, made
from .units.spec import UnitSpec
from .wording import Said

__all__ = [
    "LARGEST_FINISHED",
    "MOST_UNITS",
    "SMALLEST_FINISHED",
    "Choices",
    "CutPiece",
    "Note",
    "SchoolOffer",
    "SeamCost",
    "UnitPlan",
    "check_allowance",
    "check_finished",
    "finished_unit",
    "handed",
    "offers",
    "pieces_of",
    "pieces_said",
    "plan",
    "seam_cost",
]

SMALLEST_FINISHED = inches("1/4")
LARGEST_FINISHED = inches(60)
MOST_UNITS = 10_000
_HAIR = inches("1/64")


@dataclass(frozen=True)
class Choices:
    """What the quilter decides. ``cuts`` holds sizes that are cut already, by name; the school names the others.

    ``count`` units are wanted as drawn, ``mirrored`` of the other hand.
    """

    spec: UnitSpec
    method: str
    school: School = School.LITTLE
    count: int = 1
    mirrored: int = 0
    seam_allowance: Length = inches("1/4")
    stitch: Length | None = None
    fold: Length = ZERO
    ruler_step: Length = inches("1/8")
    own_margin: Length | None = None
    cuts: Cuts = field(default_factory=Cuts)

    @property
    def seam(self) -> Seam:
        """The seam as this quilter sews it; at the nominal allowance unless told otherwise."""
        return Seam(self.stitch or self.seam_allowance, self.fold)

    @property
    def target_width(self) -> Length:
        """U = F + 2s: the trim target, raw edge to raw edge."""
        return self.row(1)

    @property
    def target_height(self) -> Length:
        return self.spec.height + self.seam_allowance * 2

    def row(self, units: int) -> Length:
        """n F + 2s: what a joined row of ``units`` should measure, raw edge to raw edge."""
        return self.spec.width * units + self.seam_allowance * 2


@dataclass(frozen=True, slots=True)
class CutPiece:
    """``count`` pieces of one fabric and size; cut further, each ``gives`` 2 or 4 triangles. A strip has its whole length."""

    role: str
    name: str
    width: Length
    height: Length
    count: int
    gives: int = 1
    left_over: int = 0

    @property
    def is_square(self) -> bool:
        return self.width == self.height

    @property
    def area(self) -> Area:
        return Area(self.width.area_with(self.height) * self.count)


def pieces_said(pieces: Sequence[CutPiece]) -> Said:
    """Pieces as a list in words, such as "2 of 4 1/2 and 1 of 3 by 6"; fabrics are not named."""
    sizes: dict[tuple[Length, Length], int] = {}
    for p in pieces:
        sizes[p.width, p.height] = sizes.get((p.width, p.height), 0) + p.count
    parts: list[str] = []
    values: dict[str, Length] = {}
    for n, ((width, height), count) in enumerate(sizes.items()):
        values |= {f"w{n}": width, f"h{n}": height}
        parts.append(f"{count} of {{w{n}}}" if width == height else f"{count} of {{w{n}}} by {{h{n}}}")
    return Said(" and ".join(parts), **values)


@dataclass(frozen=True)
class UnitPlan:
    """Every figure of one unit's plan."""

    choices: Choices
    kind: Kind
    method: Method
    cuts: Cuts
    raw_width: Length
    raw_height: Length
    margins: Margins
    batches: int
    made_as_drawn: int
    made_mirrored: int
    handed: bool
    pieces: tuple[CutPiece, ...]
    spares: tuple[Spare, ...]
    cloth: Area
    room: float | None
    notes: tuple[Note, ...]

    @property
    def spec(self) -> UnitSpec:
        return self.choices.spec

    @property
    def allowance(self) -> Length:
        return self.choices.seam_allowance

    @property
    def take_up(self) -> Length:
        return self.choices.seam.take_up

    @property
    def target_width(self) -> Length:
        return self.choices.target_width

    @property
    def target_height(self) -> Length:
        return self.choices.target_height

    def raw_at(self, take_up: Length, *, cut_off: Length = ZERO) -> Length:
        """What a ruler reads before trimming, along the first ladder, with another take-up and every piece cut off so."""
        cuts = Cuts((name, size + cut_off) for name, size in self.cuts.items())
        rule = self.method.ladders(self.spec)[0]
        return self.method.rungs(rule, self.spec, cuts, self.allowance, take_up)[1]

    @property
    def tip_set(self) -> bool:
        """A goose whose tip stands just one allowance below the raw edge, whatever the seam: its top needs no room."""
        return self.spec.kind == "flying_goose" and self.margins.top == ZERO and self.margins.bottom > ZERO

    @property
    def margin(self) -> Length:
        """What can come off on the side with the least room; a tip that is set already does not count."""
        m = self.margins
        return min(m.left, m.right, m.bottom) if self.tip_set else m.least

    @property
    def wanted(self) -> int:
        return self.choices.count + self.choices.mirrored

    @property
    def made(self) -> int:
        return self.made_as_drawn + self.made_mirrored

    @property
    def spare(self) -> int:
        """Units made beyond those wanted, of either hand."""
        return self.made - self.wanted

    @property
    def batch(self) -> Batch:
        return _batch(self.method, self.choices, self.cuts)

    def pieces_for(self, choices: Choices, batches: int) -> tuple[CutPiece, ...]:
        """What so many batches take."""
        return _pieces(choices, self.batch, self.cuts, batches)

    @property
    def simulated(self) -> Made:
        """One batch of it, sewn on the engine."""
        return simulated(self.method, self.choices, self.cuts)

    @property
    def kept(self) -> Area:
        """The cloth in the units wanted, allowances included."""
        return Area.near(self.simulated.kept * self.wanted)

    @property
    def waste_share(self) -> float:
        """Of the cloth cut, the share that is not in the units wanted."""
        return 1 - float(self.kept.value) / float(self.cloth.value)


@dataclass(frozen=True, slots=True)
class SchoolOffer:
    """One school for these choices: its plan, or why it has none."""

    school: School
    plan: UnitPlan | None
    refusal: PiecingError | None = None


def simulated(method: Method, choices: Choices, cuts: Cuts) -> Made:
    """One batch on the engine, with this quilter's seam."""
    seam = choices.seam
    sizes = {name: float(size) for name, size in cuts.items()}
    needle = Needle.of(float(seam.stitch), float(seam.fold))
    return made(method, choices.spec, sizes, float(choices.seam_allowance), needle)


@lru_cache(maxsize=512)
def handed(spec: UnitSpec) -> bool:
    """Whether this unit, with these fabrics, is another one in the mirror."""
    return has_hand(kind_of(spec.kind).design(spec))


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


def check_finished(spec: UnitSpec) -> None:
    """Raises ``SizeOutOfRange`` for a unit too small to be sewn or larger than any bed."""
    for size, name in ((spec.width, "finished"), (spec.height, "height")):
        if not SMALLEST_FINISHED <= size <= LARGEST_FINISHED:
            raise SizeOutOfRange(
                "A unit finishes between 1/4 in. and 60 in. Check the size, and whether inches or millimetres are meant.",
                field=name,
            )


def _check(choices: Choices) -> Kind:
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
    kind, method = _check(choices), method_for(choices.spec.kind, choices.method)
    spec, allowance, take_up = choices.spec, choices.seam_allowance, choices.seam.take_up
    method.refuse(spec, allowance)
    cuts = _cuts(choices, method, record)
    margins = method.margins(spec, cuts, allowance, take_up)
    if margins.least < ZERO:
        _refuse_small(choices, method, cuts, take_up)
    batch = _batch(method, choices, cuts)
    is_handed = handed(spec)
    batches, drawn, mirrored = _goes(choices, batch, is_handed)
    pieces = _pieces(choices, batch, cuts, batches)
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
    return replace(made_plan, notes=_notes(made_plan))


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
    given = {name: size for name, size in choices.cuts.items() if name in by_school}
    if any(size <= ZERO or size > LARGEST_FINISHED * 4 for size in given.values()):
        raise SizeOutOfRange("A cut size is above zero and under 240 in.", field="cut")
    return by_school.but(**given)


def _batch(method: Method, choices: Choices, cuts: Cuts) -> Batch:
    return method.batch(choices.spec, cuts, choices.seam_allowance, choices.seam.take_up)


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


def _pieces(choices: Choices, batch: Batch, cuts: Cuts, batches: int) -> tuple[CutPiece, ...]:
    """What to cut of each fabric: bits of one kind are taken from whole pieces, odd ones counted as left over."""
    needs: dict[tuple[str, PieceRule], int] = {}
    for rule in batch.pieces:
        same = replace(rule, part=0, need=0)
        needs[choices.spec.ring[rule.part], same] = needs.get((choices.spec.ring[rule.part], same), 0) + rule.need
    pieces = []
    for (role, rule), need in needs.items():
        count = -(-need * batches // rule.gives)
        width, height = cuts[rule.size], cuts[rule.by or rule.size]
        left_over = count * rule.gives - need * batches
        if rule.strip:
            height, count = height * count, 1
        pieces.append(CutPiece(role, rule.size, width, height, count, rule.gives, left_over))
    return tuple(pieces)


def pieces_of(choices: Choices) -> tuple[CutPiece, ...]:
    """The pieces of one batch at the school's sizes, without asking whether the unit makes sense."""
    method = method_for(choices.spec.kind, choices.method)
    cuts = _cuts(choices, method, None)
    return _pieces(choices, _batch(method, choices, cuts), cuts, 1)


def _refuse_small(choices: Choices, method: Method, cuts: Cuts, take_up: Length) -> None:
    spec, allowance = choices.spec, choices.seam_allowance
    smallest = rounded(method, spec, method.bare(spec, allowance, take_up), allowance, take_up, choices.ruler_step)
    name = next((n for n in choices.cuts if n in cuts and cuts[n] < smallest[n]), next(iter(cuts)))
    raise CutTooSmall(
        "Cut at {cut}, this sews to less than the trim target of {target}. The smallest that works is {smallest}.",
        field=f"cuts.{name}",
        cut=cuts[name],
        target=choices.target_width,
        smallest=smallest[name],
    )


def _notes(p: UnitPlan) -> tuple[Note, ...]:
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
        return Note("comes_out_exact", Said("This way comes out exact: cut and sewn true, there is nothing to trim."))
    return Note(
        "no_margin",
        Said(
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
        Said(
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
        return Note("has_a_hand", Said("This unit has a hand: turned it stays itself, mirrored it is another unit."))
    one_handed = [
        m.name.replace("_", " ")
        for m in methods_of(p.spec.kind)
        if m.batch(
            p.spec, p.cuts if m is p.method else m.bare(p.spec, p.allowance, p.take_up), p.allowance, p.take_up
        ).hands
        is Hands.AS_WANTED
    ]
    return Note(
        "half_of_each_hand",
        Said(
            "This unit has a hand, and this way gives as many mirrored ones as ones as drawn: {spare} of {made} are not "
            "among those you want." + (" Made from {other_way}, all are of the hand you want." if one_handed else ""),
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
        Said("The trim target {target} falls between the marks of a ruler in steps of {step}.", target=off, step=step),
    )


def _spare_note(p: UnitPlan) -> Note | None:
    if p.spare <= 0 or (p.handed and p.batch.hands is Hands.HALF_EACH):
        return None
    return Note(
        "spare_unit",
        Said("The method gives {units} at a time, so {spare} left over.", units=p.batch.units, spare=_are(p.spare)),
    )


def _are(number: int) -> str:
    return "one unit is" if number == 1 else f"{number} units are"


def _by_records(p: UnitPlan) -> Note | None:
    if p.room is None or p.room >= WANTED_SHARE:
        return None
    return Note(
        "fewer_than_99",
        Said("By your own seam only {share} in 100 units can be trimmed on all four sides.", share=int(100 * p.room)),
        serious=True,
    )


def offers(choices: Choices, record: QuilterRecord | None = None) -> tuple[SchoolOffer, ...]:
    """The same unit under every school, in the schools' own order."""

    def one(school: School) -> SchoolOffer:
        try:
            return SchoolOffer(school, plan(replace(choices, school=school, cuts=Cuts()), record))
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
