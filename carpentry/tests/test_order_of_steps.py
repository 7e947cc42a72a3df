"""The order of steps, read by somebody who knows nothing but wood."""

import json
from unittest import TestCase

from carpentry.hours.durations import read_duration
from carpentry.language import Json
from carpentry.planning import work_up_files
from carpentry.project import read_project_file
from carpentry.tests import often, seeds
from carpentry.tests.days_by_brute_force import ready_by_brute_force
from carpentry.tests.days_by_program import minutes_until
from carpentry.tests.random_projects import random_project
from carpentry.tests.wood_reader import Reader
from carpentry.time.days_file import days_answer
from carpentry.time.project_days import DaysLines, steps_of
from carpentry.time.steps_file import step_document


def steps_as_shown(document: Json) -> tuple[list[Json], list[str]]:
    """The steps of a project as they are shown, and what was told of its lines."""
    project = read_project_file(json.dumps(document))
    work = work_up_files(project)
    found = steps_of(work, DaysLines(project.steps, project.products))
    shown = [step_document(one, work.settings.notation) for one in found.steps]
    return shown, [str(one) for one in found.problems]


MOST_TRIED = 9  # steps, of which every order is tried


def as_days(steps: list[Json]) -> Json:
    """Steps as a project of days: the same work, waits and order."""
    return {
        "zone": "America/Denver",
        "from": "2027-03-11T18:00",
        "steps": [
            {
                "id": one["id"],
                "minutes": min(one["minutes"], 150),
                "wait": f"{read_duration(one['wait'])} min",
                "after": one["after"],
            }
            for one in steps
        ],
    }


class RandomProjectsTest(TestCase):
    def test_every_order_that_is_allowed_can_be_built(self) -> None:
        for seed in range(often(60, 400)):
            document = random_project(seed)
            with self.subTest(seed=seed):
                steps, told = steps_as_shown(document)
                self.assertEqual(told, [])
                self.assertEqual(list(dict.fromkeys(Reader(document, steps).faults())), [])

    def test_the_reader_sees_what_is_wrong(self) -> None:
        """Each dependency that is taken away from the steps of some projects is missed."""
        missed = tried = 0
        for seed in range(12):
            document = random_project(seed)
            steps, _ = steps_as_shown(document)
            for n, step in enumerate(steps):
                others = {key for one in steps for key in one["after"] if one is not step}
                for key in step["after"]:
                    spoiled = [dict(one) for one in steps]
                    spoiled[n]["after"] = [one for one in step["after"] if one != key]
                    before = set(Reader(document, steps).earlier[step["id"]])
                    if Reader(document, spoiled).earlier[step["id"]] == before:
                        continue  # it waits for it by another way
                    tried += 1
                    missed += not any(Reader(document, spoiled).faults()) and key in others
        self.assertGreater(tried, 50)
        self.assertLess(missed, tried / 4)

    def test_no_order_that_can_be_built_is_ready_earlier(self) -> None:
        """Every order that the steps allow is tried, minute by minute."""
        tried = 0
        for seed in seeds(40, 200):
            steps, _ = steps_as_shown(random_project(seed, small=True))
            if len(steps) > MOST_TRIED:
                continue
            problem = as_days(steps)
            found = days_answer(json.dumps(problem), 5)
            with self.subTest(seed=seed):
                tried += 1
                self.assertTrue(found["exact"])
                ready = minutes_until(problem, found["ready"])
                self.assertEqual(ready, ready_by_brute_force(problem))
        self.assertGreater(tried, 12)
