"""Between pieces and unit: which fabrics meet, held against the finished design by shapely, and sizes by Pythagoras."""

from __future__ import annotations

from dataclasses import replace
from math import sqrt
from unittest import TestCase

from shapely.geometry import Polygon

from piecing.errors import PiecingError
from piecing.lengths import Measure, Style, inches, mm
from piecing.planning import Choices, plan
from piecing.planning.on_the_way import bias_said, laid_pairs, laid_together, on_mark, sizes_between
from piecing.planning.unit_plan import UnitPlan
from piecing.units import UnitSpec, kind_of
from piecing.units.acts import TrimSquare

from .samples import ALL_WAYS, sample

NAMES = {"a": "Tar", "b": "Fog", "c": "Buoy", "d": "Slackwater", "e": "Oilskin"}


def hourglass(method: str, fabrics: str, **choices: object) -> UnitPlan:
    return plan(Choices(sample("quarter_square_triangle", part_fabrics=fabrics), method, **choices))  # type: ignore[arg-type]


def said(p: UnitPlan) -> list[str]:
    return [str(m) for m in (*laid_together(p, NAMES), *sizes_between(p))]


class PairingTest(TestCase):
    def test_hourglasses_of_three_and_four_by_hand(self) -> None:
        """Bottom, right, top, left. The first diagonal parts bottom from left and right from top."""
        self.assertEqual(
            said(hourglass("two_half_square_triangles", "abcd"))[:2],
            [
                "Pair Tar with Slackwater and Fog with Buoy.",
                "Then what is Tar and Slackwater with what is Fog and Buoy.",
            ],
        )
        self.assertEqual(
            said(hourglass("loose_triangles", "abac")),
            ["Pair Tar with Fog and Tar with Buoy.", "Then what is Tar and Fog with what is Tar and Buoy."],
        )

    def test_two_fabrics_need_no_pairing(self) -> None:
        self.assertEqual(laid_together(hourglass("loose_triangles", "abab"), NAMES), ())

    def test_corners_are_taken_one_after_the_other(self) -> None:
        goose = plan(Choices(sample("flying_goose", part_fabrics="abc"), "two_flipped_corners"))
        self.assertEqual(said(goose), ["Tar takes Fog, then Buoy."])

    def test_what_is_laid_together_lies_side_by_side_in_the_unit(self) -> None:
        """Fabrics that share no seam in the finished unit are never sewn to each other by themselves."""
        tried = 0
        for method, spec in ALL_WAYS:
            for roles in ("abcde", "abacd", "abcab", "aabcd"):
                fabrics = tuple(roles[: len(spec.part_fabrics)])
                try:
                    p = plan(Choices(replace(spec, part_fabrics=fabrics), method.name))
                except PiecingError:
                    continue
                parts = [(Polygon(q.outline), q.role) for q in kind_of(spec.kind).design(p.spec).parts]
                neighbours = {
                    frozenset((f, g))
                    for n, (one, f) in enumerate(parts)
                    for other, g in parts[n + 1 :]
                    if one.boundary.intersection(other.boundary).length > 1e-6
                }
                for t in laid_pairs(p):
                    if len(t.lower) == len(t.upper) == 1 and t.lower != t.upper:
                        tried += 1
                        self.assertIn(frozenset((*t.lower, *t.upper)), neighbours, (method.name, fabrics))
        self.assertGreater(tried, 60)


class BetweenTest(TestCase):
    def test_trimmed_between_by_hand(self) -> None:
        """3 1/2, a little oversize: squares of 5, half-squares of 5 - √2/4 = 4.646, to be trimmed to 4 1/2."""
        p = hourglass("two_half_square_triangles_trimmed", "abab")
        self.assertEqual((p.cuts["square"], p.cuts["trimmed"]), (inches(5), inches("9/2")))
        self.assertAlmostEqual(
            next(m.act.raw for m in p.simulated.making.moments if isinstance(m.act, TrimSquare)),
            5 - sqrt(2) / 4,
            places=6,
        )
        self.assertEqual(
            said(p),
            [
                "On the way, the half-square triangles measure about 4\xa05⁄8″: trim them to 4\xa01⁄2″, the seam through both "
                "corners."
            ],
        )

    def test_not_trimmed_between(self) -> None:
        self.assertIn("they are not trimmed", said(hourglass("two_half_square_triangles", "abab"))[0])

    def test_in_millimetres_it_is_whole_millimetres(self) -> None:
        spec = UnitSpec("quarter_square_triangle", mm(90), mm(90), tuple("abab"))
        p = plan(Choices(spec, "two_half_square_triangles_trimmed", seam_allowance=mm(6), ruler_step=mm(5)))
        text = sizes_between(p)[0].text(Style(measure=Measure.MILLIMETRES))
        raw = float(p.cuts["square"]) * 25.4 - sqrt(2) * 6
        self.assertIn(f"about {round(raw)} mm", text.replace("\xa0", " "))

    def test_what_is_sewn_in_one_go_has_nothing_between(self) -> None:
        for method, spec in ALL_WAYS:
            between = sizes_between(plan(Choices(spec, method.name)))
            sewn_twice = "two_half_square" in method.name or method.name == "unit_and_square"
            self.assertEqual(bool(between), sewn_twice, (method.kind, method.name))


class BiasTest(TestCase):
    """Two squares sewn all round and cut corner to corner give units whose outer edges run across the weave; cloth cut into triangles
    before it is sewn has long edges that do. By hand, from how each way cuts its cloth."""

    OUTER = frozenset({("half_square_triangle", "four"), ("banded_hourglass", "loose_triangles")})
    LOOSE = frozenset({"loose_triangles", "templates", "triangles", "strip", "corner_triangles"})

    def test_it_is_said_of_these_ways_and_no_others(self) -> None:
        for method, spec in ALL_WAYS:
            told = " ".join(map(str, bias_said(plan(Choices(spec, method.name)))))
            with self.subTest(f"{method.kind} {method.name}"):
                self.assertEqual("outer edges" in told, (method.kind, method.name) in self.OUTER)
                self.assertEqual("long raw edges" in told, method.name in self.LOOSE)

    def test_what_is_asked_of_the_hands(self) -> None:
        four = plan(Choices(sample("half_square_triangle"), "four"))
        self.assertIn("starch before cutting, press up and down, never tug", " ".join(map(str, bias_said(four))))
        loose = plan(Choices(sample("half_square_triangle"), "loose_triangles"))
        self.assertIn("lift them, lay them, do not pull", " ".join(map(str, bias_said(loose))))


class OnAMarkTest(TestCase):
    def test_figures_of_the_engine_come_back_to_the_mark_they_stood_on(self) -> None:
        self.assertEqual(on_mark(4.125 + 3e-7, inches("1/8")), inches("33/8"))
        self.assertEqual(on_mark(85 / 25.4 - 2e-7, mm("1/2")), mm(85))

    def test_others_stay_what_they_are(self) -> None:
        off = on_mark(4.13, inches("1/8"))
        self.assertNotEqual(off, inches("33/8"))
        self.assertAlmostEqual(float(off), 4.13, 4)
