"""The Mend screen's data, from the half-sewn project of the demo."""

from __future__ import annotations

from django.core.management import call_command

from common.tests.api import ApiCase
from projects.models import Project


class MendTest(ApiCase):
    def setUp(self) -> None:
        call_command("lantern_deck", verbosity=0, stdout=open("/dev/null", "w"))  # noqa: SIM115
        project = Project.objects.get(name="Lantern, twelve blocks")
        self.unit = str(project.units.get(kind="half_square_triangle").pk)

    def test_the_wide_seam_of_the_demo_is_found(self) -> None:
        d = self.ask("get", f"units/{self.unit}/diagnosis")
        self.assertEqual((d["verdict"]["status"], d["verdict"]["leading"]), ("settled", "seam"))
        self.assertIn("short", d["verdict"]["said"])
        self.assertEqual(d["row_target"]["text"], "11")
        self.assertEqual(len(d["evidence"]), 15)
        self.assertEqual([a["code"] for a in d["the_rest"]], ["move_guide"])

    def test_every_cause_is_placed_on_the_scale(self) -> None:
        for c in self.ask("get", f"units/{self.unit}/diagnosis")["verdict"]["contributions"]:
            self.assertTrue(-1 <= c["from_at"] <= c["at"] <= c["to_at"] <= 1)

    def test_a_units_first_diagnosis_asks_for_readings(self) -> None:
        unit = self.new_project()["units"][0]["id"]
        d = self.ask("get", f"units/{unit}/diagnosis")
        self.assertEqual((d["verdict"]["status"], d["evidence"]), ("no_readings", []))
        self.take_down(unit, "row_length", "10 3/4", row_units="3")
        verdict = self.ask("get", f"units/{unit}/diagnosis")["verdict"]
        self.assertEqual(verdict["status"], "unsettled")
        self.assertIn(verdict["next_reading"]["kind"], ("unit_width", "stitch_distance", "strip_test"))

    def test_a_coarser_ruler_makes_it_less_sure(self) -> None:
        def spread() -> float:
            d = self.ask("get", f"units/{self.unit}/diagnosis")
            seam = next(e for e in d["estimates"] if e["cause"] == "seam")
            n, _, m = seam["sd"]["exact"].partition("/")
            return int(n) / int(m or 1)

        fine = spread()
        Project.objects.update(reading_step="1/16")
        self.assertGreater(spread(), fine)
