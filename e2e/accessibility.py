"""What axe-core finds on a page, in every look that it can have."""

from collections.abc import Callable
from pathlib import Path
from typing import Literal

from django.conf import settings
from playwright.sync_api import Page

AXE = Path(settings.ROOT) / "web/node_modules/axe-core/axe.min.js"


# What is asked of a page; what of that has to do with colours is all that a dark one can change.
RULES = "['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']"
OF_COLOUR = "{type: 'rule', values: ['color-contrast', 'link-in-text-block']}"
OF_LAYOUT = f"{{type: 'tag', values: {RULES}}}, rules: {{'color-contrast': {{enabled: false}}}}"

# Every look at 1280 and on a phone; colours once light and once dark, where there is room for all
# of them. Narrower and at 200 % zoom a page is laid out as on a phone: there one page of each sort
# is looked at.
WIDE, PHONE, NARROW, ZOOMED = (1280, 800), (390, 844), (360, 740), (640, 400)
Look = tuple[tuple[int, int], Literal["light", "dark"], str]
LOOKS: tuple[Look, ...] = (
    (WIDE, "light", RULES),
    (WIDE, "dark", OF_COLOUR),
    (PHONE, "light", OF_LAYOUT),
)
EVERY_LOOK = (
    *LOOKS,
    (PHONE, "dark", OF_COLOUR),
    (NARROW, "light", RULES),
    (ZOOMED, "light", RULES),
)


# What still moves is seen half there.
STILL = """Promise.allSettled(document.getAnimations()
    .filter((one) => Number.isFinite(one.effect.getComputedTiming().endTime))
    .map((one) => one.finished))"""


# A dialog or menu alone, where one is open: the page beneath is looked at without it.
ON_TOP = "document.querySelector('.v-overlay--active .v-overlay__content') ?? document"


def serious(page: Page, rules: str = RULES) -> list[str]:
    """What axe-core finds on the page, by rule and place."""
    page.evaluate(STILL)
    if not page.evaluate("'axe' in window"):
        page.evaluate(AXE.read_text())
    found = page.evaluate(f"axe.run({ON_TOP}, {{runOnly: {rules}, resultTypes: ['violations']}})")
    return [
        f"{violation['id']}: {node['html'][:120]}"
        for violation in found["violations"]
        for node in violation["nodes"]
    ]


# Two frames: the page hears that its look is another, and draws itself anew.
DRAWN = "new Promise((drawn) => requestAnimationFrame(() => requestAnimationFrame(drawn)))"


def serious_anywhere(
    page: Page,
    show: Callable[[], None] = lambda: None,
    hide: Callable[[], None] = lambda: None,
    looks: tuple[Look, ...] = LOOKS,
) -> list[str]:
    """What axe-core finds on the page in every look of it, after ``show`` and before ``hide``."""
    found = []
    was = page.viewport_size
    for (width, height), scheme, rules in looks:
        page.set_viewport_size({"width": width, "height": height})
        page.emulate_media(color_scheme=scheme)
        page.evaluate(DRAWN)
        show()
        found += [f"{width} {scheme}: {fault}" for fault in serious(page, rules)]
        hide()
    if was:
        page.set_viewport_size(was)
    page.emulate_media(color_scheme="light")
    return found
