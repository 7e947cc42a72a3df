"""Joints, packs and their prices in the real interface."""

from playwright.sync_api import expect

from e2e.browser import PHONE_SIZE, BrowserTestCase
from e2e.test_care import serious


class HardwareTest(BrowserTestCase):
    def test_a_joint_is_typed_and_counted(self) -> None:
        page = self.open_project()
        page.get_by_role("link", name="List").click()
        table = page.get_by_role("region", name="Hardware")
        expect(table.get_by_role("row", name="carriage bolt 3")).to_contain_text("24")
        page.get_by_role("button", name="Joints and hardware").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Joints, one a line").fill("10 D to A edge, 2 screws\n3 D to Q, glue")
        dialog.get_by_label("Other things to buy").fill("3 latch @ 2.25\nlatch")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_have_count(0)
        expect(table.get_by_role("row", name="screw 2")).to_contain_text("1 of 100 at $8.60")
        expect(table.get_by_role("row", name="latch")).to_contain_text("$6.75")
        expect(page.get_by_text("no part is marked Q")).to_be_visible()
        expect(page.get_by_text("hardware, line 2: write how many")).to_be_visible()
        page.get_by_role("button", name="Take away").click()
        page.get_by_text("Copy the list as text").click()
        expect(page.get_by_text("Copied")).to_be_visible()
        page.keyboard.press("Escape")
        page.reload()
        expect(table.get_by_role("row", name="latch")).to_contain_text("$6.75")
        self.assertEqual(serious(page), [])
        page.set_viewport_size({"width": PHONE_SIZE[0], "height": PHONE_SIZE[1]})
        self.assertEqual(self.sideways(page), 0)

    def test_another_yard_beside_this_one(self) -> None:
        page = self.open_project()
        page.get_by_role("link", name="List").click()
        page.get_by_role("combobox", name="Compare with").click(force=True)
        page.get_by_role("option", name="Pike & Daughter").click()
        table = page.get_by_role("region", name="Two yards")
        expect(table.get_by_role("row", name="total with tax")).to_be_visible(timeout=20_000)
        expect(page.get_by_role("status").filter(has_text="cheaper at")).to_be_visible()
        self.assertEqual(serious(page), [])

    def test_rules_make_or_buy_and_how_it_comes_about(self) -> None:
        page = self.open_project()
        page.get_by_role("link", name="List").click()
        page.get_by_role("button", name="Joints and hardware").click()
        dialog = page.get_by_role("dialog")
        rules = dialog.get_by_label("Rules of thumb of your own")
        rules.fill("carriage bolt takes: 3 washer\nbolt takes: nuts")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_have_count(0)
        table = page.get_by_role("region", name="Hardware")
        expect(table.get_by_role("row", name="washer")).to_contain_text("88")
        expect(page.get_by_text("rules, line 2: “nuts” is not taken")).to_be_visible()
        page.get_by_text("$8.36", exact=True).click()
        expect(page.get_by_text("$8.36 each, seen 2026-11-02")).to_be_visible()
        groups = page.get_by_role("table", name="By group of parts")
        expect(groups.get_by_role("row", name="boarding")).to_contain_text("61")
        page.get_by_role("combobox", name="Part").click(force=True)
        page.get_by_role("option", name="slide strip").click()
        made = page.get_by_label("One made costs")
        made.fill("little")
        page.get_by_role("button", name="Weigh").click()
        expect(page.get_by_text("“little” is no amount of money")).to_be_visible()
        made.fill("0.50/ft")
        made.press("Enter")
        expect(page.get_by_role("status").filter(has_text="the wood for 12")).to_be_visible()
        self.assertEqual(serious(page), [])

    def test_packs_of_a_yard(self) -> None:
        page = self.enter_demo()
        page.get_by_role("link", name="Prices").click()
        page.get_by_role("link", name="Tallow Street Yard").click()
        page.get_by_role("button", name="Settings").click()
        dialog = page.get_by_role("dialog")
        packs = dialog.get_by_label("Sold by the pack")
        packs.fill("screw 2in, none, 3")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog.get_by_text("line 1: “none” is no content")).to_be_visible()
        packs.fill("screw 2in, 10, 3")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_have_count(0)
