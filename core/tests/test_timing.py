"""Minutes and evenings, checked by hand, by counting, and against quilters drawn from other distributions."""

from __future__ import annotations

from collections import Counter
from datetime import date, datetime, time, timedelta
from fractions import Fraction
from itertools import permutations
from random import Random
from statistics import median
from unittest import TestCase

from hypothesis import given, settings
from hypothesis import strategies as st

from piecing.blocks.library import library_pattern
from piecing.blocks.pattern import Pattern, Place, UnitPlacement
from piecing.errors import DayImpossible, PiecingError
from piecing.lengths import inches
from piecing.messages import Message
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices, UnitPlan
from piecing.timing import (
    Chore,
    Day,
    Late,
    Minutes,
    Pace,
    Rhythm,
    Stretch,
    Timed,
    Weekly,
    WorkStage,
    again_minutes,
    behind_said,
    blade_said,
    block_minutes,
    due_of,
    forecast_said,
    free_stretches,
    in_order,
    late_said,
    needle_said,
    pace_of,
    piece_minutes,
    plan_sittings,
    quilt_minutes,
    task_said,
    time_for,
    unit_minutes,
)
from piecing.units import KINDS, kind_of, methods_of

_MONDAY = date(2026, 11, 30)
_AS_USUAL = {s: Pace(1.0, 0.1, 0.1, 9, 9.0) for s in WorkStage}


def _evening(day: int, minutes: int = 90) -> Stretch:
    begins = datetime.combine(_MONDAY + timedelta(days=day), time(19, 30))
    return Stretch(begins, begins + timedelta(minutes=minutes))


def _chore(stage: WorkStage, count: int, usual: float, due: int | None = None, name: str = "u") -> Chore:
    by = None if due is None else _MONDAY + timedelta(days=due)
    return Chore(stage, name, Message("Lantern"), count, usual, by)


class WordsTest(TestCase):
    def test_minutes_are_said_as_a_clock_is_read(self) -> None:
        for minutes, said in ((0.2, "1 minute"), (12.4, "12 minutes"), (17, "17 minutes"), (21.0, "20 minutes"), (184.0, "3 hours"), (34, "35 minutes"), (61, "1 hour"), (100, "1 hour 40 minutes"), (431, "7 hours 15 minutes")):  # fmt: skip
            self.assertEqual(str(Minutes(minutes)), said)

    def test_days_name_the_year_only_where_it_is_another(self) -> None:
        self.assertEqual(str(Day(_MONDAY, _MONDAY)), "Monday 30 November")
        self.assertEqual(str(Day(date(2027, 1, 1), _MONDAY)), "Friday 1 January 2027")


class EffortTest(TestCase):
    def test_a_pair_of_half_squares_by_hand(self) -> None:
        """Two squares of 4 1/2 laid, one line drawn, two seams beside it, one cut, two opened and trimmed. A seam runs through
        both squares corner to corner, a quarter beside the diagonal: 4 1/2 r2 - 1/2."""
        spec = kind_of("half_square_triangle").usual_spec(inches("7/2"))
        found = plan(Choices(spec, "pair", seam_allowance=inches("1/4"), count=8, cuts={"square": inches("9/2")}))  # type: ignore[arg-type]
        minutes = unit_minutes(found)
        seams = 2 * (4.5 * 2**0.5 - 0.5)
        self.assertAlmostEqual(minutes[WorkStage.SEW], (0.25 + 0.35 + seams / 25 + 0.15) / 2, places=2)
        self.assertAlmostEqual(minutes[WorkStage.PRESS], 0.25)
        self.assertAlmostEqual(minutes[WorkStage.TRIM], 0.7)

    def test_a_four_patch_block_of_squares_by_hand(self) -> None:
        """Two rows of two squares finishing 3: three joins, matched and pressed; seams of 3 1/2, 3 1/2 and 6 1/2 in."""
        square = UnitPlacement("plain_square", ("a",))
        places = tuple(Place(c, r, square) for c in (0, 1) for r in (0, 1))
        pattern = Pattern("Squares", (Fraction(1),) * 2, (Fraction(1),) * 2, places)
        minutes = block_minutes(pattern, inches(6), inches("1/4"))
        self.assertAlmostEqual(minutes, 3 * (0.8 + 0.25) + 13.5 / 25)

    def test_a_quilt_by_hand(self) -> None:
        """Four parts are joined by three seams, a minute and a half to pin each; a hundred inches are sewn and pressed along."""
        self.assertAlmostEqual(quilt_minutes(4, inches(100)), 3 * 1.5 + 2 * 100 / 25)
        self.assertEqual(quilt_minutes(1, inches(0)), 0)

    def test_pieces_by_hand(self) -> None:
        self.assertAlmostEqual(piece_minutes(20), 6.0)


class PaceTest(TestCase):
    def test_work_is_done_in_hours_where_nothing_else_is_said(self) -> None:
        """Two hours are two sittings of one: their luck evens out, more than in one of two."""
        work = {WorkStage.SEW: 120.0}
        self.assertEqual(time_for(work, {}), time_for(work, {}, 60.0))
        narrow, wide = time_for(work, {}), time_for(work, {}, 120.0)
        self.assertLess(narrow.slow - narrow.quick, wide.slow - wide.quick)

    def test_nothing_timed_is_the_usual_with_a_wide_range(self) -> None:
        pace = pace_of([])
        told = time_for({WorkStage.TRIM: 60.0}, {WorkStage.TRIM: pace})
        self.assertEqual((pace.factor, pace.sure), (1.0, "open"))
        self.assertLess(told.quick, 40)
        self.assertGreater(told.slow, 90)

    def test_a_slow_quilter_is_believed_by_and_by(self) -> None:
        """Twice the usual, again and again: by hand the weight of n sittings of spread 0.3 is n/0.09 against 1/0.25."""
        self.assertAlmostEqual(pace_of([Timed(60, 30)]).factor, 2 ** ((1 / 0.09) / (1 / 0.09 + 4)), places=6)
        self.assertAlmostEqual(pace_of([Timed(60, 30)] * 20).factor, 2.0, delta=0.03)

    def test_old_minutes_fade_and_wild_ones_do_not_count(self) -> None:
        quick, slow = [Timed(30, 30)] * 6, [Timed(60, 30, 240)] * 6
        self.assertLess(pace_of([*quick, *slow]).factor, 1.15)
        self.assertEqual(pace_of([Timed(600, 30), Timed(0.5, 30), Timed(20, 0)]).sittings, 0)

    def test_what_is_foretold_of_quilters_drawn_otherwise(self) -> None:
        """Own paces uniform in their logarithm, luck of a sitting gamma: eight in ten fall within, and the middle is near."""
        rng, inside, off = Random(7), 0, []
        rounds = 400
        for _ in range(rounds):
            own = 2 ** rng.uniform(-1, 1)
            luck = lambda: rng.gammavariate(12, 1 / 12)  # noqa: E731
            pace = pace_of([Timed(40 * own * luck(), 40) for _ in range(8)])
            told = time_for({WorkStage.SEW: 240.0}, {WorkStage.SEW: pace})
            left, came = 240.0 * own, 0.0
            while left > 0:
                part = min(60.0, left)
                came += part * luck()
                left -= part
            inside += told.quick <= came <= told.slow
            off.append(abs(told.minutes / came - 1))
        self.assertGreater(inside / rounds, 0.72)
        self.assertLess(inside / rounds, 0.92)
        self.assertLess(median(off), 0.15)


class FreeTest(TestCase):
    def test_what_is_busy_is_left_out(self) -> None:
        weekly = [Weekly(1, time(19, 30), time(21)), Weekly(1, time(20, 30), time(22))]
        busy = [Stretch(datetime(2026, 12, 1, 20), datetime(2026, 12, 1, 20, 45)), Stretch(datetime(2026, 12, 8), datetime(2026, 12, 9))]  # fmt: skip
        found = free_stretches(weekly, busy, datetime(2026, 11, 30, 12), date(2026, 12, 15))
        told = [(s.begins.isoformat(" ", "minutes"), s.minutes) for s in found]
        self.assertEqual(told, [("2026-12-01 19:30", 30), ("2026-12-01 20:45", 75), ("2026-12-15 19:30", 150)])

    def test_a_short_engagement_within_a_long_one(self) -> None:
        weekly = [Weekly(0, time(19), time(22))]
        long, short = ((datetime(2026, 11, 30, 19), datetime(2026, 11, 30, 21)), (datetime(2026, 11, 30, 19, 30), datetime(2026, 11, 30, 20)))  # fmt: skip
        (left,) = free_stretches(weekly, [Stretch(*long), Stretch(*short)], datetime(2026, 11, 30, 12), _MONDAY)
        self.assertEqual((left.begins.hour, left.minutes), (21, 60))

    def test_of_this_evening_what_is_left(self) -> None:
        weekly = [Weekly(0, time(19), time(21))]
        at = datetime(2026, 11, 30, 20, 50)
        self.assertEqual(free_stretches(weekly, [], at, _MONDAY), [])
        self.assertEqual(free_stretches(weekly, [], at.replace(minute=30), _MONDAY)[0].minutes, 30)

    def test_a_quarter_of_an_hour_is_time_and_less_is_none(self) -> None:
        for minutes, some in ((15, 1), (14, 0)):
            weekly = [Weekly(0, time(19), time(19, minutes))]
            self.assertEqual(len(free_stretches(weekly, [], datetime(2026, 11, 30, 12), _MONDAY)), some)

    def test_times_that_cannot_be(self) -> None:
        for bad in ((7, time(1), time(2)), (0, time(21), time(19)), (0, time(9), time(9))):
            with self.assertRaises(DayImpossible):
                Weekly(*bad)


class DueTest(TestCase):
    def test_rhythms(self) -> None:
        first = date(2027, 1, 31)
        self.assertIsNone(due_of(Rhythm.NONE, first, WorkStage.CUT, 0, 3))
        self.assertIsNone(due_of(Rhythm.DAY, None, WorkStage.CUT, 0, 3))
        self.assertEqual(due_of(Rhythm.DAY, first, WorkStage.QUILT, 2, 3), first)
        self.assertEqual(due_of(Rhythm.BLOCK_MONTH, first, WorkStage.CUT, 1, 3), date(2027, 2, 28))
        self.assertEqual(due_of(Rhythm.BLOCK_MONTH, first, WorkStage.QUILT, 0, 3), date(2027, 4, 30))
        self.assertEqual(due_of(Rhythm.BLOCK_WEEK, first, WorkStage.JOIN, 2, 3), date(2027, 2, 14))
        self.assertEqual(due_of(Rhythm.STAGE_WEEK, first, WorkStage.TRIM, 0, 3), date(2027, 2, 21))


class SittingsTest(TestCase):
    def test_trim_48_units(self) -> None:
        """At 0.7 minutes each: 33.6 minutes, in one evening, and the evening ends there."""
        found = plan_sittings([_chore(WorkStage.TRIM, 48, 0.7)], [_evening(0)], _AS_USUAL)
        (sitting,) = found.sittings
        self.assertEqual((sitting.tasks[0].count, round(sitting.tasks[0].minutes, 1)), (48, 33.6))
        self.assertEqual((sitting.ends - sitting.begins).total_seconds() / 60, 35)
        self.assertEqual(found.left, ())

    def test_ninety_minutes_hold_eighty_five_of_work(self) -> None:
        """Fifty, five of rest, thirty-five."""
        found = plan_sittings([_chore(WorkStage.SEW, 400, 1.0)], [_evening(0), _evening(1, 60)], _AS_USUAL)
        self.assertEqual([s.tasks[0].count for s in found.sittings], [85, 55])
        self.assertEqual(found.left[0].count, 260)

    def test_another_stage_takes_five_minutes_to_set_out(self) -> None:
        chores = [_chore(WorkStage.SEW, 20, 1.0), _chore(WorkStage.PRESS, 30, 1.0)]
        found = plan_sittings(chores, [_evening(0, 40)], _AS_USUAL)
        self.assertEqual([t.count for t in found.sittings[0].tasks], [20, 15])

    def test_what_takes_longer_than_an_evening_is_gone_on_with(self) -> None:
        found = plan_sittings([_chore(WorkStage.QUILT, 1, 200.0)], [_evening(n) for n in range(4)], _AS_USUAL)
        self.assertEqual([s.tasks[0].count for s in found.sittings], [0, 0, 1])
        self.assertAlmostEqual(sum(s.minutes for s in found.sittings), 200)

    def test_what_was_begun_counts_the_evening_after(self) -> None:
        """A hundred minutes in two hours of an evening each: 55 in the first, 45 in the second, and then it is done."""
        found = plan_sittings([_chore(WorkStage.QUILT, 1, 100.0)], [_evening(0, 60), _evening(1, 60)], _AS_USUAL)
        tasks = [(t.count, round(t.minutes, 6)) for s in found.sittings for t in s.tasks]
        self.assertEqual(tasks, [(0, 55.0), (1, 45.0)])
        self.assertEqual((found.left, list(found.done.values())), ((), [_MONDAY + timedelta(days=1)]))

    def test_rests_lie_between_chores_as_within_one(self) -> None:
        """Three chores of half an hour each: one rest falls into the second, none after the third; 95 minutes in all."""
        chores = [_chore(WorkStage.SEW, 1, 30.0, name=n) for n in "abc"]
        (sitting,) = plan_sittings(chores, [_evening(0, 180)], _AS_USUAL).sittings
        self.assertEqual((sitting.ends - sitting.begins).total_seconds() / 60, 95)
        self.assertEqual(len(sitting.tasks), 3)

    def test_four_of_half_an_hour_have_two_rests(self) -> None:
        """After fifty minutes and after a hundred: 120 and 10."""
        chores = [_chore(WorkStage.SEW, 1, 30.0, name=n) for n in "abcd"]
        (sitting,) = plan_sittings(chores, [_evening(0, 180)], _AS_USUAL).sittings
        self.assertEqual((sitting.ends - sitting.begins).total_seconds() / 60, 130)

    def test_one_that_fits_an_evening_is_not_left_half_sewn(self) -> None:
        chores = [_chore(WorkStage.SEW, 1, 60.0), _chore(WorkStage.JOIN, 2, 40.0)]
        found = plan_sittings(chores, [_evening(0), _evening(1, 120)], _AS_USUAL)
        self.assertEqual([[t.count for t in s.tasks] for s in found.sittings], [[1], [2]])

    def test_one_that_just_does_not_fit_with_its_rest_is_begun_all_the_same(self) -> None:
        found = plan_sittings([_chore(WorkStage.JOIN, 1, 88.0)], [_evening(0), _evening(1)], _AS_USUAL)
        self.assertEqual(found.left, ())

    def test_slow_takes_longer(self) -> None:
        unsure = {s: Pace(1.0, 0.5, 0.3, 0, 0.0) for s in WorkStage}
        chores, free = [_chore(WorkStage.SEW, 160, 1.0, due=2)], [_evening(n) for n in range(9)]
        done = plan_sittings(chores, free, unsure).done[chores[0]]
        slow = plan_sittings(chores, free, unsure, slow=1.0).done[chores[0]]
        late = Late(_MONDAY + timedelta(days=2), done, slow)
        self.assertTrue(late.tight)
        self.assertEqual(str(late_said(late, _MONDAY)), "Due Wednesday 2 December: done Tuesday 1 December, in time unless it goes slowly.")  # fmt: skip

    def test_late_is_said(self) -> None:
        due = _MONDAY
        self.assertIn("as things go it is done Tuesday", str(late_said(Late(due, due + timedelta(days=1), None), due)))
        self.assertIn("does not reach so far", str(late_said(Late(due, None, None), due)))
        self.assertIn("in good time", str(late_said(Late(due, due, due), due)))
        self.assertEqual([Late(due, d, d).late for d in (None, due, due + timedelta(days=1))], [True, False, True])

    @settings(max_examples=120, deadline=None)
    @given(
        st.lists(st.tuples(st.sampled_from(list(WorkStage)), st.integers(1, 60), st.floats(0.1, 150), st.none() | st.integers(0, 20)), max_size=7),
        st.lists(st.tuples(st.integers(0, 40), st.integers(15, 240)), max_size=12, unique_by=lambda t: t[0]),
    )  # fmt: skip
    def test_a_checker_that_knows_only_the_clock(
        self, told: list[tuple[WorkStage, int, float, int | None]], evenings: list[tuple[int, int]]
    ) -> None:
        chores = in_order(_chore(stage, n, usual, due, str(k)) for k, (stage, n, usual, due) in enumerate(told))
        free = [_evening(day, minutes) for day, minutes in sorted(evenings)]
        found = plan_sittings(chores, free, _AS_USUAL)
        made: Counter[str] = Counter()
        order: list[str] = []
        for sitting in found.sittings:
            self.assertTrue(any(s.begins == sitting.begins and sitting.ends <= s.ends for s in free))
            clock = (sitting.ends - sitting.begins).total_seconds() / 60
            changes = sum(
                a.chore.stage != b.chore.stage for a, b in zip(sitting.tasks, sitting.tasks[1:], strict=False)
            )
            self.assertLessEqual(sitting.minutes + 5 * changes, clock + 1)
            for task in sitting.tasks:
                made[task.chore.of] += task.count
                order.append(task.chore.of)
        left = {c.of: c.count for c in found.left}
        for chore in chores:
            self.assertEqual(made[chore.of] + left.get(chore.of, 0), chore.count)
        self.assertEqual(list(dict.fromkeys(order)), [c.of for c in chores][: len(set(order))])
        if found.left and free:
            self.assertEqual([s.begins for s in found.sittings][-1:], [free[-1].begins])

    def test_no_other_order_is_less_late(self) -> None:
        rng = Random(3)
        for _ in range(40):
            chores = [_chore(WorkStage.SEW, rng.randint(10, 90), 1.0, rng.randint(0, 6), str(k)) for k in range(5)]
            free = [_evening(n, rng.choice((30, 60, 90))) for n in range(40)]

            def worst(order: tuple[Chore, ...], free: list[Stretch] = free) -> int:
                done = plan_sittings(order, free, _AS_USUAL).done
                return max((done[c] - c.due).days for c in order if c.due)

            self.assertEqual(worst(tuple(in_order(chores))), min(map(worst, permutations(chores))))


class WearTest(TestCase):
    def test_quiet_until_it_is_time(self) -> None:
        self.assertIsNone(needle_said(300, 8))
        self.assertIsNone(needle_said(9_000, None))
        self.assertIn("have a fresh one at hand", str(needle_said(400, 8)))
        self.assertIn("A fresh one is due", str(needle_said(500, 8)))
        self.assertIsNone(blade_said(700, 1_000))
        self.assertIn("about 900 cuts", str(blade_said(900, 1_000)))
        self.assertIn("1,200 cuts. A fresh one is due", str(blade_said(1_200, 1_000)))


def _minute_by_minute(weekly: list[Weekly], busy: list[Stretch], now: datetime, last: date) -> set[datetime]:
    """Every minute that is free, looked at one by one."""
    found, at = set(), datetime.combine(now.date(), time())
    while at.date() <= last:
        free = any(w.weekday == at.weekday() and w.begins <= at.time() < w.ends for w in weekly)
        if free and at >= now and not any(b.begins <= at < b.ends for b in busy):
            found.add(at)
        at += timedelta(minutes=1)
    return found


class FreeMinutesTest(TestCase):
    @settings(max_examples=40, deadline=None)
    @given(
        st.lists(st.tuples(st.integers(0, 6), st.integers(0, 46), st.integers(1, 12)), max_size=4),
        st.lists(st.tuples(st.integers(0, 5 * 48), st.integers(1, 60)), max_size=6),
        st.integers(0, 47),
    )
    def test_against_every_minute_of_five_days(
        self, weekly: list[tuple[int, int, int]], busy: list[tuple[int, int]], now: int
    ) -> None:
        half = timedelta(minutes=30)
        start = datetime.combine(_MONDAY, time())
        times = [
            Weekly(day, (start + half * a).time(), (start + half * min(47, a + n)).time())
            for day, a, n in weekly
            if min(47, a + n) > a
        ]
        taken = [Stretch(start + half * a, start + half * (a + n)) for a, n in busy]
        at, last = start + half * now, _MONDAY + timedelta(days=4)
        told: set[datetime] = set()
        for s in free_stretches(times, taken, at, last):
            self.assertGreaterEqual(s.minutes, 15)
            told |= {s.begins + timedelta(minutes=m) for m in range(int(s.minutes))}
        self.assertEqual(told, _minute_by_minute(times, taken, at, last))


class EveryWayTest(TestCase):
    """Usual minutes of every way to make a unit, read off the same acts that sew it."""

    def plans(self) -> list[UnitPlan]:
        found = []
        for kind in KINDS.values():
            for method in methods_of(kind.name):
                spec = kind.usual_spec(inches(4))
                try:
                    found.append(plan(Choices(spec, method.name, count=12)))
                except PiecingError:
                    continue
        return found

    def test_all_of_them_take_time_at_every_stage_but_a_piece_of_cloth(self) -> None:
        many = 0
        for found in self.plans():
            with self.subTest(f"{found.kind.name} {found.method.name}"):
                minutes = unit_minutes(found)
                if len(found.kind.parts) == 1:
                    self.assertEqual(minutes, {})
                    continue
                many += 1
                self.assertEqual(set(minutes), {WorkStage.SEW, WorkStage.PRESS, WorkStage.TRIM})
                self.assertGreater(minutes[WorkStage.SEW], 0.15)
                self.assertLess(sum(minutes.values()), 30)
        self.assertGreater(many, 20)

    def test_of_ways_to_one_unit_the_one_with_less_seam_and_fewer_layings_is_quicker(self) -> None:
        spec = KINDS["half_square_triangle"].usual_spec(inches(3))
        minutes = {}
        for m in methods_of("half_square_triangle"):
            try:
                found = plan(Choices(spec, m.name, count=8))
            except PiecingError:
                continue
            minutes[m.name] = unit_minutes(found)[WorkStage.SEW]
        # Eight from two squares: one laying and one page of lines; a pair is laid for every two.
        self.assertLess(minutes["eight"], minutes["pair"])


class DueOrderTest(TestCase):
    @given(st.sampled_from(list(Rhythm)), st.integers(1, 12), st.dates(date(2026, 1, 1), date(2030, 1, 1)))
    def test_later_blocks_and_later_stages_are_never_due_earlier(
        self, rhythm: Rhythm, blocks: int, first: date
    ) -> None:
        days = [[due_of(rhythm, first, s, b, blocks) for s in WorkStage] for b in range(blocks)]
        if rhythm is Rhythm.NONE:
            self.assertTrue(all(d is None for row in days for d in row))
            return
        for row in days:
            told = [d for d in row if d]
            self.assertEqual(told, sorted(told))
        for column in zip(*days, strict=True):
            known = [d for d in column if d]
            self.assertEqual(known, sorted(known))


class SurerTest(TestCase):
    def test_more_sittings_a_narrower_range_and_more_work_a_longer_one(self) -> None:
        widths = []
        for n in (0, 1, 4, 16):
            told = time_for({WorkStage.TRIM: 100.0}, {WorkStage.TRIM: pace_of([Timed(40, 40)] * n)})
            widths.append(told.slow / told.quick)
        self.assertEqual(widths, sorted(widths, reverse=True))
        one, two = (time_for({WorkStage.SEW: m}, {}) for m in (60.0, 120.0))
        self.assertAlmostEqual(two.minutes / one.minutes, 2, delta=0.1)

    def test_stages_that_go_well_and_badly_by_themselves_make_the_sum_surer(self) -> None:
        alone = time_for({WorkStage.SEW: 200.0}, {})
        both = time_for({WorkStage.SEW: 100.0, WorkStage.TRIM: 100.0}, {})
        self.assertLess(both.slow / both.quick, alone.slow / alone.quick)

    def test_nothing_left_is_said_so(self) -> None:
        self.assertEqual(str(forecast_said(time_for({}, {}))), "Nothing is left to do.")
        told = str(forecast_said(time_for({WorkStage.SEW: 60.0}, {})))
        self.assertTrue(told.startswith("About 1 hour; it may be"), told)


class SaidTest(TestCase):
    def test_tasks_in_words(self) -> None:
        self.assertEqual(str(task_said(WorkStage.TRIM, "hourglasses", 1_200)), "Trim hourglasses: 1,200")
        self.assertEqual(str(task_said(WorkStage.QUILT, "the quilt", 1)), "Put the quilt together")
        self.assertEqual(str(task_said(WorkStage.QUILT, "the quilt", 0)), "Putting the quilt together: the quilt, as far as it goes")  # fmt: skip
        self.assertIn("48 would be done by now, 24 are", str(behind_said(WorkStage.SEW, "geese", 48, 24)))


class AgainTest(TestCase):
    def test_a_block_made_again_by_hand(self) -> None:
        """Nine plain squares: nine pieces cut, six joins in rows and two between them; more units take longer, larger ones too."""
        nine, lantern = library_pattern("nine_patch"), library_pattern("lantern")
        quarter, eighth = inches("1/4"), inches("1/8")
        plain = again_minutes(nine, inches(9), quarter, eighth)
        self.assertAlmostEqual(plain, piece_minutes(9) + block_minutes(nine, inches(9), quarter), places=6)
        self.assertGreater(again_minutes(lantern, inches(9), quarter, eighth), 1.5 * plain)
        self.assertGreater(
            again_minutes(lantern, inches(15), quarter, eighth), again_minutes(lantern, inches(9), quarter, eighth)
        )
