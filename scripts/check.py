"""Every check and test, or the ones named: ``python scripts/check.py [lint types check-web core server browser]``.

The last line printed is "N passed, N failed": each check counts as one, each test as one.
"""

from __future__ import annotations

import os
import re
import shlex
import subprocess
import sys
import tempfile
import time
from collections.abc import Callable
from concurrent.futures import Future, ThreadPoolExecutor
from functools import partial
from pathlib import Path

HOME = Path(__file__).resolve().parent.parent
BIN = HOME / ".venv" / "bin"
PY = str(BIN / "python")
WEB = HOME / "web"

Command = tuple[str, list[str], Path]


def _drift(env: dict[str, str], made: list[str], kept: Path) -> list[str]:
    """A shell line that makes a file afresh and compares it with the committed one."""
    fresh = Path(env["SCRATCH"]) / kept.name
    parts = shlex.join(part.replace("FRESH", str(fresh)) for part in made)
    compared = shlex.join(["diff", "-q", str(fresh), str(kept)])
    return [
        "bash",
        "-c",
        f"{parts} >/dev/null && {compared} || {{ echo '{kept.name} is out of date: run make api' >&2; exit 1; }}",
    ]


def checks(env: dict[str, str]) -> dict[str, list[Command]]:
    manage = [PY, "server/manage.py"]
    return {
        "lint": [
            ("ruff", [str(BIN / "ruff"), "check", "."], HOME),
            ("ruff format", [str(BIN / "ruff"), "format", "--check", "-q", "."], HOME),
            ("import boundaries", [str(BIN / "lint-imports")], HOME),
        ],
        "types": [("mypy", [str(BIN / "mypy")], HOME)],
        "check-web": [
            ("vue-tsc", ["npm", "run", "--silent", "types"], WEB),
            ("eslint", ["npm", "run", "--silent", "lint"], WEB),
            ("prettier", ["npm", "run", "--silent", "format"], WEB),
        ],
        "drift": [
            ("sabotages", [PY, "scripts/mutants.py", "--gone"], HOME),
            ("migrations", [*manage, "makemigrations", "--check", "--dry-run"], HOME),
            (
                "API schema",
                _drift(
                    env,
                    [PY, "server/manage.py", "spectacular", "--fail-on-warn", "--file", "FRESH"],
                    HOME / "server/openapi.yaml",
                ),
                HOME,
            ),
            (
                "API types",
                _drift(
                    env,
                    ["npx", "openapi-typescript", "../server/openapi.yaml", "-o", "FRESH"],
                    WEB / "src/shared/api/schema.d.ts",
                ),
                WEB,
            ),
        ],
    }


_WAITS = {"test_robust": 27_000, "test_looks": 10_000, "test_storm": 6_000}
"""What journeys wait by design, or look at view after view, in bytes that others of their length would have (280 to the second)."""


def _journeys(parts: int = 4) -> list[list[str]]:
    """The journeys' modules in heaps of about one length, so that two processors have something to do to the end."""

    def length(module: Path) -> int:
        return module.stat().st_size + _WAITS.get(module.stem, 0)

    heaps: list[list[Path]] = [[] for _ in range(parts)]
    for module in sorted((HOME / "browser_tests").glob("test_*.py"), key=length, reverse=True):
        min(heaps, key=lambda heap: sum(map(length, heap))).append(module)
    return [[f"browser_tests.{p.stem}" for p in heap] for heap in heaps]


_ALONE = ("lint", "types")
"""Groups that need nothing of the front end."""
SUITES: dict[str, list[list[str]]] = {
    "core": [["core/tests", "-t", "core"]],
    "server": [["server", "-t", "server"]],
    "browser": [[*modules, "-t", "."] for modules in _journeys()],
}


def run_check(name: str, command: list[str], cwd: Path, env: dict[str, str]) -> bool:
    began = time.monotonic()
    done = subprocess.run(command, cwd=cwd, env=env, capture_output=True, text=True, check=False)
    ok = done.returncode == 0
    said = "" if ok else "\n" + done.stdout + done.stderr
    print(f"{'ok  ' if ok else 'FAIL'} {name} ({time.monotonic() - began:.1f} s){said}", flush=True)
    return ok


def run_checks(commands: list[Command], env: dict[str, str]) -> tuple[int, int]:
    """The checks of one group, one after another; returns passed and failed."""
    good = sum(run_check(*command, env) for command in commands)
    return good, len(commands) - good


def run_suite(name: str, labels: list[str], env: dict[str, str]) -> tuple[int, int]:
    """Django's runner over some tests, in a data folder of its own; returns passed and failed."""
    began = time.monotonic()
    command = [PY, "server/manage.py", "test", *labels, "--noinput"]
    with tempfile.TemporaryDirectory() as data:
        own = {**env, "ENTRETOILE_DATA": data}
        done = subprocess.run(command, cwd=HOME, env=own, capture_output=True, text=True, check=False)
    said = done.stdout + done.stderr
    ran = int(m[1]) if (m := re.search(r"^Ran (\d+) tests?", said, re.M)) else 0
    bad = sum(int(n) for n in re.findall(r"(?:failures|errors|unexpected successes)=(\d+)", said))
    skipped = sum(int(n) for n in re.findall(r"skipped=(\d+)", said))
    if (done.returncode and not bad) or ran == 0:
        ran = bad = 1
    passed = max(0, ran - bad - skipped)
    result = f"{'ok  ' if not bad else 'FAIL'} {name} tests: {passed} of {ran} ({time.monotonic() - began:.1f} s)"
    print(result + (f"\n{said}" if bad else ""), flush=True)
    return passed, bad


def _after(built: Future[tuple[int, int]], job: Callable[[], tuple[int, int]]) -> tuple[int, int]:
    """What needs the front end; nothing of it is tried when that could not be built."""
    return (0, 1) if built.result()[1] else job()


def main(wanted: list[str]) -> int:
    with tempfile.TemporaryDirectory() as scratch, ThreadPoolExecutor(3) as pool:
        env = {
            **os.environ,
            "PYTHONPATH": f"{HOME / 'core'}:{HOME / 'server'}:{HOME}",
            "ENTRETOILE_DATA": scratch,
            "SCRATCH": scratch,
            "NO_UPDATE_NOTIFIER": "1",
            # As serve.py does: suites side by side gain nothing from threads that wait for one another within each.
            "OMP_NUM_THREADS": "1",
            "OPENBLAS_NUM_THREADS": "1",
        }
        # The front end is set up and built, which mostly waits for the network and the disk, beside what does without it.
        made = ["make", "--no-print-directory", "web/dist/built.stamp", "chromium"]
        built = pool.submit(run_checks, [("front end and Chromium", made, HOME)] if not wanted else [], env)
        suites = {n: [partial(run_suite, n, labels, env) for labels in SUITES[n]] for n in SUITES}
        asked = {g: commands for g, commands in checks(env).items() if not wanted or g in wanted}
        alone = [partial(run_checks, asked[g], env) for g in asked if g in _ALONE]
        groups = [partial(run_checks, asked[g], env) for g in asked if g not in _ALONE]
        heaps = {n: jobs if not wanted or n in wanted else [] for n, jobs in suites.items()}
        # A first heap of journeys, which mostly wait, beside everything else; the others fill up the time that is left.
        first, *more = heaps["browser"] or [lambda: (0, 0)]
        at_once = [pool.submit(job) for job in (*heaps["core"], *alone)]
        later = [pool.submit(_after, built, job) for job in (first, *groups, *heaps["server"], *more)]
        results = [job.result() for job in (built, *at_once, *later)]
    passed, failed = (sum(column) for column in zip(*results, strict=True))
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
