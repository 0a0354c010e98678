"""Any finished size: what every track comes to, where the ruler has no mark for it, and the nearest sizes that avoid it.

Source: docs/theory, section 12.1.
"""

from __future__ import annotations

import re
from dataclasses import dataclass
from fractions import Fraction

from ..errors import LengthError, PiecingError, SizeOutOfRange, TracksDoNotAddUp
from ..lengths import ZERO, Length, Measure, inches, parse_length
from ..messages import Message
from ..planning.checks import LARGEST_FINISHED, SMALLEST_FINISHED
from ..units import Method, UnitSpec, kind_of, methods_of
from .editing import Side
from .pattern import Layout, Pattern, whole_parts

__all__ = [
    "BlockSize",
    "BlockSizes",
    "NearSize",
    "OddUnit",
    "TrackSize",
    "TracksGiven",
    "block_size",
    "check_finished",
    "parts_text",
    "sizes",
    "tracks_from_text",
]

LARGEST_BLOCK = inches(200)


@dataclass(frozen=True, slots=True)
class TrackSize:
    """One column or row: its finished size, whether the ruler has a mark for it, and its share of the whole."""

    name: str
    finished: Length
    on_step: bool
    share: float


@dataclass(frozen=True, slots=True)
class NearSize:
    """A block size at which every unit falls on ``step``; ``larger`` than the one asked for, or smaller."""

    finished: Length
    step: Length
    larger: bool


@dataclass(frozen=True, slots=True)
class OddUnit:
    """A unit of the block that needs a word: ``said`` tells how it is trimmed all the same, or why it cannot be."""

    place: str
    said: Message
    serious: bool = False


@dataclass(frozen=True, slots=True)
class BlockSize:
    """Finished and unfinished, never one without the other."""

    finished: Length
    finished_height: Length
    unfinished: Length
    unfinished_height: Length


@dataclass(frozen=True, slots=True)
class BlockSizes:
    """``unit_sizes`` are the distinct finished sizes of its units."""

    block: BlockSize
    columns: tuple[TrackSize, ...]
    rows: tuple[TrackSize, ...]
    unit_sizes: tuple[tuple[Length, Length, int], ...]
    nearest: tuple[NearSize, ...]
    odd: tuple[OddUnit, ...]

    @property
    def off_step(self) -> tuple[TrackSize, ...]:
        """Columns and rows whose finished size is on no mark of the ruler."""
        return tuple(t for t in (*self.columns, *self.rows) if not t.on_step)


def parts_text(tracks: tuple[Fraction, ...]) -> str:
    """Tracks as they are typed: "1 1 1"."""
    return " ".join(str(t) for t in tracks)


@dataclass(frozen=True, slots=True)
class TracksGiven:
    """Columns and rows as parts, or where any of them was given as sizes both in inches (``sized``): the block then finishes what they come
    to, and else what it does. ``one`` is the side that alone was typed, where the other stays."""

    columns: tuple[Fraction, ...]
    rows: tuple[Fraction, ...]
    one: Side | None
    sized: bool = False


def tracks_from_text(
    pattern: Pattern,
    finished: Length,
    columns: str = "",
    rows: str = "",
    measure: Measure = Measure.INCHES,
    *,
    grows: bool = False,
) -> TracksGiven:
    """Tracks as people type them for a block that is ``finished`` wide: plain whole numbers are parts; sizes, parted by commas or plus
    signs, are finished lengths. Beside sizes, what is typed empty or as it was stays at its size.

    Raises ``TracksDoNotAddUp`` when sizes do not come to what the block measures that way, unless it ``grows`` with them, and
    ``LengthNotUnderstood`` for a size that cannot be read.
    """
    sides = ((Side.COLUMNS, columns, pattern.columns), (Side.ROWS, rows, pattern.rows))
    parts = {field: _parts(text, now) for field, text, now in sides}
    changed = [field for field in Side if parts[field] != ()]
    one = changed[0] if len(changed) == 1 else None
    sizes = {field: _sizes(text, field, measure) for field, text, _ in sides if parts[field] is None}
    if not sizes:
        return TracksGiven(parts[Side.COLUMNS] or pattern.columns, parts[Side.ROWS] or pattern.rows, one)
    whole = {Side.COLUMNS: finished, Side.ROWS: finished / pattern.width * pattern.height}
    if not grows or not finished.is_rational:
        for field, given in sizes.items():
            _add_up(given, whole[field], field)
    # Both in inches: else a size on the one side would change what the other side measures.
    wide, high = (
        tuple(x.rational for x in sizes[field])
        if field in sizes
        else _shared(whole[field].rational, parts[field] or now)
        for field, _, now in sides
    )
    return TracksGiven(wide, high, one, sized=True)


def _parts(text: str, now: tuple[Fraction, ...]) -> tuple[Fraction, ...] | None:
    """Parts as typed, none of them where nothing is changed; None for what is to be read as sizes."""
    text = text.strip()
    if not text or text == parts_text(now):
        return ()
    return tuple(Fraction(t) for t in text.split()) if re.fullmatch(r"[0-9]{1,6}(\s+[0-9]{1,6})*", text) else None


def _shared(whole: Fraction, parts: tuple[Fraction, ...]) -> tuple[Fraction, ...]:
    return tuple(whole * t / (sum(parts) or 1) for t in parts)


def _sizes(text: str, field: str, measure: Measure) -> tuple[Length, ...]:
    try:
        return tuple(parse_length(t, measure) for t in re.split(r"[,;+]", text) if t.strip())
    except LengthError as refusal:
        raise refusal.at(field) from None


def _add_up(sizes: tuple[Length, ...], whole: Length, field: Side) -> None:
    total = sum(sizes, ZERO)
    if total != whole:
        raise TracksDoNotAddUp(
            "These add up to {total}, and the block finishes {finished} {way}: {over} too {which}. Change a size, or let the block "
            "finish {total} {way}.",
            field=field,
            total=total,
            finished=whole,
            way="across" if field is Side.COLUMNS else "down",
            over=abs(total - whole),
            which="much" if total > whole else "little",
        )


def check_finished(finished: Length, field: str = "finished") -> None:
    """Raises ``SizeOutOfRange`` unless a block of this width can be sewn."""
    if not SMALLEST_FINISHED <= finished <= LARGEST_BLOCK:
        raise SizeOutOfRange(
            "A block finishes between {least} and {most}. Check the size, and whether inches or millimetres are meant.",
            field=field,
            least=SMALLEST_FINISHED,
            most=LARGEST_BLOCK,
        )


def block_size(layout: Layout, finished: Length, allowance: Length) -> BlockSize:
    """Joined, a block measures two allowances more than it will show."""
    height = layout.part(finished) * layout.pattern.height
    return BlockSize(finished, height, finished + allowance * 2, height + allowance * 2)


def sizes(layout: Layout, finished: Length, allowance: Length, step: Length) -> BlockSizes:
    """Every size of a block. Raises ``SizeOutOfRange``."""
    check_finished(finished)
    pattern, part = layout.pattern, layout.part(finished)
    return BlockSizes(
        block_size(layout, finished, allowance),
        _tracks(pattern.columns, part, step, "column"),
        _tracks(pattern.rows, part, step, "row"),
        _unit_sizes(layout, part),
        _nearest(layout, finished, step),
        tuple(_odd(layout, part, allowance, step)),
    )


def _tracks(tracks: tuple[Fraction, ...], part: Length, step: Length, what: str) -> tuple[TrackSize, ...]:
    whole = sum(tracks)
    return tuple(
        TrackSize(f"{what} {n + 1}", part * t, (part * t).on_step(step), float(t / whole)) for n, t in enumerate(tracks)
    )


def _unit_sizes(layout: Layout, part: Length) -> tuple[tuple[Length, Length, int], ...]:
    found: dict[tuple[Fraction, Fraction], int] = {}
    for c, n in layout.shapes:
        size = (c.height, c.width) if c.orientation.across else (c.width, c.height)
        found[size] = found.get(size, 0) + n
    return tuple((part * w, part * h, n) for (w, h), n in sorted(found.items(), reverse=True))


def _shares(layout: Layout) -> set[Fraction]:
    """Every track and unit side as a share of the block's width."""
    p = layout.pattern
    own = {*p.columns, *p.rows}
    return {s / p.width for s in own | {x for c, _ in layout.shapes for x in (c.width, c.height)}}


def _nearest(layout: Layout, finished: Length, step: Length) -> tuple[NearSize, ...]:
    """Sizes S with S times every share a multiple of the step are the multiples of step times one number."""
    shares = _shares(layout)
    smallest = whole_parts(shares)
    if all((finished * s).on_step(step) for s in shares):
        return ()
    found: dict[Length, NearSize] = {}
    for coarser in (4, 2, 1):
        grid = step * coarser * smallest
        for size, larger in ((finished.round_up(grid), True), (finished.round_down(grid), False)):
            if size > ZERO and size <= LARGEST_BLOCK and (coarser == 1 or abs(size - finished) <= finished / 8):
                found.setdefault(size, NearSize(size, step * coarser, larger))
    return tuple(sorted(found.values(), key=lambda n: (abs(n.finished - finished), n.finished)))[:4]


def _odd(layout: Layout, part: Length, allowance: Length, step: Length) -> list[OddUnit]:
    """Units that no ruler mark cuts exactly, or that cannot be planned as they stand; each kind and size said once."""
    said: dict[UnitSpec, OddUnit | None] = {}
    for c, _ in layout.shapes:
        spec = c.spec(part)
        if spec in said:
            continue
        word = _word(spec, allowance, step)
        said[spec] = OddUnit(layout.pattern.places[c.place].name, *word) if word else None
    return list({(o.said, o.serious): o for o in said.values() if o}.values())


def _word(spec: UnitSpec, allowance: Length, step: Length) -> tuple[Message, bool] | None:
    try:
        if (
            min(spec.width, spec.height) < max(SMALLEST_FINISHED, allowance)
            or max(spec.width, spec.height) > LARGEST_FINISHED
        ):
            return Message(
                "A unit that finishes {w} by {h} cannot be sewn with this seam. Make the block larger.",
                w=spec.width,
                h=spec.height,
            ), True
        kind_of(spec.kind).check(spec, allowance)
        ways = [m for m in methods_of(spec.kind) if _can_be_made(m, spec, allowance)]
    except PiecingError as refusal:
        return refusal.said, True
    if not ways:
        return Message("No way known here makes a unit that finishes {w} by {h}.", w=spec.width, h=spec.height), True
    if spec.kind == "flying_goose" and spec.width != spec.height * 2:
        return Message(
            "A goose {w} by {h} is not twice as wide as high: its triangles are cut from a template.",
            w=spec.width,
            h=spec.height,
        ), False
    if spec.kind == "square_in_square":
        centre = next(
            size for size in ways[0].minimum_cuts(spec, allowance, allowance).values() if not size.is_rational
        )
        return (
            Message(
                "The square on its point finishes {inner}, a size no ruler shows. Cut it {cut} (exactly it would be {exact}), "
                "cut its corner triangles large, and trim to {target} with each tip {s} in from the raw edge.",
                inner=spec.width.over_root2(),
                cut=centre.round_near(step),
                exact=centre,
                target=spec.width + allowance * 2,
                s=allowance,
            ),
            False,
        )
    return None


def _can_be_made(method: Method, spec: UnitSpec, allowance: Length) -> bool:
    try:
        method.refuse(spec, allowance)
    except PiecingError:
        return False
    return True
