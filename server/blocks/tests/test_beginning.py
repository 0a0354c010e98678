"""A project begins with what somebody chose, and with nothing else."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase
from blocks.models import Quilt
from projects.models import Project


class BeginningTest(ApiCase):
    def begin(self, expect: int = 201, **body: Any) -> Any:
        self.key = str(uuid4())
        return self.ask("post", "beginnings", {"id": self.key, "name": "", "fabrics": [], **body}, expect=expect)

    def piles(self) -> list[tuple[str, str, int]]:
        found = self.ask("get", f"projects/{self.key}/standing")["piles"]
        return [(p["name"], p["width"]["text"] + " x " + p["height"]["text"], p["wanted"]) for p in found]

    def test_one_unit_of_two_fabrics(self) -> None:
        unit = {"kind": "half_square_triangle", "finished": "3 1/2", "count": "48"}
        project = self.begin(fabrics=["Tar", "Fog"], unit=unit)
        self.assertEqual([f["name"] for f in project["fabrics"]], ["Tar", "Fog"])
        self.assertEqual([(u["count"], u["width_shown"]["text"]) for u in project["units"]], [(48, "3 1/2")])
        # 24 pairs of 4 1/2: little oversize of the seven-eighths rule, up to the ruler's eighths.
        self.assertEqual([(size, n) for _, size, n in self.piles()], [("4 1/2 x 4 1/2", 24)] * 2)
        self.assertFalse(Quilt.objects.filter(begun=True).exists())

    def test_a_block_without_a_quilt_takes_no_cloth_for_one(self) -> None:
        self.begin(fabrics=["Tar", "Fog", "Buoy"], block={"start": "lantern", "finished": "10 1/2", "count": "12"})
        self.assertEqual({n for n, _, _ in self.piles()} & {"binding strip", "backing"}, set())
        self.assertIsNone(self.ask("get", f"projects/{self.key}/standing")["quilt"])

    def test_nine_stars_with_sashing_from_three_fabrics(self) -> None:
        """By hand: 3 by 3 blocks of 12 with sashing of 2 between them finish 40 by 40; six short sashes of 12 1/2 by 2 1/2 are
        cut, and two long ones of 40 1/2 and half an inch to trim off."""
        quilt = {"sash": "2", "sash_fabric": "c", "binding_fabric": "a"}
        block = {"start": "sawtooth_star", "finished": "12", "count": "9"}
        project = self.begin(name="Nine stars", fabrics=["Tar", "Fog", "Buoy"], block=block, quilt=quilt)
        standing = self.ask("get", f"projects/{self.key}/standing")
        self.assertEqual(standing["quilt"].replace("\u00a0", " "), "9 blocks, finishing 40″ by 40″")
        sashes = [(size, n) for name, size, n in self.piles() if "sash" in name]
        self.assertEqual(sashes, [("2 1/2 x 41", 2), ("2 1/2 x 12 1/2", 6)])
        self.assertEqual([f["name"] for f in project["fabrics"]], ["Tar", "Fog", "Buoy"])
        self.assertEqual({tuple(u["blocks"]) for u in project["units"]}, {("Sawtooth Star",)})

    def test_rows_and_columns_are_fitted_to_the_number_or_to_the_size(self) -> None:
        block = {"start": "pinwheel", "finished": "10"}
        for count, wanted in (("5", (5, 1)), ("25", (5, 5)), ("12", (3, 4))):
            self.begin(block={**block, "count": count}, quilt={})
            quilt = Quilt.objects.get(project_id=self.key)
            self.assertEqual((quilt.columns, quilt.rows), wanted)
        # Five of 10 and four sashes of 2 are 58; two borders of 4 make it 66: 60 to 70 wide is nearest to five.
        self.begin(
            block=block, quilt={"wide": "64", "high": "80", "sash": "2", "borders": [{"width": "4", "fabric": "a"}]}
        )
        quilt = Quilt.objects.get(project_id=self.key)
        self.assertEqual((quilt.columns, quilt.rows), (5, 6))
        self.assertEqual(self.ask("get", f"projects/{self.key}/blocks")["quilt"]["counted"], 30)

    def test_what_cannot_be_is_refused_by_its_field_and_nothing_is_kept(self) -> None:
        block = {"start": "pinwheel", "finished": "10", "count": "9"}
        for body, field in (
            ({"block": {**block, "finished": "broad"}}, "finished"),
            ({"block": {**block, "count": "many"}, "quilt": {}}, "count"),
            ({"block": {**block, "count": "0"}}, "count"),
            ({"block": {**block, "count": "61"}, "quilt": {}}, "count"),
            ({"block": block, "quilt": {"sash": "-1"}}, "sash"),
            ({"block": {**block, "start": "nobody"}}, "start"),
            ({"unit": {"kind": "flying_goose", "finished": "", "count": "4"}}, "finished"),
        ):
            with self.subTest(body=body):
                problem = self.begin(422, **body)
                if field:
                    self.assertIn(field, self.codes(problem))
        self.assertEqual(Project.objects.count(), 0)

    def test_fabrics_are_never_named_alike(self) -> None:
        project = self.begin(fabrics=["Tar", "", "  Fog  "])
        for _ in range(5):
            self.ask("put", f"projects/{self.key}/fabrics/{uuid4()}", {"changes": {}, "seen": {}})
        names = [f["name"] for f in self.ask("patch", f"projects/{self.key}", {"changes": {}, "seen": {}})["fabrics"]]
        self.assertEqual(names, ["Tar", "Light", "Fog", "Fourth", "Fifth", "Sixth", "Seventh", "Eighth"])
        self.assertEqual([f["role"] for f in project["fabrics"]], ["a", "b", "c"])

    def test_a_first_step_is_told_at_every_stage(self) -> None:
        stage = lambda: self.ask("get", f"projects/{self.key}/standing")["next"]["stage"]  # noqa: E731
        self.begin()
        self.assertEqual(stage(), "begin")
        self.begin(fabrics=["a"], block={"start": "pinwheel", "finished": "8", "count": "1"})
        self.assertEqual(stage(), "cut")
        for p in self.ask("get", f"projects/{self.key}/cutting")["piles"]:
            body = {"changes": {"cut": p["wanted"]}, "seen": {}}
            self.ask("patch", f"projects/{self.key}/cutting/piles/{p['letter']}", body)
        self.assertEqual(stage(), "sew")


class MetricTest(ApiCase):
    """Millimetres from the start: whatever nobody typed is round, and what is not trimmed is cut to the millimetre."""

    def setUp(self) -> None:
        self.change("workroom", {"measure": "mm"})
        self.key = str(uuid4())
        self.path = f"projects/{self.key}"
        block = {"start": "pinwheel", "finished": "300", "count": "9"}
        body = {"id": self.key, "fabrics": ["Tar", "Fog"], "block": block, "quilt": {"sash": "50"}}
        self.project = self.ask("post", "beginnings", body, expect=201)

    def test_settings_and_rulers_are_round(self) -> None:
        room = self.ask("get", "workroom")
        self.assertEqual(
            [room[f]["text"] for f in ("seam_allowance", "ruler_step", "reading_step")], ["6 mm", "5 mm", "1 mm"]
        )
        self.assertEqual({r["width"]["text"] for r in room["rulers"]}, {"150 mm", "300 mm"})
        self.change("workroom", {"seam_allowance": "7", "measure": "mm"})
        self.change("workroom", {"measure": "in"})
        room = self.ask("get", "workroom")
        # 7 mm was set by hand and stays; what was usual is usual in inches again.
        self.assertEqual((room["ruler_step"]["text"], room["seam_allowance"]["exact"]), ("1/8", "35/127"))

    def test_every_size_that_nobody_typed_is_round(self) -> None:
        self.ask("put", f"{self.path}/blocks/{uuid4()}", {"start": "lantern", "changes": {}, "seen": {}})
        # A goose's tip is not cut off by rounding each of its squares up to five millimetres.
        self.ask("post", f"{self.path}/units", {"id": str(uuid4()), "kind": "flying_goose"}, expect=201)
        for kind in ("yardage", "fat_quarter", "strip"):
            fabric = self.project["fabrics"][0]["id"]
            self.ask("put", f"fabrics/{fabric}/stock/{uuid4()}", {"changes": {"kind": kind}, "seen": {}})
        cutting = self.ask("get", f"{self.path}/cutting")
        sizes = [p[side]["text"] for p in cutting["piles"] for side in ("width", "height")]
        sizes += [s[side]["text"] for s in cutting["stock"] for side in ("across", "along")]
        self.assertEqual([s for s in sizes if "." in s], [])

    def test_sashing_finishes_as_it_was_asked_for(self) -> None:
        """50 and two allowances of 6 are 62: cut up to the ruler's fives it would finish 53."""
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        self.assertEqual({p["width"]["text"] for p in piles if "sashing" in p["name"]}, {"62 mm"})

    def test_a_project_with_nothing_cut_changes_its_sizes_one_under_way_only_its_words(self) -> None:
        self.change(self.path, {"measure": "in"})
        self.assertEqual(self.ask("patch", self.path, {"changes": {}, "seen": {}})["seam_allowance"]["text"], "1/4")
        letter = self.ask("get", f"{self.path}/cutting")["piles"][0]["letter"]
        self.ask("patch", f"{self.path}/cutting/piles/{letter}", {"changes": {"cut": 1}, "seen": {}})
        self.change(self.path, {"measure": "mm"})
        self.assertEqual(self.ask("patch", self.path, {"changes": {}, "seen": {}})["seam_allowance"]["exact"], "1/4")
