"""A row: boards side by side on rails. Drawn standing, the boards to the front."""

from collections.abc import Sequence

from carpentry.design.runs import ENDS, RunFields
from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Joint,
    Lying,
    Row,
    Span,
    Work,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import LEFT, RIGHT, UP
from carpentry.design.shapes.shape import Made, Shape

_NAILED, _LOOSE, _GROOVED = "nailed", "loose", "in a groove"


class BoardRow(Shape):
    """Boards with equal gaps along a length, on rails that run it: nailed on, loose, or in grooves.
    Rails at both ends of the boards lie flush with them, others are shared out between."""

    name = "row"
    heading = "Boards in a row"
    help = "boards with equal gaps, on rails"
    asks = (
        Ask("along", Asks.LENGTH, "Along"),
        Ask("gap", Asks.LENGTH, "Gap, about", open=True),
        Ask("count", Asks.COUNT, "How many", open=True),
        Ask("ends", Asks.CHOICE, "At the ends", "gap", ENDS),
        Ask("stock", Asks.STOCK, "Stock of the boards"),
        Ask("length", Asks.LENGTH, "Length of a board"),
        Ask("rails", Asks.COUNT, "Rails", "2"),
        Ask("rail stock", Asks.STOCK, "Stock of the rails", "2x4"),
        Ask("held", Asks.CHOICE, "Boards are", _NAILED, (_NAILED, _LOOSE, _GROOVED)),
    )

    def write(self, given: Given) -> Written:
        if bool(given["gap"]) == bool(given["count"]):
            raise refuse("gap", "or the count is said, one of them")
        way, figure = ("count", "{count}") if given["count"] else ("gap", "{gap}")
        ends = given.choice("ends")
        run = RunFields(
            *("boards", "{along}", "width of {board}", way, figure),
            first=ends,
            last=ends,
            part="board",
        )
        rows = [Row("board", "board", given["stock"], "count of {boards}", "{length}")]
        joints: list[Joint] = []
        work: list[Work] = []
        if given.count("rails"):
            rows.append(Row("rail", "rail", given["rail stock"], "{rails}", "{along}"))
            if given.choice("held") == _NAILED:
                joints.append(Joint("count of {boards} * {rails}", "{board} to {rail}, 2 screws"))
            if given.choice("held") == _GROOVED:
                sizes = {"width": "thickness of {board}", "depth": "thickness of {rail} / 4"}
                work.append(Work("groove", "rail", "along one edge", sizes))
        return Written(rows, joints, work, [run])

    def lie(self, made: Made) -> Sequence[Lying]:
        laid, length = made.laid("boards"), made.length("{length}")
        rails, front = self._rails(made, length)
        boards = [
            Lying("board", (float(p / made.per) + made.width_of("board"), front, 0), UP, LEFT)
            for p in laid.run.places
        ]
        return [*boards, *rails]

    def spans(self, made: Made) -> Sequence[Span]:
        run = made.laid("boards").run
        ends = [
            (float(place / made.per), float(place / made.per) + made.width_of("board"))
            for place in run.places[:2]
        ]
        found = [Span("front", "across", (ends[0][0], 0, 0), (ends[0][1], 0, 0))]
        if len(ends) == 2:
            found.append(Span("front", "across", (ends[0][1], 0, 0), (ends[1][0], 0, 0)))
        found.append(Span("front", "up", (0, 0, 0), (0, 0, made.length_of("board"))))
        return found

    @staticmethod
    def _rails(made: Made, length: float) -> tuple[list[Lying], float]:
        """The rails, and where the backs of the boards are before or in them."""
        if not made.given.count("rails"):
            return [], 0.0
        count, high, thick = made.count("rails"), made.width_of("rail"), made.thickness_of("rail")
        if made.given.choice("held") != _NAILED:
            if count != 2:
                raise refuse("rails", "are two, one at each end, where boards stand in them")
            deep = thick / 4
            places = [deep - high, length - deep]
            return _level(places), (made.thickness_of("board") - thick) / 2
        if count * high > length:
            raise refuse("rails", f"{count} of them do not fit on the length of a board")
        step = (length - high) / (count - 1) if count > 1 else 0
        first = 0 if count > 1 else (length - high) / 2
        return _level([first + n * step for n in range(count)]), -thick


def _level(places: Sequence[float]) -> list[Lying]:
    return [Lying("rail", (0, 0, at), RIGHT, UP) for at in places]
