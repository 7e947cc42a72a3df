"""Boards on hand as JSON documents (``grain-tally/rack@1``)."""

from dataclasses import fields

from carpentry.language import CarpentryError, Reader, Unit, parse_json
from carpentry.lumber import NO_OWN, Lexicon, OwnStocks
from carpentry.lumber.rack import MAX_BOARDS, BoardFields, MeasuredBoard, read_board

RACK_FORMAT = "grain-tally/rack@1"
_FIELDS = tuple(field.name for field in fields(BoardFields))


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
