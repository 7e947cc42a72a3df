"""Which parts a corrected size would change, told before it is applied."""

from collections import Counter
from collections.abc import Iterable, Iterator
from dataclasses import asdict, replace
from functools import partial

from carpentry.buying import read_price_line
from carpentry.design import Sheet
from carpentry.language import Unit, write_length
from carpentry.lumber import Section, StockName, read_own
from carpentry.lumber.rack import BoardFields, read_board
from carpentry.planning import (
    Effect,
    Touched,
    effects_of_section,
    effects_on_board,
    effects_that_follow,
)
from carpentry.project import RackUse, section_sold
from server.common.schemas import section_out
from server.plans.making import find_plan
from server.plans.models import Piece
from server.plans.resting import work_up
from server.plans.schemas import EffectOut
from server.projects.models import Project
from server.rack.models import RackBoard
from server.stocks.models import OwnMaterial
from server.yards.models import PriceLine, Yard


def effect_at_yard(yard: Yard, line: PriceLine, typed: dict[str, str]) -> list[EffectOut]:
    """The parts of every project bought at this yard that a line's new fields give another size.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    changed = read_price_line(replace(line.fields, **typed), yard.lexicon)
    lines = list(yard.lines.filter(stock_key=str(changed.stock)))
    now = [one.read() for one in lines]
    then = [changed if one.id == line.id else one.read() for one in lines]
    before, _ = section_sold(changed.stock, now)
    after, _ = section_sold(changed.stock, then)
    if before == after or before is None or after is None:
        return []
    projects = yard.projects.filter(deleted=None)
    return _effects_of(projects, changed.stock, before, after)


def _effects_of(
    projects: Iterable[Project], stock: StockName, before: Section, after: Section
) -> list[EffectOut]:
    """What becomes of the parts of projects where a stock measures ``after``: of its own, and of
    those that follow them."""
    found: list[EffectOut] = []
    for project in projects:
        effects = list(effects_of_section(_of_stock(project, stock), before, after))
        if project.has_followers:
            effects += _that_follow(project, stock, after)
        found += [_show(project, effect) for effect in effects]
    return found


def _that_follow(project: Project, stock: StockName, after: Section) -> Iterator[Effect]:
    def then(other: StockName) -> Section | None:
        return after if other == stock else project.section(other)

    written = partial(_written, project.notation)
    return effects_that_follow(project.sheet(), project.sheet(sections=then), written)


def _that_follow_board(project: Project, number: int, after: Section | None) -> Iterator[Effect]:
    """As ``_that_follow``, of parts that follow one that names a board of the rack."""
    now = project.sheet()
    if number not in now.typed.boards or after is None:
        return iter(())
    typed = replace(now.typed, boards={**now.typed.boards, number: after})
    then = Sheet(typed, now.lexicon, now.sections)
    return effects_that_follow(now, then, partial(_written, project.notation))


def _written(notation: str, ticks: int) -> str:
    return write_length(ticks, notation).text


def effect_of_material(row: OwnMaterial, typed: dict[str, str]) -> list[EffectOut]:
    """The parts of a material of the builder's own that new fields of it would change.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    before = row.read()
    after = read_own(replace(before.fields, **typed), Unit.INCH)
    stock = StockName(before.name, (), before)
    projects = Project.objects.of(row.materials.owner)
    return _effects_of(projects, stock, before.section, after.section)


def effect_on_rack(board: RackBoard, typed: dict[str, str]) -> list[EffectOut]:
    """The parts that plans would cut from this board and that its new fields change.

    Raises ``CarpentryError`` by field when they cannot be read.
    """
    before = board.read()
    after = read_board(BoardFields(**asdict(board.fields) | typed), board.rack.lexicon)
    found: list[EffectOut] = []
    for project in Project.objects.of(board.rack.owner).exclude(rack=RackUse.NEVER):
        effects = list(effects_on_board(_planned_from(project, board), before, after))
        effects += _that_follow_board(project, board.number, after.section)
        found += [_show(project, effect) for effect in effects]
    return found


def _of_stock(project: Project, stock: StockName) -> Iterator[Touched]:
    """The parts of a project that are of a stock."""
    sheet = project.sheet()
    for row in project.parts.all():
        part = sheet.part(row.mark)
        if part.stock == stock:
            yield Touched(row.mark, part, part.quantity, project.rip)


def _planned_from(project: Project, board: RackBoard) -> Iterable[Touched]:
    """The parts of a project that its plan cuts from a board of the rack."""
    plan = find_plan(project, work_up(project))
    on_it = Piece.objects.filter(board__plan=plan, board__rack_board=board.id)
    counts = Counter(on_it.values_list("part", flat=True))
    sheet = project.sheet()
    for row in project.parts.filter(id__in=counts):
        yield Touched(row.mark, sheet.part(row.mark), counts[row.id], project.rip)


def _show(project: Project, effect: Effect) -> EffectOut:
    return EffectOut(
        project=project.name,
        mark=effect.of.mark,
        called=effect.of.part.name,
        pieces=effect.of.pieces,
        before=section_out(effect.before, project.notation),
        after=section_out(effect.after, project.notation),
        why=effect.why,
    )
