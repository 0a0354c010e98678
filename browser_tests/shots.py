"""``make shots``: one picture of each main view, from the demo data, at 1280 x 800, into docs/screenshots/."""

from __future__ import annotations

import argparse
import re
from pathlib import Path

from playwright.sync_api import Page

from browser_tests.chromium import chromium
from browser_tests.own_server import demo_server

HALF_SEWN = "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0001"
WAKE = "/projects/5e0a6f3c-3f57-4f0e-9a43-0d6f6f1a0002"
LANTERN = f"{HALF_SEWN}/blocks/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"
JOINING = f"{HALF_SEWN}/join/5e0a6f3c-3f57-4f0e-9a43-a9af6f1a0001"
VIEWS = {
    "projects": "/",
    "standing": HALF_SEWN,
    "plan": f"{HALF_SEWN}/plan",
    "compare": f"{WAKE}/compare",
    "trim-opened": f"{HALF_SEWN}/trim",
    "measure": f"{HALF_SEWN}/measure",
    "diagnose": f"{LANTERN}/diagnose",
    "wrong": "/wrong",
    "lay-out": f"{LANTERN}/lay",
    "sew": f"{HALF_SEWN}/sew",
    "bench": f"{HALF_SEWN}/bench",
    "press": f"{JOINING}/press",
    "join": JOINING,
    "cut": f"{HALF_SEWN}/cut",
    "hands": "/records/hands",
    "evenings": "/records/evenings",
    "log": "/records/log",
    "quilt": f"{HALF_SEWN}/blocks/quilt",
    "by-hand": f"{HALF_SEWN}/blocks/quilt",
}


def before_the_picture(page: Page, name: str) -> None:
    """What one does on a page before it shows what it is for."""
    if name == "cut":
        page.get_by_role("button", name=re.compile("^Plan the ")).click()
        page.get_by_text("strips in").first.wait_for(timeout=30_000)
    if name == "quilt":
        pieced = {"units": [{"kind": "flying_goose", "fabrics": "abb"}], "turn": 1, "runs": "mirrored"}
        inner = {"width": "1", "fabric": "a", "corners": "mitred", "corner_fabric": "a"}
        geese = {"width": "3", "fabric": "b", "corners": "square", "corner_fabric": "c", "pieced": pieced}
        asked = {"changes": {"borders": [inner, geese]}, "seen": {}}
        page.request.patch(
            page.url.replace("/projects/", "/api/projects/").replace("/blocks/quilt", "/quilt"), data=asked
        )
        page.reload()
        page.get_by_text("Pieced beside the blocks").wait_for()
    if name == "by-hand":
        page.get_by_role("radio", name="by hand").locator("xpath=ancestor::label[1]").click()
        page.get_by_role("link", name="Lay it by hand").click()
        page.get_by_role("button", name="Row 3, column 3:").click()
        page.get_by_role("button", name="Turn T", exact=True).click()


def take(address: str, args: argparse.Namespace) -> None:
    with chromium() as browser:
        page = browser.new_page(viewport={"width": args.width, "height": args.height})
        for name, path in VIEWS.items():
            if args.only and name not in args.only:
                continue
            page.goto(address + path)
            page.wait_for_selector("main")
            page.wait_for_load_state("networkidle")
            before_the_picture(page, name)
            page.evaluate("document.fonts.ready")
            page.wait_for_timeout(900 if name == "hands" else 350)
            page.screenshot(path=args.out / f"{name}.png", full_page=args.whole)
            print(args.out / f"{name}.png")


def main() -> None:
    parser = argparse.ArgumentParser(description="Pictures of the main views, from the demo data.")
    parser.add_argument("--out", type=Path, default=Path("docs/screenshots"))
    parser.add_argument("--only", nargs="*", default=None, help="names of views")
    parser.add_argument("--width", type=int, default=1280)
    parser.add_argument("--height", type=int, default=800)
    parser.add_argument("--whole", action="store_true", help="the whole page, not only the window")
    parser.add_argument("--address", help="of a server that runs already")
    args = parser.parse_args()
    args.out.mkdir(parents=True, exist_ok=True)
    if args.address:
        take(args.address, args)
        return
    with demo_server() as server:
        take(server.url, args)


if __name__ == "__main__":
    main()
