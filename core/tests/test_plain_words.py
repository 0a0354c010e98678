"""What is said at the bench is plain: short sentences, marks of a ruler, and no word of the craft that the glossary leaves out."""

from __future__ import annotations

import re
from collections.abc import Iterator
from functools import lru_cache
from pathlib import Path
from unittest import TestCase

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import UnitPlacement
from piecing.cautions import CAUTIONS
from piecing.handling.joining_steps import join_steps
from piecing.handling.marking import Marking
from piecing.handling.quilt_steps import quilt_steps
from piecing.handling.steps import unit_steps
from piecing.joining.order import orders
from piecing.joining.pressing import Wishes, pressing_map
from piecing.lengths import ZERO, Measure, Style, inches, mm
from piecing.planning.plan import plan
from piecing.planning.unit_plan import Choices
from piecing.quilts.choices import Border, Corners, QuiltChoices, Setting
from piecing.quilts.pieced import PiecedRow
from piecing.quilts.sizes import quilt_sizes

from .samples import ALL_WAYS

HOME = Path(__file__).resolve().parents[2]
NAMES = {"a": "Dark", "b": "Light", "c": "Third", "d": "Fourth", "e": "Fifth"}
VALUES = {"a": 2, "b": 0, "c": 1, "d": 1, "e": 0}
_MOST_WORDS = 25


@lru_cache(maxsize=1)
def sentences() -> tuple[tuple[str, str], ...]:
    """Every sentence that a step says, with where it is said."""
    return tuple(_sentences())


def _sentences() -> Iterator[tuple[str, str]]:
    for method, spec in ALL_WAYS:
        for marking in Marking:
            for fold, measure in ((ZERO, Measure.INCHES), (inches("1/32"), Measure.MILLIMETRES)):
                own = {"ruler_step": mm(1)} if measure is Measure.MILLIMETRES else {}
                p = plan(Choices(spec, method.name, fold=fold, **own))
                for step in unit_steps(p, NAMES, VALUES, marking):
                    told = [step.title, *step.said, *step.look, *(m for w in step.wrong for m in (w.before, w.after))]
                    for m in told:
                        yield f"{method.kind} {method.name} {step.key}", m.text(Style(measure))
    for n, key in enumerate(library_keys()):
        pattern = library_pattern(key)
        order = orders(pattern)[0].order
        wishes = Wishes(repeats=n % 2 == 1)
        known = pressing_map(pattern, order, VALUES, wishes) if len(pattern.places) < 20 else None
        for step in join_steps(pattern, order, inches(12), inches("1/4"), inches("1/8"), known):
            for m in (step.title, *step.said, *step.look):
                yield f"{key} {step.key}", m.text(Style(Measure.INCHES)).replace(step.block, "block")
    row = PiecedRow((UnitPlacement("half_square_triangle", ("a", "b")),))
    for setting in (Setting.STRAIGHT, Setting.ON_POINT, Setting.STAGGERED):
        for sash in (ZERO, inches(2)):
            if setting is Setting.STAGGERED and sash > ZERO:
                continue
            for round_it, stones in ((False, False), (True, True)):
                borders = (
                    Border(inches(2), "a"),
                    Border(inches(2), "b", Corners.SQUARE, "a"),
                    Border(inches("5/2"), "b", pieced=row),
                    Border(inches(2), "b", Corners.MITRED),
                )
                choices = QuiltChoices(
                    4, 4, inches(6), inches(6), setting, sash, sash_round=round_it, cornerstones=stones, borders=borders
                )
                for quilt_step in quilt_steps(quilt_sizes(choices)):
                    for m in (quilt_step.title, *quilt_step.said, *quilt_step.look):
                        yield f"{setting} {quilt_step.key}", m.text()
    for place, cautions in CAUTIONS.items():
        for m in cautions:
            yield f"caution {place}", m.text()


def words(said: str) -> list[str]:
    """Words as they are written, figures and marks left out."""
    return re.findall(r"[A-Za-z][A-Za-z'’-]*", said)


def known() -> set[str]:
    """Everyday words, and every word that the glossary explains or heads a line with."""
    everyday = set((HOME / "core/tests/plain_words.txt").read_text("utf-8").split())
    glossary = (HOME / "docs/glossary.md").read_text("utf-8")
    heads = [line.split("|")[1] for line in glossary.splitlines() if line.startswith("| ")]
    return everyday | {w.lower() for h in heads for w in words(h)} | {n.lower() for n in NAMES.values()}


def plain(word: str, there: set[str]) -> bool:
    """Whether a word is known, or a known one with an ending."""
    w = word.lower().strip("'’-")
    stems = [w, w.removesuffix("s"), w.removesuffix("es"), w.removesuffix("'s"), w.removesuffix("’s")]
    if w.endswith("ing") or w.endswith("ed"):
        stem = w.removesuffix("ing").removesuffix("ed")
        stems += [stem, f"{stem}e", stem[:-1]]
    return any(s in there for s in stems) or ("-" in w and all(plain(p, there) for p in w.split("-")))


class PlainWordsTest(TestCase):
    def test_sentences_are_short(self) -> None:
        for where, said in sentences():
            for sentence in re.split(r"(?<=[.;:?!])\s", said):
                self.assertLess(len(sentence.split()), _MOST_WORDS, f"{where}: {sentence}")

    def test_lengths_stand_on_a_ruler(self) -> None:
        for where, said in sentences():
            self.assertNotRegex(said, r"⁄64|/64|−|\d\.\d{3}|%", where)

    def test_every_word_is_plain_or_explained(self) -> None:
        there = known()
        unknown = {w for _, said in sentences() for w in words(said) if len(w) > 1 and not plain(w, there)}
        self.assertEqual(unknown, set())

    def test_the_everyday_words_hold_no_word_of_the_craft_by_mistake(self) -> None:
        """What the glossary heads a line with is explained there, not taken for granted here."""
        everyday = set((HOME / "core/tests/plain_words.txt").read_text("utf-8").split())
        for term in ("allowance", "bias", "nest", "spin", "leader", "notch", "flush", "crossing", "selvedge", "starch"):
            self.assertNotIn(term, everyday)

    def test_every_method_says_all_of_its_stages(self) -> None:
        """Marking where something is marked, pairing, sewing, cutting apart where it is cut, pressing."""
        for method, spec in ALL_WAYS:
            p = plan(Choices(spec, method.name))
            steps = unit_steps(p, NAMES, VALUES)
            verbs = [s.key.split(" ")[0] for s in steps]
            with self.subTest(kind=method.kind, method=method.name):
                self.assertEqual(verbs[0], "take")
                if len(p.kind.parts) == 1:
                    self.assertEqual(verbs, ["take"])
                    continue
                for verb in ("lay", "sew", "open"):
                    self.assertIn(verb, verbs)
                if "loose" not in method.name and method.name not in (
                    "four",
                    "squares",
                    "strips",
                    "templates",
                    "strip",
                    "corner_triangles",
                    "triangles",
                ):
                    self.assertIn("mark", verbs)
                    self.assertIn("cut", verbs)
                for s in steps:
                    self.assertTrue(s.said and s.front.marks, s.key)
