"""What is told of a plan that is stored while it is shown."""

from typing import Any
from unittest.mock import patch

from server.plans.models import Plan
from server.plans.resting import work_up
from server.plans.showing import show_plan
from server.projects.models import Project
from server.tests.base import ApiTestCase


class ShowingTest(ApiTestCase):
    def test_a_first_plan_is_never_told_as_done(self) -> None:
        """The plan is stored by another thread just when its first boards are read: what is told is
        still under way, so that whoever asks looks again."""
        project = self.new_project("3 rail 2x4 40")
        plan = Plan.objects.get(id=project["plan"]["id"])
        done = plan.outcome
        plan.status = Plan.Status.RUNNING

        class JustStored:
            elapsed = 0.2
            whole = list

            @property
            def plans(self) -> list[dict[str, Any]]:
                plan.status = Plan.Status.DONE
                return done

        work = work_up(Project.objects.get(id=project["id"]))
        with patch("server.plans.showing.solver.job", return_value=JustStored()):
            self.assertEqual(show_plan(plan, work).status, "running")
        self.assertEqual(show_plan(plan, work).status, "done")
