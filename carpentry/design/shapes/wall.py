"""A wall: rows of siding, the last one ripped to what is left. Drawn from outside."""

from collections.abc import Sequence
from fractions import Fraction

from carpentry.design.runs import RunFields
from carpentry.design.runs.siding import exposure_of, lay_rows
from carpentry.design.shapes.asked import (
    Ask,
    Asks,
    Given,
    Lying,
    Row,
    Span,
    Work,
    Written,
    refuse,
)
from carpentry.design.shapes.frame import RIGHT, UP
from carpentry.design.shapes.shape import Made, Shape

_BUTT, _LAP, _SHIPLAP = "butt", "lap", "shiplap"
_OVERLAP = {_BUTT: "0 in", _LAP: "1 in", _SHIPLAP: "3/8 in"}


class Wall(Shape):
    """A row shows its width less the lap, and the gap that is left to move. Where the last one were
    narrower than ``least``, the first and the last are made equal. Shiplap takes half the thickness
    off each of two edges. Common practice, no source."""

    name = "wall"
    heading = "Wall"
    help = "rows of siding, the last one ripped"
    asks = (
        Ask("width", Asks.LENGTH, "Width of the wall"),
        Ask("height", Asks.LENGTH, "Height of the wall"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("joint", Asks.CHOICE, "Joint", _BUTT, (_BUTT, _LAP, _SHIPLAP)),
        Ask("lap", Asks.LENGTH, "Lap", open=True),
        Ask("gap", Asks.LENGTH, "Gap to move", "1/8 in"),
        Ask("over left", Asks.LENGTH, "Over the left end", "0 in"),
        Ask("over right", Asks.LENGTH, "Over the right end", "0 in"),
        Ask("least", Asks.LENGTH, "Narrowest row", "1 in"),
    )

    def write(self, given: Given) -> Written:
        joint = given.choice("joint")
        overlap = _OVERLAP[joint] if joint == _BUTT or not given["lap"] else "{lap}"
        stock, length = given["stock"], "{width} + {over left} + {over right}"
        rows, ripped = self._rows(given)
        whole = rows - ripped
        found: list[Row] = []
        count = "count of {rows}"
        if whole:
            quantity = f"{count} - {ripped}" if ripped else count
            found.append(Row("board", "siding board", stock, quantity, length))
        if ripped:
            width = "last of {rows}" if whole else "{height} / count of {rows}"
            name = "first and last row" if ripped == 2 else "last row"
            if not whole:
                width, name = ("{height}", "row") if ripped == 1 else (width, name)
            last = Row("last", name, stock, f"{ripped}", length, width=width, rip="yes")
            found.append(last)
        figures = {"overlap": overlap}
        if not whole:
            return Written(found, figures=figures)
        asked = ("{height}", "width of {board}", "lap", "{overlap}", "{gap}")
        run = RunFields("rows", *asked, least="{least}", part="board")
        return Written(found, (), self._work(joint, found), [run], figures)

    @staticmethod
    def _rows(given: Given) -> tuple[int, int]:
        """How many rows there are, and how many of them are ripped."""
        values, width = given.values, Fraction(given.section("stock").width)
        usual = {_BUTT: Fraction(0), _LAP: Fraction(8128), _SHIPLAP: Fraction(3 * 1016)}
        joint = given.choice("joint")
        if not values["height"]:
            raise refuse("height", "of 0 makes no wall")
        lap = usual[joint] if joint == _BUTT else values.get("lap", usual[joint])
        laid = lay_rows(
            values["height"], width, exposure_of(width, lap, values["gap"]), values["least"]
        )
        if laid.is_shifted:
            return laid.rows, 2
        return laid.rows, int(laid.last != width)

    @staticmethod
    def _work(joint: str, rows: Sequence[Row]) -> list[Work]:
        if joint != _SHIPLAP:
            return []
        found = []
        for row in rows:
            sizes = {"width": "{overlap}", "depth": f"thickness of {{{row.key}}} / 2"}
            for place in ("along the top edge, on the face", "along the bottom edge, on the back"):
                found.append(Work("rabbet", row.key, place, sizes))
        return found

    def lie(self, made: Made) -> Sequence[Lying]:
        """Rows from the foot up; lapped ones lie over one another by turns."""
        left = -made.length("{over left}")
        if "board" not in made.parts:
            return [Lying("last", (left, made.thickness_of("last"), 0), RIGHT, UP)]
        rows = made.laid("rows").rows
        assert rows is not None
        thick = made.thickness_of("board")
        lapped = made.given.choice("joint") == _LAP
        narrow = {0, rows.rows - 1} if rows.is_shifted else {rows.rows - 1}
        found = []
        for row, place in enumerate(rows.places):
            key = "last" if row in narrow and "last" in made.parts else "board"
            out = thick if lapped and row % 2 else 0.0
            found.append(Lying(key, (left, thick - out, float(place / made.per)), RIGHT, UP))
        return found

    def spans(self, made: Made) -> Sequence[Span]:
        left, wide = made.length("{over left}"), made.length("{width}")
        found = [Span("front", "across", (0, 0, 0), (wide, 0, 0))] if left else []
        if "board" not in made.parts:
            return found
        rows = made.laid("rows").rows
        assert rows is not None
        top = made.length("{height}")
        places = [float(place / made.per) for place in rows.places]
        found.append(Span("front", "up", (0, 0, places[-1]), (0, 0, top)))
        if len(places) > 2:
            found.append(Span("front", "up", (0, 0, places[1]), (0, 0, places[2])))
        return found

    def notices(self, made: Made) -> Sequence[str]:
        """What it is nailed to is another's: its nails are typed."""
        return (
            "Nothing holds it yet: type its nails, two for each board at every stud, such as 24 A "
            "to B, 2 nails.",
        )
