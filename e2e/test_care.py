"""Nothing typed is lost, everything works by keyboard, and on a small window."""

from contextlib import suppress

from django.contrib.sessions.models import Session
from playwright.sync_api import APIResponse, Page, Route, expect
from playwright.sync_api import Error as PlaywrightError

from e2e.accessibility import DRAWN, EVERY_LOOK, LOOKS, Look, serious_anywhere
from e2e.browser import PHONE_SIZE, BrowserTestCase
from server.projects.models import Project


class NothingLostTest(BrowserTestCase):
    def test_a_wrong_length_stays_in_its_field_even_after_a_reload(self) -> None:
        page = self.open_project()
        length = page.get_by_label("Length of back rail")
        length.fill("9 feet or so")
        length.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("a number is expected here (column 8)")
        page.reload()
        length = page.get_by_label("Length of back rail")
        expect(length).to_have_value("9 feet or so")
        expect(page.get_by_text("not taken: =overall is used")).to_be_visible()
        length.focus()
        length.press("Escape")
        expect(length).to_have_value("=overall")
        expect(page.get_by_text("not taken")).to_have_count(0)

    def test_an_unfinished_line_survives_a_reload(self) -> None:
        page = self.open_project()
        page.get_by_label("New part").fill("6 bearers 2x6")
        expect(page.get_by_text("a length is missing")).to_be_visible()
        page.reload()
        expect(page.get_by_label("New part")).to_have_value("6 bearers 2x6")

    def test_a_conflict_keeps_what_was_typed(self) -> None:
        page = self.open_project()
        other = self.new_page(self.context)
        other.goto(page.url)
        theirs = other.get_by_label("Length of skid")
        theirs.fill("40")
        theirs.press("Enter")
        expect(other.locator("p.change")).to_contain_text("→ 40")
        mine = page.get_by_label("Length of skid")
        mine.fill("41")
        mine.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("changed elsewhere")
        expect(mine).to_have_value("41")
        mine.press("Enter")
        expect(page.locator("p.change")).to_contain_text("40 → 41")

    def test_a_lost_connection_is_waited_out(self) -> None:
        page = self.open_project()
        self.disconnect()
        length = page.get_by_label("Length of skid")
        length.fill("41")
        length.press("Enter")
        expect(page.get_by_text("No connection.")).to_be_visible()
        self.reconnect()
        expect(page.locator("p.change")).to_contain_text("→ 41")
        skid = Project.objects.get(name="Compost station").parts.get(name="skid")
        self.assertEqual(skid.length, "41")

    def test_an_answer_that_comes_late_takes_nothing_back(self) -> None:
        page = self.open_project()
        length = page.get_by_label("Length of skid")
        before = length.input_value()
        length.fill("41")
        length.press("Enter")
        expect(page.locator("p.change strong")).to_be_visible()
        held: list[tuple[Route, APIResponse]] = []
        page.route("**/api/projects/*", lambda route: held.append((route, route.fetch())), times=1)
        page.clock.install()
        page.clock.fast_forward("00:30")
        page.evaluate("window.dispatchEvent(new Event('visibilitychange'))")
        self.until(lambda: held)  # the project is asked for once more
        page.keyboard.press("Control+z")
        expect(length).to_have_value(before)
        for route, answer in held:
            with suppress(PlaywrightError):  # nobody waits for it any more
                route.fulfill(response=answer)
        page.evaluate(DRAWN)
        expect(length).to_have_value(before)
        page.keyboard.press("Control+Shift+z")
        expect(length).to_have_value("41")

    def test_nothing_is_claimed_of_a_change_before_it_is_planned(self) -> None:
        page = self.open_project()
        proven = page.get_by_text("No cheaper purchase exists")
        expect(proven).to_be_visible()
        held: list[Route] = []

        def hold_the_first(route: Route) -> None:
            if held:
                route.abort()
            held.append(route)

        page.route("**/api/projects/*/plans", hold_the_first)
        length = page.get_by_label("Length of skid")
        length.fill("41")
        length.press("Enter")
        expect(page.get_by_text("Planning what was changed")).to_be_visible()
        expect(proven).to_be_hidden()
        held[0].abort()
        expect(page.get_by_text("No plan could be made")).to_be_visible()
        page.unroute("**/api/projects/*/plans")
        page.get_by_role("button", name="Try again").click()
        expect(proven).to_be_visible()

    def test_an_ended_session_is_signed_in_to_again(self) -> None:
        page = self.open_project()
        Session.objects.all().delete()
        length = page.get_by_label("Length of skid")
        length.fill("41")
        length.press("Enter")
        page.get_by_role("button", name="Enter the demo workshop again").click()
        expect(page.locator("p.change")).to_contain_text("→ 41")

    def test_an_address_of_nobody(self) -> None:
        page = self.enter_demo()
        page.goto(self.address("/projects/00000000-0000-4000-8000-000000000000"))
        expect(page.get_by_text("Nothing at this address")).to_be_visible()


class KeyboardTest(BrowserTestCase):
    def test_the_desk_without_a_mouse(self) -> None:
        page = self.open_project()
        page.keyboard.press("n")
        page.keyboard.type("2 cleats 2x4 treated 14")
        page.keyboard.press("Enter")
        expect(page.get_by_label("Length of cleats")).to_have_value("14")
        page.keyboard.press("Escape")
        added = page.locator("[data-part].selected")
        expect(added).to_contain_text("cleats")
        expect(added).to_be_in_viewport()
        page.keyboard.press("k")
        expect(page.locator("[data-part].selected")).not_to_contain_text("cleats")
        page.keyboard.press("j")
        page.keyboard.press("e")
        expect(page.get_by_label("Length of cleats")).to_be_focused()
        page.keyboard.type("13")
        page.keyboard.press("Enter")
        expect(page.locator("p.change")).to_contain_text("length 14 → 13")
        page.keyboard.press("Control+z")
        expect(page.get_by_label("Length of cleats")).to_have_value("14")
        page.keyboard.press("Control+Shift+z")
        expect(page.get_by_label("Length of cleats")).to_have_value("13")
        page.keyboard.press("x")
        expect(page.get_by_label("Length of cleats")).to_have_count(0)
        page.keyboard.press("?")
        dialog = page.get_by_role("dialog")
        expect(dialog).to_contain_text("Ctrl Shift Z")
        dialog.get_by_role("button", name="Close").press("Enter")
        expect(dialog).to_have_count(0)
        page.keyboard.press("l")
        expect(page.get_by_role("heading", name="What to buy")).to_be_visible()

    def test_part_board_and_list_light_one_another(self) -> None:
        page = self.open_project()
        page.mouse.move(800, 690)
        page.get_by_label("Length of cross tie").focus()
        lit = page.locator("svg.board .piece.lit")
        self.assertEqual(lit.count(), 4)
        page.locator("svg.board .piece").first.hover()
        row = page.locator("[data-part].lit")
        expect(row).to_have_count(1)
        expect(row.get_by_label("Name of back rail")).to_have_count(1)


class AccessibleTest(BrowserTestCase):
    maxDiff = None

    def look(self, called: str, looks: tuple[Look, ...] = LOOKS) -> None:
        self.assertEqual("\n".join(serious_anywhere(self.page, looks=looks)), "", called)

    def look_into(self, menu: str) -> None:
        """Opens a menu anew for every look, because it closes when the window changes."""
        button = self.page.get_by_role("button", name=menu)
        faults = serious_anywhere(
            self.page, button.click, lambda: self.page.keyboard.press("Escape")
        )
        self.assertEqual("\n".join(faults), "", menu)

    def test_the_way_in_and_the_account(self) -> None:
        page = self.page
        page.goto(self.address())
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.look("sign-in")
        page.get_by_role("button", name="Enter the demo workshop").click()
        expect(page.get_by_role("heading", name="Projects")).to_be_visible()
        page.goto(self.address("/account"))
        expect(page.get_by_role("heading", name="The demo workshop")).to_be_visible()
        self.look("account")

    def test_the_desk(self) -> None:
        page = self.open_project()
        self.look("desk", EVERY_LOOK)
        page.get_by_label("New part").fill("6 bearers 2x13 44")
        expect(page.get_by_text("no board is called")).to_be_visible()
        page.get_by_role("button", name="A, details of upright").click()
        self.look("desk with a fault, and details")
        page.get_by_label("New part").fill("")
        page.get_by_role("tab", name="Joints and hardware").click()
        expect(page.get_by_label("Joints, one a line")).to_be_visible()
        self.look("joints")

    def test_menus_and_dialogs(self) -> None:
        page = self.open_project()
        for menu in ("Workshop", "Take away"):
            self.look_into(menu)
        page.get_by_role("button", name="Keys").click()
        expect(page.get_by_role("dialog", name="Keys")).to_be_visible()
        self.look("keys")
        page.keyboard.press("Escape")
        page.get_by_role("button", name="No cheaper purchase exists").click()
        proof = page.get_by_role("dialog", name="The proof")
        expect(proof).to_contain_text("No boards under $41.80 hold")
        self.look("proof")
        proof.get_by_role("button", name="Close").press("Enter")
        expect(proof).to_have_count(0)
        page.get_by_role("button", name="Tallow Street Yard").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        page.get_by_label("Kerf").fill("1/4")
        page.get_by_role("button", name="Cancel").click()
        expect(page.get_by_text("What you typed is not saved")).to_be_visible()
        self.look("settings", EVERY_LOOK)
        page.get_by_role("button", name="Let it go").click()
        page.get_by_role("button", name="Import").click()
        self.pick_file(page, "Part list file", "broken.parts.csv")
        expect(page.get_by_role("dialog")).to_contain_text("line 8")
        self.look("import")

    def test_every_other_place(self) -> None:
        self.open_project()
        page = self.page
        for place, heading in (
            ("List", "What to buy"),
            ("Projects", "Projects"),
            ("Sizes", "Size book"),
            ("Rack", "Rack"),
            ("Materials", "Materials"),
            ("Prices", "Yards"),
        ):
            self.visit(place)
            expect(page.get_by_role("heading", name=heading, exact=True)).to_be_visible()
            if place == "Sizes":  # a few of them look as all do
                of_boards = page.get_by_text("1x4", exact=True)
                expect(of_boards).to_be_visible()
                page.get_by_role("searchbox").fill("2x")
                expect(of_boards).to_have_count(0)
            self.look(place)
        page.get_by_role("link", name="Tallow Street Yard").click()
        expect(page.get_by_role("searchbox", name="Find a stock")).to_be_visible()
        self.look("yard", EVERY_LOOK)


class PhoneTest(BrowserTestCase):
    size = PHONE_SIZE

    def sideways(self, page: Page) -> int:
        """The most that the page scrolls sideways on a phone, or on a narrow one."""
        found = []
        for width in (360, PHONE_SIZE[0]):
            page.set_viewport_size({"width": width, "height": PHONE_SIZE[1]})
            found.append(super().sideways(page))
        return max(found)

    def test_a_long_list_scrolls_within_itself(self) -> None:
        page = self.open_project()
        entry = page.get_by_label("New part")
        entry.fill("\n".join(f"1 batten{n} 1x2 cedar {12 + n % 50}" for n in range(160)))
        entry.press("Enter")
        expect(page.get_by_label("Length of batten159")).to_be_in_viewport()
        self.assertLess(page.locator("[data-part]").count(), 60)
        expect(entry).to_be_in_viewport()
        entry.fill("6 bearers 2x13 44")
        expect(page.get_by_text("no board is called")).to_be_in_viewport()

    def test_no_screen_scrolls_sideways(self) -> None:
        page = self.page
        page.goto(self.address())
        expect(page.get_by_role("button", name="Sign in")).to_be_visible()
        self.assertEqual(self.sideways(page), 0, "sign-in")
        self.open_project()
        self.assertEqual(self.sideways(page), 0, "desk")
        page.get_by_label("New part").fill("6 bearers 2x13 44")
        expect(page.get_by_text("no board is called")).to_be_visible()
        self.assertEqual(self.sideways(page), 0, "desk with a fault")
        yard = "Tallow Street Yard"
        yard = "Tallow Street Yard"
        for link in ("List", "Projects", "Sizes", "Rack", "Materials", "Prices", yard):
            if link == yard:
                page.get_by_role("link", name=link).click()
            else:
                self.visit(link)
            page.wait_for_load_state("networkidle")
            if link == yard:
                expect(page.get_by_role("region", name="Price list")).to_be_visible()
            self.assertEqual(self.sideways(page), 0, link)
        page.goto(self.address("/account"))
        page.wait_for_load_state("networkidle")
        self.assertEqual(self.sideways(page), 0, "account")
