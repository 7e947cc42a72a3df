"""Cut problems as JSON documents (``grain-tally/cut-problem@1``)."""

from dataclasses import asdict, replace
from decimal import Decimal

from carpentry.cutting.problem import (
    NO_EXTRA,
    NO_SPARE,
    CutPart,
    CutProblem,
    Extra,
    Order,
    SawLimits,
    Spare,
    StockPiece,
    sets_of,
    together_fault,
)
from carpentry.design.edges import SQUARE_EDGES, Edges, outermost_width, read_edges, wider_width
from carpentry.design.ends import SQUARE_ENDS, Ends, Measured, is_angled, outermost, read_angle
from carpentry.language import CarpentryError, Json, Reader, Unit, interchange, parse_json

FORMAT = "grain-tally/cut-problem@1"
MOST_PARTS = 10_000
MOST_STOCK = 1_000
MOST_FLAWS = 100
MOST_SPARE = 100  # boards of a length, or percent
SAW_LENGTHS = ("crosscut", "rip_depth", "rip_width", "resaw_depth")
SAW_ANGLES = ("tilt", "miter")
_NOT_YET = "is not planned yet"
_LATER_PROBLEM = ("edge_trim", "stages")
_LATER_PARTS = ("grain",)


def read_problem(text: str | bytes) -> CutProblem:
    """A cut problem from JSON.

    Raises ``CarpentryError`` with every problem and its path: unknown fields, fields that are not
    planned yet, wrong or missing values.
    """
    reader = Reader(parse_json(text))
    if reader.text("format", FORMAT) != FORMAT:
        reader.fault("format", f"must be {FORMAT}")
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    kerf = reader.ticks("kerf", unit, "0")
    trim = reader.inside("trim")
    trim_start = trim.ticks("start", unit, "0")
    trim_end = trim.ticks("end", unit, "0")
    trim.refuse_unknown()
    order = Order(reader.choice("order", [o.value for o in Order], Order.EITHER.value))
    share = reader.flag("share_angled_cuts", False)
    keep = reader.ticks("keep_offcut_from", unit, "0")
    owned_first = reader.flag("owned_first", False)
    eased = reader.ticks("eased", unit, "0")
    keep_width = reader.ticks("keep_offcut_width", unit, "0")
    saw = _saw(reader.inside("saw"), unit)
    spare = _spare(reader.inside("spare"))
    stock = [_stock(item, unit) for item in reader.items("stock", most=MOST_STOCK)]
    parts = [_part(item, unit) for item in reader.items("parts", most=MOST_PARTS)]
    reader.refuse(_LATER_PROBLEM, _NOT_YET)
    reader.refuse_unknown()
    _unlike_ids(reader, "stock", [piece.id for piece in stock])
    _unlike_ids(reader, "parts", [part.id for part in parts])
    for name, kept in sets_of(parts).items():
        if why := together_fault(kept):
            reader.fault("parts", f"“{name}” is not kept together: {why}")
    if sum(part.quantity for part in parts) > MOST_PARTS:
        reader.fault("parts", f"are more than {MOST_PARTS:,} in all")
    if not parts and not reader.problems:
        reader.fault("parts", "are none: there is nothing to plan")
    shortest = min((part.length for part in parts), default=0)
    if parts and kerf >= shortest > 0 and not reader.problems:
        reader.fault("kerf", "is wider than the shortest part is long")
    _sections(reader, stock, parts)
    _pins(reader, stock, parts)
    reader.raise_problems()
    return CutProblem(
        unit=unit,
        kerf=kerf,
        trim_start=trim_start,
        trim_end=trim_end,
        stock=tuple(stock),
        parts=tuple(parts),
        order=order,
        share_angled_cuts=share,
        keep_offcut_from=keep,
        owned_first=owned_first,
        eased=eased,
        keep_width=keep_width,
        saw=saw,
        spare=spare,
    )


def _spare(item: Reader) -> Spare:
    boards = item.whole("boards", 0, most=MOST_SPARE)
    spare = Spare(boards, item.whole("percent", 0, most=MOST_SPARE))
    item.refuse_unknown()
    return spare


def _saw(item: Reader, unit: Unit) -> SawLimits:
    """What the saw can do; without limit where nothing is said."""

    def length(name: str) -> int | None:
        return item.ticks(name, unit, least=1) if item.has(name) else None

    def angle(name: str) -> Decimal | None:
        typed = item.text(name, "")
        try:
            return read_saw_angle(typed) if typed else None
        except CarpentryError as error:
            item.fault(name, error.problems[0].message)
            return None

    crosscut, rip_depth, rip_width, resaw_depth = map(length, SAW_LENGTHS)
    limits = SawLimits(crosscut, rip_depth, rip_width, resaw_depth, *map(angle, SAW_ANGLES))
    item.refuse_unknown()
    return limits


def read_saw_angle(text: str) -> Decimal:
    """How far a saw tilts or turns from square, in degrees. Raises ``CarpentryError``."""
    angle = read_angle(text)
    if angle.bevel or angle.degrees < 0:
        raise CarpentryError(f"“{text.strip()}” is no angle of a saw: write degrees such as 45")
    return angle.degrees


def _sections(reader: Reader, stock: list[StockPiece], parts: list[CutPart]) -> None:
    """Sections are for all or for none: with some of them nobody knows what fits."""
    if not any(part.width or part.thickness for part in parts):
        if any(piece.width or piece.thickness for piece in stock):
            reader.fault("parts", "have no thickness and width, but the stock has")
        return
    sized: list[tuple[str, int, StockPiece | CutPart]] = []
    sized += [("stock", n, piece) for n, piece in enumerate(stock)]
    sized += [("parts", n, part) for n, part in enumerate(parts)]
    for name, number, one in sized:
        for field in ("thickness", "width"):
            if getattr(one, field) is None:
                reader.fault(f"{name}[{number}].{field}", "is missing: parts are to be ripped")


def _pins(reader: Reader, stock: list[StockPiece], parts: list[CutPart]) -> None:
    """Parts come from stock that there is."""
    known = {piece.id for piece in stock}
    for number, part in enumerate(parts):
        for name in part.on:
            if name not in known:
                reader.fault(f"parts[{number}].on", f"“{name}” is no stock of this problem")


def _stock(item: Reader, unit: Unit) -> StockPiece:
    piece = StockPiece(
        item.text("id"),
        item.ticks("length", unit, least=1),
        item.price("price"),
        item.whole("available", most=1_000_000) if item.has("available") else None,
        *_section(item, unit),
    )
    item.nothing("available")
    crook = item.ticks("crook", unit, "0")
    if piece.width is not None and crook >= piece.width:
        item.fault("crook", "is as much as the board is wide: nothing straight is left")
    elif crook and piece.width is None:
        item.fault("crook", "needs a thickness and a width")
    corner = item.ticks("corner", unit, "0")
    told = item.items("flaws", most=MOST_FLAWS, required=False)
    flaws = [_flaw(one, unit, piece.length) for one in told]
    keep = item.ticks("keep_offcut_from", unit) if item.has("keep_offcut_from") else None
    item.refuse_unknown()
    return replace(piece, flaws=tuple(sorted(flaws)), crook=crook, corner=corner, keep_from=keep)


def _flaw(item: Reader, unit: Unit, length: int) -> tuple[int, int]:
    start, end = item.ticks("from", unit, "0"), item.ticks("to", unit, least=1)
    item.refuse_unknown()
    if end <= start:
        item.fault("to", "must be beyond where the flaw begins")
    elif end > length:
        item.fault("to", "lies beyond the end of the stock")
    return start, end


def _section(item: Reader, unit: Unit) -> tuple[int | None, int | None]:
    thickness, width = (
        item.ticks(name, unit, least=1) if item.has(name) else None
        for name in ("thickness", "width")
    )
    return thickness, width


def _extra(item: Reader, unit: Unit) -> Extra:
    extra = Extra(*(item.ticks(name, unit, "0") for name in ("length", "width", "thickness")))
    item.refuse_unknown()
    return extra


def _ends(item: Reader) -> Ends:
    """Two angles as text, left and right; square where nothing is said."""
    texts = item.texts("ends")
    if not texts:
        return SQUARE_ENDS
    if len(texts) != 2:
        item.fault("ends", 'must be two angles, such as ["30", "-30"]')
        return SQUARE_ENDS
    try:
        left, right = (read_angle(text) for text in texts)
    except CarpentryError as error:
        item.fault("ends", error.problems[0].message)
        return SQUARE_ENDS
    return left, right


def _edges(item: Reader) -> Edges:
    """The bevels of two edges as text, left and right; square where nothing is said."""
    try:
        return read_edges(" ".join(item.texts("edges")))
    except CarpentryError as error:
        item.fault("edges", error.problems[0].message)
        return SQUARE_EDGES


def _with_bevels(item: Reader, part: CutPart) -> CutPart:
    """The part with its width between the outermost points."""
    if not is_angled(part.edges):
        return part
    if part.width is None or part.thickness is None:
        item.fault("edges", "need a thickness and a width")
        return part
    try:
        width = outermost_width(part.width, part.edges, part.thickness)
    except CarpentryError as error:
        item.fault("edges", error.problems[0].message)
        return part
    return replace(part, width=width)


def _measured_over_all(item: Reader, part: CutPart, measured: Measured) -> CutPart:
    """The part with its length between the outermost points."""
    if not is_angled(part.ends):
        return part
    for field, size, needed in (
        ("thickness", part.thickness, any(end.bevel for end in part.ends)),
        ("width", part.width, any(end.degrees and not end.bevel for end in part.ends)),
    ):
        if needed and size is None:
            item.fault(field, "is missing: an angled end needs it")
            return part
    try:
        whole = outermost(part.length, part.ends, measured, part.thickness or 0, part.width or 0)
    except CarpentryError as error:
        item.fault("ends", error.problems[0].message)
        return part
    return replace(part, length=whole)


def _part(item: Reader, unit: Unit) -> CutPart:
    ends = _ends(item)
    measured = Measured(item.choice("measured", [m.value for m in Measured], "long-long"))
    part = CutPart(
        item.text("id"),
        item.ticks("length", unit, least=1),
        item.whole("quantity", 1, least=1, most=MOST_PARTS),
        *_section(item, unit),
        item.flag("turn", True),
        _extra(item.inside("extra"), unit),
        ends,
        item.flag("clear", True),
        tuple(item.texts("on")),
        _edges(item),
        item.flag("show", False),
        item.flag("rip", True),
        item.flag("resaw", True),
        item.flag("whole", False),
        item.text("together", ""),
    )
    part = _with_bevels(item, part)
    part = _measured_over_all(item, part, measured)
    item.refuse(_LATER_PARTS, _NOT_YET)
    item.refuse_unknown()
    return part


def _unlike_ids(reader: Reader, name: str, ids: list[str]) -> None:
    seen: set[str] = set()
    for index, id_ in enumerate(ids):
        if id_ and id_ in seen:
            reader.fault(f"{name}[{index}].id", f"“{id_}” is there twice")
        seen.add(id_)


def problem_document(problem: CutProblem) -> Json:
    """A cut problem as the JSON document that reads back to it."""

    def written(ticks: int) -> str:
        return interchange(ticks, problem.unit)

    def section(one: StockPiece | CutPart) -> Json:
        width = one.width
        if isinstance(one, CutPart) and width is not None:
            width = wider_width(width, one.edges, one.thickness or 0)
        sizes = {"thickness": one.thickness, "width": width}
        return {name: written(size) for name, size in sizes.items() if size is not None}

    def bevels(part: CutPart) -> Json:
        edges = [f"{edge.degrees:f}" for edge in part.edges]
        return {"edges": edges} if is_angled(part.edges) else {}

    def extra(one: Extra) -> Json:
        sizes = {"length": one.length, "width": one.width, "thickness": one.thickness}
        return {"extra": {name: written(size) for name, size in sizes.items() if size}}

    def saw(limits: SawLimits) -> Json:
        lengths = {name: getattr(limits, name) for name in SAW_LENGTHS}
        angles = {name: getattr(limits, name) for name in SAW_ANGLES}
        told = {name: written(size) for name, size in lengths.items() if size is not None}
        return told | {name: f"{most:f}" for name, most in angles.items() if most is not None}

    def spare(one: Spare) -> Json:
        return {} if one == NO_SPARE else {"spare": asdict(one)}

    def flaw(span: tuple[int, int]) -> Json:
        return {"from": written(span[0]), "to": written(span[1])}

    return {
        "format": FORMAT,
        "units": problem.unit.value,
        "kerf": written(problem.kerf),
        "order": problem.order.value,
        "share_angled_cuts": problem.share_angled_cuts,
        "eased": written(problem.eased),
        "owned_first": problem.owned_first,
        "keep_offcut_from": written(problem.keep_offcut_from),
        "keep_offcut_width": written(problem.keep_width),
        "saw": saw(problem.saw),
        **spare(problem.spare),
        "trim": {"start": written(problem.trim_start), "end": written(problem.trim_end)},
        "stock": [
            {
                "id": piece.id,
                "length": written(piece.length),
                "price": str(piece.price),
                "available": piece.available,
            }
            | section(piece)
            | ({"flaws": [flaw(one) for one in piece.flaws]} if piece.flaws else {})
            | ({"crook": written(piece.crook)} if piece.crook else {})
            | ({"corner": written(piece.corner)} if piece.corner else {})
            | ({} if piece.keep_from is None else {"keep_offcut_from": written(piece.keep_from)})
            for piece in problem.stock
        ],
        "parts": [
            {"id": part.id, "length": written(part.length), "quantity": part.quantity}
            | section(part)
            | ({"ends": [str(end) for end in part.ends]} if is_angled(part.ends) else {})
            | bevels(part)
            | ({} if part.turn else {"turn": False})
            | ({} if part.clear else {"clear": False})
            | ({"show": True} if part.show else {})
            | ({} if part.rip else {"rip": False})
            | ({} if part.resaw else {"resaw": False})
            | ({"whole": True} if part.whole else {})
            | ({"together": part.together} if part.together else {})
            | ({"on": list(part.on)} if part.on else {})
            | (extra(part.extra) if part.extra != NO_EXTRA else {})
            for part in problem.parts
        ],
    }
