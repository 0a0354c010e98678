"""What a habit comes to, in the quilter's words.

Source: docs/theory, section 16.2.
"""

from __future__ import annotations

from ..diagnosis.habits import Figure, Habit
from ..diagnosis.reading_kinds import ReadingKind
from ..diagnosis.words import SURENESS, Roughly
from ..lengths import Length
from ..messages import Message

__all__ = ["GROWS", "HABIT_WORDS", "habit_said", "habit_sureness", "spread_said"]


HABIT_WORDS = {
    Habit.SEAM: "Seam",
    Habit.FOLD: "Fold",
    Habit.START: "Start of a seam",
    Habit.END: "End of a seam",
    Habit.CUTTING: "Cutting",
    Habit.TRIMMING: "Trimming",
}
"""What each habit is called."""
_ABOVE = {
    Habit.SEAM: "Your seams take {by} more than {allowance}.",
    Habit.FOLD: "A fold swallows {by}.",
    Habit.START: "Seams begin {by} wider than they go on.",
    Habit.END: "Seams end {by} wider than they went.",
    Habit.CUTTING: "Pieces are cut {by} too large on the whole.",
    Habit.TRIMMING: "Units are trimmed {by} too large on the whole.",
}
_BELOW = {
    Habit.SEAM: "Your seams take {by} less than {allowance}.",
    Habit.FOLD: "A fold swallows next to nothing.",
    Habit.START: "Seams begin {by} narrower than they go on.",
    Habit.END: "Seams end {by} narrower than they went.",
    Habit.CUTTING: "Pieces are cut {by} too small on the whole.",
    Habit.TRIMMING: "Units are trimmed {by} too small on the whole.",
}
_AS_WANTED = {
    Habit.SEAM: "Your seams take {allowance}, as wanted.",
    Habit.FOLD: "A fold swallows next to nothing.",
    Habit.START: "Seams begin as they go on.",
    Habit.END: "Seams end as they went.",
    Habit.CUTTING: "Pieces are cut to size on the whole.",
    Habit.TRIMMING: "Units are trimmed to size on the whole.",
}
_NOT_KNOWN = {
    Habit.SEAM: "What your seams take is not known to a thread yet.",
    Habit.FOLD: "What a fold swallows is not known to a thread yet: read the stitching of strip tests too.",
    Habit.START: "How seams begin is not known to a thread yet.",
    Habit.END: "How seams end is not known to a thread yet.",
    Habit.CUTTING: "How large pieces are cut on the whole is not known to a thread yet.",
    Habit.TRIMMING: "How large units are trimmed on the whole is not known to a thread yet.",
}
GROWS = {
    ReadingKind.STITCH: (Message("the seam runs wider"), Message("the seam runs narrower")),
    ReadingKind.RAW_WIDTH: (Message("the units come out larger"), Message("the units come out smaller")),
    ReadingKind.WIDTH: (Message("the units are wider"), Message("the units are narrower")),
    ReadingKind.HEIGHT: (Message("the units are higher"), Message("the units are lower")),
}
"""What a lot does when a figure of it grows, and when it shrinks."""
_NINE_TENTHS = 1.645
_HALF_A_THREAD, _A_THREAD = 1 / 128, 1 / 64
"""Inches: below half a thread nothing is said to be off; a mean that may lie a thread farther either way is not known."""


def habit_said(habit: Habit, figure: Figure, allowance: Length) -> Message:
    """On the whole: off one way or the other where the whole interval says so and it is worth saying; else as wanted, if the mean is
    known to a thread."""
    if not (figure.off and abs(figure.mean) >= _HALF_A_THREAD):
        return Message(_AS_WANTED[habit] if _is_known(figure) else _NOT_KNOWN[habit], allowance=allowance)
    by = Roughly(figure.mean)
    return (
        Message(_ABOVE[habit], by=by, allowance=allowance)
        if figure.mean > 0
        else Message(_BELOW[habit], by=by, allowance=allowance)
    )


def habit_sureness(figure: Figure) -> str:
    """How sure what is said of it is: by what it rests on, and certain only of a mean that is known to a thread."""
    _, likely, unsure = SURENESS
    if _is_known(figure):
        return figure.sure
    return likely if figure.off and figure.sure != unsure else unsure


def _is_known(figure: Figure) -> bool:
    return (figure.high - figure.low) / 2 <= _A_THREAD


def spread_said(figure: Figure) -> Message:
    """From one to the next: how far nine in ten lie from the middle, beside what is usual of steady hands."""
    within = Roughly(_NINE_TENTHS * figure.spread)
    if figure.spread_high < figure.assumed:
        return Message("Nine in ten lie within {within} of that: steadier than most hands.", within=within)
    if figure.spread_low > figure.assumed:
        return Message("Nine in ten lie within {within} of that: less steady than most hands.", within=within)
    return Message("Nine in ten lie within {within} of that, as with most hands.", within=within)
