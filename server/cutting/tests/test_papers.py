"""Papers: rendered and measured, the same every time, whatever the name."""

from __future__ import annotations

import subprocess
import tempfile
from pathlib import Path
from uuid import uuid4
from xml.etree import ElementTree

import numpy as np
from django.test import SimpleTestCase

from api.tests.api import ApiCase
from papers.sheet import MARGIN, PaperSheet
from piecing.geometry.drawing import Sketch
from piecing.messages import Message

_DPI = 508
"""Twenty dots a millimetre."""


def rendered(pdf: bytes, page: int = 1) -> np.ndarray:
    """One page in grey, as poppler prints it."""
    with tempfile.TemporaryDirectory() as folder:
        source = Path(folder) / "in.pdf"
        source.write_bytes(pdf)
        command = [
            "pdftoppm",
            "-r",
            str(_DPI),
            "-gray",
            "-f",
            str(page),
            "-l",
            str(page),
            "-singlefile",
            str(source),
            f"{folder}/out",
        ]
        subprocess.run(command, check=True)
        data = (Path(folder) / "out.pgm").read_bytes()
    magic, size, depth, pixels = data.split(b"\n", 3)
    assert (magic, depth) == (b"P5", b"255")
    wide, high = map(int, size.split())
    return np.frombuffer(pixels, dtype=np.uint8).reshape(high, wide)


def upright_lines(image: np.ndarray, row: int) -> list[float]:
    """Where dark lines cross a row, in millimetres from the left: the middle of each."""
    dark = np.flatnonzero(image[row] < 128)
    groups = np.split(dark, np.flatnonzero(np.diff(dark) > 1) + 1)
    return [float(g.mean()) / _DPI * 25.4 for g in groups if len(g)]


class ClothTest(SimpleTestCase):
    def test_cloth_is_filled_near_and_from_afar(self) -> None:
        """A quilt of many thousand units is drawn in patches of one fabric each: as dark on paper as the units themselves."""
        for role in ("face", "patch"):
            sheet, sketch = PaperSheet("Quilt", "a4"), Sketch()
            sketch.polygon(role, ((0.0, 0.0), (4.0, 0.0), (4.0, 4.0), (0.0, 4.0)), "a")
            drawing = sketch.to_drawing((0.0, 0.0, 4.0, 4.0), Message("a quilt"))
            sheet.drawing(drawing, MARGIN, sheet.y, 288.0, {"a": "#202020"})
            dark = rendered(sheet.to_pdf()) < 60
            # Four inches square of the page.
            self.assertAlmostEqual(float(dark.sum()) / _DPI**2, 16, delta=0.3, msg=role)


class PaperTest(ApiCase):
    def setUp(self) -> None:
        self.project = self.new_project()
        self.path = f"/api/projects/{self.project['id']}"
        self.unit = self.project["units"][0]["id"]

    def pdf(self, path: str, **query: str) -> bytes:
        answer = self.client.get(path, query)
        self.assertEqual((answer.status_code, answer["Content-Type"]), (200, "application/pdf"), answer.content[:200])
        self.assertTrue(answer.content.startswith(b"%PDF"))
        return answer.content

    def said(self, pdf: bytes) -> str:
        done = subprocess.run(["pdftotext", "-layout", "-", "-"], input=pdf, capture_output=True, check=True)
        return done.stdout.decode()

    def test_a_fabric_named_like_a_template_is_only_a_name(self) -> None:
        fabric = self.project["fabrics"][0]
        self.ask("patch", f"fabrics/{fabric['id']}", {"changes": {"name": "Buoy {red} {0} #"}, "seen": {}})
        (ticket,) = self.ask("get", f"projects/{self.project['id']}/ticket")["units"]
        self.assertTrue(any("Buoy {red} {0} #" in line for line in ticket["cut"]), ticket["cut"])
        self.pdf(f"{self.path}/papers/ticket.pdf")

    def test_the_ticket_says_what_the_screen_says(self) -> None:
        text = self.said(self.pdf(f"{self.path}/papers/ticket.pdf"))
        for words in (
            'Trim to 4"',
            '2 squares 4 1/2", Dark',
            "Close the blade",
            "2 sets of 2",
            "Lot 1",
            "1. Take",
            "right sides together",
        ):
            self.assertIn(words, text.replace("\u00a0", " "))
        (ticket,) = self.ask("get", f"projects/{self.project['id']}/ticket")["units"]
        self.assertEqual((ticket["target"]["text"], ticket["goes"]), ("4", 2))
        plain = " ".join(text.replace("\u00a0", " ").split())
        for step in ticket["steps"]:
            self.assertIn(step["title"], plain)

    def test_both_papers_and_no_other(self) -> None:
        a4, letter = (self.pdf(f"{self.path}/papers/ticket.pdf", page=p) for p in ("a4", "letter"))
        self.assertNotEqual(a4, letter)
        self.ask("get", f"projects/{self.project['id']}/papers/ticket.pdf?page=poster", expect=422)

    def test_lots_have_labels_too(self) -> None:
        text = self.said(self.pdf(f"{self.path}/papers/labels.pdf"))
        self.assertIn("Lot 1: 2 sets, 4 units", text)

    def test_the_same_ticket_is_the_same_file(self) -> None:
        self.assertEqual(self.pdf(f"{self.path}/papers/ticket.pdf"), self.pdf(f"{self.path}/papers/ticket.pdf"))

    def test_a_very_long_name_and_odd_letters_stay_on_the_page(self) -> None:
        name = "Longwatch" * 13
        self.ask("patch", f"projects/{self.project['id']}", {"changes": {"name": name[:118]}, "seen": {}})
        fabric = self.project["fabrics"][0]["id"]
        self.ask("patch", f"fabrics/{fabric}", {"changes": {"name": "{Тар} <&> 帆"}, "seen": {}})
        for paper in ("ticket", "labels", "cutting-plan"):
            page = rendered(self.pdf(f"{self.path}/papers/{paper}.pdf"))
            margin = int(8 / 25.4 * _DPI)
            self.assertTrue((page[:, -margin:] > 128).all(), paper)

    def test_every_kind_has_a_ticket_and_a_template(self) -> None:
        for kind in self.ask("get", "kinds"):
            unit = str(uuid4())
            body = {"id": unit, "kind": kind["name"], "copy_of": None}
            self.ask("post", f"projects/{self.project['id']}/units", body, expect=201)
            with self.subTest(kind["name"]):
                self.pdf(f"/api/units/{unit}/papers/template.pdf")
                self.assertIn("<svg", self.client.get(f"/api/units/{unit}/papers/template.svg").content.decode())
        self.assertIn("Trim to", self.said(self.pdf(f"{self.path}/papers/ticket.pdf")))

    def test_check_squares_are_true_to_a_tenth_of_a_millimetre(self) -> None:
        for page in ("a4", "letter"):
            image = rendered(self.pdf(f"/api/units/{self.unit}/papers/template.pdf", page=page))
            # The squares stand 2.9 in. below the upper margin; half an inch above their foot a row crosses both.
            lines = upright_lines(image, int((40 + 2.9 * 72) / 72 * _DPI - 0.5 * _DPI))
            self.assertAlmostEqual(lines[1] - lines[0], 25.4, delta=0.1)
            self.assertAlmostEqual(lines[3] - lines[2], 50.0, delta=0.1)

    def test_the_template_is_the_trim_target(self) -> None:
        image = rendered(self.pdf(f"/api/units/{self.unit}/papers/template.pdf"))
        high = image.shape[0]
        # Between the target's left and right edges, a quarter of the way up from its foot.
        foot = (40 + 3.1 * 72) / 72 * _DPI + 4.0 * _DPI
        lines = upright_lines(image, int(foot - 0.4 * _DPI))
        self.assertLess(foot, high)
        self.assertAlmostEqual(lines[-1] - lines[0], 4 * 25.4, delta=0.1)

    def test_blocks_and_quilts_are_drawn_as_svg(self) -> None:
        key = str(uuid4())
        empty = self.ask("get", f"projects/{self.project['id']}/quilt.svg", expect=422)
        self.assertEqual(empty["code"], "paper_impossible")
        self.ask(
            "put",
            f"projects/{self.project['id']}/blocks/{key}",
            {"start": "lantern", "changes": {"finished": "10 1/2"}},
        )
        block = self.client.get(f"/api/blocks/{key}/picture.svg").content.decode()
        self.assertIn('width="10.5000in" height="10.5000in"', block)
        self.assertEqual(block.count("<polygon"), 25)
        self.ask("patch", f"projects/{self.project['id']}/quilt", {"changes": {"columns": 3, "rows": 4}, "seen": {}})
        quilt = ElementTree.fromstring(self.client.get(f"/api/projects/{self.project['id']}/quilt.svg").content)
        self.assertEqual(quilt.attrib["width"], "10.0000in")
        path = f"/api/projects/{self.project['id']}"
        # 31 1/2 by 42, one to four.
        quarter = ElementTree.fromstring(self.client.get(f"{path}/quilt.svg?scale=4").content)
        self.assertEqual((quarter.attrib["width"], quarter.attrib["height"]), ("7.8750in", "10.5000in"))
        self.assertIn("31 1/2", self.said(self.pdf(f"{path}/papers/quilt.pdf")))
        # Half size is 15 3/4 by 21: of pages 7.16 by 10.58 with half an inch over each other, three by two or three.
        half = self.said(self.pdf(f"{path}/papers/quilt.pdf?scale=2"))
        self.assertIn("row 2 of 3, column 3 of 3", half)
        for scale in ("0", "-1", "half", "101", "1.5"):
            self.ask("get", f"projects/{self.project['id']}/papers/quilt.pdf?scale={scale}", expect=422)

    def test_a_quilt_too_large_for_its_scale_says_which_one_does(self) -> None:
        self.ask(
            "put",
            f"projects/{self.project['id']}/blocks/{uuid4()}",
            {"start": "lantern", "changes": {"finished": "12"}},
        )
        self.ask("patch", f"projects/{self.project['id']}/quilt", {"changes": {"columns": 8, "rows": 9}, "seen": {}})
        problem = self.ask("get", f"projects/{self.project['id']}/papers/quilt.pdf?scale=1", expect=422)
        self.assertIn("One to 2 does", problem["errors"][0]["message"])

    def test_a_large_template_is_tiled(self) -> None:
        self.ask("patch", f"units/{self.unit}", {"changes": {"finished": "14"}, "seen": {}})
        text = self.said(self.pdf(f"/api/units/{self.unit}/papers/template.pdf"))
        self.assertIn("tile 2 across, 2 up", text)
        self.ask("patch", f"units/{self.unit}", {"changes": {"finished": "40"}, "seen": {}})
        self.ask("get", f"units/{self.unit}/papers/template.pdf", expect=422)
