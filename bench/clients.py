"""Thirty clients reading and writing at once, beside two searches for cutting plans; and a database that is locked now and then."""

from __future__ import annotations

import os
import random
import re
import sqlite3
import threading
import time
from collections import Counter, defaultdict
from pathlib import Path
from typing import Any
from uuid import uuid4

import numpy as np
import requests
from browser_tests.own_server import OwnServer, demo_server

__all__ = ["print_clients"]

_CLIENTS, _SECONDS = 30, float(os.environ.get("CLIENTS_SECONDS", "120"))
_THINKS = "a call every 1 to 5 s each"
_LOCKS, _HELD = 20, 1.5
"""How often another program holds the database, and for how many seconds."""


class _Project:
    """What one project has to read and to write."""

    def __init__(self, url: str, key: str) -> None:
        self.key, ask = key, requests.get(f"{url}/api/projects/{key}", timeout=60).json()
        self.units = [u["id"] for u in ask["units"]]
        for fabric in ask["fabrics"]:
            # Without cloth no plan is searched for, and nobody is beside anything.
            cloth = {"changes": {"across": "40", "along": "72", "name": f"two yards of {fabric['role']}"}, "seen": {}}
            path = f"{url}/api/fabrics/{fabric['id']}/stock/{uuid4()}"
            requests.put(path, json=cloth, timeout=60).raise_for_status()
        blocks = requests.get(f"{url}/api/projects/{key}/blocks", timeout=60).json()["blocks"]
        self.blocks = [b["id"] for b in blocks]
        subjects = [("blocks", b) for b in self.blocks] or [("units", u) for u in self.units]
        self.subject = subjects[0]
        found = requests.get(f"{url}/api/{subjects[0][0]}/{subjects[0][1]}/diagnosis", timeout=60).json()
        self.batch = found["places"]["batches"][0]["key"]
        self.reads = [
            "projects", f"projects/{key}", f"projects/{key}/blocks", f"projects/{key}/counts", f"projects/{key}/cutting",
            f"projects/{key}/ticket", *(f"units/{u}/trim" for u in self.units), *(f"blocks/{b}/joining" for b in self.blocks),
            *(f"{s}/{k}/diagnosis" for s, k in subjects),
        ]  # fmt: skip


class _Crowd:
    def __init__(self, url: str, projects: list[_Project]) -> None:
        self.url, self.projects = url, projects
        self.statuses: Counter[int] = Counter()
        self.took: list[float] = []
        self.of: defaultdict[str, list[float]] = defaultdict(list)
        """Seconds of each kind of call."""
        self.searches = 0
        self.kept: list[str] = []
        self.done = threading.Event()

    def client(self, seed: int) -> None:
        rng, session = random.Random(seed), requests.Session()
        while not self.done.is_set():
            project = rng.choice(self.projects)
            began = time.perf_counter()
            if rng.random() < 0.7:
                answer = session.get(f"{self.url}/api/{rng.choice(project.reads)}", timeout=60)
            else:
                answer = self.write(session, project, rng)
            took = time.perf_counter() - began
            self.took.append(took)
            asked = answer.request
            self.of[f"{asked.method} {re.sub('[0-9a-f-]{36}', '*', asked.path_url)}"].append(took)
            self.statuses[answer.status_code] += 1
            time.sleep(rng.uniform(1.0, 5.0))

    def write(self, session: requests.Session, project: _Project, rng: random.Random) -> requests.Response:
        if rng.random() < 0.5:
            changes: dict[str, Any] = {"school": rng.choice(("exact", "little", "generous"))}
            path = f"{self.url}/api/units/{rng.choice(project.units)}"
            return session.patch(path, json={"changes": changes}, timeout=60)
        key = str(uuid4())
        body = {"changes": {"kind": "width", "value": rng.choice(("4", "3 31/32", "4 1/32")), "batch": project.batch}}
        kind, subject = project.subject
        answer = session.put(f"{self.url}/api/{kind}/{subject}/readings/{key}", json={**body, "seen": {}}, timeout=60)
        if answer.ok:
            self.kept.append(key)
        return answer

    def cut(self, project: _Project) -> None:
        """Asks for a plan again as soon as the last one is there."""
        path = f"{self.url}/api/projects/{project.key}/cutting"
        while not self.done.is_set():
            if not requests.get(path, timeout=60).json()["job"]["running"]:
                requests.post(path, json={}, timeout=60).raise_for_status()
                self.searches += 1
            time.sleep(0.5)


def _crowd(server: OwnServer) -> _Crowd:
    lines = requests.get(f"{server.url}/api/projects", timeout=60).json()["lines"]
    return _Crowd(server.url, [_Project(server.url, line["id"]) for line in lines])


def _run(crowd: _Crowd, clients: int, meanwhile: Any = None) -> None:
    threads = [threading.Thread(target=crowd.client, args=(n,)) for n in range(clients)]
    threads += [threading.Thread(target=crowd.cut, args=(p,)) for p in crowd.projects[:2]]
    for t in threads:
        t.start()
    if meanwhile is None:
        time.sleep(_SECONDS)
    else:
        meanwhile()
    crowd.done.set()
    for t in threads:
        t.join()


def _lost(server: OwnServer, crowd: _Crowd) -> int:
    """Readings that were acknowledged and are not there."""
    with sqlite3.connect(Path(server.env["ENTRETOILE_DATA"]) / "entretoile.sqlite3") as db:
        kept = {str(row[0]).replace("-", "") for row in db.execute("select id from measuring_reading")}
    return sum(key.replace("-", "") not in kept for key in crowd.kept)


def _hold(server: OwnServer) -> None:
    for _ in range(_LOCKS):
        db = sqlite3.connect(
            Path(server.env["ENTRETOILE_DATA"]) / "entretoile.sqlite3", timeout=30, isolation_level=None
        )
        db.execute("begin exclusive")
        time.sleep(_HELD)
        db.execute("rollback")
        db.close()
        time.sleep(0.7)


def print_clients() -> None:
    with demo_server() as server:
        crowd = _crowd(server)
        server.warm()
        _run(crowd, _CLIENTS)
        took = np.array(crowd.took) * 1000
        print(
            f"\n{_CLIENTS} clients for {_SECONDS:.0f} s ({_THINKS}) beside two searches ({crowd.searches} began): {len(took):,} calls"
        )
        print(
            f"  {dict(sorted(crowd.statuses.items()))}; median {np.median(took):.0f} ms, p95 {np.quantile(took, 0.95):.0f} (aim 500)"
        )
        slowest = sorted(crowd.of.items(), key=lambda k: -float(np.quantile(k[1], 0.95)))[:4]
        print("  slowest: " + "; ".join(f"{k} {np.quantile(t, 0.95) * 1000:.0f} ({len(t)})" for k, t in slowest))
        print(f"  {len(crowd.kept)} readings acknowledged, {_lost(server, crowd)} lost (aim 0)")
    with demo_server() as server:
        crowd = _crowd(server)
        _run(crowd, 8, lambda: _hold(server))
        took = np.array(crowd.took) * 1000
        print(
            f"  another program holds the database {_LOCKS} times for {_HELD} s: {dict(sorted(crowd.statuses.items()))}"
        )
        print(
            f"  {len(crowd.kept)} readings acknowledged, {_lost(server, crowd)} lost (aim 0); longest answer {took.max():.0f} ms"
        )
