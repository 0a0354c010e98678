"""How long it takes from a key to the picture drawn anew, measured in the page itself."""

from __future__ import annotations

from collections.abc import Sequence

from playwright.sync_api import Page

__all__ = ["redrawn"]


def redrawn(page: Page, picture: str, keys: Sequence[str], pause: int) -> list[float]:
    """Milliseconds for each key pressed, ``pause`` apart; the first five, which warm up, are left out."""
    page.evaluate(
        """(picture) => {
          window.took = []
          let began = 0
          document.addEventListener('keydown', () => (began = performance.now()), true)
          new MutationObserver(() => {
            if (!began) return
            const from = began
            began = 0
            requestAnimationFrame(() => window.took.push(performance.now() - from))
          }).observe(document.querySelector(picture), {
            subtree: true, childList: true, attributes: true, attributeFilter: ['d'],
          })
        }""",
        picture,
    )
    for key in keys:
        page.keyboard.press(key)
        page.wait_for_timeout(pause)
    return list(page.evaluate("window.took"))[5:]
