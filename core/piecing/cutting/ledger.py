"""The ledger of cuts: what each pile should hold, what was cut for it, what was spoiled or taken away, and what is left to cut.

A pile is known by its fabric, its size and how often it is cut further; its letter stays with it for the life of the
project, also while nothing of it is wanted. For every pile, at every time:

    cut + left = wanted + spoiled + given + over

Source: docs/theory, section 13.9.
"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace

from ..lengths import ZERO, Length
from ..solver import Stop
from .plan import ClothPlan, CuttingPlan, Goal, LeftOver, Missing, cutting_plan, laid_again, number_strips
from .stock import Cloth, ClothKind, WantedPiece

__all__ = [
    "Entry",
    "Pile",
    "PileKey",
    "ledger",
    "of_pile",
    "pieces_left",
    "plan_of_the_rest",
    "remains",
    "spare_cloths",
    "ticked_pieces",
]

PileKey = tuple[str, Length, Length, int]
"""Fabric, width, height, into how many it is cut further."""
_OF_PILE = "pile:"
_WORTH_KEEPING = 2.0


@dataclass(frozen=True, slots=True)
class Entry:
    """What is kept of a pile: its letter, what it is, and how many pieces were cut, spoiled, and given away (cut smaller for
    another pile, or put with the scraps); of pieces that are cut further, how many single triangles were put by."""

    letter: str
    fabric: str
    width: Length
    height: Length
    gives: int = 1
    name: str = ""
    cut: int = 0
    spoiled: int = 0
    given: int = 0
    put_by: int = 0

    @property
    def key(self) -> PileKey:
        """What makes it the same pile."""
        return self.fabric, self.width, self.height, self.gives


@dataclass(frozen=True, slots=True)
class Pile:
    """A pile as it stands: its entry, how many pieces are wanted, and how they may lie on the cloth.

    ``ready`` triangles for it lie in the stock; ``wanted`` counts only the squares that are cut beside them. ``bits`` is how
    many triangles are wanted in all.
    """

    entry: Entry
    wanted: int
    turns: bool = True
    along_cloth: bool = False
    joined: bool = False
    bits: int = 0
    ready: int = 0

    @property
    def odd(self) -> int:
        """Single triangles that are over once everything is cut and fewer than a square gives; none before that."""
        if self.entry.gives == 1 or self.left or not self.entry.cut:
            return 0
        return max(0, self.have * self.entry.gives - self.entry.put_by - self.bits + self.ready) % self.entry.gives

    @property
    def have(self) -> int:
        """Sound pieces on the pile."""
        return self.entry.cut - self.entry.spoiled - self.entry.given

    @property
    def left(self) -> int:
        """Pieces still to cut."""
        return max(0, self.wanted - self.have)

    @property
    def cut_when_done(self) -> int:
        """The count of cut pieces once all that is left is cut."""
        return self.entry.cut + self.left

    @property
    def over(self) -> int:
        """Pieces that are there and no longer wanted."""
        return max(0, self.have - self.wanted)

    @property
    def piece(self) -> WantedPiece:
        """All that is wanted of it, under its letter."""
        e = self.entry
        return WantedPiece(
            e.letter,
            e.fabric,
            e.width,
            e.height,
            self.wanted,
            e.name,
            self.turns,
            e.gives,
            self.along_cloth,
            self.joined,
        )


def _key(p: WantedPiece) -> PileKey:
    return p.fabric, p.width, p.height, p.gives


def ledger(wanted: Iterable[WantedPiece], kept: Iterable[Entry], ready: Iterable[Cloth] = ()) -> tuple[Pile, ...]:
    """Every pile that is wanted or was ever cut for, in the order of the letters; new ones take the next letters, those of one
    fabric together and the largest first. ``ready`` are triangles in the stock: they are used before squares are cut."""
    asked: dict[PileKey, WantedPiece] = {}
    for p in wanted:
        known = asked.get(_key(p))
        names = [*(known.name.split("; ") if known else [])]
        names += [n for n in p.name.split("; ") if n not in names]
        asked[_key(p)] = replace(
            p,
            count=p.count + (known.count if known else 0),
            name="; ".join(names),
            along_cloth=p.along_cloth or (known is not None and known.along_cloth),
            joined=p.joined or (known is not None and known.joined),
            bits=p.bits_wanted + (known.bits_wanted if known else 0),
        )
    entries = {e.key: e for e in kept}
    fresh = [p for key, p in asked.items() if key not in entries]
    fresh.sort(key=lambda p: (p.fabric, -float(p.width) * float(p.height), -float(p.height), p.gives))
    taken = {e.letter for e in entries.values()}
    letters = (letter for n in range(len(taken) + len(fresh)) if (letter := letter_of(n)) not in taken)
    for p, letter in zip(fresh, letters, strict=False):
        entries[_key(p)] = Entry(letter, p.fabric, p.width, p.height, p.gives, p.name)
    piles = _with_ready([_pile(e, asked.get(key)) for key, e in entries.items()], ready)
    return tuple(sorted(piles, key=lambda p: (len(p.entry.letter), p.entry.letter)))


def _pile(entry: Entry, wanted: WantedPiece | None) -> Pile:
    if wanted is None:
        return Pile(entry, 0)
    named = replace(entry, name=wanted.name)
    return Pile(named, wanted.count, wanted.turns, wanted.along_cloth, wanted.joined, wanted.bits_wanted)


def _with_ready(piles: Iterable[Pile], ready: Iterable[Cloth]) -> list[Pile]:
    """Triangles from the stock given to the piles that are short of them: the largest piles first, each the smallest that do."""
    left = {c: c.count for c in sorted(ready, key=lambda c: float(c.across))}
    found = []
    for p in sorted(piles, key=lambda p: -float(p.entry.width)):
        e = p.entry
        have = p.have * e.gives - e.put_by
        if e.gives == 1 or not (left or e.put_by):
            found.append(p)
            continue
        used = 0
        for c in left:
            if (c.fabric, c.kind.of_a_square) == (e.fabric, e.gives) and c.across >= e.width:
                take = min(left[c], max(0, p.bits - have - used))
                left[c] -= take
                used += take
        if used or e.put_by:
            short = p.bits - have - used
            # Whole squares to cut beside what lies there, or whole squares that are over.
            p = replace(p, ready=used, wanted=p.have + -(-short // e.gives))
        found.append(p)
    return found


def letter_of(n: int) -> str:
    """A to Z, then A2 to Z2, and so on, counted from 0."""
    return chr(ord("A") + n % 26) + (str(n // 26 + 1) if n >= 26 else "")


def pieces_left(piles: Iterable[Pile]) -> tuple[WantedPiece, ...]:
    """What is still to cut, under the piles' letters."""
    return tuple(replace(p.piece, count=p.left) for p in piles if p.left)


def spare_cloths(piles: Iterable[Pile]) -> tuple[Cloth, ...]:
    """Pieces that are no longer wanted, as cloth to cut smaller ones from; those meant for diagonals may be triangles by now."""
    return tuple(
        Cloth(
            _OF_PILE + p.entry.letter,
            p.entry.fabric,
            p.entry.width,
            p.entry.height,
            ClothKind.SCRAP,
            p.over,
            f"pieces of pile {p.entry.letter} no longer wanted",
        )
        for p in piles
        if p.over and p.entry.gives == 1
    )


def of_pile(cloth: Cloth) -> str:
    """The letter of the pile that a cloth is a piece of; empty for cloth from the stock."""
    return cloth.key.removeprefix(_OF_PILE).split("#")[0] if cloth.key.startswith(_OF_PILE) else ""


def plan_of_the_rest(
    piles: Sequence[Pile],
    stock: Sequence[Cloth],
    goal: Goal = Goal.LEAST,
    seconds: float = 5.0,
    stop: Stop | None = None,
) -> CuttingPlan:
    """Only what is still to cut: first from pieces that are no longer wanted, then from the stock.

    What those give is not taken from the stock, so this never uses more of it than planning everything afresh from what is
    left would. Raises ``NothingToCut`` when nothing is left to cut.
    """
    wanted, spare = pieces_left(piles), spare_cloths(piles)
    if not spare or not wanted:
        return cutting_plan(wanted, stock, goal, seconds, stop)
    first = cutting_plan(wanted, spare, Goal.LEAST, seconds / 4, stop)
    still = {m.piece.key: m.count for m in first.missing}
    rest = [replace(p, count=still[p.key]) for p in wanted if still.get(p.key)]
    if not rest:
        return replace(first, goal=goal)
    second = cutting_plan(rest, stock, goal, seconds * 3 / 4, stop)
    whole = {p.key: p for p in wanted}
    missing = tuple(Missing(whole[m.piece.key], m.count) for m in second.missing)
    return CuttingPlan(goal, number_strips([*first.cloths, *second.cloths]), missing, second.gap, second.proven)


def ticked_pieces(plan: CuttingPlan, done: Iterable[int]) -> tuple[Mapping[str, int], Mapping[str, int]]:
    """By letter: pieces that the strips ticked off have given, and pieces of piles that were cut up for them."""
    ticked = set(done)
    cut, given = Counter[str](), Counter[str]()
    for cloth in plan.cloths:
        strips = [s for s in cloth.strips if s.number in ticked]
        cut.update(p.piece.key for s in strips for p in s.placed)
        if strips and of_pile(cloth.cloth):
            given[of_pile(cloth.cloth)] += 1
    return cut, given


def remains(cloth: ClothPlan, done: Iterable[int]) -> tuple[LeftOver, ...]:
    """What is left of a cloth once only the strips ticked off are cut: whole widths between them, and what is over in them."""
    ticked = set(done)
    whole = laid_again(cloth)
    name = cloth.cloth.called
    found: list[LeftOver] = []
    uncut, at = ZERO, ZERO
    for s in sorted(cloth.strips, key=lambda s: float(s.y)):
        if s.number in ticked:
            if at > uncut:
                found.append(_run(cloth.cloth, name, uncut, at - uncut))
            uncut = s.y + s.depth
        at = s.y + s.depth
    if cloth.cloth.along > uncut:
        found.append(_run(cloth.cloth, name, uncut, cloth.cloth.along - uncut))
    cut = [s for s in cloth.strips if s.number in ticked]
    within = [x for x in whole.left if any(s.y <= x.y < s.y + s.depth for s in cut)]
    keep = [x for x in found if float(x.height) >= _WORTH_KEEPING and float(x.width) >= _WORTH_KEEPING]
    return (*keep, *within)


def _run(cloth: Cloth, name: str, y: Length, height: Length) -> LeftOver:
    rest = name if name.startswith("rest of ") else f"rest of {name}"
    return LeftOver(rest, cloth.fabric, ZERO, y, cloth.across, height)
