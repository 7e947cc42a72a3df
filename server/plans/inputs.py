"""What a plan is made from: a project, and the yard and rack as they are, or as they were."""

import hashlib
import json
from collections import Counter
from collections.abc import Collection, Iterable, Mapping
from dataclasses import asdict, dataclass, field, replace
from decimal import Decimal
from functools import cached_property
from typing import Any
from uuid import UUID

from django.db.models import Q, prefetch_related_objects

from carpentry.buying import PriceFields, Tax, read_price_line
from carpentry.buying import PriceLine as ReadLine
from carpentry.cutting import (
    NO_LIMITS,
    CutPlan,
    CutProblem,
    check_plan,
    problem_document,
    read_plan,
    with_cuts,
)
from carpentry.errors import PlanCheckError
from carpentry.length import Length, Unit
from carpentry.parts import Part
from carpentry.project import (
    FoundPacks,
    HardwareFields,
    Material,
    Owned,
    RackUse,
    Settings,
    Shelf,
    Workup,
    gather_materials,
)
from carpentry.project.file import TYPED_LINES
from carpentry.rack import OnHand
from carpentry.sizes import OwnFields, OwnStocks, StockName, read_own
from server.materials.models import OwnMaterials
from server.plans.models import MADE_BY, Piece, Plan
from server.projects.models import Project
from server.rack.models import Rack, RackBoard

Document = dict[str, Any]
_NOT_IN_FIRST = ("saw", "keep_offcut_width")  # of cut problems
Pieces = dict[str, Counter[int]]  # of each part, how many were cut to which length (ticks)


@dataclass(frozen=True)
class Basis:
    """Prices and boards on hand that a plan rests on. Kept with a plan that was cut, so that it
    stays what it was when yard and rack go on."""

    unit: str
    lines: list[ReadLine]
    whole_inches: bool
    tax: Tax
    currency: str
    source: str
    own: OwnStocks
    rack: dict[StockName, list[RackBoard]]
    packs: str = ""
    cart: Owned = field(default_factory=dict)  # boards taken at the yard, not on the rack yet
    found: Mapping[str, FoundPacks] = field(default_factory=dict)  # packs as the yard has them

    @classmethod
    def of(cls, project: Project) -> "Basis":
        """Yard and rack as they are now."""
        yard = project.yard
        parts = project.named_parts()
        wanted = Q(stock_key__in={str(one.part.stock) for one in parts})
        sawn = (p.part for p in parts if p.part.may_be_sawn(project.rip))
        for words in {part.stock.words for part in sawn if not part.stock.own}:
            wanted |= _of_wood(words)
        lines = yard.lines.filter(wanted) if yard else []
        return cls(
            unit=yard.unit if yard else project.unit,
            lines=[line.read() for line in lines],
            whole_inches=bool(yard and yard.whole_inches),
            tax=yard.tax if yard else Tax(Decimal(0), included=False),
            currency=yard.currency if yard else "USD",
            source=yard.name if yard else "standard lengths",
            own=project.own,
            packs=yard.packs if yard else "",
            rack={} if project.rack == RackUse.NEVER else Rack.of(project.owner).usable(),
        )

    def document(self) -> Document:
        """As plain data that ``read`` takes back."""
        return {
            "unit": self.unit,
            "lines": [asdict(line.fields) for line in self.lines],
            "whole_inches": self.whole_inches,
            "tax": [f"{self.tax.rate:f}", self.tax.included],
            "currency": self.currency,
            "source": self.source,
            "packs": self.packs,
            "own": [asdict(stock.fields) for stock in self.own.values()],
            "rack": [board.snapshot() for boards in self.rack.values() for board in boards],
        }

    def shelf(self, settings: Settings, named: Collection[int]) -> Shelf:
        """What parts can be cut from, when parts name rack boards by these numbers."""
        owned = {
            stock: Counter(self.on_hand(board, named) for board in boards)
            for stock, boards in self.rack.items()
        }
        for stock, taken in self.cart.items():
            owned[stock] = owned.get(stock, Counter()) + taken
        return Shelf(self.lines, settings.unit, whole_inches=self.whole_inches, owned=owned)

    def on_hand(self, board: RackBoard, named: Collection[int]) -> OnHand:
        """What plans know of a board; those that parts name by number are told apart by it."""
        read = board.read(self.own).on_hand
        return replace(read, number=board.number) if board.number in named else read

    @classmethod
    def read(cls, document: Document) -> "Basis":
        own = {
            stock.name: stock
            for row in document["own"]
            for stock in [read_own(OwnFields(**row), OwnMaterials.UNIT)]
        }
        rack: dict[StockName, list[RackBoard]] = {}
        for row in document["rack"]:
            board = RackBoard(**row)
            rack.setdefault(board.read(own).stock, []).append(board)
        unit = document["unit"]
        rate, included = document["tax"]
        return cls(
            unit=unit,
            lines=[read_price_line(PriceFields(**row), unit, own) for row in document["lines"]],
            whole_inches=document["whole_inches"],
            tax=Tax(Decimal(rate), included),
            currency=document["currency"],
            source=document["source"],
            own=own,
            rack=rack,
            packs=document.get("packs", ""),
        )


def _of_wood(words: tuple[str, ...]) -> Q:
    """Price lines of every size of a wood, and perhaps some of others."""
    if words:
        return Q(stock_key__endswith=f" {' '.join(words)}")
    return ~Q(stock_key__contains=" ")


def named_boards(parts: Iterable[Part]) -> set[int]:
    """The numbers of rack boards that parts name."""
    return {number for part in parts if part.boards for number in part.boards.numbers}


@dataclass(frozen=True)
class Inputs(Workup):
    """What a plan is made from: a project as it is now; or, for a plan that was cut, as the version
    of planning saw it that it was ``made_by``."""

    basis: Basis
    made_by: int = MADE_BY

    @cached_property
    def documents(self) -> list[Document | None]:
        """The cut problem of each material, ``None`` where there is nothing to plan yet."""
        return [problem and problem_document(problem) for problem in self.problems]

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
                    str(board.id)
                    for stock in dict.fromkeys(o.stock for o in m.offers if o.owned)
                    for board in self.basis.rack[stock]
                ],
                _as_first_written(m, problem) if self.made_by == 1 and problem else problem,
            ]
            for m, problem in zip(self.materials, self.documents, strict=True)
        ]
        return hashlib.sha256(json.dumps(stated, sort_keys=True).encode()).hexdigest()

    def plans(self, documents: list[dict[str, object]]) -> list[CutPlan | None]:
        """The plan of each material from documents, one per cut problem."""
        left = iter(documents)
        plans: list[CutPlan | None] = []
        for problem in self.problems:
            document = next(left, None) if problem else None
            plan = read_plan(document, self.settings.unit) if document else None
            plans.append(sawn(problem, plan) if problem and plan else None)
        return plans


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


def _as_first_written(material: Material, problem: Document) -> Document:
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


def inputs_of(project: Project, basis: Basis | None = None, without: UUID | None = None) -> Inputs:
    """What the plan of this project's present state is made from: a ``basis`` if it is given, else
    what it was cut from if that plan was cut, yard and rack as they are now if not. What other
    plans of it cut stays cut. It may be planned ``without`` one of its parts."""
    prefetch_related_objects([project], "parts")  # read once, so that all below is of one state
    done: Pieces = {}
    for cut in project.plans.filter(stage=Plan.Stage.CUT).order_by("asked"):
        inputs = _inputs(project, Basis.read(cut.basis), done, made_by=cut.made_by)
        if basis is None and inputs.digest == cut.digest:
            return inputs
        for piece in Piece.objects.filter(board__plan=cut):
            of_part = done.setdefault(str(piece.part), Counter())
            of_part[piece.end - piece.start] += 1
    return _inputs(project, basis or Basis.of(project), done, without)


def _inputs(
    project: Project,
    basis: Basis,
    done: Pieces,
    without: UUID | None = None,
    made_by: int = MADE_BY,
) -> Inputs:
    settings = project.settings()
    if made_by == 1:
        settings = replace(settings, saw=NO_LIMITS, keep_width=Length(0, "0"))
    parts = [
        replace(one, cut=done.get(one.id, Counter()))
        for one in project.named_parts(basis.own)
        if one.id != str(without)
    ]
    shelf = basis.shelf(settings, named_boards(one.part for one in parts))
    return Inputs(
        settings=settings,
        materials=gather_materials(parts, shelf, settings, apart=made_by == 1),
        made_by=made_by,
        marks={str(part.id): part.mark for part in project.parts.all()},
        basis=basis,
        tax=basis.tax,
        currency=basis.currency,
        source=basis.source,
        typed=HardwareFields(
            **{name: getattr(project, name) for name in TYPED_LINES},
            packs=basis.packs,
            packs_unit=Unit(basis.unit),
            currency=basis.currency,
            found=basis.found,
        ),
    )
