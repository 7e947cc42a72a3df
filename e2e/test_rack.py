"""The rack, measuring, real sizes and the yard's price service, by hand."""

import subprocess
import sys

from django.conf import settings
from django.test import override_settings
from playwright.sync_api import expect

from e2e.accessibility import serious_anywhere
from e2e.browser import BrowserTestCase


class RackTest(BrowserTestCase):
    def open_rack(self) -> None:
        self.enter_demo()
        self.visit("Rack")
        expect(self.page.get_by_role("heading", name="Rack")).to_be_visible()

    def lay_on(self, stock: str, length: str) -> None:
        page = self.page
        page.get_by_label("Stock", exact=True).fill(stock)
        page.get_by_label("Length", exact=True).fill(length)
        page.get_by_role("button", name="Lay it on").click()
        expect(page.locator("p.change")).to_contain_text(f"{stock} {length}")

    def test_a_board_is_measured_with_the_digital_tape(self) -> None:
        self.open_rack()
        page = self.page
        self.lay_on("2x6 treated", "70")
        page.get_by_role("button", name="Workshop").click()
        page.get_by_text("Digital tape").click()
        panel = page.get_by_role("complementary", name="Digital tape, simulated")
        expect(panel.get_by_role("button", name="Send")).to_be_disabled()
        page.get_by_role("button", name="Measure board 1").click()
        page.get_by_label("Width, marked end of board 1").focus()
        panel.get_by_role("button", name="−1⁄64").click()
        panel.get_by_role("button", name="Send").click()
        expect(page.get_by_label("Width, middle of board 1")).to_be_focused()
        page.keyboard.press("Alt+Enter")
        expect(page.locator("tbody")).to_contain_text("measured")
        expect(page.get_by_label("Width, middle of board 1")).to_have_value("5 27/64in")
        expect(page.locator("[data-dirty]")).to_have_count(0)
        self.assertEqual(serious_anywhere(page), [])
        page.reload()
        page.get_by_role("link", name="Board 1 alone").click()
        expect(page.get_by_label("Width, marked end of board 1")).to_have_value("5 27/64in")
        expect(page.get_by_role("link", name="The whole rack")).to_be_visible()
        page.reload()
        expect(page.get_by_label("Width, middle of board 1")).to_have_value("5 27/64in")

    def test_millimetres_from_the_tape_and_a_reading_that_cannot_be(self) -> None:
        self.open_rack()
        page = self.page
        self.lay_on("2x4", "70")
        page.get_by_role("button", name="Workshop").click()
        page.get_by_text("Digital tape").click()
        page.get_by_role("button", name="Measure board 1").click()
        page.get_by_role("button", name="Read in millimetres").click()
        page.get_by_label("Thickness of board 1").focus()
        page.get_by_role("button", name="Send").click()
        expect(page.get_by_role("alert").first).to_contain_text("far from what the name says")
        expect(page.get_by_label("Thickness of board 1")).to_have_value("138.5mm")

    def test_a_plan_is_marked_cut_and_taken_back(self) -> None:
        page = self.open_project()
        page.get_by_role("button", name="Mark as cut").click()
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("1x2 cedar")
        dialog.get_by_role("button", name="They are cut").click()
        expect(page.get_by_text("Offcuts worth keeping are on the rack")).to_be_visible()
        self.visit("Rack")
        expect(page.locator("tbody tr").first).to_contain_text("28¼″".replace("¼", "1⁄4"))
        count = page.locator("tbody tr").count()
        self.assertGreater(count, 5)
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("tbody tr")).to_have_count(0)
        page.get_by_role("button", name="Redo").click()
        expect(page.locator("tbody tr")).to_have_count(count)
        self.visit("Desk")
        page.get_by_role("button", name="Not cut after all").click()
        expect(page.get_by_role("button", name="Mark as cut")).to_be_visible()
        self.visit("Rack")
        expect(page.get_by_text("Nothing on the rack yet")).to_be_visible()


class CorrectedSizeTest(BrowserTestCase):
    def test_parts_that_a_size_changes_are_listed_before_it_is_applied(self) -> None:
        page = self.enter_demo()
        self.visit("Prices")
        page.get_by_role("link", name="Tallow Street Yard").click()
        width = page.get_by_label("Real width of 2x4 treated 8 ft")
        width.fill("3 7/16")
        width.press("Enter")
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("upright")
        expect(dialog).to_contain_text("Bin screen")
        dialog.get_by_role("button", name="Leave it").click()
        expect(page.get_by_role("alert")).to_contain_text("not applied")
        width.press("Escape")
        expect(width).to_have_value("")
        width.fill("3 7/16")
        width.press("Enter")
        dialog.get_by_role("button", name="Apply the size").click()
        expect(page.locator("p.change")).to_contain_text("changed")
        self.visit("Projects")
        page.get_by_role("link", name="Compost station").click()
        size = page.locator("[data-mark=A] .section .section")
        size.hover()
        expect(page.get_by_role("tooltip").first).to_contain_text("Tallow Street Yard")


class AskTheYardTest(BrowserTestCase):
    def setUp(self) -> None:
        super().setUp()
        service = subprocess.Popen(
            [sys.executable, "-m", "yardservice", "--port", "0"],
            stdout=subprocess.PIPE,
            text=True,
            cwd=settings.ROOT,
        )
        assert service.stdout
        address = service.stdout.readline().split()[-1]
        self.service = service
        self.addCleanup(service.stdout.close)
        self.addCleanup(service.wait)
        self.addCleanup(service.kill)
        asked_at = override_settings(PRICE_SERVICES={"simulated yard": address})
        asked_at.enable()
        self.addCleanup(asked_at.disable)

    def test_what_is_ticked_is_taken_and_a_dead_service_changes_nothing(self) -> None:
        page = self.enter_demo()
        self.visit("Prices")
        page.get_by_role("link", name="Tallow Street Yard").click()
        page.get_by_role("button", name="Ask the yard").click()
        dialog = page.get_by_role("dialog")
        expect(dialog.get_by_text("Nothing is changed until you take it")).to_be_visible()
        price = page.get_by_label("Price of 2x4 treated 8 ft")
        expect(price).to_have_value("5.18")
        dialog.get_by_label("Take 2x4 treated 10ft").uncheck()
        dialog.get_by_role("button", name="Take ").click()
        expect(page.locator("p.change")).to_contain_text("taken from simulated yard")
        expect(price).not_to_have_value("5.18")
        expect(page.get_by_label("Price of 2x4 treated 10 ft")).to_have_value("7.04")
        self.service.kill()
        self.service.wait()
        page.get_by_role("button", name="Ask the yard").click()
        expect(dialog).to_contain_text("the price service is down; no price is changed")
        dialog.get_by_role("button", name="Leave all as it is").click()
        page.get_by_role("button", name="Undo").click()
        expect(price).to_have_value("5.18")


class OwnMaterialTest(BrowserTestCase):
    def test_a_material_of_ones_own_is_planned_by_its_own_size(self) -> None:
        page = self.enter_demo()
        self.visit("Sizes")
        page.get_by_role("link", name="Woods, treatments").click()
        form = page.locator("form.new")
        form.get_by_label("Name").fill("2x4 old")
        form.get_by_label("Thickness").fill("3 1/4")
        form.get_by_label("Width").fill("5")
        form.get_by_role("button", name="Add it").click()
        expect(form).to_contain_text("begins with a letter")
        form.get_by_label("Name").fill("Barn beam")
        form.get_by_role("button", name="Add it").click()
        expect(page.get_by_text("Barn beam added")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        self.visit("Projects")
        page.get_by_role("link", name="Compost station").click()
        entry = page.get_by_label("New part")
        entry.fill("2 sill barn beam 44")
        expect(page.get_by_text("Enter adds it")).to_be_visible()
        entry.press("Enter")
        row = page.locator("[data-mark=I]")
        expect(row).to_contain_text("barn beam")
        row.get_by_role("button").first.click()
        expect(row).to_contain_text("one weighs")
