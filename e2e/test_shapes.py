"""Shapes in the real interface: added, changed, drawn, kept by hand, let go."""

import re

from playwright.sync_api import Locator, Page, expect

from e2e.accessibility import serious_anywhere
from e2e.browser import PHONE_SIZE, BrowserTestCase

DRAWN = re.compile(r"bench, front: 8 pieces, 1 : \d+")


class ShapesTest(BrowserTestCase):
    def add_bench(self, page: Page) -> Locator:
        """A stand, added at the desk; returns its card."""
        page.keyboard.press("m")
        page.get_by_role("button", name="Add a shape").click()
        dialog = page.get_by_role("dialog")
        self.choose(dialog.get_by_role("combobox", name="Shape"), "Stand")
        dialog.get_by_label("Called").fill("bench")
        for label, text in (
            ("Length, outside", "1500"),
            ("Width, outside", "walk / 2"),
            ("Stock of the legs", "4x4"),
            ("Stock of the rails", "2x4"),
        ):
            dialog.get_by_label(label).fill(text)
        dialog.get_by_label("Height, over all").fill("60")
        expect(dialog.get_by_text("is where no rail fits on the legs")).to_be_visible()
        dialog.get_by_label("Height, over all").fill("800")
        drawing = dialog.get_by_role("img")
        expect(drawing).to_have_accessible_name(DRAWN)
        expect(dialog.get_by_role("row").filter(has_text="long rail")).to_contain_text("1322 mm")
        return dialog

    def test_a_shape_is_added_changed_drawn_and_let_go(self) -> None:
        page = self.open_project("Boardwalk")
        dialog = self.add_bench(page)
        self.assertEqual(serious_anywhere(page), [])
        dialog.get_by_role("button", name="Add").click()
        card = page.get_by_role("region", name="shape bench")
        expect(card).to_contain_text("writes")
        pane = page.get_by_role("region", name="Drawing")
        expect(pane.get_by_role("img")).to_have_accessible_name(DRAWN)
        self.assertEqual(serious_anywhere(page), [])

        length = card.get_by_label("Length, outside of bench")
        length.fill("100")
        length.press("Enter")
        expect(card.get_by_role("alert")).to_contain_text("long rail: comes out -")
        page.reload()
        page.get_by_role("button", name="bench").click()
        expect(length).to_have_value("100")  # what was typed is there, and not taken
        length.fill("1600")
        length.press("Enter")
        expect(page.locator("p.change")).to_contain_text("bench length 1500 → 1600")

        page.keyboard.press("Escape")
        page.get_by_role("tab", name="Parts").click()
        rail = page.get_by_label("Length of long rail")
        row = page.locator("[data-part]", has=rail)
        expect(row).to_contain_text("1422 mm")
        page.get_by_role("tab", name="Drawing").click()
        row.hover()
        letter = row.get_attribute("data-mark")
        lit = pane.locator("polygon.lit")
        expect(lit.first).to_have_attribute("data-letter", letter or "")
        rail.fill("1400")
        rail.press("Enter")
        expect(row).to_contain_text("length by hand")
        row.get_by_role("button", name="length of long rail follows its shape again").click()
        expect(row).to_contain_text("1422 mm")
        pane.locator("polygon").last.hover()
        expect(page.locator("[data-part].lit")).to_have_count(1)

        page.get_by_role("tab", name="Measures").click()
        card.get_by_role("button", name="Let it go").click()
        expect(card).to_be_hidden()
        page.get_by_role("tab", name="Parts").click()
        expect(row).to_contain_text("1422 mm")
        page.locator("h1").first.click(force=True)
        page.keyboard.press("Control+z")
        page.get_by_role("tab", name="Measures").click()
        expect(card).to_be_visible()

    def test_on_a_phone_with_the_keys_alone(self) -> None:
        self.page.set_viewport_size({"width": PHONE_SIZE[0], "height": PHONE_SIZE[1]})
        page = self.open_project("Boardwalk")
        dialog = self.add_bench(page)
        dialog.get_by_label("Height, over all").press("Enter")
        card = page.get_by_role("region", name="shape bench")
        expect(card).to_be_visible()
        drawing = page.get_by_role("region", name="Drawing").get_by_role("img")
        expect(drawing).to_be_visible()
        box = drawing.bounding_box()
        self.assertTrue(box and box["x"] >= 0 and box["x"] + box["width"] <= PHONE_SIZE[0])
