"""Projects: made, named, copied, put away, thrown away and taken back."""

from __future__ import annotations

from collections.abc import Callable
from uuid import uuid4

from django.db import IntegrityError, transaction

from common.tests.api import ApiCase
from piecing.lengths import inches
from projects.models import Fabric, PlannedUnit, Project
from workrooms.models import Workroom
from workrooms.selectors import current_workroom


class MakingTest(ApiCase):
    def test_a_new_project_can_be_planned_at_once(self) -> None:
        project = self.new_project()
        self.assertEqual([f["role"] for f in project["fabrics"]], ["a", "b"])
        (unit,) = project["units"]
        self.assertEqual((unit["kind"], unit["method"]), ("half_square_triangle", "pair"))
        self.ask("get", f"units/{unit['id']}/trim")

    def test_asking_twice_with_one_key_makes_one(self) -> None:
        key = str(uuid4())
        for _ in range(2):
            self.ask("post", "projects", {"id": key, "name": "Wake"}, expect=201)
        self.assertEqual(Project.objects.count(), 1)
        self.assertEqual(PlannedUnit.objects.count(), 1)

    def test_names_are_kept_apart_and_short(self) -> None:
        self.assertEqual([self.new_project("Wake")["name"] for _ in range(3)], ["Wake", "Wake 2", "Wake 3"])
        self.assertEqual(self.new_project("  ")["name"], "New project")
        self.assertLessEqual(len(self.new_project("n" * 180)["name"]), 120)

    def test_the_list_is_newest_first_in_few_queries(self) -> None:
        first, second = self.new_project("First"), self.new_project("Second")
        self.change(f"fabrics/{first['fabrics'][0]['id']}", {"name": "Tar"})
        with self.assertNumQueries(4):
            listed = self.ask("get", "projects")
        self.assertEqual([p["id"] for p in listed], [first["id"], second["id"]])


class KeepingTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.unit = self.project["units"][0]["id"]

    def test_renaming_tidies_spaces_and_refuses_nothing(self) -> None:
        self.assertEqual(self.change(self.path, {"name": "  Bunk \t  seven "})["name"], "Bunk seven")
        self.assertEqual(self.codes(self.change(self.path, {"name": " "}, expect=422)), {"name": "unknown_choice"})

    def test_a_copy_has_the_plan_and_not_the_readings(self) -> None:
        self.change(f"units/{self.unit}", {"count": 30, "finished": "2 3/4"})
        self.take_down(self.unit, "unit_width", "3 1/4")
        key = str(uuid4())
        for _ in range(2):
            copy = self.ask("post", f"{self.path}/duplicates", {"id": key}, expect=201)
        self.assertEqual(copy["name"], "Lantern, again")
        self.assertEqual((copy["units"][0]["count"], copy["units"][0]["finished"]["text"]), (30, "2 3/4"))
        self.assertNotEqual(copy["units"][0]["id"], self.unit)
        self.assertEqual(self.ask("get", f"units/{copy['units'][0]['id']}/check")["readings"], [])
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/check")["readings"]), 1)
        self.assertEqual(Fabric.objects.filter(project__pk=key).count(), 2)

    def test_archived_and_taken_out(self) -> None:
        self.assertTrue(self.ask("post", f"{self.path}/archived")["archived"])
        self.assertFalse(self.ask("delete", f"{self.path}/archived")["archived"])

    def test_deleted_and_taken_back_with_everything(self) -> None:
        self.take_down(self.unit, "unit_width", "4")
        self.assertTrue(self.ask("delete", self.path)["deleted"])
        self.assertEqual(self.ask("get", "projects"), [])
        self.ask("get", self.path, expect=404)
        self.ask("get", f"units/{self.unit}/check", expect=404)
        self.change(f"units/{self.unit}", {"count": 2}, expect=404)
        self.change(f"fabrics/{self.project['fabrics'][0]['id']}", {"name": "x"}, expect=404)
        self.ask("post", f"{self.path}/restore")
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/check")["readings"]), 1)

    def test_fabrics_are_named_coloured_and_valued(self) -> None:
        path = f"fabrics/{self.project['fabrics'][0]['id']}"
        self.change(path, {"name": "Buoy", "colour": "#D8392B", "value": "medium"})
        fabric = self.ask("get", self.path)["fabrics"][0]
        self.assertEqual((fabric["name"], fabric["colour"], fabric["value"]), ("Buoy", "#d8392b", "medium"))
        problem = self.change(path, {"colour": "red", "value": "bright", "name": ""}, expect=422)
        self.assertEqual(set(self.codes(problem)), {"colour", "value", "name"})

    def test_a_change_that_leaves_no_plan_is_refused_with_what_would_work(self) -> None:
        problem = self.change(f"units/{self.unit}", {"cut": "4"}, expect=422)
        self.assertEqual(problem["code"], "cut_too_small")
        self.assertEqual(problem["errors"][0]["values"]["smallest"], "4 3/8")
        problem = self.change(f"units/{self.unit}", {"finished": "400"}, expect=422)
        self.assertEqual(self.codes(problem), {"finished": "size_out_of_range"})
        problem = self.change(self.path, {"stitch": "1"}, expect=422)
        self.assertEqual(self.codes(problem), {"stitch": "seam_too_wide"})

    def test_a_school_may_be_chosen_before_its_margin_is_known(self) -> None:
        kept = self.change(f"units/{self.unit}", {"school": "own_margin"})
        self.assertEqual(kept["units"][0]["school"], "own_margin")
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim", expect=422)["code"], "no_margin_given")

    def test_the_block_gives_the_units_size(self) -> None:
        self.change(f"units/{self.unit}", {"size_basis": "block", "block_finished": "12", "units_across": "4"})
        self.assertEqual(self.ask("get", f"units/{self.unit}/trim")["finished"]["text"], "3")

    def test_counts_are_whole_and_within_reason(self) -> None:
        for count in ("0", "-1", "2.5", "many", "10001", "", None, True, "٣"):
            with self.subTest(count):
                problem = self.change(f"units/{self.unit}", {"count": count}, expect=422)
                self.assertEqual(self.codes(problem), {"count": "count_out_of_range"})


class RoomTest(ApiCase):
    def test_another_rooms_project_is_not_here(self) -> None:
        mine = self.new_project()
        other = Workroom.objects.create(name="Next door", pk="ffffffff-ffff-ffff-ffff-ffffffffffff")
        Project.objects.filter(pk=mine["id"]).update(workroom=other)
        self.assertNotEqual(current_workroom(), other)
        self.ask("get", f"projects/{mine['id']}", expect=404)
        self.ask("get", f"units/{mine['units'][0]['id']}/diagnosis", expect=404)


class DatabaseTest(ApiCase):
    def test_the_database_itself_refuses_what_cannot_be(self) -> None:
        project = Project.objects.get(pk=self.new_project()["id"])
        wrong: tuple[Callable[[], object], ...] = (
            lambda: Project.objects.filter(pk=project.pk).update(measure="ft"),
            lambda: Project.objects.filter(pk=project.pk).update(name=""),
            lambda: PlannedUnit.objects.filter(project=project).update(count=0),
            lambda: PlannedUnit.objects.filter(project=project).update(school="lavish"),
            lambda: Fabric.objects.filter(project=project).update(colour="red"),
            lambda: Fabric.objects.filter(project=project).update(role="a"),
            lambda: PlannedUnit.objects.create(
                project=project, finished=inches(3), block_finished=inches(9), units_across=0
            ),
        )
        for n, change in enumerate(wrong):
            with self.subTest(n), self.assertRaises(IntegrityError), transaction.atomic():
                change()
