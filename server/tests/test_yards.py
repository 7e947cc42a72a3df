import importlib
import uuid
from typing import Any

from django.apps import apps

from carpentry.tests.samples import sample
from server.rack.models import RackBoard
from server.tests.base import ApiTestCase
from server.yards.models import PriceLine, Yard

HEADER = b"yard,stock,length,price,per,available,actual,date\n"


class YardTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]

    def write(self, line: str, **typed: Any) -> Any:
        seen = {"version": self.yard["version"], "change_id": str(uuid.uuid4())}
        answer = self.ask("put", f"/yards/{self.yard['id']}/lines/{line}", seen | typed)
        if answer.status_code == 200:
            self.yard = answer.json()
        return answer

    def step(self, way: str) -> dict[str, Any]:
        seen = {"version": self.yard["version"], "change_id": str(uuid.uuid4())}
        self.yard = self.ask("post", f"/yards/{self.yard['id']}/{way}", seen).json()
        return self.yard

    def test_a_line_is_added_changed_removed_and_all_of_it_undone(self) -> None:
        new = str(uuid.uuid4())
        self.write(new, stock="2x8", length="12ft", price="0.99", per="ft")
        self.assertEqual(self.yard["lines"][-1]["piece_price"], "$11.88")
        self.write(new, price="1.01")
        self.assertIn("0.99 → 1.01", self.yard["change"])
        seen = {"version": self.yard["version"], "change_id": str(uuid.uuid4()), "lines": [new]}
        self.yard = self.ask("post", f"/yards/{self.yard['id']}/lines/remove", seen).json()
        self.assertEqual(len(self.yard["lines"]), 16)
        prices = [self.step("undo")["lines"][-1]["price"] for _ in range(3)]
        self.assertEqual(prices, ["1.01", "0.99", "6.72"])
        self.assertEqual(self.step("redo")["lines"][-1]["id"], new)

    def test_faults_by_field(self) -> None:
        line = self.yard["lines"][0]["id"]
        for typed, place in (
            ({"price": "1,234"}, "price"),
            ({"price": "1.234"}, "price"),
            ({"stock": "2x13"}, "stock"),
            ({"length": "x"}, "length"),
            ({"actual": "40"}, "actual"),
            ({"width": "40"}, "width"),
            ({"date": "soon"}, "date"),
            ({"available": "-1"}, "available"),
        ):
            with self.subTest(typed=typed):
                self.assertIn(place, self.problems(self.write(line, **typed)))
        twice = self.write(self.yard["lines"][1]["id"], length="12ft")
        self.assertIn("has a price line already", self.problems(twice)[""])
        self.assertEqual(PriceLine.objects.get(id=line).price, "5.18")

    def test_settings_and_their_faults(self) -> None:
        def change(**typed: Any) -> Any:
            now = Yard.objects.get(id=self.yard["id"]).version
            seen = {"version": now, "change_id": str(uuid.uuid4())}
            return self.ask("patch", f"/yards/{self.yard['id']}", seen | typed)

        changed = change(tax_rate="6.75", currency="CAD", board_foot_rounding="each").json()
        self.assertEqual((changed["tax_rate"], changed["currency"]), ("6.75", "CAD"))
        for typed, place in (
            ({"tax_rate": "lots"}, "tax_rate"),
            ({"tax_rate": "99"}, "tax_rate"),
            ({"currency": "XXZ"}, "currency"),
            ({"name": ""}, "name"),
            ({"board_foot_rounding": "up"}, "board_foot_rounding"),
            ({"price_age_days": 0}, "price_age_days"),
        ):
            self.assertIn(place, self.problems(change(**typed)), typed)

    def test_a_stale_change_gets_both_states(self) -> None:
        line = self.yard["lines"][0]["id"]
        old = self.yard
        self.write(line, price="6.00")
        self.yard = old
        answer = self.write(line, price="7.00")
        self.assertEqual(answer.status_code, 409)
        self.assertEqual(answer.json()["seen"]["lines"][0]["price"], "5.18")
        self.assertEqual(answer.json()["current"]["lines"][0]["price"], "6.00")

    def test_a_price_list_is_previewed_then_taken_as_one_step(self) -> None:
        data = HEADER + (
            b"Tallow Street Yard,2x4 treated,8ft,5.55,each,,96 1/8,2026-11-20\n"
            b"Tallow Street Yard,2x4 treated,10ft,7.04,each,,,2026-11-02\n"
            b"Tallow Street Yard,2x10,10ft,19.00,each,,,2026-11-20\n"
            b"New Place,2x4,8ft,4.00,each,,,2026-11-20\n"
        )
        preview = {y["yard"]: y for y in self.upload("/reading/prices-file", data).json()["yards"]}
        tallow = preview["Tallow Street Yard"]
        self.assertEqual((len(tallow["new"]), tallow["same"], len(tallow["gone"])), (1, 1, 14))
        self.assertIn("5.18 → 5.55", tallow["changed"][0])
        self.assertFalse(preview["New Place"]["known"])
        before = self.yard["lines"][0]["id"]
        taken = {y["name"]: y for y in self.take_prices(data)}
        self.yard = taken["Tallow Street Yard"]
        self.assertEqual(len(self.yard["lines"]), 3)
        self.assertEqual(self.yard["lines"][0]["id"], before)
        self.assertEqual(len(self.step("undo")["lines"]), 16)

    def test_every_price_of_a_line_is_kept(self) -> None:
        line = self.yard["lines"][0]["id"]
        self.write(line, price="5.40", date="2026-11-20")
        self.write(line, actual="96")
        self.step("undo")
        self.step("undo")
        points = self.ask("get", f"/yards/{self.yard['id']}/lines/{line}/prices").json()
        self.assertEqual([p["price"] for p in points], ["5.18", "5.40", "5.18"])
        self.assertEqual(points[1]["date"], "2026-11-20")

    def test_old_prices_are_marked(self) -> None:
        line = self.yard["lines"][0]["id"]
        self.write(line, date="2020-01-02")
        self.assertTrue(self.yard["lines"][0]["is_old"])
        marked = self.yard["old_prices"]
        self.write(line, date="")
        self.assertFalse(self.yard["lines"][0]["is_old"])
        self.assertEqual(self.yard["old_prices"], marked - 1)

    def test_a_yards_own_section_changes_what_a_part_measures(self) -> None:
        project = self.new_project("1 rail 2x4 treated 60", yard=self.yard["id"])
        self.assertEqual(project["parts"][0]["section_source"], "standard size")
        self.write(self.yard["lines"][0]["id"], width="3 3/8")
        part = self.look(project["id"])["parts"][0]
        self.assertEqual(part["section"]["width"]["text"], "3 3/8″")
        self.assertEqual(part["section_source"], "Tallow Street Yard")

    def test_a_broken_list_changes_nothing(self) -> None:
        data = HEADER + b"Tallow Street Yard,2x4,8ft,x\nTallow Street Yard,2x99,8ft,4\n"
        self.assertEqual(len(self.upload("/reading/prices-file", data).json()["problems"]), 2)
        answer = self.upload("/yards/import-prices", data, change_id=str(uuid.uuid4()))
        self.assertEqual(set(self.problems(answer)), {"line 2, price", "line 3, stock"})
        self.assertEqual(PriceLine.objects.count(), 16)

    def test_a_deleted_yard_leaves_its_projects(self) -> None:
        project = self.new_project("1 rail 2x4 treated 60", yard=self.yard["id"])
        self.assertEqual(self.ask("delete", f"/yards/{self.yard['id']}").status_code, 204)
        again = self.look(project["id"])
        self.assertIsNone(again["yard"])
        self.assertEqual(again["plan"]["tally"]["unpriced"], 1)

    def test_two_yards_of_one_name(self) -> None:
        body = {"id": str(uuid.uuid4()), "name": "Tallow Street Yard"}
        self.assertIn("of this name", str(self.problems(self.ask("post", "/yards", body))))

    def test_a_millimetre_yard_reads_bare_lengths_as_millimetres(self) -> None:
        body = {"id": str(uuid.uuid4()), "name": "Metric", "unit": "mm", "currency": "EUR"}
        self.yard = self.ask("post", "/yards", body).json()
        data = b"yard;stock;length;price\nMetric;2x4;2400;5,18\n"
        yard = self.take_prices(data)[0]
        self.assertEqual(yard["lines"][0]["named_length"], "2400 mm")
        self.assertEqual(yard["lines"][0]["price"], "5,18".replace(",", "."))


class NamesSpelledOneWayTest(ApiTestCase):
    """What was stored under another spelling is found under the one that is used now."""

    def stored_as(self, model: Any, key: str) -> None:
        model.objects.update(stock_key=key)

    def spell(self, app: str, migration: str) -> None:
        module = importlib.import_module(f"server.ancestry.{app}.{migration}")
        module.spell(apps, None)

    def test_lines_and_boards(self) -> None:
        self.take_prices(b"yard,stock,length,price\nBell Yard,2x4 pt,8ft,5\n")
        self.stored_as(PriceLine, "2x4 pt")
        self.spell("yards", "0006_names_spelled_one_way")
        self.assertEqual(PriceLine.objects.get().stock_key, "2x4 treated")
        rack = self.ask("get", "/rack").json()
        seen = {"version": rack["version"], "change_id": str(uuid.uuid4())}
        board = {"stock": "4x4 post pt", "length": "60"}
        self.ask("put", f"/rack/boards/{uuid.uuid4()}", seen | board)
        self.stored_as(RackBoard, "4x4 post pt")
        self.spell("rack", "0003_names_spelled_one_way")
        self.assertEqual(RackBoard.objects.get().stock_key, "4x4 treated")

    def test_two_lines_that_become_one_name_both_stay(self) -> None:
        rows = b"yard,stock,length,price\nBell Yard,2x4 treated,8ft,5\nBell Yard,2x6,8ft,6\n"
        self.take_prices(rows)
        PriceLine.objects.filter(stock="2x6").update(stock="2x4 pt", stock_key="2x4 pt")
        self.spell("yards", "0006_names_spelled_one_way")
        keys = sorted(PriceLine.objects.values_list("stock_key", flat=True))
        self.assertEqual(keys, ["2x4 pt", "2x4 treated"])
