import math
import unittest
from decimal import Decimal
from fractions import Fraction

from carpentry.cutting import Budget, plan_cuts
from carpentry.design import PartFields, read_lines, read_part
from carpentry.language import TICKS_PER_INCH, CarpentryError, Unit, read_length
from carpentry.lumber import (
    INCHES,
    Exposure,
    Form,
    Kind,
    OwnFields,
    OwnStock,
    board_feet,
    read_own,
    read_stock,
    species_of,
    standard_section,
    weight_kg,
)
from carpentry.project import NamedPart, SettingFields, Shelf, gather_materials, read_settings

LONG = 96 * TICKS_PER_INCH


def own(**typed: str) -> OwnStock:
    return read_own(
        OwnFields(**{"name": "Barn beam", "thickness": "3 1/4", "width": "5"} | typed), "in"
    )


def known(*stocks: OwnStock) -> dict[str, OwnStock]:
    return {stock.name: stock for stock in stocks}


class OwnMaterialsTest(unittest.TestCase):
    def faults(self, **typed: str) -> set[str]:
        with self.assertRaises(CarpentryError) as caught:
            own(**typed)
        return {problem.place for problem in caught.exception.problems}

    def test_a_material_has_the_size_it_was_given(self) -> None:
        beam = own(kind="treated", exposure="ground contact", density="620")
        stock = read_stock("BARN  beam", INCHES.knowing(known(beam))).stock
        self.assertEqual(str(stock), "barn beam")
        self.assertEqual(standard_section(stock), beam.section)
        self.assertEqual((stock.kind, stock.is_sheet), (Kind.TREATED, False))
        self.assertEqual(species_of(stock).exposure, Exposure.GROUND)

    def test_its_weight_follows_from_its_density(self) -> None:
        """Volume × density: 8 ft of 3 1/4 × 5 at 620 kg/m³, by a pocket calculator."""
        stock = read_stock("barn beam", INCHES.knowing(known(own(density="620")))).stock
        section = standard_section(stock)
        density = species_of(stock).density()
        assert section and density
        kilograms = weight_kg(section.area * LONG, density)
        self.assertAlmostEqual(float(kilograms), 3.25 * 5 * 96 * 0.0254**3 * 620, places=6)

    def test_board_feet_as_it_measures(self) -> None:
        stock = read_stock("barn beam", INCHES.knowing(known(own()))).stock
        self.assertEqual(board_feet(stock, LONG), Fraction(325, 100) * 5 * 96 / 144)

    def test_boards_of_it_are_ripped_like_any_others(self) -> None:
        """Two strips of 2 3/8 and a kerf come out of one beam of 5, and from nothing else."""
        mine = known(own(thickness="2"))
        strip = PartFields("2", "strip", "barn beam", "40", width="2 3/8", rip="yes")
        other = PartFields("1", "rail", "2x4", "40")
        chosen = read_settings(SettingFields())
        parts = [
            NamedPart(str(n), read_part(fields, INCHES.knowing(mine)))
            for n, fields in enumerate((strip, other))
        ]
        beam, rail = gather_materials(parts, Shelf([], chosen.unit), chosen)
        self.assertEqual(
            (beam.called, beam.ripped, beam.later), ("barn beam boards, ripped", True, ())
        )
        self.assertEqual({str(offer.stock) for offer in beam.offers}, {"barn beam"})
        self.assertEqual({str(offer.stock) for offer in rail.offers}, {"2x4"})
        problem = beam.problem(chosen)
        assert problem is not None
        plan = plan_cuts(problem, Budget(10))
        self.assertEqual((plan.pieces_of_stock, plan.unplaced), (1, ()))

    def test_a_round_has_the_area_of_a_circle(self) -> None:
        dowel = own(name="ash dowel", form="round", thickness="1", width="")
        self.assertEqual(dowel.section.thickness, dowel.section.width)
        share = dowel.section.area / TICKS_PER_INCH**2
        self.assertAlmostEqual(share, math.pi / 4, places=6)

    def test_sheets(self) -> None:
        panel = own(name="barn panel", form="sheet", thickness="1/2", width="30")
        stock = read_stock("barn panel", INCHES.knowing(known(panel))).stock
        self.assertTrue(stock.is_sheet)
        self.assertIsNone(board_feet(stock, LONG))
        part = read_lines("2 side barn panel 40 x 20", INCHES.knowing(known(panel)))[0]
        self.assertEqual((part.length.text, part.width and part.width.text), ("40", "20"))

    def test_in_a_typed_line_the_longest_name_comes_first(self) -> None:
        both = known(own(), own(name="barn beam thin", thickness="2"))
        part = read_lines("4 bearer barn beam thin 44 1/2", INCHES.knowing(both))[0]
        self.assertEqual((part.name, str(part.stock)), ("bearer", "barn beam thin"))
        self.assertEqual((part.quantity, part.length.ticks), (4, read_length("44 1/2", "in").ticks))

    def test_in_a_pasted_table(self) -> None:
        rows = "2\tpost\tbarn beam\t40\n1\trail\tbarn beam\t20"
        self.assertEqual(
            [p.quantity for p in read_lines(rows, INCHES.knowing(known(own())))], [2, 1]
        )

    def test_the_size_book_knows_nothing_of_it(self) -> None:
        with self.assertRaises(CarpentryError):
            read_stock("barn beam", INCHES)
        with self.assertRaisesRegex(CarpentryError, "nothing follows"):
            read_stock("barn beam treated", INCHES.knowing(known(own())))
        with self.assertRaisesRegex(CarpentryError, "barn beam"):
            read_stock("barn beem", INCHES.knowing(known(own())))

    def test_millimetres(self) -> None:
        stock = read_own(OwnFields("ex floor", "board", "18", "120"), Unit.MM)
        self.assertEqual(stock.section.width, read_length("120", "mm").ticks)

    def test_every_bad_field_has_its_message(self) -> None:
        self.assertEqual(self.faults(name=""), {"name"})
        self.assertEqual(self.faults(name="2x4 old"), {"name"})
        self.assertEqual(self.faults(thickness="0", width="x"), {"thickness", "width"})
        self.assertEqual(self.faults(width="40ft"), {"width"})
        self.assertEqual(self.faults(width=""), {"width"})
        self.assertEqual(self.faults(density="heavy"), {"density"})
        self.assertEqual(self.faults(density="99999"), {"density"})
        self.assertEqual(self.faults(density="NaN"), {"density"})
        self.assertEqual(
            self.faults(form="cube", kind="x", exposure="y"), {"form", "kind", "exposure"}
        )
        self.assertEqual(self.faults(caution="x" * 201), {"caution"})
        with self.assertRaisesRegex(CarpentryError, "of this name"):
            read_own(OwnFields("Barn  Beam", "board", "1", "1"), "in", ["barn beam"])

    def test_what_is_not_said_is_usual(self) -> None:
        self.assertEqual(own().density, Decimal(500))
        self.assertEqual(own(kind="composite").density, Decimal(950))
        self.assertEqual(own(form="sheet").kind, Kind.SHEET)
        self.assertEqual(own().form, Form.BOARD)
