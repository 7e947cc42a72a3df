"""Tools as JSON documents (``grain-tally/tools@1``): by kind, each with its limits as text."""

from collections.abc import Iterable

from carpentry.language import CarpentryError, Json, Reader, Unit, parse_json
from carpentry.shop.tools import KINDS, MOST_TOOLS, Kind, Tool, Tools, read_tool

TOOLS_FORMAT = "grain-tally/tools@1"
_BIT = ("kind", "diameter", "height")


def read_tools_file(text: str | bytes) -> Tools:
    """The tools of a workshop from JSON, under ``tools`` or bare. A kind of which there is more
    than one has a list. Raises ``CarpentryError`` with every problem and its path."""
    reader = Reader(parse_json(text))
    reader.choice("format", [TOOLS_FORMAT], TOOLS_FORMAT)
    unit = Unit(reader.choice("units", [u.value for u in Unit], Unit.INCH.value))
    tools = reader.inside("tools") if reader.has("tools") else reader
    found = read_tools(tools, unit)
    if tools is not reader:
        reader.refuse_unknown()
    reader.raise_problems()
    return found


def read_tools(reader: Reader, unit: Unit) -> Tools:
    """The tools that an object names by their kinds; its problems are noted under their paths."""
    owned: list[Tool] = []
    for kind in KINDS:
        if not reader.has(kind):
            continue
        for item in reader.one_or_more(kind, most=MOST_TOOLS):
            try:
                owned.append(read_tool(kind, item.text("name", ""), _typed(item, kind), unit))
            except CarpentryError as error:
                for problem in error.problems:
                    item.fault(problem.place, problem.message)
            item.refuse_unknown()
    reader.refuse_unknown()
    return Tools(owned)


def _typed(item: Reader, kind: str) -> dict[str, str]:
    """The limits of a tool as text."""
    typed: dict[str, str] = {}
    for limit in KINDS[kind]:
        if not item.has(limit.name):
            continue
        if limit.kind is Kind.FLAG:
            typed[limit.name] = "yes" if item.flag(limit.name, False) else "no"
        elif limit.name == "bits" and item.is_list(limit.name):
            typed[limit.name] = ", ".join(_bits(item))
        else:
            typed[limit.name] = item.text_or_whole(limit.name)
    return typed


def _bits(item: Reader) -> Iterable[str]:
    for bit in item.items("bits", most=MOST_TOOLS):
        yield " ".join(filter(None, (bit.text_or_whole(name) for name in _BIT)))
        bit.refuse_unknown()


def tools_document(tools: Tools, unit: Unit = Unit.INCH) -> Json:
    """Tools as a JSON document that ``read_tools_file`` takes back, with what was typed."""
    by_kind: dict[str, list[Json]] = {}
    for tool in tools.owned:
        flags = {limit.name for limit in KINDS[tool.kind] if limit.kind is Kind.FLAG}
        row: Json = {
            name: tool.has(name) if name in flags else text
            for name, text in tool.typed.items()
            if text
        }
        by_kind.setdefault(tool.kind, []).append(({"name": tool.name} if tool.name else {}) | row)
    return {
        "format": TOOLS_FORMAT,
        "units": unit.value,
        "tools": {kind: rows[0] if len(rows) == 1 else rows for kind, rows in by_kind.items()},
    }
