"""Databases that earlier versions wrote: everything in them opens, and plans that had no cuts get
cuts that were replayed, or are planned anew."""

import gzip
import json
import os
import re
import sqlite3
import subprocess
import sys
from contextlib import closing
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any
from unittest import TestCase

from django.conf import settings
from django.db import connection

from carpentry.planning import MADE_BY

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


MIGRATED = """
import django
django.setup()
from django.core.management import call_command
call_command("migrate", verbosity=0)
"""
_TEST = TestCase()


def tables_of(database: Path | str) -> dict[str, Any]:
    """The tables of a database: their columns, indexes, constraints and what they refer to."""
    with closing(sqlite3.connect(database)) as found:

        def ask(what: str, of: str) -> list[Any]:
            return sorted(row[1:] for row in found.execute(f"PRAGMA {what}({of!r})"))

        names = found.execute("SELECT name, sql FROM sqlite_master WHERE type = 'table'").fetchall()
        indexes = found.execute("SELECT sql FROM sqlite_master WHERE type = 'index'").fetchall()
        return {"": sorted(str(sql) for (sql,) in indexes)} | {
            name: (
                ask("table_info", name),
                ask("foreign_key_list", name),
                sorted(re.findall(r'CONSTRAINT "\w+" CHECK \(.*?\)(?=,|\))', sql)),
            )
            for name, sql in names
        }


def opened(name: str, look: str, *changes: str) -> list[Any]:
    """What a look at a database of an earlier version finds, after ``changes`` by SQL, once it is
    migrated; and the copy that was made of it before."""
    with TemporaryDirectory() as folder:
        data = gzip.decompress((FIXTURES / name).read_bytes())
        (Path(folder) / "grain-tally.sqlite3").write_bytes(data)
        with closing(sqlite3.connect(Path(folder) / "grain-tally.sqlite3")) as found:
            for change in changes:
                found.execute(change)
            found.commit()
        before = _applied(Path(folder) / "grain-tally.sqlite3")
        environment = os.environ | {
            "GRAIN_TALLY_DATA": folder,
            "DJANGO_SETTINGS_MODULE": "server.site.settings",
        }
        said = subprocess.run(
            [sys.executable, "-c", MIGRATED + look],
            cwd=settings.ROOT,
            env=environment,
            capture_output=True,
            text=True,
            check=True,
        )
        tables = tables_of(Path(folder) / "grain-tally.sqlite3")
        _TEST.assertEqual(tables, tables_of(connection.settings_dict["NAME"]), name)
        copies = sorted((Path(folder) / "backups").glob("*"))  # one before each step up
        is_as_before = [_applied(copy) for copy in copies[:1]] == [before]
    line = next(line for line in said.stdout.splitlines() if line.startswith("FOUND "))
    return [*json.loads(line.removeprefix("FOUND ")), is_as_before]


def _applied(database: Path) -> int:
    """How many migrations a database has gone through."""
    with closing(sqlite3.connect(database)) as found:
        return int(found.execute("SELECT count(*) FROM django_migrations").fetchone()[0])


class FirstVersionTest(TestCase):
    """Plans without cuts, boards with one leftover, projects without limits of the saw."""

    found: dict[str, Any]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.found, cls.versions, cls.offcuts, cls.rack, cls.is_as_before = opened(
            "database-1.sqlite3.gz", LOOK
        )

    def test_a_copy_is_made_before_anything_changes(self) -> None:
        self.assertTrue(self.is_as_before)

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
        self.assertEqual(self.versions.count(MADE_BY), 2)  # and that of the one in millimetres

    def test_settings_keep_what_they_had(self) -> None:
        old = self.found["Cold frame"]
        self.assertFalse(old["share_angled_cuts"])
        self.assertEqual((old["rip"], old["resaw"], old["own_stock"]), (True, True, False))
        metric = self.found["Rail in millimetres"]
        self.assertEqual(metric["keep_width"]["shown"]["text"], "40 mm")

    def test_leftovers_of_boards_are_kept(self) -> None:
        self.assertGreater(self.offcuts, 0)
        self.assertEqual(self.rack, 2)


LOOK_2 = """
import json, uuid
from django.conf import settings
settings.ANSWER_WITHIN_SECONDS = 20
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
def post(path, **body):
    return client.post(f"/api{path}", json.dumps(body), content_type="application/json").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
found = {name: get(f"/projects/{id_}") for name, id_ in rows.items()}
for name, id_ in rows.items():
    found[name]["plan"] = post(f"/projects/{id_}/plans")
trips = {name: get(f"/projects/{id_}/trips") for name, id_ in rows.items()}
open_trip = get(f"/trips/{trips['Potting bench'][0]['id']}")
lines = [line for rack in open_trip["racks"] for line in rack["lines"]]
event = {"id": str(uuid.uuid4()), "kind": "only", "line": lines[0]["key"], "count": 4}
after = post(f"/trips/{open_trip['id']}/events", events=[event])
receipt = get(f"/trips/{trips['Bin lid'][0]['id']}/receipt")
seen = {"version": found["Bin lid"]["version"], "change_id": str(uuid.uuid4())}
opened_again = post(f"/trips/{trips['Bin lid'][0]['id']}/open-again", change_id=str(uuid.uuid4()))
bench = found["Potting bench"]
seen = {"version": bench["version"], "change_id": str(uuid.uuid4())}
undone = post(f"/projects/{bench['id']}/undo", **seen)
undone = [get(f"/projects/{bench['id']}")["parts"], undone["joints"]]
yard = get(f"/yards/{get('/yards')[0]['id']}")
materials = get("/materials")["own"]
rack = get("/rack")
solver.close()
print("FOUND", json.dumps([{
    "found": found, "trip": open_trip, "after": after, "receipt": receipt, "undone": undone,
    "again": opened_again, "yard": yard, "materials": materials, "rack": rack,
}]))
"""


class SecondVersionTest(TestCase):
    """Lines as one text, plans of a trip kept with it, revisions that knew their plans."""

    is_: dict[str, Any]

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        cls.is_, _ = opened("database-2.sqlite3.gz", LOOK_2)
        cls.bench = cls.is_["found"]["Potting bench"]

    def test_lines_are_as_they_were_typed(self) -> None:
        self.assertEqual(self.bench["joints"], "A+C, 4, screw\nB+C, 2, screw")
        self.assertEqual(self.bench["hardware"], "have 40 screws 2 1/2\n2 hinge")
        self.assertEqual(self.bench["finishes"], "outdoor oil")
        self.assertEqual(self.bench["rules"], "into a face: 3/4")
        self.assertEqual(len(self.is_["yard"]["packs"].splitlines()), 3)

    def test_parts_settings_and_materials(self) -> None:
        self.assertEqual(self.bench["parts"][0]["length"], "33 1/2")
        self.assertEqual((self.bench["spare"], self.bench["copies"]), ("10 %", 1))
        self.assertEqual([one["name"] for one in self.is_["materials"]], ["Glulam beam"])
        metric = self.is_["found"]["Gate in millimetres"]
        self.assertEqual((metric["unit"], metric["notation"]), ("mm", "mm"))
        self.assertEqual([part["length"] for part in metric["parts"]], ["1200", "910"])

    def test_plans_are_those_that_were_made(self) -> None:
        shelf = self.is_["found"]["Log shelf"]["plan"]
        self.assertEqual(shelf["stage"], "cut")
        self.assertTrue(all(one["plan"]["status"] == "done" for one in self.is_["found"].values()))
        self.assertTrue(self.is_["rack"]["boards"])

    def test_a_trip_under_way_goes_on(self) -> None:
        trip, after = self.is_["trip"], self.is_["after"]
        self.assertIn(" instead of ", trip["said"])
        self.assertEqual(trip["left_out"], [])
        self.assertGreater(trip["wanted"], 4)
        self.assertEqual(after["refused"], [])
        self.assertEqual(len(after["seen"]), len(trip["seen"]) + 1)

    def test_a_finished_trip_has_its_receipt_and_can_be_opened(self) -> None:
        self.assertTrue(self.is_["receipt"]["lines"])
        self.assertIsNone(self.is_["again"]["finished"])

    def test_what_was_done_can_be_undone(self) -> None:
        parts, joints = self.is_["undone"]
        kept = {part["id"] for part in self.bench["parts"]} & {part["id"] for part in parts}
        self.assertEqual(len(kept), len(parts))
        self.assertEqual(len(parts), len(self.bench["parts"]) - 1)
        self.assertEqual(joints, self.bench["joints"])


LOOK_3 = """
import json, uuid
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
def post(path, **body):
    return client.post(f"/api{path}", json.dumps(body), content_type="application/json").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
fence = get(f"/projects/{rows['Fence']}")
seen = {"version": fence["version"], "change_id": str(uuid.uuid4())}
undone = post(f"/projects/{fence['id']}/undo", **seen)
solver.close()
print("FOUND", json.dumps([{"fence": fence, "undone": undone}]))
"""


class ThirdVersionTest(TestCase):
    """Measures and runs, and parts that follow them."""

    def test_sizes_follow_as_they_did(self) -> None:
        is_, _ = opened("database-3.sqlite3.gz", LOOK_3)
        fence = is_["fence"]
        post, rail, picket = fence["parts"]
        self.assertEqual([one["name"] for one in fence["measures"]], ["opening", "rail", "lean"])
        self.assertEqual(fence["measures"][0]["measured"], "71 7/8")
        self.assertEqual((rail["length"], rail["length_shown"]["text"]), ("=rail", "64 7/8″"))
        self.assertTrue(rail["is_held"])
        self.assertEqual(rail["angles"], "both 8°, parallel")
        self.assertEqual((picket["quantity"], picket["pieces"]), ("=count of pickets", 8))
        self.assertEqual((fence["runs"][0]["part"], fence["runs"][0]["laid"]["count"]), ("C", 8))
        undone = {part["id"]: part["length"] for part in is_["undone"]["parts"]}
        self.assertEqual(undone[post["id"]], "58")


LOOK_4 = """
import json, uuid
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
def ask(method, path, **body):
    data = json.dumps(body)
    return getattr(client, method)(f"/api{path}", data, content_type="application/json").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
stand = get(f"/projects/{rows['Wash stand']}")
shape = f"/projects/{stand['id']}/shapes/{stand['shapes'][0]['id']}"
drawing = get(f"{shape}/drawing")
seen = {"version": stand["version"], "change_id": str(uuid.uuid4())}
changed = ask("patch", shape, **seen, measures={"width": "20"})
seen = {"version": changed["version"], "change_id": str(uuid.uuid4())}
again = ask("post", f"{shape}/follow", **seen, field="")
now = get(f"/projects/{stand['id']}")
solver.close()
print("FOUND", json.dumps([{"stand": stand, "drawing": drawing, "changed": changed, "now": now}]))
"""


class FourthVersionTest(TestCase):
    """Shapes and what they wrote, notched parts, parts that are kept together."""

    def test_what_a_shape_wrote_is_still_linked(self) -> None:
        is_, _ = opened("database-4.sqlite3.gz", LOOK_4)
        stand, shape = is_["stand"], is_["stand"]["shapes"][0]
        parts = {part["mark"]: part for part in stand["parts"]}
        self.assertEqual((shape["writes"], shape["problems"]), (["A", "B", "D"], []))
        self.assertEqual(shape["left_out"], ["part: short"])
        self.assertEqual(
            (parts["B"]["by_hand"], parts["B"]["note"]), (["length"], "as the old ones")
        )
        self.assertEqual(parts["A"]["length_shown"]["text"], "33 1/4″")
        self.assertEqual(
            parts["D"]["quantity"], "=count of wash stand top boards * wash stand copies"
        )
        self.assertEqual(len(is_["drawing"]["views"]), 3)
        self.assertIn("wash stand width 22 → 20", is_["changed"]["change"])
        left, door = parts["E"], parts["F"]
        self.assertEqual((left["together"], door["together"]), ("front", "front"))
        self.assertTrue(left["sketch"] and door["sketch"])
        now = {part["mark"]: part for part in is_["now"]["parts"]}
        self.assertEqual(now["B"]["by_hand"], [])
        self.assertEqual(now["C"]["length_shown"]["text"], "17″")


LOOK_AT_SAWS = """
import json
from django.test import Client
from server.accounts.models import User
from server.plans.models import Plan
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
tools = client.get("/api/tools").json()
cut = [plan.basis["saw"] for plan in Plan.objects.filter(stage="cut")]
solver.close()
print("FOUND", json.dumps([{"tools": tools, "cut": cut}]))
"""


class SawsBecomeToolsTest(TestCase):
    """What a project said of the saws, before there were tools."""

    def test_limits_move_over_and_cut_plans_keep_theirs(self) -> None:
        is_, _ = opened(
            "database-4.sqlite3.gz",
            LOOK_AT_SAWS,
            "UPDATE projects_project SET saw_crosscut = '8 1/2', saw_miter = '48'"
            " WHERE name = 'Fence'",
        )
        tools = {one["kind"]: one["limits"] for one in is_["tools"]["tools"]}
        self.assertEqual(tools["miter saw"], {"crosscut": "8 1/2", "tilt": "45", "miter": "48"})
        self.assertEqual(tools["table saw"], {"depth": "3", "resaw": "3", "tilt": "45"})
        self.assertNotIn("circular saw", tools)  # which would cut any miter along a line
        self.assertTrue(is_["cut"])
        self.assertTrue(all(saw["crosscut"] == 12 * 8128 for saw in is_["cut"]))


LOOK_5 = """
import json, uuid
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
shop = get(f"/projects/{rows['Apple crate']}/shop")
undone = {"id": str(uuid.uuid4()), "kind": "undone", "undoes": shop["last"]["id"]}
after = client.post(
    f"/api/cuttings/{shop['id']}/events", json.dumps({"events": [undone]}),
    content_type="application/json",
).json()
solver.close()
print("FOUND", json.dumps([{"shop": shop, "after": after, "tools": get("/tools")}]))
"""


class FifthVersionTest(TestCase):
    """Tools, and boards that are being cut."""

    def test_what_happened_at_the_bench_is_as_it_was(self) -> None:
        is_, _ = opened("database-5.sqlite3.gz", LOOK_5)
        shop, after = is_["shop"], is_["after"]
        self.assertEqual(len(shop["seen"]), 4)
        self.assertIn("1.2", shop["done"])
        self.assertIn("38″", [p["length"]["text"] for b in shop["boards"] for p in b["pieces"]])
        self.assertEqual(sum(one["label"][0] == "A" for one in shop["labels"]), 3)
        self.assertEqual((after["refused"], len(after["seen"])), ([], 5))
        self.assertLess(len(after["done"]), len(shop["done"]))
        self.assertIn("Crosscuts up to 20″", is_["tools"]["can"])


LOOK_6 = """
import json, uuid
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
crate = rows["Apple crate"]
found = {"days": get(f"/projects/{crate}/days"), "project": get(f"/projects/{crate}")}
last = {one["name"]: one["last"] for one in found["days"]["steps"]}
undone = {"id": str(uuid.uuid4()), "kind": "undone", "undoes": last["cut the parts"]}
found["after"] = client.post(
    f"/api/projects/{crate}/days/events", json.dumps({"events": [undone]}),
    content_type="application/json",
).json()
solver.close()
print("FOUND", json.dumps([found]))
"""


class SixthVersionTest(TestCase):
    """Days, and what happened of their steps."""

    def test_what_happened_of_steps_is_as_it_was(self) -> None:
        is_, _ = opened("database-6.sqlite3.gz", LOOK_6)
        project, after = is_["project"], is_["after"]
        self.assertEqual(project["days_wanted"], "2027-06-20 18:00")
        self.assertEqual(project["weather"], "june: 75 %, 64 °F")
        steps = {one["name"]: one for one in is_["days"]["steps"]}
        self.assertEqual(steps["cut the parts"]["state"], "done")
        self.assertEqual(steps["brand it"]["check"]["answer"], "1/8″")
        self.assertEqual(steps["brand it"]["free_from"] - steps["brand it"]["end"], 30)
        self.assertIn("dries 20 h, the label", steps["linseed oil coat 1"]["wait_says"])
        self.assertEqual(after["refused"], [])
        begun = next(one for one in after["steps"] if one["name"] == "cut the parts")
        self.assertEqual(begun["state"], "begun")


LOOK_7 = """
import json
from django.test import Client
from server.accounts.models import User
from server.plans.solver import solver
client = Client(HTTP_HOST="127.0.0.1")
client.force_login(User.objects.get(username="mira"))
get = lambda path: client.get(f"/api{path}").json()
rows = {row["name"]: row["id"] for row in get("/overview")}
crate = f"/projects/{rows['Apple crate']}"
project, days = get(crate), get(f"{crate}/days")
seen = {"version": project["version"], "change_id": "0b0b0b0b-0000-4000-8000-000000000001"}
back = client.post(f"/api{crate}/redo", json.dumps(seen), content_type="application/json")
seen = {"version": get(crate)["version"], "change_id": "0b0b0b0b-0000-4000-8000-000000000002"}
client.post(f"/api{crate}/undo", json.dumps(seen), content_type="application/json")
again = get(crate)["steps"]
solver.close()
print("FOUND", json.dumps([{"steps": project["steps"], "days": days, "again": again}]))
"""


class SeventhVersionTest(TestCase):
    """Steps of which a line says what they come after, which then replaced what they need."""

    def test_what_was_typed_goes_on_meaning_what_it_meant(self) -> None:
        is_, _ = opened("database-7.sqlite3.gz", LOOK_7)
        for text in (is_["steps"], is_["again"]):  # as it is, and as the history has it
            self.assertIn("put it together, only after brand it", text)
            self.assertIn("load it, 5 min, only after put it together", text)
        self.assertEqual(is_["days"]["problems"], [])
        names = [one["name"] for one in is_["days"]["steps"]]
        self.assertIn("load it", names)
