"""Debian's Chromium, headless and cut off from every network but this computer."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Browser, Playwright, sync_playwright

__all__ = ["FLAGS", "chromium", "launched"]

_NAMES = ("chromium-headless-shell", "chromium", "chromium-browser")
"""The one without windows, or any other."""

FLAGS = [
    "--no-sandbox",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-quic",
    "--disable-domain-reliability",
    "--no-first-run",
    "--disable-features=OptimizationHints,MediaRouter,Translate",
    "--host-resolver-rules=MAP * ~NOTFOUND , EXCLUDE localhost , EXCLUDE 127.0.0.1",
]


def launched(playwright: Playwright) -> Browser:
    """Debian's Chromium; says what to do when it is missing."""
    path = next(filter(None, map(shutil.which, _NAMES)), None)
    if path is None:
        raise RuntimeError("Chromium is missing: run `make chromium`, or apt-get install chromium.")
    return playwright.chromium.launch(executable_path=path, args=FLAGS)


@contextmanager
def chromium() -> Iterator[Browser]:
    with sync_playwright() as playwright:
        browser = launched(playwright)
        try:
            yield browser
        finally:
            browser.close()
