"""What shapes write is held as a carpenter would: nothing is faulted by the rest of the product."""

import random
from unittest import TestCase

from carpentry.design.shapes import SHAPES, Made, make_shape
from carpentry.language import TICKS_PER_INCH, CarpentryError
from carpentry.lumber import INCHES, standard_section
from carpentry.project import (
    Hardware,
    HardwareFields,
    JoinedPart,
    SettingFields,
    hardware_of,
    read_settings,
)
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
