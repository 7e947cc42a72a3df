"""In the shop, on a tablet and a phone: set-ups, what goes wrong, and nothing lost."""

import json
import re
import uuid
from tempfile import mkdtemp

from playwright.sync_api import Page, expect

from carpentry.project import read_project_file
from e2e.accessibility import serious_anywhere
from e2e.browser import PHONE_SIZE, TABLET_SIZE, BrowserTestCase
from server.projects.api import project_from_file
from server.projects.models import Project
from server.shop.models import CuttingEvent
from server.tools.models import Toolbox


class ShopTestCase(BrowserTestCase):
    size = TABLET_SIZE

    def open_shop(self, called: str = "Compost station", page: Page | None = None) -> Page:
        page = page or self.page
        self.sign_in(page)
        page.goto(self.address(f"/projects/{Project.objects.get(name=called).id}/shop"))
        return page

    def go(self, called: str = "Compost station", page: Page | None = None) -> Page:
        page = self.open_shop(called, page)
        page.get_by_role("button", name="Start cutting").click()
        expect(page.get_by_role("button", name="Miscut")).to_be_visible()
        return page

    def at(self, page: Page, number: int) -> None:
        expect(page.get_by_role("status").filter(has_text=f"set-up {number} of")).to_be_visible()


class AtTheSawTest(ShopTestCase):
    def test_one_set_up_after_the_other_and_undone(self) -> None:
        page = self.go()
        self.at(page, 1)
        expect(page.get_by_text("To its line, away from the stop")).to_be_visible()
        expect(page.get_by_text("108″").first).to_be_visible()
        size = page.locator(".giant").evaluate("e => parseFloat(getComputedStyle(e).fontSize)")
        self.assertGreaterEqual(size, 96)
        page.get_by_role("button", name="Cut all 2, board 1").click()
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        page.reload()
        self.at(page, 1)
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        page.keyboard.press(" ")
        expect(page.get_by_role("button", name="Cut all 2, board 24")).to_be_visible()
        page.keyboard.press("Backspace")
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        page.get_by_role("button", name="The whole set-up is cut").click()
        self.at(page, 2)
        page.keyboard.press("ArrowRight")
        self.at(page, 3)
        page.keyboard.press("ArrowLeft")
        self.at(page, 2)

    def test_a_miscut_is_planned_around_and_undone(self) -> None:
        page = self.go()
        page.get_by_role("button", name="Miscut").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("How long is it now?").fill("109")
        dialog.get_by_role("button", name="Plan around it").click()
        told = page.get_by_role("alert").filter(has_text="take so much off at the same stop")
        expect(told).to_be_visible()
        told.get_by_role("button", name="Type it again").click()
        expect(dialog.get_by_label("How long is it now?")).to_have_value("109")
        dialog.get_by_label("How long is it now?").fill("107 1/2")
        dialog.get_by_role("button", name="Plan around it").click()
        told = page.get_by_role("status").filter(has_text="Planned anew")
        expect(told).to_contain_text("C1 comes from")
        told.get_by_role("button", name="Undo").click()
        expect(told).to_be_hidden()
        expect(page.get_by_role("button", name="Cut all 2, board 1")).to_be_visible()

    def test_without_a_connection_nothing_is_lost(self) -> None:
        page = self.go()
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        page.wait_for_function("navigator.serviceWorker.controller !== null")
        self.disconnect()
        page.get_by_role("button", name="Cut all 2, board 1").click()
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        page.get_by_role("button", name="Miscut").click()
        dialog = page.get_by_role("dialog")
        self.choose(dialog.get_by_label("What", exact=True), "Missing, bowed")
        dialog.get_by_role("button", name="Plan around it").click()
        expect(page.get_by_text("waits for the new plan")).to_be_visible()
        expect(page.get_by_role("button", name="Cut all 2, board 24")).to_be_visible()
        page.reload()
        expect(page.get_by_role("button", name="Cut all 2, board 24")).to_be_visible()
        self.assertEqual(CuttingEvent.objects.count(), 0)
        self.reconnect()
        told = page.get_by_role("status").filter(has_text="Planned anew")
        expect(told).to_contain_text(re.compile("comes? from"))
        self.assertEqual(CuttingEvent.objects.count(), 2)

    def test_a_press_survives_the_death_of_the_browser(self) -> None:
        folder = mkdtemp()
        context = self.profile(folder)
        page = self.go(page=self.new_page(context))
        page.evaluate("navigator.serviceWorker.ready.then(() => true)")
        self.disconnect(context)
        page.get_by_role("button", name="Cut all 2, board 1").click()
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        url = page.url
        self.kill(folder)
        self.reconnect()
        again = self.new_page(self.profile(folder))
        self.sign_in(again)
        again.goto(url)
        expect(again.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        expect(again.get_by_text("not sent")).to_be_hidden()
        self.assertEqual(CuttingEvent.objects.count(), 1)

    def test_two_devices_at_one_bench(self) -> None:
        page = self.go()
        other = self.new_page(self.new_context())
        self.open_shop(page=other)
        expect(other.get_by_role("button", name="Cut all 2, board 1")).to_be_visible()
        page.get_by_role("button", name="Cut all 2, board 1").click()
        expect(page.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        other.get_by_role("button", name="Cut all 2, board 1").click()
        expect(other.get_by_role("button", name="Cut all 2, board 2")).to_be_visible()
        expect(other.get_by_role("alert")).to_have_count(0)
        other.get_by_role("button", name="Cut all 2, board 2").click()
        other.reload()
        expect(other.get_by_role("button", name="Cut all 2, board 24")).to_be_visible()
        page.reload()
        expect(page.get_by_role("button", name="Cut all 2, board 24")).to_be_visible()

    def test_all_cut_and_put_away(self) -> None:
        page = self.go("Bin screen")
        for _ in range(40):
            whole = page.get_by_role("button", name=re.compile("whole set-up is cut|^Cut"))
            if page.get_by_text("All cut", exact=True).count():
                break
            before = page.locator("#main").inner_text()
            whole.first.click()
            self.until(lambda: page.locator("#main").inner_text() != before)  # noqa: B023
        expect(page.get_by_text("All cut", exact=True)).to_be_visible()
        page.get_by_role("button", name="Put away").click()
        page.get_by_role("button", name="Open it again").click()
        expect(page.get_by_role("button", name="Undo the last press")).to_be_visible()

    def test_the_rips_of_the_cold_frame_show_the_end_of_the_board(self) -> None:
        page = self.go("Cold frame")
        for _ in range(40):
            if page.get_by_text("tilted").count():
                break
            page.keyboard.press("ArrowRight")
        end = page.get_by_role("img", name=re.compile("The board’s end on the saw: fence on the"))
        expect(end).to_have_accessible_name(re.compile(r"blade tilted \d+° to the left"))
        self.assertEqual(serious_anywhere(page), [])

    def test_every_look_of_it_is_accessible(self) -> None:
        page = self.go()
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="set-ups").click()
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="On paper").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("sheets of labels").check()
        dialog.get_by_label("Each wide").fill("9")
        dialog.get_by_role("button", name="Labels").click()
        expect(dialog.get_by_text("wider than the paper")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        dialog.get_by_role("button", name="Close").click()
        page.get_by_role("button", name="set-ups").click()
        page.get_by_role("button", name="Miscut").click()
        expect(page.get_by_role("dialog").get_by_label("What", exact=True)).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])


ANGLED = {
    "format": "grain-tally/project@6",
    "name": "Angles",
    "unit": "in",
    "rip": False,
    "parts": [
        {"mark": "A", "quantity": "2", "stock": "2x4", "length": "20", "ends": "45 45"},
        {"mark": "B", "quantity": "2", "stock": "2x4", "length": "24", "ends": "30b 30b"},
        {"mark": "C", "quantity": "1", "stock": "2x4", "length": "24", "ends": "30 tilt 15, 0"},
        {
            "mark": "D",
            "quantity": "1",
            "stock": "2x4",
            "length": "22",
            "notches": "1 x 2 at top, 4 from left",
        },
    ],
}


class AnglesTest(ShopTestCase):
    """A miter, a bevel, an end at two angles and a notch, as they are drawn."""

    def test_every_kind_of_cut_is_drawn_and_told(self) -> None:
        demo = Project.objects.get(name="Compost station")
        told = read_project_file(json.dumps(ANGLED | {"yard": demo.yard.name}))
        project_from_file(demo.owner, told, uuid.uuid4())
        page = self.go("Angles")
        wanted = {
            "long point against the stop": 0,
            "seen from above and from the front": 2,
            "at two angles": 2,
            "notch, lines through": 0,
        }
        for _ in range(12):
            names = " ".join(
                one.get_attribute("aria-label") or "" for one in page.get_by_role("img").all()
            )
            for said in [one for one in wanted if one in names]:
                if wanted.pop(said):
                    self.assertEqual(serious_anywhere(page), [])
            if not wanted:
                break
            before = page.locator("#main").inner_text()
            page.get_by_role("button", name=re.compile("^Cut")).click()
            self.until(lambda: page.locator("#main").inner_text() != before)  # noqa: B023
        self.assertEqual(wanted, {})


class OnAPhoneTest(ShopTestCase):
    size = PHONE_SIZE

    def test_a_phone_beside_the_saw(self) -> None:
        page = self.go()
        wide = page.evaluate("document.documentElement.scrollWidth")
        self.assertLessEqual(wide, PHONE_SIZE[0])
        for name in ("Cut all 2, board 1", "Miscut", "Undo", "Next ›"):
            box = page.get_by_role("button", name=name).bounding_box()
            assert box
            self.assertGreaterEqual(box["height"], 48)


class ToolsTest(BrowserTestCase):
    def test_tools_are_typed_refused_and_undone(self) -> None:
        page = self.page
        self.sign_in(page)
        page.goto(self.address("/tools"))
        cell = page.get_by_label("Crosscuts, square of miter saw")
        cell.fill("-12")
        cell.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("less than nothing")
        cell.fill("8 1/2")
        cell.press("Enter")
        expect(page.get_by_text("Crosscuts up to 8 1/2″")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("Crosscuts up to 12″")).to_be_visible()
        self.choose(page.get_by_label("One more"), "sled")
        expect(page.locator(".v-select__selection-text").filter(has_text="sled")).to_be_visible()
        page.get_by_role("button", name="Add it").click()
        expect(page.get_by_label("Holds, wide of sled")).to_be_visible()
        self.assertEqual(Toolbox.objects.get().tools.count(), 7)
