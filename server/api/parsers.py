"""Request bodies that can be answered: JSON without broken text or bottomless nesting."""

import json
from typing import Any

from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser

__all__ = ["SoundJSONParser"]


class SoundJSONParser(JSONParser):
    """Refuses what Python's json reads but nothing after it can write: lone surrogates, very deep nesting."""

    def parse(self, *args: Any, **kwargs: Any) -> Any:
        try:
            body = super().parse(*args, **kwargs)
            json.dumps(body, ensure_ascii=False).encode()
        except UnicodeEncodeError:
            raise ParseError("The text holds half a character. Type or copy it again.") from None
        except RecursionError:
            raise ParseError("The request is nested too deeply.") from None
        return body
