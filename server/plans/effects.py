"""Which parts a corrected size would change, told before it is applied."""

from collections.abc import Iterator
from dataclasses import asdict, replace

from carpentry.buying import read_price_line
from carpentry.parts import not_planned_yet
from carpentry.project import RackUse, section_sold
from carpentry.rack import BoardFields, read_board
from carpentry.sizes import Section, read_own
from server.materials.models import OwnMaterial, OwnMaterials
from server.plans.inputs import inputs_of
from server.plans.models import Piece
from server.plans.schemas import EffectOut, section_out
from server.projects.models import Part, Project
from server.rack.models import Rack, RackBoard
from server.yards.models import PriceLine, Yard


def effect_at_yard(yard: Yard, line: PriceLine, typed: dict[str, str]) -> list[EffectOut]:
    """The parts of every project bought at this yard that a line's new fields give another size.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    changed = read_price_line(replace(line.fields, **typed), yard.unit, yard.own)
    lines = list(yard.lines.filter(stock_key=str(changed.stock)))
    now = [one.read() for one in lines]
    then = [changed if one.id == line.id else one.read() for one in lines]
    before, _ = section_sold(changed.stock, now)
    after, _ = section_sold(changed.stock, then)
    if before == after or before is None or after is None:
        return []
    return [
        effect
        for project in yard.projects.all()
        for named in project.parts.all()
        if named.read(project.unit).stock == changed.stock
        for effect in _Touched(project, named).by(before, after)
    ]


def effect_on_rack(board: RackBoard, typed: dict[str, str]) -> list[EffectOut]:
    """The parts that plans would cut from this board and that its new fields change.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    before = board.read()
    after = read_board(BoardFields(**asdict(board.fields) | typed), Rack.UNIT, board.rack.own)
    left_alone = after.not_used_because()
    effects: list[EffectOut] = []
    for project in Project.objects.of(board.rack.owner).exclude(rack=RackUse.NEVER):
        inputs = inputs_of(project)
        plan = project.plans.filter(digest=inputs.digest).first()
        pieces = Piece.objects.filter(board__plan=plan, board__rack_board=board.id)
        wanted = list(pieces.values_list("part", flat=True))
        for named in project.parts.filter(id__in=wanted):
            touched = _Touched(project, named, wanted.count(named.id))
            if left_alone or after.length != before.length:
                why = left_alone or "the board has another length: it is planned anew"
                effects.append(touched.effect(before.section, None, why))
            elif before.section and after.section:
                effects += touched.by(before.section, after.section)
    return effects


def effect_of_material(row: OwnMaterial, typed: dict[str, str]) -> list[EffectOut]:
    """The parts of a material of the builder's own that new fields of it would change.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    before = row.read()
    after = read_own(replace(before.fields, **typed), OwnMaterials.UNIT)
    return [
        effect
        for project in Project.objects.of(row.materials.owner)
        for named in project.parts.all()
        if named.read(project.unit).stock.size == before.name
        for effect in _Touched(project, named).by(before.section, after.section)
    ]


class _Touched:
    """A part that a corrected size may change; ``count`` pieces of it, all where not said."""

    def __init__(self, project: Project, named: Part, count: int | None = None) -> None:
        self.project, self.mark = project, named.mark
        self.part = named.read(project.unit)
        self.count = self.part.quantity if count is None else count

    def by(self, before: Section, after: Section) -> Iterator[EffectOut]:
        sawn = self.part.may_be_sawn(self.project.rip)
        was, now = (
            "" if sawn else not_planned_yet(self.part, section) or "" for section in (before, after)
        )
        if self._finished(before) != self._finished(after) or was != now:
            yield self.effect(before, after, now)

    def effect(self, before: Section | None, after: Section | None, why: str) -> EffectOut:
        return EffectOut(
            project=self.project.name,
            mark=self.mark,
            called=self.part.name,
            pieces=self.count,
            before=section_out(self._finished(before), self.project.notation),
            after=section_out(self._finished(after), self.project.notation),
            why=why,
        )

    def _finished(self, section: Section | None) -> Section | None:
        """The finished section of the part when its stock has this one."""
        return self.part.finished_section(section)
