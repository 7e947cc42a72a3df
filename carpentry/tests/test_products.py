"""Glues and finishes: what is known of each, and that all of it arrives in lists, steps and
cautions."""

import json
from typing import Any
from unittest import TestCase

from carpentry.buying.coating import read_coat
from carpentry.buying.products import (
    KNOWN,
    PRACTICE,
    Use,
    product_in,
    product_named,
    read_product,
    usual_product,
)
from carpentry.language import CarpentryError
from carpentry.lumber.cautions import OILY_RAGS
from carpentry.planning import work_up_files
from carpentry.project import read_project_file
from carpentry.time.all_steps import AllSteps
from carpentry.time.project_days import DaysLines, steps_of

HOUR, DAY = 60, 24 * 60
BOX: dict[str, Any] = {
    "format": "grain-tally/project@6",
    "name": "Box",
    "parts": [
        {"mark": "A", "quantity": "4", "stock": "1x6 cedar", "length": "40", "group": "box"},
        {"mark": "B", "quantity": "2", "stock": "1x6 cedar", "length": "30", "group": "lid"},
    ],
    "joints": ["4 A end to A, 3 screws"],
}


def steps(*finishes: str, typed: str = "", products: str = "", **more: Any) -> AllSteps:
    project = read_project_file(json.dumps(BOX | {"finishes": list(finishes)} | more))
    return steps_of(work_up_files(project), DaysLines(typed, products))


def by_name(found: AllSteps) -> dict[str, Any]:
    return {step.name: step for step in found.steps}


class ReadingTest(TestCase):
    def test_by_all_its_words_the_longest_that_fits(self) -> None:
        """Waits between coats as in common practice (from memory)."""
        for name, use, wait, wipe in (
            ("cedar oil", Use.OIL, 16 * HOUR, 15),
            ("oil for outdoor wood", Use.OIL, 16 * HOUR, 15),
            ("boiled linseed", Use.OIL, 16 * HOUR, 15),
            ("oil stain", Use.STAIN, DAY, 10),
            ("wiping stain", Use.STAIN, DAY, 10),
            ("water-based stain", Use.STAIN, 4 * HOUR, 5),
            ("deck stain", Use.OIL, DAY, 0),
            ("fence stain", Use.OIL, DAY, 0),
            ("varnish", Use.COAT, 4 * HOUR, 0),
            ("urethane", Use.COAT, 4 * HOUR, 0),
            ("oil-based polyurethane", Use.COAT, 4 * HOUR, 0),
            ("tung oil varnish", Use.COAT, DAY, 0),
            ("spar urethane", Use.COAT, DAY, 0),
            ("spar varnish", Use.COAT, DAY, 0),
            ("water-based polyurethane", Use.COAT, 3 * HOUR, 0),
            ("shellac", Use.COAT, HOUR, 0),
            ("paste wax", Use.WAX, HOUR, 0),
            ("stain-blocking primer", Use.PRIMER, DAY, 0),
            ("oil primer", Use.PRIMER, DAY, 0),
            ("latex primer", Use.PRIMER, 3 * HOUR, 0),
            ("oil-based paint", Use.COAT, DAY, 0),
            ("enamel", Use.COAT, DAY, 0),
            ("acrylic enamel", Use.COAT, 4 * HOUR, 0),
            ("latex paint", Use.COAT, 4 * HOUR, 0),
            ("end sealer", Use.PRESERVATIVE, 4 * HOUR, 0),
            ("end-cut preservative", Use.PRESERVATIVE, 4 * HOUR, 0),
            ("wood filler", Use.FILLER, 2 * HOUR, 0),
        ):
            found = usual_product(name)
            self.assertEqual((found.use, found.wait, found.wipe), (use, wait, wipe), name)
            self.assertEqual(found.source, PRACTICE)
        for name, clamps in (
            ("wood glue", 30),
            ("waterproof wood glue", HOUR),
            ("polyurethane glue", 4 * HOUR),
            ("epoxy", 12 * HOUR),
            ("construction adhesive", 0),
        ):
            found = usual_product(name)
            self.assertEqual((found.use, found.clamps, found.wait), (Use.GLUE, clamps, DAY), name)

    def test_a_bare_one_is_the_slower_and_asked_about_and_an_unknown_one_has_no_rule(self) -> None:
        for name in ("stain", "paint", "primer"):
            self.assertIn(f"is the {name} water-based?", usual_product(name).asks)
            self.assertEqual(usual_product(name).wait, DAY)
        for name in ("oil stain", "latex paint", "varnish"):
            self.assertEqual(usual_product(name).asks, "")
        for name in ("moon dust", "lacquer", "sealer"):
            self.assertEqual(usual_product(name).use, Use.UNKNOWN)
            self.assertIn(f"nothing is known of “{name}”", usual_product(name).asks)

    def test_a_sentence_that_speaks_of_one(self) -> None:
        for text, name in (
            ("cedar oil on the top", "oil"),
            ("glue up the shelf panels", "glue"),
            ("a coat of spar varnish outside", "spar varnish"),
            ("hang the lid", None),
            ("dry the treated wood", None),
        ):
            found = product_in(text)
            self.assertEqual(found and found.name, name, text)

    def test_labels(self) -> None:
        label = read_product("spar varnish: 24 h between coats, no sanding between")
        self.assertEqual((label.wait, label.rubbed, label.source), (DAY, False, "the label"))
        label = read_product(
            "cedar oil: recoat within 2 days, no wiping, sand lightly between coats"
        )
        self.assertEqual((label.within, label.wipe, label.rubbed), (2 * DAY, 0, True))
        label = read_product("quick oil: 4 h, 20 min of work, instead of cedar oil")
        self.assertEqual((label.work, label.instead), (20, "cedar oil"))
        self.assertTrue(read_product("wood glue: waterproof, clamps 1 h").waterproof)
        self.assertEqual(read_product("varnish: cure 5 days, hard after 20 days").hard, 20 * DAY)

    def test_a_finish_without_its_coverage_takes_the_usual_one(self) -> None:
        coat = read_coat("varnish on all, 2 coats")
        self.assertTrue(coat.usual)
        self.assertEqual(coat.coverage, 12)
        self.assertEqual(read_coat("paint on A, 1 coat, sanded at 80").grit, 80)
        self.assertEqual(read_coat("paint on A, 1 coat, not sanded").grit, 0)
        for text, words in (
            ("moon dust on all, 2 coats", "how far “moon dust” goes is not known"),
            ("varnish on all", "write what, on which and how far"),
            ("varnish on all, 2 coats, thickly", "“thickly” says nothing of a finish"),
        ):
            with self.assertRaisesRegex(CarpentryError, words):
                read_coat(text)


class EveryProductTest(TestCase):
    """A product that is added to the table arrives everywhere."""

    def name_of(self, n: int) -> str:
        known = KNOWN[n]
        return " ".join((*known.kinds[:1], known.nouns[0]))

    def test_each_is_read_as_itself(self) -> None:
        for n, known in enumerate(KNOWN):
            found = usual_product(self.name_of(n))
            self.assertEqual((found.use, found.wait), (known.product.use, known.product.wait), n)

    def test_each_goes_through_lists_steps_notes_and_cautions(self) -> None:
        for n, known in enumerate(KNOWN):
            name, product = self.name_of(n), known.product
            if product.use in (Use.WOOD, Use.GLUE):
                continue
            with self.subTest(product=name):
                line = f"{name} on A faces, 2 coats"
                made = steps(line)
                self.assertEqual(made.problems, ())
                project = read_project_file(json.dumps(BOX | {"finishes": [line]}))
                work = work_up_files(project)
                self.assertEqual([one.name for one in work.hardware.lines][-1], name)
                self.assertEqual(OILY_RAGS in work.other_cautions(), product.oily)
                first, last = (by_name(made)[f"{name} coat {n}"] for n in (1, 2))
                self.assertEqual(first.wait.minutes, product.wait)
                self.assertEqual(last.wait.minutes, max(product.wait, product.cure))
                for step in (first, last):
                    self.assertEqual(OILY_RAGS in step.cautions, product.oily)
                    told = " ".join(step.notes)
                    self.assertEqual("wipe off after" in told, bool(product.wipe))
                    self.assertEqual("buff after" in told, bool(product.buff))
                    self.assertEqual("back-brush" in told, product.brushed)
                    self.assertEqual(step.least, product.least)
                self.assertEqual("rub it lightly" in " ".join(last.notes), product.rubbed)
                self.assertEqual("water-based?" in " ".join(first.asks), bool(known.bare))
                own = by_name(steps(typed=f"{name} on the top, 30 min, 2 coats"))
                coat = own[f"{name} on the top coat 1"]
                self.assertEqual(coat.wait.minutes, product.wait)
                self.assertEqual(coat.minutes, 30)
                self.assertEqual(OILY_RAGS in coat.cautions, product.oily)
                self.assertEqual("wipe off after" in " ".join(coat.notes), bool(product.wipe))

    def test_each_glue_holds_its_clamps_and_waits(self) -> None:
        for n, known in enumerate(KNOWN):
            if known.product.use is not Use.GLUE:
                continue
            name = self.name_of(n)
            with self.subTest(glue=name):
                found = by_name(
                    steps(f"{name} on joints, 1 coat", joints=["4 A end to A, 2 dowels, glued"])
                )["glue the box"]
                self.assertEqual(found.wait.minutes, known.product.wait)
                self.assertEqual(found.held and found.held.minutes, known.product.clamps or None)
                told = any("not waterproof" in note for note in found.notes)
                self.assertEqual(told, not known.product.waterproof)


class AppliedTest(TestCase):
    def test_a_typed_step_has_all_that_a_made_one_has(self) -> None:
        label = "cedar oil: 12 h, wipe off after 20 min, cure 2 days"
        own = by_name(steps(typed="cedar oil on the top, 30 min, 2 coats", products=label))
        for n, told in ((1, "dries 12 h"), (2, "cures 48 h before use")):
            coat = own[f"cedar oil on the top coat {n}"]
            self.assertIn(OILY_RAGS, coat.cautions)
            self.assertIn("wipe off after 20 min, stay with it", coat.notes)
            self.assertIn(told, coat.wait_told)
            self.assertIn("the label", coat.wait_told)

    def test_another_product_leaves_nothing_of_the_first(self) -> None:
        typed = "cedar oil coat 1, with water-based polyurethane"
        coat = by_name(steps("cedar oil on A faces, 2 coats", typed=typed))["cedar oil coat 1"]
        self.assertEqual(coat.wait.minutes, 3 * HOUR)
        self.assertFalse(any("wipe" in note for note in coat.notes))
        self.assertEqual(coat.cautions, ())

    def test_wood_that_is_wet_waits_for_what_does_not_take_it(self) -> None:
        parts = [BOX["parts"][0] | {"stock": "2x4 treated"}]
        for glue, waits in (("wood glue", True), ("construction adhesive", False), ("epoxy", True)):
            found = by_name(steps(parts=parts, joints=[f"4 A end to A, {glue}"]))
            self.assertEqual("stack the treated boards to dry" in found, waits, glue)

    def test_rustic_work_is_sanded_at_one_grit_or_not_at_all(self) -> None:
        self.assertIn(
            "100, 150, 220", by_name(steps("wax on A, 1 coat"))["sand for the wax"].notes[0]
        )
        rough = by_name(steps("wax on A, 1 coat, sanded at 80"))["sand for the wax"]
        self.assertIn("at 80", rough.notes[0])
        self.assertNotIn("sand for the wax", by_name(steps("wax on A, 1 coat, not sanded")))

    def test_what_is_over_something_else_waits_for_it_and_odd_orders_are_asked_about(
        self,
    ) -> None:
        found = by_name(steps("oil stain on all, 1 coat", "varnish on all, 2 coats"))
        self.assertIn("oil stain", found["varnish coat 1"].after)
        self.assertNotIn("sand for the varnish", found)
        self.assertNotIn("rub", " ".join(found["varnish coat 1"].notes))
        odd = by_name(steps("varnish on all, 2 coats", "oil stain on all, 1 coat"))
        self.assertIn("is it meant that the oil stain goes on", " ".join(odd["oil stain"].asks))
        some = by_name(steps("oil stain on A, 1 coat", "varnish on all, 1 coat"))
        self.assertIn("oil stain", some["varnish on A"].after)
        self.assertNotIn("oil stain", some["varnish on B"].after)

    def test_a_finish_is_tried_on_an_offcut_before_the_work_is_touched(self) -> None:
        found = by_name(steps("oil stain on all, 1 coat", "varnish on all, 2 coats"))
        tried = found["try the oil stain and the varnish on an offcut"]
        self.assertIn(tried.key, found["sand for the oil stain"].after)
        self.assertIn("same wood, sanded alike", tried.notes[0])

    def test_a_label_is_asked_for_what_nobody_knows(self) -> None:
        found = by_name(steps("moon dust on A, 1 coat, 9 m2/l"))["moon dust"]
        self.assertIn("nothing is known of “moon dust”", " ".join(found.asks))
        self.assertEqual(product_named("Moon  Dust", [read_product("moon dust: 2 h")]).wait, 120)
