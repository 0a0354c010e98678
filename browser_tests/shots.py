"""``make shots``: one picture of each main view, from the demo data, at 1280 x 800, into docs/screenshots/."""

from __future__ import annotations

import argparse
from pathlib import Path

from browser_tests.chromium import chromium

HALF_SEWN = "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001"
VIEWS = {
    "projects": "/",
    "plan": f"{HALF_SEWN}/plan",
    "trim-opened": f"{HALF_SEWN}/trim",
    "trim-closed": f"{HALF_SEWN}/trim?way=closed",
    "check": f"{HALF_SEWN}/check",
    "mend": f"{HALF_SEWN}/mend",
    "settings": "/settings",
}


def main() -> None:
    parser = argparse.ArgumentParser()
    parser.add_argument("--address", required=True)
    parser.add_argument("--out", type=Path, default=Path("docs/screenshots"))
    parser.add_argument("--only", nargs="*", default=None)
    parser.add_argument("--width", type=int, default=1280)
    parser.add_argument("--height", type=int, default=800)
    args = parser.parse_args()
    args.out.mkdir(parents=True, exist_ok=True)
    with chromium() as browser:
        page = browser.new_page(viewport={"width": args.width, "height": args.height})
        page.on("console", lambda m: print("console:", m.text) if m.type in ("error", "warning") else None)
        page.on("pageerror", lambda e: print("page error:", e))
        for name, path in VIEWS.items():
            if args.only and name not in args.only:
                continue
            page.goto(args.address + path)
            page.wait_for_selector("main")
            page.wait_for_load_state("networkidle")
            page.evaluate("document.fonts.ready")
            page.wait_for_timeout(350)
            page.screenshot(path=args.out / f"{name}.png")
            print(args.out / f"{name}.png")


if __name__ == "__main__":
    main()
