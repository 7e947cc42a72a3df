"""What shapes write is held as a carpenter would: nothing is faulted by the rest of the product."""

import json
import random
from collections import Counter
from unittest import TestCase

from carpentry.design.shapes import SHAPES, Made, make_shape, shape_document
from carpentry.language import TICKS_PER_INCH, CarpentryError, Json
from carpentry.lumber import INCHES, standard_section
from carpentry.planning import plan_all, work_up_files
from carpentry.project import (
    Hardware,
    HardwareFields,
    JoinedPart,
    SettingFields,
    hardware_of,
    read_project_file,
    read_settings,
)
from carpentry.shop import boards_to_cut, every_cut, starter_tools, stop_by_stop
from carpentry.tests import often
from carpentry.tests.random_shapes import RANDOM

WITHOUT_JOINTS = {"brace", "wall"}  # what they meet is another's


def hardware(one: Made) -> Hardware:
    """What holds the pieces of a shape, by its own lines."""
    lines = [one.sheet.inline(one.names.said(joint.text())) for joint in one.written.joints]
    sizes = {
        key: (
            round(one.thickness_of(key) * TICKS_PER_INCH),
            round(one.width_of(key) * TICKS_PER_INCH),
        )
        for key in one.parts
    }
    parts = {
        one.names.letters[key]: JoinedPart(*sizes[key], part.length.ticks, part.quantity)
        for key, part in one.parts.items()
    }
    return hardware_of(HardwareFields("\n".join(lines)), parts, read_settings(SettingFields()))


class HeldTest(TestCase):
    def test_every_shape_is_tried(self) -> None:
        self.assertEqual(set(RANDOM) | WITHOUT_JOINTS, set(SHAPES))

    def test_no_joint_of_any_shape_is_faulted(self) -> None:
        """Whatever the measures; the seeds are those that are told with a fault."""
        tried = 0
        for name, draw in RANDOM.items():
            for seed in range(often(30, 200)):
                measures = draw(random.Random(seed))
                try:
                    one = make_shape(name, measures, INCHES, standard_section)
                    _ = one.solids
                except CarpentryError:
                    continue  # told at its measure
                tried += 1
                with self.subTest(shape=name, seed=seed, **measures):
                    found = hardware(one)
                    self.assertEqual(found.problems, ())
                    told = {joint.text: joint.warnings for joint in found.joints if joint.warnings}
                    self.assertEqual(told, {})
                    self.assertTrue(all(joint.fastener for joint in found.joints))
        self.assertGreater(tried, 0.9 * len(RANDOM) * often(30, 200))

    def test_by_what_the_stock_is(self) -> None:
        """A narrow post is screwed through, a wide one takes pockets; what is thin at a half lap is
        glued alone, and trusses are held at the peak."""
        size = {"width": "30", "height": "40"}
        for shape, measures, line in (
            ("frame", size | {"stock": "2x2"}, "4 A edge to B end, 2 screws"),
            ("frame", size | {"stock": "2x4"}, "4 B end to A edge, 2 pocket screws"),
            (
                "frame",
                size | {"stock": "1x4", "corners": "half-lapped"},
                "4 B to A, glue, half lap",
            ),
            (
                "truss",
                {"span": "96", "pitch": "30", "stock": "2x4"},
                "1 A end to A end, 2 toe screws",
            ),
        ):
            found = hardware(make_shape(shape, measures, INCHES, standard_section))
            self.assertIn(line, [joint.text for joint in found.joints])

    def test_every_shape_can_be_bought_and_cut(self) -> None:
        """Its parts come from boards that are sold, and set-ups of the starter tools cut them."""
        tools = starter_tools()
        for name, draw in RANDOM.items():
            for seed in range(often(2, 25)):
                measures = draw(random.Random(seed))
                try:
                    found = shape_document(json.dumps({"shape": name, "measures": measures}))
                except CarpentryError:
                    continue  # told at its measure
                with self.subTest(shape=name, seed=seed, **measures):
                    rip = any(part.get("width") for part in found["parts"])
                    project = read_project_file(json.dumps(_project(found, rip=rip)))
                    work = work_up_files(project)
                    plans = plan_all(work, 1)
                    self.assertEqual([p.unplaced for p in plans if p and p.unplaced], [])
                    boards = boards_to_cut(work, plans)
                    pieces = sum(int(part["quantity"]) for part in project_parts(found))
                    self.assertEqual(sum(len(board.labels) for board in boards), pieces)
                    cards = stop_by_stop(every_cut(boards, tools), tools)
                    labels = Counter(label for card in cards.set_ups for label in card.labels)
                    self.assertEqual(set(labels.values()) - {1}, set())

    def test_what_is_held_by_another_says_so(self) -> None:
        for name, measures in (
            ("brace", {"run": "24", "rise": "18", "stock": "2x4"}),
            ("wall", {"width": "96", "height": "50", "stock": "1x8"}),
        ):
            told = shape_document(json.dumps({"shape": name, "measures": measures}))["notes"]
            self.assertIn("Nothing holds it yet", told[0])


def project_parts(found: Json) -> list[Json]:
    """The parts of a shape that come from boards: sheets are not planned."""
    return [part for part in found["parts"] if not part["stock"].startswith("ply")]


def _project(found: Json, *, rip: bool) -> Json:
    kept = ("mark", "stock", "length", "ends", "edges", "measured", "width")
    parts = [
        {name: part[name] for name in kept if name in part}
        | {"quantity": str(part["quantity"])}
        | ({"rip": "yes"} if part.get("width") else {})
        for part in project_parts(found)
    ]
    return {"format": "grain-tally/project@2", "name": "Shape", "rip": rip, "parts": parts}
