"""Yards, the account and long plans, by hand."""

import random

from django.test import override_settings
from playwright.sync_api import expect
from pypdf import PdfReader

from e2e.accessibility import serious_anywhere
from e2e.browser import BrowserTestCase
from server.projects.models import Project


class YardTest(BrowserTestCase):
    def open_yard(self) -> None:
        page = self.enter_demo()
        self.visit("Prices")
        page.get_by_role("link", name="Tallow Street Yard").click()
        expect(page.get_by_role("searchbox", name="Find a stock")).to_be_visible()

    def test_a_price_changes_and_the_project_follows(self) -> None:
        self.open_yard()
        page = self.page
        price = page.get_by_label("Price of 2x4 treated 12 ft")
        price.fill("9.00")
        price.press("Enter")
        expect(page.locator("p.change")).to_contain_text("8.36 → 9.00")
        self.visit("Projects")
        page.get_by_role("link", name="Compost station").click()
        expect(page.locator("footer")).to_contain_text("$325.65")
        self.visit("Prices")
        page.get_by_role("link", name="Tallow Street Yard").click()
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Price of 2x4 treated 12 ft")).to_have_value("8.36")

    def test_the_prices_of_a_line_one_after_the_other(self) -> None:
        self.open_yard()
        page = self.page
        price = page.get_by_label("Price of 2x4 treated 12 ft")
        price.fill("9.00")
        price.press("Enter")
        expect(page.locator("p.change")).to_contain_text("8.36 → 9.00")
        page.get_by_role("button", name="Price history of 2x4 treated 12 ft").click()
        rows = page.get_by_role("dialog").locator("tbody tr")
        expect(rows).to_have_count(2)
        expect(rows.first).to_contain_text("9.00")

    def test_a_wrong_price_is_told_in_its_field(self) -> None:
        self.open_yard()
        page = self.page
        price = page.get_by_label("Price of 2x4 treated 12 ft")
        price.fill("1,836")
        price.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("with a point, not a comma")
        price.press("Escape")
        expect(price).to_have_value("8.36")

    def test_a_list_of_this_yard_is_imported_and_its_columns_chosen(self) -> None:
        self.open_yard()
        page = self.page
        page.get_by_role("button", name="Import prices").click()
        dialog = page.get_by_role("dialog")
        picker = page.get_by_label("Price list file")
        wrong = {"name": "p.csv", "mimeType": "text/csv", "buffer": b"item,len,cost\n2x4,8,$5.10\n"}
        picker.set_input_files(wrong)
        expect(dialog.get_by_text("8 ft? Write 8ft")).to_be_visible()
        mended = wrong | {"buffer": b"item,len,other,cost\n2x4,8ft,9.99,$5.10\n"}
        picker.set_input_files(mended)
        expect(dialog.get_by_text("1 changed")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [], "import with columns")
        self.choose(dialog.get_by_role("combobox", name="Column 4, cost"), "not used")
        expect(dialog.get_by_text("the column “price” is missing")).to_be_visible()
        expect(page.get_by_role("option")).to_have_count(0)
        self.choose(dialog.get_by_role("combobox", name="Column 3, other"), "price", exact=True)
        dialog.get_by_role("button", name="Take these prices").click()
        expect(dialog).to_have_count(0)
        expect(page.get_by_label("Price of 2x4 8 ft")).to_have_value("9.99")

    def test_a_line_is_added_found_and_removed(self) -> None:
        self.open_yard()
        page = self.page
        form = page.locator("form.new")
        form.get_by_label("Stock").fill("2x99")
        form.get_by_label("Length").fill("12ft")
        form.get_by_label("Price").fill("14.10")
        form.get_by_role("button", name="Add").click()
        expect(form).to_contain_text("no board is called 2x99")
        form.get_by_label("Stock").fill("2x8 treated")
        form.get_by_role("button", name="Add").click()
        expect(page.locator("p.change")).to_contain_text("2x8 treated 12ft added")
        page.get_by_role("searchbox", name="Find a stock").fill("2x8")
        expect(page.locator("tbody tr")).to_have_count(1)
        page.get_by_role("button", name="Remove 2x8 treated 12 ft").click()
        expect(page.locator("tbody tr")).to_have_count(0)

    def test_settings_of_a_yard(self) -> None:
        self.open_yard()
        page = self.page
        page.get_by_role("button", name="Settings").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Tax, percent").fill("lots")
        dialog.get_by_role("button", name="Save").click()
        expect(dialog).to_contain_text("write the tax in percent")
        dialog.get_by_label("Tax, percent").fill("8")
        dialog.get_by_label("Prices include the tax").check()
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_text("tax 8 % included")).to_be_visible()

    def test_a_yard_of_ones_own(self) -> None:
        page = self.enter_demo()
        self.visit("Prices")
        page.get_by_label("Name").fill("Tallow Street Yard")
        page.get_by_role("button", name="Start").click()
        expect(page.get_by_text("you have a yard of this name")).to_be_visible()
        page.get_by_label("Name").fill("Corner Timber")
        page.get_by_label("Currency").fill("EUR")
        page.get_by_role("button", name="Start").click()
        expect(page.get_by_text("No prices yet")).to_be_visible()
        page.get_by_role("button", name="Delete").click()
        page.get_by_role("dialog").get_by_role("button", name="Delete").click()
        expect(page.get_by_role("heading", name="Yards")).to_be_visible()
        expect(page.get_by_role("link", name="Corner Timber")).to_have_count(0)


class RackTest(BrowserTestCase):
    def lay_on(self, stock: str, length: str) -> None:
        page = self.page
        form = page.locator("form.new")
        form.get_by_label("Stock").fill(stock)
        form.get_by_label("Length").fill(length)
        form.get_by_role("button", name="Lay it on").click()

    def test_a_board_is_laid_on_measured_used_and_taken_off(self) -> None:
        page = self.enter_demo()
        self.visit("Rack")
        expect(page.get_by_text("Nothing on the rack yet")).to_be_visible()
        self.lay_on("2x99", "75")
        expect(page.get_by_text("no board is called 2x99")).to_be_visible()
        self.lay_on("2x4 treated", "75")
        expect(page.locator("p.change")).to_contain_text("board 1 added")
        self.lay_on("1x6 cedar", "62 1/2")
        page.get_by_role("button", name="Measure board 2").click()
        crook = page.get_by_label("Crook of board 2")
        crook.fill("1/2")
        crook.press("Enter")
        expect(page.get_by_role("row", name="1x6 cedar")).to_contain_text("43⁄4″")
        width = page.get_by_label("Width, middle of board 2")
        width.fill("40")
        width.press("Enter")
        expect(page.get_by_role("alert")).to_contain_text("far from what the name says")
        width.press("Escape")
        self.assertEqual(serious_anywhere(page), [])
        labels = PdfReader(self.download(page, "Print labels"))
        self.assertIn("2x4 treated", labels.pages[0].extract_text())
        self.visit("Projects")
        page.get_by_role("link", name="Compost station").click()
        page.get_by_role("button", name="Tallow Street Yard").click()
        self.choose(page.get_by_label("Boards from the rack"), "when that saves buying")
        page.get_by_role("dialog").get_by_role("button", name="Save").click()
        expect(page.get_by_text("rack 1", exact=True)).to_be_visible()
        expect(page.locator("footer")).to_contain_text("1 from the rack")
        self.visit("Rack")
        page.get_by_role("searchbox").fill("cedar")
        expect(page.locator("tbody tr")).to_have_count(1)
        page.get_by_role("button", name="Take off board 2").click()
        expect(page.get_by_text("No board like that")).to_be_visible()
        page.get_by_role("button", name="Undo").click()
        expect(page.locator("tbody tr")).to_have_count(1)


class SizeBookTest(BrowserTestCase):
    def test_a_size_looked_up_and_asked_the_other_way_round(self) -> None:
        page = self.enter_demo()
        self.visit("Sizes")
        page.get_by_role("searchbox").fill("8/4")
        expect(page.locator("figure")).to_have_count(2)
        page.get_by_role("searchbox").fill("plank")
        expect(page.get_by_text("“plank” names no size")).to_be_visible()
        page.get_by_label("Thickness").fill("3/4")
        page.get_by_role("button", name="Find").click()
        expect(page.get_by_text("a length is missing")).to_be_visible()
        page.get_by_label("Width").fill("5")
        page.get_by_label("Wood").fill("cedar")
        self.choose(page.get_by_label("Prices of"), "Tallow Street Yard")
        page.get_by_role("button", name="Find").click()
        expect(page.get_by_role("row").nth(1)).to_contain_text("rip from")
        expect(page.get_by_role("row").nth(1)).to_contain_text("$1.22")


class ProjectsTest(BrowserTestCase):
    def test_a_project_is_deleted_and_brought_back(self) -> None:
        page = self.enter_demo()
        link = page.get_by_role("link", name="Bin screen")
        page.get_by_role("button", name="Delete Bin screen").click()
        expect(page.get_by_text("Bin screen is deleted")).to_be_visible()
        expect(link).to_have_count(0)
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("button", name="Bring it back", exact=True).click()
        expect(link).to_be_visible()
        page.get_by_role("button", name="Delete Bin screen").click()
        page.reload()
        page.get_by_role("button", name="Bring back Bin screen").click()
        expect(link).to_be_visible()

    def test_one_is_gone_for_good_only_after_asking(self) -> None:
        page = self.enter_demo()
        page.get_by_role("button", name="Delete Bin screen").click()
        good = page.get_by_role("button", name="Delete for good: Bin screen")
        good.click()
        page.get_by_role("button", name="Keep it").click()
        good.click()
        self.assertEqual(serious_anywhere(page), [])
        page.get_by_role("dialog").get_by_role("button", name="Delete for good").click()
        expect(good).to_have_count(0)
        self.assertFalse(Project.objects.filter(name="Bin screen").exists())

    def test_a_yard_is_made_where_one_is_chosen(self) -> None:
        page = self.enter_demo()
        page.get_by_label("What do you build?").fill("Barrel stand")
        self.choose(page.get_by_label("Bought at"), "A new yard")
        making = page.get_by_role("group", name="A new yard")
        making.get_by_role("button", name="Make it").click()
        expect(making.get_by_text("This field cannot be blank")).to_be_visible()
        self.assertEqual(serious_anywhere(page), [])
        making.get_by_label("Name of the yard").fill("Mill Lane")
        making.get_by_role("button", name="Make it").click()
        expect(making).to_have_count(0)
        page.get_by_role("button", name="Start").click()
        page.get_by_role("button", name="Mill Lane").click()
        dialog = page.get_by_role("dialog")
        dialog.get_by_label("Kerf").fill("3/32")
        page.keyboard.press("Escape")
        expect(dialog.get_by_text("What you typed is not saved")).to_be_visible()
        dialog.get_by_role("button", name="Go on typing").click()
        expect(dialog.get_by_label("Kerf")).to_have_value("3/32")
        self.choose(dialog.get_by_label("Yard"), "A new yard")
        dialog.get_by_label("Name of the yard").fill("Bell Yard")
        dialog.get_by_label("Name of the yard").press("Enter")
        dialog.get_by_role("button", name="Save").click()
        expect(page.get_by_role("button", name="Bell Yard")).to_contain_text("kerf 3/32″")
        expect(page.locator("p.change")).to_contain_text("yard Bell Yard, kerf 3/32")

    def test_a_project_without_a_name(self) -> None:
        page = self.enter_demo()
        page.get_by_role("button", name="Start").click()
        expect(page.get_by_text("This field cannot be blank")).to_be_visible()

    def test_details_of_a_part(self) -> None:
        page = self.open_project()
        page.get_by_role("button", name="C, details of back rail").click()
        ends = page.get_by_label("End angles of back rail")
        ends.fill("20 -20")
        ends.press("Enter")
        expect(page.get_by_text("both 20°, parallel").first).to_be_visible()
        ends.fill("95")
        ends.press("Enter")
        expect(page.get_by_text("no pair of angles")).to_be_visible()
        ends.press("Escape")
        width = page.get_by_label("Width of back rail", exact=True)
        width.fill("2")
        width.press("Enter")
        expect(page.get_by_text("not planned yet: has to be ripped or planed")).to_be_visible()
        expect(page.locator("footer")).to_contain_text("1 part not planned yet")
        page.get_by_role("button", name="Remove back rail").click()
        expect(page.get_by_label("Name of back rail")).to_have_count(0)
        page.get_by_role("button", name="Undo").click()
        expect(page.get_by_label("Name of back rail")).to_have_count(1)


@override_settings(PLAN_SECONDS=30.0)
class LongPlanTest(BrowserTestCase):
    def test_a_long_plan_is_watched_stopped_and_taken_up_again(self) -> None:
        chance = random.Random(11)
        lengths: list[int] = []
        while len(lengths) < 501:
            large, middle = chance.randint(380, 490), chance.randint(250, 370)
            if 250 <= 1000 - large - middle < middle:
                lengths += [large, middle, 1000 - large - middle]
        lines = "\n".join(f"{lengths.count(n)} p{n} 2x2 {n}mm" for n in sorted(set(lengths)))
        page = self.enter_demo()
        page.get_by_label("What do you build?").fill("Long")
        self.choose(page.get_by_label("Measured in"), "millimetres")
        page.get_by_role("button", name="Start").click()
        page.get_by_label("New part").fill(lines)
        page.get_by_label("New part").press("Enter")
        expect(page.get_by_text("Closing in on the least")).to_be_visible()
        expect(page.locator("svg.board").first).to_be_visible()
        page.get_by_role("button", name="Stop").click()
        page.get_by_role("button", name="Go on").click()
        expect(page.get_by_text("Closing in on the least")).to_be_visible()


class AccountTest(BrowserTestCase):
    def test_the_account_page_of_the_demo_and_of_ones_own(self) -> None:
        page = self.enter_demo()
        page.goto(self.address("/account"))
        expect(page.get_by_text("Everybody who comes here shares it")).to_be_visible()
        self.download(page, "Export the account")
        page.get_by_role("button", name="Workshop").click()
        page.get_by_text("Sign out").click()
        page.get_by_role("button", name="Make an account instead").click()
        page.get_by_label("Name").fill("tove")
        page.get_by_label("Password").fill("barrel-and-hoop")
        page.get_by_role("button", name="Make the account").click()
        expect(page.get_by_text("Nothing here yet")).to_be_visible()
        page.goto(self.address("/account"))
        page.get_by_label("Password now").fill("wrong")
        page.get_by_label("New password").fill("hoop-and-barrel")
        page.get_by_role("button", name="Change the password").click()
        expect(page.get_by_text("that is not the password")).to_be_visible()
        page.get_by_label("Password now").fill("barrel-and-hoop")
        page.get_by_role("button", name="Change the password").click()
        expect(page.get_by_text("The password is changed")).to_be_visible()
        page.get_by_label("Your password, to confirm").fill("hoop-and-barrel")
        page.get_by_role("button", name="Delete everything").click()
        expect(page.get_by_role("heading", name="Sign in", exact=True)).to_be_visible()
