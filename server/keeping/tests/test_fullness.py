"""What is nearly full is told before anybody is refused, and says the number at which one is."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from timing.models import FreeTime
from workrooms.selectors import current_workroom


class NearlyFullTest(ApiCase):
    def lines(self, project: str = "") -> list[str]:
        said: list[str] = self.ask("get", "nearly-full" + (f"?project={project}" if project else ""))["lines"]
        return said

    def begin(self) -> Any:
        body = {"id": str(uuid4()), "name": "Full", "fabrics": ["Tar", "Fog"], "unit": None, "quilt": None}
        return self.ask(
            "post", "beginnings", {**body, "block": {"start": "pinwheel", "finished": "10", "count": "1"}}, expect=201
        )

    def test_fabrics_up_to_the_last_one(self) -> None:
        """Twelve are taken; the last two free ones are told."""
        key = self.begin()["id"]
        for there in range(2, 12):
            self.assertEqual(bool(self.lines(key)), there >= 10, there)
            if there >= 10:
                self.assertEqual(
                    self.lines(key), [f"Fabrics of this project: {there} of 12. No more than that can be kept."]
                )
            self.ask("put", f"projects/{key}/fabrics/{uuid4()}", {"changes": {}, "seen": {}})
        self.assertIn("12 of 12", self.lines(key)[0])
        refused = self.ask("put", f"projects/{key}/fabrics/{uuid4()}", {"changes": {}, "seen": {}}, expect=422)
        self.assertIn("12 fabrics at most", refused["detail"])
        self.assertEqual(self.lines(), [])

    def test_blocks_at_nine_tenths(self) -> None:
        key = self.begin()["id"]
        for there in range(1, 40):
            self.assertEqual(bool(self.lines(key)), there >= 36, there)
            self.ask("put", f"projects/{key}/blocks/{uuid4()}", {"start": "", "changes": {}, "seen": {}})
        self.assertEqual(self.lines(key), ["Blocks of this project: 40 of 40. No more than that can be kept."])
        refused = self.ask(
            "put", f"projects/{key}/blocks/{uuid4()}", {"start": "", "changes": {}, "seen": {}}, expect=422
        )
        self.assertIn("40 blocks at most", refused["detail"])

    def test_of_the_workroom(self) -> None:
        room = current_workroom()
        for n in range(44):
            FreeTime.objects.create(pk=uuid4(), workroom=room, weekday=n % 7, begins="10:00", ends="11:00")
        self.assertEqual(self.lines(), [])
        FreeTime.objects.create(pk=uuid4(), workroom=room, weekday=1, begins="10:00", ends="11:00")
        self.assertEqual(self.lines(), ["Free times of a week: 45 of 50. No more than that can be kept."])

    def test_of_a_project_that_is_not_here(self) -> None:
        self.ask("get", f"nearly-full?project={uuid4()}", expect=404)
        self.ask("get", "nearly-full?project=x", expect=400)
