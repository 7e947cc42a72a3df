"""A stand: four legs, rails round them, shelves and a top. Drawn as it stands."""

from collections.abc import Iterator, Sequence
from itertools import pairwise

from carpentry.design.runs import RunFields
from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Joint,
    Lying,
    Row,
    Span,
    Vector,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import RIGHT, UP
from carpentry.design.shapes.shape import Made, Shape

BACK: Vector = (0.0, 1.0, 0.0)
FRONT: Vector = (0.0, -1.0, 0.0)
_FLUSH, _SET_IN = "flush", "set in"


class Stand(Shape):
    """Rails set in run between the legs, flush with their outer faces; flush ones run outside of
    them, the long ones full, the short ones between. Shelves are places of the top edge of more
    such rails. The height is over all, the top boards included."""

    name = "stand"
    heading = "Stand"
    help = "legs, rails, shelves and a top"
    caution = (
        "What it is to carry is not checked here: full barrels and pots are heavy, and "
        "load-bearing work follows local codes."
    )
    asks = (
        Ask("length", Asks.LENGTH, "Length, outside"),
        Ask("width", Asks.LENGTH, "Width, outside"),
        Ask("height", Asks.LENGTH, "Height, over all"),
        Ask("leg stock", Asks.STOCK, "Stock of the legs"),
        Ask("stock", Asks.STOCK, "Stock of the rails"),
        Ask("rails", Asks.CHOICE, "Rails", _SET_IN, (_FLUSH, _SET_IN)),
        Ask("shelves at", Asks.LENGTHS, "Shelves at (top edge), from the floor", open=True),
        Ask("top", Asks.STOCK, "Stock of the top", open=True),
        Ask("top gap", Asks.LENGTH, "Gap of the top, about", "1/8 in"),
    )

    def write(self, given: Given) -> Written:
        has_top = bool(given["top"])
        legs = "{height} - thickness of {top}" if has_top else "{height}"
        stock, levels = given["stock"], 1 + len(given.several("shelves at"))
        if given.choice("rails") == _SET_IN:
            long, short = "{length} - 2 * width of {leg}", "{width} - 2 * thickness of {leg}"
            joints = [
                Joint(f"{4 * levels}", "{long} end to {leg} edge, 2 pocket screws"),
                Joint(f"{4 * levels}", "{short} end to {leg}, 2 pocket screws"),
            ]
        else:
            long, short = "{length}", "{width} - 2 * thickness of {long}"
            joints = [
                Joint(f"{4 * levels}", "{long} to {leg}, 2 screws"),
                Joint(f"{4 * levels}", "{short} to {leg} edge, 2 screws"),
            ]
        rows = [
            Row("leg", "leg", given["leg stock"], "4", legs),
            Row("long", "long rail", stock, f"{2 * levels}", long),
            Row("short", "short rail", stock, f"{2 * levels}", short),
        ]
        runs: list[RunFields] = []
        if has_top:
            rows.append(Row("top", "top board", given["top"], "count of {top boards}", "{width}"))
            joints.append(Joint("2 * count of {top boards}", "{top} to {long} edge, 2 screws"))
            ends = {"first": "item", "last": "item", "part": "top"}
            runs.append(
                RunFields("top boards", "{length}", "width of {top}", "gap", "{top gap}", **ends)
            )
        return Written(rows, joints, (), runs)

    def lie(self, made: Made) -> Sequence[Lying]:
        length, width = made.length("{length}"), made.length("{width}")
        set_in = made.given.choice("rails") == _SET_IN
        wide, deep = made.width_of("leg"), made.thickness_of("leg")
        thick = 0 if set_in else made.thickness_of("long")
        if 2 * (wide + thick) >= length:
            raise refuse("length", "leaves nothing between the legs")
        if 2 * (deep + thick) >= width:
            raise refuse("width", "leaves nothing between the legs")
        top = made.length_of("leg")
        levels = [top, *(made.length(text) for text in made.given.several("shelves at"))]
        self._check_levels(levels, made.width_of("long"), top)
        found = list(self._legs(made, length, width, thick))
        for level in levels:
            found += self._rails(made, level, length, width)
        return [*found, *self._top(made, width, top)]

    def spans(self, made: Made) -> Sequence[Span]:
        thick = 0.0 if made.given.choice("rails") == _SET_IN else made.thickness_of("long")
        beside = thick + made.width_of("leg")
        length = made.length("{length}")
        levels = [made.length_of("leg"), *map(made.length, made.given.several("shelves at"))]
        return [
            Span("front", "across", (beside, 0, 0), (length - beside, 0, 0)),
            *(Span("front", "up", (0, 0, 0), (0, 0, level)) for level in levels),
        ]

    @staticmethod
    def _check_levels(levels: Sequence[float], high: float, top: float) -> None:
        name = "height" if len(levels) == 1 else "shelves at"
        ordered = sorted(levels)
        if ordered[0] < high or ordered[-1] > top:
            raise refuse(name, "is where no rail fits on the legs")
        for below, above in pairwise(ordered):
            if above - below < high:
                raise refuse(name, "has two rails in one place")

    @staticmethod
    def _legs(made: Made, length: float, width: float, thick: float) -> Iterator[Lying]:
        """Legs stand with their width along the length of the stand; their faces look out."""
        wide, deep = made.width_of("leg"), made.thickness_of("leg")
        for x in (thick, length - thick - wide):
            for y in (thick, width - thick - deep):
                yield Lying("leg", (x, y, 0), UP, RIGHT)

    @staticmethod
    def _rails(made: Made, level: float, length: float, width: float) -> Iterator[Lying]:
        """Rails of a level stand on edge, their top edge at it."""
        long, short = made.thickness_of("long"), made.thickness_of("short")
        below = level - made.width_of("long")
        beside = (length - made.length_of("long")) / 2
        yield Lying("long", (beside, long, below), RIGHT, UP)
        yield Lying("long", (beside, width, below), RIGHT, UP)
        begins = (width - made.length_of("short")) / 2
        yield Lying("short", (0, begins, below), BACK, UP)
        yield Lying("short", (length - short, begins, below), BACK, UP)

    @staticmethod
    def _top(made: Made, width: float, top: float) -> Iterator[Lying]:
        if not made.given["top"]:
            return
        for place in made.laid("top boards").run.places:
            at = float(place / made.per)
            yield Lying("top", (at + made.width_of("top"), 0, top), BACK, (-1.0, 0.0, 0.0))
