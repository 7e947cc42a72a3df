"""What a workshop has, as JSON documents: boards on hand (``grain-tally/rack@1``), and tools."""

from dataclasses import fields
from decimal import Decimal

from carpentry.cutting import SawLimits, read_saw_angle
from carpentry.language import CarpentryError, Reader, Unit, parse_json
from carpentry.lumber import NO_OWN, Lexicon, OwnStocks
from carpentry.lumber.rack import MAX_BOARDS, BoardFields, MeasuredBoard, read_board

RACK_FORMAT = "grain-tally/rack@1"
_FIELDS = tuple(field.name for field in fields(BoardFields))
_TOOLS = (
    *("miter saw", "table saw", "circular saw", "jig saw", "band saw", "planer", "jointer"),
    *("router", "router table", "drill", "drill press", "clamps", "sled", "outfeed", "helper"),
    *("plug cutters", "packers"),
)


def read_rack_file(text: str | bytes, own: OwnStocks = NO_OWN) -> list[MeasuredBoard]:
    """Boards on hand from JSON; ``own`` are materials of one's own.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = Reader(parse_json(text))
    if reader.text("format", RACK_FORMAT) != RACK_FORMAT:
        reader.fault("format", f"must be {RACK_FORMAT}")
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    boards: list[MeasuredBoard] = []
    for item in reader.items("boards", most=MAX_BOARDS, required=False):
        typed = BoardFields(**{name: item.text(name, "") for name in _FIELDS})
        item.refuse_unknown()
        try:
            boards.append(read_board(typed, Lexicon(unit, own)))
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
    reader.refuse_unknown()
    reader.raise_problems()
    return boards


def read_tools_file(text: str | bytes) -> SawLimits:
    """What the saws among a workshop's tools can do, from JSON: a table saw's ``rip``, ``depth``
    and ``tilt``, a miter saw's ``crosscut``, ``tilt`` and ``miter``, a band saw's ``depth``; no
    limit where nothing is said. Where two saws tilt, the blade tilts as far as the lesser of them;
    without a band saw the table saw resaws twice its depth, the board turned over.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = Reader(parse_json(text))
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    tools = reader.inside("tools") if reader.has("tools") else reader
    owned = {name: tools.inside(name) for name in _TOOLS if tools.has(name)}
    tools.refuse_unknown()

    def length(tool: str, name: str) -> int | None:
        one = owned.get(tool)
        return one.ticks(name, unit, least=1) if one and one.has(name) else None

    def angle(tool: str, name: str) -> Decimal | None:
        one = owned.get(tool)
        if one is None or not one.has(name):
            return None
        try:
            return read_saw_angle(one.text(name))
        except CarpentryError as error:
            one.fault(name, error.problems[0].message)
            return None

    depth, resaw = length("table saw", "depth"), length("band saw", "depth")
    tilts = [angle(saw, "tilt") for saw in ("table saw", "miter saw")]
    limits = SawLimits(
        crosscut=length("miter saw", "crosscut"),
        rip_depth=depth,
        rip_width=length("table saw", "rip"),
        resaw_depth=resaw if resaw is not None else depth and 2 * depth,
        tilt=min((tilt for tilt in tilts if tilt is not None), default=None),
        miter=angle("miter saw", "miter"),
    )
    reader.raise_problems()
    return limits
