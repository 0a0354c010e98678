"""Projects: made, named, copied, put away, thrown away and taken back."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any
from uuid import uuid4

from django.db import IntegrityError, transaction

from api.tests.api import ApiCase
from piecing.lengths import inches
from projects.lines import PER_PAGE
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
        self.assertEqual((PlannedUnit.objects.count(), Fabric.objects.count()), (0, 0), "nothing that nobody put there")

    def test_names_are_kept_apart_and_short(self) -> None:
        self.assertEqual([self.new_project("Wake")["name"] for _ in range(3)], ["Wake", "Wake 2", "Wake 3"])
        self.assertEqual(self.new_project("  ")["name"], "New project")
        self.assertLessEqual(len(self.new_project("n" * 180)["name"]), 120)

    def test_the_list_is_newest_first_in_few_queries(self) -> None:
        first, second = self.new_project("First"), self.new_project("Second")
        self.change(f"fabrics/{first['fabrics'][0]['id']}", {"name": "Tar"})
        with self.assertNumQueries(6):
            listed = self.ask("get", "projects")
        self.assertEqual([p["id"] for p in listed["lines"]], [first["id"], second["id"]])

    def test_the_list_comes_by_the_page_with_every_picture_once(self) -> None:
        for n in range(PER_PAGE + 3):
            project = self.new_project(f"Number {n}")
        self.ask("post", f"projects/{project['id']}/archived")
        first, last = self.ask("get", "projects"), self.ask("get", "projects?page=99")
        self.assertEqual([(p["page"], len(p["lines"])) for p in (first, last)], [(1, PER_PAGE), (2, 2)])
        self.assertEqual(
            (first["pages"], first["count"], first["others"], len(first["pictures"])), (2, PER_PAGE + 2, 1, 1)
        )
        archive = self.ask("get", "projects?archived=true")
        self.assertEqual([p["name"] for p in archive["lines"]], [project["name"]])
        self.ask("get", "projects?page=none", expect=400)


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
        self.take_down(self.unit, "width", "3 1/4")
        key = str(uuid4())
        for _ in range(2):
            copy = self.ask("post", f"{self.path}/duplicates", {"id": key}, expect=201)
        self.assertEqual(copy["name"], "Lantern, again")
        self.assertEqual((copy["units"][0]["count"], copy["units"][0]["finished"]["text"]), (30, "2 3/4"))
        self.assertNotEqual(copy["units"][0]["id"], self.unit)
        self.assertEqual(self.ask("get", f"units/{copy['units'][0]['id']}/diagnosis")["readings"], [])
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/diagnosis")["readings"]), 1)
        self.assertEqual(Fabric.objects.filter(project__pk=key).count(), 2)

    def test_archived_and_taken_out(self) -> None:
        self.assertTrue(self.ask("post", f"{self.path}/archived")["archived"])
        self.assertFalse(self.ask("delete", f"{self.path}/archived")["archived"])

    def test_deleted_and_taken_back_with_everything(self) -> None:
        self.take_down(self.unit, "width", "4")
        self.assertTrue(self.ask("delete", self.path)["deleted"])
        self.assertEqual(self.ask("get", "projects")["lines"], [])
        self.ask("get", self.path, expect=404)
        self.ask("get", f"units/{self.unit}/diagnosis", expect=404)
        self.change(f"units/{self.unit}", {"count": 2}, expect=404)
        self.change(f"fabrics/{self.project['fabrics'][0]['id']}", {"name": "x"}, expect=404)
        self.ask("post", f"{self.path}/restore")
        self.assertEqual(len(self.ask("get", f"units/{self.unit}/diagnosis")["readings"]), 1)

    def test_fabrics_are_named_coloured_and_valued(self) -> None:
        path = f"fabrics/{self.project['fabrics'][0]['id']}"
        self.change(path, {"name": "Buoy", "colour": "#D8392B", "value": "medium"})
        fabric = self.ask("get", self.path)["fabrics"][0]
        self.assertEqual((fabric["name"], fabric["colour"], fabric["value"]), ("Buoy", "#d8392b", "medium"))
        problem = self.change(path, {"colour": "red", "value": "bright", "name": ""}, expect=422)
        self.assertEqual(set(self.codes(problem)), {"colour", "value", "name"})

    def test_a_change_that_leaves_no_plan_is_refused_with_what_would_work(self) -> None:
        problem = self.change(f"units/{self.unit}", {"cuts": {"square": "4"}}, expect=422)
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
        self.assertEqual(self.change(f"units/{self.unit}", {"count": "0"}, expect=422)["code"], "count_out_of_range")
        for count in ("-1", "2.5", "many", "10001", "", None, True, "٣"):
            with self.subTest(count):
                problem = self.change(f"units/{self.unit}", {"count": count}, expect=422)
                self.assertEqual(self.codes(problem), {"count": "count_out_of_range"})


class UnitsTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}/units"

    def add(self, kind: str = "flying_goose", expect: int = 201, **more: Any) -> Any:
        return self.ask("post", self.path, {"id": str(uuid4()), "kind": kind, **more}, expect=expect)

    def test_a_project_holds_many_kinds(self) -> None:
        project = self.add("pieced_half")
        self.assertEqual([u["kind"] for u in project["units"]], ["half_square_triangle", "pieced_half"])
        self.assertEqual([f["role"] for f in project["fabrics"]], ["a", "b", "c"], "a fabric for every part")
        self.assertEqual(self.codes(self.add("octagon", expect=422)), {"": "unknown_choice"})

    def test_adding_twice_with_one_key_adds_one(self) -> None:
        key = str(uuid4())
        for _ in range(2):
            project = self.ask("post", self.path, {"id": key, "kind": "four_patch"}, expect=201)
        self.assertEqual(len(project["units"]), 2)
        other = self.new_project("Wake")
        self.ask("post", f"projects/{other['id']}/units", {"id": key, "kind": "four_patch"}, expect=404)

    def test_a_copy_is_the_same_but_for_its_readings(self) -> None:
        unit = self.project["units"][0]["id"]
        self.change(f"units/{unit}", {"count": "17", "cuts": {"square": "5"}})
        self.take_down(unit, "width", "4")
        copy = self.add(copy_of=unit)["units"][1]
        self.assertEqual((copy["count"], copy["cuts"]["square"]["text"]), (17, "5"))
        self.assertEqual(self.ask("get", f"units/{copy['id']}/diagnosis")["readings"], [])

    def test_removed_and_taken_back(self) -> None:
        goose = self.add()["units"][1]["id"]
        self.assertEqual(len(self.ask("delete", f"units/{goose}")["units"]), 1)
        self.ask("get", f"units/{goose}/trim", expect=404)
        self.assertEqual(len(self.ask("post", f"units/{goose}/restore")["units"]), 2)
        self.assertEqual(len(self.ask("get", self.path.removesuffix("/units"))["units"]), 2)

    def test_another_kind_takes_what_is_usual_for_it(self) -> None:
        unit = self.project["units"][0]["id"]
        self.change(f"units/{unit}", {"cuts": {"square": "5"}, "count": "30"})
        (goose,) = self.change(f"units/{unit}", {"kind": "flying_goose"})["units"]
        self.assertEqual(
            (goose["method"], goose["part_fabrics"], goose["cuts"], goose["count"]), ("four", ["a", "b", "b"], {}, 30)
        )
        (split,) = self.change(f"units/{unit}", {"kind": "strip_split_square", "strip": "1"})["units"]
        self.assertEqual(split["strip"]["text"], "1")
        (corner,) = self.change(f"units/{unit}", {"kind": "corner_triangle"})["units"]
        self.assertGreater(corner["corner_2"]["exact"], "0")

    def test_sizes_that_are_cut_go_with_the_method(self) -> None:
        unit = self.project["units"][0]["id"]
        self.change(f"units/{unit}", {"cuts": {"square": "5"}})
        (eight,) = self.change(f"units/{unit}", {"method": "eight"})["units"]
        self.assertEqual(eight["cuts"], {})
        for wrong in ({"square": "wide"}, {"square": 5}, {"a b": "5"}, "5", ["5"]):
            with self.subTest(wrong):
                self.change(f"units/{unit}", {"cuts": wrong}, expect=422)

    def test_every_part_has_a_fabric_of_the_project(self) -> None:
        unit = self.project["units"][0]["id"]
        for part_fabrics in (["a", "z"], ["a"], ["a", "b", "a"], "", [1, 2], None):
            with self.subTest(part_fabrics):
                self.change(f"units/{unit}", {"part_fabrics": part_fabrics}, expect=422)
        self.assertEqual(
            self.change(f"units/{unit}", {"part_fabrics": ["b", "a"]})["units"][0]["part_fabrics"], ["b", "a"]
        )


class FabricsTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()

    def test_added_removed_and_taken_back_with_its_stock(self) -> None:
        key = str(uuid4())
        path = f"projects/{self.project['id']}/fabrics/{key}"
        for _ in range(2):
            project = self.ask("put", path, {"changes": {"name": "Rope", "colour": "#c8b48a", "value": "light"}})
        self.assertEqual([(f["role"], f["name"]) for f in project["fabrics"]][2:], [("c", "Rope")])
        self.assertEqual(len(self.ask("delete", f"fabrics/{key}")["fabrics"]), 2)
        self.ask("put", path, {"changes": {}})
        self.assertEqual(
            len(self.ask("get", f"projects/{self.project['id']}")["fabrics"]), 2, "put again is not taken back"
        )
        back = self.ask("post", f"fabrics/{key}/restore")
        self.assertEqual([(f["id"], f["role"], f["name"]) for f in back["fabrics"]][2:], [(key, "c", "Rope")])

    def test_its_stock_comes_back_with_it(self) -> None:
        key = str(uuid4())
        self.ask("put", f"projects/{self.project['id']}/fabrics/{key}", {"changes": {"name": "Rope"}})
        changes = {"kind": "scrap", "across": "20", "along": "30", "count": "1"}
        self.ask("put", f"fabrics/{key}/stock/{uuid4()}", {"changes": changes})
        sheet = f"projects/{self.project['id']}/cutting"
        self.assertEqual(len(self.ask("get", sheet)["stock"]), 1)
        self.ask("delete", f"fabrics/{key}")
        self.assertEqual(self.ask("get", sheet)["stock"], [])
        self.ask("post", f"fabrics/{key}/restore")
        self.assertEqual(len(self.ask("get", sheet)["stock"]), 1)

    def test_its_letter_given_away_meanwhile_it_takes_the_next(self) -> None:
        path = f"projects/{self.project['id']}/fabrics"
        first, second = str(uuid4()), str(uuid4())
        self.ask("put", f"{path}/{first}", {"changes": {}})
        self.ask("delete", f"fabrics/{first}")
        self.ask("put", f"{path}/{second}", {"changes": {}})
        back = self.ask("post", f"fabrics/{first}/restore")["fabrics"]
        self.assertEqual({f["id"]: f["role"] for f in back[2:]}, {second: "c", first: "d"})

    def test_another_projects_key_is_not_here(self) -> None:
        other = self.new_project()
        self.ask(
            "put", f"projects/{other['id']}/fabrics/{self.project['fabrics'][0]['id']}", {"changes": {}}, expect=404
        )

    def test_a_fabric_of_a_block_or_the_quilt_stays_and_its_users_are_named(self) -> None:
        path = f"projects/{self.project['id']}"
        self.ask("put", f"{path}/blocks/{uuid4()}", {"start": "shoo_fly", "changes": {}})
        for role in "cd":
            self.ask("put", f"{path}/fabrics/{uuid4()}", {"changes": {"role": role}})
        keys = {f["role"]: f["id"] for f in self.ask("get", path)["fabrics"]}
        block = self.ask("get", f"{path}/blocks")["blocks"][0]["id"]
        self.ask("post", f"blocks/{block}/edits", {"edit": {"do": "exchange", "one": "b", "other": "c"}})
        self.ask("patch", f"{path}/quilt", {"changes": {"binding_fabric": "d"}})
        self.assertIn("Shoo Fly", self.ask("delete", f"fabrics/{keys['c']}", expect=422)["detail"])
        self.assertIn("the quilt", self.ask("delete", f"fabrics/{keys['d']}", expect=422)["detail"])

    def test_a_fabric_in_use_stays(self) -> None:
        problem = self.ask("delete", f"fabrics/{self.project['fabrics'][0]['id']}", expect=422)
        self.assertIn("used by a unit", problem["detail"])

    def test_there_is_a_limit(self) -> None:
        for _ in range(10):
            self.ask("put", f"projects/{self.project['id']}/fabrics/{uuid4()}", {"changes": {}})
        self.ask("put", f"projects/{self.project['id']}/fabrics/{uuid4()}", {"changes": {}}, expect=422)


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
            lambda: PlannedUnit.objects.filter(project=project).update(count=0, mirrored=0),
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


class ExchangeTest(ApiCase):
    """Two fabrics change places with all that is theirs, and change back."""

    def test_there_and_back(self) -> None:
        project = self.new_project()
        path = f"projects/{project['id']}"
        before = {f["role"]: f["name"] for f in self.ask("get", path)["fabrics"]}
        one, other = list(before)[:2]
        now = self.ask("post", f"{path}/fabrics/exchange", {"one": one, "other": other})
        self.assertEqual(
            {f["role"]: f["name"] for f in now["fabrics"]}, {**before, one: before[other], other: before[one]}
        )
        self.ask("post", f"{path}/fabrics/exchange", {"one": other, "other": one})
        self.assertEqual({f["role"]: f["name"] for f in self.ask("get", path)["fabrics"]}, before)

    def test_what_cannot_be(self) -> None:
        path = f"projects/{self.new_project()['id']}/fabrics/exchange"
        for one, other, status in (("a", "a", 422), ("a", "z", 422), ("a", "", 400), ("a", "ab", 400)):
            self.ask("post", path, {"one": one, "other": other}, expect=status)
