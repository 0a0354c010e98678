"""The plan follows the blocks, half-way through the work too; what was planned by hand stands beside."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from blocks.models import Block, Quilt
from piecing.lengths import inches
from projects.models import PlannedUnit


class FollowingTest(ApiCase):
    """Twelve Lantern blocks finishing 10 1/2: 4 half-squares, 4 hourglasses and 1 plain square of 3 1/2 each."""

    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.hand = self.project["units"][0]["id"]
        self.key = str(uuid4())
        self.put(start="lantern", finished="10 1/2", colourways=[{"count": 12, "roles": {}}])

    def put(self, start: str = "", key: str = "", **changes: Any) -> Any:
        body = {"start": start, "changes": changes, "seen": {}}
        return self.ask("put", f"{self.path}/blocks/{key or self.key}", body)

    def units(self) -> dict[str, dict[str, Any]]:
        """Those of blocks, by kind."""
        return {u["kind"]: u for u in self.ask("get", self.path)["units"] if u["blocks"]}

    def planned(self) -> dict[str, tuple[int, str]]:
        return {k: (u["count"], u["width_shown"]["text"]) for k, u in self.units().items()}

    def edit(self, **edit: Any) -> None:
        self.ask("post", f"blocks/{self.key}/edits", {"edit": edit})

    def test_units_stand_in_the_plan_because_of_the_block(self) -> None:
        self.assertEqual(
            self.planned(),
            {
                "half_square_triangle": (48, "3 1/2"),
                "quarter_square_triangle": (48, "3 1/2"),
                "plain_square": (12, "3 1/2"),
            },
        )
        self.assertEqual({tuple(u["blocks"]) for u in self.units().values()}, {("Lantern",)})
        by_hand = [u for u in self.ask("get", self.path)["units"] if not u["blocks"]]
        self.assertEqual([(u["id"], u["count"]) for u in by_hand], [(self.hand, 4)])

    def test_a_block_resized_resizes_its_units_and_leaves_no_second_copy(self) -> None:
        before = {k: u["id"] for k, u in self.units().items()}
        self.put(finished="9")
        self.assertEqual(set(self.planned().values()), {(48, "3"), (12, "3")})
        self.assertEqual({k: u["id"] for k, u in self.units().items()}, before)
        self.assertEqual(PlannedUnit.objects.filter(deleted_at=None).count(), 4)

    def test_five_blocks_more_and_spares_are_followed(self) -> None:
        self.put(colourways=[{"count": 17, "roles": {}}])
        self.assertEqual(self.planned()["half_square_triangle"][0], 4 * 17)
        self.ask("patch", f"{self.path}/quilt", {"changes": {"spare_percent": "10"}, "seen": {}})
        # A tenth of 68 is 6.8: seven more; plain squares are cut, not sewn, and get none.
        self.assertEqual((self.planned()["half_square_triangle"][0], self.planned()["plain_square"][0]), (75, 17))

    def test_what_is_chosen_and_measured_stays_with_a_unit(self) -> None:
        unit = self.units()["half_square_triangle"]["id"]
        self.change(f"units/{unit}", {"method": "eight", "school": "generous"})
        self.take_down(unit, "width", "4")
        self.edit(do="exchange", one="a", other="c")
        now = self.units()["half_square_triangle"]
        self.assertEqual((now["id"], now["method"], now["school"]), (unit, "eight", "generous"))
        self.assertEqual(len(self.ask("get", f"units/{unit}/diagnosis")["readings"]), 1)
        self.put(finished="9")
        self.assertEqual(self.units()["half_square_triangle"]["id"], unit)
        counted = self.ask("get", f"{self.path}/counts")["units"]
        half = next(u for u in counted if u["kind"] == "half_square_triangle")
        self.assertEqual((half["method"], half["school"]), ("eight", "generous"))

    def test_a_size_typed_on_the_way_to_another_loses_nothing(self) -> None:
        """12 is typed as 1 and 12: at a third of an inch eight at a time cannot be made, at 4 in. it can again."""
        unit = self.units()["half_square_triangle"]["id"]
        self.change(f"units/{unit}", {"method": "eight"})
        for size in ("1/2", "12"):
            self.put(finished=size)
        self.assertEqual(self.units()["half_square_triangle"]["method"], "eight")
        self.put(finished="10 1/2")
        self.change(f"units/{unit}", {"method": "pair", "cuts": {"square": "5"}})
        self.put(finished="9")
        self.assertEqual(self.units()["half_square_triangle"]["cuts"]["square"]["text"], "5")
        self.put(finished="24")
        self.assertEqual(self.units()["half_square_triangle"]["cuts"], {}, "5 in. give no unit of 8")

    def test_a_method_chosen_in_counts_is_taken_by_the_plan(self) -> None:
        making = {"half_square_triangle": {"method": "four", "school": "exact"}}
        self.ask("patch", f"{self.path}/quilt", {"changes": {"makings": making}, "seen": {}})
        unit = self.units()["half_square_triangle"]
        self.assertEqual((unit["method"], unit["school"]), ("four", "exact"))
        self.assertEqual(self.ask("get", self.path)["units"][0]["method"], "pair")

    def test_a_block_taken_away_takes_its_units_and_brings_them_back(self) -> None:
        ids = {u["id"] for u in self.units().values()}
        self.ask("delete", f"blocks/{self.key}")
        self.assertEqual(self.units(), {})
        self.ask("post", f"blocks/{self.key}/restore")
        self.assertEqual({u["id"] for u in self.units().values()}, ids)

    def test_two_blocks_share_a_unit_and_each_gives_its_own_number(self) -> None:
        other = str(uuid4())
        self.put(start="lantern", key=other, finished="10 1/2", colourways=[{"count": 2, "roles": {}}])
        self.assertEqual(self.planned()["half_square_triangle"][0], 4 * 14)
        self.ask("delete", f"blocks/{other}")
        self.assertEqual(self.planned()["half_square_triangle"][0], 48)

    def test_a_block_with_an_empty_place_keeps_what_it_had_and_others_go_on(self) -> None:
        other = str(uuid4())
        self.put(start="pinwheel", key=other, finished="7", colourways=[{"count": 1, "roles": {}}])
        self.edit(do="clear", spots=[[0, 0]])
        self.assertEqual(self.planned()["quarter_square_triangle"][0], 48)
        self.put(key=other, colourways=[{"count": 3, "roles": {}}])
        # The half-squares of 3 1/2 are in both: 48 of the block that waits, 4 for each pinwheel.
        self.assertEqual(self.planned()["half_square_triangle"][0], 48 + 12)

    def test_what_the_block_says_is_not_changed_in_the_plan(self) -> None:
        unit = self.units()["half_square_triangle"]["id"]
        for changes in ({"count": "3"}, {"finished": "2"}, {"kind": "plain_square"}, {"part_fabrics": ["b", "a"]}):
            problem = self.change(f"units/{unit}", changes, expect=422)
            self.assertIn("comes from Lantern", problem["errors"][0]["message"])
        self.ask("delete", f"units/{unit}", expect=422)
        self.assertEqual(self.planned()["half_square_triangle"], (48, "3 1/2"))

    def test_one_planned_by_hand_is_never_touched(self) -> None:
        self.change(f"units/{self.hand}", {"count": "20"})
        self.put(finished="9")
        self.edit(do="exchange", one="a", other="b")
        self.assertEqual(PlannedUnit.objects.get(pk=self.hand).count, 20)
        self.assertEqual(PlannedUnit.objects.get(pk=self.hand).finished, inches("7/2"))

    def test_numbers_put_into_the_plan_before_it_followed_become_the_blocks_own(self) -> None:
        """As a project from before: the same units, by hand, and a quilt that was never followed."""
        PlannedUnit.objects.exclude(of_blocks={}).update(of_blocks={}, count=7)
        PlannedUnit.objects.filter(pk=self.hand).delete()
        Quilt.objects.update_or_create(project_id=self.project["id"], defaults={"followed": False})
        self.put(colourways=[{"count": 5, "roles": {}}])
        self.assertEqual(self.planned()["half_square_triangle"], (20, "3 1/2"))
        self.assertEqual(PlannedUnit.objects.filter(deleted_at=None).count(), 3)

    def test_a_copy_and_a_file_follow_their_own_blocks(self) -> None:
        copy = self.ask("post", f"{self.path}/duplicates", {"id": str(uuid4())}, expect=201)["id"]
        came = self.ask("post", "exchange/projects", self.ask("get", f"{self.path}/export"), expect=201)["id"]
        for project in (copy, came):
            block = Block.objects.get(project_id=project)
            body = {"start": "", "changes": {"colourways": [{"count": 3, "roles": {}}]}, "seen": {}}
            self.ask("put", f"projects/{project}/blocks/{block.pk}", body)
            units = self.ask("get", f"projects/{project}")["units"]
            self.assertEqual(sorted(u["count"] for u in units), [3, 4, 12, 12])
        self.assertEqual(self.planned()["half_square_triangle"][0], 48)
