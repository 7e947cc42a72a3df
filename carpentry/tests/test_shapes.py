"""Shapes: worked by hand, and their pieces checked by geometry."""

import json
import random
from unittest import TestCase

import numpy as np

from carpentry.design.shapes import Made, make_shape, shape_document
from carpentry.language import CarpentryError
from carpentry.lumber import INCHES
from carpentry.tests.shape_geometry import SEEDS, SNUG, box_round, lengths, made, overlaps


class ByHandTest(TestCase):
    def test_a_frame_with_rails_between(self) -> None:
        # 31 1/4 less two 1 1/2 posts is 28 1/4; the middle of that, less half of 1 1/2, is 13 3/8.
        one = made("frame", width="31 1/4", height="58", stock="2x2", middles="1")
        self.assertEqual(lengths(one), {"post": "58", "rail": "28 1/4", "middle": "55"})
        self.assertEqual([float(p) / 8128 for p in one.laid("middles").run.places], [13.375])

    def test_the_other_corners(self) -> None:
        for corners, post, rail in (
            ("posts between", "55", "31"),
            ("mitered", "58", "31"),
            ("half-lapped", "58", "31"),
        ):
            found = lengths(made("frame", width="31", height="58", stock="2x2", corners=corners))
            self.assertEqual((found["post"], found["rail"]), (post, rail), corners)

    def test_boxes(self) -> None:
        # 3/4 boards: 24 less 1 1/2 is 22 1/2; with rabbets of 3/8, 24 less twice 3/8 is 23 1/4;
        # a floating bottom is 22 1/2 + 1/2 - 1/8 = 22 7/8 by 12 1/2 + 1/2 - 1/8 = 12 7/8.
        size = {"length": "24", "width": "14", "height": "9", "stock": "1x10"}
        self.assertEqual(lengths(made("box", **size)), {"side": "22 1/2", "end": "14"})
        self.assertEqual(
            lengths(made("box", **size, over="sides")), {"side": "24", "end": "12 1/2"}
        )
        rabbeted = made("box", **size, corners="rabbeted", bottom="groove")
        self.assertEqual(lengths(rabbeted), {"side": "23 1/4", "end": "14", "bottom": "22 7/8"})
        self.assertEqual(rabbeted.parts["bottom"].plain_fields.width, "12 7/8")
        under = made("box", **size, bottom="under")  # 1/2 ply is really 15/32
        self.assertEqual(under.parts["side"].plain_fields.width, "8 17/32")

    def test_a_stand(self) -> None:
        size = {"length": "48", "width": "22", "height": "34", "leg_stock": "4x4", "stock": "2x4"}
        one = made("stand", **size, shelves_at="10", top="5/4x6")
        self.assertEqual(lengths(one), {"leg": "33", "long": "41", "short": "15", "top": "22"})
        self.assertEqual(
            [one.parts[key].quantity for key in ("leg", "long", "short", "top")], [4, 4, 4, 8]
        )
        flush = lengths(made("stand", **size, rails="flush"))
        self.assertEqual(flush, {"leg": "34", "long": "48", "short": "19"})

    def test_a_brace_of_three_four_five(self) -> None:
        one = made("brace", run="24", rise="18", stock="2x4")
        self.assertEqual(lengths(one), {"left": "30", "right": "30"})
        self.assertEqual([str(end) for end in one.parts["left"].ends], ["36.87", "53.13"])
        # the short side loses 3 1/2 * (3/4 + 4/3) = 7 7/24
        short = made("brace", run="24", rise="18", stock="2x4", measured="short-short")
        self.assertEqual(lengths(short)["left"], "22 23/32")

    def test_splayed_legs(self) -> None:
        # 6 in over 28 is 12.09°; 28 / cos is 28.636; 8 1/2 up there is 22 - 3.643 - 7.159 inside.
        size = {"height": "28", "top": "10", "stock": "2x4", "stretchers_at": "12"}
        one = made("splayed legs", **size, floor="22")
        found = {"left": "28 5/8", "right": "28 5/8", "stretcher1": "11 3/16"}
        self.assertEqual(lengths(one), found)
        self.assertEqual(str(one.parts["left"].ends[0]), "12.09")
        self.assertEqual(lengths(made("splayed legs", **size, angle="12.0948°")), found)

    def test_crossed_legs(self) -> None:
        # Square to one another at 45°: middles that cross 15 up stand 15 out, edges 15 + 3.5 / √2.
        size = {"height": "28", "stock": "2x4", "cross_at": "15", "spread": "34.9497475"}
        one = made("crossed legs", **size, joint="half-lapped")
        self.assertEqual(str(one.parts["left"].ends[0]), "45")
        self.assertEqual(lengths(one)["left"], "39 19/32")  # 28 √2
        lap = next(work for work in one.written.work if work.kind == "half lap")
        self.assertAlmostEqual(one.length(lap.sizes["length"]), 3.5, delta=0.001)
        self.assertEqual(one.length(lap.sizes["depth"]), 0.75)

    def test_a_row(self) -> None:
        one = made("row", along="72", gap="2", stock="1x4 cedar", length="42", rail_stock="2x4")
        self.assertEqual((one.parts["board"].quantity, lengths(one)["rail"]), (13, "72"))

    def test_walls(self) -> None:
        # 7 1/4 less 1 and with 1/8 shows 6 3/8: seven of them are 44 5/8, which leaves 5 3/8 of 50.
        lapped = made("wall", width="96", height="50", stock="1x8 cedar", joint="lap")
        self.assertEqual(lengths(lapped), {"board": "96", "last": "96"})
        self.assertEqual(lapped.parts["board"].quantity, 7)
        self.assertEqual(lapped.parts["last"].plain_fields.width, "5 3/8")
        # 7 1/4 and 1/8 is 7 3/8: six rows are 44 1/4, the seventh 5 3/4; over both ends 3/4.
        butt = made("wall", width="96", height="50", stock="1x8", over_left="3/4", over_right="3/4")
        self.assertEqual(lengths(butt), {"board": "97 1/2", "last": "97 1/2"})
        self.assertEqual(butt.parts["last"].plain_fields.width, "5 3/4")
        # 45 - 6 * 7 3/8 is 3/4, less than 3: (45 - 5 * 7 3/8 - a gap of 1/8) / 2 is 4 for both.
        even = made("wall", width="96", height="45", stock="1x8", least="3")
        self.assertEqual(even.parts["last"].quantity, 2)
        self.assertEqual(even.parts["last"].plain_fields.width, "4")
        one = made("wall", width="96", height="3", stock="1x8")
        self.assertEqual(
            (lengths(one), one.parts["last"].plain_fields.width), ({"last": "96"}, "3")
        )
        ship = made("wall", width="96", height="50", stock="1x8", joint="shiplap")
        self.assertEqual([work.kind for work in ship.written.work], ["rabbet"] * 4)

    def test_trusses(self) -> None:
        # (48 + 12) / cos 30° is 69.28; (24 + 1 3/4) tan 30° is 14.87; 24 tan 30° / cos 30° is 16.
        size = {"span": "96", "pitch": "30", "stock": "2x4", "overhang": "12", "supports": "1/2"}
        one = made("truss", **size, stands_over="0, 48, 96")
        self.assertEqual(lengths(one), {"rafter": "69 9/32", "tie": "96", "support1": "14 7/8"})
        self.assertEqual([part.quantity for part in one.parts.values()], [6, 3, 6])
        square = made("truss", **size, supports_stand="square")
        self.assertEqual(lengths(square)["support1"], "16")
        # two sheets of 36 with a lap of 3 cover 69, four 135; the trusses take 96 + 3
        covered = {"cover": "36", "side_lap": "3", "stands_over": "0, 48, 96"}
        self.assertIsNotNone(made("truss", **size, **covered, sheets="3").solids)
        with self.assertRaisesRegex(CarpentryError, "sheets: cover 30 less"):
            _ = made("truss", **size, **covered, sheets="2").solids

    def test_doors(self) -> None:
        # 36 less twice 1/8 is 35 3/4, less two stiles 28 3/4; 80 less 1/4 is 79 3/4.
        one = made("door", width="36", height="80", stock="1x4")
        found = lengths(one)
        self.assertEqual((found["stile"], found["rail"]), ("79 3/4", "28 3/4"))
        self.assertEqual([part.quantity for part in one.parts.values()], [2, 3, 2])
        pair = made("door", width="72 1/8", height="80", stock="1x4", leaves="2", gap="0")
        self.assertEqual(lengths(pair)["rail"], "29")
        ledged = made("door", width="36", height="80", stock="1x6", kind="ledged", faces="1x6")
        self.assertEqual(lengths(ledged)["rail"], "35 3/4")
        self.assertEqual(ledged.parts["face"].quantity, 6)
        wide = made("door", width="72", height="60", stock="1x4")
        self.assertIn("wider than high", wide.shape.notices(wide)[0])


class GeometryTest(TestCase):
    """The corners of the pieces lie where the measures say, and no two are in one place."""

    def check(self, one: Made, *size: float, allowed: float = SNUG) -> None:
        solids = one.solids
        counts = {key: sum(solid.key == key for solid in solids) for key in one.parts}
        self.assertEqual(counts, {key: part.quantity for key, part in one.parts.items()})
        for found, wanted in zip(box_round(solids), size, strict=True):
            self.assertAlmostEqual(found, wanted, delta=SNUG)
        self.assertEqual(overlaps(one, allowed), [])

    def test_frames(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            corners = draw.choice(["rails between", "posts between", "mitered"])
            width, height = draw.randint(12, 90), draw.randint(12, 90)
            one = made(
                "frame",
                width=f"{width}",
                height=f"{height}",
                stock=draw.choice(["2x2", "2x4", "1x4"]),
                corners=corners,
                middles=f"{draw.randint(0, 2)}",
                middles_run=draw.choice(["upright", "level"]),
            )
            with self.subTest(seed=seed):
                self.check(one, width, one.thickness_of("post"), height)

    def test_half_lapped_corners_lie_in_one_another_and_nothing_else_does(self) -> None:
        one = made(
            "frame", width="30", height="40", stock="2x4", corners="half-lapped", middles="1"
        )
        self.assertEqual(sorted(overlaps(one)), [("post", "rail")] * 4)

    def test_boxes(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            length, width, height = draw.randint(8, 60), draw.randint(8, 40), draw.randint(3, 9)
            corners = draw.choice(["butt", "mitered", "rabbeted"])
            one = made(
                "box",
                length=f"{length}",
                width=f"{width}",
                height=f"{height}",
                stock=draw.choice(["1x10", "1x12"]),
                corners=corners,
                over=draw.choice(["ends", "sides"]),
                bottom=draw.choice(["none", "between", "under"]),
            )
            with self.subTest(seed=seed):
                # A rabbet is as deep as its measure, where the other board stands in it.
                self.check(
                    one, length, width, height, allowed=SNUG + 0.375 * (corners == "rabbeted")
                )

    def test_stands(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            length, width, height = draw.randint(24, 90), draw.randint(16, 40), draw.randint(14, 42)
            one = made(
                "stand",
                length=f"{length}",
                width=f"{width}",
                height=f"{height}",
                leg_stock=draw.choice(["4x4", "2x4", "2x2"]),
                stock="1x4",
                rails=draw.choice(["flush", "set in"]),
                shelves_at=draw.choice(["", "6", "5, 9 1/2"]),
                top=draw.choice(["", "5/4x6", "1x4"]),
            )
            with self.subTest(seed=seed):
                self.check(one, length, width, height)

    def test_braces(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            run, rise = draw.randint(14, 48), draw.randint(14, 48)
            one = made("brace", run=f"{run}", rise=f"{rise}", stock="2x4")
            with self.subTest(seed=seed):
                left = [solid for solid in one.solids if solid.key == "left"]
                for found, wanted in zip(box_round(left), (run, 1.5, rise), strict=True):
                    self.assertAlmostEqual(found, wanted, delta=SNUG)
                (solid,) = left
                xs, zs = np.array(solid.corners)[:, 0], np.array(solid.corners)[:, 2]
                self.assertEqual(int((abs(xs) < SNUG).sum()), 4)  # the whole cut lies on the post
                self.assertEqual(int((abs(zs) < SNUG).sum()), 4)  # and the other on the beam
                self.assertEqual(overlaps(one), [])

    def test_splayed_legs(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            height, top = draw.randint(20, 40), draw.randint(8, 20)
            floor = top + draw.randint(2, 16)
            size = {"height": f"{height}", "top": f"{top}", "floor": f"{floor}", "stock": "2x4"}
            places = draw.choice(["", "10", "6, 14 1/2"])
            one = made("splayed legs", **size, stretchers_at=places)
            with self.subTest(seed=seed):
                self.check(one, floor, 1.5, height)
                corners = np.array([c for s in one.solids for c in s.corners])
                over = corners[abs(corners[:, 2] - height) < SNUG]
                self.assertAlmostEqual(float(np.ptp(over[:, 0])), top, delta=SNUG)

    def test_crossed_legs(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            height, spread, cross = draw.randint(24, 40), draw.randint(20, 36), draw.randint(12, 20)
            size = {"height": f"{height}", "spread": f"{spread}", "cross_at": f"{cross}"}
            one = made("crossed legs", **size, stock="2x4")
            with self.subTest(seed=seed):
                left, right = one.solids
                self.assertEqual(overlaps(one), [])  # bolted side by side
                for x, y, z in left.corners:  # each the mirror image of the other, about the middle
                    near = [abs(spread - x - a) + abs(z - c) for a, _, c in right.corners]
                    self.assertLess(min(near), SNUG, (x, y, z))
                middle = (np.array(left.back) + np.array(left.face)) / 2
                (x0, _, z0), (x1, _, z1) = middle[[0, 3]].mean(0), middle[[1, 2]].mean(0)
                self.assertAlmostEqual(
                    x0 + (cross - z0) * (x1 - x0) / (z1 - z0), spread / 2, delta=SNUG
                )

    def test_rows(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            along, length = draw.randint(30, 120), draw.randint(20, 72)
            held = draw.choice(["nailed", "loose", "in a groove"])
            one = made(
                "row",
                along=f"{along}",
                gap=f"{draw.randint(0, 6)}",
                stock="1x6",
                length=f"{length}",
                ends=draw.choice(["gap", "half-gap", "item"]),
                held=held,
                rails="2" if held != "nailed" else f"{draw.randint(1, 4)}",
            )
            solids = one.solids
            with self.subTest(seed=seed):
                self.assertAlmostEqual(box_round(solids)[0], along, delta=SNUG)
                self.assertEqual(overlaps(one, SNUG if held == "nailed" else 0.4), [])

    def test_walls(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            width, height = draw.randint(24, 140), draw.randint(8, 100)
            joint = draw.choice(["butt", "lap", "shiplap"])
            over = draw.choice([0, 1])
            one = made(
                "wall",
                width=f"{width}",
                height=f"{height}",
                stock=draw.choice(["1x6", "1x8"]),
                joint=joint,
                over_left=f"{over}",
                least=draw.choice(["0", "3"]),
            )
            with self.subTest(seed=seed):
                thick = 0.75 * (1 + (joint == "lap" and len(one.solids) > 1))
                shared = 0.4 if joint == "shiplap" else 0.0  # a rabbet in another
                self.check(one, width + over, thick, height, allowed=SNUG + shared)

    def test_trusses(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            span, overhang = draw.randint(60, 200), draw.randint(0, 18)
            places = draw.choice(["", "0, 24", "0, 30, 61 1/2"])
            one = made(
                "truss",
                span=f"{span}",
                pitch=f"{draw.randint(18, 50)}",
                stock="2x4",
                overhang=f"{overhang}",
                tails=draw.choice(["plumb", "square"]),
                ridge=draw.choice(["0", "3/4", "1 1/2"]),
                supports=draw.choice(["", "1/2"]),
                supports_stand=draw.choice(["plumb", "square"]),
                stands_over=places,
            )
            with self.subTest(seed=seed):
                deep = 3 + float({"": 0, "0, 24": 24}.get(places, 61.5))
                top = float(np.array([c for s in one.solids for c in s.corners])[:, 2].max())
                low = float(np.array([c for s in one.solids for c in s.corners])[:, 2].min())
                self.check(one, span + 2 * overhang, deep, top - low, allowed=2 * SNUG)
                pitch = np.radians(one.degrees("{pitch}"))
                run = (span - one.length("{ridge}")) / 2
                self.assertAlmostEqual(top, run * np.tan(pitch) + 3.5 / np.cos(pitch), delta=SNUG)

    def test_doors(self) -> None:
        for seed in SEEDS:
            draw = random.Random(seed)
            leaves, kind = draw.randint(1, 2), draw.choice(["framed", "ledged"])
            width, height = draw.randint(24, 40) * leaves, draw.randint(40, 84)
            faces = "1x6" if kind == "ledged" else draw.choice(["", "1x6"])
            one = made(
                "door",
                width=f"{width}",
                height=f"{height}",
                stock="1x4",
                leaves=f"{leaves}",
                kind=kind,
                rails=f"{draw.randint(2, 3)}",
                faces=faces,
            )
            with self.subTest(seed=seed):
                thick = 0.75 + 0.75 * bool(faces)
                self.check(one, width - 0.25, thick, height - 0.25)


class RefusedTest(TestCase):
    def test_what_cannot_be_built_is_told_at_its_measure(self) -> None:
        box = {"length": "24", "width": "14", "height": "9", "stock": "1x10"}
        stand = {"length": "48", "width": "22", "height": "34", "leg stock": "4x4", "stock": "2x4"}
        crossed = {"height": "28", "spread": "30", "stock": "2x4"}
        row = {"along": "72", "stock": "1x4", "length": "42"}
        truss = {"span": "96", "pitch": "30", "stock": "2x4"}
        door = {"width": "36", "height": "80", "stock": "1x4"}
        wall = {"width": "96", "height": "50", "stock": "1x8"}
        for shape, measures, place in (
            ("frame", {"width": "3", "height": "58", "stock": "2x2"}, "width"),
            ("frame", {"width": "30", "height": "2", "stock": "2x2"}, "height"),
            ("frame", {"width": "30", "height": "40"}, "stock"),
            ("frame", {"width": "30", "height": "40", "stock": "2x13"}, "stock"),
            (
                "frame",
                {"width": "30", "height": "40", "stock": "2x2", "corners": "glued"},
                "corners",
            ),
            ("frame", {"width": "30", "height": "40", "stock": "2x2", "middles": "99"}, "middles"),
            ("frame", {"width": "30", "height": "40", "stock": "2x2", "middles": "1/2"}, "middles"),
            ("frame", {"width": "-30", "height": "40", "stock": "2x2"}, "width"),
            ("frame", {"width": "8°", "height": "40", "stock": "2x2"}, "width"),
            ("frame", {"width": "30", "height": "40", "stock": "2x2", "depth": "3"}, "depth"),
            ("box", box | {"corners": "rabbeted", "rabbet": "3/4"}, "rabbet"),
            ("box", box | {"bottom": "groove", "groove": "1"}, "groove"),
            ("box", box | {"width": "1 1/2"}, "width"),
            ("box", box | {"height": "12"}, "height"),
            ("box", box | {"height": "1/4", "bottom": "under"}, "height"),
            ("box", box | {"lean ends": "50"}, "lean ends"),
            ("box", box | {"lean ends": "10", "corners": "rabbeted"}, "corners"),
            ("box", box | {"lean sides": "-40", "width": "10", "height": "7"}, "width"),
            ("stand", stand | {"length": "7"}, "length"),
            ("stand", stand | {"shelves at": "40"}, "shelves at"),
            ("stand", stand | {"shelves at": "10, 12"}, "shelves at"),
            ("row", row, "gap"),
            ("row", row | {"gap": "2", "count": "9"}, "gap"),
            ("row", row | {"count": "2000"}, "count"),
            ("row", row | {"gap": "2", "rails": "40"}, "rails"),
            ("splayed legs", {"height": "28", "top": "10", "stock": "2x4"}, "floor"),
            ("splayed legs", {"height": "28", "top": "10", "floor": "8", "stock": "2x4"}, "floor"),
            ("crossed legs", crossed | {"cross at": "30"}, "cross at"),
            ("crossed legs", crossed | {"spread": "2", "cross at": "1"}, "spread"),
            ("crossed legs", crossed | {"spread": "3", "cross at": "12"}, "spread"),
            ("splayed legs", {"height": "28", "top": "2", "floor": "9", "stock": "2x6"}, "top"),
            ("splayed legs", {"height": "28", "top": "9", "angle": "90", "stock": "2x6"}, "angle"),
            ("splayed legs", {"height": "28", "top": "9", "angle": "0", "stock": "2x6"}, "angle"),
            ("brace", {"angle": "90", "length": "30", "stock": "2x4"}, "angle"),
            ("brace", {"angle": "-5", "length": "30", "stock": "2x4"}, "angle"),
            ("door", door | {"width": "12", "stock": "1x6"}, "width"),
            ("door", door | {"width": "16", "stock": "1x6"}, "width"),
            ("box", box | {"height": "3/8", "bottom": "between"}, "height"),
            ("brace", {"run": "24", "stock": "2x4"}, "run"),
            ("brace", {"run": "4", "rise": "40", "stock": "2x4"}, "rise"),
            ("brace", {"run": "3", "rise": "3", "stock": "2x4"}, "run"),
            ("brace", {"run": "24", "rise": "18", "stock": "2x4", "pairs": "0"}, "pairs"),
            ("wall", wall | {"lap": "8", "joint": "lap"}, "lap"),
            ("wall", wall | {"height": "0"}, "height"),
            ("truss", truss | {"pitch": "85"}, "pitch"),
            ("truss", truss | {"pitch": "2"}, "pitch"),
            ("truss", truss | {"span": "6"}, "span"),
            ("truss", truss | {"supports": "3/2"}, "supports"),
            ("truss", truss | {"supports": "1/2, 1/2"}, "supports"),
            ("truss", truss | {"stands over": "0, 1"}, "stands over"),
            ("door", door | {"leaves": "3"}, "leaves"),
            ("door", door | {"rails": "1"}, "rails"),
            ("door", door | {"rails": "30"}, "rails"),
            ("door", door | {"kind": "ledged"}, "faces"),
            ("door", door | {"width": "6"}, "width"),
        ):
            with self.assertRaises(CarpentryError, msg=(shape, measures)) as caught:
                _ = make_shape(shape, measures, INCHES).solids
            places = [problem.place for problem in caught.exception.problems]
            self.assertIn(place, places, (shape, measures, str(caught.exception)))

    def test_the_document(self) -> None:
        asked = {
            "shape": "frame",
            "measures": {"width": "31 1/4", "height": "58", "stock": "2x2", "middles": 1},
        }
        found = shape_document(json.dumps(asked))
        self.assertEqual(found["parts"][1]["formula"], "width - 2 * width of A")
        self.assertEqual(found["marks"], {"middles": ["13 3/8"]})
        self.assertEqual(
            found["joints"], ["4 A edge to B end, 2 screws", "2 B edge to C end, 2 screws"]
        )
        with self.assertRaisesRegex(CarpentryError, "measures.height: is missing"):
            shape_document(
                json.dumps({"shape": "frame", "measures": {"width": "3", "stock": "2x2"}})
            )
