"""Sentences as data: values, numbers and lists in them, and a check that no template is put together from what is typed."""

from __future__ import annotations

import ast
import re
from collections.abc import Iterable, Iterator
from functools import cache
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from piecing import errors
from piecing.lengths import Measure, Style, inches
from piecing.messages import Listing, Message, MidSentence

from .sources import sources

_SPEAKERS = {name for name in errors.__all__ if name != "LengthNotUnderstood"} | {"Message", "show"}


class MessageTest(TestCase):
    def test_lengths_are_set_in_the_measure_asked_for(self) -> None:
        said = Message("cut {size}, {n} of them", size=inches("7/2"), n=2)
        self.assertEqual(str(said), "cut 3\u00a01⁄2″, 2 of them")
        self.assertEqual(said.text(Style(Measure.MILLIMETRES)), "cut 88.9\u00a0mm, 2 of them")

    def test_one_none_and_many(self) -> None:
        template = "{n, plural, =0 {nothing is} one {one square is} other {# squares are}} left"
        told = [str(Message(template, n=n)) for n in (0, 1, 2, 40)]
        self.assertEqual(told, ["nothing is left", "one square is left", "2 squares are left", "40 squares are left"])
        with_value = Message("{n, plural, one {one of {size}} other {# of {size}}}, # as it is", n=3, size=inches(2))
        self.assertEqual(str(with_value), "3 of 2″, # as it is")

    def test_what_is_typed_is_never_read_as_a_template(self) -> None:
        for typed in ("Buoy {red}", "{", "}", "{n, plural, other {x}}", "#", "{0}", "%s"):
            self.assertEqual(str(Message("one square, {fabric}", fabric=typed)), f"one square, {typed}")
            plural = Message("{n, plural, one {one {fabric}} other {# {fabric}}}", n=2, fabric=typed)
            self.assertEqual(str(plural), f"2 {typed}")

    @given(st.text(max_size=30), st.lists(st.text(max_size=5), max_size=4))
    def test_any_text_comes_out_as_it_went_in(self, typed: str, many: list[str]) -> None:
        said = Message("“{typed}”: {many}", typed=typed, many=Listing(many, "; "))
        self.assertEqual(str(said), f"“{typed}”: {'; '.join(many)}")

    def test_lists_and_messages_within_messages(self) -> None:
        inner = [Message("{n} of {w}", n=2, w=inches(4)), Message("One more")]
        self.assertEqual(str(Message("{all}.", all=Listing(inner, ", ", " and "))), "2 of 4″ and One more.")
        self.assertEqual(str(Message("{a}, or {b}", a="x", b=MidSentence(inner[1]))), "x, or one more")
        self.assertEqual(str(Message("{none}", none=Listing(()))), "")
        self.assertEqual(Listing(["a", "b"]), Listing(["a", "b"]))
        self.assertNotEqual(Listing(["a", "b"]), Listing(["a", "b"], "; "))

    def test_templates_that_do_not_close_are_refused(self) -> None:
        for wrong in ("{", "{size", "a}", "{n, plural, one {x}}", "{n, plural, other {x}", "{}"):
            with self.subTest(wrong), self.assertRaises(ValueError):
                Message(wrong, n=1, size=1).text()
        with self.assertRaises(KeyError):
            Message("{missing}").text()


def _literal(template: ast.expr) -> bool:
    """A string, a choice between strings, or an entry of a table of them (its name in capitals)."""
    match template:
        case ast.Constant():
            return True
        case ast.IfExp():
            return _literal(template.body) and _literal(template.orelse)
        case ast.Subscript():
            return _literal(template.value)
        case ast.Name():
            return template.id.strip("_").isupper()
    return False


def _said(nodes: Iterable[ast.AST]) -> Iterator[tuple[ast.Call, ast.expr]]:
    for call in nodes:
        if isinstance(call, ast.Call) and call.args:
            named = call.func.id if isinstance(call.func, ast.Name) else getattr(call.func, "attr", "")
            if named in _SPEAKERS:
                yield call, call.args[0]


@cache
def _all_said() -> list[tuple[str, ast.Call, ast.expr]]:
    return [(s.name, call, template) for s in sources() for call, template in _said(s.nodes)]


class TemplatesTest(TestCase):
    HELPERS = ("core/piecing/errors.py", "core/piecing/units/work_surface.py")
    """They hand a template on that was given to them."""

    def test_every_template_is_written_out(self) -> None:
        for name, call, template in _all_said():
            if name not in self.HELPERS:
                with self.subTest(f"{name}:{call.lineno}"):
                    self.assertTrue(_literal(template), ast.unparse(template)[:200])

    def test_a_template_put_together_would_be_seen(self) -> None:
        for wrong in (
            'Message(f"{name}: {{at}}", at=1)',
            'Message("a" + b)',
            'CutTooSmall("x".join(y))',
            "Message(said)",
        ):
            (_, template) = next(_said(ast.walk(ast.parse(wrong))))
            self.assertFalse(_literal(template), wrong)

    def test_every_template_closes_and_names_what_it_is_given(self) -> None:
        texts = 0
        for name, call, template in _all_said():
            given = {k.arg for k in call.keywords if k.arg}
            if any(k.arg is None for k in call.keywords):
                continue
            for node in ast.walk(template):
                if isinstance(node, ast.Constant) and isinstance(node.value, str):
                    texts += 1
                    with self.subTest(f"{name}:{call.lineno}"):
                        Message(node.value, **dict.fromkeys(given, 1)).text()
        self.assertGreater(texts, 300)

    def test_numbers_before_words_choose_their_word(self) -> None:
        """A number straight before a plural word is either chosen by or never one."""
        suspicious = re.compile(
            r"\{(\w+)\} (squares|units|blocks|seams|pieces|strips|batches|readings|neighbours|places|crossings)\b"
        )
        allowed = {
            ("core/piecing/planning/notes.py", "units"),
        }
        for name, call, template in _all_said():
            for node in ast.walk(template):
                if isinstance(node, ast.Constant) and isinstance(node.value, str):
                    for value, word in suspicious.findall(node.value):
                        with self.subTest(f"{name}:{call.lineno}"):
                            if value not in ("most", "fabric"):  # A limit is never one; a fabric is a name.
                                self.assertIn((name, word), allowed, f"{{{value}}} {word}: {node.value}")
