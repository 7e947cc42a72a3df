"""Steps of a project: made from what it is, typed, and what they wait for."""

import json
from datetime import UTC, date, datetime, timedelta
from decimal import Decimal
from fractions import Fraction
from io import StringIO
from typing import Any
from unittest import TestCase
from uuid import UUID
from zoneinfo import ZoneInfo

import icalendar
from dateutil.tz import tzical

from carpentry.buying.products import PRACTICE, read_product, usual_product
from carpentry.hours.clock import instant_of, read_zone
from carpentry.hours.durations import read_duration, write_duration, write_long
from carpentry.hours.pace import at_pace, read_pace
from carpentry.hours.weather import Drying, Wait
from carpentry.hours.weather_lines import read_weather
from carpentry.hours.windows import read_week, write_week
from carpentry.language import CarpentryError, Notation, Unit
from carpentry.planning import plan_all, work_up_files
from carpentry.project import project_document, read_project_file
from carpentry.time import plan_of_days
from carpentry.time.all_steps import AllSteps
from carpentry.time.calendar_file import ALARM_BEFORE, calendar_file
from carpentry.time.checks import CHECKS, answer_check, read_check
from carpentry.time.progress import Happened, ProgressEvent, ProgressKind, happened
from carpentry.time.project_days import DaysLines, Fact, days_of, steps_of
from carpentry.time.step_lines import read_step
from carpentry.time.steps_file import days_of_build

RACK: dict[str, Any] = {
    "format": "grain-tally/project@5",
    "name": "Rack",
    "parts": [
        {"mark": "A", "quantity": "4", "stock": "2x4 treated", "length": "40", "group": "frame"},
        {"mark": "B", "quantity": "6", "stock": "1x6 cedar", "length": "30", "group": "shelf"},
        {"mark": "C", "quantity": "2", "stock": "1x6 cedar", "length": "8", "group": "shelf"},
        {
            "mark": "D",
            "quantity": "1",
            "stock": "1x6 cedar",
            "length": "20",
            "group": "shelf",
            "held": "yes",
        },
    ],
    "joints": [
        "4 C end to B edge, 2 dowels, glued",
        "12 B to A, 2 screws",
        "2 A to A, 1 carriage bolt, load",
    ],
    "finishes": ["cedar oil on B C, 2 coats, 400 sq ft/gal"],
}


def steps(lines: DaysLines | None = None, **more: Any) -> AllSteps:
    project = read_project_file(json.dumps(RACK | more))
    return steps_of(work_up_files(project), lines or DaysLines())


def by_name(found: AllSteps) -> dict[str, Any]:
    return {step.name: step for step in found.steps}


class MadeStepsTest(TestCase):
    def test_the_order_of_the_work(self) -> None:
        """Sub-assemblies, dry fit, what stays loose, finish, setting up: common practice."""
        names = [step.name for step in steps().steps]
        self.assertEqual(
            names,
            [
                "cut the parts of the frame",
                "end-cut preservative on the frame",
                "cut the parts of the shelf",
                "try the cedar oil on an offcut",
                "sand for the cedar oil",
                "cedar oil where pieces meet",
                "put the frame together",
                "dry fit the shelf",
                "glue the shelf",
                "put it all together",
                "measure for D and cut",
                "fit D",
                "cedar oil coat 1",
                "cedar oil coat 2",
                "set it up and level it",
            ],
        )

    def test_each_waits_for_what_it_needs_and_says_what_is_known(self) -> None:
        found = by_name(steps())
        self.assertEqual(
            found["put the frame together"].after, ("end-cut preservative on the frame",)
        )
        self.assertIn("glue the shelf", found["put it all together"].after)
        glue = found["glue the shelf"]
        self.assertEqual((glue.clamps, glue.wait.minutes), (8, 1440))
        self.assertIn("common practice", glue.wait_told)
        self.assertIsNone(found["put the frame together"].check)  # two pieces, bolted side by side
        self.assertEqual(found["put it all together"].check, CHECKS["diagonals equal"])
        self.assertTrue(found["cedar oil coat 1"].cautions)
        self.assertTrue(
            any("Treated" in c for c in found["end-cut preservative on the frame"].cautions)
        )

    def test_glue_goes_in_rounds_where_clamps_are_few(self) -> None:
        few = steps(days={"clamps": "4"})
        rounds = [step for step in few.steps if step.name.startswith("glue")]
        self.assertEqual(
            [step.name for step in rounds],
            ["glue the shelf round 1 of 2", "glue the shelf round 2 of 2"],
        )
        self.assertTrue(all(step.clamps <= 4 for step in rounds))

    def test_a_joint_that_no_clamps_are_enough_for_is_told(self) -> None:
        one = steps(days={"clamps": "1"})
        settings = read_project_file(json.dumps(RACK | {"days": {"clamps": "1"}})).settings
        with self.assertRaisesRegex(CarpentryError, "holds 2 clamps, and there are 1"):
            days_of(one.steps, settings, "", (0, read_zone("UTC"))).check()

    def test_glue_between_groups_waits_as_well(self) -> None:
        found = by_name(steps(joints=["8 B end to A edge, 2 dowels, glued"]))
        self.assertEqual(found["glue it all"].wait.minutes, 1440)
        self.assertIn("glue it all", found["measure for D and cut"].after)

    def test_joints_of_what_is_held_are_made_when_it_is_fitted(self) -> None:
        joint = "2 D to A, 2 screws"
        found = by_name(steps(joints=[*RACK["joints"], joint]))
        self.assertEqual(found["fit D"].joints, (joint,))
        self.assertIn("A", found["fit D"].parts)

    def test_wet_treated_wood_dries_before_it_is_finished(self) -> None:
        self.assertNotIn("stack the treated boards to dry", by_name(steps()))
        found = by_name(steps(finishes=["stain on all, 1 coat, 300 sq ft/gal"]))
        self.assertIn("stack the treated boards to dry", found["sand for the stain"].after)

    def test_a_finish_before_closing_goes_on_before_it_is_joined(self) -> None:
        early = steps(finishes=["paint on B C, 2 coats, 400 sq ft/gal, before closing"])
        found = by_name(early)
        self.assertIn("paint coat 2", found["dry fit the shelf"].after)
        self.assertEqual(found["paint coat 2"].wait.minutes, 1440)  # taken as the slower one
        self.assertIn("is the paint water-based?", " ".join(early.asks))

    def test_a_pace_corrects_what_is_reckoned_and_not_what_is_typed(self) -> None:
        usual = by_name(steps())["put it all together"].minutes
        slow = by_name(steps(days={"pace": "200 %"}))["put it all together"].minutes
        self.assertAlmostEqual(slow / usual, 2, delta=0.2)
        typed = steps(DaysLines("put it all together, 40 min"), days={"pace": "200 %"})
        self.assertEqual(by_name(typed)["put it all together"].minutes, 40)
        self.assertEqual(at_pace(20.2, Decimal(100)), 20)
        with self.assertRaisesRegex(CarpentryError, "from 20 to 500 %"):
            read_pace("600")

    def test_more_steps_than_are_planned_are_told(self) -> None:
        parts = [RACK["parts"][0] | {"mark": "", "group": f"group {n}"} for n in range(110)]
        found = steps(parts=parts, joints=[], finishes=[])
        self.assertGreater(len(found.steps), 200)
        settings = read_project_file(json.dumps(RACK)).settings
        with self.assertRaisesRegex(CarpentryError, "221 steps are more than 200"):
            days_of(found.steps, settings, "", (0, read_zone("UTC")))

    def test_no_parts_no_steps(self) -> None:
        self.assertEqual(steps(parts=[], joints=[], finishes=[]).steps, ())


class TypedStepsTest(TestCase):
    def test_lines_of_one_s_own(self) -> None:
        lines = DaysLines(
            "glue up the shelf panels, 20 min, then wait overnight\n"
            "paint slats before closing, 2 coats\nwipe the glue, then wait 15 min"
        )
        found = by_name(steps(lines))
        glue = found["glue up the shelf panels"]
        self.assertEqual((glue.minutes, glue.wait.minutes, glue.stays), (20, 600, False))
        self.assertIn("paint slats coat 2", found["put it all together"].after)
        self.assertTrue(found["wipe the glue"].stays)  # 5 to 20 minutes keep the builder there

    def test_a_step_that_is_there_is_said_otherwise_left_out_or_called_otherwise(self) -> None:
        lines = DaysLines(
            "dry fit the shelf, left out\nput it all together, called close it, needs a helper, "
            "check level to 1/4\nset it up and level it, after fit D"
        )
        found = by_name(steps(lines))
        self.assertNotIn("dry fit the shelf", found)
        self.assertEqual(
            found["glue the shelf"].after,
            ("cut the parts of the shelf", "cedar oil where pieces meet"),
        )
        self.assertTrue(found["close it"].helper)
        self.assertEqual(found["close it"].check.tolerance, 2032)  # 1/4 in, 8128 ticks to the inch

    def test_after_adds_and_only_after_replaces_all_but_cutting(self) -> None:
        added = by_name(steps(DaysLines("put it all together, after put the frame together")))
        self.assertIn("glue the shelf", added["put it all together"].after)
        only = steps(DaysLines("put it all together, only after put the frame together"))
        after = by_name(only)["put it all together"].after
        self.assertNotIn("glue the shelf", after)
        self.assertIn("cut the parts of the shelf", after)
        self.assertIn("put the frame together", after)

    def test_in_files_of_before_after_means_what_it_meant(self) -> None:
        lines = ["put it all together, 90 min, after put the frame together"]
        for form, replaces in (("grain-tally/project@5", True), ("grain-tally/project@6", False)):
            project = read_project_file(json.dumps(RACK | {"format": form, "steps": lines}))
            found = steps_of(work_up_files(project), DaysLines(project.steps))
            after = by_name(found)["put it all together"].after
            self.assertEqual("glue the shelf" not in after, replaces, form)
            written = project_document(project)
            self.assertEqual(read_project_file(json.dumps(written)).steps, project.steps)

    def test_a_line_changes_all_rounds_and_each_round_has_its_own_joints(self) -> None:
        few = steps(DaysLines("glue the shelf, 25 min, called stick it"), days={"clamps": "4"})
        rounds = [step for step in few.steps if step.key.startswith("glue the shelf round")]
        self.assertEqual([step.minutes for step in rounds], [25, 25])
        self.assertEqual([step.joints for step in rounds], [(f"2 of {RACK['joints'][0]}",)] * 2)
        self.assertFalse(any(step.key == "glue the shelf" for step in few.steps))
        after = DaysLines("wipe it, 5 min, after glue the shelf")
        self.assertEqual(
            by_name(steps(after, days={"clamps": "4"}))["wipe it"].after,
            ("glue the shelf round 1 of 2", "glue the shelf round 2 of 2"),
        )

    def test_a_step_answers_to_its_old_name_and_to_its_new_one(self) -> None:
        lines = "put it all together, called close it\nwipe it, after {}"
        for name in ("put it all together", "close it"):
            found = by_name(steps(DaysLines(lines.format(name))))
            self.assertIn("put it all together", found["wipe it"].after, name)

    def test_delivery_and_setting_up_come_last(self) -> None:
        found = by_name(steps(DaysLines("deliver, 1 h\nwax the drawers, 10 min")))
        self.assertIn("cedar oil coat 2", found["deliver"].after)
        self.assertIn("wax the drawers", found["deliver"].after)
        self.assertIn("deliver", found["set it up and level it"].after)

    def test_what_is_hung_is_made_first_and_what_is_closed_is_painted_first(self) -> None:
        hung = by_name(steps(DaysLines("hang the shelves, 20 min\nfit the shelf, 5 min")))
        self.assertIn("glue the shelf", hung["fit the shelf"].after)
        self.assertIn("put it all together", hung["hang the shelves"].after)
        painted = by_name(steps(DaysLines("paint the frame before closing, 2 coats")))
        self.assertIn("cut the parts of the frame", painted["paint the frame coat 1"].after)
        self.assertIn("paint the frame coat 2", painted["put the frame together"].after)

    def test_joints_are_made_in_the_order_of_their_lines(self) -> None:
        """A slat is glued to two sides that a screw holds by then."""
        screwed, glued = "4 B end to B, 2 screws", "4 C to B edge, glue"
        for joints, first in (((screwed, glued), "put"), ((glued, screwed), "glue")):
            found = by_name(steps(joints=list(joints)))
            put, fit, glue = (f"{w} the shelf" for w in ("put", "dry fit", "glue"))
            put = f"{put} together"
            after = found[fit].after if first == "put" else found[put].after
            self.assertIn(put if first == "put" else glue, after)

    def test_clamps_go_by_the_length_of_a_joint(self) -> None:
        """Every 10 in, two at least (common practice, every 8 to 12): 30 in edge to edge take
        three."""
        found = by_name(steps(joints=["1 B edge to B edge, glue"]))
        self.assertEqual(found["glue the shelf"].clamps, 3)
        self.assertIsNone(found["glue the shelf"].check)  # a slab has no diagonals to measure

    def test_very_many_joints_are_glued_in_turns(self) -> None:
        made = steps(joints=["10000 C to B edge, glue"], days={"clamps": "4"}, copies=1000)
        rounds = [step for step in made.steps if step.sort == "glue"]
        self.assertEqual([step.clamps for step in rounds], [4] * 12)
        self.assertEqual(sum(int(step.notes[0].split()[0]) for step in rounds), 10_000_000)
        self.assertIn("in turns", rounds[-1].notes[1])

    def test_setting_up_twenty_is_set_up_once(self) -> None:
        one, twenty = (by_name(steps(copies=n))["set it up and level it"].minutes for n in (1, 20))
        self.assertEqual((one, twenty), (30, 220))
        indoors = [{"mark": "A", "quantity": "2", "stock": "1x6 pine", "length": "12"}]
        on_a_table = steps(parts=indoors, joints=["1 A edge to A edge, glue"], finishes=[])
        self.assertNotIn("set it up and level it", by_name(on_a_table))

    def test_glue_beside_brads_has_to_set(self) -> None:
        found = by_name(steps(joints=["4 B end to C, 3 brads, glued"]))["put the shelf together"]
        self.assertEqual((found.wait.minutes, found.clamps), (1440, 0))

    def test_what_is_hidden_by_now_is_not_coated_any_more(self) -> None:
        found = steps()
        self.assertIn("cedar oil where pieces meet", by_name(found))
        joined = {"dry fit the shelf", "put it all together"}
        without = by_name(found.without_hidden(joined))
        self.assertNotIn("cedar oil where pieces meet", without)
        self.assertIn("sand for the cedar oil", without["put it all together"].after)
        self.assertEqual(found.without_hidden({"dry fit the shelf"}), found)  # half of it shows
        coated = found.without_hidden({"cedar oil where pieces meet", *joined})
        self.assertEqual(coated, found)

    def test_mirrored_groups_say_so(self) -> None:
        parts = [
            RACK["parts"][0] | {"mark": mark, "group": group}
            for mark, group in (("A", "left side"), ("B", "right side"))
        ]
        joints = ["2 A end to A, 2 screws", "2 B end to B, 2 screws"]
        found = by_name(steps(parts=parts, joints=joints, finishes=[]))
        self.assertIn(
            "the mirror image of the right side", found["put the left side together"].notes[0]
        )

    def test_circles_and_words_that_mean_nothing_are_told_by_line(self) -> None:
        lines = DaysLines(
            "cut the parts of the frame, after put it all together\nhang it, after the moon rises\n"
            "rest, 10 years\ncoat it, 99 coats\nlift, wildly\n, 20 min"
        )
        told = [str(problem) for problem in steps(lines).problems]
        self.assertEqual(len(told), 6)
        self.assertTrue(
            any("a circle: “cut the parts of the frame” waits for" in one for one in told)
        )
        self.assertTrue(any("there is no step “the moon rises”" in one for one in told))
        self.assertTrue(any("hands-on work of 10 years is over" in one for one in told))
        self.assertTrue(any("from 1 to 20 coats" in one for one in told))
        self.assertTrue(any("“wildly” says nothing of a step" in one for one in told))

    def test_a_line_that_cannot_be_is_left_away_whole(self) -> None:
        found = steps(DaysLines("hang it, 20 min, before the moon rises"))
        self.assertNotIn("hang it", by_name(found))
        self.assertIn("there is no step “the moon rises”", found.problems[0].message)

    def test_durations(self) -> None:
        for text, minutes in (
            ("30 min", 30),
            ("1 h 30 min", 90),
            ("1.5 hours", 90),
            ("½ h", 30),
            ("overnight", 600),
            ("3 days", 4320),
            ("2 weeks", 20160),
            ("an hour", 60),
        ):
            self.assertEqual(read_duration(text), minutes, text)
        for text in ("soon", "10", "h", "5 parsecs", "-3 h"):
            with self.assertRaisesRegex(CarpentryError, "is no duration"):
                read_duration(text)
        self.assertEqual(
            [write_duration(n) for n in (0, 20, 540, 440)], ["0 h", "20 min", "9 h", "7 h 20 min"]
        )
        self.assertEqual(write_long(8 * 1440 - 10), "8 days")
        self.assertEqual(write_long(4 * 1440 + 300), "4 days 5 h")

    def test_weeks_are_written_as_they_are_read(self) -> None:
        for text in ("mon-fri 18:00-21:00, sat-sun 9:00-17:00", "tue 7:00-8:00 19:00-20:30", ""):
            self.assertEqual(write_week(read_week(text)), text)


class ProductsTest(TestCase):
    def test_common_practice_is_told_as_such(self) -> None:
        """Glue 24 h, oil stain 24 h, varnish at least 4 h, spar varnish 24: common practice, no
        source."""
        for name, minutes in (
            ("wood glue", 1440),
            ("oil stain", 1440),
            ("varnish", 240),
            ("spar varnish", 1440),
        ):
            product = usual_product(name)
            self.assertEqual((product.wait, product.source), (minutes, PRACTICE), name)
        self.assertIn("nothing known", usual_product("moon dust").source)

    def test_the_label_wins(self) -> None:
        product = read_product(
            "cedar oil: 16 h between coats, wipe off after 10 min, cure 3 days, 20 h when humid, "
            "least 50 °F, instead of quick oil"
        )
        self.assertEqual((product.wait, product.wipe, product.cure), (960, 10, 4320))
        self.assertEqual((product.waits.slow, product.least), (1200, Fraction(10)))
        self.assertEqual((product.source, product.instead), ("the label", "quick oil"))
        found = by_name(steps(DaysLines(products="cedar oil: 16 h, turned")))
        self.assertEqual(found["cedar oil coat 1 one side"].wait.minutes, 960)
        self.assertIn("cedar oil coat 2 the other side", found)

    def test_labels_and_weather_that_cannot_be_are_told(self) -> None:
        for text in ("cedar oil 16 h", "cedar oil: smells nice", ": 3 h", "oil: 20 years"):
            with self.assertRaises(CarpentryError):
                read_product(text)
        for text, told in (
            ("2027-06-09: 140 %", "a humidity of 140 % cannot be"),
            ("2027-02-31: 50 %", "is no day"),
            ("june: 400 F", "cannot be: a temperature"),
            ("june: rain", "rain is typed for a day"),
            ("june: breezy", "is no weather"),
        ):
            with self.assertRaisesRegex(CarpentryError, told):
                read_weather(text)
        self.assertEqual(read_weather("jun: 68 F")[0], 6)

    def test_a_wait_that_begins_later_is_never_over_earlier(self) -> None:
        drying = Drying([(1000, 2440), (3880, 5320)])
        wait = Wait.slowed(360)
        overs = [drying.over(start, wait) for start in range(0, 6000, 7)]
        self.assertEqual(overs, sorted(overs))
        for end in range(500, 6000, 11):
            start = drying.begun_by(end, wait)
            self.assertLessEqual(drying.over(start, wait), end)
            self.assertGreater(drying.over(start + 1, wait), end)
        self.assertEqual(drying.over(1000, wait), 1540)  # half as long again


class ChecksTest(TestCase):
    def test_figures_and_words(self) -> None:
        square = read_check("diagonals to 1/16", Unit.INCH)
        for text, good in (
            ("1/16", True),
            ("1/32", True),
            ("3/32", False),
            ("yes", True),
            ("no", False),
        ):
            answered = answer_check(square, text, Unit.INCH, Notation.THIRTY_SECONDS)
            self.assertEqual(answered.good, good, text)
        self.assertIn(
            "3/32″ is more than 1/16″",
            answer_check(square, "3/32", Unit.INCH, Notation.THIRTY_SECONDS).says,
        )
        with self.assertRaisesRegex(CarpentryError, "yes or no"):
            answer_check(CHECKS["trial fit"], "3", Unit.INCH, Notation.THIRTY_SECONDS)
        with self.assertRaisesRegex(CarpentryError, "at most 2 in"):
            read_check("level to 9", Unit.INCH)
        eighth = read_check("square to 1/8", Unit.MM).tolerance
        self.assertEqual(eighth, 1016)  # of an inch, whatever else is measured in
        self.assertEqual(read_check("square to 3", Unit.MM).tolerance, 960)
        answered = answer_check(CHECKS["level"], "1/16", Unit.MM, Notation.MM)
        self.assertEqual((answered.text, answered.good), ("1.6 mm", True))
        self.assertEqual(read_step("a, check it rings", Unit.INCH).check.asks, "it rings?")  # type: ignore[union-attr]


class ProgressTest(TestCase):
    def event(self, n: int, kind: ProgressKind, minute: int = 0, **more: Any) -> ProgressEvent:
        when = datetime(2027, 6, 7, 18, minute, tzinfo=UTC).isoformat()
        return ProgressEvent(str(UUID(int=n)), kind, "a", when, **more)

    def test_what_stands_of_what_happened(self) -> None:
        kind = ProgressKind
        events = [self.event(1, kind.BEGUN), self.event(2, kind.DONE, 30)]
        found = happened(events, {})["a"]
        start = instant_of(datetime(2027, 6, 7, 18, tzinfo=UTC))
        self.assertEqual(found.fact, Fact(start, start + 30))
        events.append(self.event(3, kind.OVER, 50))
        self.assertEqual(happened(events, {})["a"].fact.over, start + 50)
        undone = ProgressEvent(str(UUID(int=4)), kind.UNDONE, undoes=str(UUID(int=2)))
        self.assertEqual(happened([*events[:2], undone], {})["a"].fact, Fact(start))
        self.assertEqual(happened([], {}), {})

    def test_a_part_that_changed_opens_a_step_and_one_that_is_gone_does_not(self) -> None:
        done = self.event(1, ProgressKind.DONE, about={"A": "2x4 40"})
        self.assertEqual(
            happened([done], {"a": {"A": "2x4 41"}})["a"], Happened(changed=("A",), last=done.id)
        )
        self.assertIsNotNone(happened([done], {"a": {}})["a"].fact.ended)


class CalendarFileTest(TestCase):
    PROJECT = (UUID(int=7), "Rack")

    def written(self, zone: str, day: date, lines: str = "") -> icalendar.Calendar:
        project = read_project_file(json.dumps(RACK | {"days": {"hours": "mon-sun 0:00-24:00"}}))
        work = work_up_files(project)
        found = steps_of(work, DaysLines(lines))
        where = read_zone(zone)
        start = where.instant(datetime(day.year, day.month, day.day, 12))
        plan = plan_of_days(days_of(found.steps, work.settings, "", (start, where)))
        made = datetime(2027, 1, 1, tzinfo=UTC)
        steps = {step.key: step for step in found.steps}
        content = calendar_file(plan, steps, self.PROJECT, work.settings.notation, made)
        self.assertEqual(
            [where.shown(o.placed.start) for o in sorted(plan.steps, key=lambda o: o.placed.start)],
            sorted(
                f"{e.start:%Y-%m-%dT%H:%M}" for e in icalendar.Calendar.from_ical(content).events
            ),
        )
        return icalendar.Calendar.from_ical(content)

    def test_times_are_right_on_the_days_on_which_clocks_change(self) -> None:
        """Re-read by a library; when clocks change in 2027 is from the time zone database."""
        for zone, days in (
            ("America/Denver", (date(2027, 3, 13), date(2027, 11, 6))),
            ("Europe/Berlin", (date(2027, 3, 27), date(2027, 10, 30))),
            ("Australia/Adelaide", (date(2027, 10, 2), date(2027, 4, 3))),
        ):
            for day in days:
                read = self.written(zone, day)
                self.assertEqual(read.timezones[0].tz_name, zone)
                coats: list[Any] = [e for e in read.events if "coat" in str(e["summary"])]
                apart = coats[1].start - coats[0].end
                wait = coats[1].start.astimezone(UTC) - coats[0].end.astimezone(UTC)
                self.assertEqual(wait.total_seconds(), 16 * 3600, (zone, day))
                self.assertIn(apart.total_seconds() / 3600, (15, 16, 17))

    def test_the_zone_in_the_file_is_that_of_the_database(self) -> None:
        """Read by another library, which knows nothing but what the file says of the zone."""
        for zone, day in (
            ("America/Denver", date(2027, 3, 13)),
            ("Europe/Berlin", date(2027, 10, 30)),
            ("Australia/Adelaide", date(2027, 10, 2)),
        ):
            said: Any = self.written(zone, day).timezones[0]
            text = said.to_ical().decode().replace("\r\n ", "").replace("\r\n", "\n")
            read = tzical(StringIO(text)).get()
            for hours in range(24 * 365):
                moment = datetime(2027, 1, 1, 0, 30) + timedelta(hours=hours)
                there = moment.replace(tzinfo=ZoneInfo(zone)).astimezone(UTC)
                if there.astimezone(ZoneInfo(zone)).replace(tzinfo=None) != moment:
                    continue  # the clock never shows it
                self.assertEqual(
                    read.utcoffset(moment), ZoneInfo(zone).utcoffset(moment), (zone, moment)
                )
            for offset in said.subcomponents:  # forward at 2:00, by the clock before
                if (
                    offset["TZOFFSETTO"].td > offset["TZOFFSETFROM"].td
                    and offset.name != "STANDARD"
                ):
                    self.assertEqual(offset["DTSTART"].dt.hour, 2, zone)

    def test_a_second_import_moves_events_and_has_alarms_and_notes(self) -> None:
        one, other = (
            self.written("America/Denver", day) for day in (date(2027, 6, 7), date(2027, 6, 9))
        )
        uids = [{str(e["uid"]) for e in read.events} for read in (one, other)]
        self.assertEqual(uids[0], uids[1])
        self.assertEqual(len(uids[0]), len(one.events))
        event: Any = next(e for e in one.events if "coat 1" in str(e["summary"]))
        self.assertIn("then waits 16 h, until", str(event["description"]))
        self.assertIn("Rags", str(event["description"]))
        before: Any = event.alarms.times[0].trigger
        self.assertEqual(event.start - before, ALARM_BEFORE)


class BuildTest(TestCase):
    def test_build_has_steps_and_where_it_begins_days(self) -> None:
        asked = RACK | {
            "days": {"zone": "America/Denver", "begin": "2027-06-07 18:00", "wanted": "2027-06-30"}
        }
        project = read_project_file(json.dumps(asked))
        work = work_up_files(project)
        found = days_of_build(project, work, plan_all(work, 1))
        self.assertEqual(len(found["steps"]), 15)
        self.assertEqual(found["days"]["late"], "0 h")
        self.assertTrue(found["days"]["exact"])
        self.assertEqual(len(found["days"]["steps"]), 15)
