"""Exact lengths in the database: one, or several by name."""

from __future__ import annotations

from fractions import Fraction
from functools import lru_cache
from typing import Any

from django.db import models
from django.db.models.query_utils import DeferredAttribute

from piecing.lengths import Length
from piecing.units.method import Cuts

__all__ = ["CutsField", "LengthField"]


@lru_cache(maxsize=4096)
def _stored_length(value: str) -> Length:
    """The same few lengths stand in many rows: a hundred readings are mostly of one size."""
    return Length.of(Fraction(value))


class _Exact(DeferredAttribute):
    """Whatever is set, a default's text too, is held as the value that the database will give back."""

    def __set__(self, instance: models.Model, value: Any) -> None:
        instance.__dict__[self.field.attname] = self.field.to_python(value)


class LengthField(models.CharField):  # type: ignore[type-arg]
    """A rational ``Length``, kept as inches in lowest terms (``31/8``), so that nothing is ever rounded."""

    descriptor_class = _Exact
    empty_strings_allowed = False
    _pyi_private_set_type: Length | str  # type: ignore[assignment]
    _pyi_private_get_type: Length  # type: ignore[assignment]

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        kwargs["max_length"] = 40
        super().__init__(*args, **kwargs)

    def deconstruct(self) -> Any:
        name, path, args, kwargs = super().deconstruct()
        del kwargs["max_length"]
        return name, path, args, kwargs

    def from_db_value(self, value: str | None, _expression: Any, _connection: Any) -> Length | None:
        return None if value is None else _stored_length(value)

    def to_python(self, value: Any) -> Length | None:
        return value if value is None or isinstance(value, Length) else Length.of(Fraction(value))

    def get_prep_value(self, value: Any) -> str | None:
        length = self.to_python(value)
        return None if length is None else str(length.rational)


class CutsField(models.JSONField):
    """Cut sizes by name, kept as ``{"large": "27/4"}``."""

    descriptor_class = _Exact
    _pyi_private_set_type: Cuts
    _pyi_private_get_type: Cuts

    def from_db_value(self, value: Any, expression: Any, connection: Any) -> Cuts:
        return _cuts(super().from_db_value(value, expression, connection) or {})

    def to_python(self, value: Any) -> Cuts:
        return value if isinstance(value, Cuts) else _cuts(value or {})

    def get_prep_value(self, value: Any) -> Any:
        return {name: str(size.rational) for name, size in self.to_python(value).items()}


def _cuts(stored: dict[str, str]) -> Cuts:
    return Cuts((name, Length.of(Fraction(size))) for name, size in stored.items())
