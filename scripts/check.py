"""Every check and test, or the ones named: ``python scripts/check.py [lint types check-web core server browser]``.

The last line printed is "N passed, N failed": each check counts as one, each test as one.
"""

from __future__ import annotations

import os
import re
import subprocess
import sys
import tempfile
import time
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

HOME = Path(__file__).resolve().parent.parent
BIN = HOME / ".venv" / "bin"
PY = str(BIN / "python")
WEB = HOME / "web"

Command = tuple[str, list[str], Path]


def _drift(env: dict[str, str], made: list[str], kept: Path) -> list[str]:
    """A shell line that makes a file afresh and compares it with the committed one."""
    fresh = Path(env["SCRATCH"]) / kept.name
    parts = " ".join(part.replace("FRESH", str(fresh)) for part in made)
    return [
        "bash",
        "-c",
        f"{parts} >/dev/null && diff -q {fresh} {kept} || {{ echo '{kept.name} is out of date: run make api' >&2; exit 1; }}",
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
            ("migrations", [*manage, "makemigrations", "--check", "--dry-run"], HOME),
            (
                "API schema",
                _drift(env, [PY, "server/manage.py", "spectacular", "--file", "FRESH"], HOME / "server/openapi.yaml"),
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


SUITES = {
    "core": ["core/tests", "-t", "core"],
    "server": ["server", "-t", "server"],
    "browser": ["browser_tests", "-t", "."],
}


def run_check(name: str, command: list[str], cwd: Path, env: dict[str, str]) -> bool:
    began = time.monotonic()
    done = subprocess.run(command, cwd=cwd, env=env, capture_output=True, text=True, check=False)
    ok = done.returncode == 0
    said = "" if ok else "\n" + done.stdout + done.stderr
    print(f"{'ok  ' if ok else 'FAIL'} {name} ({time.monotonic() - began:.1f} s){said}", flush=True)
    return ok


def run_suite(name: str, env: dict[str, str]) -> tuple[int, int]:
    """Django's runner over one folder of tests, in a data folder of its own; returns passed and failed."""
    began = time.monotonic()
    where, *top = SUITES[name]
    command = [PY, "server/manage.py", "test", where, *top, "--noinput"]
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


def main(wanted: list[str]) -> int:
    with tempfile.TemporaryDirectory() as scratch, ThreadPoolExecutor(2) as pool:
        env = {
            **os.environ,
            "PYTHONPATH": f"{HOME / 'core'}:{HOME / 'server'}:{HOME}",
            "ENTRETOILE_DATA": scratch,
            "SCRATCH": scratch,
            "NO_UPDATE_NOTIFIER": "1",
        }
        suites = [name for name in SUITES if not wanted or name in wanted]
        # The journeys in the browser take longest and mostly wait: they run beside everything else.
        beside = {name: pool.submit(run_suite, name, env) for name in suites if name == "browser"}
        passed = failed = 0
        for group, commands in checks(env).items():
            for name, command, cwd in commands if not wanted or group in wanted else []:
                ok = run_check(name, command, cwd, env)
                passed, failed = passed + ok, failed + (not ok)
        for name in suites:
            good, bad = beside[name].result() if name in beside else run_suite(name, env)
            passed, failed = passed + good, failed + bad
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
