"""The shop: set-ups of a plan, what happens at the bench taken in once, and the end of it."""

import io
import json
import uuid
from typing import Any

from pypdf import PdfReader

from server.plans.models import Plan
from server.rack.models import RackBoard
from server.shop.models import Cutting, CuttingEvent
from server.tests.base import ApiTestCase


class ShopTestCase(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        (yard,) = self.take_prices(
            b"yard,stock,length,price,per,available\nBell Yard,2x4,8ft,4.18,each,6\n"
            b"Bell Yard,2x4,10ft,6,each,6\n"
        )
        # by hand: 96 − 1/2 of trim holds 60 and 30, and 5 1/4 are left over: two boards of 8 ft
        self.project = self.new_project("2 post 2x4 60\n2 rail 2x4 30", yard=yard["id"])

    def new_cutting(self) -> dict[str, Any]:
        answer = self.ask(
            "post", f"/projects/{self.project['id']}/cuttings", {"id": str(uuid.uuid4())}
        )
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def tell(self, cutting: dict[str, Any], *events: dict[str, Any]) -> dict[str, Any]:
        told = [{"id": str(uuid.uuid4()), **event} for event in events]
        answer = self.ask("post", f"/cuttings/{cutting['id']}/events", {"events": told})
        self.assertEqual(answer.status_code, 200, answer.content)
        return answer.json()

    def refused(self, cutting: dict[str, Any], **event: Any) -> str:
        answer = self.tell(cutting, event)
        self.assertEqual(len(answer["refused"]), 1, answer)
        return answer["refused"][0]["message"]

    def finish(self, cutting: dict[str, Any]) -> Any:
        body = {"change_id": str(uuid.uuid4())}
        return self.ask("post", f"/cuttings/{cutting['id']}/finish", body)

    def every(self, cutting: dict[str, Any]) -> list[str]:
        cards = cutting["by_stop"]["cards"]
        return [cut["key"] for card in cards for row in card["rows"] for cut in row["cuts"]]


class SetUpsTest(ShopTestCase):
    def test_the_set_ups_of_a_plan_before_anything_is_begun(self) -> None:
        shop = self.ask("get", f"/projects/{self.project['id']}/shop").json()
        self.assertIsNone(shop["id"])
        self.assertFalse(Cutting.objects.exists())
        cards = shop["by_stop"]["cards"]
        self.assertEqual([card["do"] for card in cards], ["crosscut", "crosscut"])
        self.assertEqual([card["at"]["text"] for card in cards], ["60″", "30″"])
        # the ends are trimmed where the saw stands square anyway, the stop is not touched for it
        first = [cut["to_line"] for cut in cards[0]["rows"][0]["cuts"]]
        self.assertEqual(first, [True, False])
        self.assertEqual(cards[0]["tells"], "2 post (A), 2x4")
        self.assertEqual([row["off"] for row in cards[0]["rows"]], ["1 × A", "1 × A"])
        self.assertIn("sound wood", " ".join(cards[0]["notes"]))
        self.assertNotIn("sound wood", " ".join(cards[1]["notes"]))
        self.assertEqual((shop["by_stop"]["moves"], shop["by_board"]["moves"]), (2, 4))
        self.assertEqual((shop["by_stop"]["lifts"], shop["by_board"]["lifts"]), (4, 2))
        self.assertEqual((shop["by_stop"]["swings"], shop["by_stop"]["walks"]), (0, 0))
        self.assertTrue(shop["by_stop"]["fewest"])
        keys = self.every(shop)
        self.assertEqual((len(keys), len(set(keys))), (6, 6))

    def test_the_stop_is_told_beyond_the_fence(self) -> None:
        shop = self.ask("get", f"/projects/{self.project['id']}/shop").json()
        self.assertIn(
            "The stop is 40″ beyond the fence: add an extension.",
            shop["by_stop"]["cards"][0]["notes"],
        )

    def test_labels_say_what_is_written_on_each_piece(self) -> None:
        shop = self.ask("get", f"/projects/{self.project['id']}/shop").json()
        told = [(one["label"], one["name"], one["length"]["text"]) for one in shop["labels"]]
        self.assertEqual(
            told,
            [
                ("A1", "post", "60″"),
                ("A2", "post", "60″"),
                ("B1", "rail", "30″"),
                ("B2", "rail", "30″"),
            ],
        )

    def test_a_project_without_parts_has_nothing_to_cut(self) -> None:
        empty = self.ask(
            "post", "/projects", {"id": str(uuid.uuid4()), "name": "Bare", "unit": "in"}
        )
        answer = self.ask("get", f"/projects/{empty.json()['id']}/shop")
        self.assertEqual(answer.status_code, 422)
        self.assertIn("nothing to cut", answer.json()["detail"])


class ShapedTest(ShopTestCase):
    """Parts of which more is sawn once they are cut."""

    def setUp(self) -> None:
        super().setUp()
        lines = (
            "quantity\tname\tstock\tlength\tends\tnotches\n"
            "1\tframe\t2x4\t20\t45 45\t\n"
            "1\tsill\t2x4\t24\t\t1 x 2 at top right\n"
            "1\tpicket\t2x4\t24\tpoint 45, 0\t\n"
        )
        self.change(self.project, "post", "/parts", text=lines)

    def test_they_are_cards_like_others_and_all_is_cut_only_with_them(self) -> None:
        cutting = self.new_cutting()
        self.assertEqual(cutting["not_yet"], [])
        cards = cutting["by_stop"]["cards"]
        shaped = [
            (card["tool"], cut["makes"], cut["labels"], cut["line"], cut["key"])
            for card in cards
            for row in card["rows"]
            for cut in row["cuts"]
            if cut["shape"]
        ]
        self.assertEqual([one[:3] for one in shaped].count(("jig saw", "notch", ["D1"])), 1)
        self.assertEqual([one[1] for one in shaped].count("point of the marked end"), 2)
        self.assertIn("22″ × 0″, 22″ × 1″, 24″ × 1″", " ".join(one[3] for one in shaped))
        (length,) = [one for one in cutting["labels"] if one["label"] == "C1"]
        self.assertEqual((length["length"]["text"], length["measured"]), ("20″", "over all"))
        keys = self.every(cutting)
        last = [key for key in keys if int(key.split(".")[1]) >= 100_000]
        self.assertEqual(len(last), 3)
        some = self.tell(cutting, {"kind": "cut", "cuts": " ".join(set(keys) - set(last))})
        self.assertEqual(set(keys) - set(some["done"]), set(last))
        points = sorted(one[4] for one in shaped if one[1].startswith("point"))
        after = self.tell(cutting, {"kind": "cut", "cuts": points[-1]})  # the other was before it
        self.assertEqual(set(keys) - set(after["done"]), set(last) - set(points))

    def test_they_are_on_paper(self) -> None:
        answer = self.client.get(f"/api/projects/{self.project['id']}/shop-sheet.pdf")
        self.assertEqual(answer.status_code, 200)
        pages = PdfReader(io.BytesIO(answer.getvalue())).pages
        said = " ".join(" ".join(page.extract_text() for page in pages).split())
        self.assertIn("lines through 22″ × 0″", said)
        self.assertIn("C1 is 20″ over all", said)

    def test_one_that_was_spoiled_is_said_to_be_lost(self) -> None:
        cutting = self.new_cutting()
        key = next(one for one in self.every(cutting) if int(one.split(".")[1]) >= 100_000)
        self.tell(cutting, {"kind": "cut", "cuts": key})
        self.assertIn(
            "say that it is lost", self.refused(cutting, kind="miscut", cuts=key, now="9")
        )


class BenchTest(ShopTestCase):
    def test_cuts_are_done_once_on_however_many_devices(self) -> None:
        cutting = self.new_cutting()
        self.assertEqual(self.new_cutting()["id"], cutting["id"])
        event = {"id": str(uuid.uuid4()), "kind": "cut", "cuts": "1.1 1.2"}
        first = self.tell(cutting, event)
        self.assertEqual(first["done"], ["1.1", "1.2"])
        again = self.tell(cutting, event)  # the same event, sent twice
        other = self.tell(cutting, {"kind": "cut", "cuts": "1.2 2.1"})  # another device
        self.assertEqual((again["done"], again["refused"]), (["1.1", "1.2"], []))
        self.assertEqual((other["done"], other["refused"]), (["1.1", "1.2", "2.1"], []))
        self.assertEqual(CuttingEvent.objects.count(), 2)
        undone = self.tell(cutting, {"kind": "undone", "undoes": other["last"]["id"]})
        self.assertEqual(undone["done"], ["1.1", "1.2"])  # the first device cut it, too
        self.assertEqual(undone["last"]["id"], event["id"])

    def test_a_miscut_is_planned_again_and_told(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "cut", "cuts": "1.1 2.1"})
        after = self.tell(cutting, {"kind": "miscut", "cuts": "1.2", "now": "59"})
        self.assertEqual(after["said"], "A1 comes from one more 2x4 8 ft, $4.18: board 3")
        self.assertIn("1.2", after["done"])
        self.assertEqual([b["number"] for b in after["boards"] if b["is_more"]], [3])
        pieces = {one["called"]: one["length"]["text"] for one in after["boards"][0]["pieces"]}
        self.assertIn("59″", pieces.values())
        self.assertEqual(len(set(self.every(after))), len(self.every(after)))
        came_to = CuttingEvent.objects.get(kind="miscut").came_to
        self.assertEqual(len(came_to["boards"]), 2)
        back = self.tell(cutting, {"kind": "undone", "undoes": after["last"]["id"]})
        self.assertEqual((back["said"], len(back["boards"])), ("", 2))

    def test_a_board_more_is_not_one_that_the_yard_has_not(self) -> None:
        cutting = self.new_cutting()
        for n in range(12):
            cutting = self.tell(cutting, {"kind": "lost", "board": n + 1})
        self.assertEqual(cutting["missing"], ["A1", "A2", "B1", "B2"])
        self.assertIn("there is no board for", cutting["said"])

    def test_everything_that_is_refused(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "cut", "cuts": "1.1"})
        for event, said in (
            ({"kind": "cut", "cuts": "7.1"}, "cut otherwise now"),
            ({"kind": "cut", "cuts": "nothing"}, "is no cut"),
            ({"kind": "miscut", "cuts": "1.2", "now": "61"}, "take so much off at the same stop"),
            ({"kind": "miscut", "cuts": "1.2", "now": "120"}, "was only 95 1/2″"),
            ({"kind": "miscut", "cuts": "1.1", "now": "3"}, "say how long the board is"),
            ({"kind": "length", "board": 1, "now": "95 3/4"}, "not there any more"),
            ({"kind": "length", "board": 2, "now": "-4"}, "more than nothing"),
            ({"kind": "flaw", "board": 2, "start": "90", "end": "99"}, "lies beyond the end"),
            ({"kind": "lost", "board": 9}, "there is no board 9"),
            ({"kind": "undone", "undoes": str(uuid.uuid4())}, "nothing of that kind"),
        ):
            with self.subTest(event=event):
                self.assertIn(said, self.refused(cutting, **event))
        nothing = {"events": [{"id": str(uuid.uuid4()), "kind": "burnt"}]}
        answer = self.ask("post", f"/cuttings/{cutting['id']}/events", nothing)
        self.assertIn("nothing that happens at a bench", self.problems(answer)["kind"])
        self.assertEqual(CuttingEvent.objects.count(), 1)

    def test_what_a_phone_stored_before_an_upgrade_is_taken_in(self) -> None:
        cutting = self.new_cutting()
        first = {"id": str(uuid.uuid4()), "kind": "cut", "cuts": "1.1", "board": 0, "piece": 0}
        old = {**first, "now": "", "start": "", "end": "", "undoes": "", "weather": "dry"}
        self.assertEqual(self.tell(cutting, old)["done"], ["1.1"])

    def test_the_project_goes_on_at_the_desk(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "cut", "cuts": "1.1 1.2"})
        part = self.project["parts"][1]
        body = {"version": self.project["version"], "change_id": str(uuid.uuid4()), "length": "31"}
        self.ask("patch", f"/projects/{self.project['id']}/parts/{part['id']}", body)
        now = self.ask("get", f"/projects/{self.project['id']}/shop").json()
        self.assertEqual(now["changed"], ["B: 30″ → 31″"])
        self.assertEqual((now["id"], now["done"]), (cutting["id"], ["1.1", "1.2"]))
        ats = [card["at"]["text"] for card in now["by_stop"]["cards"] if card["at"]]
        self.assertEqual(ats, ["60″", "30″"])  # what is begun stays

    def test_nothing_of_somebody_else_s(self) -> None:
        cutting = self.new_cutting()
        other = self.other_client()
        for method, path, body in (
            ("get", f"/api/projects/{self.project['id']}/shop", None),
            ("post", f"/api/projects/{self.project['id']}/cuttings", {"id": str(uuid.uuid4())}),
            ("get", f"/api/cuttings/{cutting['id']}", None),
            ("post", f"/api/cuttings/{cutting['id']}/events", {"events": []}),
            ("post", f"/api/cuttings/{cutting['id']}/finish", {"change_id": str(uuid.uuid4())}),
            ("post", f"/api/cuttings/{cutting['id']}/open-again", {"change_id": str(uuid.uuid4())}),
            ("delete", f"/api/cuttings/{cutting['id']}", None),
        ):
            answer = other.generic(
                method.upper(), path, json.dumps(body) if body else "", "application/json"
            )
            self.assertEqual(answer.status_code, 404, path)
        self.assertEqual(CuttingEvent.objects.count(), 0)


class FinishedTest(ShopTestCase):
    def test_all_cut(self) -> None:
        cutting = self.new_cutting()
        cutting = self.tell(cutting, {"kind": "cut", "cuts": " ".join(self.every(cutting))})
        done = self.finish(cutting).json()
        self.assertTrue(done["finished"])
        shop = self.ask("get", f"/projects/{self.project['id']}/shop").json()
        self.assertEqual((shop["id"], shop["finished"]), (cutting["id"], True))
        plan = self.look(self.project["id"])["plan"]
        self.assertEqual((plan["stage"], plan["tally"]["boards"]), ("cut", 2))
        self.assertEqual(plan["tally"]["cost"], "$8.36")
        late = self.ask(
            "post",
            f"/cuttings/{cutting['id']}/events",
            {"events": [{"id": str(uuid.uuid4()), "kind": "cut", "cuts": "1.1"}]},
        ).json()
        self.assertIn("put away", late["refused"][0]["message"])
        again = self.ask(
            "post", f"/cuttings/{cutting['id']}/open-again", {"change_id": str(uuid.uuid4())}
        ).json()
        self.assertFalse(again["finished"])
        self.assertFalse(Plan.objects.filter(stage=Plan.Stage.CUT).exists())

    def test_all_cut_with_a_board_more(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "miscut", "cuts": "1.2", "now": "59"})
        cutting = self.tell(cutting, {"kind": "cut", "cuts": " ".join(self.every(cutting))})
        self.finish(cutting)
        plan = self.look(self.project["id"])["plan"]
        self.assertEqual((plan["stage"], plan["tally"]["cost"]), ("cut", "$12.54"))
        kept = sorted(RackBoard.objects.values_list("length", flat=True))
        # by hand: the 59 that was cut wrong, and of board 3 96 − 1/2 − 60 − 1/8; what is left of
        # board 1 is 96 − 1/2 − 59 − 1/8 − 30 − 1/8, too short to keep
        self.assertEqual(kept, ["35 3/8", "59"])
        again = {"change_id": str(uuid.uuid4())}
        self.ask("post", f"/cuttings/{cutting['id']}/open-again", again)
        plan = self.look(self.project["id"])["plan"]  # the desk's own, not what a miscut made of it
        self.assertEqual((plan["stage"], plan["tally"]["cost"]), ("draft", "$8.36"))
        self.assertTrue(plan["tally"]["claim"]["proven"])

    def test_a_board_keeps_the_number_that_is_written_on_it(self) -> None:
        (yard,) = self.take_prices(
            b"yard,stock,length,price,per,available\nTwo Woods,2x4,8ft,4.18,each,6\n"
            b"Two Woods,2x6,8ft,6,each,6\n"
        )
        self.project = self.new_project("2 post 2x4 60\n1 sill 2x6 60", yard=yard["id"])
        cutting = self.new_cutting()
        wrong = next(
            cut["key"]
            for card in cutting["by_stop"]["cards"]
            for row in card["rows"]
            for cut in row["cuts"]
            if cut["labels"] == ["A1"]
        )
        cutting = self.tell(cutting, {"kind": "miscut", "cuts": wrong, "now": "40"})
        self.assertIn("board 4", cutting["said"])  # after two of 2x4 and one of 2x6
        self.tell(cutting, {"kind": "cut", "cuts": " ".join(self.every(cutting))})
        self.finish(cutting)
        woods = self.look(self.project["id"])["plan"]["materials"]
        numbers = [[one["first"] for one in wood["layouts"]] for wood in woods]
        self.assertEqual(sorted(n for some in numbers for n in some), [2, 3, 4])
        self.assertIn(4, numbers[0])
        self.assertEqual(numbers[1], [3])

    def test_a_piece_cut_too_short_to_keep_is_not_laid_on_the_rack(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "miscut", "cuts": "1.2", "now": "8"})
        cutting = self.tell(cutting, {"kind": "cut", "cuts": " ".join(self.every(cutting))})
        self.finish(cutting)
        self.assertNotIn("8", RackBoard.objects.values_list("length", flat=True))

    def test_put_away_half_way(self) -> None:
        cutting = self.tell(self.new_cutting(), {"kind": "cut", "cuts": "1.1 1.2 1.3"})
        self.finish(cutting)
        lengths = sorted(RackBoard.objects.values_list("length", flat=True))
        self.assertEqual(lengths, ["96"])  # the board that was not begun
        plan = self.ask("post", f"/projects/{self.project['id']}/plans").json()
        self.assertEqual(sum(plan["cut"].values()), 2)
        self.assertEqual(plan["tally"]["boards"], 1)
        more = self.new_cutting()
        self.assertNotEqual(more["id"], cutting["id"])
        self.assertEqual(len(self.every(more)), 3)

    def test_nothing_cut_is_called_off(self) -> None:
        cutting = self.new_cutting()
        self.assertIn("nothing is cut yet", self.finish(cutting).json()["detail"])
        self.assertEqual(self.ask("delete", f"/cuttings/{cutting['id']}").status_code, 204)
        begun = self.tell(self.new_cutting(), {"kind": "cut", "cuts": "1.1"})
        self.assertEqual(self.ask("delete", f"/cuttings/{begun['id']}").status_code, 422)

    def test_boards_of_the_rack_that_were_not_begun_stay_there(self) -> None:
        for length in ("96", "96"):
            rack = self.ask("get", "/rack").json()
            body = {"version": rack["version"], "change_id": str(uuid.uuid4())}
            body |= {"stock": "2x4", "length": length, "note": "from the shed"}
            self.ask("put", f"/rack/boards/{uuid.uuid4()}", body)
        self.change(self.project, "patch", "", rack="always")
        cutting = self.new_cutting()
        cutting = self.tell(cutting, {"kind": "flaw", "board": 1, "start": "93", "end": "95"})
        cutting = self.tell(cutting, {"kind": "cut", "cuts": "1.1 1.2"})
        self.finish(cutting)
        rest = {row.note: row for row in RackBoard.objects.all()}
        self.assertEqual(rest["from the shed"].number, 2)
        # by hand: 96 − 1/2 − 60 − 1/8 of board 1 lie there, bad from 93 − 60 5/8 on
        piece = next(row for note, row in rest.items() if note.endswith("board 1"))
        self.assertEqual((piece.length, piece.flaws), ("35 3/8", "32 3/8 to 34 3/8"))

    def test_what_is_marked_cut_is_not_cut_again(self) -> None:
        plan = self.project["plan"]["id"]
        self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        answer = self.ask("get", f"/projects/{self.project['id']}/shop")
        self.assertIn("all of it is marked cut", answer.json()["detail"])


class PaperTest(ShopTestCase):
    def text(self, path: str) -> str:
        answer = self.ask("get", f"/projects/{self.project['id']}/{path}")
        self.assertEqual(answer.status_code, 200, answer.content[:300])
        pages = PdfReader(io.BytesIO(answer.getvalue())).pages
        return " ".join(page.extract_text() for page in pages)

    def test_the_shop_sheet_has_every_set_up(self) -> None:
        for paper in ("shop-sheet.pdf", "shop-sheet.pdf?by_board=true&paper=a4"):
            said = self.text(paper)
            for words in ("60″", "30″", "A1", "B2", "sound wood", "mark every board", "board 2"):
                self.assertIn(words, said)

    def test_labels_on_plain_paper_and_on_sheets(self) -> None:
        said = self.text("part-labels.pdf")
        for words in ("A1", "A2", "B1", "B2", "post", "60″", "board 1"):
            self.assertIn(words, said)
        sheet = "columns=3&rows=10&wide=2+5/8&high=1&left=3/16&top=1/2&apart=1/8&below=0"
        self.assertIn("rail", self.text(f"part-labels.pdf?{sheet}"))

    def test_measures_of_a_sheet_that_cannot_be(self) -> None:
        path = f"/projects/{self.project['id']}/part-labels.pdf"
        for query, place, said in (
            ("columns=none&rows=2&wide=2&high=1", "columns", "from 1 to 40"),
            ("columns=9&rows=2&wide=2&high=1", "columns", "wider than the paper"),
            ("columns=2&rows=20&wide=2&high=1", "rows", "longer than the paper"),
            ("columns=2&rows=2&wide=0&high=1", "wide", "at least a quarter inch"),
            ("columns=2&rows=2&wide=2&high=tall", "high", "a number is expected"),
        ):
            told = self.problems(self.ask("get", f"{path}?{query}"))
            self.assertIn(said, told[place])
