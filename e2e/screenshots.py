"""The README's pictures, one per main view, of the demo workshop: ``make screenshots``.

A run of the browser tests' machinery that asserts nothing; its name keeps it out of the tests.
"""

import re

from django.conf import settings
from playwright.sync_api import Page, expect

from e2e.browser import PHONE_SIZE, TABLET_SIZE, BrowserTestCase

FOLDER = settings.ROOT / "docs" / "screenshots"


class PicturesTestCase(BrowserTestCase):
    def shoot(self, page: Page, name: str) -> None:
        page.mouse.move(2, 2)
        page.evaluate("document.fonts.ready")
        page.wait_for_timeout(300)
        page.screenshot(path=FOLDER / f"{name}.png", animations="disabled")


class DeskPictures(PicturesTestCase):
    def test_projects(self) -> None:
        page = self.open_project()
        page.get_by_label("New part").fill("6 bearers 2x6 44 1/2")
        expect(page.get_by_text("Enter adds it")).to_be_visible()
        page.get_by_label("Length of side slat").focus()
        page.get_by_label("New part").focus()
        self.shoot(page, "desk")
        page.get_by_role("button", name="Import").click()
        self.pick_file(page, "Part list file", "broken.parts.csv")
        expect(page.get_by_role("dialog")).to_contain_text("line 8")
        self.shoot(page, "import")
        page.keyboard.press("Escape")
        self.visit("List")
        expect(page.get_by_role("heading", name="What to buy")).to_be_visible()
        self.shoot(page, "list")
        self.visit("Projects")
        expect(page.get_by_role("heading", name="New project")).to_be_visible()
        self.shoot(page, "projects")

    def test_what_follows_and_is_drawn(self) -> None:
        page = self.open_project("Boardwalk")
        page.get_by_role("tab", name="Measures").click()
        page.get_by_role("region", name="run treads").get_by_role("button").first.click()
        expect(page.get_by_role("img", name="12 in a row along 1210 mm")).to_be_visible()
        self.shoot(page, "measures")
        self.visit("Projects")
        page.get_by_role("link", name="Rain-barrel stand").click()
        expect(page.locator("svg.board").first).to_be_visible()
        page.get_by_role("tab", name="Measures").click()
        page.get_by_role("button", name="end braces").click()
        self.choose(page.get_by_role("combobox", name="Shape"), "stand")
        expect(page.get_by_role("img", name="stand, front")).to_be_visible()
        self.shoot(page, "drawing")
        self.visit("Days")
        expect(page.locator("svg .work").first).to_be_visible(timeout=20_000)
        page.wait_for_timeout(4000)  # until all is worked out
        page.get_by_role("button", name="put it all together").click()
        expect(page.get_by_role("region", name="put it all together")).to_be_visible()
        self.shoot(page, "days")
        self.visit("Projects")
        page.get_by_role("link", name="Cold frame").click()
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible(timeout=40_000)
        page.get_by_role("heading", name="treated boards, ripped").scroll_into_view_if_needed()
        self.shoot(page, "desk-bevels")
        self.visit("Projects")
        page.get_by_role("link", name="Bin screen").click()
        expect(page.locator("svg.board").first).to_be_visible()
        page.emulate_media(color_scheme="dark")
        self.shoot(page, "desk-dark")

    def test_yards_sizes_and_rack(self) -> None:
        page = self.enter_demo()
        self.visit("Prices")
        page.get_by_role("link", name="Pike & Daughter").click()
        expect(page.get_by_role("searchbox", name="Find a stock")).to_be_visible()
        self.shoot(page, "yard")

        self.visit("Sizes")
        page.wait_for_url("**/sizes")
        expect(page.get_by_role("button", name="Find", exact=True)).to_be_visible()
        page.get_by_label("Thickness").fill("3/4")
        page.get_by_label("Width").fill("6 1/8")
        page.get_by_role("button", name="Find").click()
        expect(page.get_by_role("table")).to_be_visible()
        self.shoot(page, "sizes")
        page.get_by_role("link", name="Woods, treatments").click()
        form = page.locator("form.new")
        form.get_by_label("Name").fill("salvaged joist")
        form.get_by_label("Thickness").fill("1 7/8")
        form.get_by_label("Width").fill("6 3/4")
        form.get_by_label("Caution").fill("Look for nails before sawing.")
        form.get_by_role("button", name="Add it").click()
        expect(form.get_by_label("Name")).to_have_value("")
        self.shoot(page, "materials")
        self.visit("Rack")
        form = page.locator("form.new")
        for stock, length, place in (
            ("2x4 treated", "75", "left bay"),
            ("1x6 cedar", "62 1/2", "loft"),
            ("4x4 treated", "50", "left bay"),
        ):
            form.get_by_label("Stock").fill(stock)
            form.get_by_label("Length").fill(length)
            form.get_by_label("Place").fill(place)
            form.get_by_role("button", name="Lay it on").click()
            expect(form.get_by_label("Stock")).to_have_value("")
        page.get_by_role("button", name="Measure board 2").click()
        page.get_by_label("Crook of board 2").fill("1/2")
        page.get_by_label("Crook of board 2").press("Enter")
        expect(page.locator("p.change")).to_be_visible()
        self.shoot(page, "rack")
        self.visit("Tools")
        page.get_by_label("Crosscuts, square of miter saw").fill("12 1/4")
        page.get_by_label("Crosscuts, square of miter saw").press("Enter")
        expect(page.get_by_text("Crosscuts up to 12 1/4″")).to_be_visible()
        self.shoot(page, "tools")


class TabletPictures(PicturesTestCase):
    size = TABLET_SIZE

    def test_pictures(self) -> None:
        page = self.open_project("Cold frame")
        self.visit("Shop")
        page.get_by_role("button", name="Start cutting").click(timeout=40_000)
        expect(page.get_by_role("button", name="Miscut")).to_be_visible()
        while not page.get_by_text("tilted 45°").count():
            page.keyboard.press("ArrowRight")
        self.shoot(page, "shop-rip")
        page.goto(self.address("/projects"))
        page.get_by_role("link", name="Compost station").click()
        self.visit("Shop")
        page.get_by_role("button", name="Start cutting").click(timeout=40_000)
        for _ in range(3):
            page.get_by_role("button", name="The whole set-up is cut").click()
        for _ in range(2):
            page.get_by_role("button", name=re.compile("^Cut")).click()
        self.shoot(page, "shop")


class PhonePictures(PicturesTestCase):
    size = PHONE_SIZE

    def test_pictures(self) -> None:
        page = self.open_project()
        self.visit("List")
        expect(page.get_by_role("heading", name="What to buy")).to_be_visible()
        page.wait_for_timeout(300)
        self.shoot(page, "list-phone")
        page.get_by_role("link", name="To the yard").click()
        expect(page.get_by_role("checkbox", name="Bow")).to_be_visible()
        page.get_by_role("checkbox", name="Crook").click()
        page.get_by_role("tab", name="treated").click()
        for _ in range(2):
            page.get_by_role("button", name="Got 1 4x4 treated 8 ft").click()
        page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        page.get_by_role("button", name="1 of 5 2x4 treated 12 ft").click()
        page.get_by_role("button", name="Tag says").click()
        page.get_by_label("One 2x4 treated 12 ft").fill("8.70")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="No more of these").click()
        expect(page.get_by_text("Planned anew")).to_be_visible()
        self.shoot(page, "trip-phone")
        for tab in ("treated", "cedar"):
            page.get_by_role("tab", name=tab).click()
            while page.locator(".got:enabled").count():
                page.locator(".got:enabled").first.click()
                page.wait_for_timeout(60)
        page.get_by_role("tab", name="Till").click()
        page.set_viewport_size({"width": 1280, "height": 800})
        page.get_by_role("button", name="Paid").click()
        expect(page.get_by_role("heading", name="What was paid")).to_be_visible()
        self.shoot(page, "receipt")
