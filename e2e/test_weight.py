"""What a screen weighs: the script that comes over the line, gzipped."""

import gzip
from urllib.parse import urlsplit

from django.conf import settings
from playwright.sync_api import Request, expect

from e2e.browser import BrowserTestCase

KB = 1000
MOST_AT_THE_DESK = 200 * KB
MOST_IN_ALL = 420 * KB
ASSETS = settings.WEB_DIST / "assets"


def weight(name: str) -> int:
    """Bytes of a file of the build, gzipped as it is served."""
    return len(gzip.compress((ASSETS / name).read_bytes(), 9))


class WeightTest(BrowserTestCase):
    def test_the_first_load_of_the_desk(self) -> None:
        loaded: set[str] = set()

        def note(request: Request) -> None:
            path = urlsplit(request.url).path
            if path.endswith(".js"):
                loaded.add(path.rsplit("/", 1)[-1])

        self.page.on("request", note)
        page = self.open_project()
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible()
        page.wait_for_load_state("networkidle")
        self.assertGreater(len(loaded), 5)
        self.assertLessEqual(sum(map(weight, loaded)), MOST_AT_THE_DESK, sorted(loaded))

    def test_all_places_together(self) -> None:
        scripts = [file.name for file in ASSETS.glob("*.js")]
        self.assertGreater(len(scripts), 20)
        self.assertLessEqual(sum(map(weight, scripts)), MOST_IN_ALL)
