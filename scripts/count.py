"""``make count``: how much of the code is tests. Non-blank lines of .py, .ts and .vue without style blocks; generated files left
out; tests against tests and code together."""

from __future__ import annotations

import re
import subprocess
from collections import Counter
from pathlib import Path

ROOT = Path(__file__).parent.parent
GENERATED = ("web/src/shared/api/schema.d.ts", "migrations/0")
STYLE = re.compile(r"<style[^>]*>.*?</style>", re.DOTALL)


def is_test(path: str) -> bool:
    return "/tests/" in path or path.startswith("browser_tests/")


def main() -> None:
    listed = subprocess.run(["git", "ls-files"], cwd=ROOT, capture_output=True, text=True, check=True).stdout.split(
        "\n"
    )
    lines: Counter[str] = Counter()
    tests = 0
    for path in listed:
        if not path.endswith((".py", ".ts", ".vue")) or any(g in path for g in GENERATED):
            continue
        file = ROOT / path
        if not file.exists():
            continue
        found = sum(bool(line.strip()) for line in STYLE.sub("", file.read_text("utf-8")).splitlines())
        lines[path.split("/")[0]] += found
        tests += found if is_test(path) else 0
    total = sum(lines.values())
    for room, found in sorted(lines.items()):
        print(f"{room:<14} {found:>6}")
    print(f"{'all':<14} {total:>6}\n{'tests':<14} {tests:>6}  {tests / total:.1%}")


if __name__ == "__main__":
    main()
