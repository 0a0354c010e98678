"""``make mutants``: places broken by hand, one at a time, each with the tests that must notice.

A sabotage is one text for another in one file of the core; its tests run in a copy of the core. What was not noticed is listed
last, and the share that was. It stays out of ``make test``: it takes some minutes. ``--gone`` only tells what is to be broken and is no
longer there, and is in it.
"""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from pathlib import Path

from sabotages import SABOTAGES, Sabotage

HOME = Path(__file__).resolve().parent.parent


def was_noticed(sabotage: Sabotage) -> bool | None:
    """Whether its tests fail in a copy of the core with the one change; None when the text is no longer there."""
    source = HOME / "core" / "piecing" / sabotage.file
    text = source.read_text("utf-8")
    if sabotage.before not in text:
        return None
    with tempfile.TemporaryDirectory() as folder:
        core = Path(folder) / "core"
        shutil.copytree(HOME / "core", core, ignore=shutil.ignore_patterns("__pycache__"))
        shutil.copytree(HOME / "docs", Path(folder) / "docs", ignore=shutil.ignore_patterns("screenshots"))
        (core / "piecing" / sabotage.file).write_text(text.replace(sabotage.before, sabotage.after, 1), "utf-8")
        env = {**os.environ, "PYTHONPATH": str(core), "OMP_NUM_THREADS": "1"}
        command = [sys.executable, "-m", "unittest", "-f", *sabotage.tests]
        done = subprocess.run(command, cwd=core, env=env, capture_output=True, check=False)
    return done.returncode != 0


def sound(tests: tuple[str, ...]) -> bool:
    """Whether the tests pass while nothing is broken: else they would notice anything."""
    command = [sys.executable, "-m", "unittest", "-f", *tests]
    env = {**os.environ, "PYTHONPATH": str(HOME / "core"), "OMP_NUM_THREADS": "1"}
    return subprocess.run(command, cwd=HOME / "core", env=env, capture_output=True, check=False).returncode == 0


def gone() -> list[Sabotage]:
    """Those whose text is no longer there: the code changed and the list did not."""
    return [s for s in SABOTAGES if s.before not in (HOME / "core" / "piecing" / s.file).read_text("utf-8")]


def main() -> int:
    if sys.argv[1:] == ["--gone"]:
        for s in gone():
            print(f"scripts/sabotages.py: {s.before!r} is no longer in {s.file}", file=sys.stderr)
        return 1 if gone() else 0
    wanted = [s for s in SABOTAGES if not sys.argv[1:] or any(a in s.file for a in sys.argv[1:])]
    with ThreadPoolExecutor(2) as pool:
        used = sorted({s.tests for s in wanted})
        failing = [tests for tests, passed in zip(used, pool.map(sound, used), strict=True) if not passed]
        if failing:
            print(f"These fail by themselves, so nothing can be said: {failing}")
            return 1
        found = list(pool.map(was_noticed, wanted))
    for s, was in zip(wanted, found, strict=True):
        if not was:
            print(f"{'NOT NOTICED' if was is False else 'NO LONGER THERE'}  {s.file}: {s.before!r} -> {s.after!r}")
    share = sum(was is True for was in found) / len(found)
    print(f"{sum(was is True for was in found)} of {len(found)} sabotages noticed ({share:.0%}; 90% are wanted)")
    return 0 if share >= 0.9 else 1


if __name__ == "__main__":
    sys.exit(main())
