"""A trip to the yard, without a server: events, the cart, and what is said of it."""

import json
import random
from collections import Counter
from dataclasses import replace
from decimal import Decimal
from fractions import Fraction
from typing import Any
from unittest import TestCase

from carpentry.buying import PriceFields, Tax, read_price_line
from carpentry.cutting import plan_cuts
from carpentry.design import PartFields, read_part
from carpentry.language import CarpentryError, Notation, Unit
from carpentry.lumber import INCHES, read_stock
from carpentry.lumber.rack import OnHand
from carpentry.project import (
    NamedPart,
    SettingFields,
    Shelf,
    gather_materials,
    read_settings,
    standard_lines,
)
from carpentry.tests.problems import ticks
from carpentry.tests.samples import sample
from carpentry.trip import (
    Cart,
    Event,
    EventKind,
    Line,
    PaidLine,
    Wanted,
    cart_of,
    change_told,
    lines_of,
    load_of,
    purchase_of,
    racks_of,
    receipt_of,
    together,
    total_of,
    touched_by,
)

NO_TAX = Tax(Decimal(0), included=False)
EIGHT, TEN, CEDAR = "2x4 treated 96", "2x4 treated 120", "1x6 cedar 96"
LIST = [
    read_price_line(PriceFields(**row), INCHES)
    for row in (
        {"stock": "2x4 treated", "length": "8ft", "price": "5.00", "actual": "96 1/8"},
        {"stock": "2x4 treated", "length": "10ft", "price": "0.70", "per": "ft", "available": "4"},
        {"stock": "1x6 cedar", "length": "8ft"},
    )
]
PACK = Line("pack screw 2 pack of 100", "screw", Decimal("8.60"), length=ticks("2"), holds=100)


def lines() -> dict[str, Line]:
    return lines_of(LIST, whole_inches=False) | {PACK.key: PACK}


def cart(*events: Event) -> Cart:
    return cart_of(events, lines(), INCHES)


def took(line: str, count: int = 1, id: str = "") -> Event:
    return Event(id or f"took {line} {count}", EventKind.TOOK, line, count)


class SharedCartsTest(TestCase):
    """The carts that the phone counts, too: no event is counted in two ways."""

    def state(self, given: Any, happened: list[Any]) -> dict[str, Any]:
        listed = Decimal(given["listed"]) if given["listed"] else None
        line = replace(lines()[EIGHT], price=listed, available=given["available"])
        events = [
            Event(one["id"], EventKind(one["kind"]), **_typed(one) | _about(one))
            for one in happened
        ]
        found = cart_of(events, {EIGHT: line}, INCHES)
        price = found.price(EIGHT)
        return {
            "taken": found.taken(EIGHT),
            "left": found.left(EIGHT),
            "limited": found.limited(EIGHT),
            "each": None if price is None else f"{price:f}",
            "boards": [{"event": one.event, "kept": one.kept} for one in found.boards(EIGHT)],
        }

    def test_after_every_event(self) -> None:
        for given in json.loads(sample("carts.json")):
            for count, state in enumerate(given["states"]):
                with self.subTest(given["name"], events=count):
                    self.assertEqual(self.state(given, given["events"][:count]), state)


def _typed(one: dict[str, Any]) -> dict[str, Any]:
    return {name: value for name, value in one.items() if name not in ("id", "kind")}


def _about(one: dict[str, Any]) -> dict[str, Any]:
    return {} if one["kind"] == "undone" else {"line": EIGHT}


class CartTest(TestCase):
    def refused(self, *events: Event) -> str:
        with self.assertRaises(CarpentryError) as caught:
            cart(*events)
        return caught.exception.problems[0].message

    def test_what_is_taken_counts(self) -> None:
        found = cart(took(EIGHT, 3), Event("back", EventKind.PUT_BACK, EIGHT), took(TEN))
        self.assertEqual((found.taken(EIGHT), found.taken(TEN), found.taken(CEDAR)), (2, 1, 0))
        stock = found.lines[EIGHT].stock
        assert stock
        self.assertEqual(
            found.on_hand()[stock], {OnHand(ticks("96 1/8")): 2, OnHand(ticks("120")): 1}
        )

    def test_how_many_are_left(self) -> None:
        self.assertIsNone(cart(took(EIGHT)).left(EIGHT))
        self.assertEqual(cart(took(TEN, 3)).left(TEN), 1)
        self.assertEqual(cart(took(TEN, 9)).left(TEN), 0)
        only = Event("only", EventKind.ONLY, EIGHT, 5)
        self.assertEqual(cart(took(EIGHT, 2), only).left(EIGHT), 3)
        self.assertEqual(cart(took(EIGHT, 2), only, took(EIGHT, id="more")).left(EIGHT), 2)
        back = Event("back", EventKind.PUT_BACK, EIGHT)
        self.assertEqual(cart(took(EIGHT, 2), only, back).left(EIGHT), 4)
        bad = Event("bad", EventKind.REJECTED, EIGHT, crook="1")
        self.assertEqual(cart(took(EIGHT, 2), only, bad).left(EIGHT), 2)

    def test_the_list_as_the_yard_turned_out_to_be(self) -> None:
        tag = Event("tag", EventKind.TAG, TEN, price="7.50")
        none = Event("none", EventKind.ONLY, EIGHT, 0)
        new = Event("new", EventKind.TAG, CEDAR, price="9.00")
        eight, ten, cedar = cart(tag, none, new).as_found(LIST)
        self.assertEqual((eight.available, eight.price), (0, Decimal("5.00")))
        self.assertEqual((ten.price, ten.per), (Decimal("7.50"), "each"))
        # a tag does not make one length of an unpriced stock the only one with a price
        self.assertIsNone(cedar.price)
        self.assertEqual(cart(new).price(CEDAR), Decimal("9.00"))

    def test_undone_it_never_happened(self) -> None:
        undone = Event("undo", EventKind.UNDONE, undoes="first")
        found = cart(took(EIGHT, 2, "first"), took(EIGHT, 1, "second"), undone)
        self.assertEqual(found.taken(EIGHT), 1)
        self.assertIn("nothing of that kind", self.refused(undone))
        back = Event("back", EventKind.PUT_BACK, EIGHT)
        self.assertIn("none of these", self.refused(took(EIGHT, 1, "first"), back, undone))

    def test_a_measured_board(self) -> None:
        kept = Event("kept", EventKind.KEPT, EIGHT, length="90", width="3 7/16", bow="1/2")
        (board,) = cart(kept).boards(EIGHT)
        self.assertEqual(board.read.length, ticks("90"))
        assert board.read.section
        self.assertEqual(board.read.section.width, ticks("3 7/16"))
        self.assertEqual(cart(kept).taken(EIGHT), 1)
        as_named = cart(Event("kept", EventKind.KEPT, EIGHT)).boards(EIGHT)[0]
        self.assertEqual(as_named.read.length, ticks("96 1/8"))

    def test_what_is_refused(self) -> None:
        for event, words in (
            (took("3x3 gold 96"), "not on this yard's list"),
            (took(EIGHT, 0), "from 1 to"),
            (took(EIGHT, 2_000), "from 1 to"),
            (Event("t", EventKind.TAG, EIGHT, price="-1"), "no amount"),
            (Event("o", EventKind.ONLY, EIGHT, -1), "from 0 to"),
            (Event("k", EventKind.KEPT, EIGHT, twist="yes"), "twisted: rejected"),
            (Event("k", EventKind.KEPT, EIGHT, crook="1/2"), "crooked"),
            (Event("k", EventKind.KEPT, EIGHT, width="1"), "far from what the name says"),
            (Event("k", EventKind.KEPT, EIGHT, length="12ft"), "much longer"),
            (Event("k", EventKind.KEPT, PACK.key), "only boards"),
            (Event("c", EventKind.CHECKED, "luck"), "no such check"),
        ):
            self.assertIn(words, self.refused(event), event)
        only = Event("only", EventKind.ONLY, EIGHT, 1)
        self.assertEqual(
            self.refused(took(EIGHT, 3), only),
            "3 of these are ticked already: put 2 back first, or count them in",
        )

    def test_packs_in_the_drawer(self) -> None:
        self.assertEqual(PACK.in_drawer(2), ["have 200 screw 2in"])
        can = Line("pack oil 1 qt", "oil", Decimal(9), content="1 qt")
        self.assertEqual(can.in_drawer(2), ["have 1 qt oil", "have 1 qt oil"])
        self.assertEqual(lines()[EIGHT].in_drawer(2), [])


class PurchaseTest(TestCase):
    """Three legs of 90 in."""

    def setUp(self) -> None:
        self.settings = read_settings(SettingFields(spare="1"))
        part = read_part(
            PartFields(quantity="3", name="leg", stock="2x4 treated", length="90"), INCHES
        )
        self.parts = [NamedPart("leg", part)]

    def purchase(self, found: Cart) -> dict[str, Wanted]:
        shelf = Shelf(found.as_found(LIST), Unit.INCH, owned=found.on_hand())
        planned = []
        for material in gather_materials(self.parts, shelf, self.settings):
            problem = material.problem(self.settings)
            assert problem
            planned.append((material, plan_cuts(problem)))
        return purchase_of(planned, found, self.settings)

    def test_what_is_in_the_cart_is_part_of_it(self) -> None:
        empty = self.purchase(cart())
        self.assertEqual(empty, {EIGHT: Wanted(3, 1)})
        self.assertEqual(self.purchase(cart(took(EIGHT, 2))), empty)

    def test_a_board_that_serves_no_part_is_idle(self) -> None:
        kept = Event("short", EventKind.KEPT, EIGHT, length="60")
        found = self.purchase(cart(kept, took(EIGHT)))
        self.assertEqual(found[EIGHT], Wanted(3, 1, ("short",)))

    def test_only_what_shares_a_stock_is_planned_anew(self) -> None:
        slat = read_part(PartFields(name="slat", stock="1x6 cedar", length="40"), INCHES)
        parts = [*self.parts, NamedPart("slat", slat)]
        materials = gather_materials(parts, Shelf(LIST, Unit.INCH), self.settings)
        treated, cedar = (material.stock for material in materials)
        self.assertEqual(touched_by(treated, materials), {0})
        self.assertEqual(touched_by(cedar, materials), {1})
        self.assertEqual(touched_by(None, materials), set())

    def test_purchases_of_materials_together(self) -> None:
        one, other = {EIGHT: Wanted(2, 1, ("a",))}, {EIGHT: Wanted(1), TEN: Wanted(4)}
        self.assertEqual(together([one, other]), {EIGHT: Wanted(3, 1, ("a",)), TEN: Wanted(4)})

    def test_no_more_spares_than_there_are(self) -> None:
        only = Event("only", EventKind.ONLY, EIGHT, 3)
        self.assertEqual(self.purchase(cart(only))[EIGHT], Wanted(3, 0))

    def test_totals_by_tags(self) -> None:
        tag = Event("tag", EventKind.TAG, EIGHT, price="6.10")
        counts = {EIGHT: 2, TEN: 1, PACK.key: 1, CEDAR: 3}
        # 2 × 6.10 + 10 × 0.70 + 8.60 = 27.80, and 10 % on it
        ten_percent = Tax(Decimal(10), included=False)
        self.assertEqual(total_of(counts, cart(tag), ten_percent), (Decimal("30.58"), 3))

    def test_the_change_in_words(self) -> None:
        before, after = {EIGHT: Wanted(3)}, {EIGHT: Wanted(1), TEN: Wanted(2)}
        told = change_told(before, after, cart(), NO_TAX, currency="USD", notation=Notation("1/32"))
        self.assertEqual(told, "2 × 2x4 treated 10 ft instead of 2 × 2x4 treated 8 ft: $4.00 more")

    def test_the_load(self) -> None:
        """Two boards of 1 1/2 × 3 1/2 × 96 1/8 in; southern pine at 0.55 weighs 616 kg/m³ with a
        moisture of 12 % by the Wood Handbook's relation; a cubic inch is 16.387064 cm³."""
        load = load_of({EIGHT: Wanted(2)}, cart(took(EIGHT)))
        cubic_inches = 2 * Fraction(3, 2) * Fraction(7, 2) * Fraction(769, 8)
        kilograms = float(cubic_inches) * 16.387064e-6 * 616
        self.assertAlmostEqual(float(load.weight_kg), kilograms, 1)
        self.assertEqual(load.longest, ticks("96 1/8"))

    def test_racks_in_walking_order(self) -> None:
        keys = list(lines())
        racks = racks_of(keys, cart(), "")
        self.assertEqual([name for name, _ in racks], ["treated", "cedar", "hardware"])
        self.assertEqual(racks[0][1], [TEN, EIGHT])  # the longest first
        racks = racks_of(keys, cart(), "Hardware, cedar")
        self.assertEqual([name for name, _ in racks], ["hardware", "cedar", "treated"])
        self.assertEqual([name for name, _ in racks_of([CEDAR], cart(), "")], ["cedar"])

    def test_a_stock_that_is_not_listed(self) -> None:
        stock = read_stock("2x10", INCHES).stock
        for unit in Unit:
            found = [line.length.ticks for line in standard_lines(stock, unit)]
            offered = Shelf([], unit).offers(stock)[1]
            self.assertEqual(found, [offer.length for offer in offered])


class ReceiptTest(TestCase):
    def test_planned_against_paid(self) -> None:
        dearer = PaidLine(5, Decimal("8.36"), 5, Decimal("8.88"))
        instead = PaidLine(0, Decimal("12.10"), 2, Decimal("12.10"))
        left = PaidLine(1, Decimal("3.00"), 0, None)
        self.assertEqual(dearer.difference, Decimal("2.60"))
        self.assertEqual((left.difference, left.not_bought), (Decimal(0), 1))
        lines = {"a": dearer, "b": instead, "c": left}
        told = receipt_of(lines, NO_TAX, "USD")
        self.assertEqual((told.planned, told.paid), (Decimal("44.80"), Decimal("68.60")))
        self.assertEqual(
            told.told,
            "$26.80 more than planned, for what was bought; one piece was not bought, $3.00",
        )
        self.assertTrue(told.over)

    def test_what_was_never_bought_is_no_saving(self) -> None:
        lines = {
            "a": PaidLine(2, Decimal("5.00"), 2, Decimal("5.00")),
            "b": PaidLine(4, Decimal("3.00"), 1, Decimal("2.50")),
        }
        told = receipt_of(lines, Tax(Decimal(10), included=False), "USD")
        self.assertEqual(
            told.told,
            "$0.55 less than planned, for what was bought; 3 pieces were not bought, $9.90",
        )
        self.assertFalse(told.over)
        self.assertIn(
            "1 line has no price",
            receipt_of({"a": PaidLine(1, None, 1, Decimal(2))}, NO_TAX, "USD").told,
        )
        self.assertEqual(receipt_of({}, NO_TAX, "USD").told, "paid what was planned")


class AnyEventsTest(TestCase):
    """Whatever happens, in whatever order: counts stay sensible, and undoing all leaves nothing."""

    KINDS: tuple[tuple[EventKind, dict[str, Any]], ...] = (
        (EventKind.TOOK, {}),
        (EventKind.TOOK, {"count": 3}),
        (EventKind.PUT_BACK, {}),
        (EventKind.ONLY, {"count": 4}),
        (EventKind.KEPT, {"length": "90"}),
        (EventKind.REJECTED, {"crook": "1"}),
        (EventKind.TAG, {"price": "6.00"}),
    )

    def happen(self, chance: random.Random) -> list[Event]:
        """Events that could be, one after the other."""
        happened: list[Event] = []
        for n in range(40):
            kind, more = chance.choice(self.KINDS)
            event = replace(Event(f"e{n}", kind, chance.choice([EIGHT, TEN])), **more)
            try:
                cart(*happened, event)
            except CarpentryError:
                continue
            happened.append(event)
        return happened

    def test_counts_stay_sensible(self) -> None:
        for seed in range(30):
            happened = self.happen(random.Random(seed))
            found = cart(*happened)
            for key in (EIGHT, TEN):
                mine = [event for event in happened if event.line == key]
                by_kind = Counter(dict.fromkeys(EventKind, 0))
                for event in mine:
                    by_kind[event.kind] += event.count if event.kind is EventKind.TOOK else 1
                taken = by_kind[EventKind.TOOK] - by_kind[EventKind.PUT_BACK]
                self.assertEqual(found.taken(key), taken + by_kind[EventKind.KEPT], seed)
                self.assertEqual(found.boards_in(key).total(), found.taken(key))
                self.assertGreaterEqual(found.plain(key), 0)
                left = found.left(key)
                self.assertTrue(left is None or left >= 0)

    def test_all_undone_nothing_happened(self) -> None:
        for seed in range(10):
            happened = self.happen(random.Random(seed))
            undone = [
                Event(f"u{event.id}", EventKind.UNDONE, undoes=event.id) for event in happened
            ]
            found = cart(*happened, *undone)
            self.assertEqual((found.touched(), found.on_hand()), ([], {}))
            self.assertEqual(found.as_found(LIST), LIST)

    def test_told_in_any_order_ticks_add_up(self) -> None:
        ticked = [took(EIGHT, n, f"t{n}") for n in range(1, 6)]
        for seed in range(5):
            shuffled = ticked[:]
            random.Random(seed).shuffle(shuffled)
            self.assertEqual(cart(*shuffled).taken(EIGHT), 15)
