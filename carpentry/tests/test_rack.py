from unittest import TestCase

from carpentry.language import CarpentryError, read_length
from carpentry.lumber import INCHES
from carpentry.lumber.rack import BoardFields, MeasuredBoard, read_board


def ticks(text: str) -> int:
    return read_length(text, "in").ticks


def board(**typed: str) -> MeasuredBoard:
    return read_board(BoardFields(**({"stock": "2x4 treated", "length": "70"} | typed)), INCHES)


class MeasuredBoardTest(TestCase):
    def test_nothing_measured_is_the_standard_size(self) -> None:
        plain = board()
        assert plain.section is not None
        self.assertFalse(plain.is_measured)
        self.assertEqual(plain.section.width, ticks("3 1/2"))
        self.assertEqual(plain.not_used_because(), "")

    def test_the_least_measured_width_counts(self) -> None:
        measured = board(width="3 9/16", width_middle="3 1/2", width_end="3 17/32")
        assert measured.section is not None
        self.assertEqual(measured.section.width, ticks("3 1/2"))
        self.assertTrue(measured.is_measured)

    def test_a_length_inside_the_name(self) -> None:
        self.assertEqual(board(stock="2x4x8", length="").length, ticks("8ft"))

    def test_a_crooked_board_still_gives_a_strip(self) -> None:
        """Width less the crook, less 1/8 a corner on both edges; common practice."""
        crooked = board(crook="1/2")
        self.assertEqual(crooked.straight_width, ticks("2 3/4"))
        self.assertEqual(crooked.not_used_because(), "")
        self.assertIsNone(board(crook="3 1/2").straight_width)
        self.assertIn("nothing straight", board(crook="3 1/2").not_used_because())
        self.assertIsNone(board(crook="1/2", twist="yes").straight_width)

    def test_why_plans_leave_it_alone(self) -> None:
        for typed, words in (
            ({"twist": "yes"}, "rejected"),
            ({"width": "3 1/4"}, "under its name"),
            ({"stock": "ply 1/2"}, "sheet"),
        ):
            self.assertIn(words, board(**typed).not_used_because())
        self.assertEqual(board(bow="1", cup="1/8", twist="no").not_used_because(), "")

    def test_flaws_are_ranges(self) -> None:
        noted = board(flaws="60 - 62, 30 to 34 1/2")
        self.assertEqual(noted.flaws[0], (ticks("30"), ticks("34 1/2")))
        self.assertEqual(len(noted.flaws), 2)

    def test_faults_by_field(self) -> None:
        for typed, place, words in (
            ({"stock": "2x13"}, "stock", "2x13"),
            ({"length": ""}, "length", "missing"),
            ({"length": "900ft"}, "length", "that long or short"),
            ({"width": "40"}, "width", "far from"),
            ({"thickness": "0"}, "thickness", "far from"),
            ({"width_end": "x"}, "width_end", "a number is expected"),
            ({"crook": "14"}, "crook", "out of true"),
            ({"twist": "a bit"}, "twist", "choose one of no, yes"),
            ({"flaws": "30"}, "flaws", "no range"),
            ({"flaws": "34 to 30"}, "flaws", "backward"),
            ({"flaws": "60 to 80"}, "flaws", "beyond the end"),
            ({"flaws": "30 to 34, 33 to 36"}, "flaws", "overlap"),
            ({"note": "n" * 201}, "note", "longer than"),
        ):
            with self.assertRaises(CarpentryError, msg=typed) as caught:
                board(**typed)
            told = {p.place: p.message for p in caught.exception.problems}
            self.assertIn(words, told.get(place, str(told)), typed)
