import uuid
from typing import Any
from unittest.mock import patch

from carpentry.tests import often
from carpentry.tests.samples import sample
from server.tests.base import ApiTestCase, RackTestCase
from server.tests.demo import load_demo
from server.trips.models import Trip


class TripTestCase(RackTestCase):
    """Three 90 in legs and a 110 in rail: three 8 ft boards and a 10 ft one of 2x4 treated."""

    def setUp(self) -> None:
        super().setUp()
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        self.project = self.new_project(
            "3 leg 2x4 treated 90\n1 rail 2x4 treated 110", yard=self.yard
        )
        self.trip = self.begin()

    def begin(self) -> dict[str, Any]:
        path = f"/projects/{self.project['id']}/trips"
        answer = self.ask("post", path, {"id": str(uuid.uuid4())})
        self.assertEqual(answer.status_code, 200, answer.content)
        return dict(answer.json())

    def tell(self, *events: dict[str, Any]) -> dict[str, Any]:
        told = [{"id": str(uuid.uuid4())} | event for event in events]
        answer = self.ask("post", f"/trips/{self.trip['id']}/events", {"events": told})
        self.assertEqual(answer.status_code, 200, answer.content)
        self.trip = answer.json()
        return self.trip

    def refused(self, **event: Any) -> str:
        refused = self.tell(event)["refused"]
        self.assertEqual(len(refused), 1)
        return str(refused[0]["message"])

    def line(self, key: str) -> dict[str, Any]:
        lines = [line for rack in self.trip["racks"] for line in rack["lines"]]
        return next(line for line in lines if line["key"] == key)

    def counts(self) -> dict[str, int]:
        return {
            line["key"]: line["wanted"]
            for rack in self.trip["racks"]
            for line in rack["lines"]
            if line["wanted"]
        }


EIGHT, TEN = "2x4 treated 96", "2x4 treated 120"


class TripTest(TripTestCase):
    def test_begins_with_the_purchase_of_the_desk(self) -> None:
        listed = {
            f"{line['stock']} {int(line['named_length'].split()[0]) * 12}": line["count"]
            for line in self.project["plan"]["shopping"]["lines"]
        }
        self.assertEqual(self.counts(), listed)
        self.assertEqual(self.trip["total"], self.project["plan"]["shopping"]["total"])
        self.assertEqual(self.begin()["id"], self.trip["id"])

    def test_the_count_goes_down_and_up_again(self) -> None:
        before = self.line(EIGHT)
        self.tell({"kind": "took", "line": EIGHT})
        self.assertEqual(self.line(EIGHT)["taken"], 1)
        self.assertEqual(self.trip["taken"], 1)
        self.assertNotEqual(self.trip["in_cart"], "$0.00")
        self.tell({"kind": "put back", "line": EIGHT})
        self.assertEqual(self.line(EIGHT), before)
        self.assertIn("none of these", self.refused(kind="put back", line=EIGHT))

    def test_told_twice_it_happens_once(self) -> None:
        event = {"id": str(uuid.uuid4()), "kind": "took", "line": EIGHT}
        self.tell(event)
        self.tell(event, event)
        self.assertEqual(self.line(EIGHT)["taken"], 1)
        self.assertEqual(self.trip["seen"], [event["id"]])

    def test_a_price_on_the_tag_and_the_total_follows(self) -> None:
        before = self.trip["total"]
        self.tell({"kind": "tag", "line": EIGHT, "price": "9.99"})
        self.assertEqual(self.line(EIGHT)["tag"], "$9.99")
        self.assertNotEqual(self.trip["total"], before)
        self.assertIn("no amount", self.refused(kind="tag", line=EIGHT, price="cheap"))
        self.tell({"kind": "tag", "line": EIGHT, "price": ""})
        self.assertEqual(self.trip["total"], before)

    def test_none_of_these_is_planned_around(self) -> None:
        before = self.counts()
        self.assertEqual(before, {EIGHT: 3, TEN: 1})
        none = {"id": str(uuid.uuid4()), "kind": "only", "line": EIGHT, "count": 0}
        self.tell(none)
        self.assertNotIn(EIGHT, self.counts())
        self.assertIn("instead of 3 × 2x4 treated 8 ft", self.trip["said"])
        self.assertEqual(self.trip["said_by"], none["id"])
        self.tell({"kind": "undone", "undoes": none["id"]})
        self.assertEqual(self.counts(), before)
        self.assertEqual(self.trip["said_by"], "")

    def test_only_so_many_counts_what_is_ticked(self) -> None:
        self.tell({"kind": "took", "line": EIGHT, "count": 2})
        message = self.refused(kind="only", line=EIGHT, count=1)
        self.assertEqual(
            message, "2 of these are ticked already: put 1 back first, or count them in"
        )
        self.tell({"kind": "only", "line": EIGHT, "count": 3})
        self.assertEqual(self.line(EIGHT)["left"], 1)
        self.assertEqual(self.line(EIGHT)["wanted"], 3)

    def test_boards_in_the_cart_are_used_and_the_rest_is_cheapest(self) -> None:
        self.tell({"kind": "took", "line": EIGHT, "count": 1})
        self.tell({"kind": "only", "line": EIGHT, "count": 1})
        # two 90s and the 110: a 16 ft board at 12.10 holds both 90s (180 1/8 + trim), a 10 ft one
        # at 7.04 the 110
        self.assertEqual(self.counts(), {EIGHT: 1, "2x4 treated 192": 1, TEN: 1})
        self.assertEqual(self.line(EIGHT)["put_back"], 0)
        self.assertEqual(
            self.trip["said"],
            "1 × 2x4 treated 16 ft instead of 2 × 2x4 treated 8 ft: $1.74 more",
        )

    def test_nothing_is_left_anywhere(self) -> None:
        keys = [key for key in Trip.objects.get().lines() if key.startswith("2x4 treated")]
        self.tell(*({"kind": "only", "line": key, "count": 0} for key in keys))
        self.assertEqual(self.counts(), {})
        self.assertEqual(len(self.trip["left_out"]), 2)
        self.assertIn("3 × leg", self.trip["left_out"][0])

    def test_a_measured_board_is_kept_shortened_or_rejected(self) -> None:
        self.tell({"kind": "kept", "line": EIGHT, "length": "91", "bow": "1/4"})
        board = self.line(EIGHT)["boards"][0]
        self.assertEqual((board["length"]["text"], board["notes"]), ("91″", ["bow 1/4"]))
        self.assertEqual(self.line(EIGHT)["taken"], 1)
        one = self.trip["in_cart"]
        self.tell({"kind": "kept", "line": EIGHT, "length": "60"})
        self.assertEqual((one, self.trip["in_cart"]), ("$5.18", "$10.36"))
        self.assertEqual(self.line(EIGHT)["put_back"], 1)
        self.assertEqual([b["idle"] for b in self.line(EIGHT)["boards"]], [False, True])
        self.assertEqual(self.line(EIGHT)["taken"], 1)
        self.tell({"kind": "rejected", "line": EIGHT, "twist": "yes"})
        self.assertEqual(self.line(EIGHT)["taken"], 1)
        self.assertIn("twisted", self.refused(kind="kept", line=EIGHT, twist="yes"))
        self.assertIn("a number", self.refused(kind="kept", line=EIGHT, length="long"))
        self.assertIn("longer", self.refused(kind="kept", line=EIGHT, length="120"))

    def test_what_is_no_event_or_not_on_the_list(self) -> None:
        path = f"/trips/{self.trip['id']}/events"
        event = {"id": str(uuid.uuid4()), "kind": "stolen"}
        self.assertIn("kind", self.problems(self.ask("post", path, {"events": [event]})))
        self.assertIn("list", self.refused(kind="took", line="9x9 gold 12"))
        self.assertIn("undo", self.refused(kind="undone", undoes=str(uuid.uuid4())))
        self.assertIn("check", self.refused(kind="checked", line="luck"))

    def test_checks_are_ticked(self) -> None:
        self.tell({"kind": "checked", "line": "bow"})
        self.assertEqual([c["key"] for c in self.trip["checks"] if c["checked"]], ["bow"])

    def test_the_desk_changes_meanwhile(self) -> None:
        self.tell({"kind": "took", "line": EIGHT})
        self.project = self.change(
            self.project, "post", "/parts", text="2 slat 1x6 cedar 40"
        ).json()
        self.assertTrue(self.ask("get", f"/trips/{self.trip['id']}").json()["stale"])
        self.trip = self.ask("post", f"/trips/{self.trip['id']}/renew").json()
        self.assertFalse(self.trip["stale"])
        self.assertTrue(any(key.startswith("1x6 cedar") for key in self.counts()))
        self.assertEqual(self.line(EIGHT)["taken"], 1)

    def test_walking_order(self) -> None:
        self.project = self.change(
            self.project, "post", "/parts", text="2 slat 1x6 cedar 40"
        ).json()
        self.ask("post", f"/trips/{self.trip['id']}/renew")
        yard = self.ask("get", f"/yards/{self.yard}").json()
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        self.ask("patch", f"/yards/{self.yard}", seen | {"walk": "cedar, treated"})
        racks = self.ask("get", f"/trips/{self.trip['id']}").json()["racks"]
        self.assertEqual([rack["name"] for rack in racks], ["cedar", "treated"])

    def test_a_change_of_unit_changes_nothing_that_was_measured(self) -> None:
        self.tell({"kind": "kept", "line": EIGHT, "length": "91"})
        self.project = self.change(self.project, "patch", "", unit="mm").json()
        self.tell({"kind": "took", "line": EIGHT})
        board = self.line(EIGHT)["boards"][0]
        self.assertEqual(board["length"]["text"], "2311.4 mm")

    def test_what_could_not_be_planned_is_planned_next_time(self) -> None:
        with patch("server.trips.going.planned_aside", return_value=[]):
            self.tell({"kind": "only", "line": EIGHT, "count": 0})
        self.assertIn("no plan could be made", self.trip["said"])
        self.assertIn(EIGHT, self.counts())
        self.tell({"kind": "checked", "line": "bow"})
        self.assertIn("instead of 3 × 2x4 treated 8 ft", self.trip["said"])
        self.assertNotIn(EIGHT, self.counts())

    def test_begun_again_under_the_same_id(self) -> None:
        body = {"change_id": str(uuid.uuid4()), "put_away": False}
        self.ask("post", f"/trips/{self.trip['id']}/finish", body)
        path = f"/projects/{self.project['id']}/trips"
        again = self.ask("post", path, {"id": self.trip["id"]}).json()
        self.assertEqual(again["id"], self.trip["id"])
        self.assertIsNotNone(again["finished"])
        self.assertNotEqual(self.begin()["id"], self.trip["id"])

    def test_somebody_else(self) -> None:
        other = self.other_client()
        self.assertEqual(other.get(f"/api/trips/{self.trip['id']}").status_code, 404)

    def test_called_off(self) -> None:
        answer = self.ask("delete", f"/trips/{self.trip['id']}")
        self.assertEqual(answer.status_code, 204)
        self.assertEqual(Trip.objects.count(), 0)


class ReceiptTest(TripTestCase):
    def finish(self, *, put_away: bool = False) -> dict[str, Any]:
        body = {"change_id": str(uuid.uuid4()), "put_away": put_away}
        answer = self.ask("post", f"/trips/{self.trip['id']}/finish", body)
        self.assertEqual(answer.status_code, 200, answer.content)
        return dict(answer.json())

    def take_all(self) -> None:
        self.tell(
            *({"kind": "took", "line": key, "count": count} for key, count in self.counts().items())
        )

    def correct(self, **paid: str) -> Any:
        return self.ask("put", f"/trips/{self.trip['id']}/receipt", paid)

    def test_planned_against_paid(self) -> None:
        self.take_all()
        self.assertEqual(self.finish()["told"], "paid what was planned")
        answer = self.correct(line=EIGHT, price="5.68")
        line = next(li for li in answer.json()["lines"] if li["key"] == EIGHT)
        self.assertEqual(line["paid_price"], "$5.68")
        self.assertTrue(line["dearer"])
        self.assertTrue(answer.json()["over"])
        self.assertIn("more than planned", answer.json()["told"])
        self.assertEqual(self.correct(line=EIGHT, price="").json()["told"], "paid what was planned")
        self.assertIn("count", self.problems(self.correct(line=EIGHT, count="-1")))
        self.assertIn("", self.problems(self.correct(line=EIGHT, price="much")))

    def test_prices_paid_feed_the_history_of_the_yard(self) -> None:
        self.tell({"kind": "tag", "line": EIGHT, "price": "6.05"})
        self.take_all()
        self.assertEqual(self.finish()["learns"], 1)
        path = f"/trips/{self.trip['id']}/keep-prices"
        answer = self.ask("post", path, {"change_id": str(uuid.uuid4())})
        self.assertEqual(answer.status_code, 200, answer.content)
        yard = self.ask("get", f"/yards/{self.yard}?find=2x4 treated").json()
        line = next(li for li in yard["lines"] if li["length"] in ("8ft", "96", "8'"))
        self.assertEqual((line["price"], line["per"]), ("6.05", "each"))
        history = self.ask("get", f"/yards/{self.yard}/lines/{line['id']}/prices").json()
        self.assertEqual([point["price"] for point in history][:1], ["6.05"])
        self.assertGreater(len(history), 1)

    def test_a_yard_that_changed_its_currency(self) -> None:
        self.tell({"kind": "tag", "line": EIGHT, "price": "6.05"})
        self.take_all()
        self.finish()
        yard = self.ask("get", f"/yards/{self.yard}").json()
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        self.ask("patch", f"/yards/{self.yard}", seen | {"currency": "EUR"})
        answer = self.ask(
            "post", f"/trips/{self.trip['id']}/keep-prices", {"change_id": str(uuid.uuid4())}
        )
        self.assertIn("not mixed", self.problems(answer)["yard"])

    def test_boards_are_laid_on_the_rack_and_planned_from(self) -> None:
        self.tell({"kind": "kept", "line": EIGHT, "length": "95", "bow": "1/4"})
        for key, count in self.counts().items():
            more = count - self.line(key)["taken"]
            if more:
                self.tell({"kind": "took", "line": key, "count": more})
        boards = sum(self.counts().values())
        self.assertEqual(self.finish(put_away=True)["laid"], boards)
        rack = self.ask("get", "/rack").json()["boards"]
        self.assertEqual(len(rack), boards)
        self.assertIn("1/4", [board["bow"] for board in rack])
        project = self.look(self.project["id"])
        self.assertEqual(project["plan"]["tally"]["boards"], 0)
        self.assertEqual(project["plan"]["tally"]["owned"], boards)
        again = {"change_id": str(uuid.uuid4())}
        opened = self.ask("post", f"/trips/{self.trip['id']}/open-again", again)
        self.assertEqual(opened.status_code, 200, opened.content)
        self.assertEqual(self.ask("get", "/rack").json()["boards"], [])

    def test_a_finished_trip_takes_nothing_more(self) -> None:
        self.finish()
        told = {"events": [{"id": str(uuid.uuid4()), "kind": "took", "line": EIGHT}]}
        answer = self.ask("post", f"/trips/{self.trip['id']}/events", told)
        self.assertIn("finished", answer.json()["refused"][0]["message"])
        self.assertEqual(self.ask("delete", f"/trips/{self.trip['id']}").status_code, 422)
        rows = self.ask("get", f"/projects/{self.project['id']}/trips").json()
        self.assertEqual(len(rows), 1)


class NoTripTest(ApiTestCase):
    def test_without_a_yard_or_anything_to_buy(self) -> None:
        project = self.new_project("2 leg 2x4 70")
        body = {"id": str(uuid.uuid4())}
        answer = self.ask("post", f"/projects/{project['id']}/trips", body)
        self.assertIn("choose a yard", self.problems(answer)["yard"])
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        project = self.new_project("", yard=yard)
        answer = self.ask("post", f"/projects/{project['id']}/trips", body)
        self.assertIn("nothing to buy", self.problems(answer)["plan"])

    def test_a_stock_that_the_yard_does_not_list(self) -> None:
        yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        project = self.new_project("2 leg 2x10 70", yard=yard)
        trip = self.ask(
            "post", f"/projects/{project['id']}/trips", {"id": str(uuid.uuid4())}
        ).json()
        line = trip["racks"][0]["lines"][0]
        self.assertIsNone(line["price"])
        self.assertEqual(trip["unpriced"], line["wanted"])
        event = {"id": str(uuid.uuid4()), "kind": "only", "line": line["key"], "count": 0}
        trip = self.ask("post", f"/trips/{trip['id']}/events", {"events": [event]}).json()
        self.assertIn("instead of", trip["said"])


class PacksAtTheYardTest(TripTestCase):
    """Forty screws: two packs of 20 at 3.00 are cheapest, then a 50 at 6.50, then singles."""

    TWENTY, FIFTY = "pack screw 2 pack of 20", "pack screw 2 pack of 50"

    def setUp(self) -> None:
        RackTestCase.setUp(self)
        self.yard = self.take_prices(sample("tallow-street.prices.csv"))[0]["id"]
        yard = self.ask("get", f"/yards/{self.yard}").json()
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        packs = "screw 2in, 20, 3.00\nscrew 2in, 50, 6.50"
        self.ask("patch", f"/yards/{self.yard}", seen | {"packs": packs})
        project = self.new_project("1 leg 2x4 treated 90", yard=self.yard)
        self.project = self.change(project, "patch", "", hardware="40 screw 2in").json()
        self.trip = self.begin()

    def test_other_packs_where_one_is_missing(self) -> None:
        self.assertEqual(self.counts(), {EIGHT: 1, self.TWENTY: 2})
        none = {"kind": "only", "line": self.TWENTY, "count": 0}
        self.tell(none)
        self.assertEqual(self.counts(), {EIGHT: 1, self.FIFTY: 1})
        self.assertIn("1 × screw 2″, pack of 50 instead of 2 × screw", self.trip["said"])

    def test_what_is_in_the_cart_counts_first(self) -> None:
        self.tell({"kind": "took", "line": self.TWENTY})
        self.tell({"kind": "only", "line": self.TWENTY, "count": 1})
        self.assertEqual(self.counts(), {EIGHT: 1, self.TWENTY: 1, self.FIFTY: 1})

    def test_what_a_pack_cost_is_learned(self) -> None:
        self.tell({"kind": "took", "line": self.TWENTY, "count": 2})
        self.tell({"kind": "tag", "line": self.TWENTY, "price": "3.40"})
        body = {"change_id": str(uuid.uuid4())}
        trip = f"/trips/{self.trip['id']}"
        finished = self.ask("post", f"{trip}/finish", body | {"put_away": False}).json()
        self.assertEqual(finished["learns"], 1)
        kept = self.ask("post", f"{trip}/keep-prices", body).json()
        self.assertEqual(kept["learns"], 0)
        yard = self.ask("get", f"/yards/{self.yard}").json()
        self.assertEqual(yard["packs"], "screw 2in, 20, 3.40\nscrew 2in, 50, 6.50")
        seen = {"version": yard["version"], "change_id": str(uuid.uuid4())}
        undone = self.ask("post", f"/yards/{self.yard}/undo", seen).json()
        self.assertIn("screw 2in, 20, 3.00", undone["packs"])

    def test_too_few_of_all(self) -> None:
        self.tell(
            {"kind": "only", "line": self.TWENTY, "count": 1},
        )
        self.tell({"kind": "only", "line": self.FIFTY, "count": 0})
        self.assertEqual(self.counts(), {EIGHT: 1, self.TWENTY: 1})
        self.assertEqual(self.trip["left_out"], ["20 × screw 2″: the packs are too few"])


class EveryDemoTripTest(ApiTestCase):
    """The demo workshop at the yard: whatever is missing, what is wanted can be had there."""

    def setUp(self) -> None:
        load_demo()
        super().setUp()
        self.ask("post", "/session/demo")

    def begin(self, project: str) -> dict[str, Any]:
        body = {"id": str(uuid.uuid4())}
        return dict(self.ask("post", f"/projects/{project}/trips", body).json())

    def tell(self, trip: dict[str, Any], **event: Any) -> dict[str, Any]:
        told = {"id": str(uuid.uuid4())} | event
        answer = self.ask("post", f"/trips/{trip['id']}/events", {"events": [told]})
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(answer.json()["refused"], [])
        return dict(answer.json())

    def wanted(self, trip: dict[str, Any]) -> dict[str, int]:
        lines = [line for rack in trip["racks"] for line in rack["lines"]]
        for line in lines:
            if line["left"] is not None:
                self.assertLessEqual(line["wanted"], line["taken"] + line["left"], line["key"])
        return {line["key"]: line["wanted"] for line in lines if line["wanted"]}

    def test_it_begins_as_the_desk_has_it(self) -> None:
        for row in self.ask("get", "/overview").json():
            project = self.look(row["id"])
            trip = self.begin(row["id"])
            shopping = project["plan"]["shopping"]
            self.assertEqual(trip["total"], shopping["total"], row["name"])
            boards = sum(line["count"] for line in shopping["lines"])
            racks = [rack for rack in trip["racks"] if rack["name"] != "hardware"]
            listed = sum(line["wanted"] for rack in racks for line in rack["lines"])
            self.assertEqual(listed, boards, row["name"])

    def test_each_line_is_missing_once(self) -> None:
        for row in self.ask("get", "/overview").json()[: often(2, 20)]:
            trip = self.begin(row["id"])
            before = self.wanted(trip)
            for key in before:
                changed = self.tell(trip, kind="only", line=key, count=0)
                now = self.wanted(changed)
                self.assertNotIn(key, now, row["name"])
                self.assertTrue(changed["said"])
                if now == {one: n for one, n in before.items() if one != key}:
                    self.assertTrue(changed["left_out"], (row["name"], key))
                trip = self.tell(trip, kind="undone", undoes=changed["said_by"])
                self.assertEqual(sum(self.wanted(trip).values()), sum(before.values()))

    def test_all_of_it_is_taken_and_put_away(self) -> None:
        for row in self.ask("get", "/overview").json()[: often(3, 20)]:
            trip = self.begin(row["id"])
            for key, count in self.wanted(trip).items():
                trip = self.tell(trip, kind="took", line=key, count=count)
            self.assertEqual((trip["taken"], trip["in_cart"]), (trip["wanted"], trip["total"]))
            body = {"change_id": str(uuid.uuid4()), "put_away": True}
            receipt = self.ask("post", f"/trips/{trip['id']}/finish", body).json()
            self.assertIn(receipt["told"], {"paid what was planned"}, row["name"])
            project = self.look(row["id"])
            hardware = project["plan"]["shopping"]["hardware"]
            bought = [line for line in hardware["lines"] if line["packs"]]
            self.assertEqual(bought, [], row["name"])
