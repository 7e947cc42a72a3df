import json
from decimal import Decimal
from fractions import Fraction
from unittest import TestCase

from hypothesis import given
from hypothesis import strategies as st

from carpentry.language import TICKS_PER_INCH, CarpentryError, read_length
from carpentry.lumber import (
    DRESSED_SIZES,
    FAMILIES,
    INCHES,
    TREATED_FOR_GROUND,
    Exposure,
    Rounding,
    Way,
    entries,
    look_up,
    measured_board_feet,
    nominal_for,
    pounds,
    read_stock,
    rounded,
    species_of,
    straight_width,
    weight_kg,
)
from carpentry.lumber.board_measure import rough_thickness
from carpentry.lumber.book import JOINTED_EDGE, PLANED_FACE
from carpentry.tests.terminal import run


def ticks(text: str) -> int:
    return read_length(text, "in").ticks


# American Softwood Lumber Standard PS 20, from memory, typed here a second time: nominal inches to
# minimum dressed inches, dry and green.
PS_20_THICKNESS = {
    "1": ("3/4", "25/32"),
    "5/4": ("1", "1 1/32"),
    "6/4": ("1 1/4", "1 9/32"),
    "2": ("1 1/2", "1 9/16"),
    "3": ("2 1/2", "2 9/16"),
    "4": ("3 1/2", "3 9/16"),
}
PS_20_WIDTH = {
    "2": ("1 1/2", "1 9/16"),
    "3": ("2 1/2", "2 9/16"),
    "4": ("3 1/2", "3 9/16"),
    "5": ("4 1/2", "4 5/8"),
    "6": ("5 1/2", "5 5/8"),
    "8": ("7 1/4", "7 1/2"),
    "10": ("9 1/4", "9 1/2"),
    "12": ("11 1/4", "11 1/2"),
}
# Surfaced two sides, NHLA, from memory: quarters to inches.
NHLA_SURFACED = {"4": "13/16", "5": "1 1/16", "6": "1 5/16", "8": "1 3/4", "10": "2 1/4"}
# Timbers, PS 20, from memory: half an inch off, green.
TIMBERS = {"6x6": ("5 1/2", "5 1/2"), "6x8": ("5 1/2", "7 1/2"), "8x8": ("7 1/2", "7 1/2")}
SOURCES = (
    "American Softwood Lumber Standard PS 20",
    "NHLA rules for hardwood lumber",
    "Sanded plywood and sheathing as usually stamped in North America",
    "Sheathing as usually stamped in North America",
    "common practice, no source",
)
EVERY_SIZE_SOLD = (
    *(f"1x{w}" for w in (2, 3, 4, 6, 8, 10, 12)),
    *(f"5/4x{w}" for w in (4, 6)),
    *(f"2x{w}" for w in (2, 3, 4, 6, 8, 10, 12)),
    *(f"3x{w}" for w in (4, 6, 8)),
    *("4x4", "4x6", "4x8", "6x6", "6x8", "8x8"),
)


class FamiliesTest(TestCase):
    def test_dry_and_green_against_the_published_table(self) -> None:
        for name in EVERY_SIZE_SOLD:
            if name in TIMBERS:
                continue
            size = DRESSED_SIZES[name]
            thickness, width = name.split("x")
            assert size.green is not None
            for at, section in enumerate((size.section, size.green)):
                self.assertEqual(section.thickness, ticks(PS_20_THICKNESS[thickness][at]), name)
                self.assertEqual(section.width, ticks(PS_20_WIDTH[width][at]), name)

    def test_timbers(self) -> None:
        for name, (thickness, width) in TIMBERS.items():
            section = DRESSED_SIZES[name].section
            self.assertEqual((section.thickness, section.width), (ticks(thickness), ticks(width)))

    def test_hardwood_quarters(self) -> None:
        for quarters, surfaced in NHLA_SURFACED.items():
            by_name = {e.size.name: e.size for e in look_up(f"{quarters}/4")}
            self.assertEqual(by_name[f"{quarters}/4 surfaced"].section.thickness, ticks(surfaced))
            rough = by_name[f"{quarters}/4 rough"].section.thickness
            self.assertEqual(rough, int(quarters) * TICKS_PER_INCH // 4)

    def test_green_is_never_smaller_than_dry(self) -> None:
        for entry in entries():
            green = entry.size.green
            if green:
                self.assertGreaterEqual(green.thickness, entry.size.section.thickness)
                self.assertGreaterEqual(green.width, entry.size.section.width)

    def test_every_family_names_its_source_and_no_name_comes_twice(self) -> None:
        names = [entry.size.name for entry in entries()]
        self.assertEqual(len(names), len(set(names)))
        for family in FAMILIES:
            self.assertIn(family.source, SOURCES, family.name)
            self.assertTrue(family.note.endswith("."), family.name)


class LookUpTest(TestCase):
    def names(self, text: str) -> list[str]:
        return [entry.size.name for entry in look_up(text)]

    def test_names_as_people_type_them(self) -> None:
        self.assertEqual(self.names("2x4")[0], "2x4")
        self.assertEqual(self.names("4 x 2")[0], "2x4")
        self.assertEqual(self.names("5/4x6 cedar")[0], "5/4x6")
        self.assertEqual(self.names("8/4"), ["8/4 rough", "8/4 surfaced"])
        self.assertEqual(self.names("picket")[:2], ["5/8x4 picket", "5/8x6 picket"])
        self.assertEqual(self.names("3/4 mdf"), ["mdf 3/4"])
        self.assertEqual(self.names("4x8x3/4 plywood"), ["ply 3/4"])
        self.assertEqual(self.names("1x6 rough")[0], "1x6 rough")
        self.assertIn("5/4x6 decking", self.names("5/4"))
        self.assertEqual(self.names("38x89"), ["38x89"])
        self.assertIn("5/4x4 decking", self.names("decking"))
        self.assertIn("ply 1/2", self.names("ply 1/2"))

    def test_green_asks_for_the_green_size(self) -> None:
        first = look_up("2x10 green")[0]
        self.assertTrue(first.green)
        assert first.size.green is not None
        self.assertEqual(first.size.green.width, ticks("9 1/2"))

    def test_nothing_is_said(self) -> None:
        for text, words in (
            ("plank", "names no size"),
            ("2x99", "no board is called 2x99"),
            ("  ", "a stock name is missing"),
            ("cement board 1/2", "knows no “cement”"),
            ("dowel 1/2", "knows no “dowel”"),
            ("2x4 bluewood", "knows no “bluewood”"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                look_up(text)

    def test_a_green_stock_has_the_green_section(self) -> None:
        from carpentry.lumber import standard_section

        section = standard_section(read_stock("2x10 green", INCHES).stock)
        assert section is not None
        self.assertEqual(section.width, ticks("9 1/2"))

    def test_every_name_of_the_book_finds_itself(self) -> None:
        for entry in entries():
            self.assertIn(entry.size.name, self.names(entry.size.name))


class NominalForTest(TestCase):
    def test_a_part_wider_than_the_next_nominal_gives(self) -> None:
        """Common practice: a 9 5/8 part is more than a 1x10 gives; a 1x12 is ripped."""
        ways = nominal_for(ticks("3/4"), ticks("9 5/8"))
        rip = next(way for way in ways if way.way is Way.RIP)
        self.assertEqual(rip.size.name, "1x12")
        self.assertEqual(rip.off_width, ticks("1 5/8"))
        rough = next(way for way in ways if way.way is Way.PLANE_ROUGH)
        self.assertEqual(rough.size.name, "1x10 rough")

    def test_the_cheapest_comes_first(self) -> None:
        prices = {"1x8": Decimal("1.40"), "1x4": Decimal("0.90")}
        ways = nominal_for(ticks("3/4"), ticks("6 1/8"), prices.get)
        self.assertEqual([w.cost for w in ways[:2]], [Decimal("1.40"), Decimal("1.80")])
        self.assertTrue(all(way.cost is None for way in ways[2:]))

    def test_faults_by_field(self) -> None:
        for thickness, width, place in (
            ("0", "6", "thickness"),
            ("3/4", "0", "width"),
            ("3/4", "60", "width"),
            ("20", "6", "thickness"),
        ):
            with self.assertRaises(CarpentryError) as caught:
                nominal_for(ticks(thickness), ticks(width))
            self.assertEqual(caught.exception.problems[0].place, place)

    @given(st.integers(1, 5 * 64), st.integers(1, 30 * 64))
    def test_no_way_yields_less_than_asked(self, thickness: int, width: int) -> None:
        wanted = thickness * 127, width * 127
        try:
            ways = nominal_for(*wanted)
        except CarpentryError:
            return
        for way in ways:
            section = way.size.section
            edge = 2 * JOINTED_EDGE if way.way is Way.GLUE else 0
            self.assertEqual(way.boards * (section.width - edge) - way.off_width, wanted[1])
            self.assertEqual(section.thickness - way.off_thickness, wanted[0])
            self.assertGreaterEqual(way.off_width, 0)
            least = 2 * PLANED_FACE if way.way is Way.PLANE_ROUGH else 0
            self.assertGreaterEqual(way.off_thickness, least)


class MeasureTest(TestCase):
    def test_the_worked_board(self) -> None:
        """A board of our own, by common practice: 15/16 × 6 5/8 × 31 3/8 counts as 1 × 7 × 31,
        which is 217 ÷ 144."""
        size = ticks("15/16"), ticks("6 5/8"), ticks("31 3/8")
        self.assertEqual(measured_board_feet(*size, 1, Rounding.EACH), Decimal("1.51"))
        # 1 × 6.625 × 31.375 ÷ 144: under an inch counts as one
        self.assertEqual(measured_board_feet(*size, 1, Rounding.TOTAL), Decimal("1.44"))
        self.assertEqual(measured_board_feet(*size, 10, Rounding.TOTAL), Decimal("14.43"))

    def test_dressed_softwood_counts_as_it_is_called(self) -> None:
        """Common practice: an 8 ft 2x4 is 2 × 4 × 96 ÷ 144, which is 5.33, not 4.00."""
        for school in Rounding:
            stud = ticks("1 1/2"), ticks("3 1/2"), ticks("96")
            self.assertEqual(measured_board_feet(*stud, 1, school), Decimal("5.33"), school)
            post = ticks("3 9/16"), ticks("3 9/16"), ticks("96")
            self.assertEqual(measured_board_feet(*post, 1, school), Decimal("10.67"), school)

    def test_surfaced_thickness_counts_as_its_rough_quarter(self) -> None:
        for surfaced, rough in (
            ("13/16", "1"),
            ("1 1/16", "5/4"),
            ("1 5/16", "3/2"),
            ("1 3/4", "2"),
        ):
            inches = Fraction(ticks(surfaced), TICKS_PER_INCH)
            self.assertEqual(rough_thickness(inches), Fraction(rough))
        self.assertEqual(rough_thickness(Fraction(11, 2)), 6)

    def test_halves_go_up(self) -> None:
        feet = measured_board_feet(ticks("1"), ticks("8 1/2"), ticks("16"), 1, Rounding.EACH)
        self.assertEqual(feet, Decimal("1.00"))

    def test_nothing_measures_nothing(self) -> None:
        with self.assertRaises(CarpentryError):
            measured_board_feet(0, 1, 1, 1, Rounding.EACH)

    def test_a_crooked_board(self) -> None:
        """Common practice: width less the crook, less about 1/8 a straightened corner."""
        self.assertEqual(
            straight_width(ticks("5 1/2"), ticks("3/4"), ticks("1/8"), 2), ticks("4 1/2")
        )
        for width, crook, edges, place in (
            (0, 0, 1, "width"),
            (9, 0, 3, "edges"),
            (9, 9, 1, "crook"),
        ):
            with self.assertRaises(CarpentryError) as caught:
                straight_width(width, crook, 0, edges)
            self.assertEqual(caught.exception.problems[0].place, place)


class WeightTest(TestCase):
    def test_a_cubic_foot_of_cedar(self) -> None:
        """USDA Wood Handbook's relation, G from memory: 0.32 × 1000 × 1.12 = 358.4 kg/m³."""
        density = species_of(read_stock("1x6 cedar", INCHES).stock).density()
        assert density is not None
        self.assertEqual(density, Fraction(3584, 10))
        cubic_foot = (12 * TICKS_PER_INCH) ** 3
        self.assertEqual(rounded(weight_kg(cubic_foot, density), "0.01"), Decimal("10.15"))

    def test_pounds(self) -> None:
        """The international pound, 1959: 0.45359237 kg."""
        self.assertEqual(rounded(pounds(Fraction(1)), "0.00001"), Decimal("2.20462"))

    def test_which_wood_a_name_means(self) -> None:
        for name, called, exposure in (
            ("2x4", "spruce-pine-fir", Exposure.DRY),
            ("2x4 treated fir", "pressure-treated southern pine", Exposure.OUTDOORS),
            ("2x4 pt ground contact", TREATED_FOR_GROUND.name, Exposure.GROUND),
            ("2x4 heat treated", "spruce-pine-fir", Exposure.DRY),
            ("2x4 pt heat treated", "pressure-treated southern pine", Exposure.OUTDOORS),
            ("2x4 spf", "spruce-pine-fir", Exposure.DRY),
            ("2x4 southern pine", "southern pine", Exposure.DRY),
            ("2x4 southern yellow pine", "southern pine", Exposure.DRY),
            ("2x4 white fir", "white fir", Exposure.DRY),
            ("2x4 hem-fir", "hem-fir", Exposure.DRY),
            ("2x4 douglas-fir", "Douglas-fir", Exposure.DRY),
            ("2x4 doug fir", "Douglas-fir", Exposure.DRY),
            ("1x6 red oak", "red oak", Exposure.DRY),
            ("1x6 white oak", "white oak", Exposure.OUTDOORS),
            ("1x6 oak", "oak, red or white", Exposure.DRY),
            ("1x6 hard maple", "hard maple", Exposure.DRY),
            ("1x6 ipe", "ipe", Exposure.OUTDOORS),
            ("1x6 western red cedar", "western redcedar", Exposure.OUTDOORS),
            ("1x6 cedar", "western redcedar", Exposure.OUTDOORS),
            ("5/4x6 composite", "wood-plastic composite", Exposure.OUTDOORS),
            ("ply 1/2", "softwood plywood", Exposure.DRY),
            ("osb 7/16", "oriented strand board", Exposure.DRY),
            ("hardboard 1/8", "hardboard", Exposure.DRY),
        ):
            species = species_of(read_stock(name, INCHES).stock)
            self.assertEqual((species.name, species.exposure), (called, exposure))
            self.assertTrue(species.caution)

    def test_a_wood_that_is_not_known_has_neither_weight_nor_exposure(self) -> None:
        species = species_of(read_stock("1x6 zebrano", INCHES).stock)
        self.assertEqual(
            (species.name, species.density(), species.exposure), ("zebrano",) + (None,) * 2
        )
        graded = species_of(read_stock("1x6 prime kd", INCHES).stock)
        self.assertEqual(graded.name, "spruce-pine-fir")

    def test_weights_by_a_second_table(self) -> None:
        """Air-dry pounds per cubic foot, from memory of timber tables (rounded to 1 lb, cedar to
        oak), against the relation used here: within 2 lb."""
        for name, pounds_per_foot3 in (
            ("1x6 western red cedar", 23),
            ("1x6 white pine", 25),
            ("2x4 spf", 28),
            ("2x4 douglas fir", 34),
            ("2x4 southern yellow pine", 37),
            ("1x6 red oak", 44),
            ("1x6 white oak", 47),
        ):
            density = species_of(read_stock(name, INCHES).stock).density()
            assert density is not None
            weighed = pounds(weight_kg((12 * TICKS_PER_INCH) ** 3, density))
            self.assertAlmostEqual(float(weighed), pounds_per_foot3, delta=2, msg=name)


class TerminalTest(TestCase):
    def ask(self, *arguments: str) -> object:
        done = run(*arguments)
        self.assertEqual((done.returncode, done.stderr), (0, ""))
        return json.loads(done.stdout)

    def test_answers(self) -> None:
        size = self.ask("size", "5/4x6 cedar")
        assert isinstance(size, list)
        self.assertEqual(size[0]["width"], {"in": "5 1/2", "mm": "139.7"})
        ways = self.ask("nominal", "--thickness", "3/4", "--width", "6 1/8")
        assert isinstance(ways, list)
        self.assertIn("1x8", [way["size"] for way in ways])
        feet = self.ask("boardfeet", "15/16", "6 5/8", "31 3/8", "--count", "4")
        self.assertEqual(feet, {"board_feet": "6.03", "rounding": "each", "count": 4})
        strip = self.ask(
            "straighten", "--width", "5 1/2", "--crook", "3/4", "--corners", "1/8", "--edges", "2"
        )
        self.assertEqual(strip, {"width": {"in": "4 1/2", "mm": "114.3"}})

    def test_what_cannot_be_read(self) -> None:
        for arguments, words in (
            (("size", "plank"), "names no size"),
            (("nominal", "--thickness", "x", "--width", "y"), "width: "),
            (("boardfeet", "1", "2", "3", "--count", "0"), "count: "),
            (("straighten", "--width", "2", "--crook", "3"), "nothing straight"),
        ):
            done = run(*arguments)
            self.assertEqual((done.returncode, done.stdout), (2, ""), arguments)
            self.assertIn(words, done.stderr)
