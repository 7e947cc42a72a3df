"""A whole project from files: what the application does for it, without server or database."""

from collections.abc import Iterable
from dataclasses import asdict, replace
from decimal import Decimal
from time import monotonic

from carpentry.buying import ListLine, cents
from carpentry.cutting import CutPlan, SawLimits, Status, plan_document, plan_within
from carpentry.design import Sheet, measures_shown, runs_shown
from carpentry.design.measures import length
from carpentry.language import Json, Unit, interchange
from carpentry.lumber import Section
from carpentry.lumber.rack import MeasuredBoard
from carpentry.planning.basis import Basis, RackBoard, usable
from carpentry.planning.workup import PlannedProject, Workup
from carpentry.project import (
    Hardware,
    Material,
    NamedPart,
    ProjectFile,
    RackUse,
    YardFile,
    content_of,
    notes,
)
from carpentry.project.claims import claim_of
from carpentry.project.file import BOUGHT_LINES
from carpentry.proof import with_proof

_LEAST_SECONDS = 0.1
_PROOF_SHARE = 0.25  # of the time for a plan, that its proof has at the least


def work_up_files(
    project: ProjectFile,
    yard: YardFile | None = None,
    rack: Iterable[MeasuredBoard] = (),
    saw: SawLimits | None = None,
) -> Workup:
    """A project with a yard's prices, boards on hand, and what the saws at hand can do where that
    is not as the project says. Parts go by their marks."""
    settings = project.settings
    if saw is not None:
        told = {name: limit for name, limit in asdict(saw).items() if limit is not None}
        settings = replace(settings, saw=replace(settings.saw, **told))
    basis = basis_of_yard(yard) if yard else Basis(settings.unit)
    sheet = project.sheet(basis.section)
    planned = PlannedProject(
        settings,
        [NamedPart(mark, sheet.part(mark)) for mark in sheet.typed.parts],
        {mark: mark for mark in sheet.typed.parts},
        sheet=sheet,
        **{name: getattr(project, name) for name in BOUGHT_LINES},
    )
    if settings.rack is not RackUse.NEVER:
        boards = (RackBoard(str(n), None, board) for n, board in enumerate(rack))
        basis = replace(basis, rack=usable(boards))
    return Workup(planned, basis)


def basis_of_yard(yard: YardFile) -> Basis:
    """What a plan rests on at a yard, without boards on hand."""
    return Basis(
        unit=yard.unit,
        lines=yard.lines,
        whole_inches=yard.board_foot_rounding == "each",
        tax=yard.tax,
        currency=yard.currency,
        source=yard.name,
        packs=yard.packs,
    )


def plan_all(work: Workup, seconds: float) -> list[CutPlan | None]:
    """The plan of each material, in so many seconds for all of them together."""
    deadline = monotonic() + seconds
    problems = work.problems
    left = sum(problem is not None for problem in problems)
    plans: list[CutPlan | None] = []
    for problem in problems:
        if problem is None:
            plans.append(None)
            continue
        share = max(_LEAST_SECONDS, (deadline - monotonic()) / left)
        until = monotonic() + share
        plan = plan_within(problem, share * (1 - _PROOF_SHARE))
        plans.append(with_proof(problem, plan, until - monotonic()))
        left -= 1
    return plans


def build_document(work: Workup, plans: list[CutPlan | None]) -> Json:
    """What a project takes and how it is cut, as a JSON document: lengths as text in its unit,
    money as plain decimals."""
    unit = work.settings.unit
    found = work.tally(plans)
    shopping = found.shopping
    planned = [(m, plan) for m, plan in zip(work.materials, plans, strict=True) if plan]
    return {
        "format": "grain-tally/build@1",
        "units": unit.value,
        "currency": work.currency,
        "tally": {
            "boards": found.boards,
            "spare": found.spare,
            "owned": found.owned,
            "wood": _money(shopping.subtotal),
            "hardware": _money(shopping.hardware),
            "tax": _money(shopping.tax),
            "total": _money(shopping.total),
            "per_copy": _money(shopping.per_copy),
            "waste": f"{found.waste:f}",
            "board_feet": f"{found.board_feet:f}",
            "weight": f"{found.weight_kg:f}",
            "unweighed": found.unweighed,
            "keepable": found.keepable,
            "unplaced": found.unplaced,
            "not_planned": found.later,
            "unpriced": shopping.unpriced,
            "left_out": work.hardware.left_out,
            "total_lacks": work.left_out_told(found),
            "says": found.claim.headline,
        },
        "cautions": [*work.saw_cautions(plans), *work.other_cautions()],
        "claims": [_claim(work, material, plan) for material, plan in planned],
        "layouts": [
            layout
            for material, plan in planned
            for layout in _named(material, plan_document(plan, unit))["layouts"]
        ],
        "unplaced": [
            {"part": one.part, "quantity": one.quantity, "reason": one.reason}
            for _, plan in planned
            for one in plan.unplaced
        ]
        + [
            {"part": one.id, "quantity": one.part.quantity, "reason": reason}
            for material in work.materials
            for one, reason in material.later
        ],
        "measures": _measures(work.project.sheet),
        "marks": _marks(work.project.sheet),
        "list": [_line(line, unit) for line in shopping.lines],
        "hardware": _hardware(work.hardware, unit),
        "notes": [
            {"cause": note.cause.value, "says": note.says}
            for planned in zip(work.materials, work.problems, plans, strict=True)
            for note in notes(*planned, work.settings)
        ],
    }


def _measures(sheet: Sheet) -> Json:
    """What measures come to, and what is wrong with those that come to nothing."""
    found: dict[str, Json] = {}
    for one in measures_shown(sheet):
        if one.value is None:
            found[one.fields.name] = {"problems": list(one.problems)}
        else:
            text, exact = sheet.shown(one.value)
            found[one.fields.name] = {"kind": one.value.kind.value, "value": text, "exact": exact}
    return found


def _marks(sheet: Sheet) -> Json:
    """Where the items of runs are marked, and what is wrong with those that cannot be laid."""
    return {
        one.fields.name: [sheet.shown(length(mark))[0] for mark in one.laid.marks()]
        if one.laid
        else {"problems": [str(problem) for problem in one.problems]}
        for one in runs_shown(sheet)
    }


def is_complete(work: Workup, plans: list[CutPlan | None]) -> bool:
    """Whether every part has a board."""
    left = any(material.later for material in work.materials)
    return not left and not any(plan and plan.status is Status.INCOMPLETE for plan in plans)


def _money(amount: Decimal) -> str:
    return f"{cents(amount):f}"


def _claim(work: Workup, material: Material, plan: CutPlan) -> Json:
    said = claim_of([(material, plan)], work.settings, work.currency, work.source)
    priced = {"price": _money(plan.price), "bound": _money(plan.bound)}
    return {
        "of": material.called,
        "parts": [named.id for named in material.parts],
        "status": plan.status.value,
        **(priced if material.priced else {"price": None, "bound": None}),
        "says": said.headline,
        "detail": said.detail,
        "limits": list(said.limits),
    }


def _named(material: Material, document: Json) -> Json:
    """A plan's document whose stock begins with its name."""
    offers = {offer.id: offer for offer in material.offers}
    for layout in document["layouts"]:
        offer = offers[layout["stock"]]
        own = layout["stock"].removeprefix(f"{offer.stock} ")
        layout["stock"] = f"{offer.stock} {own}"
    return document


def _section(section: Section | None, unit: Unit) -> Json:
    if section is None:
        return {}
    return {
        "thickness": interchange(section.thickness, unit),
        "width": interchange(section.width, unit),
    }


def _line(line: ListLine, unit: Unit) -> Json:
    return {
        "stock": str(line.stock),
        **_section(line.section, unit),
        "length": interchange(line.length, unit),
        "real_length": interchange(line.real_length, unit),
        "count": line.count,
        "spare": line.spare,
        "price": None if line.price is None else _money(line.price),
        "line_price": None if line.line_price is None else _money(line.line_price),
    }


def _hardware(hardware: Hardware, unit: Unit) -> Json:
    return {
        "lines": [
            {
                "name": line.name,
                "length": None if line.length is None else interchange(line.length, unit),
                "needed": line.needed,
                "measured_in": "ml" if line.volume else "pieces",
                "have": line.have,
                "packs": [
                    {
                        "name": package.name,
                        "holds": content_of(package) or "1",
                        "count": count,
                        "price": _money(package.price),
                    }
                    for package, count in line.packs
                ],
                "price": None if line.price is None else _money(line.price),
                "left": line.left,
                "used_for": list(line.used_for),
            }
            for line in hardware.lines
        ],
        "joints": [
            {
                "text": joint.text,
                "fastener": joint.fastener,
                "length": None if joint.length is None else interchange(joint.length, unit),
                "count": joint.count,
                "warnings": list(joint.warnings),
                "notes": list(joint.notes),
            }
            for joint in hardware.joints
        ],
        "problems": [f"{problem.place}: {problem.message}" for problem in hardware.problems],
        "price": _money(hardware.price),
    }
