"""What the description of the API says of every operation besides its own answers: each way in which it may be refused."""

from __future__ import annotations

from typing import Any

__all__ = ["refusals_told"]

_PROBLEM = {"application/problem+json": {"schema": {"$ref": "#/components/schemas/Problem"}}}
_WRITES = ("post", "put", "patch", "delete")
_SAID = {
    "400": "Not understood: no JSON, a field of another type, a question that is not asked so.",
    "403": "Asked from another site.",
    "404": "There is nothing there, or not any more.",
    "409": "It was changed in another window meanwhile; both versions are told.",
    "413": "The body is larger than this program takes; the limit is told.",
    "415": "The body is no JSON.",
    "422": "Understood, and not possible: each field with its reason and what is allowed.",
    "500": "A fault of the program; nothing was changed.",
    "503": "Another change is being written, or too much is asked at once; it may be sent again.",
    "507": "The disk or the database cannot be written; nothing was changed.",
}
_MADE_BEFORE = "This change was made before, under the same Change-Id; nothing was changed."


def refusals_told(result: dict[str, Any], **_more: Any) -> dict[str, Any]:
    """Adds to every operation the problems it may answer with, and to every change that it may have been made before."""
    shared = result["components"].setdefault("responses", {})
    shared["MadeBefore"] = {"description": _MADE_BEFORE}
    shared |= {f"Problem{status}": {"description": said, "content": _PROBLEM} for status, said in _SAID.items()}
    for path, methods in result["paths"].items():
        for method, operation in methods.items():
            if not isinstance(operation, dict) or "responses" not in operation:
                continue
            told = operation["responses"]
            statuses = ["400", "403", "422", "500", "503", "507"]
            if "{" in path:
                statuses.append("404")
            if method in _WRITES:
                statuses += ["409", "413", "415"]
                told.setdefault("204", {"$ref": "#/components/responses/MadeBefore"})
            for status in sorted(statuses):
                told[status] = {"$ref": f"#/components/responses/Problem{status}"}
    return result
