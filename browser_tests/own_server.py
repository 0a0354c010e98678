"""The application as ``make demo`` serves it, for pictures, measurements and journeys that stop it."""

from __future__ import annotations

import atexit
import os
import shutil
import socket
import sqlite3
import subprocess
import sys
import tempfile
import time
import urllib.request
from collections.abc import Iterator
from contextlib import closing, contextmanager
from functools import cache
from pathlib import Path

__all__ = ["OwnServer", "demo_server"]

_WARM = 20.0
"""Seconds; the heavy libraries are there after ten."""
_HOME = Path(__file__).resolve().parent.parent


def _run(env: dict[str, str], program: str, *args: str) -> subprocess.Popen[bytes]:
    command = [sys.executable, str(_HOME / "server" / program), *args]
    return subprocess.Popen(command, env=env, stdout=subprocess.DEVNULL)


def _env(data: str) -> dict[str, str]:
    env = {**os.environ, "ENTRETOILE_DATA": data}
    env.pop("DJANGO_SETTINGS_MODULE", None)
    return env


@cache
def _prepared() -> str:
    """A data folder as ``make demo`` makes it, made once and copied for every server."""
    data = tempfile.mkdtemp()
    atexit.register(shutil.rmtree, data, ignore_errors=True)
    OwnServer.on_nothing(data).stop()
    return data


class OwnServer:
    """The application as ``make demo`` serves it, in a process that can be stopped and started."""

    def __init__(self, data: str) -> None:
        shutil.copytree(_prepared(), data, dirs_exist_ok=True)
        self.put_up(data)

    @classmethod
    def on_nothing(cls, data: str) -> OwnServer:
        """The first start of all, on an empty folder."""
        server = cls.__new__(cls)
        server.put_up(data)
        return server

    @staticmethod
    def warm() -> None:
        """Waits until what is loaded behind a start is loaded, for who measures how long answers take after that."""
        time.sleep(_WARM)

    def put_up(self, data: str) -> None:
        """On a port of its own, over this data folder."""
        with socket.socket() as free:
            free.bind(("127.0.0.1", 0))
            self.port = free.getsockname()[1]
        self.env = _env(data)
        self.url = f"http://127.0.0.1:{self.port}"
        self.start()

    def start(self) -> None:
        self.process = _run(self.env, "serve.py", "--demo", "--port", str(self.port))
        # The first start makes the demo data, on a busy machine for a good while.
        for _ in range(900):
            try:
                urllib.request.urlopen(f"{self.url}/api/health", timeout=1).close()
                return
            except OSError:
                time.sleep(0.1)
        self.kill()
        raise RuntimeError("The server did not start.")

    @property
    def running(self) -> bool:
        return self.process.poll() is None

    def stop(self) -> None:
        self.process.terminate()
        self.process.wait()

    def by_hand(self) -> None:
        """The units of the demo out of the hands of their blocks, so that their numbers can be typed."""
        with closing(sqlite3.connect(Path(self.env["ENTRETOILE_DATA"]) / "entretoile.sqlite3", timeout=30)) as db, db:
            db.execute("update projects_plannedunit set of_blocks = '{}'")

    def kill(self) -> None:
        """As the power goes: no time to finish anything."""
        self.process.kill()
        self.process.wait()


@contextmanager
def demo_server() -> Iterator[OwnServer]:
    """A server with the demo data in a place of its own, gone afterwards."""
    with tempfile.TemporaryDirectory() as scratch:
        server = OwnServer(scratch)
        try:
            yield server
        finally:
            server.stop()
