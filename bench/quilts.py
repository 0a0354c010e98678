"""Quilts of a hundred and four hundred blocks: set in rows, with a pieced border, and laid by hand."""

from __future__ import annotations

from statistics import median
from typing import Any
from uuid import uuid4

from bench.in_process import InProcess, in_process

__all__ = ["PIECED_BORDER", "print_quilts"]

_GEESE = {"units": [{"kind": "flying_goose", "fabrics": "abb"}], "turn": 1, "runs": "mirrored"}
PIECED_BORDER = {"width": "4", "fabric": "c", "corners": "overlapped", "corner_fabric": "c", "pieced": _GEESE}


def print_quilts() -> None:
    """Prints milliseconds, median and p95 where a thing is asked again and again."""
    print("Quilts of many blocks: milliseconds")
    with in_process() as app:
        for side in (10, 20):
            _of(app, side)


def _of(app: InProcess, side: int) -> None:
    project, block = str(uuid4()), str(uuid4())
    body = {"id": project, "name": f"Lantern, {side * side}", "fabrics": ["Dark", "Light", "Third"], "unit": None}
    app.ask(
        "post",
        "beginnings",
        {**body, "block": {"start": "lantern", "finished": "6", "count": str(side * side)}, "quilt": None},
    )
    block = app.ask("get", f"projects/{project}/blocks").body["blocks"][0]["id"]
    path = f"projects/{project}"

    def quilt(**changes: Any) -> float:
        return app.ask("patch", f"{path}/quilt", {"changes": changes, "seen": {}}).took

    quilt(columns=side, rows=side, begun=True, borders=[PIECED_BORDER])
    _line(f"{side * side} blocks in rows, sash typed", [quilt(sash=f"{n % 24 + 2}/8") for n in range(42)])
    _line("  a border's size typed", [quilt(borders=[{**PIECED_BORDER, "width": f"{32 + n}/8"}]) for n in range(32)])
    for name, address in (("counts", "counts"), ("standing", "standing"), ("cutting sheet", "cutting")):
        _line(f"  {name}", [app.ask("get", f"{path}/{address}").took for _ in range(5)])
    _line("  joining steps of the quilt", [app.ask("get", f"{path}/bench/quilt").took for _ in range(3)])
    print(f"  laid by hand from there         {quilt(setting='by_hand'):7.0f}")
    centre = next(b for b in app.ask("get", f"{path}/blocks").body["blocks"] if b["part"] == "centre")["id"]
    turned = [
        app.ask(
            "post", f"blocks/{centre}/edits", {"edit": {"do": "turn", "spots": [[2 * (n % 10), 0]], "quarters": 1}}
        ).took
        for n in range(30)
    ]
    _line("  a block turned in it", turned)
    _line("  joining steps of the centre", [app.ask("get", f"blocks/{centre}/bench").took for _ in range(3)])
    _line("  counts", [app.ask("get", f"{path}/counts").took for _ in range(5)])
    print(f"  a block of it resized            {_resized(app, path, block):7.0f}")


def _resized(app: InProcess, path: str, block: str) -> float:
    return app.ask("put", f"{path}/blocks/{block}", {"start": "", "changes": {"finished": "6 1/2"}, "seen": {}}).took


def _line(name: str, took: list[float]) -> None:
    # The first ones warm up what is remembered, as the page does that was looked at before.
    ordered = sorted(took[2:] or took)
    print(f"{name:<34}{median(ordered):7.0f}{ordered[min(len(ordered) - 1, int(len(ordered) * 0.95))]:7.0f}")
