"""Small half-square triangles from flipped corners: kept, and used instead of cutting new ones; units made already."""

from __future__ import annotations

from typing import Any
from uuid import uuid4

from api.tests.api import ApiCase


class SparesTest(ApiCase):
    """Six geese 5 1/2 by 2 3/4 by flipped corners of 3 1/4: cut-offs sewn half an inch out are 3 1/4 - √2 (1/4 + 1/4) = 2.543 raw;
    twelve of them, which trim to 2 1/2 (2 finished)."""

    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"
        self.goose, self.small = str(self.project["units"][0]["id"]), str(uuid4())
        geese: dict[str, Any] = {
            "kind": "flying_goose",
            "method": "two_flipped_corners",
            "finished": "5 1/2",
            "count": "6",
            "school": "exact",
        }
        self.alter(self.goose, **geese)
        self.ask("post", f"{self.path}/units", {"id": self.small, "kind": "half_square_triangle"}, expect=201)
        self.alter(self.small, finished="2", count="20", method="pair")

    def alter(self, unit: str, expect: int = 200, **changes: Any) -> Any:
        return self.ask("patch", f"units/{unit}", {"changes": changes, "seen": {}}, expect=expect)

    def spares(self, unit: str) -> Any:
        return self.ask("get", f"units/{unit}/spares")

    def squares(self) -> int:
        """Squares to cut for the half-square triangles."""
        piles = self.ask("get", f"{self.path}/cutting")["piles"]
        return int(sum(p["wanted"] for p in piles if "Half-square" in p["name"]))

    def test_kept_and_used(self) -> None:
        self.assertIn("12 small half-square triangles", self.spares(self.goose)["leaves"])
        self.assertEqual(self.spares(self.small), {"leaves": None, "there": []})
        before = self.squares()
        sheet = self.ask("post", f"units/{self.goose}/spares/kept")
        self.assertEqual([(s["kind"], s["count"], s["is_cloth"]) for s in sheet["stock"]], [("half_square", 12, False)])
        self.assertIsNone(self.spares(self.goose)["leaves"])
        self.ask("post", f"units/{self.goose}/spares/kept", expect=422)
        (there,) = self.spares(self.small)["there"]
        self.assertEqual(there["use"], 12)
        self.assertIn("trim to 2\u00a01⁄2″", there["said"])
        self.ask("post", f"units/{self.small}/spares/used", {"stock": there["stock"]})
        # Eight of twenty are left: four pairs of squares instead of ten.
        self.assertEqual((before, self.squares()), (20, 8))
        self.ask("post", f"units/{self.small}/spares/used", {"stock": there["stock"]}, expect=404)
        # Used up, they do not fall off a second time; two geese more leave four more.
        self.assertIsNone(self.spares(self.goose)["leaves"])
        self.assertEqual(self.ask("get", f"{self.path}/cutting")["stock"], [])
        self.alter(self.goose, count="8")
        self.assertIn("4 small half-square triangles", self.spares(self.goose)["leaves"])
        sheet = self.ask("post", f"units/{self.goose}/spares/kept")
        self.assertEqual([(s["count"], s["name"]) for s in sheet["stock"]], [(4, "from flying geese finishing 5 1/2")])
        copy = self.ask("get", f"{self.path}/export")
        self.assertEqual([u["spares_kept"] for u in copy["units"] if u["kind"] == "flying_goose"], [16])

    def test_too_small_or_of_other_fabrics_is_not_offered(self) -> None:
        self.ask("post", f"units/{self.goose}/spares/kept")
        self.alter(self.small, finished="2 1/4")
        self.assertEqual(self.spares(self.small)["there"], [])
        self.alter(self.small, finished="2", part_fabrics="aa")
        self.assertEqual(self.spares(self.small)["there"], [])

    def test_only_as_many_as_are_wanted(self) -> None:
        self.ask("post", f"units/{self.goose}/spares/kept")
        self.alter(self.small, count="5")
        (there,) = self.spares(self.small)["there"]
        self.ask("post", f"units/{self.small}/spares/used", {"stock": there["stock"]})
        self.assertEqual([s["count"] for s in self.ask("get", f"{self.path}/cutting")["stock"]], [7])
        self.assertEqual(self.squares(), 0)
        self.assertEqual(self.spares(self.small)["there"], [])

    def test_units_made_already_are_told_and_not_cut(self) -> None:
        self.alter(self.small, ready="14")
        self.assertEqual(self.squares(), 6)
        self.alter(self.small, ready="20")
        self.assertEqual(self.squares(), 0)
        self.alter(self.small, ready="many", expect=422)
        self.alter(self.small, ready="-1", expect=422)
