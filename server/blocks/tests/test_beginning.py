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
        self.assertEqual(stage(), "trim")
