"""Time that runs out."""

from unittest import TestCase

from carpentry.cutting.search.clock import Clock
from carpentry.cutting.search.programs import INFINITY, Outcome, Program


class ClockTest(TestCase):
    def test_it_rings_only_when_somebody_asks(self) -> None:
        clock = Clock(-1)
        self.assertFalse(clock.has_rung)
        self.assertTrue(clock.is_over)
        self.assertTrue(clock.has_rung)

    def test_with_time_left_it_does_not_ring(self) -> None:
        for clock in (Clock(), Clock(3600)):
            self.assertFalse(clock.is_over or clock.has_rung)

    def test_a_part_rings_for_the_whole(self) -> None:
        whole = Clock(3600)
        part = whole.part(0.5).within(-1)
        self.assertTrue(part.is_over)
        self.assertTrue(whole.has_rung)
        self.assertFalse(whole.is_over)

    def test_no_part_is_longer_than_the_whole(self) -> None:
        self.assertLessEqual(Clock(10).within(3600).left, 10)
        self.assertLessEqual(Clock(10).part(0.5).left, 5)
        self.assertLessEqual(Clock(-1).part(0.5).left, 0)

    def test_a_program_that_time_ends_rings(self) -> None:
        """Market split after Cornuéjols and Dawande (1998): four rows of whole numbers that 50
        switches must halve exactly, far more than a moment's work."""
        program = Program([])
        for _ in range(50):
            program.add_column(0.0, [], 1.0, integer=True)
        for row in (7919, 6841, 5273, 4157):
            sizes = [(row * (n + 3) ** 2) % 9973 for n in range(50)]
            half = sum(sizes) // 2
            program.add_row(half, half, [(n, float(size)) for n, size in enumerate(sizes)])
        program.add_row(0.0, INFINITY, [(0, 1.0)])
        clock = Clock(0.05)
        found = program.solve(clock, 10**9)
        self.assertEqual((found.outcome, clock.has_rung), (Outcome.UNDECIDED, True))
