"""Plain cases of a workroom in millimetres: sixteen half squares finishing 75 mm, allowance 6 mm, so units of 87 and rows of 312 mm; read to
whole millimetres. Each answer was worked out by hand before it was typed.
"""

from __future__ import annotations

from unittest import TestCase

from piecing.blocks.pattern import layout_of
from piecing.diagnosis.equations import raw_sizes
from piecing.diagnosis.inference import Inference, infer
from piecing.diagnosis.model import model_of
from piecing.diagnosis.placing import block_geometry
from piecing.diagnosis.reading_kinds import ReadingKind
from piecing.diagnosis.readings import Reading
from piecing.diagnosis.remedies import changes_for_the_rest
from piecing.diagnosis.verdict import Status, Verdict, judge
from piecing.lengths import Measure, Style, mm
from piecing.messages import Message
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.units import methods_of

from .blocks import grid
from .trials import plain

_MM = Style(measure=Measure.MILLIMETRES)
_UNIT = {"A": {"kind": "half_square_triangle", "fabrics": "ab"}}
MODEL = model_of(block_geometry(layout_of(grid(["A0 A0 A0 A0"] * 4, _UNIT)), mm(300)), mm(6))
(BATCH,) = MODEL.places.batches
RAW = {BATCH.number: raw_sizes(plan(Choices(BATCH.spec, methods_of(BATCH.kind)[0].name, seam_allowance=mm(6))))}


def told(message: Message) -> str:
    return plain(message.text(_MM))


def of(kind: str, *values: int, **where: str) -> list[Reading]:
    return [Reading(ReadingKind(kind), mm(v), **where) for v in values]  # type: ignore[arg-type]


def rows(*values: int) -> list[Reading]:
    return [r for n, v in enumerate(values, 1) for r in of("row", v, feature=f"row {n}, middle")]


def units(*values: int) -> list[Reading]:
    return [*of("width", *values, batch=BATCH.key), *of("height", *values[1:], batch=BATCH.key)]


def seams(*values: int) -> list[Reading]:
    return of("stitch", *values, spot="middle")


class MetricTest(TestCase):
    def judged(self, *readings: Reading) -> tuple[Inference, Verdict]:
        found = infer(MODEL, readings, raw=RAW, resolution=mm(1))
        return found, judge(found)

    def test_seams_of_seven_for_six(self) -> None:
        """Six fabrics of a row lose a millimetre each."""
        found, v = self.judged(*seams(7, 7, 7), *rows(306, 306, 306), *units(87, 87))
        self.assertEqual(told(v.said), "all seams are 1 mm wide")
        (change,) = changes_for_the_rest(found, v)
        self.assertEqual(told(change.title), "Stitch at 6 mm, not at 7 mm")
        self.assertIn("nearer to the needle by 1 mm", told(change.how))

    def test_units_a_millimetre_and_two_small(self) -> None:
        for size, row in ((86, 308), (85, 304)):
            found, v = self.judged(*units(size, size, size), *seams(6, 6, 6), *rows(row, row))
            self.assertEqual(told(v.said), f"half-square triangles trimmed {87 - size} mm too small")
            (change,) = changes_for_the_rest(found, v)
            self.assertEqual(told(change.title), f"Trim the half-square triangles to 87 mm, not to {size} mm")

    def test_true(self) -> None:
        _, v = self.judged(*of("width", 87, 87, batch=BATCH.key), *seams(6, 6), *rows(312, 312))
        self.assertIs(v.status, Status.TRUE)

    def test_finished_sizes(self) -> None:
        """Twice the allowance is 12 mm."""
        _, v = self.judged(*of("width", 75, 75, 75, batch=BATCH.key))
        self.assertIn("12 mm too small: finished and unfinished size mixed up", told(v.said))
        _, v = self.judged(*rows(300, 300, 300), *units(87, 87), *seams(6, 6, 6))
        self.assertIn("measured from seam to seam: it reads 12 mm too short", told(v.said))
