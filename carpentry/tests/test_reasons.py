"""What makes the days longer, and what they are reckoned from."""

import json
from decimal import Decimal
from unittest import TestCase

from carpentry.buying.coating import write_volume
from carpentry.language import Json, Unit
from carpentry.planning import plan_all, work_up_files
from carpentry.project import read_project_file
from carpentry.shop import (
    Tools,
    boards_to_cut,
    every_cut,
    minutes_of,
    read_tool,
    starter_tools,
    stop_by_stop,
)
from carpentry.tests.samples import FOLDER
from carpentry.time.days_file import read_days_file
from carpentry.time.plan import plan_of_days
from carpentry.time.project_days import DaysLines, Wood, steps_of
from carpentry.time.said import headline, waiting
from carpentry.time.step import Sort

DEMO = FOLDER.parents[2] / "demo"
DAYS: Json = {
    "zone": "America/Denver",
    "from": "2027-06-07T18:00",  # a Monday
    "windows": {"mon-fri": ["18:00-21:00"], "sat-sun": ["09:00-17:00"]},
}


def told(*steps: Json, **more: object) -> list[str]:
    days = read_days_file(json.dumps(DAYS | {"steps": list(steps)} | more))
    return [one.told for one in plan_of_days(days, 2).reasons]


class ReasonsTest(TestCase):
    def test_a_helper_who_comes_on_saturday(self) -> None:
        """Monday at 18:00 becomes Saturday at 9:00, and what begins then is over 4 days 15 h
        later."""
        lift = {"id": "lift", "minutes": 30, "helper": True}
        found = told(lift, helper={"sat": ["09:00-17:00"]})
        self.assertEqual(found, ["Waiting for the helper makes it 4 days 15 h later."])

    def test_clamps_and_days_off(self) -> None:
        glue = [{"id": name, "minutes": 20, "wait": "10 h", "clamps": 4} for name in "ab"]
        found = told(*glue, clamps=4)
        self.assertEqual(found, ["Having 4 clamps makes it 23 h 40 min later."])
        self.assertEqual(told(*glue, clamps=8), [])
        off = told({"id": "a", "minutes": 20}, off=["2027-06-07"])
        self.assertEqual(off, ["Days off make it 24 h later."])

    def test_what_dries_slowly(self) -> None:
        oil = {"id": "oil", "minutes": 20, "wait": "16 h", "slower when humid": True}
        humid = {"humidity": 76, "celsius": 20}
        self.assertEqual(
            told(oil, weather=humid), ["What dries slowly in this weather makes it 8 h later."]
        )
        self.assertEqual(told(oil), [])


class ReckonedTest(TestCase):
    def test_what_waits_side_by_side_counts_once(self) -> None:
        steps = [{"id": name, "minutes": 20, "wait": "10 h"} for name in "abc"]
        days = read_days_file(json.dumps(DAYS | {"steps": steps}))
        plan = plan_of_days(days, 2)
        self.assertEqual(waiting(plan), 10 * 60 + 40)
        self.assertEqual(headline(plan), "1 h of work, 10 h 40 min of waiting")

    def test_cutting_takes_as_long_as_in_the_shop(self) -> None:
        text = (DEMO / "cold-frame.project.json").read_text()
        project = read_project_file(text)
        work = work_up_files(project)
        tools = starter_tools()
        boards = boards_to_cut(work, plan_all(work, 2))
        cards = stop_by_stop(every_cut(boards, tools), tools)
        found = steps_of(work, DaysLines(), Wood({}, cards))
        cut = sum(one.minutes for one in found.steps if one.sort is Sort.CUT)
        self.assertAlmostEqual(cut, minutes_of(cards.set_ups), delta=10)  # each to five minutes

    def test_work_on_parts_takes_time(self) -> None:
        text = json.loads((DEMO / "rain-barrel-stand.project.json").read_text())
        work = work_up_files(read_project_file(json.dumps(text)))
        plain, worked = (
            sum(s.minutes for s in steps_of(work, lines).steps if s.sort is Sort.CUT)
            for lines in (DaysLines(), DaysLines(work="\n".join(text["work"])))
        )
        self.assertGreater(worked, plain)

    def test_clamps_of_the_workshop(self) -> None:
        clamps = read_tool("clamps", "", {"clamps": "24 × 6, 48 x 2"}, Unit.INCH)
        self.assertEqual(Tools((clamps,)).clamps, 8)
        self.assertIsNone(Tools(()).clamps)

    def test_what_is_left_is_rounded_down(self) -> None:
        """7.92 fl oz are 234 ml: to take out, 8; left over, 7.5."""
        self.assertEqual(write_volume(234, metric=False, tin="16 fl oz"), "8 fl oz")
        self.assertEqual(write_volume(234, metric=False, tin="16 fl oz", down=True), "7.5 fl oz")
        self.assertEqual(write_volume(234, metric=True, down=True), "230 ml")


class DemoTest(TestCase):
    def test_no_joint_of_a_demo_project_is_faulted(self) -> None:
        files = sorted(DEMO.glob("*.project.json"))
        self.assertGreater(len(files), 5)
        for file in files:
            project = read_project_file(file.read_text())
            work = work_up_files(project)
            told = {one.text: one.warnings for one in work.hardware.joints if one.warnings}
            self.assertEqual(told, {}, file.name)
            self.assertEqual(work.hardware.problems, (), file.name)
            lines = DaysLines(project.steps, project.products, project.weather, project.work)
            self.assertEqual(steps_of(work, lines).problems, (), file.name)
            self.assertIsInstance(work.hardware.price, Decimal)
