"""A project worked up on what its plan rests on: materials, cut problems, what plans take."""

import hashlib
import json
from collections.abc import Collection, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property

from carpentry.buying.coating import read_coat
from carpentry.buying.joints import read_each_line
from carpentry.buying.products import usual_product
from carpentry.cutting import (
    NO_LIMITS,
    CutPlan,
    CutProblem,
    Saw,
    check_plan,
    problem_document,
    read_plan,
    with_cuts,
)
from carpentry.design import EMPTY, Sheet
from carpentry.language import Json, Length, PlanCheckError
from carpentry.lumber.cautions import Work, at_the_saw, beyond_the_saw
from carpentry.planning.basis import Basis, named_boards
from carpentry.planning.facts import NOTHING_HAPPENED, Facts
from carpentry.project import (
    Beside,
    Grouping,
    Hardware,
    HardwareFields,
    JoinedPart,
    Material,
    NamedPart,
    Settings,
    Tally,
    gather_materials,
    hardware_of,
    tally,
)
from carpentry.project.packing import FoundPacks
from carpentry.proof import proof_faults

# Plans of version 1 have no cuts, and no limits of the saw; since version 3 all parts that can come
# from the same boards are planned together, and spare boards are part of what is planned; since
# version 4 what is claimed least has its proof.
_WITH_SPARES, MADE_BY = 3, 4
_NOT_IN_FIRST = ("saw", "keep_offcut_width")  # of cut problems


@dataclass(frozen=True)
class PlannedProject:
    """All of a project that a plan depends on: ``marks`` are the letters of its parts by id; what
    is not wood is typed, a line each, and may follow the measures of its ``sheet``."""

    settings: Settings
    parts: Sequence[NamedPart]
    marks: Mapping[str, str]
    joints: str = ""
    hardware: str = ""
    finishes: str = ""
    rules: str = ""
    sheet: Sheet = EMPTY

    def without(self, part: str) -> "PlannedProject":
        """The same project without one of its parts (by id)."""
        return replace(self, parts=[one for one in self.parts if one.id != part])


@dataclass(frozen=True)
class Workup:
    """A project, what its plan rests on and what happened since, as the version of planning sees it
    that a plan is ``made_by``."""

    project: PlannedProject
    basis: Basis
    facts: Facts = NOTHING_HAPPENED
    made_by: int = MADE_BY

    @property
    def currency(self) -> str:
        return self.basis.currency

    @property
    def source(self) -> str:
        """Where sizes and prices are from, such as the yard's name."""
        return self.basis.source

    @property
    def marks(self) -> Mapping[str, str]:
        """The letters of the parts by id."""
        return self.project.marks

    @cached_property
    def settings(self) -> Settings:
        settings = self.project.settings
        if self.made_by == 1:
            return replace(settings, saw=NO_LIMITS, keep_width=Length(0, "0"))
        saw = self.basis.saw
        return settings if saw is None else replace(settings, saw=saw)

    @cached_property
    def named(self) -> set[int]:
        """The numbers of rack boards that parts name."""
        return named_boards(one.part for one in self.project.parts)

    @cached_property
    def materials(self) -> list[Material]:
        """The materials of its parts, in the order in which parts first name them."""
        cut = self.facts.cut
        parts = [replace(one, cut=cut.get(one.id, {})) for one in self.project.parts]
        basis = self.facts.seen_in(self.basis)
        shelf = basis.shelf(self.settings.unit, self.named, self.facts.taken)
        grouping = Grouping(min(self.made_by, _WITH_SPARES))
        return gather_materials(parts, shelf, self.settings, grouping)

    @cached_property
    def joined(self) -> dict[str, JoinedPart]:
        """What joints and finishes have to know of its parts, by their marks."""
        parts = {}
        for material in self.materials:
            for one in material.all_parts():
                section = material.sections[one.id]
                sizes = (section.thickness, section.width) if section else (0, 0)
                parts[self.marks[one.id]] = JoinedPart(
                    *sizes, one.part.length.ticks, one.part.quantity
                )
        return parts

    @cached_property
    def hardware(self) -> Hardware:
        """All that is not wood."""
        return hardware_of(self._typed, self.joined, self.settings, self.project.sheet)

    @property
    def beside(self) -> Beside:
        """What it takes beside boards."""
        pieces = sum(one.part.quantity for one in self.project.parts if not one.part.fault)
        return Beside(pieces * self.settings.copies, self.hardware.packs, self.hardware.coated)

    @property
    def _typed(self) -> HardwareFields:
        found: Mapping[str, FoundPacks] = self.facts.packs
        project, basis = self.project, self.basis
        return HardwareFields(
            joints=project.joints,
            hardware=project.hardware,
            finishes=project.finishes,
            rules=project.rules,
            packs=basis.packs,
            packs_unit=basis.unit,
            currency=basis.currency,
            found=found,
        )

    @cached_property
    def problems(self) -> list[CutProblem | None]:
        """The cut problem of each material, ``None`` where there is nothing to plan yet."""
        spares = self.made_by >= _WITH_SPARES
        return [material.problem(self.settings, spares=spares) for material in self.materials]

    @cached_property
    def documents(self) -> list[Json | None]:
        """The cut problems as plain data."""
        return [problem_document(one) if one else None for one in self.problems]

    @cached_property
    def digest(self) -> str:
        """A digest of everything a plan depends on."""
        stated = [
            [
                str(m.stock),
                repr(m.section),
                m.priced,
                [[o.id, str(o.price), o.available] for o in m.offers],
                [
                    board.id
                    for stock in dict.fromkeys(o.stock for o in m.offers if o.owned)
                    for board in self.basis.rack.get(stock, ())
                ],
                _as_first_written(m, problem) if self.made_by == 1 and problem else problem,
            ]
            for m, problem in zip(self.materials, self.documents, strict=True)
        ]
        return hashlib.sha256(json.dumps(stated, sort_keys=True).encode()).hexdigest()

    def plans(self, documents: Sequence[Json]) -> list[CutPlan | None]:
        """The plan of each material from documents, one per cut problem."""
        left = iter(documents)
        plans: list[CutPlan | None] = []
        for problem in self.problems:
            document = next(left, None) if problem else None
            plan = read_plan(document, self.settings.unit) if document else None
            plans.append(sawn(problem, plan) if problem and plan else None)
        return plans

    def check(self, documents: Sequence[Json], only: Collection[int] | None = None) -> None:
        """Replays plans, one document per cut problem; ``only`` those of some materials where that
        is said. Raises ``PlanCheckError`` for one that cannot be sawn as it says."""
        problems = [(n, problem) for n, problem in enumerate(self.problems) if problem]
        for (n, problem), document in zip(problems, documents, strict=True):
            if only is None or n in only:
                check_plan(problem, read_plan(document, self.settings.unit))

    def with_proofs_checked(self, documents: Sequence[Json]) -> list[Json]:
        """The same plans, one document per cut problem, without the proofs that are refused."""
        problems = (problem for problem in self.problems if problem)
        return [
            {name: value for name, value in document.items() if name != "proof"}
            if proof_faults(problem, document)
            else document
            for problem, document in zip(problems, documents, strict=True)
        ]

    def cut_already(self) -> dict[str, int]:
        """How many pieces of parts (by id) are cut, those of which any are."""
        return {
            one.id: count
            for material in self.materials
            for one in material.parts
            if (count := material.cut_already(one, self.settings))
        }

    def saw_cautions(self, plans: Sequence[CutPlan | None]) -> list[str]:
        """What to mind at the saw when its materials are cut as planned."""
        layouts = [layout for plan in plans if plan for layout in plan.layouts]
        if not layouts:
            return []
        ripped = [one for one in layouts if any(cut.saw is not Saw.CROSSCUT for cut in one.cuts)]
        work = Work(
            narrowest=min(
                (p.y[1] - p.y[0] for one in ripped for p in one.parts if p.y), default=None
            ),
            shortest=min((p.end - p.start for one in layouts for p in one.parts), default=None),
            steepest=max(
                (abs(float(cut.angle.degrees)) for one in layouts for cut in one.cuts), default=0
            ),
        )
        return list(at_the_saw(work))

    def other_cautions(self) -> list[str]:
        """What to mind of its finishes, and what the plan does not answer for."""
        sheet = self.project.sheet
        finishes, _ = read_each_line(
            self.project.finishes, lambda line: read_coat(sheet.inline(line))
        )
        treated = any("treated" in one.part.stock.words for one in self.project.parts)
        oily = any(usual_product(name).oily for coat in finishes for name, _ in coat.mix)
        return list(beyond_the_saw(finished=bool(finishes), oily=oily, treated=treated))

    def left_out_told(self, found: Tally, *, planning: bool = False) -> str:
        """What the total of a tally has not in it, in words; empty where it is whole. While
        ``planning`` goes on it may get less."""
        unpriced = found.shopping.unpriced + self.hardware.unpriced
        pieces = _counted(found.unplaced, "piece", "pieces")
        parts = _counted(found.later, "part that is", "parts that are")
        said = (
            "so far: planning goes on" if planning else "",
            f"not counting {pieces} without a board" if found.unplaced else "",
            f"without {parts} not planned yet" if found.later else "",
            "incomplete: prices are missing" if unpriced else "",
            self.hardware.left_out_told,
        )
        return "; ".join(filter(None, said))

    def tally(self, plans: Sequence[CutPlan | None]) -> Tally:
        """What the plans of its materials take."""
        return tally(
            list(zip(self.materials, plans, strict=True)),
            self.settings,
            self.basis.tax,
            self.currency,
            self.source,
            hardware=self.hardware.price,
        )


def _counted(count: int, one: str, many: str) -> str:
    return f"{count} {one if count == 1 else many}"


def sawn(problem: CutProblem, plan: CutPlan) -> CutPlan:
    """A stored plan with its cuts: those of one that has none are made and replayed, and left away
    where they would not give its parts."""
    if all(layout.cuts or layout.pieces for layout in plan.layouts):
        return plan
    cut = replace(plan, layouts=tuple(with_cuts(problem, layout) for layout in plan.layouts))
    try:
        check_plan(problem, cut)
    except PlanCheckError:
        return plan
    return cut


def _as_first_written(material: Material, problem: Json) -> Json:
    """A cut problem as version 1 of planning wrote it down."""
    plain = {name: value for name, value in problem.items() if name not in _NOT_IN_FIRST}
    if material.ripped or not all(one.part.square_ended for one in material.parts):
        return plain
    for rows in ("stock", "parts"):
        plain[rows] = [
            {name: value for name, value in row.items() if name not in ("thickness", "width")}
            for row in problem[rows]
        ]
    return plain
