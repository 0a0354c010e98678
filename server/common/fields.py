"""Exact lengths in the database."""

from __future__ import annotations

from fractions import Fraction
from typing import Any

from django.db import models
from django.db.models.query_utils import DeferredAttribute

from piecing.lengths import Length

__all__ = ["LengthField"]


class _Exact(DeferredAttribute):
    """Whatever is set, a default's text too, is held as the ``Length`` that the database will give back."""

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
        return None if value is None else Length.of(Fraction(value))

    def to_python(self, value: Any) -> Length | None:
        return value if value is None or isinstance(value, Length) else Length.of(Fraction(value))

    def get_prep_value(self, value: Any) -> str | None:
        length = self.to_python(value)
        return None if length is None else str(length.rational)
