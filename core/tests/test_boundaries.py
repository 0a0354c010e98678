"""The core stands alone, and its public face is what it says it is."""

from __future__ import annotations

import ast
import importlib
import inspect
import pkgutil
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path
from unittest import TestCase

import piecing
from piecing import errors

from .sources import of_core, sources

_CORE = Path(piecing.__file__).parent.parent
_MODULES = [m.name for m in pkgutil.walk_packages(piecing.__path__, "piecing.")]


class BoundaryTest(TestCase):
    def test_the_core_loads_without_django(self) -> None:
        program = "import sys, piecing; print('django' in sys.modules, 'rest_framework' in sys.modules)"
        done = subprocess.run(
            [sys.executable, "-c", program], cwd=_CORE, env={}, capture_output=True, text=True, check=True
        )
        self.assertEqual(done.stdout.split(), ["False", "False"])

    def test_no_circle_is_hidden_in_a_function(self) -> None:
        """What a module needs of its own package stands at its head: a circle would be seen at once."""
        for source in of_core():
            inside = [
                f"{source.short}:{inner.lineno}"
                for outer in source.nodes
                if isinstance(outer, ast.FunctionDef)
                for inner in ast.walk(outer)
                if isinstance(inner, ast.ImportFrom) and (inner.level or (inner.module or "").startswith("piecing"))
            ]
            self.assertEqual(inside, [])


class PublicFaceTest(TestCase):
    def test_every_module_says_what_it_is_and_what_it_offers(self) -> None:
        for name in _MODULES:
            module = importlib.import_module(name)
            if not Path(module.__file__ or "").read_text().strip():
                continue
            with self.subTest(name):
                self.assertTrue((module.__doc__ or "").strip())
                for offered in module.__all__:
                    self.assertTrue(hasattr(module, offered), offered)

    def test_every_public_function_and_class_is_documented_where_it_lives(self) -> None:
        for name in piecing.__all__:
            thing = getattr(piecing, name)
            with self.subTest(name):
                self.assertTrue(inspect.getdoc(thing))


class NamesTest(TestCase):
    def test_a_class_name_means_one_thing(self) -> None:
        """In core and server together, management commands apart, which Django calls by one name."""
        found: dict[str, set[str]] = {}
        for source in sources():
            for node in source.nodes if "/management/" not in source.name else ():
                if isinstance(node, ast.ClassDef) and not node.name.startswith("_") and node.name != "Meta":
                    found.setdefault(node.name, set()).add(source.name)
        self.assertEqual({n: files for n, files in found.items() if len(files) > 1}, {})

    def test_no_function_is_longer_than_sixty_lines(self) -> None:
        long = [
            f"{s.name}: {n.name}"
            for s in sources()
            for n in s.nodes
            if isinstance(n, ast.FunctionDef) and (n.end_lineno or 0) - n.lineno >= 60
        ]
        self.assertEqual(long, [])

    def test_a_bare_participle_returns_a_changed_copy(self) -> None:
        """As ``sorted`` does: of what it is a method of, or of what it is given. All else is called by what it returns or does."""
        self.assertEqual([found for s in sources() for found in _participles(s.name, s.tree)], [])

    def test_one_that_does_not_is_seen(self) -> None:
        told = "def told(x: int) -> str: ...\nclass Lie:\n    def turned(self) -> Lie: ...\n    def counted(self) -> int: ...\n"
        self.assertEqual(list(_participles("a.py", ast.parse(told))), ["a.py: told", "a.py: counted"])


_PARTICIPLES = [
    "sewn",
    "said",
    "told",
    "laid",
    "kept",
    "given",
    "found",
    "shown",
    "known",
    "drawn",
    "made",
    "left",
    "taken",
    "written",
    "seen",
    "held",
    "begun",
]
_SEWN_OF = {("Stack", "opened")}
"""A stack that is opened is a piece."""


def _participles(name: str, node: ast.AST, within: str = "") -> Iterator[str]:
    for inner in ast.iter_child_nodes(node):
        if isinstance(inner, ast.FunctionDef) and _is_participle(inner) and (within, inner.name) not in _SEWN_OF:
            given = [a.annotation for a in inner.args.args if a.annotation is not None]
            back = {_type_of(r) for r in (inner.returns,) if r is not None}
            if not back <= {within, *map(_type_of, given)}:
                yield f"{name}: {inner.name}"
        yield from _participles(name, inner, inner.name if isinstance(inner, ast.ClassDef) else within)


def _is_participle(f: ast.FunctionDef) -> bool:
    word = f.name.strip("_")
    ends = word.endswith("ed") and not word.endswith("eed")
    return ("_" not in word and (ends or word in _PARTICIPLES)) and not any(
        "property" in ast.unparse(d) for d in f.decorator_list
    )


def _type_of(annotation: ast.expr) -> str:
    return ast.unparse(annotation).strip("'").removesuffix(" | None")


class ErrorTreeTest(TestCase):
    def tree(self) -> list[type[errors.PiecingError]]:
        found, rest = [], [errors.PiecingError]
        while rest:
            kind = rest.pop()
            found.append(kind)
            rest.extend(kind.__subclasses__())
        return found

    def test_codes_are_stable_and_distinct(self) -> None:
        codes = [kind.code for kind in self.tree()]
        self.assertEqual(len(codes), len(set(codes)))

    def test_the_tree_drawn_in_the_docstring_is_the_tree(self) -> None:
        drawn = errors.__doc__ or ""
        for kind in self.tree():
            with self.subTest(kind.__name__):
                self.assertIn(kind.__name__, drawn)
                if not kind.__subclasses__():
                    self.assertIn(kind.code, drawn)

    def test_a_refusal_keeps_the_first_field_it_was_said_of(self) -> None:
        refusal = errors.SizeOutOfRange("Too large.", field="finished")
        self.assertEqual(refusal.at("cut").field, "finished")
        self.assertEqual(errors.SizeOutOfRange("Too large.").at("cut").field, "cut")
