"""The real interface in headless Chromium against a live server."""

import atexit
import os
import re
import signal
import socket
from collections.abc import Callable
from contextlib import suppress
from functools import lru_cache
from pathlib import Path
from tempfile import mkdtemp
from time import monotonic
from typing import Any, ClassVar

from django.conf import settings
from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.core.servers.basehttp import ThreadedWSGIServer
from django.test import Client, override_settings
from django.test.testcases import LiveServerThread
from playwright.sync_api import (
    Browser,
    BrowserContext,
    Locator,
    Page,
    Request,
    expect,
    sync_playwright,
)
from playwright.sync_api import Error as PlaywrightError

from carpentry.tests.samples import FOLDER as SAMPLES
from e2e.chromium import CHROMIUM, FLAGS
from server.accounts.models import User
from server.plans.solver import solver
from server.projects.models import Project
from server.tests.demo import load_demo

os.environ.setdefault("DJANGO_ALLOW_ASYNC_UNSAFE", "1")
DESK_SIZE = (1280, 800)
PHONE_SIZE = (390, 844)
TABLET_SIZE = (1024, 768)
PLAN_SECONDS = 20.0  # as at the desk: proofs come in their own time, on a busy machine too
PATIENCE_SECONDS = 30.0
SOON_MS = 2_000
expect.set_options(timeout=PATIENCE_SECONDS * 1000)


@lru_cache
def _browser() -> Browser:
    """The one browser of this process, which ends with it."""
    playwright = sync_playwright().start()
    atexit.register(playwright.stop)
    return playwright.chromium.launch(executable_path=CHROMIUM, args=FLAGS)


class SeverableServer(ThreadedWSGIServer):
    """A server whose line can be cut: what is open is closed, and nobody gets through."""

    is_cut = False

    def __init__(self, *args: Any, **kwargs: Any) -> None:
        self.lines: set[socket.socket] = set()
        super().__init__(*args, **kwargs)

    def verify_request(self, request: Any, client_address: Any) -> bool:
        if self.is_cut:
            return False
        self.lines.add(request)
        return True

    def shutdown_request(self, request: Any) -> None:
        self.lines.discard(request)
        super().shutdown_request(request)

    def cut(self) -> None:
        self.is_cut = True
        for line in list(self.lines):
            with suppress(OSError):
                line.shutdown(socket.SHUT_RDWR)


class SeverableThread(LiveServerThread):
    server_class = SeverableServer


@override_settings(PLAN_SECONDS=PLAN_SECONDS, ANSWER_AT_YARD_SECONDS=PLAN_SECONDS)
class BrowserTestCase(StaticLiveServerTestCase):
    """Each test gets a fresh browser context and the demo workshop. A page error fails the test."""

    server_thread_class = SeverableThread
    browser: ClassVar[Browser]
    size = DESK_SIZE

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.browser = _browser()

    def setUp(self) -> None:
        cache.clear()
        load_demo()
        self.downloads = Path(mkdtemp())
        self.errors: list[str] = []
        self.hosts: set[str] = set()
        self.server_thread.httpd.is_cut = False
        self.context = self.new_context()
        self.page = self.new_page(self.context)

    def tearDown(self) -> None:
        self.context.close()
        solver.stop_all()
        self.assertEqual(self.errors, [])

    def new_context(self) -> BrowserContext:
        width, height = self.size
        context = self.browser.new_context(
            viewport={"width": width, "height": height}, reduced_motion="reduce"
        )
        context.set_default_timeout(PATIENCE_SECONDS * 1000)
        return context

    def new_page(self, context: BrowserContext) -> Page:
        page = context.new_page()
        page.on("pageerror", lambda error: self.errors.append(str(error)))
        page.on("request", self._note_host)
        return page

    def profile(self, folder: str) -> BrowserContext:
        """A browser of its own that keeps what it knows in a folder."""
        width, height = self.size
        context = self.browser.browser_type.launch_persistent_context(
            folder,
            executable_path=CHROMIUM,
            args=FLAGS,
            viewport={"width": width, "height": height},
        )
        self.addCleanup(context.close)
        return context

    def disconnect(self, context: BrowserContext | None = None) -> None:
        """Cuts the line at the server, where no worker of the browser gets round it; the browser
        is told, too."""
        self.server_thread.httpd.cut()
        (context or self.context).set_offline(True)

    def reconnect(self) -> None:
        self.server_thread.httpd.is_cut = False
        self.context.set_offline(False)

    def until(self, condition: Callable[[], object], page: Page | None = None) -> None:
        """Waits until something holds that no locator can wait for."""
        last = monotonic() + PATIENCE_SECONDS
        while not condition():
            self.assertLess(monotonic(), last, "it never came")
            (page or self.page).wait_for_timeout(20)

    def choose(self, field: Locator, option: str, exact: bool = False) -> None:
        """Chooses from a list, and waits until it is closed again. A list that is still being laid
        out may put another element under the pointer, which is no press: it is pressed again, as is
        the field of a dialog that is only just opening."""
        options = field.page.get_by_role("option")
        chosen = field.page.get_by_role("option", name=option, exact=exact)

        def is_open() -> bool:
            if not options.count():
                field.press("ArrowDown")
            with suppress(PlaywrightError, AssertionError):
                expect(chosen).to_be_visible(timeout=SOON_MS)
                return True
            return False

        self.until(is_open, field.page)

        def is_closed() -> bool:
            with suppress(PlaywrightError, AssertionError):
                chosen.click(timeout=SOON_MS)
                expect(options).to_have_count(0, timeout=SOON_MS)
            return not options.count()

        self.until(is_closed, field.page)

    def kill(self, folder: str) -> None:
        """Kills the browser that works in a folder, as a crash does."""
        for process in Path("/proc").glob("[0-9]*"):
            try:
                if folder in (process / "cmdline").read_text(errors="replace"):
                    os.kill(int(process.name), signal.SIGKILL)
            except (FileNotFoundError, ProcessLookupError, PermissionError):
                continue

    def _note_host(self, request: Request) -> None:
        if not request.url.startswith(("data:", "blob:")):
            self.hosts.add(request.url.split("/")[2])

    def address(self, path: str = "/") -> str:
        return f"{self.live_server_url}{path}"

    def enter_demo(self, page: Page | None = None) -> Page:
        page = page or self.page
        self.sign_in(page)
        page.goto(self.address("/projects"))
        expect(page.get_by_role("region", name="Projects")).to_be_visible()
        return page

    def sign_in(self, page: Page) -> None:
        """Lets a browser into the demo workshop, as its door does."""
        client = Client()
        client.force_login(User.objects.get(username=settings.DEMO_USER))
        cookie = client.cookies[settings.SESSION_COOKIE_NAME].value
        page.context.add_cookies(
            [{"name": settings.SESSION_COOKIE_NAME, "value": cookie, "url": self.live_server_url}]
        )

    def open_project(self, name: str = "Compost station") -> Page:
        page = self.page
        self.sign_in(page)
        page.goto(self.address(f"/projects/{Project.objects.get(name=name).id}"))
        expect(page.locator("svg.board").first).to_be_visible()
        return page

    def visit(self, place: str, page: Page | None = None) -> None:
        """To a place: of the project on the tape, or of the workshop, one press away."""
        page = page or self.page
        if place in ("Desk", "List", "Yard", "Shop", "Days"):
            tape = page.get_by_role("navigation", name="Places")
            tape.get_by_role("link", name=re.compile(f"^(‹ )?{place}")).click()
            return
        page.get_by_role("button", name="Workshop").click()
        page.get_by_role("menuitem", name=re.compile(f"^{place}")).click()

    def figure(self, page: Page, number: int) -> str:
        """A figure of the tally: 0 boards, 1 cost, 2 waste, 3 board feet."""
        return page.locator("footer .one .figure").nth(number).inner_text()

    def download(self, page: Page, link: str) -> Path:
        with page.expect_download() as waiting:
            file_link = page.get_by_role("link", name=link)
            file_link.or_(page.get_by_role("menuitem", name=link)).click()
        file = self.downloads / waiting.value.suggested_filename
        waiting.value.save_as(file)
        return file

    def pick_file(self, page: Page, label: str, name: str) -> None:
        page.get_by_label(label).set_input_files(str(SAMPLES / name))

    def sideways(self, page: Page) -> int:
        """How far the page scrolls sideways, in pixels."""
        found: Any = page.evaluate(
            "document.documentElement.scrollWidth - document.documentElement.clientWidth"
        )
        return int(found)
