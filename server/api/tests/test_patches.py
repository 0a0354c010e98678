"""Saving as you go: nothing another window saved is silently overwritten."""

from __future__ import annotations

from api.tests.api import ApiCase


class PatchTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"projects/{self.project['id']}"

    def test_two_windows_change_different_fields(self) -> None:
        self.change(self.path, {"name": "Lantern, port side"}, {"name": "Lantern"})
        self.change(self.path, {"seam_allowance": "3/8"}, {"seam_allowance": "1/4"})
        kept = self.ask("get", self.path)
        self.assertEqual((kept["name"], kept["seam_allowance"]["text"]), ("Lantern, port side", "3/8"))

    def test_two_windows_change_the_same_field(self) -> None:
        self.change(self.path, {"name": "First"}, {"name": "Lantern"})
        problem = self.change(self.path, {"name": "Second"}, {"name": "Lantern"}, expect=409)
        self.assertEqual(problem["code"], "changed_elsewhere")
        self.assertEqual(problem["errors"][0]["values"], {"here": "First"})
        self.assertEqual(self.ask("get", self.path)["name"], "First")

    def test_one_clash_holds_back_the_whole_change(self) -> None:
        self.change(self.path, {"fold": "1/32"}, {"fold": "0"})
        self.change(self.path, {"fold": "1/64", "name": "Other"}, {"fold": "0", "name": "Lantern"}, expect=409)
        self.assertEqual(self.ask("get", self.path)["name"], "Lantern")

    def test_both_windows_wanting_the_same_is_no_clash(self) -> None:
        self.change(self.path, {"fold": "1/32"}, {"fold": "0"})
        self.change(self.path, {"fold": "2/64"}, {"fold": "0"})

    def test_sending_again_after_a_lost_answer_changes_nothing(self) -> None:
        for _ in range(2):
            self.change(self.path, {"seam_allowance": "3/8"}, {"seam_allowance": "1/4"})

    def test_a_length_shown_in_the_other_measure_is_still_the_one_seen(self) -> None:
        self.change(self.path, {"seam_allowance": "3/8"})
        metric = self.change(self.path, {"measure": "mm"}, {"measure": "in"})
        seen = metric["seam_allowance"]["text"]
        self.assertEqual(seen, "9.525 mm")
        changed = self.change(self.path, {"seam_allowance": "7 mm"}, {"seam_allowance": seen})
        self.assertEqual(changed["seam_allowance"]["exact"], "35/127")

    def test_fields_that_do_not_exist_are_left_alone(self) -> None:
        self.change(self.path, {"workroom_id": "x", "deleted_at": "now"})
        self.assertFalse(self.ask("get", self.path)["deleted"])

    def test_every_field_that_cannot_be_read_is_named_at_once(self) -> None:
        problem = self.change(self.path, {"seam_allowance": "wide", "fold": "3 7/0", "ruler_step": ""}, expect=422)
        self.assertEqual(
            self.codes(problem),
            {
                "seam_allowance": "length_not_understood",
                "fold": "length_not_understood",
                "ruler_step": "length_not_understood",
            },
        )
