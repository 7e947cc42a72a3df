"""Cut plans as JSON documents (``grain-tally/cut-plan@1``)."""

from decimal import Decimal

from carpentry.cutting.cuts import Cut, Saw, SawnPiece
from carpentry.cutting.plan import (
    CutPlan,
    Ended,
    Layout,
    Leftover,
    PlacedPart,
    Span,
    Status,
    Unplaced,
)
from carpentry.design.edges import Edges, read_edges
from carpentry.design.ends import EndAngle, Ends, is_angled, read_angle
from carpentry.language import Json, Unit, interchange, read_length

FORMAT = "grain-tally/cut-plan@1"


def plan_document(plan: CutPlan, unit: Unit, seconds: float | None = None) -> Json:
    """A plan as a JSON document: lengths as text in ``unit``, prices as plain decimals."""

    def span(start: int, end: int) -> list[str]:
        return [interchange(start, unit), interchange(end, unit)]

    def box(one: PlacedPart | Leftover) -> Json:
        spans = {"x": (one.start, one.end), "y": one.y, "z": one.z}
        written: Json = {axis: span(*along) for axis, along in spans.items() if along}
        if isinstance(one, Leftover) and one.keep:
            written["keep"] = True
        if isinstance(one, PlacedPart) and is_angled(one.ends):
            written["ends"] = [str(end) for end in one.ends]
        if isinstance(one, PlacedPart) and is_angled(one.edges):
            written["edges"] = [f"{edge.degrees:f}" for edge in one.edges]
        return written

    document: Json = {
        "format": FORMAT,
        "status": plan.status.value,
        "price": f"{plan.price:f}",
        "bound": f"{plan.bound:f}",
        "pieces_of_stock": plan.pieces_of_stock,
        "layouts": [
            {
                "stock": layout.stock,
                "count": layout.count,
                "parts": [{"part": p.part} | box(p) for p in layout.parts],
                "leftover": [box(rest) for rest in layout.leftover],
                "cuts": [_cut_document(cut, unit) for cut in layout.cuts],
                "pieces": {str(one.number): _fate(one) for one in layout.pieces},
                **({"number": layout.number} if layout.number else {}),
            }
            for layout in plan.layouts
        ],
        "unplaced": [
            {"part": u.part, "quantity": u.quantity, "reason": u.reason} for u in plan.unplaced
        ],
    }
    if plan.rip_set_ups is not None:
        document["rip_set_ups"] = plan.rip_set_ups
    if plan.ended is not None:
        document["ended"] = plan.ended
    if plan.proof is not None:
        document["proof"] = plan.proof
    if seconds is not None:
        document["seconds"] = round(seconds, 3)
    return document


def _angle_name(cut: Cut) -> str:
    if cut.saw is Saw.RIP:
        return "tilt"
    return "bevel" if cut.angle.bevel else "miter"


def _cut_document(cut: Cut, unit: Unit) -> Json:
    written: Json = {
        "cut": cut.saw.value,
        "of": cut.of,
        "from": signed(cut.start, unit),
        "to": signed(cut.end, unit),
        "makes": list(cut.makes),
    }
    if cut.angle.degrees:
        written[_angle_name(cut)] = f"{cut.angle.degrees:f}"
    return written


def _read_cut(document: Json, unit: Unit) -> Cut:
    start, end = (_read_signed(document[name], unit) for name in ("from", "to"))
    first, second = document["makes"]
    angle = EndAngle()
    for name in ("miter", "bevel", "tilt"):
        if name in document:
            angle = EndAngle(Decimal(document[name]), bevel=name != "miter")
    return Cut(Saw(document["cut"]), document["of"], start, end, (first, second), angle)


def signed(ticks: int, unit: Unit) -> str:
    """A position as text; before the end it is measured from with a minus sign."""
    return ("-" if ticks < 0 else "") + interchange(abs(ticks), unit)


def _read_signed(text: str, unit: Unit) -> int:
    ticks = read_length(text.removeprefix("-"), unit).ticks
    return -ticks if text.startswith("-") else ticks


def _fate(piece: SawnPiece) -> Json:
    if piece.part:
        return {"part": piece.part}
    return {"keep": True} if piece.keep else {"waste": True}


def read_plan(document: Json, unit: Unit) -> CutPlan:
    """A plan from a document that ``plan_document`` wrote, to the same ticks. One that was written
    before plans had cuts has none: ``with_cuts`` makes them."""

    def span(texts: list[str]) -> tuple[int, int]:
        start, end = (read_length(text, unit).ticks for text in texts)
        return start, end

    def box(one: Json) -> tuple[int, int, Span | None, Span | None]:
        y, z = (span(one[axis]) if axis in one else None for axis in ("y", "z"))
        return *span(one["x"]), y, z

    def ends(one: Json) -> Ends:
        left, right = (read_angle(text) for text in one.get("ends", ("0", "0")))
        return left, right

    def edges(one: Json) -> Edges:
        return read_edges(" ".join(one.get("edges", ())))

    return CutPlan(
        Status(document["status"]),
        Decimal(document["price"]),
        Decimal(document["bound"]),
        tuple(
            Layout(
                layout["stock"],
                layout["count"],
                tuple(PlacedPart(p["part"], *box(p), ends(p), edges(p)) for p in layout["parts"]),
                tuple(Leftover(*box(rest), rest.get("keep", False)) for rest in layout["leftover"]),
                tuple(_read_cut(cut, unit) for cut in layout.get("cuts", ())),
                tuple(
                    SawnPiece(int(number), fate.get("part", ""), fate.get("keep", False))
                    for number, fate in layout.get("pieces", {}).items()
                ),
                layout.get("number", 0),
            )
            for layout in document["layouts"]
        ),
        tuple(Unplaced(u["part"], u["quantity"], u["reason"]) for u in document["unplaced"]),
        document.get("rip_set_ups"),
        Ended(document["ended"]) if "ended" in document else None,
        proof=document.get("proof"),
    )
