"""Debian's Chromium, headless and cut off from every network but this computer."""

from __future__ import annotations

import shutil
from collections.abc import Iterator
from contextlib import contextmanager

from playwright.sync_api import Browser, sync_playwright

__all__ = ["FLAGS", "chromium"]

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


@contextmanager
def chromium() -> Iterator[Browser]:
    path = shutil.which("chromium") or shutil.which("chromium-browser")
    if path is None:
        raise RuntimeError("Chromium is missing: run `make chromium`, or apt-get install chromium.")
    with sync_playwright() as p:
        browser = p.chromium.launch(executable_path=path, args=FLAGS)
        try:
            yield browser
        finally:
            browser.close()
