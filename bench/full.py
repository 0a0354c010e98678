"""A disk that is really full, twenty times over: readings typed on it, then room made again. Needs to mount a small disk, so root."""

from __future__ import annotations

import os
import sqlite3
import subprocess
import tempfile
import time
from contextlib import closing
from pathlib import Path

from browser_tests.chromium import chromium
from browser_tests.own_server import OwnServer
from browser_tests.shots import HALF_SEWN
from playwright.sync_api import Page

from piecing.lengths import parse_length

__all__ = ["print_full"]

_TIMES, _READINGS = 20, 3
_PATIENCE = 120
"""Seconds given to send all that was kept, once there is room."""


def print_full() -> None:
    if os.name != "posix" or os.geteuid() != 0:
        print("A full disk: not tried, since a small disk can only be mounted by root.")
        return
    with tempfile.TemporaryDirectory() as place:
        subprocess.run(["mount", "-t", "tmpfs", "-o", "size=24m", "tmpfs", place], check=True)
        try:
            _tried(Path(place))
        finally:
            subprocess.run(["umount", "-l", place], check=False)


def _tried(place: Path) -> None:
    data = place / "data"
    data.mkdir()
    server = OwnServer(str(data))
    try:
        with chromium() as browser:
            page = browser.new_page()
            page.goto(f"{server.url}{HALF_SEWN}/measure")
            page.wait_for_load_state("networkidle")
            saved, typed, said, took = page.locator("header .saved"), list[str](), set[str](), list[float]()
            for n in range(_TIMES):
                _fill(place / "fill")
                typed += [_type(page, n * _READINGS + k) for k in range(_READINGS)]
                page.wait_for_timeout(1500)
                said.add(saved.inner_text())
                (place / "fill").unlink()
                began = time.monotonic()
                while saved.inner_text() != "All saved" and time.monotonic() < began + _PATIENCE:
                    time.sleep(0.5)
                took.append(time.monotonic() - began)
    finally:
        server.stop()
    with closing(sqlite3.connect(data / "entretoile.sqlite3")) as db:
        kept = [row[0] for row in db.execute("SELECT value FROM measuring_reading WHERE deleted_at IS NULL")]
    times = [kept.count(str(parse_length(t).rational)) for t in typed]
    print(
        f"{_TIMES} full disks: {len(typed)} readings typed, the page says {sorted(said)}; with room again all saved in {max(took):.0f} s"
    )
    print(f"  lost {times.count(0)}, made twice {sum(n > 1 for n in times)} (aim 0, 0)")


def _type(page: Page, n: int) -> str:
    typed = f"4 {2 * n + 1}/1024"
    page.get_by_label("The ruler reads").fill(typed)
    page.get_by_label("The ruler reads").press("Enter")
    page.wait_for_timeout(120)
    return typed


def _fill(path: Path) -> None:
    """To the last byte."""
    held = os.open(path, os.O_CREAT | os.O_WRONLY)
    try:
        while True:
            os.write(held, b"x" * 4096)
    except OSError:
        pass
    finally:
        os.close(held)
