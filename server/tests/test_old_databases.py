"""Databases that earlier versions wrote: everything in them opens, and plans that had no cuts get
cuts that were replayed, or are planned anew."""

import gzip
import json
import os
import subprocess
import sys
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from django.conf import settings

FIXTURES = Path(__file__).parent / "fixtures"

LOOK = """
import json
from django.conf import settings
settings.ANSWER_WITHIN_SECONDS = 20
from django.test import Client
from server.accounts.models import User
from server.plans.models import Board, Plan
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
rows = client.get("/api/overview").json()
found = {
    row["name"]: client.get(f"/api/projects/{row['id']}").json()
    | {"plan": client.post(f"/api/projects/{row['id']}/plans").json()}
    for row in rows
}
versions = sorted(Plan.objects.values_list("made_by", flat=True))
offcuts = [one for board in Board.objects.all() for one in board.offcuts]
rack = client.get("/api/rack").json()["boards"]
solver.close()
print("FOUND", json.dumps([found, versions, len(offcuts), len(rack)]))
"""


class FirstVersionTest(TestCase):
    """Plans without cuts, boards with one leftover, projects without limits of the saw."""

    found: dict[str, Any]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        with TemporaryDirectory() as folder:
            data = gzip.decompress((FIXTURES / "database-1.sqlite3.gz").read_bytes())
            (Path(folder) / "grain-tally.sqlite3").write_bytes(data)
            environment = os.environ | {"GRAIN_TALLY_DATA": folder}
            manage = [sys.executable, str(settings.ROOT / "manage.py")]
            for command in (("migrate", "-v", "0"), ("shell", "-v", "0", "-c", LOOK)):
                said = subprocess.run(
                    [*manage, *command], env=environment, capture_output=True, text=True, check=True
                )
        line = next(line for line in said.stdout.splitlines() if line.startswith("FOUND "))
        cls.found, cls.versions, cls.offcuts, cls.rack = json.loads(line.removeprefix("FOUND "))

    def layouts(self, name: str) -> list[dict[str, Any]]:
        plan = self.found[name]["plan"]
        return [layout for material in plan["materials"] for layout in material["layouts"]]

    def test_plans_that_were_cut_stay_and_get_their_cuts(self) -> None:
        for name, cost in (("Log rack", "$101.62"), ("Cold frame", "$66.46")):
            plan = self.found[name]["plan"]
            self.assertEqual((plan["stage"], plan["tally"]["cost"]), ("cut", cost), name)
            self.assertTrue(all(layout["cuts"] for layout in self.layouts(name)), name)

    def test_a_draft_is_planned_anew(self) -> None:
        plan = self.found["Compost station"]["plan"]
        self.assertEqual((plan["stage"], plan["tally"]["cost"]), ("draft", "$322.45"))
        self.assertTrue(all(layout["cuts"] for layout in self.layouts("Compost station")))
        self.assertEqual(self.versions.count(2), 1)

    def test_settings_keep_what_they_had(self) -> None:
        old = self.found["Cold frame"]
        self.assertFalse(old["share_angled_cuts"])
        self.assertEqual((old["rip"], old["resaw"], old["own_stock"]), (True, True, False))
        self.assertEqual(old["saw_crosscut"]["typed"], "12")
        metric = self.found["Rail in millimetres"]
        self.assertEqual(metric["saw_crosscut"]["typed"], "305")
        self.assertEqual(metric["keep_width"]["shown"]["text"], "40 mm")

    def test_leftovers_of_boards_are_kept(self) -> None:
        self.assertGreater(self.offcuts, 0)
        self.assertEqual(self.rack, 2)
