"""Nothing entered is lost or made twice in rough weather; `make bench` has more of it."""

from __future__ import annotations

from browser_tests.journey import JourneyCase
from browser_tests.storm import weather


class StormTest(JourneyCase):
    demo = False

    def test_what_is_entered_between_kills_and_closed_windows_is_there_once(self) -> None:
        storm = weather(self.browser, steps=9)
        self.assertEqual((storm.lost, storm.twice), ([], []), storm.happened)
        self.assertEqual(storm.turned, storm.turns % 4, storm.happened)
        self.assertGreater(storm.happened.get("killed", 0), 0)
