"""Rough weather: readings and turns entered while the server is stopped, killed and started and pages are read again or
closed. Afterwards everything that was entered has to be there, once."""

from __future__ import annotations

import json
import random
import sqlite3
import tempfile
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import dataclass, field
from pathlib import Path

from playwright.sync_api import Browser, BrowserContext, Page, expect

from browser_tests.own_server import OwnServer
from browser_tests.shots import HALF_SEWN
from piecing.lengths import parse_length

__all__ = ["Storm", "weather"]

LANTERN = f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"


@dataclass
class Storm:
    """What was entered and what happened meanwhile; ``lost`` and ``twice`` name readings, ``turned`` the quarter turns."""

    entered: list[str] = field(default_factory=list)
    happened: dict[str, int] = field(default_factory=dict)
    lost: list[str] = field(default_factory=list)
    twice: list[str] = field(default_factory=list)
    turns: int = 0
    turned: int = 0

    def count(self, what: str) -> None:
        self.happened[what] = self.happened.get(what, 0) + 1


def weather(browser: Browser, steps: int, seed: int = 1, *, rougher: bool = False) -> Storm:
    """``steps`` edits in two windows with something going wrong around most of them; ``rougher``, most often a kill."""
    chance, storm = random.Random(seed), Storm()
    with tempfile.TemporaryDirectory() as data:
        server = OwnServer(data)
        context = browser.new_context(viewport={"width": 1280, "height": 800})
        try:
            table = _window(context, f"{server.url}{HALF_SEWN}/measure")
            board = _window(context, f"{server.url}{LANTERN}/lay")
            before = _turn_of(data)
            for n in range(steps):
                table, board = _step(chance, storm, server, context, (table, board), n, rougher=rougher)
            if not server.running:
                server.start()
            for page in (table, board):
                expect(page.locator("header .saved")).to_have_text("All saved", timeout=60_000)
            _compare(data, storm)
            storm.turned = (_turn_of(data) - before) % 4
        finally:
            context.close()
            server.stop()
    return storm


def _window(context: BrowserContext, url: str) -> Page:
    page = context.new_page()
    page.goto(url)
    expect(page.locator("#main")).to_be_visible()
    # A window that was open for a moment is kept by its worker; before that, no browser reloads it without a server.
    page.wait_for_function("() => navigator.serviceWorker.controller")
    return page


def _step(
    chance: random.Random,
    storm: Storm,
    server: OwnServer,
    context: BrowserContext,
    pages: tuple[Page, Page],
    n: int,
    *,
    rougher: bool,
) -> tuple[Page, Page]:
    table, board = pages
    trouble: dict[str, Callable[[], object]] = {
        "killed": server.kill,
        "stopped": server.stop,
        "started": server.start,
        "nothing": lambda: time.sleep(0.05),
    }
    running, away = ["killed", "stopped", "nothing"], ["started", "nothing", "nothing"]
    if rougher:
        running, away = ["killed", "killed", "killed", "killed", "stopped"], ["started", "started", "nothing"]
    wanted = chance.choice(running if server.running else away)
    if n % 4 == 3:
        board.get_by_role("button", name="Row 1, column 1:").click()
        board.get_by_role("button", name="Turn T", exact=True).click()
        storm.turns += 1
    else:
        # Readings no two of which are alike: the note of where each comes from.
        typed = f"4 {2 * n + 1}/1024"
        table.get_by_label("The ruler reads").fill(typed)
        table.get_by_label("The ruler reads").press("Enter")
        storm.entered.append(typed)
    trouble[wanted]()
    storm.count(wanted)
    after = chance.choice(["reloaded", "closed", "left", "left"])
    storm.count(after)
    if after == "reloaded":
        chance.choice([table, board]).reload()
    elif after == "closed" and server.running:
        # A closed window: what it had not sent is sent by the next one.
        table.close()
        table = _window(context, f"{server.url}{HALF_SEWN}/measure")
    for page in (table, board):
        expect(page.locator("#main")).to_be_visible(timeout=15_000)
    return table, board


def _rows(data: str, query: str) -> list[tuple[str, ...]]:
    with closing(sqlite3.connect(Path(data) / "entretoile.sqlite3")) as db:
        return list(db.execute(query))


def _turn_of(data: str) -> int:
    """Quarter turns of the Lantern as it lies, by its first unit."""
    patterns = [json.loads(p) for (p,) in _rows(data, "SELECT pattern FROM blocks_block")]
    layout = next(p["layout"] for p in patterns if p["name"] == "Lantern")
    return int(layout[0].split()[0][-1])


def _compare(data: str, storm: Storm) -> None:
    kept = [row[0] for row in _rows(data, "SELECT value FROM measuring_reading WHERE deleted_at IS NULL")]
    for typed in storm.entered:
        times = kept.count(str(parse_length(typed).rational))
        if times != 1:
            (storm.lost if times == 0 else storm.twice).append(typed)
