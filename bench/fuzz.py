"""Calls at random against the application as it is served: every operation that it describes, sound and unsound bodies mixed."""

from __future__ import annotations

import json
import os
import random
import time
import urllib.error
import urllib.request
from collections import Counter
from dataclasses import dataclass, field
from pathlib import Path
from typing import Any
from urllib.parse import quote
from uuid import uuid4

import numpy as np
import yaml
from browser_tests.own_server import OwnServer, demo_server

__all__ = ["Fuzz", "print_fuzz"]

_SCHEMA = Path(__file__).resolve().parent.parent / "server" / "openapi.yaml"
_CALLS = int(os.environ.get("FUZZ_CALLS", "20000"))
_SLOW = 2.0
_NASTY: tuple[Any, ...] = (
    None, True, -1, 0, 10**30, 1e308, "", " ", "9" * 5000, "1/0", "-3", "1e400", "١٢", "‮abc", "\x00", "<b>x</b>", "=1+1",
    [], {}, [[]], {"a": {"b": 1}}, "a" * 3000,
)  # fmt: skip
_LENGTHS = ("3 1/2", "7/2", "1/8", "12", "2", "90 mm", "10 1/2", "0", "24", "1/4")
_WORDS = ("Lantern", "Wake", "Tide", "width", "pair", "a", "b", "straight", "rows", "light")


@dataclass
class Fuzz:
    """What was asked and what came of it."""

    server: OwnServer
    rng: random.Random
    spec: Any
    pool: dict[str, list[str]] = field(default_factory=dict)
    beneath: dict[tuple[str, str], list[str]] = field(default_factory=dict)
    statuses: Counter[int] = field(default_factory=Counter)
    faults: list[str] = field(default_factory=list)
    undocumented: Counter[str] = field(default_factory=Counter)
    took: list[float] = field(default_factory=list)
    slow: Counter[str] = field(default_factory=Counter)
    gone: dict[tuple[str, str], list[str]] = field(default_factory=dict)
    """The same of what was taken away."""
    missed: Counter[str] = field(default_factory=Counter)
    made: dict[tuple[str, str], list[str]] = field(default_factory=dict)
    """Names under which something was put, by the room and the parameter that takes them."""

    def call(self, method: str, path: str, body: Any = None) -> tuple[int, bytes]:
        sent = None if body is None else json.dumps(body).encode("utf-8", "replace")
        headers = {"Content-Type": "application/json"} if body is not None else {}
        request = urllib.request.Request(f"{self.server.url}{path}", sent, headers, method=method.upper())
        try:
            with urllib.request.urlopen(request, timeout=60) as answer:
                return answer.status, answer.read()
        except urllib.error.HTTPError as refusal:
            return refusal.code, refusal.read()

    def ask(self, path: str) -> Any:
        """What is there, or nothing where nothing is told of it any more."""
        status, said = self.call("get", path)
        return json.loads(said) if status == 200 else {}

    def put_back(self) -> None:
        """What was taken away, so that the house stays furnished however long it is called at."""
        for (room, name), keys in self.gone.items():
            if name == "key" and f"/api/{room}/{{key}}/restore" in self.spec["paths"]:
                for key in set(keys):
                    self.call("post", f"/api/{room}/{key}/restore")

    def look(self) -> None:
        """What is there now: keys by the room they stand in, and what lies beneath each by the parameter that takes it."""
        pool: dict[str, list[str]] = {}
        beneath: dict[tuple[str, str], list[str]] = {}
        for line in self.ask("/api/projects")["lines"]:
            key = line["id"]
            project = self.ask(f"/api/projects/{key}")
            pool.setdefault("projects", []).append(key)
            blocks = [b["id"] for b in self.ask(f"/api/projects/{key}/blocks").get("blocks", [])]
            cutting = self.ask(f"/api/projects/{key}/cutting")
            fabrics, stock = [f["id"] for f in project["fabrics"]], [s["id"] for s in cutting.get("stock", [])]
            units = [u["id"] for u in project["units"]]
            for room, keys in {"units": units, "fabrics": fabrics, "blocks": blocks, "stock": stock}.items():
                pool.setdefault(room, []).extend(keys)
            top = self.ask(f"/api/projects/{key}/measured").get("top", [])
            beneath[key, "fabric"], beneath[key, "block"] = fabrics, blocks
            beneath[key, "letter"] = [p["letter"] for p in cutting.get("piles", [])]
            beneath[key, "place"] = [quote(r["key"]) for s in top for r in s["readings"]]
            beneath[key, "state"] = [str(s["id"]) for s in self.ask(f"/api/projects/{key}/history") or ()]
        for room in ("blocks", "units"):
            for key in pool.get(room, [])[:4]:
                found = self.ask(f"/api/{room}/{key}/diagnosis")
                beneath[key, "reading"] = [r["id"] for r in found.get("readings", [])]
        pool["rulers"] = [r["id"] for r in self.ask("/api/workroom")["rulers"]]
        for room, listed in {"shelf": "cloths", "times": "rows", "log": "rows", "evenings": "free"}.items():
            pool[room] = [r["id"] for r in self.ask(f"/api/{room}").get(listed, []) if "id" in r]
        pool["set-ups"] = [u["id"] for u in self.ask("/api/records").get("set_ups", [])]
        self.pool, self.beneath = pool, beneath

    def path(self, template: str) -> tuple[str, dict[tuple[str, str], str]]:
        """With keys of what is there, of what is not in one of sixteen; and which key stands where."""
        first = template.split("/")[2]
        path, used = template, dict[tuple[str, str], str]()
        while "{" in path:
            name = path[path.index("{") + 1 : path.index("}")]
            own = {"fabric": "fabrics", "stock": "stock", "reading": "readings", "block": "blocks"}.get(name, name)
            room = "projects" if first == "exchange" else first
            if name == "subject":
                value = self.rng.choice(("blocks", "units"))
                room = first = value
            elif name == "day":
                value = f"2026-11-{self.rng.randrange(1, 31):02}"
            else:
                put = ("log", "photo") if room == "photos" else (room, name)
                under = self.beneath.get((next(iter(used.values()), ""), name), [])
                known = (
                    under or self.made.get(put, []) or self.pool.get(room if name == "key" else own) or [str(uuid4())]
                )
                if template.endswith("{" + name + "}/restore"):
                    known = self.gone.get(put) or known
                value = self.rng.choice(known) if self.rng.random() > 1 / 16 else str(uuid4())
                if own != name and template.endswith("}") and self.rng.random() < 0.2:
                    value = str(uuid4())
            used[room, name] = value
            path = path.replace("{" + name + "}", value, 1)
        return path, used

    def body(self, schema: Any, deep: int = 0) -> Any:
        """Something of this shape, now and then something else."""
        if self.rng.random() < 0.04:
            return self.rng.choice(_NASTY)
        if "$ref" in schema:
            return self.body(self.spec["components"]["schemas"][schema["$ref"].rsplit("/", 1)[1]], deep)
        for many in ("oneOf", "anyOf", "allOf"):
            if many in schema:
                return self.body(self.rng.choice(schema[many]), deep)
        if "enum" in schema:
            return self.rng.choice(schema["enum"])
        kind = schema.get("type", "string")
        kind = self.rng.choice(kind) if isinstance(kind, list) else kind
        match kind:
            case "object":
                if deep > 5:
                    return {}
                wanted = schema.get("properties", {})
                often = 1.0 if deep == 0 else 0.35
                return {
                    k: self.body(v, deep + 1)
                    for k, v in wanted.items()
                    if k in schema.get("required", ()) or self.rng.random() < often
                }
            case "array":
                return [self.body(schema.get("items", {}), deep + 1) for _ in range(self.rng.randrange(4))]
            case "integer":
                return self.rng.choice((0, 1, 2, 3, 12, 48, 400))
            case "number":
                return self.rng.choice((0, 0.5, 1 / 32, 4, 12.5))
            case "boolean":
                return self.rng.random() < 0.5
            case "null":
                return None
        if schema.get("format") == "uuid":
            known = [k for keys in self.pool.values() for k in keys]
            return self.rng.choice(known) if known and self.rng.random() < 0.4 else str(uuid4())
        return self.rng.choice(_LENGTHS if self.rng.random() < 0.6 else _WORDS)

    def one(self, method: str, template: str, operation: Any) -> None:
        (path, used), content = self.path(template), operation.get("requestBody", {}).get("content", {})
        schema = content.get("application/json", {}).get("schema")
        asked = [p for p in operation.get("parameters", ()) if p["in"] == "query"]
        if asked and self.rng.random() < 0.5:
            p = self.rng.choice(asked)
            value = urllib.request.quote(str(self.body(p.get("schema", {})))[:200])  # type: ignore[attr-defined]
            path += f"?{p['name']}={value}"
        body = self.body(schema) if schema is not None else None
        began = time.perf_counter()
        status, said = self.call(method, path, body)
        took = time.perf_counter() - began
        self.took.append(took)
        self.statuses[status] += 1
        if method == "put" and status < 300:
            for place, value in used.items():
                self.made.setdefault(place, []).append(value)
        elif method == "delete" and status < 300 and used:
            place, value = list(used.items())[-1]
            self.gone.setdefault(place, []).append(value)
        elif status == 404:
            self.missed[f"{method} {template}"] += 1
            for place, value in used.items():
                known = self.pool.get(place[0], []) if len(used) == 1 and not template.endswith("restore") else []
                for there in (self.made.get(place, []), known):
                    if value in there:
                        there.remove(value)
        if took > _SLOW:
            self.slow[f"{method} {template}"] += 1
        if status >= 500 and status != 503:
            self.faults.append(f"{status} {method} {path} {json.dumps(body)[:300]} {said[:200]!r}")
        if str(status) not in operation["responses"]:
            self.undocumented[f"{status} {method} {template}"] += 1

    def memory(self) -> float:
        """Megabytes that the server holds now."""
        status = Path(f"/proc/{self.server.process.pid}/status").read_text()
        return next(int(line.split()[1]) / 1024 for line in status.splitlines() if line.startswith("VmRSS"))


def print_fuzz() -> None:
    spec = yaml.safe_load(_SCHEMA.read_text())
    left_out = ("restore", "backup")
    operations = [
        (m, p, o)
        for p, methods in spec["paths"].items()
        for m, o in methods.items()
        if isinstance(o, dict)
        and "responses" in o
        and not any(p.startswith("/api/copies") or p.endswith(w) for w in left_out[1:])
    ]
    with demo_server() as server:
        fuzz = Fuzz(server, random.Random(2029), spec)
        held = []
        for n in range(_CALLS):
            if n % 200 == 0:
                fuzz.put_back()
                fuzz.look()
                if not fuzz.pool["blocks"] or len(fuzz.pool["projects"]) < 2:
                    fuzz.call("post", "/api/projects", {"id": str(uuid4()), "name": "Again"})
                held.append(fuzz.memory())
            method, path, operation = fuzz.rng.choice(operations)
            if method == "delete" and fuzz.rng.random() < 0.7:
                continue
            fuzz.one(method, path, operation)
        held.append(fuzz.memory())
        took = np.array(fuzz.took) * 1000
        print(f"\nFuzz: {len(took):,} calls of {len(operations)} operations: {dict(sorted(fuzz.statuses.items()))}")
        print(
            f"  answers of 5xx but 503: {len(fuzz.faults)} (aim 0); not described: {dict(fuzz.undocumented)} (aim none)"
        )
        print(
            f"  404: {fuzz.statuses[404] / len(took):.0%} (aim under 25); most of them {dict(fuzz.missed.most_common(4))}"
        )
        print(
            f"  median {np.median(took):.0f} ms, p95 {np.quantile(took, 0.95):.0f}, longest {took.max():.0f}; "
            f"over 2 s: {dict(fuzz.slow)} (aim none)"
        )
        quarter = len(held) // 4
        print(
            "  memory, MB, at every quarter: "
            + ", ".join(f"{held[k]:.0f}" for k in range(0, len(held), max(1, quarter)))
        )
        for line in fuzz.faults[:10]:
            print("   ", line)
