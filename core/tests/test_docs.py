"""The worked examples in docs/theory are true, and the pages named in code are there."""

from __future__ import annotations

import ast
import doctest
import re
from pathlib import Path
from unittest import TestCase

from .sources import of_core

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
        for source in of_core():
            for text in named.findall(source.text):
                for number in re.findall(r"\d+(?:\.\d+)?", text):
                    with self.subTest(f"{source.short}: {number}"):
                        self.assertIn(number, written)

    def test_links_between_pages_lead_somewhere(self) -> None:
        for page in _DOCS.rglob("*.md"):
            for target in re.findall(r"\]\(([^)#:]+)\)", page.read_text("utf-8")):
                with self.subTest(f"{page.name}: {target}"):
                    self.assertTrue((page.parent / target).exists())


class PublicFunctionsTest(TestCase):
    """Every public function says what it is; one that overrides a method of its base says it there."""

    def test_none_is_without_a_word(self) -> None:
        classes = [(s, c) for s in of_core() for c in s.nodes if isinstance(c, ast.ClassDef)]
        said = {(c.name, f.name) for _, c in classes for f in _public(c) if ast.get_docstring(f)}
        bases = {c.name: [b.id for b in c.bases if isinstance(b, ast.Name)] for _, c in classes}

        def told(owner: str, name: str) -> bool:
            return (owner, name) in said or any(told(base, name) for base in bases.get(owner, []))

        silent = [f"{s.short}: {f.name}" for s in of_core() for f in _public(s.tree) if not ast.get_docstring(f)]
        silent += [
            f"{s.short}: {c.name}.{f.name}"
            for s, c in classes
            if not c.name.startswith("_")
            for f in _public(c)
            if not told(c.name, f.name)
        ]
        self.assertEqual(silent, [])


def _public(owner: ast.Module | ast.ClassDef) -> list[ast.FunctionDef]:
    return [f for f in owner.body if isinstance(f, ast.FunctionDef) and not f.name.startswith("_")]
