"""Sizes that follow, in the real interface: measures, formulas, runs and their marks."""

import io

from playwright.sync_api import Page, expect
from pypdf import PdfReader

from e2e.accessibility import serious_anywhere
from e2e.browser import PHONE_SIZE, BrowserTestCase


class MeasuresTest(BrowserTestCase):
    def leaf(self, name: str, page: Page) -> None:
        page.get_by_role("tab", name=name, exact=True).click()

    def test_a_size_is_named_followed_changed_and_taken_back(self) -> None:
        page = self.open_project("Boardwalk")
        page.keyboard.press("m")
        entry = page.get_by_label("New measure")
        entry.fill("lid = walk + overh")
        expect(page.get_by_role("option", name="overhang")).to_be_visible()
        entry.press("Tab")
        expect(page.get_by_text("lid = 960, named for use in any length")).to_be_visible()
        page.reload()
        expect(entry).to_have_value("lid = walk + overhang")
        entry.press("Enter")
        expect(page.get_by_label("Formula of lid")).to_have_value("walk + overhang")
        page.keyboard.press("Escape")
        page.keyboard.press("n")
        line = page.get_by_label("New part")
        line.fill("2 lids 1x6 cedar =lid - 2*")
        line.press_sequentially("over")
        line.press("Tab")
        expect(page.get_by_text("2 × lids, 1x6 cedar")).to_be_visible()
        line.press("Enter")
        length = page.get_by_label("Length of lids")
        expect(length).to_have_value("=lid - 2*overhang")
        row = page.locator("[data-part]", has=length)
        expect(row.locator(".follows")).to_be_visible()
        expect(row).to_contain_text("840 mm")
        self.leaf("Measures", page)
        formula = page.get_by_label("Formula of overhang")
        formula.fill("over")
        formula.press("Enter")
        expect(page.get_by_text("“over” is not known").first).to_be_visible()
        formula.fill("50")
        formula.press("Enter")
        expect(page.locator("p.change")).to_contain_text("overhang over → 50; C, F follow")
        self.leaf("Parts", page)
        expect(row).to_contain_text("850 mm")
        page.locator("h1").first.click(force=True)
        for text in ("?", "840 mm"):
            page.keyboard.press("Control+z")
            expect(row).to_contain_text(text)

    def test_what_the_tape_said(self) -> None:
        page = self.open_project("Boardwalk")
        self.leaf("Measures", page)
        page.get_by_role("button", name="details of walk").click()
        measured = page.get_by_label("Measured of walk")
        measured.fill("898")
        measured.press("Enter")
        expect(page.get_by_text("measured 898", exact=True)).to_be_visible()
        expect(page.locator("p.change")).to_contain_text("A, C, E follow")
        self.assertEqual(serious_anywhere(page), [], "measures")
        page.get_by_role("button", name="Take the worked out one").click()
        expect(page.get_by_text("measured 898", exact=True)).to_have_count(0)
        page.get_by_role("button", name="Remove walk").click()
        expect(page.get_by_role("alert").filter(has_text="walk is used in")).to_be_visible()
        page.set_viewport_size({"width": PHONE_SIZE[0], "height": PHONE_SIZE[1]})
        self.assertEqual(self.sideways(page), 0)

    def test_a_run_its_part_and_its_marks(self) -> None:
        page = self.open_project("Boardwalk")
        self.leaf("Measures", page)
        page.get_by_role("button", name="Add a run").click()
        dialog = page.get_by_role("dialog")
        self.assertEqual(serious_anywhere(page), [], "new run")
        for label, text in (("Name", "rungs"), ("Along", "section"), ("How wide", "width of B")):
            dialog.get_by_label(label).fill(text)
        dialog.get_by_label("Figure").fill("300")
        dialog.get_by_role("button", name="Add").click()
        expect(page.get_by_role("img", name="2 in a row along 1210 mm")).to_be_visible()
        card = page.get_by_role("region", name="run rungs")
        card.get_by_label("Write its part").fill("rung 2x2 cedar 400")
        card.get_by_role("button", name="Write").click()
        expect(card).to_contain_text("Lays part F")
        expect(page.locator("p.change")).to_contain_text("run rungs lays F rung")
        figures = page.get_by_role("list", name="Marks of rungs").locator(".figure")
        before = figures.all_inner_texts()
        page.get_by_role("button", name="from the right").click()
        self.assertNotEqual(figures.all_inner_texts(), before)
        page.get_by_role("button", name="centres").click()
        expect(page.locator("p.change")).to_contain_text("marks near edges → centres")
        self.assertEqual(serious_anywhere(page), [], "marks")
        with page.expect_download() as printed:
            page.get_by_role("link", name="On paper").click()
        pages = PdfReader(io.BytesIO(printed.value.path().read_bytes())).pages
        self.assertIn("Hook the tape once", pages[0].extract_text())
        page.set_viewport_size({"width": PHONE_SIZE[0], "height": PHONE_SIZE[1]})
        self.assertEqual(self.sideways(page), 0)

    def test_a_common_question(self) -> None:
        page = self.open_project("Boardwalk")
        page.get_by_role("button", name="D, details of stone collar").click()
        page.get_by_role("button", name="Work out its length").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Board, such as 8 ft").fill("12 ft")
        expect(
            dialog.get_by_text("= (12 ft - first trim - last trim - kerf) / 2 is")
        ).to_be_visible()
        self.assertEqual(serious_anywhere(page), [], "work out")
        dialog.get_by_role("button", name="Take it").click()
        length = page.get_by_label("Length of stone collar", exact=True)
        expect(length).to_have_value("=(12 ft - first trim - last trim - kerf) / 2")
        page.get_by_role("button", name="Mark along its edge").click()
        expect(page.get_by_role("list", name="Marks of edge marks d")).to_be_visible()
