import json
from typing import Any
from unittest import TestCase

from carpentry.language import CarpentryError, Json
from carpentry.tests import seeds
from carpentry.tests.days_by_brute_force import fault_of, ready_by_brute_force
from carpentry.tests.days_by_program import minutes_until, ready_by_program
from carpentry.tests.random_days import random_days
from carpentry.time.days_file import days_answer, read_days_file
from carpentry.time.plan import plan_of_days

STAND: Json = {
    "zone": "America/Denver",
    "from": "2027-06-07T18:00",
    "wanted": "2027-06-10T20:00",
    "windows": {"mon-fri": ["18:00-21:00"], "sat-sun": ["09:00-17:00"]},
    "off": ["2027-06-09"],
    "weather": {"humidity": 76, "celsius": 20},
    "clamps": 4,
    "steps": [
        {"id": "glue", "minutes": 30, "wait": "10 h", "clamps": 4},
        {"id": "oil", "minutes": 20, "wait": "16 h", "after": ["glue"]},
        {"id": "coat", "minutes": 20, "wait": "6 h", "slower when humid": True, "after": ["oil"]},
    ],
}


def answer(problem: Json, **more: Any) -> Json:
    return days_answer(json.dumps(problem | more), 5)


def steps(*told: str, **every: Any) -> list[Json]:
    """Steps ``a 30 10h`` one after the other: name, minutes, wait."""
    found: list[Json] = []
    for one in told:
        name, minutes, *wait = one.split(" ", 2)
        step: Json = {"id": name, "minutes": int(minutes), **every}
        if wait:
            step["wait"] = wait[0]
        if found:
            step["after"] = [found[-1]["id"]]
        found.append(step)
    return found


class StandTest(TestCase):
    """A worked example: common practice, no source."""

    def test_each_step_is_done_in_the_first_free_hours_it_can_be(self) -> None:
        found = answer(STAND)
        at = {one["id"]: (one["start"], one["end"], one["free_from"]) for one in found["steps"]}
        self.assertEqual(at["glue"], ("2027-06-07T18:00", "2027-06-07T18:30", "2027-06-08T04:30"))
        self.assertEqual(at["oil"], ("2027-06-08T18:00", "2027-06-08T18:20", "2027-06-09T10:20"))
        self.assertEqual(at["coat"], ("2027-06-10T18:00", "2027-06-10T18:20", "2027-06-11T03:20"))
        self.assertEqual((found["ready"], found["late"]), ("2027-06-11T03:20", "7 h 20 min"))
        self.assertTrue(found["exact"])

    def test_when_to_begin_and_what_can_wait(self) -> None:
        found = answer(STAND)
        self.assertEqual(found["begin_by"], "2027-06-06T16:30")
        slack = {one["id"]: (one["slack"], one["critical"]) for one in found["steps"]}
        self.assertEqual(
            slack,
            {
                "glue": ("2 h 30 min", False),  # until 20:30, which ends at 21:00
                "oil": ("2 h 40 min", False),
                "coat": ("0 h", True),
            },
        )

    def test_what_would_do_is_what_comes_when_it_is_taken(self) -> None:
        for problem in (STAND, *(random_days(seed, 9, wanted=True) for seed in range(12))):
            found = answer(problem)
            if problem is STAND:
                self.assertEqual(
                    [one["says"] for one in found["would_do"]],
                    ["working on Wednesday Jun 9, a day off", "begun by Sunday Jun 6, 16:30"],
                )
            for one in found["would_do"]:
                with self.subTest(one["says"], problem=problem["from"]):
                    again = answer(problem | one["take"])
                    self.assertEqual(again["ready"], one["ready"])
                    self.assertLess(one["ready"], found["ready"])

    def test_begun_a_minute_later_than_the_latest_it_is_late(self) -> None:
        tried = 0
        for seed in range(20):
            problem = random_days(seed, 6, wanted=True)
            found = answer(problem)
            if not found["begin_by"] or not found["begin_by_exact"]:
                continue
            tried += 1
            in_time = answer(problem, **{"from": found["begin_by"]})
            self.assertEqual(in_time["late"], "0 h", seed)
            clock, minute = found["begin_by"][:14], int(found["begin_by"][14:16])
            late = answer(problem, **{"from": f"{clock}{minute + 1:02}"})
            self.assertNotEqual(late["late"], "0 h", seed)
        self.assertGreater(tried, 8)

    def test_nothing_wanted_is_never_late(self) -> None:
        problem = {name: value for name, value in STAND.items() if name != "wanted"}
        found = answer(problem)
        self.assertEqual((found["late"], found["begin_by"], found["would_do"]), (None, None, []))


class ExactTest(TestCase):
    def test_no_order_is_ready_earlier_on_random_projects(self) -> None:
        for seed in seeds(30, 84):
            problem = random_days(seed, 1 + seed % 7)
            problem |= {"zone": "America/Denver", "from": f"2027-{3 + seed % 2 * 8:02}-11T18:00"}
            found = answer(problem)
            with self.subTest(seed=seed):
                self.assertEqual(fault_of(problem, found), "")
                self.assertTrue(found["exact"])
                ready = minutes_until(problem, found["ready"])
                self.assertEqual(ready, ready_by_brute_force(problem))

    def test_a_general_solver_finds_nothing_earlier(self) -> None:
        for seed in seeds(10, 30):
            problem = random_days(seed, 8 + seed % 5)
            for step in problem["steps"]:
                if step.pop("may be split", False):
                    step["minutes"] = 100
            found = answer(problem)
            with self.subTest(seed=seed):
                self.assertTrue(found["exact"])
                ready = minutes_until(problem, found["ready"])
                self.assertEqual(ready_by_program(problem, ready + 1), ready)

    def test_large_projects_can_be_done_as_they_say_and_say_how_far_off_they_may_be(self) -> None:
        for seed in range(2):
            problem = random_days(seed, 40)
            found = days_answer(json.dumps(problem), 0.4)
            self.assertEqual(fault_of(problem, found), "")
            self.assertLessEqual(found["bound"], found["ready"])
            self.assertEqual(found["exact"], found["bound"] == found["ready"])

    def test_a_step_can_wait_just_as_long_as_it_says(self) -> None:
        """Held back by its slack all is ready as before, by a minute more it is not."""
        for seed in range(6):
            problem = random_days(seed, 6)
            found = answer(problem)
            self.assertTrue(found["slack_exact"])
            for n, one in enumerate(found["steps"]):
                days = read_days_file(json.dumps(problem))
                planned = plan_of_days(days, 5)
                slack = planned.steps[n].slack
                assert slack is not None
                self.assertEqual(one["critical"], slack == 0)
                for more, same in ((slack, True), (slack + 1, False)):
                    held = _held_back(problem, one["id"], planned.steps[n].placed.start + more)
                    self.assertEqual(held <= planned.ready, same, (seed, one["id"], more))


def _held_back(problem: Json, id: str, until: int) -> int:
    """When all is ready where a step waits for another one that keeps nobody busy."""
    days = read_days_file(json.dumps(problem))
    ahead = max(0, until - days.start)
    dam = {"id": "dam", "minutes": 0, "wait": f"{ahead} min"}
    changed = json.loads(json.dumps(problem))
    for step in changed["steps"]:
        if step["id"] == id:
            step.setdefault("after", []).append("dam")
    changed["steps"].append(dam | {"done": problem["from"]})
    return plan_of_days(read_days_file(json.dumps(changed)), 5).ready


class HoursTest(TestCase):
    def test_a_wait_of_a_few_minutes_keeps_the_builder_there(self) -> None:
        one = {"id": "wipe", "minutes": 20, "wait": "15 min", "stay": True}
        other = {"id": "other", "minutes": 150}
        found = answer(STAND, steps=[other, one])
        # 35 min and 150 min are more than one evening has
        self.assertEqual(found["steps"][0]["start"], "2027-06-07T18:00")
        self.assertEqual(found["steps"][1]["start"], "2027-06-08T18:00")

    def test_work_may_go_on_in_the_next_free_hours_where_it_says_so(self) -> None:
        long = {"id": "sand", "minutes": 240}
        with self.assertRaisesRegex(CarpentryError, "takes 4 h at a stretch, more than the 3 h"):
            answer(STAND, steps=[long], windows={"mon-fri": ["18:00-21:00"]})
        found = answer(
            STAND, steps=[long | {"may be split": True}], windows={"mon-fri": ["18:00-21:00"]}
        )
        self.assertEqual(found["steps"][0]["end"], "2027-06-08T19:00")

    def test_hours_over_midnight_join(self) -> None:
        windows = {"mon": ["20:00-24:00"], "tue": "00:00-02:00"}
        found = answer(STAND, windows=windows, steps=steps("long 300"), off=[])
        self.assertEqual(found["steps"][0]["end"], "2027-06-08T01:00")

    def test_work_that_takes_no_time_begins_in_free_hours_and_at_their_very_end(self) -> None:
        found = answer(STAND, steps=steps("a 180", "look 0"), **{"from": "2027-06-07T10:00"})
        self.assertEqual(found["steps"][1]["start"], "2027-06-07T21:00")

    def test_a_helper_daylight_and_dry_weather_are_waited_for(self) -> None:
        weather = {"days": {"2027-06-12": {"wet": True}}}
        by = {"helper": {"sun": ["14:00-16:00"]}, "daylight": "08:00-12:00", "weather": weather}
        told = [
            {"id": "lift", "minutes": 30, "helper": True},
            {"id": "look", "minutes": 30, "daylight": True},
            {"id": "paint", "minutes": 30, "dry": True, "daylight": True, "after": ["look"]},
        ]
        found = answer(STAND, steps=told, **by)
        starts = [one["start"] for one in found["steps"]]
        self.assertEqual(starts[0], "2027-06-13T14:00")
        self.assertEqual(starts[1], "2027-06-12T09:00")
        self.assertEqual(starts[2], "2027-06-13T09:00")

    def test_clamps_are_held_through_the_wait_or_for_as_long_as_is_said(self) -> None:
        two = [
            {"id": "one", "minutes": 30, "wait": "12 h", "clamps": 3},
            {"id": "two", "minutes": 30, "wait": "12 h", "clamps": 3},
        ]
        found = answer(STAND, steps=two)
        self.assertEqual(found["steps"][1]["start"], "2027-06-08T18:00")
        found = answer(STAND, steps=[one | {"clamps for": "1 h"} for one in two])
        self.assertEqual(found["steps"][1]["start"], "2027-06-07T19:30")

    def test_a_wait_grows_in_humid_and_in_cold_weather_as_its_product_says(self) -> None:
        wet = {"id": "coat", "minutes": 20, "wait": "6 h", "slower when humid": True}
        for weather, over in (
            ({"humidity": 70, "celsius": 13}, "2027-06-08T00:20"),
            ({"humidity": 71, "celsius": 20}, "2027-06-08T03:20"),
            ({"humidity": 50, "celsius": "12.5"}, "2027-06-08T03:20"),
        ):
            found = answer(STAND, steps=[wet], weather=weather)
            self.assertEqual(found["ready"], over, weather)
        own = answer(STAND, steps=[wet | {"humid": "8 h"}])
        self.assertEqual(own["ready"], "2027-06-08T02:20")
        # humid until midnight: in 5 h 40 min of it dries what takes 3 h 46 min 40 s, the rest at
        # its own pace
        turning = {"humidity": 60, "days": {"2027-06-07": {"humidity": 90}}}
        found = answer(STAND, steps=[wet], weather=turning)
        self.assertEqual(found["ready"], "2027-06-08T02:14")

    def test_below_its_least_temperature_a_step_does_not_begin(self) -> None:
        weather = {"celsius": 20, "days": {"2027-06-07": {"celsius": 9}}}
        paint = {"id": "paint", "minutes": 20, "least celsius": 10}
        found = answer(STAND, steps=[paint], weather=weather)
        self.assertEqual(found["steps"][0]["start"], "2027-06-08T18:00")

    def test_what_is_done_is_a_fact_and_what_is_begun_is_gone_on_with(self) -> None:
        told = [dict(one) for one in STAND["steps"]]
        told[0] |= {"begun": "2027-06-06T09:00", "done": "2027-06-06T10:00"}
        told[1] |= {"begun": "2027-06-07T17:00"}
        found = answer(STAND, steps=told)
        self.assertEqual(found["steps"][0]["free_from"], "2027-06-06T20:00")
        self.assertIsNone(found["steps"][0]["slack"])
        self.assertEqual(found["steps"][1]["end"], "2027-06-07T18:20")


class ClockChangeTest(TestCase):
    """When clocks change in 2027: from the time zone database."""

    def test_a_wait_over_the_night_on_which_clocks_change_is_as_long_as_it_is(self) -> None:
        for zone, day, over in (
            ("America/Denver", "2027-03-13", "2027-03-14T06:00"),  # 2:00 is 3:00
            ("America/Denver", "2027-11-06", "2027-11-07T04:00"),  # 1:00 to 2:00 comes twice
            ("Europe/Berlin", "2027-03-27", "2027-03-28T06:00"),
            ("Europe/Berlin", "2027-10-30", "2027-10-31T04:00"),
            ("Australia/Adelaide", "2027-10-02", "2027-10-03T06:00"),
            ("Australia/Adelaide", "2027-04-03", "2027-04-04T04:00"),
        ):
            found = answer(
                STAND,
                zone=zone,
                off=[],
                windows={"mon-sun": ["09:00-19:00"]},
                steps=steps("glue 60 10 h"),
                **{"from": f"{day}T18:00"},
            )
            self.assertEqual(found["steps"][0]["end"], f"{day}T19:00")
            self.assertEqual(found["ready"], over, (zone, day))

    def test_free_hours_in_the_night_are_longer_or_shorter_by_the_hour(self) -> None:
        night = {"sat-sun": ["00:00-04:00"]}
        told = [{"id": "work", "minutes": 300, "may be split": True}]
        for day, end in (("2027-03-14", "2027-03-20T02:00"), ("2027-11-07", "2027-11-07T04:00")):
            found = answer(STAND, windows=night, steps=told, **{"from": f"{day}T00:00"})
            self.assertEqual(found["ready"], end)

    def test_the_second_pass_of_an_hour_says_its_offset_and_is_read_back(self) -> None:
        found = answer(
            STAND,
            windows={"sun": ["00:00-04:00"]},
            steps=steps("a 100", "b 10"),
            **{"from": "2027-11-07T00:00"},
        )
        self.assertEqual(found["steps"][0]["end"], "2027-11-07T01:40")
        at = answer(
            STAND,
            steps=steps("a 150"),
            windows={"sun": ["00:00-04:00"]},
            **{"from": "2027-11-07T00:00"},
        )
        self.assertEqual(at["ready"], "2027-11-07T01:30-07:00")
        days = read_days_file(json.dumps(STAND | {"from": at["ready"]}))
        self.assertEqual(days.zone.shown(days.start), at["ready"])

    def test_a_time_that_is_skipped_is_told(self) -> None:
        with self.assertRaisesRegex(CarpentryError, "02:30 is skipped in America/Denver"):
            answer(STAND, **{"from": "2027-03-14T02:30"})


class BadDaysTest(TestCase):
    def told(self, **more: Any) -> list[str]:
        with self.assertRaises(CarpentryError) as raised:
            answer(STAND, **more)
        return [str(problem) for problem in raised.exception.problems]

    def test_what_cannot_be_is_told_with_its_place(self) -> None:
        step = STAND["steps"][0]
        for more, told in (
            ({"windows": {}}, "windows: no free hours: nothing can be done"),
            ({"off": ["2027-02-31"]}, "off[0]: “2027-02-31” is no day: write it as 2027-06-09"),
            (
                {"weather": {"humidity": 140}},
                "weather.humidity: a humidity of 140 % cannot be: it is from 0 to 100",
            ),
            (
                {"steps": [step | {"wait": "10 years"}]},
                "steps[0].wait: a wait of 10 years is over 366 days, the most",
            ),
            ({"steps": [step | {"clamps": 5}]}, "steps[0]: “glue” holds 5 clamps, and there are 4"),
            ({"steps": []}, "steps: there is nothing to do"),
            ({"steps": [step, step]}, "steps[1].id: “glue” is there twice"),
            ({"steps": [step | {"after": ["x"]}]}, "steps[0].after[0]: there is no step “x”"),
            (
                {"zone": "Mars/Base"},
                "zone: “Mars/Base” is no time zone: write such as America/Denver",
            ),
            (
                {"windows": {"moon": ["1:00-2:00"]}},
                "windows.moon: “moon” is no day of the week: write mon, or mon-fri",
            ),
            (
                {"windows": {"mon": ["22:00-2:00"]}},
                "windows.mon[0]: “22:00-2:00” ends before it begins: hours over midnight are two, "
                "to 24:00 and from 0:00",
            ),
            ({"windows": {"mon": ["22:00-25:00"]}}, "windows.mon[0]: “22:00-25:00” is past 24:00"),
            (
                {"from": "2027-06-07"},
                "from: “2027-06-07” says no hour: write it as 2027-06-09T18:00",
            ),
            ({"colour": "red"}, "colour: is no field here"),
            ({"format": "grain-tally/days@9"}, "format: must be grain-tally/days@1"),
        ):
            with self.subTest(told):
                self.assertEqual(self.told(**more), [told])

    def test_a_circle_is_named(self) -> None:
        told = [
            {"id": "a", "minutes": 1, "after": ["c"]},
            {"id": "b", "minutes": 1, "after": ["a"]},
            {"id": "c", "minutes": 1, "after": ["b"]},
        ]
        self.assertEqual(
            self.told(steps=told),
            [
                "steps: a circle: “a” waits for “c” waits for “b” waits for “a”; none of them can "
                "begin"
            ],
        )

    def test_a_step_for_which_there_never_is_time_is_told(self) -> None:
        lifted = [{"id": "lift", "minutes": 30, "helper": True}]
        told = self.told(steps=lifted, helper={"wed": ["03:00-04:00"]})
        self.assertEqual(
            told,
            ["windows: there is no time for “lift” in the next 8 years: it waits for a helper"],
        )

    def test_a_day_that_is_long_past_is_planned_as_any_other(self) -> None:
        found = answer(STAND, **{"from": "2001-06-04T18:00", "wanted": "2001-06-01T12:00"}, off=[])
        self.assertEqual(found["ready"], "2001-06-07T03:20")
        self.assertNotEqual(found["late"], "0 h")
