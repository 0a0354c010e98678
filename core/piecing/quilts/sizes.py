"""Blocks to a quilt: straight, on point or staggered; sashing, borders, backing, binding, and every plain piece to cut.

All sizes are finished unless they are called cut. Source: docs/theory, section 12.8.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from ..errors import QuiltImpossible
from ..lengths import ZERO, Length, inches
from ..messages import Message
from .backing import Backing, Binding, backings_of, binding_of, binding_piece, sleeve_piece
from .borders import QuiltPart, Round, part_pieces, rounds_of
from .choices import PlainPiece, QuiltChoices, Setting, block_spots, plain_piece

__all__ = [
    "MOST_BORDERS",
    "ROW_SASH",
    "QuiltCentre",
    "QuiltSizes",
    "centre_of",
    "diagonal_rows",
    "put_together",
    "quilt_sizes",
    "row_sash",
    "sashes_along",
]

_MOST_BLOCKS = 900
MOST_BORDERS = 12
ROW_SASH = "sashing between rows"
"""What strips beside whole rows are called, at the least."""
_MOST_ACROSS = inches(200)
_WIDEST, _SLEEVE, _BORDER = inches(24), (inches(2), inches(12)), (inches("1/4"), inches(30))


@dataclass(frozen=True)
class QuiltSizes:
    """``centre`` is the blocks with their sashing; ``finished`` the whole; ``unfinished`` has its outer allowances. ``rounds`` are
    its borders from the inside out; ``parts`` what is pieced beside the blocks.
    """

    choices: QuiltChoices
    centre_width: Length
    centre_height: Length
    width: Length
    height: Length
    pieces: tuple[PlainPiece, ...]
    backing: tuple[Backing, ...]
    binding: Binding
    notes: tuple[Message, ...]
    rounds: tuple[Round, ...] = ()
    parts: tuple[QuiltPart, ...] = ()

    @property
    def unfinished_width(self) -> Length:
        """Across with the allowance that the binding covers."""
        return self.width + self.choices.seam_allowance * 2

    @property
    def unfinished_height(self) -> Length:
        """Down with the allowance that the binding covers."""
        return self.height + self.choices.seam_allowance * 2

    @property
    def blocks(self) -> int:
        """Blocks in the quilt."""
        return self.choices.blocks

    def piece(self, name: str) -> PlainPiece:
        """The plain pieces of that name. Raises ``KeyError`` where none is cut."""
        return {p.name: p for p in self.pieces}[name]


@dataclass(frozen=True, slots=True)
class QuiltCentre:
    """The blocks with what is sewn between and beside them, inside the borders; ``pieces`` are the plain ones of it."""

    width: Length
    height: Length
    pieces: tuple[PlainPiece, ...]
    parts: tuple[QuiltPart, ...] = ()


@lru_cache(maxsize=128)
def quilt_sizes(c: QuiltChoices) -> QuiltSizes:
    """Every size of a quilt. Raises ``QuiltImpossible``."""
    _check(c)
    centre = centre_of(c)
    found = put_together(c, centre, rounds_of(c, centre.width, centre.height))
    if max(found.width, found.height) > _MOST_ACROSS:
        raise QuiltImpossible(
            "The quilt would finish {w} by {h}; {most} is the most, either way.",
            field="columns",
            w=found.width,
            h=found.height,
            most=_MOST_ACROSS,
        )
    return found


def centre_of(c: QuiltChoices) -> QuiltCentre:
    """The centre of a quilt whose choices were found possible."""
    pieces: list[PlainPiece] = []
    match c.setting:
        case Setting.STRAIGHT | Setting.BY_HAND:
            size = _straight(c, pieces)
        case Setting.ON_POINT:
            size = _on_point(c, pieces)
        case Setting.STAGGERED:
            size = _staggered_size(c, pieces)
    return QuiltCentre(*size, tuple(pieces), _half_blocks(c))


def put_together(c: QuiltChoices, centre: QuiltCentre, rounds: tuple[Round, ...]) -> QuiltSizes:
    """The centre within its borders, with all that is cut for them, for its back and its edge."""
    width, height, pieces = centre.width, centre.height, list(centre.pieces)
    parts = centre.parts + part_pieces(c, rounds, pieces)
    outer = (rounds[-1].wide, rounds[-1].high) if rounds else (width, height)
    binding = binding_of(c, *outer)
    pieces.append(binding_piece(c, binding))
    if c.sleeve > ZERO:
        pieces.append(sleeve_piece(c, outer[0]))
    notes = (*_notes(c), *(m for r in rounds if r.row for m in r.row.notes))
    return QuiltSizes(
        c,
        width,
        height,
        *outer,
        tuple(p for p in pieces if p.count),
        backings_of(c, *outer),
        binding,
        notes,
        rounds,
        parts,
    )


def _check(c: QuiltChoices) -> None:
    if not (1 <= c.columns <= 60 and 1 <= c.rows <= 60) or c.blocks > _MOST_BLOCKS:
        raise QuiltImpossible(
            "A quilt has 1 to 60 blocks across and down, {most} in all.", field="columns", most=_MOST_BLOCKS
        )
    for size, field in ((c.block_width, "block_width"), (c.binding_strip, "binding_strip"), (c.usable, "usable")):
        if size <= c.seam_allowance:
            raise QuiltImpossible("This must be larger than a seam allowance, {s}.", field=field, s=c.seam_allowance)
    if c.binding_strip > _WIDEST / 2:
        raise QuiltImpossible("A binding strip is cut {most} wide at most.", field="binding_strip", most=_WIDEST / 2)
    for size, field in ((c.sash, "sash"), (c.oversize, "oversize"), (c.backing_over, "backing_over")):
        if size < ZERO or size > _WIDEST:
            raise QuiltImpossible("Give zero or more, {most} at most.", field=field, most=_WIDEST)
    if c.setting is Setting.BY_HAND and c.columns * c.rows != 1:
        raise QuiltImpossible("A quilt laid by hand has one centre, not rows of it.", field="columns")
    if c.setting is Setting.ON_POINT and c.block_width != c.block_height:
        raise QuiltImpossible(
            "Only square blocks stand on point: this one finishes {w} by {h}.",
            field="setting",
            w=c.block_width,
            h=c.block_height,
        )
    if c.setting is Setting.STAGGERED and c.sash > ZERO:
        raise QuiltImpossible(
            "Staggered blocks are set edge to edge. Take the sashing away, or set them straight.",
            field="sash",
        )
    if c.setting is Setting.STAGGERED and not 0 < c.stagger < 1:
        raise QuiltImpossible("Columns lie lower by a part of the block, such as 1/2 or 1/3.", field="stagger")
    if c.sleeve != ZERO and not _SLEEVE[0] <= c.sleeve <= _SLEEVE[1]:
        raise QuiltImpossible(
            "A hanging sleeve finishes {least} to {most} deep.", field="sleeve", least=_SLEEVE[0], most=_SLEEVE[1]
        )
    if len(c.borders) > MOST_BORDERS:
        raise QuiltImpossible("{most} borders at most.", field="borders", most=MOST_BORDERS)
    for n, b in enumerate(c.borders):
        if not _BORDER[0] <= b.width <= _BORDER[1]:
            raise QuiltImpossible(
                "A border finishes between {least} and {most}.",
                field=f"borders.{n}.width",
                least=_BORDER[0],
                most=_BORDER[1],
            )


def _straight(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    across, down = sashes_along(c, c.columns), sashes_along(c, c.rows)
    width = c.block_width * c.columns + c.sash * across
    height = c.block_height * c.rows + c.sash * down
    if c.sash > ZERO:
        _sashing(c, across, down, width, pieces)
    return width, height


def sashes_along(c: QuiltChoices, blocks: int) -> int:
    """Sashes that a row or column of so many blocks is sewn with; on point they always go round the outer blocks too."""
    if c.sash == ZERO:
        return 0
    return blocks + 1 if c.sash_round or c.setting is Setting.ON_POINT else blocks - 1


def _sashing(c: QuiltChoices, across: int, down: int, width: Length, pieces: list[PlainPiece]) -> None:
    pieces.append(plain_piece(c, "sashing beside blocks", c.sash_fabric, c.sash, c.block_height, across * c.rows))
    if c.cornerstones:
        pieces.append(
            plain_piece(c, "sashing above and below blocks", c.sash_fabric, c.sash, c.block_width, down * c.columns)
        )
        pieces.append(plain_piece(c, "cornerstone", c.cornerstone_fabric, c.sash, c.sash, across * down))
    else:
        measure = Message("Measure the rows before cutting; cut all to one length.")
        piece = plain_piece(c, row_sash(c, c.columns), c.sash_fabric, c.sash, width, down, c.oversize, measure)
        pieces.append(replace(piece, later=c.oversize == ZERO))


def _on_point(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    """Setting triangles carry the straight grain on the quilt's edge: side ones are quarters of a square, corners halves."""
    pitch = c.block_width + c.sash
    step = pitch.times_root2()
    extra = c.sash.times_root2()  # sashing on point always goes round the outer blocks
    width, height = step * c.columns + extra, step * c.rows + extra
    inner_columns, inner_rows = c.columns - 1, c.rows - 1
    sides = 2 * inner_columns + 2 * inner_rows
    s, over = c.seam_allowance, c.oversize
    # A quarter of a square G finishes a long edge of G less (2 + 2√2)s; a half of S finishes a short edge of S less (2 + √2)s.
    side_square = (step + s * 2 + s.times_root2() * 2 + over).round_up(c.ruler_step)
    corner_leg = (pitch + c.sash).over_root2()
    corner_square = (corner_leg + s * 2 + s.times_root2() + over).round_up(c.ruler_step)
    grain = Message("Straight grain along the quilt's edge. Trim to {s} beyond the blocks' corners.", s=s)
    pieces.append(
        PlainPiece(
            "side setting triangle",
            c.setting_fabric,
            step,
            step.over_root2(),
            side_square,
            side_square,
            -(-sides // 4),
            4,
            sides,
            grain,
        )
    )
    pieces.append(
        PlainPiece(
            "corner setting triangle",
            c.setting_fabric,
            corner_leg,
            corner_leg,
            corner_square,
            corner_square,
            2,
            2,
            4,
            grain,
        )
    )
    if c.sash > ZERO:
        _sashing_on_point(c, pieces)
    return width, height


def _sashing_on_point(c: QuiltChoices, pieces: list[PlainPiece]) -> None:
    """Diagonal rows: a sash between any two blocks of a row and at its ends; then sashing between rows, whole or pieced."""
    rows = diagonal_rows(c)
    pieces.append(
        plain_piece(c, "sashing beside blocks", c.sash_fabric, c.sash, c.block_width, sum(len(r) + 1 for r in rows))
    )
    between = [len(a | b) for a, b in zip((set(), *rows), (*rows, set()), strict=True)]
    if c.cornerstones:
        pieces.append(
            plain_piece(c, "sashing above and below blocks", c.sash_fabric, c.sash, c.block_width, sum(between))
        )
        pieces.append(plain_piece(c, "cornerstone", c.cornerstone_fabric, c.sash, c.sash, sum(n + 1 for n in between)))
        return
    for n in sorted(set(between)):
        length = c.block_width * n + c.sash * (n + 1)
        piece = plain_piece(c, row_sash(c, n), c.sash_fabric, c.sash, length, between.count(n), c.oversize)
        pieces.append(replace(piece, later=c.oversize == ZERO))


def row_sash(c: QuiltChoices, blocks: int) -> str:
    """What the sashing beside rows of so many blocks is called; on point rows are of several lengths."""
    if c.setting is not Setting.ON_POINT:
        return ROW_SASH
    return f"{ROW_SASH}, {blocks} block{'s' if blocks > 1 else ''} long"


def diagonal_rows(c: QuiltChoices) -> list[set[int]]:
    """The blocks of each diagonal row, corner to corner, by where they stand in it."""
    rows: dict[int, set[int]] = {}
    for column, row in block_spots(c):
        rows.setdefault(column + row, set()).add(column - row)
    return [rows[k] for k in sorted(rows)]


def _staggered_size(c: QuiltChoices, pieces: list[PlainPiece]) -> tuple[Length, Length]:
    """Every second column lower by a share of a block, with plain cloth at its head and foot unless parts of blocks go there."""
    lower = c.columns // 2
    if not c.half_blocks:
        head, foot = (c.block_height * share for share in (c.stagger, 1 - c.stagger))
        if head == foot:
            pieces.append(plain_piece(c, "half-block filler", c.setting_fabric, c.block_width, head, 2 * lower))
        else:
            pieces.append(plain_piece(c, "filler at the head", c.setting_fabric, c.block_width, head, lower))
            pieces.append(plain_piece(c, "filler at the foot", c.setting_fabric, c.block_width, foot, lower))
    return c.block_width * c.columns, c.block_height * c.rows


def _half_blocks(c: QuiltChoices) -> tuple[QuiltPart, ...]:
    lower = c.columns // 2
    if c.setting is not Setting.STAGGERED or not c.half_blocks or not lower:
        return ()
    return (
        QuiltPart("head", None, c.block_width, c.block_height * c.stagger, lower),
        QuiltPart("foot", None, c.block_width, c.block_height * (1 - c.stagger), lower),
    )


def _notes(c: QuiltChoices) -> list[Message]:
    said = []
    if c.setting is Setting.ON_POINT:
        said.append(
            Message(
                "On point, a block that finishes {b} takes {d} across the quilt.",
                b=c.block_width,
                d=(c.block_width + c.sash).times_root2(),
            )
        )
    if c.setting is Setting.STAGGERED and c.columns < 2:
        said.append(Message("One column alone has nothing to be staggered against."))
    return said
