"""What every way of making a unit answers: sizes in closed form, and a script on the engine.

A new way is a new subclass of ``Method``; plan, ladder, drawings, comparison and tests follow from it. All lengths in
inches: s is the seam allowance, e the take-up, m a margin wanted on every side. Source of every size formula:
docs/theory, section 4.
"""

from __future__ import annotations

from abc import ABC, abstractmethod
from collections.abc import Iterable, Iterator, Mapping
from dataclasses import dataclass
from enum import StrEnum

from ..geometry.sewing import Needle, Piece
from ..lengths import ZERO, Length
from .acts import Moment
from .spec import UnitSpec

__all__ = [
    "CUT_WORDS",
    "Batch",
    "Cuts",
    "Hands",
    "LadderRule",
    "Making",
    "Margins",
    "Method",
    "PieceRule",
    "Spare",
    "even_margins",
    "outgrown",
    "oversize",
]


class Cuts(Mapping[str, Length]):
    """Cut sizes by name, such as large 6 3/4, small 3 7/8."""

    __slots__ = ("_sizes",)

    def __init__(self, sizes: Iterable[tuple[str, Length]] = (), **named: Length) -> None:
        self._sizes: dict[str, Length] = dict(sizes) | named

    def __getitem__(self, name: str) -> Length:
        return self._sizes[name]

    def __iter__(self) -> Iterator[str]:
        return iter(self._sizes)

    def __len__(self) -> int:
        return len(self._sizes)

    def __hash__(self) -> int:
        return hash(tuple(self._sizes.items()))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Cuts) and self._sizes == other._sizes

    def __repr__(self) -> str:
        return f"Cuts({self._sizes!r})"

    def but(self, **named: Length) -> Cuts:
        """The same sizes with some of them otherwise."""
        return Cuts((self._sizes | named).items())


@dataclass(frozen=True, slots=True)
class PieceRule:
    """One kind of piece in a batch: ``need`` bits for it, ``gives`` of them from each piece cut.

    ``size`` names its side, or its width with ``by`` naming its length. ``part`` is the index among the fabrics of the parts; ``mirrored`` ones
    are cut from the other diagonal, as unlike legs ask.
    """

    size: str
    part: int
    need: int
    gives: int = 1
    by: str = ""
    strip: bool = False
    mirrored: bool = False


class Hands(StrEnum):
    AS_WANTED = "as_wanted"
    HALF_EACH = "half_each"


@dataclass(frozen=True, slots=True)
class Spare:
    """What falls off as a usable unit: small half-square triangles of two ``fabrics``, ``count`` a batch, raw size ``raw``."""

    count: int
    raw: Length
    fabrics: tuple[str, str]


@dataclass(frozen=True, slots=True)
class Batch:
    """What one go takes and gives; ``hands`` says which hands of a handed unit come out."""

    pieces: tuple[PieceRule, ...]
    units: int
    hands: Hands = Hands.AS_WANTED
    spares: tuple[Spare, ...] = ()


@dataclass(frozen=True, slots=True)
class Margins:
    """What can come off each side when the unit is trimmed by its design."""

    left: Length
    right: Length
    bottom: Length
    top: Length

    @property
    def sides(self) -> tuple[Length, Length, Length, Length]:
        """Left, right, bottom and top."""
        return self.left, self.right, self.bottom, self.top

    @property
    def least(self) -> Length:
        """What comes off the side with the least room."""
        return min(self.sides)


def even_margins(raw: Length, target: Length) -> Margins:
    """(R - U)/2 on every side."""
    each = (raw - target) / 2
    return Margins(each, each, each, each)


def outgrown(cuts: Cuts, inner: str, take_up: Length, step: Length) -> Cuts:
    """The square large enough for what is trimmed or sewn in it, whose size is ``inner``: that and a diagonal seam have to come out of it."""
    return cuts.but(square=max(cuts["square"], (cuts[inner] + take_up.times_root2()).round_up(step)))


def oversize(allowance: Length, level: int) -> Length:
    """How much larger than its target a unit comes out raw by the rule of thumb for half-square triangles.

    F + 4s gives (2 - √2)s over the target, F + 6s gives (4 - √2)s: the same room is asked of every other method.
    """
    return allowance * (2 * level) - allowance.times_root2()


@dataclass(frozen=True, slots=True)
class LadderRule:
    """Which cut size stands at the head of a ladder of sizes, and what changes it on the way to raw, in words."""

    dimension: str
    head: str
    change: str


@dataclass(frozen=True, slots=True)
class Making:
    """One batch made on the engine: its units as they come off, every act on the way, what was sewn and cut."""

    units: tuple[Piece, ...]
    moments: tuple[Moment, ...]
    sewn: float
    seams: int
    cuts_apart: int
    loose_bias: bool = False


CUT_WORDS = {
    "square": "squares",
    "plain": "plain squares",
    "trimmed": "trimmed between",
    "half": "half triangles",
    "quarter": "quarter triangles",
    "large": "large squares",
    "small": "small squares",
    "wide": "width",
    "tall": "height",
    "corner": "corner squares",
    "corner_0": "lower left corner",
    "corner_1": "lower right corner",
    "corner_2": "upper right corner",
    "corner_3": "upper left corner",
    "strip": "strip width",
    "strip_length": "strip length",
    "band": "band width",
    "band_length": "band length",
    "centre": "centre square",
    "triangle": "triangle squares",
    "half_square": "half-square squares",
    "goose_wide": "goose, wide",
    "goose_tall": "goose, high",
    "sky_wide": "sky, wide",
    "sky_tall": "sky, high",
}
"""What the sizes to cut are called."""


class Method(ABC):
    """One way of making one kind of unit."""

    kind: str
    name: str
    title: str
    line: str
    """What this way is called, and what it is in a line."""
    size_words: Mapping[str, str] = {}
    """What its sizes are called where ``CUT_WORDS`` has no word for them."""

    def size_name(self, size: str) -> str:
        """What one of its sizes is called, the same in the plan, on the piles and on the ticket."""
        return self.size_words.get(size) or CUT_WORDS.get(size) or size.replace("_", " ")

    templated: frozenset[str] = frozenset()
    """Names of sizes that follow from others and are not rounded to the ruler's step."""
    exact: bool = False
    """Whether it comes out exact by nature, with nothing to trim unless everything is cut larger."""

    def refuse(self, spec: UnitSpec, allowance: Length) -> None:  # noqa: B027  most ways refuse nothing
        """Raises a ``PlanError`` when this way cannot make that unit. The kind has checked the unit itself already."""

    @abstractmethod
    def batch(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Batch:
        """What is cut for one go and what comes of it: pieces, units, seams, cloth. Sizes are exact; closed forms are
        in docs/theory.
        """

    @abstractmethod
    def minimum_cuts(self, spec: UnitSpec, allowance: Length, take_up: Length, margin: Length = ZERO) -> Cuts:
        """The smallest sizes, unrounded, that leave ``margin`` on every side."""

    def thumb_cuts(self, spec: UnitSpec, allowance: Length, level: int) -> Cuts:
        """The rule-of-thumb sizes: 1 trims a little, 2 generously."""
        return self.minimum_cuts(spec, allowance, allowance, oversize(allowance, level) / 2)

    def reconciled_cuts(
        self, spec: UnitSpec, wanted: Cuts, cuts: Cuts, seam: tuple[Length, Length], step: Length
    ) -> Cuts:
        """Sizes that depend on rounded ones, brought in line with them.

        ``wanted`` are the sizes before rounding, ``cuts`` after; ``seam`` is the allowance and the take-up.
        """
        return cuts

    @abstractmethod
    def raw(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> tuple[Length, Length]:
        """Width and height of the unit as sewn and pressed."""

    @abstractmethod
    def margins(self, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length) -> Margins:
        """What is to be trimmed off each side of the unit as it comes, negative where cloth is missing."""

    def rungs(
        self, rule: LadderRule, spec: UnitSpec, cuts: Cuts, allowance: Length, take_up: Length
    ) -> tuple[Length, Length, Length, Length]:
        """Cut, raw, trimmed and finished size along one ladder."""
        width, height = self.raw(spec, cuts, allowance, take_up)
        raw, finished = (height, spec.height) if rule.dimension == "height" else (width, spec.width)
        return cuts[rule.head], raw, finished + allowance * 2, finished

    @abstractmethod
    def ladders(self, spec: UnitSpec) -> tuple[LadderRule, ...]:
        """How cut, raw, trimmed and finished sizes follow from one another, across and down."""

    @abstractmethod
    def make(self, spec: UnitSpec, cuts: Mapping[str, float], allowance: float, needle: Needle) -> Making:
        """One batch, step by step on the engine."""
