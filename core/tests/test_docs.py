"""The worked examples in docs/theory.md are true."""

from __future__ import annotations

import doctest
from pathlib import Path
from unittest import TestCase

_DOCS = Path(__file__).resolve().parents[2] / "docs"


class WorkedExamplesTest(TestCase):
    def test_theory(self) -> None:
        failed, tried = doctest.testfile(str(_DOCS / "theory.md"), module_relative=False)
        self.assertGreaterEqual(tried, 6)
        self.assertEqual(failed, 0)
