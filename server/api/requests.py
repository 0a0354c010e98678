"""What came in a request, once its serializer has read it."""

from typing import Any

__all__ = ["valid"]


def valid(serializer: Any) -> dict[str, Any]:
    """The fields read. Raises DRF's ``ValidationError``, told as a problem, for what does not fit the schema."""
    serializer.is_valid(raise_exception=True)
    return dict(serializer.validated_data)
