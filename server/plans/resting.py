"""What a plan of a project rests on: yard and rack as they are, what was cut, what is typed."""

from collections import Counter, OrderedDict
from collections.abc import Hashable, Iterable
from dataclasses import replace
from threading import Lock

from django.db.models import Q

from carpentry.language import Unit
from carpentry.lumber import Lexicon
from carpentry.planning import (
    MADE_BY,
    Basis,
    Facts,
    Pieces,
    PlannedProject,
    Workup,
    read_basis,
)
from carpentry.project import NamedPart, RackUse
from carpentry.project.file import BOUGHT_LINES
from server.plans.models import Piece, Plan
from server.plans.state import state_of_project
from server.projects.models import Project
from server.projects.showing import read_at_once
from server.rack.models import Rack
from server.tools.models import Toolbox

_KEPT = 12
_worked_up: OrderedDict[Hashable, Workup] = OrderedDict()
_keeping = Lock()


def work_up(project: Project) -> Workup:
    """A project in its present state as its plan is made, on yard and rack as they are; where that
    plan was cut, on what it was cut from. What other plans of it cut stays cut. The last ones are
    kept, by the state that they are of.

    Raises ``Project.DoesNotExist`` when it is gone.
    """
    project.refresh_from_db()
    known = _worked_up.get(state_of_project(project))
    if known:
        return known
    read_at_once(project)
    state = state_of_project(project)
    cut, found = _cut_so_far(project)
    work = found or Workup(_planned(project), basis_now(project), Facts(cut=cut))
    if state == state_of_project(project):  # nothing changed while it was worked up
        with _keeping:
            _worked_up[state] = work
            while len(_worked_up) > _KEPT:
                _worked_up.popitem(last=False)
    return work


def work_up_elsewhere(project: Project, home: Workup) -> Workup:
    """What a project takes at the yard that it has now, with what happened to it at ``home``."""
    return Workup(_planned(project), basis_now(project), home.facts)


def work_up_on(project: Project, basis: Basis, facts: Facts, made_by: int = MADE_BY) -> Workup:
    """A project in its present state, on a basis that is kept and what happened since."""
    cut, _ = _cut_so_far(project)
    return Workup(_planned(project, basis), basis, replace(facts, cut=cut), made_by)


def basis_now(project: Project) -> Basis:
    """Yard, rack and tools as they are now."""
    own = project.lexicon.own
    saw = Toolbox.of(project.owner).owned.limits
    rack = {} if project.rack == RackUse.NEVER else Rack.of(project.owner).usable()
    yard = project.yard
    if yard is None:
        return Basis(Unit(project.unit), own=own, rack=rack, saw=saw)
    rows = list(yard.lines.filter(_wanted(project.named_parts(), rip=project.rip)))
    for row in rows:
        row.yard = yard
    return Basis(
        unit=Unit(yard.unit),
        lines=[row.read() for row in rows],
        whole_inches=yard.whole_inches,
        tax=yard.tax,
        currency=yard.currency,
        source=yard.name,
        own=own,
        rack=rack,
        packs=yard.packs,
        saw=saw,
    )


def _wanted(parts: Iterable[NamedPart], *, rip: bool) -> Q:
    """The price lines of what parts may be cut from."""
    read = {one.part for one in parts}
    wanted = Q(stock_key__in={str(part.stock) for part in read})
    sawn = {part.stock for part in read if part.may_be_sawn(rip) and not part.stock.own}
    for words in {stock.words for stock in sawn}:
        wanted |= _of_wood(words)
    return wanted


def _of_wood(words: tuple[str, ...]) -> Q:
    """Price lines of every size of a wood, and perhaps some of others."""
    if words:
        return Q(stock_key__endswith=f" {' '.join(words)}")
    return ~Q(stock_key__contains=" ")


def _planned(project: Project, basis: Basis | None = None) -> PlannedProject:
    lexicon = Lexicon(Unit(project.unit), basis.own) if basis else project.lexicon
    sheet = project.sheet(lexicon, basis.section if basis else None)
    return PlannedProject(
        settings=project.settings(),
        parts=[NamedPart(str(part.id), sheet.part(part.mark)) for part in project.parts.all()],
        sheet=sheet,
        marks={str(part.id): part.mark for part in project.parts.all()},
        **{kind: project.typed_lines()[kind] for kind in BOUGHT_LINES},
    )


def _cut_so_far(project: Project) -> tuple[Pieces, Workup | None]:
    """The pieces that plans of a project cut, and, where the present state is that of one of them,
    the project as it was cut then, on what others before it had cut."""
    done: dict[str, Counter[int]] = {}
    for plan in project.plans.filter(stage=Plan.Stage.CUT).order_by("asked"):
        basis = read_basis(plan.basis)
        before = {part: dict(lengths) for part, lengths in done.items()}
        planned = _planned(project, basis)
        for made_by in plan.made_by_any_of:
            work = Workup(planned, basis, Facts(cut=before), made_by)
            if work.digest == plan.digest:
                return done, work
        for part, start, end in Piece.objects.filter(board__plan=plan).values_list(
            "part", "start", "end"
        ):
            done.setdefault(str(part), Counter())[end - start] += 1
    return done, None
