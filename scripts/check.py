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
    print(f"{'ok  ' if ok else 'FAIL'} {name} ({time.monotonic() - began:.1f} s)", flush=True)
    if not ok:
        print(done.stdout + done.stderr, flush=True)
    return ok


def run_suite(name: str, env: dict[str, str]) -> tuple[int, int]:
    """Django's runner over one folder of tests; returns passed and failed."""
    began = time.monotonic()
    where, *top = SUITES[name]
    command = [PY, "server/manage.py", "test", where, *top, "--noinput"]
    done = subprocess.run(command, cwd=HOME, env=env, capture_output=True, text=True, check=False)
    said = done.stdout + done.stderr
    ran = int(m[1]) if (m := re.search(r"^Ran (\d+) tests?", said, re.M)) else 0
    bad = sum(int(n) for n in re.findall(r"(?:failures|errors|unexpected successes)=(\d+)", said))
    skipped = sum(int(n) for n in re.findall(r"skipped=(\d+)", said))
    if done.returncode and not bad:
        bad, ran = 1, max(ran, 1)
    if ran == 0:
        bad, ran = 1, 1
    passed = ran - bad - skipped
    print(
        f"{'ok  ' if not bad else 'FAIL'} {name} tests: {passed} of {ran} ({time.monotonic() - began:.1f} s)",
        flush=True,
    )
    if bad:
        print(said, flush=True)
    return passed, bad


def main(wanted: list[str]) -> int:
    with tempfile.TemporaryDirectory() as scratch:
        env = {
            **os.environ,
            "PYTHONPATH": f"{HOME / 'core'}:{HOME / 'server'}:{HOME}",
            "ENTRETOILE_DATA": scratch,
            "SCRATCH": scratch,
            "NO_UPDATE_NOTIFIER": "1",
        }
        passed = failed = 0
        for group, commands in checks(env).items():
            for name, command, cwd in commands if not wanted or group in wanted else []:
                ok = run_check(name, command, cwd, env)
                passed, failed = passed + ok, failed + (not ok)
        for name in SUITES:
            if not wanted or name in wanted:
                good, bad = run_suite(name, env)
                passed, failed = passed + good, failed + bad
    print(f"{passed} passed, {failed} failed", flush=True)
    return 1 if failed else 0


if __name__ == "__main__":
    sys.exit(main(sys.argv[1:]))
