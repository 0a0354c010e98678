"""Every refusal the core can give.

    PiecingError
    ├── LengthError
    │   ├── LengthNotUnderstood     length_not_understood
    │   ├── LengthOutOfRange        length_out_of_range
    │   └── InexactLength           inexact_length
    ├── SeamError
    │   └── StripTestImpossible     strip_test_impossible
    ├── PlanError
    │   ├── SizeOutOfRange          size_out_of_range
    │   ├── SeamTooWide             seam_too_wide
    │   ├── CutTooSmall             cut_too_small
    │   ├── NoMarginGiven           no_margin_given
    │   ├── RecordsTooFew           records_too_few
    │   ├── UnknownChoice           unknown_choice
    │   ├── RatioNotPossible        ratio_not_possible
    │   ├── StripDoesNotFit         strip_does_not_fit
    │   ├── CornersOverlap          corners_overlap
    │   ├── RulerImpossible         ruler_impossible
    │   ├── HoldingNotUnderstood    holding_not_understood
    │   ├── CountOutOfRange         count_out_of_range
    │   └── MoreThanMade            more_than_made
    ├── BlockError
    │   ├── PatternNotUnderstood    pattern_not_understood
    │   ├── TracksDoNotAddUp        tracks_do_not_add_up
    │   ├── PlaceTaken              place_taken
    │   ├── UnitDoesNotFit          unit_does_not_fit
    │   ├── UnitBent                unit_bent
    │   ├── NestedBlockDoesNotFit   nested_block_does_not_fit
    │   ├── BlockHoldsItself        block_holds_itself
    │   ├── UnknownBlock            unknown_block
    │   ├── LayoutIncomplete        layout_incomplete
    │   ├── RoleWithoutFabric       role_without_fabric
    │   ├── CannotBeSewn            cannot_be_sewn
    │   ├── QuiltImpossible         quilt_impossible
    │   └── ScrapsImpossible        scraps_impossible
    ├── CuttingError
    │   ├── ClothImpossible         cloth_impossible
    │   ├── NothingToCut            nothing_to_cut
    │   ├── SheetNotUnderstood      sheet_not_understood
    │   └── PaperImpossible         paper_impossible
    ├── ReadingError
    │   ├── RowCountMissing         row_count_missing
    │   ├── StripTestIncomplete     strip_test_incomplete
    │   └── ReadingMisplaced        reading_misplaced
    └── RecordsError
        ├── DayImpossible           day_impossible
        ├── TimeNotUnderstood       time_not_understood
        ├── CalendarNotUnderstood   calendar_not_understood
        └── PhotoImpossible         photo_impossible

Each carries a stable ``code``, the ``field`` it is about (or ""), the offending values in ``data``,
and a sentence a quilter understands: what happened, what is allowed, what to do.
"""

from __future__ import annotations

from typing import ClassVar

from .messages import Message, Settable

__all__ = [
    "BlockError",
    "BlockHoldsItself",
    "CalendarNotUnderstood",
    "CannotBeSewn",
    "ClothImpossible",
    "CornersOverlap",
    "CountOutOfRange",
    "CutTooSmall",
    "CuttingError",
    "DayImpossible",
    "HoldingNotUnderstood",
    "InexactLength",
    "LayoutIncomplete",
    "LengthError",
    "LengthNotUnderstood",
    "LengthOutOfRange",
    "MoreThanMade",
    "NestedBlockDoesNotFit",
    "NoMarginGiven",
    "NothingToCut",
    "PaperImpossible",
    "PatternNotUnderstood",
    "PhotoImpossible",
    "PiecingError",
    "PlaceTaken",
    "PlanError",
    "QuiltImpossible",
    "RatioNotPossible",
    "ReadingError",
    "ReadingMisplaced",
    "RecordsError",
    "RecordsTooFew",
    "RoleWithoutFabric",
    "RowCountMissing",
    "RulerImpossible",
    "ScrapsImpossible",
    "SeamError",
    "SeamTooWide",
    "SheetNotUnderstood",
    "SizeOutOfRange",
    "StripDoesNotFit",
    "StripTestImpossible",
    "StripTestIncomplete",
    "TimeNotUnderstood",
    "TracksDoNotAddUp",
    "UnitBent",
    "UnitDoesNotFit",
    "UnknownBlock",
    "UnknownChoice",
]


class PiecingError(ValueError):
    """The root: a request the craft, or exact arithmetic, cannot satisfy."""

    code: ClassVar[str] = "piecing_error"

    def __init__(self, sentence: str, *, field: str = "", **data: Settable | str | int) -> None:
        self.said = Message(sentence, **data)
        self.field = field
        super().__init__(sentence)

    @property
    def data(self) -> dict[str, Settable | str | int]:
        """The offending values, and those that would work."""
        return self.said.values

    def __str__(self) -> str:
        return self.said.text()

    def at(self, field: str) -> PiecingError:
        """The same refusal, said of ``field``, unless it already names one."""
        if not self.field:
            self.field = field
        return self

    def within(self, field: str) -> PiecingError:
        """The same refusal, its field taken as a part of ``field``."""
        self.field = f"{field}.{self.field}" if self.field else field
        return self


class LengthError(PiecingError):
    """A length that cannot be had."""

    code = "length_error"


class LengthNotUnderstood(LengthError):
    """Text that is no length. ``why`` names the part that could not be read."""

    code = "length_not_understood"

    def __init__(self, text: str, why: Message | str, *, field: str = "") -> None:
        shown = text if len(text) <= 40 else text[:37] + "..."
        super().__init__(
            "“{text}” could not be read as a length: {why} Write it like 3 7/8, 3.875 or 98 mm.",
            field=field,
            text=shown,
            why=why,
        )


class LengthOutOfRange(LengthError):
    """A length below zero, or beyond ten thousand inches; or no step that a ruler has."""

    code = "length_out_of_range"


class InexactLength(LengthError):
    """A float was offered where an exact length is held."""

    code = "inexact_length"


class SeamError(PiecingError):
    """A seam, or a test of one, that cannot be."""

    code = "seam_error"


class StripTestImpossible(SeamError):
    """Two figures of a strip test that no three strips give."""

    code = "strip_test_impossible"


class PlanError(PiecingError):
    """A unit that cannot be planned so."""

    code = "plan_error"


class SizeOutOfRange(PlanError):
    """A finished or cut size that nobody sews, or that this kind does not have."""

    code = "size_out_of_range"


class SeamTooWide(PlanError):
    """An allowance, a stitching distance or a fold that does not go with the unit or with each other."""

    code = "seam_too_wide"


class CutTooSmall(PlanError):
    """The cut gives a raw unit smaller than the trim target; ``smallest`` works."""

    code = "cut_too_small"


class NoMarginGiven(PlanError):
    """The school of one's own margin without one."""

    code = "no_margin_given"


class RecordsTooFew(PlanError):
    """The school of one's own records before there are enough readings."""

    code = "records_too_few"


class UnknownChoice(PlanError):
    """A name that is none of those there are; the known ones in its data."""

    code = "unknown_choice"


class RatioNotPossible(PlanError):
    """A method whose seams lie at 45 degrees was asked for another ratio."""

    code = "ratio_not_possible"


class StripDoesNotFit(PlanError):
    """A strip wider than its square takes."""

    code = "strip_does_not_fit"


class CornersOverlap(PlanError):
    """Flipped corners that lie over each other."""

    code = "corners_overlap"


class HoldingNotUnderstood(PlanError):
    """Pieces at hand that could not be read."""

    code = "holding_not_understood"


class RulerImpossible(PlanError):
    """A ruler that no one owns."""

    code = "ruler_impossible"


class CountOutOfRange(PlanError):
    """A number below or beyond what is worked with."""

    code = "count_out_of_range"


class MoreThanMade(PlanError):
    """More is put down as done than was made, or less than nothing."""

    code = "more_than_made"


class BlockError(PiecingError):
    """A block or quilt that cannot be so."""

    code = "block_error"


class PatternNotUnderstood(BlockError):
    """A written pattern that could not be read; ``field`` is the path of what is wrong."""

    code = "pattern_not_understood"


class TracksDoNotAddUp(BlockError):
    """Columns or rows that do not make the size asked for."""

    code = "tracks_do_not_add_up"


class PlaceTaken(BlockError):
    """Something lies there already."""

    code = "place_taken"


class UnitDoesNotFit(BlockError):
    """A unit in a place of another shape."""

    code = "unit_does_not_fit"


class UnitBent(BlockError):
    """A unit with a shape of its own in a place of another shape, which was not asked for."""

    code = "unit_bent"


class NestedBlockDoesNotFit(BlockError):
    """A block in a place of another shape."""

    code = "nested_block_does_not_fit"


class BlockHoldsItself(BlockError):
    """Blocks within blocks without end, or too deep."""

    code = "block_holds_itself"


class UnknownBlock(BlockError):
    """A block that is nowhere to be found by its key."""

    code = "unknown_block"


class LayoutIncomplete(BlockError):
    """Places of the block are empty; they are named."""

    code = "layout_incomplete"


class RoleWithoutFabric(BlockError):
    """A letter that no fabric has."""

    code = "role_without_fabric"


class CannotBeSewn(BlockError):
    """No order of straight seams joins it."""

    code = "cannot_be_sewn"


class QuiltImpossible(BlockError):
    """A setting, sashing or border that does not go together."""

    code = "quilt_impossible"


class ScrapsImpossible(BlockError):
    """Scraps that cannot be laid over this quilt."""

    code = "scraps_impossible"


class CuttingError(PiecingError):
    """Cloth, a list or a paper that cannot be."""

    code = "cutting_error"


class ClothImpossible(CuttingError):
    """A cloth nobody has, or a piece wider than any."""

    code = "cloth_impossible"


class NothingToCut(CuttingError):
    """A plan asked for without pieces, or without cloth."""

    code = "nothing_to_cut"


class SheetNotUnderstood(CuttingError):
    """A list that is no CSV of the kind meant."""

    code = "sheet_not_understood"


class PaperImpossible(CuttingError):
    """A drawing larger than any sheets it could be printed on."""

    code = "paper_impossible"


class ReadingError(PiecingError):
    """A reading that cannot be taken so."""

    code = "reading_error"


class RowCountMissing(ReadingError):
    """A row read without saying of how many units."""

    code = "row_count_missing"


class StripTestIncomplete(ReadingError):
    """A strip test with only one of its two figures."""

    code = "strip_test_incomplete"


class ReadingMisplaced(ReadingError):
    """A reading of something that this block does not have, or has no longer."""

    code = "reading_misplaced"


class RecordsError(PiecingError):
    """Something of the records that cannot be taken so."""

    code = "records_error"


class DayImpossible(RecordsError):
    """A day that is none, has not come, or is too long ago."""

    code = "day_impossible"


class TimeNotUnderstood(RecordsError):
    """A time of the clock, or a number of minutes, that is none."""

    code = "time_not_understood"


class CalendarNotUnderstood(RecordsError):
    """A file that is no calendar, or holds more than can be read."""

    code = "calendar_not_understood"


class PhotoImpossible(RecordsError):
    """A photo that cannot be shown, or is too large."""

    code = "photo_impossible"
