"""The worked examples in docs/theory are true, and the pages named in code are there."""

from __future__ import annotations

import doctest
import re
from pathlib import Path
from unittest import TestCase

import piecing

_DOCS = Path(__file__).resolve().parents[2] / "docs"
_PAGES = sorted((_DOCS / "theory").glob("*.md"))


class WorkedExamplesTest(TestCase):
    def test_theory(self) -> None:
        tried = 0
        for page in _PAGES:
            with self.subTest(page.name):
                failed, here = doctest.testfile(str(page), module_relative=False)
                tried += here
                self.assertEqual(failed, 0)
        self.assertGreaterEqual(tried, 30)

    def test_every_section_that_code_names_is_written(self) -> None:
        written = {n for page in _PAGES for n in re.findall(r"(?m)^#+ (\d+(?:\.\d+)?)", page.read_text("utf-8"))}
        named = re.compile(r"docs/theory, sections? ([\d., and]+\d)")
        for path in Path(piecing.__file__).parent.rglob("*.py"):
            for text in named.findall(path.read_text("utf-8")):
                for number in re.findall(r"\d+(?:\.\d+)?", text):
                    with self.subTest(f"{path.name}: {number}"):
                        self.assertIn(number, written)

    def test_links_between_pages_lead_somewhere(self) -> None:
        for page in _DOCS.rglob("*.md"):
            for target in re.findall(r"\]\(([^)#:]+)\)", page.read_text("utf-8")):
                with self.subTest(f"{page.name}: {target}"):
                    self.assertTrue((page.parent / target).exists())
