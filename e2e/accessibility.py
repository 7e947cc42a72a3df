"""What axe-core finds on a page, in every look that it can have."""

from collections.abc import Callable
from pathlib import Path

from django.conf import settings
from playwright.sync_api import Page

AXE = Path(settings.ROOT) / "web/node_modules/axe-core/axe.min.js"


def serious(page: Page) -> list[str]:
    """What axe-core finds on the page, by rule and place."""
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    found = page.evaluate(
        "axe.run({runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'],"
        " resultTypes: ['violations']})"
    )
    return [
        f"{violation['id']}: {node['html'][:120]}"
        for violation in found["violations"]
        for node in violation["nodes"]
    ]


# Wide, on a phone, on a narrow one, and at 200 % zoom of the first.
LOOKS = (
    ((1280, 800), "light"),
    ((1280, 800), "dark"),
    ((390, 844), "light"),
    ((360, 740), "dark"),
    ((640, 400), "light"),
)


# Two frames: the page hears that its look is another, and draws itself anew.
DRAWN = "new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))"


def serious_anywhere(
    page: Page,
    show: Callable[[], None] = lambda: None,
    hide: Callable[[], None] = lambda: None,
) -> list[str]:
    """What axe-core finds on the page in every look of it, after ``show`` and before ``hide``."""
    found = []
    was = page.viewport_size
    for (width, height), scheme in LOOKS:
        page.set_viewport_size({"width": width, "height": height})
        page.emulate_media(color_scheme="dark" if scheme == "dark" else "light")
        page.evaluate(DRAWN)
        show()
        found += [f"{width} {scheme}: {fault}" for fault in serious(page)]
        hide()
    if was:
        page.set_viewport_size(was)
    page.emulate_media(color_scheme="light")
    return found
