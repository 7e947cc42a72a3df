"""A frame: two posts, two rails, and middles between them. Drawn standing, face to the front."""

from collections.abc import Iterator, Sequence

from carpentry.design.runs import RunFields
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
from carpentry.design.shapes.held import end_on_edge, half_lapped
from carpentry.design.shapes.shape import Made, Shape

RIGHT, UP, DOWN, LEFT = (1.0, 0.0, 0.0), (0.0, 0.0, 1.0), (0.0, 0.0, -1.0), (-1.0, 0.0, 0.0)
_RAILS, _POSTS, _MITERED, _LAPPED = "rails between", "posts between", "mitered", "half-lapped"


class Frame(Shape):
    """Rails between posts are shorter by twice the post's actual face, and the other way round;
    mitered and half-lapped ones run full. Common practice, no source."""

    name = "frame"
    heading = "Frame"
    help = "posts and rails, and middles between them"
    asks = (
        Ask("width", Asks.LENGTH, "Width, outside"),
        Ask("height", Asks.LENGTH, "Height, outside"),
        Ask("stock", Asks.STOCK, "Stock"),
        Ask("corners", Asks.CHOICE, "Corners", _RAILS, (_RAILS, _POSTS, _MITERED, _LAPPED)),
        Ask("middles", Asks.COUNT, "Middles", "0"),
        Ask("middles run", Asks.CHOICE, "Middles run", "upright", ("upright", "level")),
    )

    def write(self, given: Given) -> Written:
        corners = given.choice("corners")
        post, rail = "{height}", "{width}"
        if corners == _RAILS:
            rail = "{width} - 2 * width of {post}"
        elif corners == _POSTS:
            post = "{height} - 2 * width of {rail}"
        mitered = "45 45" if corners == _MITERED else ""
        stock = given["stock"]
        rows = [
            Row("post", "post", stock, "2", post, ends=mitered),
            Row("rail", "rail", stock, "2", rail, ends=mitered),
        ]
        joints, work = [self._corner(given, corners)], []
        if corners == _LAPPED:
            work = [_lap("post", "rail"), _lap("rail", "post")]
        runs: list[RunFields] = []
        if given.count("middles"):
            upright = given.choice("middles run") == "upright"
            inside = (
                "{height} - 2 * width of {rail}" if upright else "{width} - 2 * width of {post}"
            )
            along = "{width} - 2 * width of {post}" if upright else "{height} - 2 * width of {rail}"
            rows.append(Row("middle", "middle", stock, "count of {middles}", inside))
            into = "rail" if upright else "post"
            joints.append(end_on_edge("2 * count of {middles}", given, "stock", "middle", into))
            asked = (along, "width of {middle}", "count", "{middles}")
            runs.append(RunFields("middles", *asked, part="middle"))
        return Written(rows, joints, work, runs)

    @staticmethod
    def _corner(given: Given, corners: str) -> Joint:
        if corners == _MITERED:
            return Joint("4", "{rail} end to {post} end, 1 spline, glued")
        if corners == _LAPPED:
            return half_lapped("4", given, "stock", "rail", "post")
        end, other = ("rail", "post") if corners == _RAILS else ("post", "rail")
        return end_on_edge("4", given, "stock", end, other)

    def lie(self, made: Made) -> Sequence[Lying]:
        width, height = made.length("{width}"), made.length("{height}")
        face, rail = made.width_of("post"), made.width_of("rail")
        if 2 * face >= width:
            raise refuse("width", "leaves nothing between the posts")
        if 2 * rail >= height:
            raise refuse("height", "leaves nothing between the rails")
        return [*self._corner_pieces(made, width, height), *self._middles(made, face, rail)]

    def spans(self, made: Made) -> Sequence[Span]:
        face, rail = made.width_of("post"), made.width_of("rail")
        width, height = made.length("{width}"), made.length("{height}")
        found = [
            Span("front", "across", (face, 0, 0), (width - face, 0, 0)),
            Span("front", "up", (0, 0, rail), (0, 0, height - rail)),
        ]
        if made.given.count("middles"):
            upright = made.given.choice("middles run") == "upright"
            first = float(made.laid("middles").run.places[0] / made.per)
            if upright:
                found.append(Span("front", "across", (face, 0, 0), (face + first, 0, 0)))
            else:
                found.append(Span("front", "up", (0, 0, rail), (0, 0, rail + first)))
        return found

    @staticmethod
    def _corner_pieces(made: Made, width: float, height: float) -> Iterator[Lying]:
        """Posts and rails, each with its outer edge out: the long points of miters lie there."""
        post, rail = made.length_of("post"), made.length_of("rail")
        beside, below = (width - rail) / 2, (height - post) / 2
        yield Lying("post", (made.width_of("post"), 0, below), UP, LEFT)
        yield Lying("post", (width - made.width_of("post"), 0, height - below), DOWN, RIGHT)
        yield Lying("rail", (width - beside, 0, made.width_of("rail")), LEFT, DOWN)
        yield Lying("rail", (beside, 0, height - made.width_of("rail")), RIGHT, UP)

    @staticmethod
    def _middles(made: Made, face: float, rail: float) -> Iterator[Lying]:
        if not made.given.count("middles"):
            return
        upright = made.given.choice("middles run") == "upright"
        for place in made.laid("middles").run.places:
            at = float(place / made.per)
            if upright:
                yield Lying("middle", (face + at + made.width_of("middle"), 0, rail), UP, LEFT)
            else:
                yield Lying("middle", (face, 0, rail + at), RIGHT, UP)


def _lap(key: str, other: str) -> Work:
    """Half laps take half the measured thickness. Common practice, no source."""
    sizes = {"depth": f"thickness of {{{key}}} / 2", "length": f"width of {{{other}}}"}
    return Work("half lap", key, "both ends", sizes)
