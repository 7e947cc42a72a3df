"""At the yard, on a phone."""

import re
from tempfile import mkdtemp

from playwright.sync_api import Locator, Page, expect

from e2e.accessibility import serious_anywhere
from e2e.browser import PHONE_SIZE, BrowserTestCase
from server.trips.models import TripEvent


class YardTestCase(BrowserTestCase):
    size = PHONE_SIZE

    def go(self, page: Page | None = None, tab: str = "treated") -> Page:
        page = page or self.page
        self.enter_demo(page)
        page.get_by_role("link", name="Compost station").click()
        self.visit("Yard", page)
        page.get_by_role("tab", name=tab).click()
        return page

    def line(self, page: Page, called: str) -> Locator:
        named = re.compile(rf"of \d+ {called}")
        return page.get_by_role("listitem").filter(has=page.get_by_role("button", name=named))

    def left(self, page: Page, called: str, left: int, of: int) -> None:
        expect(page.get_by_role("button", name=f"{of - left} of {of} {called}")).to_be_visible()


class AtTheYardTest(YardTestCase):
    def test_ticks_count_down_and_survive_a_reload(self) -> None:
        page = self.go()
        self.left(page, "2x4 treated 12 ft", 5, 5)
        page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.left(page, "2x4 treated 12 ft", 4, 5)
        page.reload()
        self.left(page, "2x4 treated 12 ft", 4, 5)
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="1 of 5").click()
        page.get_by_role("button", name="Put 1 back").click()
        self.left(page, "2x4 treated 12 ft", 5, 5)
        page.get_by_role("button", name="Got all 5").click()
        expect(page.get_by_role("button", name="2x4 treated 12 ft: all got")).to_be_disabled()
        page.evaluate(
            "[...document.querySelectorAll('.got')].filter(b => b.innerText === 'Got 1')"
            ".forEach(b => { for (let n = 0; n < 9; n++) b.click() })"
        )
        expect(page.get_by_role("button", name="4x4 treated 8 ft: all got")).to_be_disabled()
        expect(page.get_by_role("status").filter(has_text="7 of 63")).to_be_visible()
        expect(page.get_by_text("put them back")).to_be_hidden()

    def test_without_a_connection_nothing_is_lost(self) -> None:
        page = self.go()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        self.disconnect()
        for _ in range(2):
            page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.left(page, "2x4 treated 12 ft", 3, 5)
        expect(page.get_by_text("2 kept here, not sent yet")).to_be_visible()
        expect(page.get_by_text("No connection.")).to_be_visible()
        page.reload()
        self.left(page, "2x4 treated 12 ft", 3, 5)
        self.assertEqual(TripEvent.objects.count(), 0)
        self.reconnect()
        expect(page.get_by_text("No connection.")).to_be_hidden()
        expect(page.get_by_text("not sent yet")).to_be_hidden()
        self.left(page, "2x4 treated 12 ft", 3, 5)
        self.assertEqual(TripEvent.objects.filter(kind="took").count(), 2)

    def test_without_a_connection_a_line_and_the_money_follow(self) -> None:
        page = self.go()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        load = page.get_by_label("The load")
        whole = load.locator(".figure").first.inner_text()
        self.disconnect()
        page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="1 of 5").click()
        page.get_by_role("button", name="No more of these").click()
        self.left(page, "2x4 treated 12 ft", 0, 1)
        expect(load).to_contain_text("as this phone knows; not planned yet")
        expect(load.locator(".figure").first).to_contain_text("≈ $")
        self.assertNotEqual(load.locator(".figure").first.inner_text(), f"≈ {whole}")
        expect(load.locator(".figure").nth(1)).not_to_have_text("≈ $0.00")
        self.reconnect()
        expect(page.get_by_role("status").filter(has_text="Planned anew")).to_be_visible(
            timeout=15_000
        )
        expect(load).not_to_contain_text("≈")

    def test_a_phone_on_the_same_network_without_tls(self) -> None:
        """Addresses other than localhost are no secure context: these are not there."""
        self.context.add_init_script(
            "delete Crypto.prototype.randomUUID; delete Navigator.prototype.serviceWorker"
        )
        page = self.go(self.new_page(self.context))
        page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.left(page, "2x4 treated 12 ft", 4, 5)
        page.reload()
        self.left(page, "2x4 treated 12 ft", 4, 5)

    def test_none_of_these_is_planned_around_and_undone(self) -> None:
        page = self.go()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="0 of 5").click()
        page.get_by_role("button", name="None of these").click()
        told = page.get_by_role("status").filter(has_text="Planned anew")
        expect(told).to_contain_text("instead of 5 × 2x4 treated 12 ft")
        self.left(page, "2x4 treated 12 ft", 0, 0)
        told.get_by_role("button", name="Undo").click()
        self.left(page, "2x4 treated 12 ft", 5, 5)

    def test_only_a_few_of_them(self) -> None:
        page = self.go()
        for _ in range(2):
            page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="2 of 5").click()
        page.get_by_role("button", name="Only a few").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Good ones").fill("a few")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("write a whole number")).to_be_visible()
        dialog.get_by_label("Good ones").fill("1")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_role("alert")).to_contain_text(
            "2 of these are ticked already: put 1 back first, or count them in"
        )
        page.get_by_role("alert").get_by_role("button", name="I see").click()
        page.get_by_role("button", name="Only a few").click()
        dialog.get_by_label("Good ones").fill("3")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("1 left there")).to_be_visible()
        self.left(page, "2x4 treated 12 ft", 1, 3)

    def test_the_tag_goes_before_the_list(self) -> None:
        page = self.go()
        total = page.get_by_label("The load").locator(".figure").first
        before = total.inner_text()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="0 of 5").click()
        page.get_by_role("button", name="Tag says").click()
        page.get_by_label("One 2x4 treated 12 ft").fill("9.36")
        page.keyboard.press("Enter")
        expect(page.get_by_text("tag $9.36, list $8.36")).to_be_visible()
        expect(total).not_to_have_text(before)

    def test_a_board_that_is_measured(self) -> None:
        page = self.go()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="0 of 5").click()
        page.get_by_role("button", name="This one measures").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("length").fill("9ft")
        dialog.get_by_label("bow").fill("1/2")
        dialog.get_by_label("rocks on its corners").check()
        dialog.get_by_role("button", name="Keep it").click()
        expect(page.get_by_role("alert")).to_contain_text("twisted: rejected")
        page.get_by_role("button", name="This one measures").click()
        expect(dialog.get_by_label("length")).to_have_value("9ft")
        dialog.get_by_label("rocks on its corners").uncheck()
        dialog.get_by_role("button", name="Keep it").click()
        expect(page.get_by_text("bow 1/2")).to_be_visible()
        self.left(page, "2x4 treated 12 ft", 3, 4)
        self.left(page, "2x4 treated 16 ft", 1, 1)
        page.get_by_role("button", name="Take back").click()
        self.left(page, "2x4 treated 12 ft", 5, 5)

    def test_bought_paid_and_learned(self) -> None:
        page = self.go()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="0 of 5").click()
        page.get_by_role("button", name="Tag says").click()
        page.get_by_label("One 2x4 treated 12 ft").fill("9.36")
        page.keyboard.press("Enter")
        page.get_by_role("button", name="Got all 5").click()
        page.get_by_role("tab", name="hardware").click()
        page.get_by_role("button", name="Got 1 carriage bolt 3 1/2″, pack of 10").click()
        page.get_by_role("tab", name="Till").click()
        expect(page.get_by_text("2 × 4x4 treated 8 ft")).to_be_visible()
        page.get_by_role("button", name="Paid: to the receipt").click()
        expect(page.get_by_role("heading", name="What was paid")).to_be_visible()
        self.assertEqual(self.sideways(page), 0)
        price = page.get_by_label("Price paid for one, 2x4 treated 12 ft")
        price.fill("dear")
        price.press("Enter")
        expect(page.get_by_text("“dear” is no amount of money")).to_be_visible()
        price.fill("9.46")
        price.press("Enter")
        expect(page.get_by_text("+$5.50")).to_be_visible()
        page.get_by_role("button", name="Write 1 price into the list").click()
        page.get_by_role("status").get_by_role("link", name="the list").click()
        page.get_by_role("searchbox", name="Find a stock").fill("2x4 treated")
        expect(page.get_by_label("Price of 2x4 treated 12 ft")).to_have_value("9.46")
        self.visit("Desk")
        self.visit("List")
        drawer = page.get_by_role("region", name="Hardware")
        expect(drawer.get_by_role("row", name="carriage bolt 3")).to_contain_text(
            "10 in the drawer"
        )
        page.get_by_role("link", name="Tallow Street Yard,").click()
        page.get_by_role("button", name="Back to the yard").click()
        page.get_by_role("tab", name="treated").click()
        expect(page.get_by_text("changed at the desk")).to_be_hidden()
        expect(page.get_by_role("button", name="2x4 treated 12 ft: all got")).to_be_visible()

    def test_for_fingers_and_for_everybody(self) -> None:
        page = self.go()
        self.line(page, "2x4 treated 12 ft").get_by_role("button", name="0 of 5").click()
        for tab in ("Checks", "treated", "hardware", "Till"):
            page.get_by_role("tab", name=tab).click()
            self.assertEqual(self.sideways(page), 0, tab)
            self.assertEqual(serious_anywhere(page), [], tab)
            small = page.evaluate(
                "[...document.querySelectorAll('button, a[href]')]"
                ".map(b => [b.innerText, b.getBoundingClientRect()])"
                ".filter(([_, r]) => r.width && r.height < 48).map(([text]) => text)"
            )
            self.assertEqual([text for text in small if text != "To the page"], [], tab)
        page.get_by_role("tab", name="Checks").click()
        check = page.get_by_role("checkbox", name="Bow")
        check.focus()
        page.keyboard.press("Space")
        expect(check).to_be_checked()
        page.reload()
        expect(page.get_by_role("checkbox", name="Bow")).to_be_checked()

    def test_called_off(self) -> None:
        page = self.go(tab="Till")
        page.get_by_role("button", name="Call the trip off").click()
        page.get_by_role("button", name="Call it off").click()
        expect(page.get_by_role("heading", name="What to buy")).to_be_visible()

    def test_a_project_without_a_yard(self) -> None:
        page = self.enter_demo()
        page.get_by_label("What do you build?").fill("Barrel stand")
        page.get_by_role("button", name="Start").click()
        self.visit("Yard")
        expect(page.get_by_role("alert")).to_contain_text("choose a yard first")
        self.assertEqual(serious_anywhere(page), [])
        self.choose(page.get_by_label("Which yard do you go to?"), "A new yard")
        page.get_by_label("Name of the yard").fill("Mill Lane")
        page.get_by_role("button", name="Make it").click()
        expect(page.get_by_role("alert")).to_contain_text("there is nothing to buy")
        self.visit("Desk")
        expect(page.get_by_role("button", name="Mill Lane")).to_be_visible()


class CrashTest(YardTestCase):
    """A browser that is killed the moment a tick is shown as done."""

    def test_ticks_survive(self) -> None:
        folder = mkdtemp()
        context = self.profile(folder)
        page = self.go(self.new_page(context))
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        self.disconnect(context)
        page.get_by_role("button", name="Got 1 2x4 treated 12 ft").click()
        self.left(page, "2x4 treated 12 ft", 4, 5)
        url = page.url
        self.kill(folder)
        self.reconnect()
        again = self.new_page(self.profile(folder))
        self.enter_demo(again)
        again.goto(url)
        again.get_by_role("tab", name="treated").click()
        self.left(again, "2x4 treated 12 ft", 4, 5)
        expect(again.get_by_text("not sent yet")).to_be_hidden()
        self.assertEqual(TripEvent.objects.filter(kind="took").count(), 1)
