"""Angled ends, ripped boards and allowances in the real interface."""

from playwright.sync_api import expect

from e2e.accessibility import serious
from e2e.browser import BrowserTestCase


class SawTest(BrowserTestCase):
    def test_angled_and_ripped_boards_are_drawn(self) -> None:
        page = self.open_project("Log rack")
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible()
        expect(page.get_by_text("both 45°, mirrored").first).to_be_visible()
        brace = page.locator("svg.board g.piece").filter(has_text="brace").first
        points = brace.locator("polygon").first.get_attribute("points") or ""
        corners = [float(point.split(",")[0]) for point in points.split()]
        self.assertEqual(len(set(corners)), 4)
        expect(page.get_by_role("heading", name="treated boards, ripped")).to_be_visible()
        page.get_by_role("button", name="E, details of rafter, left").click()
        expect(page.get_by_text("the mirror image of F")).to_be_visible()
        self.assertEqual(serious(page), [])
        self.visit("List")
        expect(page.get_by_text("spare, against culls").first).to_be_visible()

    def test_bevelled_edges_and_what_is_seen(self) -> None:
        page = self.open_project("Cold frame")
        end = page.get_by_role("img", name="blade at 45°").first
        expect(end).to_be_visible()
        expect(page.get_by_text("the best boards for what is seen")).to_be_visible()
        page.get_by_role("button", name="I, details of corner block").click()
        edges = page.get_by_label("Bevelled edges of corner block")
        edges.fill("45")
        edges.press("Enter")
        expect(page.get_by_text("no pair of angles: write two")).to_be_visible()
        edges.fill("30 -30")
        edges.press("Enter")
        expect(page.get_by_text("both 30°, leaning alike").first).to_be_visible()
        expect(page.get_by_role("img", name="blade at 30°").first).to_be_visible()
        self.assertEqual(serious(page), [])

    def test_settings_of_the_saw(self) -> None:
        page = self.open_project("Log rack")
        page.get_by_role("button", name="Tallow Street Yard").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("share one cut").uncheck()
        dialog.get_by_label("Add to every length").fill("9ft")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("at most 4 ft are added")).to_be_visible()
        dialog.get_by_label("Add to every length").fill("1")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("angled cuts not shared")).to_be_visible()
        expect(page.get_by_text("sawn").first).to_be_visible()
        expect(dialog).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_text("undone: ")).to_be_visible()

    def test_the_cuts_of_a_board_and_what_the_saws_can_do(self) -> None:
        page = self.open_project("Cold frame")
        expect(page.get_by_text("within what your saws can do")).to_be_visible()
        first = page.locator("details.cuts").first
        first.locator("summary").focus()
        page.keyboard.press("Enter")
        expect(first.get_by_text("Crosscut the board at")).to_be_visible()
        expect(first.get_by_text("fence").first).to_be_visible()
        self.assertGreater(page.locator("svg.board .saw-line").count(), 20)
        for scheme in ("light", "dark"):
            page.emulate_media(color_scheme=scheme)  # type: ignore[arg-type]
            self.assertEqual(serious(page), [], scheme)
        url = page.url
        page.get_by_role("button", name="Tallow Street Yard").click()
        page.get_by_role("dialog").get_by_role("link", name="Tools").click()
        tilt = page.get_by_label("Blade tilts up to of table saw")
        tilt.fill("30")
        tilt.press("Enter")
        expect(page.get_by_text("Blade tilts to 30°")).to_be_visible()
        page.goto(url)
        expect(page.get_by_text("beyond the saw, which tilts to 30°").first).to_be_visible()

    def test_what_a_change_cuts_otherwise_is_marked(self) -> None:
        page = self.open_project()
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible()
        count = page.get_by_label("Count of cross tie")
        count.fill("7")
        count.press("Enter")
        expect(page.get_by_text("cut otherwise").first).to_be_visible()
        expect(page.locator(".number.changed").first).to_be_visible()
