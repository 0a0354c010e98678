"""Readings as CSV, both ways."""

from __future__ import annotations

import csv
import io
from typing import Any

from common.sheets import MOST_LINES
from common.tests.api import ApiCase


class SheetCase(ApiCase):
    def setUp(self) -> None:
        self.unit = self.new_project()["units"][0]["id"]
        self.path = f"units/{self.unit}/readings.csv"

    def paste(self, text: str, expect: int = 200) -> Any:
        return self.ask("post", self.path, {"text": text}, expect=expect)

    def export(self) -> list[list[str]]:
        answer = self.client.get(f"/api/{self.path}")
        self.assertEqual(answer["Content-Type"], "text/csv; charset=utf-8")
        return list(csv.reader(io.StringIO(answer.content.decode())))

    def values(self) -> list[str]:
        return [r["value"]["exact"] for r in self.ask("get", f"units/{self.unit}/check")["readings"]]


class ImportTest(SheetCase):
    def test_good_lines_go_in_and_broken_ones_are_named(self) -> None:
        done = self.paste(
            "unit_width,3 15/16\n"
            "unit_width,wide\n"
            "\n"
            "row_length,11\n"
            "row_length,10 7/8,3,,top row\n"
            "girth,4\n"
            "strip_test,1,,3 1/2\n"
        )
        self.assertEqual(done["added"], 3)
        self.assertEqual([r["line"] for r in done["refused"]], [2, 4, 6])
        reasons = " ".join(r["reason"] for r in done["refused"])
        for words in ("no number", "without its number of units", "no kind of reading"):
            self.assertIn(words, reasons)
        self.assertEqual(self.values(), ["63/16", "87/8", "1"])

    def test_other_separators_marks_and_headers(self) -> None:
        for text in (
            "\ufeffkind;value;row_units\r\nrow_length;10,875;3\r\n",
            "value\tkind\trow_units\n10 7/8\trow\t3\n",
            'kind,value,row_units\nrow_length,"10,875",3\n',
            "row_length,10 7/8,3\r",
        ):
            with self.subTest(text):
                self.assertEqual(self.paste(text), {"added": 1, "refused": []})
        self.assertEqual(set(self.values()), {"87/8"})

    def test_a_decimal_comma_among_commas_is_not_silently_cut_short(self) -> None:
        done = self.paste("unit_width,3,875")
        self.assertEqual(done["added"], 0)
        self.assertIn("decimal comma", done["refused"][0]["reason"])

    def test_what_is_no_table(self) -> None:
        self.assertEqual(self.paste("PK\x03\x04\x00\x00", expect=400)["code"], "invalid_request")
        self.assertEqual(self.paste("x\n" * (MOST_LINES + 1), expect=400)["code"], "sheet_refused")
        self.assertEqual(self.values(), [], "nothing was taken")
        for text in ('"never closed', "a" * 200_000, ",,,,", "¿?", "=1+1"):
            with self.subTest(text[:20]):
                done = self.paste(text)
                self.assertEqual((done["added"], len(done["refused"])), (0, 1))
                self.assertLessEqual(len(done["refused"][0]["text"]), 120)
        self.paste("", expect=400)


class ExportTest(SheetCase):
    def test_out_and_in_again_is_the_same(self) -> None:
        self.paste("row_length,10 7/8,3,,port side\nstrip_test,31/32,,3 7/16\nunit_width,98 mm\n")
        text = self.client.get(f"/api/{self.path}").content.decode()
        other = self.new_project("Wake")["units"][0]["id"]
        self.assertEqual(self.ask("post", f"units/{other}/readings.csv", {"text": text})["added"], 3)
        again = self.client.get(f"/api/units/{other}/readings.csv").content.decode()
        self.assertEqual(again, text)

    def test_a_spreadsheet_runs_nothing(self) -> None:
        notes = ("=1+1", "+cmd", "-2", "@sum", "plain")
        self.paste("\n".join(f"unit_width,4,,,{n}" for n in notes))
        cells = [row[4] for row in self.export()[1:]]
        self.assertEqual(cells, ["'=1+1", "'+cmd", "'-2", "'@sum", "plain"])
        self.paste("\n".join(",".join(row) for row in self.export()[1:]))
        kept = [r["note"] for r in self.ask("get", f"units/{self.unit}/check")["readings"]]
        self.assertEqual(kept, [*notes, *notes])
