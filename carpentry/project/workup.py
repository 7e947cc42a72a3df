"""A project worked up: its materials, what is planned of them, what that takes, and what holds it
together."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from functools import cached_property

from carpentry.buying import Tax
from carpentry.cutting import CutPlan, CutProblem
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

    def problems(self) -> list[CutProblem | None]:
        """The cut problem of each material, ``None`` where there is nothing to plan yet."""
        return [material.problem(self.settings) for material in self.materials]

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
