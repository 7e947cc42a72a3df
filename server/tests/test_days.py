"""The days of a project: its steps, what happened of them, and the plan."""

import io
import uuid
from datetime import UTC, date, datetime, timedelta
from typing import Any
from unittest.mock import patch
from zoneinfo import ZoneInfo

from django.utils import timezone
from pypdf import PdfReader

from carpentry.time import DaysPlan, first_plan_of_days
from carpentry.time.progress import ProgressKind
from carpentry.time.step import Step
from server.days.going import project_days, zone_of
from server.days.models import Progress, StepEvent
from server.days.showing import show_days
from server.projects.models import Project
from server.tests.base import Answer, ApiTestCase

BIN = "4 post 2x4 36\n8 slat 1x4 cedar 30"


def _longer(zone: str, day: date) -> int:
    """By how many minutes the days around one are longer, all together."""
    info = ZoneInfo(zone)
    before, after = (
        datetime(day.year, day.month, day.day, tzinfo=info) + timedelta(days=n) for n in (0, 1)
    )
    first, last = before.utcoffset(), (after + timedelta(hours=12)).utcoffset()
    assert first is not None and last is not None
    return int((first - last).total_seconds() // 60)


class DaysTest(ApiTestCase):
    def setUp(self) -> None:
        super().setUp()
        morning = timezone.now().replace(hour=15, minute=0, second=0, microsecond=0)
        stopped = patch.object(timezone, "now", return_value=morning)  # 8 or 9 am in Denver
        stopped.start()
        self.addCleanup(stopped.stop)
        self.project = self.new_project(BIN)
        self.set(
            joints="16 B to A, 2 screws",
            finishes="cedar oil on B, 2 coats, 400 sq ft/gal",
            days_zone="America/Denver",
            days_hours="mon-sun 8:00-22:00",
        )

    def set(self, **typed: Any) -> dict[str, Any]:
        answer = self.change(self.project, "patch", "", **typed)
        self.assertEqual(answer.status_code, 200, answer.content)
        self.project = answer.json()
        return self.project

    def days(self, **asked: Any) -> dict[str, Any]:
        told = "&".join(f"{name}={value}" for name, value in asked.items())
        answer = self.ask("get", f"/projects/{self.project['id']}/days?{told}")
        self.assertEqual(answer.status_code, 200, answer.content)
        return dict(answer.json())

    def tell(self, kind: str, step: str = "", hours_ago: float = 0, **more: Any) -> Answer:
        when = timezone.now() - timedelta(hours=hours_ago)
        event = {"id": str(uuid.uuid4()), "kind": kind, "step": step, "at": when.isoformat()}
        body = {"events": [event | more]}
        return self.ask("post", f"/projects/{self.project['id']}/days/events", body).json()

    def step(self, name: str, **asked: Any) -> dict[str, Any]:
        return next(one for one in self.days(**asked)["steps"] if one["name"] == name)

    def test_steps_come_from_the_project_in_the_order_of_the_work(self) -> None:
        names = [one["name"] for one in self.days(thorough="true")["steps"]]
        self.assertEqual(
            names,
            [
                "cut the parts",
                "try the cedar oil on an offcut",
                "sand for the cedar oil",
                "cedar oil where pieces meet",
                "put it together",
                "cedar oil coat 1",
                "cedar oil coat 2",
                "set it up and level it",
            ],
        )
        self.assertIn("dries 16 h, common practice", self.step("cedar oil coat 1")["wait_says"])
        self.assertTrue(self.step("cedar oil coat 1")["cautions"])  # rags

    def test_a_first_answer_and_a_whole_one_agree_where_it_is_proven(self) -> None:
        first, whole = self.days(), self.days(thorough="true")
        self.assertFalse(first["thorough"])
        self.assertTrue(whole["exact"])
        if first["exact"]:
            self.assertEqual(first["ready_at"], whole["ready_at"])
        self.assertTrue(any(one["critical"] for one in whole["steps"]))

    def test_what_is_typed_changes_steps_and_what_cannot_be_read_is_told(self) -> None:
        self.set(
            steps="cut the parts, 2 h, needs a helper\npaint slats before closing, 2 coats\n"
            "hang the lid, 20 min, after put it together\nnonsense, every so often",
            products="paint: 3 h between coats",
            weather="2027-02-31: 70 %",
        )
        found = self.days()
        names = [one["name"] for one in found["steps"]]
        self.assertIn("paint slats coat 2", names)
        self.assertLess(names.index("paint slats coat 2"), names.index("put it together"))
        self.assertLess(names.index("put it together"), names.index("hang the lid"))
        self.assertEqual(self.step("cut the parts")["work"], "2 h")
        self.assertEqual(self.step("cut the parts")["needs"], ["a helper"])
        told = {one["place"]: one["message"] for one in found["problems"]}
        self.assertIn("“every so often” says nothing of a step", told["steps, line 4"])
        self.assertIn("“2027-02-31” is no day", told["weather, line 1"])

    def test_a_circle_is_told_by_its_line_and_leaves_the_rest_as_it_is(self) -> None:
        self.set(steps="cut the parts, after put it together")
        found = self.days()
        self.assertEqual(len(found["steps"]), 8)
        self.assertIn(
            "“cut the parts” waits for “put it together”", found["problems"][0]["message"]
        )

    def test_no_free_hours_and_no_parts_are_told(self) -> None:
        self.set(days_hours="")
        found = self.days()
        self.assertEqual(found["says"], "no free hours: nothing can be done")
        self.assertEqual(len(found["steps"]), 8)  # they are there all the same
        self.project = self.new_project()
        self.assertIn("no parts yet", self.days()["headline"])

    def test_settings_that_cannot_be_are_refused_by_field(self) -> None:
        for name, text, told in (
            ("days_wanted", "2027-02-31", "“2027-02-31” is no day"),
            ("days_off", "2027-06-09 to 2027-06-01", "ends before it begins"),
            ("days_hours", "mon 22:00-2:00", "ends before it begins"),
            ("days_zone", "Mars/Base", "is no time zone"),
            ("days_clamps", "many", "write how many"),
            ("days_pace", "1 %", "a pace is from 20 to 500 %"),
        ):
            answer = self.change(self.project, "patch", "", **{name: text})
            self.assertEqual(answer.status_code, 422, name)
            problem = answer.json()["problems"][0]
            self.assertEqual(problem["place"], name)
            self.assertIn(told, problem["message"])

    def test_a_day_that_is_past_is_missed_and_says_what_would_do(self) -> None:
        yesterday = timezone.localdate() - timedelta(days=1)
        self.set(days_wanted=yesterday.isoformat())
        found = self.days(thorough="true")
        self.assertTrue(found["is_late"])
        self.assertIn("It should have been begun by", found["says"])
        self.assertIn("without cedar oil coat 2", [one["says"] for one in found["would_do"]])

    def test_steps_are_begun_done_and_taken_back(self) -> None:
        self.tell("begun", "cut the parts", 2)
        self.assertEqual(self.step("cut the parts")["state"], "begun")
        found = self.tell("done", "cut the parts", 1)
        self.assertEqual(found["work_done"], self.step("cut the parts")["work"])
        self.assertEqual(self.step("cut the parts")["state"], "done")
        last = self.step("cut the parts")["last"]
        self.tell("undone", undoes=last)
        self.assertEqual(self.step("cut the parts")["state"], "begun")
        refused = self.tell("undone", undoes=last)["refused"]
        self.assertEqual(refused[0]["message"], "that is taken back already")

    def test_an_event_told_twice_is_taken_once_and_never_rewritten(self) -> None:
        event = {
            "id": str(uuid.uuid4()),
            "kind": "done",
            "step": "cut the parts",
            "at": timezone.now().isoformat(),
        }
        path = f"/projects/{self.project['id']}/days/events"
        for _ in range(2):
            self.assertEqual(self.ask("post", path, {"events": [event]}).status_code, 200)
        self.assertEqual(Progress.objects.get().events.count(), 1)
        with self.assertRaises(TypeError):
            StepEvent.objects.get().save()

    def test_a_wait_that_is_over_earlier_moves_the_rest(self) -> None:
        for name in ("cut the parts", "put it together", "sand for the cedar oil"):
            self.tell("done", name, 3)
        self.tell("done", "cedar oil coat 1", 2)
        before = self.days(thorough="true")
        self.assertEqual(self.step("cedar oil coat 1")["state"], "dry")
        self.tell("over", "cedar oil coat 1")
        after = self.days(thorough="true")
        self.assertLess(after["ready_at"], before["ready_at"])

    def test_a_part_that_changes_opens_the_work_that_was_done_on_it(self) -> None:
        for name in ("cut the parts", "put it together", "sand for the cedar oil"):
            self.tell("done", name, 3)
        self.tell("done", "cedar oil coat 1", 2)
        (slat,) = (one for one in self.project["parts"] if one["mark"] == "B")
        self.change(self.project, "patch", f"/parts/{slat['id']}", length="31")
        coat = self.step("cedar oil coat 1")
        self.assertIn("B has changed since this was done", coat["again"])
        self.assertIn(coat["state"], ("next", "later"))
        self.assertTrue(self.step("cut the parts")["again"])

    def test_what_was_done_of_a_step_that_is_gone_is_told(self) -> None:
        self.tell("done", "put it together", 1)
        self.set(joints="")
        self.assertEqual(self.days()["gone"], ["put it together"])
        self.set(joints="16 B to A, 2 screws")
        self.assertEqual(self.step("put it together")["state"], "done")
        self.set(copies=2)
        self.assertIn("have changed since", self.step("put it together")["again"])

    def test_checks_are_answered_and_say_what_to_do(self) -> None:
        found = self.tell("checked", "put it together", answer="1/4")
        check = next(o for o in found["steps"] if o["name"] == "put it together")["check"]
        self.assertFalse(check["good"])
        self.assertIn("out of square: push the two corners of the longer diagonal", check["says"])
        self.tell("checked", "put it together", answer="1/32")
        self.assertTrue(self.step("put it together")["check"]["good"])
        refused = self.tell("checked", "put it together", answer="round")["refused"]
        self.assertIn("neither a length, nor yes, nor no", refused[0]["message"])

    def test_events_that_cannot_be_are_refused_and_the_others_are_kept(self) -> None:
        refused = self.tell("done", "cut the parts", -24)["refused"]
        self.assertEqual(refused[0]["message"], "that is still to come")
        refused = self.tell("done", "plane the moon")["refused"]
        self.assertEqual(refused[0]["message"], "this step is not there any more")
        answer = self.tell("exploded", "cut the parts")
        self.assertIn("is nothing that happens of a step", answer["detail"])
        self.assertEqual(set(ProgressKind), {"begun", "done", "made", "over", "checked", "undone"})

    def test_what_would_do_can_be_taken_and_gives_the_day_that_was_said(self) -> None:
        tomorrow = timezone.localdate() + timedelta(days=1)
        self.set(
            days_wanted=f"{tomorrow.isoformat()} 23:00",
            days_off=", ".join((tomorrow + timedelta(days=n)).isoformat() for n in range(2)),
            days_hours="mon-sun 18:00-21:00",
            joints="16 B to A, 2 dowels, glued",
            days_clamps="8",
            products="quick oil: 1 h, instead of cedar oil",
        )
        found = self.days(thorough="true")
        self.assertTrue(found["exact"])
        taken = set()
        for one in found["would_do"]:
            if not one["typed"]:
                continue
            with self.subTest(one["says"]):
                taken |= set(one["typed"])
                self.set(**one["typed"])
                again = self.days(thorough="true")
                self.assertEqual(again["ready"], one["ready"])
                self.change(self.project, "post", "/undo")
                self.project = self.look(self.project["id"])
        self.assertGreaterEqual(len(taken), 3, taken)

    def test_times_are_right_on_the_days_on_which_clocks_change(self) -> None:
        """When clocks change in 2027: from the time zone database."""
        self.set(days_zone="", days_hours="mon-sun 8:00-20:00")
        project = Project.objects.get(id=self.project["id"])
        for zone, day in (
            ("America/Denver", date(2027, 3, 13)),
            ("America/Denver", date(2027, 11, 6)),
            ("Europe/Berlin", date(2027, 3, 27)),
            ("Europe/Berlin", date(2027, 10, 30)),
            ("Australia/Adelaide", date(2027, 10, 2)),
            ("Australia/Adelaide", date(2027, 4, 3)),
        ):
            noon = datetime(day.year, day.month, day.day, 12, tzinfo=ZoneInfo(zone))
            shown = show_days(project_days(project, zone_of(zone), noon), thorough=True)
            coat = next(one for one in shown.steps if one.name == "cedar oil coat 1")
            self.assertEqual(coat.free_from - coat.end, 16 * 60, zone)
            starts = ZoneInfo(zone)
            midnight = datetime(day.year, day.month, day.day, tzinfo=starts)
            until = (midnight.astimezone(UTC) + timedelta(minutes=coat.free_from)).astimezone(
                starts
            )
            self.assertIn(f"{until:%-I:%M %p}".lower(), coat.until.lower())
            self.assertNotEqual(until.utcoffset(), midnight.utcoffset())
            sunday = next(one for one in shown.days if one.called.startswith("Sun"))
            self.assertEqual(sunday.at, 24 * 60)
            self.assertEqual(shown.width, len(shown.days) * 24 * 60 + _longer(zone, day))

    def test_what_is_cut_and_put_away_at_the_shop_is_done(self) -> None:
        shop = self.ask(
            "post", f"/projects/{self.project['id']}/cuttings", {"id": str(uuid.uuid4())}
        )
        cutting = shop.json()
        keys = [
            c["key"]
            for card in cutting["by_stop"]["cards"]
            for r in card["rows"]
            for c in r["cuts"]
        ]
        for n, (some, state) in enumerate(((keys[:-1], "done"), (keys[-1:], "done"))):
            self.assertNotEqual(self.step("cut the parts")["state"], state, n)
            event = {"id": str(uuid.uuid4()), "kind": "cut", "cuts": " ".join(some)}
            self.ask("post", f"/cuttings/{cutting['id']}/events", {"events": [event]})
        self.assertEqual(self.step("cut the parts")["state"], "done")  # all cut, not put away yet
        self.ask("post", f"/cuttings/{cutting['id']}/finish", {"change_id": str(uuid.uuid4())})
        self.assertEqual(self.step("cut the parts")["state"], "done")

    def test_clamps_are_those_of_the_workshop_unless_the_project_says_otherwise(self) -> None:
        self.set(joints="16 B to A, glue")
        self.assertEqual(self.days()["clamps"], "32 at once")
        seen = {
            "version": self.ask("get", "/tools").json()["version"],
            "change_id": str(uuid.uuid4()),
        }
        body = {**seen, "kind": "clamps", "limits": {"clamps": "24 × 4, 36 × 2"}}
        answer = self.ask("put", f"/tools/{uuid.uuid4()}", body)
        self.assertLess(answer.status_code, 300, answer.content)
        self.assertEqual(self.days()["clamps"], "6 of 6")
        self.set(days_clamps="8")
        self.assertEqual(self.days()["clamps"], "8 of 8")

    def test_what_is_not_clear_of_a_finish_is_asked(self) -> None:
        self.set(finishes="stain on B, 1 coat, 300 sq ft/gal")
        self.assertIn("is the stain water-based?", self.days()["asks"][0])
        self.set(products="stain: 3 h between coats")
        self.assertEqual(self.days()["asks"], [])

    def test_of_twenty_seven_are_made(self) -> None:
        self.set(copies=20)
        name = "put it together"
        whole = self.step(name)
        self.assertEqual((whole["batch"], whole["made"]), (20, 0))
        self.assertEqual(self.tell("made", name, answer="7")["refused"], [])
        some = self.step(name)
        self.assertEqual((some["batch"], some["made"], some["state"] == "done"), (20, 7, False))
        left = next(one.minutes for one in self.plan_of_days().days.steps if one.id == name)
        minutes = next(one.minutes for one in self.made_steps() if one.key == name)
        self.assertEqual(left, -(-minutes * 13 // 20))
        self.tell("checked", name, answer="1/32")
        self.tell("checked", name, answer="1/4")
        check = self.step(name)["check"]
        self.assertEqual((check["answer"], check["good"]), ("2 of 20", False))
        self.assertIn("number 2: 1/4″ is more than 1/16″", check["says"])
        self.assertIn("from 1 to 19", str(self.tell("made", name, answer="20")["refused"]))
        self.assertIn("press Done", str(self.tell("made", "cut the parts", answer="1")["refused"]))
        self.tell("done", name)
        self.assertIn(self.step(name)["state"], ("done", "dry"))

    def made_steps(self) -> tuple[Step, ...]:
        project = Project.objects.get(id=self.project["id"])
        return project_days(project, zone_of("")).all.steps

    def plan_of_days(self) -> DaysPlan:
        days = project_days(Project.objects.get(id=self.project["id"]), zone_of("")).days
        assert days is not None
        return first_plan_of_days(days)

    def test_what_is_marked_as_cut_is_done(self) -> None:
        plan = self.look(self.project["id"])["plan"]["id"]
        answer = self.ask("post", f"/plans/{plan}/cut", {"change_id": str(uuid.uuid4())})
        self.assertEqual(answer.status_code, 200, answer.content)
        self.assertEqual(self.step("cut the parts")["state"], "done")
        self.assertNotIn("cut the parts", self.days()["next"])

    def test_the_build_sheet_has_pieces_joints_checks_and_cautions(self) -> None:
        answer = self.client.get(f"/api/projects/{self.project['id']}/build-sheet.pdf?paper=a4")
        pages = PdfReader(io.BytesIO(answer.content)).pages
        said = " ".join(" ".join(page.extract_text() for page in pages).split())
        for told in (
            "A1 to A4",
            "B1 to B8",
            "32 × screw",
            "Check: diagonals equal",
            "Rags with oil",
        ):
            self.assertIn(told, said)
        self.assertIn("does not check strength", said)

    def test_nothing_to_do_is_no_calendar(self) -> None:
        self.project = self.new_project()
        answer = self.client.get(f"/api/projects/{self.project['id']}/days.ics")
        self.assertEqual(answer.status_code, 422)
        self.assertEqual(answer.json()["detail"], "there is nothing to do yet")

    def test_days_are_undone_and_redone_with_the_project(self) -> None:
        self.set(steps="rest, 8 h")
        self.change(self.project, "post", "/undo")
        self.assertEqual(self.look(self.project["id"])["steps"], "")
