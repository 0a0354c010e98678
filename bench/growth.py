"""How every page grows: blocks, units in a block, readings, projects; milliseconds, kilobytes, and the power they grow with."""

from __future__ import annotations

import random
from collections.abc import Callable, Iterator
from math import log
from typing import Any
from uuid import uuid4

from bench.in_process import InProcess, in_process

__all__ = ["print_growth"]

_KINDS = {
    "A": {"kind": "half_square_triangle", "fabrics": "ab"},
    "B": {"kind": "quarter_square_triangle", "fabrics": "abab"},
    "C": {"kind": "four_patch", "fabrics": "abab"},
}
Pages = dict[str, Callable[[], Any]]


def _project(app: InProcess, name: str) -> str:
    key = str(uuid4())
    app.ask("post", "projects", {"id": key, "name": name})
    return key


def _layout(size: int, rng: random.Random) -> list[str]:
    return [" ".join(rng.choice("ABC") + rng.choice("0123") for _ in range(size)) for _ in range(size)]


def _block(app: InProcess, project: str, units: int, seed: int = 3) -> str:
    """A block of so many units: a square grid to 24 by 24, beyond that blocks of 25 in it."""
    rng, side = random.Random(seed), round(units**0.5)
    if side <= 24:
        return _put(app, project, side, _KINDS, _layout(side, rng), str(2 * side))
    inner = _put(app, project, 5, _KINDS, _layout(5, rng), "10")
    outer = side // 5
    return _put(app, project, outer, {"X": {"block": inner}}, ["X0 " * outer] * outer, str(2 * side))


def _put(app: InProcess, project: str, side: int, kinds: Any, layout: list[str], finished: str) -> str:
    key = str(uuid4())
    data = {"name": f"Grid of {side}", "columns": [1] * side, "rows": [1] * side, "units": kinds, "layout": layout}
    body = {"start": "", "changes": {"pattern": data, "finished": finished}}
    app.ask("put", f"projects/{project}/blocks/{key}", body)
    return key


def _timed(app: InProcess, pages: Iterator[tuple[str, str]]) -> dict[str, tuple[float, float]]:
    """The first answer of every page, as a person meets it: milliseconds and kilobytes."""
    found = {}
    for name, path in pages:
        answer = app.ask("get", path)
        if answer.status == 200:
            found[name] = (answer.took, answer.size)
    return found


def _pages(project: str, block: str) -> Iterator[tuple[str, str]]:
    yield "project", f"projects/{project}"
    yield "blocks", f"projects/{project}/blocks"
    yield "counts", f"projects/{project}/counts"
    yield "cutting", f"projects/{project}/cutting"
    yield "buying", f"projects/{project}/buying"
    yield "possible", f"projects/{project}/possible"
    yield "joining", f"blocks/{block}/joining"
    yield "pressing", f"blocks/{block}/pressing"
    yield "diagnosis", f"blocks/{block}/diagnosis"
    yield "ticket", f"projects/{project}/ticket"


def _table(what: str, sizes: list[int], rows: list[dict[str, tuple[float, float]]]) -> None:
    print(f"\n{what}: ms and kB, the first answer   (last: the power of growth between the two largest; 1 is in step)")
    print(f"  {'':<12}" + "".join(f"{n:>16,}" for n in sizes) + f"{'power':>10}")
    for page in rows[0]:
        cells = "".join(
            f"{row[page][0]:>8.0f} {row[page][1]:>7.0f}" if page in row else f"{'limit':>16}" for row in rows
        )
        last = [r[page][0] for r in rows[-2:] if page in r]
        power = log(max(last[1], 1) / max(last[0], 1)) / log(sizes[-1] / sizes[-2]) if len(last) == 2 else 0.0
        print(f"  {page:<12}{cells}{power:>10.2f}")


def _units(app: InProcess) -> None:
    sizes, rows = [4, 36, 144, 576, 2500], []
    for n in sizes:
        project = _project(app, f"Units {n}")
        rows.append(_timed(app, _pages(project, _block(app, project, n))))
    _table("Units in one block", sizes, rows)


def _blocks(app: InProcess) -> None:
    """A quilt of so many blocks of one layout."""
    sizes, rows = [1, 16, 100, 400], []
    for n in sizes:
        project, side = _project(app, f"Blocks {n}"), round(n**0.5)
        block = _block(app, project, 36)
        # Twenty of them beside each other are as wide as a quilt may be.
        changes = {"finished": "9", "colourways": [{"count": n, "roles": {}}]}
        app.ask("put", f"projects/{project}/blocks/{block}", {"start": "", "changes": changes, "seen": {}})
        app.ask("patch", f"projects/{project}/quilt", {"changes": {"columns": side, "rows": side}, "seen": {}})
        rows.append(_timed(app, _pages(project, block)))
    _table("Blocks in a quilt", sizes, rows)


def _readings(app: InProcess) -> None:
    """So many readings of one block: what it takes to open Diagnose, and to enter one more."""
    sizes, rows = [10, 100, 1000, 10000], []
    for n in sizes:
        project = _project(app, f"Readings {n}")
        block = _block(app, project, 36)
        places = app.ask("get", f"blocks/{block}/diagnosis").body["places"]
        kinds = [b["key"] for b in places["batches"]]
        rng, lines = random.Random(n), ["kind,value,batch"]
        lines += [f"width,2 {rng.choice(['1/2', '17/32', '15/32'])},{rng.choice(kinds)}" for _ in range(n)]
        for k in range(1, len(lines), 3000):
            text = "\n".join([lines[0], *lines[k : k + 3000]])
            app.ask("post", f"blocks/{block}/readings.csv", {"text": text})
        found = _timed(app, iter([("diagnosis", f"blocks/{block}/diagnosis"), ("again", f"blocks/{block}/diagnosis")]))
        body = {"changes": {"kind": "width", "value": "2 1/2", "batch": kinds[0]}, "seen": {}}
        answer = app.ask("put", f"blocks/{block}/readings/{uuid4()}", body)
        rows.append({**found, "one more": (answer.took, answer.size)})
    _table("Readings of a block", sizes, rows)


def _projects(app: InProcess) -> None:
    sizes, rows, made = [1, 10, 200, 2000], [], int(app.ask("get", "projects").body["count"])
    for n in sizes:
        for k in range(made, n + 40):
            _project(app, f"Project {k}")
        made = max(made, n + 40)
        rows.append(_timed(app, iter([("projects", "projects")])))
    _table("Projects (and 40)", sizes, rows)


def print_growth() -> None:
    with in_process() as app:
        for part in (_units, _blocks, _readings, _projects):
            part(app)
        print(f"  at the most {app.memory():.0f} MB")
