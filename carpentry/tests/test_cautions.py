"""What is said where the work can hurt someone. Common practice, no source."""

from unittest import TestCase

from carpentry.buying.products import usual_product
from carpentry.cutting import first_plan
from carpentry.design import PartFields, read_part
from carpentry.lumber import INCHES
from carpentry.lumber.cautions import (
    CROSSCUTS,
    DUST,
    NARROW,
    OILY_RAGS,
    PROTECTION,
    RIPS,
    SHORT,
    STEEP,
    STRENGTH,
    TREATED,
    Work,
    at_the_saw,
    beyond_the_saw,
)
from carpentry.planning import Basis, PlannedProject, Workup
from carpentry.project import (
    NamedPart,
    SettingFields,
    read_settings,
)
from carpentry.tests.problems import ticks

RAIL = PartFields("2", "rail", "2x4", "30")


class CautionsTest(TestCase):
    def test_what_is_said_of_the_work(self) -> None:
        for work, said in (
            (Work(), []),
            (Work(shortest=ticks("6")), []),
            (Work(shortest=ticks("5 7/8")), [SHORT]),
            (Work(narrowest=ticks("2")), [RIPS]),
            (Work(narrowest=ticks("1 7/8")), [RIPS, NARROW]),
            (Work(steepest=45.0), []),
            (Work(steepest=50.0), [STEEP]),
        ):
            self.assertEqual(list(at_the_saw(work)), [PROTECTION, CROSSCUTS, *said], work)

    def test_oil_heats_its_rags(self) -> None:
        for finish, oily in (
            ("cedar oil", True),
            ("Danish finish", True),
            ("boiled linseed", True),
            ("water-based woodstain", False),
            ("stain", True),
            ("latex paint", False),
            ("shellac", False),
        ):
            said = list(beyond_the_saw(finished=True, oily=usual_product(finish).oily))
            self.assertEqual(said, [DUST, *[OILY_RAGS] * oily, STRENGTH], finish)

    def test_treated_wood(self) -> None:
        self.assertEqual(list(beyond_the_saw(treated=True)), [TREATED, STRENGTH])

    def test_every_one_is_whole_sentences(self) -> None:
        for said in (PROTECTION, CROSSCUTS, RIPS, NARROW, SHORT, STEEP, DUST, OILY_RAGS, STRENGTH):
            self.assertTrue(said[0].isupper() and said.endswith("."), said)


class PlannedTest(TestCase):
    """Cautions come from what is planned: strips that are ripped, pieces that are short."""

    def cautions(self, *typed: PartFields, finishes: str = "") -> list[str]:
        chosen = read_settings(SettingFields())
        parts = [NamedPart(str(n), read_part(one, INCHES)) for n, one in enumerate(typed)]
        project = PlannedProject(chosen, parts, {}, finishes=finishes)
        work = Workup(project, Basis(chosen.unit))
        plans = [first_plan(problem) if problem else None for problem in work.problems]
        return [*work.saw_cautions(plans), *work.other_cautions()]

    def test_rips_and_short_pieces(self) -> None:
        plain = self.cautions(RAIL)
        self.assertEqual(plain, [PROTECTION, CROSSCUTS, STRENGTH])
        short = self.cautions(RAIL, PartFields("1", "block", "2x4", "4"))
        self.assertIn(SHORT, short)
        strip = PartFields("2", "slat", "2x4", "30", width="1 1/8", rip="yes")
        self.assertEqual(self.cautions(strip)[2:4], [RIPS, NARROW])

    def test_treated_parts(self) -> None:
        self.assertIn(TREATED, self.cautions(PartFields("1", "leg", "4x4 treated", "40")))

    def test_nothing_planned_needs_no_saw(self) -> None:
        sheet = PartFields("1", "bottom", "ply 1/2", "30", width="20")
        self.assertEqual(self.cautions(sheet), [STRENGTH])

    def test_an_oiled_project(self) -> None:
        said = self.cautions(RAIL, finishes="teak oil on all, 2 coats, 12 m2/l")
        self.assertEqual(said[-2:], [OILY_RAGS, STRENGTH])
