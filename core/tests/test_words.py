"""Every code that reaches a screen has its word, written once, where the thing itself is."""

from __future__ import annotations

import re
from unittest import TestCase

from piecing.blocks.library import library_keys, library_pattern
from piecing.blocks.pattern import layout_of
from piecing.cutting.plan import GOAL_WORDS, Goal
from piecing.cutting.stock import CLOTH_WORDS, ClothKind
from piecing.diagnosis.causes import CAUSE_WORDS, Cause
from piecing.diagnosis.equations import equation_of
from piecing.diagnosis.model import model_of
from piecing.diagnosis.placing import block_geometry
from piecing.diagnosis.reading_kinds import READING_WORDS, ReadingKind, ReadOn, kinds_offered
from piecing.drawings.ladder import DIMENSION_WORDS, RUNG_WORDS, ladders
from piecing.joining.order import ORDER_WORDS, Order
from piecing.lengths import inches
from piecing.planning import Choices, plan
from piecing.planning.schools import SCHOOL_WORDS, School
from piecing.units import KINDS, METHODS
from piecing.units.method import CUT_WORDS

from .samples import ALL_WAYS, sample
from .sources import of_core


class WordsTest(TestCase):
    def test_every_code_has_a_word(self) -> None:
        for codes, words in (
            (School, SCHOOL_WORDS),
            (Cause, CAUSE_WORDS),
            (ReadingKind, READING_WORDS),
            (ClothKind, CLOTH_WORDS),
            (Goal, GOAL_WORDS),
            (Order, ORDER_WORDS),
        ):
            self.assertEqual(set(codes), set(words), codes)

    def test_every_kind_method_and_size_is_called_something(self) -> None:
        for kind in KINDS.values():
            for word in (kind.title, kind.many, kind.line):
                self.assertRegex(word, r"^[A-Za-z]")
            self.assertNotEqual(kind.title.lower(), kind.many)
        titles = [(m.kind, m.title) for m in METHODS]
        self.assertEqual(len(titles), len(set(titles)), "two ways of one kind share a name")
        for method, spec in ALL_WAYS:
            p = plan(Choices(spec, method.name))
            for name in p.cuts:
                self.assertIn(name, {**CUT_WORDS, **method.size_words}, f"{method.kind} {method.name}")
            for ladder in ladders(p):
                self.assertIn(ladder.dimension, DIMENSION_WORDS)
                self.assertLessEqual({r.name for r in ladder.rungs}, set(RUNG_WORDS))

    def test_no_other_list_of_kinds_stands_anywhere(self) -> None:
        """A dictionary from codes of kinds to words, outside the kinds themselves, would drift."""
        listed = re.compile(r'"(half_square_triangle|flying_goose|four_patch)":\s*\(?"[A-Za-z -]+"')
        for source in of_core():
            self.assertIsNone(listed.search(source.text), source.name)


class OfferedTest(TestCase):
    def test_what_is_offered_can_be_read_and_nothing_else_can(self) -> None:
        """By the equations: a kind is offered just where some place of the block has one for it."""
        for key in library_keys()[::3]:
            pattern = library_pattern(key)
            if any(p.content is None for p in pattern.places):
                continue
            model = model_of(block_geometry(layout_of(pattern), inches(12)), inches("1/4"))
            offered = kinds_offered(model)
            with self.subTest(key):
                for feature in model.features:
                    self.assertIn(ReadingKind(feature.kind.value), offered)
                corners = any(b.corners for b in model.places.batches)
                self.assertEqual(ReadingKind.MISS in offered, corners)
                self.assertEqual(ReadingKind.CUT in offered, any(not b.plain for b in model.places.batches))
                self.assertNotIn(ReadingKind.COLUMN, kinds_offered(model, of_row=True))

    def test_where_the_ruler_lies_is_told_for_all_that_is_measured(self) -> None:
        for words in READING_WORDS.values():
            self.assertEqual(bool(words.where), words.on is not ReadOn.SEEN, words.title)

    def test_the_equation_of_a_width_stands_on_the_units_own_width(self) -> None:
        from piecing.diagnosis.readings import Reading

        spec = sample("rectangle", inches(6))
        self.assertEqual(spec.width, inches(6))
        pattern = library_pattern("wake")
        model = model_of(block_geometry(layout_of(pattern), inches("11/2")), inches("1/4"))
        unit = model.places.cells[0]
        e = equation_of(Reading(ReadingKind.WIDTH, inches(1), unit=unit.key), model, inches("1/32"), None)
        own = max(unit.width, unit.height) if unit.batch == 0 else unit.width
        self.assertAlmostEqual(e.nominal, own + 0.5)
