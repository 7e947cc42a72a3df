"""The days of a project: what is next, what waits, when to begin, and what happened."""

import re

from playwright.sync_api import Page, expect

from e2e.accessibility import serious_anywhere
from e2e.browser import PHONE_SIZE, BrowserTestCase
from server.days.models import StepEvent
from server.projects.models import Project


class DaysTestCase(BrowserTestCase):
    def open_days(self, called: str = "Cold frame", page: Page | None = None) -> Page:
        page = page or self.page
        self.sign_in(page)
        page.goto(self.address(f"/projects/{Project.objects.get(name=called).id}/days"))
        return page

    def go(self, called: str = "Cold frame") -> Page:
        page = self.open_days(called)
        expect(page.locator("svg .work").first).to_be_visible()
        return page


class DaysPageTest(DaysTestCase):
    def test_a_step_is_begun_checked_done_and_taken_back(self) -> None:
        page = self.go()
        expect(page.get_by_role("heading", level=1)).to_contain_text("min of work, ")
        page.get_by_role("button", name="cut the parts of the box").click()
        card = page.get_by_role("region", name="cut the parts of the box")
        card.get_by_role("button", name="Begin").click()
        expect(page.get_by_text("Now: cut the parts of the box")).to_be_visible()
        card.get_by_label("how far it is off").fill("1/4")
        card.get_by_role("button", name="Note it").click()
        expect(card.get_by_role("alert")).to_contain_text("set the stop again")
        page.reload()
        page.get_by_role("button", name="cut the parts of the box").click()
        expect(card.get_by_text("answered 1/4")).to_be_visible()
        card.get_by_label("how far it is off").fill("level")
        card.get_by_role("button", name="Note it").click()
        expect(card.get_by_text("neither a length, nor yes, nor no")).to_be_visible()
        expect(card.get_by_label("how far it is off")).to_have_value("level")  # nothing is lost
        card.get_by_role("button", name="Done").click()
        expect(card.get_by_role("button", name="Done")).to_be_hidden()
        card.get_by_role("button", name="Take back").click()
        expect(card.get_by_role("button", name="Done")).to_be_visible()
        told = StepEvent.objects.filter(progress__project__name="Cold frame").order_by("number")
        kinds = list(told.values_list("kind", flat=True))
        self.assertEqual(kinds, ["begun", "checked", "done", "undone"])

    def test_a_step_is_changed_by_its_line_and_another_is_typed(self) -> None:
        page = self.go()
        page.get_by_role("button", name="sand for the cedar oil").click()
        card = page.get_by_role("region", name="sand for the cedar oil")
        card.get_by_role("button", name="Change this step").click()
        line = card.get_by_label("This step as a line")
        expect(line).to_have_value("sand for the cedar oil, 45 min")
        line.fill("sand for the cedar oil, 2 h, needs a helper")
        line.press("Enter")
        expect(card.get_by_text("Needs a helper.")).to_be_visible()
        page.get_by_role("button", name="Steps as lines").click()
        steps = page.get_by_label("Steps of your own")
        steps.press("End")
        steps.fill(steps.input_value() + "\npaint slats before closing, 2 coats\nnap, now and then")
        steps.press("Control+Enter")
        expect(page.get_by_role("button", name="paint slats coat 2")).to_be_visible()
        told = page.get_by_role("alert").filter(has_text="says nothing of a step").first
        expect(told).to_be_visible()
        steps.fill(steps.input_value().replace(", now and then", ", 20 min"))
        steps.press("Control+Enter")
        expect(told).to_be_hidden()
        expect(page.get_by_role("button", name="nap")).to_be_visible()
        steps.blur()
        page.keyboard.press("Control+z")
        expect(page.get_by_role("button", name="nap")).to_be_hidden()

    def test_when_it_is_wanted_decides_how_late_it_is(self) -> None:
        page = self.go()
        page.get_by_role("button", name="When there is time").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Wanted by").fill("2026-02-31")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("“2026-02-31” is no day")).to_be_visible()
        dialog.get_by_label("Wanted by").fill("2026-01-05")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("It should have been begun by")).to_be_visible()
        foot = page.locator("footer")
        expect(foot.get_by_role("status")).to_contain_text("late")
        told = foot.get_by_role("status")
        expect(told).to_contain_text(re.compile("(no|nothing) .*would do"))

    def test_no_free_hours_and_no_parts_are_said(self) -> None:
        page = self.go()
        page.get_by_role("button", name="When there is time").click()
        page.get_by_role("dialog").get_by_label("Free hours").fill("")
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        told = page.get_by_role("alert").filter(has_text="no free hours: nothing can be done")
        expect(told).to_be_visible()
        expect(page.get_by_role("button", name="put the box together")).to_be_visible()

    def test_what_is_taken_away(self) -> None:
        page = self.go()
        page.get_by_role("button", name="Take away").click()
        calendar = self.download(page, "Calendar, ICS").read_text()
        self.assertIn("SUMMARY:Cold frame: cut the parts of the box", calendar)
        sheet = self.download(page, "Build sheet, PDF").read_bytes()
        self.assertTrue(sheet.startswith(b"%PDF"))

    def test_by_keyboard_alone(self) -> None:
        page = self.go()
        page.get_by_role("button", name="put the box together").focus()
        page.keyboard.press("Enter")
        card = page.get_by_role("region", name="put the box together")
        expect(card).to_be_visible()
        card.get_by_role("button", name="Done").focus()
        page.keyboard.press("Enter")
        expect(card.get_by_role("button", name="Take back")).to_be_visible()


class DaysOnPhoneTest(DaysTestCase):
    size = PHONE_SIZE

    def test_steps_are_a_list_that_opens(self) -> None:
        page = self.open_days("Rain-barrel stand")
        row = page.get_by_role("button", name="put it all together")
        expect(row).to_be_visible()
        row.click()
        card = page.get_by_role("region", name="put it all together")
        card.get_by_role("button", name="Done").click()
        expect(card.get_by_role("button", name="Take back")).to_be_visible()
        self.assertEqual(self.sideways(page), 0)


class DaysAccessibilityTest(DaysTestCase):
    def test_page_card_lines_menu_and_dialog(self) -> None:
        page = self.go("Rain-barrel stand")
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="Steps as lines").click()
        page.get_by_role("button", name="put it all together").click()
        card = page.get_by_role("region", name="put it all together")
        card.get_by_role("button", name="Change this step").click()
        expect(page.get_by_label("The weather")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="Take away").click()
        expect(page.get_by_role("menuitem", name="Calendar, ICS")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        page.keyboard.press("Escape")
        page.get_by_role("button", name="When there is time").click()
        expect(page.get_by_role("dialog")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
