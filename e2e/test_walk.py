"""The main job, as a builder does it."""

import csv
import io
import json
from urllib.parse import urlsplit

from openpyxl import load_workbook
from playwright.sync_api import expect
from pypdf import PdfReader

from carpentry.design import read_parts_csv
from carpentry.lumber import INCHES
from carpentry.project import read_project_file
from e2e.accessibility import serious_anywhere
from e2e.browser import BrowserTestCase

EIGHT_LINES = "\n".join(f"{n}\tslat {n}\t1x6 cedar\t{30 + n} 1/2" for n in range(1, 9))


class WalkTest(BrowserTestCase):
    def test_an_account_of_their_own(self) -> None:
        page = self.page
        page.goto(self.address())
        page.get_by_role("button", name="Make an account instead").click()
        page.get_by_label("Name").fill("tove")
        page.get_by_label("Password").fill("123")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_text("too short")).to_be_visible()
        page.get_by_label("Password").fill("barrel-and-hoop")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_text("Nothing here yet")).to_be_visible()

    def test_the_compost_station_is_drawn_and_proven(self) -> None:
        page = self.open_project()
        row = page.get_by_role("row").filter(has=page.get_by_label("Name of cross tie"))
        expect(row).to_contain_text("2x4 treated")
        expect(row).to_contain_text("11⁄2 × 31⁄2")
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible()
        self.assertEqual(self.figure(page, 0), "38")
        self.assertEqual(self.figure(page, 1), "$322.45")
        self.assertEqual(self.figure(page, 2), "6.1 %")
        first = page.get_by_role("img", name="Board 1, 12 ft")
        expect(first).to_have_accessible_name("Board 1, 12 ft: back rail 108″, cross tie 32 1/2″")
        marks = [row.get_attribute("data-mark") for row in page.locator("[data-part]").all()]
        self.assertEqual("".join(filter(None, marks)), "ABCHDEFG", "parts stand by group")
        scrolls = page.evaluate("document.documentElement.scrollHeight > window.innerHeight")
        self.assertFalse(scrolls, "the desk scrolls as a page")

    def test_a_length_changes_is_undone_and_survives_a_reload(self) -> None:
        page = self.open_project()
        expect(page.get_by_text("No cheaper purchase exists")).to_be_visible()
        length = page.get_by_label("Length of back rail")
        length.fill("60")
        length.press("Enter")
        change = page.locator("p.change")
        expect(change).to_contain_text("length =overall → 60")
        expect(change).to_contain_text("−$")
        cheaper = self.figure(page, 1)
        self.assertNotEqual(cheaper, "$322.45")
        page.reload()
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("footer")).to_contain_text("$322.45")
        expect(change).to_contain_text("undone")
        page.get_by_role("button", name="Redo").click()
        expect(page.locator("footer")).to_contain_text(cheaper)

    def test_a_new_project_typed_and_pasted(self) -> None:
        page = self.enter_demo()
        page.get_by_label("What do you build?").fill("Boardwalk")
        page.get_by_role("button", name="Start").click()
        entry = page.get_by_label("New part")
        entry.fill("6 bearers 2x6 44 1/2")
        expect(page.locator("#entry-echo")).to_contain_text("6 × bearers, 2x6 (11⁄2 × 51⁄2)")
        entry.press("Enter")
        expect(page.get_by_label("Length of bearers")).to_have_value("44 1/2")
        expect(page.get_by_text("No shorter purchase exists")).to_be_visible()
        for paste in (EIGHT_LINES, "quantity\tname\tstock\tlength\n" + EIGHT_LINES):
            entry.fill(paste)
            expect(page.locator("#entry-echo")).to_contain_text("Enter adds all 8")
            entry.press("Enter")
            expect(entry).to_have_value("")
        self.assertEqual(page.locator("[data-part]").count(), 17)
        page.get_by_role("button", name="No yard chosen").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Build how many").fill("3")
        dialog.get_by_label("Kerf").fill("3/32")
        dialog.get_by_label("Trim, first end").fill("1")
        self.choose(dialog.get_by_label("Yard"), "Tallow Street Yard")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("kerf 3/32″, trim 1″ and 0″, build 3")).to_be_visible()
        expect(page.get_by_text("= 18").first).to_be_visible()
        expect(page.locator("footer")).to_contain_text("$")

    def test_millimetres(self) -> None:
        page = self.open_project("Bin screen")
        expect(page.get_by_label("Length of slat")).to_have_value("1150")
        expect(page.get_by_text("cut from a sheet, not planned yet")).to_be_visible()
        expect(page.locator("svg.ruler")).to_contain_text("1 m")

    def test_pasted_columns_show_and_can_be_changed(self) -> None:
        page = self.open_project()
        page.get_by_label("New part").fill("Leg\t4x4 treated\t36\t4")
        echo = page.locator("#entry-echo")
        expect(echo).to_contain_text("4 × Leg, 4x4 treated")
        self.assertEqual(serious_anywhere(page), [], "columns")
        self.choose(page.get_by_role("combobox", name="Column 4"), "not used")
        expect(echo).to_contain_text("1 × Leg, 4x4 treated")
        page.get_by_role("button", name="Add", exact=True).click()
        expect(page.get_by_label("Count of Leg")).to_have_value("1")

    def test_imports(self) -> None:
        page = self.enter_demo()
        page.get_by_label("What do you build?").fill("Cold frame")
        page.get_by_role("button", name="Start").click()
        page.get_by_role("button", name="Import").click()
        dialog = page.get_by_role("dialog")
        self.pick_file(page, "Part list file", "broken.parts.csv")
        for line in range(3, 9):
            expect(dialog).to_contain_text(f"line {line}")
        expect(dialog).to_contain_text("Nothing is imported: 6 things to mend")
        expect(dialog.get_by_role("button", name="Add 0 parts")).to_be_disabled()
        self.pick_file(page, "Part list file", "compost-station.parts.csv")
        dialog.get_by_role("button", name="Add 8 parts").click()
        expect(page.get_by_label("Length of cross tie")).to_have_value("2' 8-1/2\"")
        self.visit("Prices")
        for name in ("tallow-street", "pike-and-daughter"):
            page.get_by_role("button", name="Import prices").click()
            self.pick_file(page, "Price list file", f"{name}.prices.csv")
            expect(page.get_by_role("dialog")).to_contain_text("the same")
            page.get_by_role("button", name="Take these prices").click()
            expect(page.get_by_role("dialog")).to_have_count(0)
        expect(page.get_by_role("link", name="Pike & Daughter")).to_be_visible()

    def test_every_file_is_taken_away_and_reads_back(self) -> None:
        page = self.open_project()
        page.get_by_role("button", name="Take away").click()
        listed = self.download(page, "Shopping list, CSV").read_text("utf-8-sig")
        rows = list(csv.reader(io.StringIO(listed)))
        self.assertIn(["2x4 treated", "12 ft", "12 ft", "5", "$8.36", "$41.80"], rows)
        book = load_workbook(self.download(page, "Shopping list, XLSX")).active
        self.assertEqual(book.max_row, len(rows))
        parts = read_parts_csv(self.download(page, "Parts, CSV").read_bytes(), INCHES)
        self.assertEqual(sum(part.quantity for part in parts), 81)
        page.get_by_role("menuitemradio", name="A4").click()
        for link in ("Cut sheet, PDF", "Shopping list, PDF"):
            pages = PdfReader(self.download(page, link)).pages
            self.assertEqual(int(pages[0].mediabox.width), 595)
            self.assertIn("2x4 treated", pages[0].extract_text())
        whole = self.download(page, "Whole project, JSON")
        self.assertEqual(read_project_file(whole.read_bytes()).name, "Compost station")
        page.keyboard.press("Escape")
        self.visit("Projects")
        page.get_by_label("Project file").set_input_files(str(whole))
        expect(page.locator("footer")).to_contain_text("$322.45")
        page.get_by_role("button", name="Take away").click()
        again = self.download(page, "Whole project, JSON")
        self.assertEqual(json.loads(again.read_text()), json.loads(whole.read_text()))

    def test_the_list_says_what_to_buy(self) -> None:
        page = self.open_project()
        self.visit("List")
        row = page.get_by_role("row").filter(has_text="6 ft")
        expect(row).to_contain_text("18")
        expect(row).to_contain_text("$131.40")
        expect(page.get_by_role("row", name="without hardware")).to_contain_text("$344.22")
        expect(page.get_by_role("row", name="total", exact=False).first).to_contain_text("$578.10")

    def test_nothing_is_asked_of_any_other_host(self) -> None:
        page = self.open_project()
        self.visit("List")
        self.visit("Prices")
        page.get_by_role("link", name="Tallow Street Yard").click()
        expect(page.get_by_role("searchbox", name="Find a stock")).to_be_visible()
        self.assertEqual(self.hosts, {urlsplit(self.live_server_url).netloc})
