import uuid
from typing import Any

from django.core.files.uploadedfile import SimpleUploadedFile

from server.rack.models import Rack
from server.stocks.models import OwnMaterials
from server.tests.base import ApiTestCase

BEAM = {
    "name": "Barn beam",
    "form": "board",
    "thickness": "3 1/4",
    "width": "5",
    "density": "620",
    "exposure": "outdoors, off the ground",
    "caution": "Nails inside: look before sawing.",
}


class MaterialsTest(ApiTestCase):
    def seen(self) -> dict[str, Any]:
        version = OwnMaterials.of(self.user).version
        return {"version": version, "change_id": str(uuid.uuid4())}

    def write(self, id_: str, **typed: str) -> Any:
        return self.ask("put", f"/materials/{id_}", self.seen() | typed)

    def add(self, **typed: str) -> str:
        id_ = str(uuid.uuid4())
        answer = self.write(id_, **BEAM | typed)
        self.assertEqual(answer.status_code, 200, answer.content)
        return id_

    def step(self, way: str) -> Any:
        return self.ask("post", f"/materials/{way}", self.seen()).json()

    def names(self) -> list[str]:
        return [own["name"] for own in self.ask("get", "/materials").json()["own"]]

    def test_the_books_woods_have_density_exposure_and_caution(self) -> None:
        woods = {w["word"]: w for w in self.ask("get", "/materials").json()["woods"]}
        # Air-dry at 12 %: 1000 × 0.32 × 1.12, the Wood Handbook's relation.
        self.assertEqual(woods["cedar"]["kilograms_per_m3"], "358")
        self.assertEqual(woods["cedar"]["pounds_per_foot3"], "22.4")
        self.assertEqual(woods["treated"]["exposure"], "outdoors, off the ground")
        self.assertIn("end tag", woods["treated"]["caution"])
        self.assertEqual(woods["treated ground contact"]["exposure"], "ground contact")
        self.assertTrue(all(wood["caution"] for wood in woods.values()))

    def test_parts_prices_and_boards_are_understood_by_it(self) -> None:
        self.add()
        yard = self.take_prices(b"yard,stock,length,price\nOld Mill,barn beam,8ft,20.00\n")[0]
        self.assertEqual(yard["lines"][0]["section"]["width"]["text"], "5″")
        project = self.new_project("2 post Barn beam 40", yard=yard["id"])
        part = project["parts"][0]
        self.assertEqual(part["section"]["thickness"]["text"], "3 1/4″")
        self.assertEqual(project["plan"]["tally"]["cost"], "$20.00")
        self.assertIn("Nails inside", project["plan"]["materials"][0]["caution"])
        seen = {"version": Rack.of(self.user).version, "change_id": str(uuid.uuid4())}
        board = {"stock": "barn beam", "length": "60"}
        rack = self.ask("put", f"/rack/boards/{uuid.uuid4()}", seen | board).json()
        self.assertEqual(rack["boards"][0]["section"]["width"]["text"], "5″")

    def test_a_new_size_reaches_its_parts_and_is_told_before(self) -> None:
        id_ = self.add()
        project = self.new_project("2 post barn beam 40")
        effect = self.ask("post", f"/materials/{id_}/effect", {"width": "4 3/4"}).json()
        self.assertEqual([(e["mark"], e["pieces"]) for e in effect], [("A", 2)])
        self.assertEqual(self.write(id_, width="4 3/4").status_code, 200)
        part = self.look(project["id"])["parts"][0]
        self.assertEqual(part["section"]["width"]["text"], "4 3/4″")
        self.step("undo")
        part = self.look(project["id"])["parts"][0]
        self.assertEqual(part["section"]["width"]["text"], "5″")

    def test_a_new_density_reaches_what_its_parts_weigh(self) -> None:
        id_ = self.add()
        project = self.new_project("2 post barn beam 40")
        before = self.look(project["id"])["parts"][0]["weight"]
        self.assertEqual(self.write(id_, density="800").status_code, 200)
        after = self.look(project["id"])["parts"][0]["weight"]
        self.assertNotEqual(after, before)
        self.step("undo")
        self.assertEqual(self.look(project["id"])["parts"][0]["weight"], before)

    def test_put_away_it_is_still_understood(self) -> None:
        id_ = self.add()
        project = self.new_project("2 post barn beam 40")
        self.ask("post", f"/materials/{id_}/put-away", self.seen())
        self.assertEqual(self.names(), [])
        self.assertEqual(self.ask("get", f"/projects/{project['id']}").status_code, 200)
        self.step("undo")
        self.assertEqual(self.names(), ["Barn beam"])
        self.step("undo")
        self.assertEqual(self.names(), [])
        self.assertEqual(self.ask("get", f"/projects/{project['id']}").status_code, 200)
        self.add(width="6")
        self.assertEqual(self.names(), ["Barn beam"])
        part = self.look(project["id"])["parts"][0]
        self.assertEqual(part["section"]["width"]["text"], "6″")

    def test_what_was_typed_over_is_told_in_words(self) -> None:
        id_ = self.add()
        for typed, told in (
            ({"density": "800"}, "Barn beam: density 800 kg/m³"),
            ({"exposure": "ground contact"}, "Barn beam: may stand ground contact"),
            ({"caution": ""}, "Barn beam: caution taken away"),
            ({"width": "4 3/4", "thickness": "3"}, "Barn beam: thickness 3, width 4 3/4"),
        ):
            self.assertEqual(self.write(id_, **typed).json()["change"], told)

    def test_its_name_stays(self) -> None:
        id_ = self.add()
        self.write(id_, name="Other", form="round")
        self.assertEqual(self.names(), ["Barn beam"])

    def test_faults(self) -> None:
        self.add()
        again = self.write(str(uuid.uuid4()), **BEAM)
        self.assertIn("of this name", self.problems(again)["name"])
        for typed, place in (
            ({"name": "2x4"}, "name"),
            ({"thickness": "-1"}, "thickness"),
            ({"width": "900"}, "width"),
            ({"density": "0"}, "density"),
        ):
            answer = self.write(str(uuid.uuid4()), **BEAM | {"name": "Other"} | typed)
            self.assertIn(place, self.problems(answer), typed)
        stale = {"version": 0, "change_id": str(uuid.uuid4())} | BEAM | {"name": "Late"}
        self.assertEqual(self.ask("put", f"/materials/{uuid.uuid4()}", stale).status_code, 409)

    def test_a_project_file_brings_its_materials_along(self) -> None:
        self.add()
        project = self.new_project("2 post barn beam 40")
        content = self.client.get(f"/api/projects/{project['id']}/project.json").content
        other = self.other_client()
        file = SimpleUploadedFile("p.json", content)
        taken = other.post("/api/projects/import", {"id": str(uuid.uuid4()), "file": file}).json()
        self.assertEqual(taken["parts"][0]["section"]["width"]["text"], "5″")
        own = other.get("/api/materials").json()["own"]
        self.assertEqual([(one["name"], one["used"]) for one in own], [("Barn beam", 1)])

    def test_nobody_sees_anothers(self) -> None:
        self.add()
        self.assertEqual(self.other_client().get("/api/materials").json()["own"], [])
