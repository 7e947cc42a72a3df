"""Cut plans as JSON documents (``grain-tally/cut-plan@1``)."""

from decimal import Decimal

from carpentry.cutting.plan import CutPlan, Layout, Leftover, PlacedPart, Span, Status, Unplaced
from carpentry.document import Json
from carpentry.edges import Edges, read_edges
from carpentry.ends import Ends, is_angled, read_angle
from carpentry.length import Unit, interchange, read_length

FORMAT = "grain-tally/cut-plan@1"


def plan_document(plan: CutPlan, unit: Unit, seconds: float | None = None) -> Json:
    """A plan as a JSON document: lengths as text in ``unit``, prices as plain decimals."""

    def span(start: int, end: int) -> list[str]:
        return [interchange(start, unit), interchange(end, unit)]

    def box(one: PlacedPart | Leftover) -> Json:
        spans = {"x": (one.start, one.end), "y": one.y, "z": one.z}
        written: Json = {axis: span(*along) for axis, along in spans.items() if along}
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
            }
            for layout in plan.layouts
        ],
        "unplaced": [
            {"part": u.part, "quantity": u.quantity, "reason": u.reason} for u in plan.unplaced
        ],
    }
    if seconds is not None:
        document["seconds"] = round(seconds, 3)
    return document


def read_plan(document: Json, unit: Unit) -> CutPlan:
    """A plan from a document that ``plan_document`` wrote, to the same ticks."""

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
                tuple(Leftover(*box(rest)) for rest in layout["leftover"]),
            )
            for layout in document["layouts"]
        ),
        tuple(Unplaced(u["part"], u["quantity"], u["reason"]) for u in document["unplaced"]),
    )
