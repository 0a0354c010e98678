"""What is chosen for a unit, and every figure of its plan.

All lengths in inches, areas in square inches. Source: docs/theory, section 4.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from functools import lru_cache

from ..geometry.sewing import Needle
from ..lengths import ZERO, Area, Length, inches
from ..messages import Listing, Message
from ..units import Kind, Method, kind_of
from ..units.design import has_hand
from ..units.method import Batch, Cuts, Margins, PieceRule, Spare
from ..units.notes import Note
from ..units.simulate import Made, simulate_unit
from ..units.spec import UnitSpec
from .schools import School
from .seam import Seam

__all__ = [
    "MOST_UNITS",
    "Choices",
    "CutPiece",
    "UnitPlan",
    "batch_of",
    "comes_in_two_hands",
    "pieces_for_batches",
    "pieces_said",
    "ready_said",
    "simulate_batch",
    "still_to_make",
]


MOST_UNITS = 10_000


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
        """What the unit is trimmed to in height: finished and two allowances."""
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
        """Whether it is as wide as high."""
        return self.width == self.height

    @property
    def area(self) -> Area:
        """Square inches of all pieces of this size."""
        return Area(self.width.area_with(self.height) * self.count)


def pieces_said(pieces: Sequence[CutPiece]) -> Message:
    """Pieces as a list in words, such as "2 of 4 1/2 and 1 of 3 by 6"; fabrics are not named."""
    sizes: dict[tuple[Length, Length], int] = {}
    for p in pieces:
        sizes[p.width, p.height] = sizes.get((p.width, p.height), 0) + p.count
    parts = [
        Message("{n} of {w}" if width == height else "{n} of {w} by {h}", n=count, w=width, h=height)
        for (width, height), count in sizes.items()
    ]
    return Message("{pieces}", pieces=Listing(parts, " and "))


def still_to_make(count: int, mirrored: int, ready: int, spoiled: int = 0) -> tuple[int, int]:
    """Units as drawn and mirrored that are to make when so many are there already; those as drawn are there first. Spoiled ones are
    made again, as drawn where any are wanted so."""
    drawn = min(count, ready)
    left = count - drawn, mirrored - min(mirrored, ready - drawn)
    return (left[0] + spoiled, left[1]) if count else (left[0], left[1] + spoiled)


def ready_said(wanted: int, ready: int) -> Message | None:
    """What is there already, in words; nothing when nothing is."""
    if not ready:
        return None
    if ready >= wanted:
        return Message(
            "{n, plural, one {The one unit is} other {All # units are}} there already: nothing is cut for them. What stands here "
            "is for making them again.",
            n=wanted,
        )
    return Message(
        "{ready, plural, one {One unit is} other {# units are}} there already, so {left} of {wanted} are to make.",
        ready=ready,
        left=wanted - ready,
        wanted=wanted,
    )


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
        """The unit that is planned."""
        return self.choices.spec

    @property
    def told_apart(self) -> bool:
        """Whether there are so many pieces, of several names, that each wants saying which it is."""
        return len(self.pieces) > 2 and len({p.name for p in self.pieces}) > 1

    @property
    def allowance(self) -> Length:
        """The seam allowance that cut sizes rest on."""
        return self.choices.seam_allowance

    @property
    def take_up(self) -> Length:
        """What one seam takes from each side as it is sewn: stitching and half the fold."""
        return self.choices.seam.take_up

    @property
    def target_width(self) -> Length:
        """What the unit is trimmed to in width."""
        return self.choices.target_width

    @property
    def target_height(self) -> Length:
        """What the unit is trimmed to in height."""
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
        """Units wanted, in both hands."""
        return self.choices.count + self.choices.mirrored

    @property
    def made(self) -> int:
        """Units that the pieces give, in both hands."""
        return self.made_as_drawn + self.made_mirrored

    @property
    def spare(self) -> int:
        """Units made beyond those wanted, of either hand."""
        return self.made - self.wanted

    @property
    def batch(self) -> Batch:
        """What is cut for one go of the method, and what comes of it."""
        return batch_of(self.method, self.choices, self.cuts)

    def pieces_for(self, choices: Choices, batches: int) -> tuple[CutPiece, ...]:
        """What so many batches take."""
        return pieces_for_batches(choices, self.batch, self.cuts, batches)

    @property
    def simulated(self) -> Made:
        """One batch of it, sewn on the engine."""
        return simulate_batch(self.method, self.choices, self.cuts)

    @property
    def kept(self) -> Area:
        """The cloth in the units wanted, allowances included."""
        return Area.near(self.simulated.kept * self.wanted)

    @property
    def waste_share(self) -> float:
        """Of the cloth cut, the share that is not in the units wanted."""
        return 1 - float(self.kept.value) / float(self.cloth.value)


def simulate_batch(method: Method, choices: Choices, cuts: Cuts) -> Made:
    """One batch on the engine, with this quilter's seam."""
    seam = choices.seam
    sizes = {name: float(size) for name, size in cuts.items()}
    needle = Needle.of(float(seam.stitch), float(seam.fold))
    return simulate_unit(method, choices.spec, sizes, float(choices.seam_allowance), needle)


@lru_cache(maxsize=512)
def comes_in_two_hands(spec: UnitSpec) -> bool:
    """Whether this unit, with these fabrics, is another one in the mirror."""
    return has_hand(kind_of(spec.kind).design(spec))


def batch_of(method: Method, choices: Choices, cuts: Cuts) -> Batch:
    """What is cut for one go of a method at these cut sizes, and what comes of it."""
    return method.batch(choices.spec, cuts, choices.seam_allowance, choices.seam.take_up)


def pieces_for_batches(choices: Choices, batch: Batch, cuts: Cuts, batches: int) -> tuple[CutPiece, ...]:
    """What to cut of each fabric: bits of one kind are taken from whole pieces, odd ones counted as left over."""
    needs: dict[tuple[str, PieceRule], int] = {}
    for rule in batch.pieces:
        same = replace(rule, part=0, need=0)
        needs[choices.spec.part_fabrics[rule.part], same] = (
            needs.get((choices.spec.part_fabrics[rule.part], same), 0) + rule.need
        )
    pieces = []
    for (role, rule), need in needs.items():
        count = -(-need * batches // rule.gives)
        width, height = cuts[rule.size], cuts[rule.by or rule.size]
        left_over = count * rule.gives - need * batches
        if rule.strip:
            height, count = height * count, 1
        pieces.append(CutPiece(role, rule.size, width, height, count, rule.gives, left_over))
    return tuple(pieces)
