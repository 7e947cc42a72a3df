"""A project worked up: its materials, what is planned of them, what that takes, and what holds it
together."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from carpentry.buying import Tax
from carpentry.buying.coating import read_coat
from carpentry.buying.joints import read_each_line
from carpentry.cautions import Work, at_the_saw, beyond_the_saw
from carpentry.cutting import CutPlan, CutProblem, Saw
from carpentry.project.hardware import Hardware, HardwareFields, JoinedPart, hardware_of
from carpentry.project.material import Material
from carpentry.project.settings import Settings
from carpentry.project.tally import Tally, tally


@dataclass(frozen=True)
class Workup:
    """What a project is planned and priced from: ``marks`` are the letters of its parts by id,
    ``typed`` all that is not wood. ``source`` is where sizes and prices are from, such as the
    yard's name."""

    settings: Settings
    materials: list[Material]
    marks: Mapping[str, str]
    typed: HardwareFields
    tax: Tax
    currency: str
    source: str

    @cached_property
    def hardware(self) -> Hardware:
        """All that is not wood."""
        parts = {}
        for material in self.materials:
            for one in (*material.parts, *(later for later, _ in material.later)):
                section = material.sections[one.id]
                sizes = (section.thickness, section.width) if section else (0, 0)
                parts[self.marks[one.id]] = JoinedPart(
                    *sizes, one.part.length.ticks, one.part.quantity
                )
        return hardware_of(self.typed, parts, self.settings)

    @cached_property
    def problems(self) -> list[CutProblem | None]:
        """The cut problem of each material, ``None`` where there is nothing to plan yet."""
        return [material.problem(self.settings) for material in self.materials]

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
        finishes, _ = read_each_line(self.typed.finishes, read_coat)
        return list(beyond_the_saw(name for coat in finishes for name, _ in coat.mix))

    def tally(self, plans: Sequence[CutPlan | None]) -> Tally:
        """What the plans of its materials take."""
        pairs = list(zip(self.materials, plans, strict=True))
        return tally(
            pairs,
            self.settings,
            self.tax,
            self.currency,
            self.source,
            hardware=self.hardware.price,
        )
