"""Request bodies that can be answered: JSON without broken text or bottomless nesting."""

import codecs
import json
from typing import IO, Any

from rest_framework.exceptions import ParseError
from rest_framework.parsers import JSONParser

__all__ = ["SoundJSONParser"]


def _once(pairs: list[tuple[str, Any]]) -> dict[str, Any]:
    """An object; of a name given twice nobody could say which value is meant."""
    found = dict(pairs)
    if len(found) < len(pairs):
        twice = next(name for n, (name, _) in enumerate(pairs) if name in dict(pairs[:n]))
        raise ParseError(f"“{twice[:40]}” is given twice. Give it once.")
    return found


def _refuse(constant: str) -> None:
    raise ParseError(f"{constant} is no number. Lengths are sent as text.")


class SoundJSONParser(JSONParser):
    """Refuses what Python's json reads but nothing after it can write or nobody can mean: lone surrogates, very deep
    nesting, names given twice, numbers that are none or have digits by the thousand."""

    def parse(self, stream: IO[bytes], _media_type: str | None = None, context: Any = None) -> Any:
        encoding = (context or {}).get("encoding", "utf-8")
        try:
            text = codecs.getreader(encoding)(stream).read()
            body = json.loads(text, object_pairs_hook=_once, parse_constant=_refuse)
            json.dumps(body, ensure_ascii=False).encode()
        except UnicodeEncodeError:
            raise ParseError("The text holds half a character. Type or copy it again.") from None
        except ValueError as error:
            raise ParseError(f"This is no JSON: {str(error)[:80]}.") from None
        except RecursionError:
            raise ParseError("The request is nested too deeply.") from None
        return body
