"""Which tool makes a cut, and the way round where the cut is beyond what it can do at once.

The rules are common practice, no source: a board a little too wide is raised on a scrap, a wider
one is cut from both sides, then comes a sled or a guided saw; an angle past the stop takes a wedge
for the rest; what is deep is cut in two passes; a short piece is held down.
"""

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum

from carpentry.cutting import MOST_WEDGE
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.cautions import SHORT_PIECE, SHORT_RIP
from carpentry.shop.lying import NOTHING
from carpentry.shop.tools import RESAWS_OVER, Tool, Tools

LINE_SAWS = ("circular saw", "hand saw", "jig saw")  # that are led along a line

RAISED_BY = TICKS_PER_INCH  # at the most
_FULL = Decimal(45)


class Way(StrEnum):
    """How a cut is made that a tool cannot make at once."""

    FLIP = "flip"
    RAISE = "raise"
    WEDGE = "wedge"
    SLED = "sled"
    GUIDE = "guide"
    HOLD_DOWN = "hold-down"
    PASSES = "passes"
    ANOTHER = "another tool"


@dataclass(frozen=True)
class Crosscut:
    """A crosscut that is wanted of a piece so ``wide`` and ``thick``, so ``long`` on the shorter
    side that is held and so long as a ``whole``, where that is told (ticks); ``swing`` and ``lean``
    as the piece lies, in degrees."""

    wide: int
    thick: int
    long: int
    swing: Decimal = NOTHING
    lean: Decimal = NOTHING
    whole: int | None = None

    @property
    def is_short(self) -> bool:
        """Whether it is not safe in the hand: a short piece, or a stub on the other side."""
        return self.long < SHORT_PIECE or (self.whole is not None and self.whole < SHORT_RIP)


@dataclass(frozen=True)
class Rip:
    """A rip, or a resaw, of a piece so ``deep`` where the blade goes through it and so ``long``
    along the fence, ``reach`` from it (ticks), with a blade that leans by degrees."""

    deep: int
    long: int
    reach: int
    lean: Decimal = NOTHING
    resaw: bool = False


@dataclass(frozen=True)
class Chosen:
    """A tool, ``None`` where none that is owned will do, and the way: degrees of the ``wedge``, so
    much as the piece is ``raised`` (ticks), how the tool itself stands (``swing``, ``lean``), and
    what ``would`` do where there is no tool."""

    tool: Tool | None
    way: Way | None = None
    wedge: Decimal = NOTHING
    raised: int = 0
    swing: Decimal = NOTHING
    lean: Decimal = NOTHING
    passes: int = 1
    would: str = ""

    @property
    def is_along_a_line(self) -> bool:
        """Whether it is cut along a line that is marked, no stop and no fence set: a wedge changes
        how far that is, and what is held on a sled does not touch it."""
        if self.tool is None or self.way in (Way.GUIDE, Way.ANOTHER, Way.WEDGE):
            return True
        held = self.way is Way.HOLD_DOWN and self.tool.kind != "miter saw"
        return held or self.tool.kind in LINE_SAWS


def for_crosscut(tools: Tools, wanted: Crosscut) -> Chosen:
    """The tool for a crosscut."""
    found = next(_crosscuts(tools, wanted), None)
    if found is None:
        return Chosen(
            None,
            Way.ANOTHER,
            swing=wanted.swing,
            lean=wanted.lean,
            would=_would_cross(tools, wanted),
        )
    if found.way is None and wanted.is_short:
        return replace(found, way=Way.HOLD_DOWN)
    return found


def for_shape(tools: Tools, thick: int) -> Chosen:
    """The tool for what is sawn along more lines than one: a notch, an outline."""
    for saw in tools.of("jig saw", "band saw"):
        if _deep_enough(saw, thick):
            return Chosen(saw)
    by_hand = tools.first("hand saw")
    if by_hand is not None:
        return Chosen(by_hand)
    return Chosen(None, Way.ANOTHER, would="a jig saw that cuts so deep, or a hand saw,")


def _crosscuts(tools: Tools, wanted: Crosscut) -> Iterator[Chosen]:
    """The ways to make a crosscut, the best first."""
    plain = Chosen(None, swing=wanted.swing, lean=wanted.lean)
    saws = [saw for saw in tools.of("miter saw") if _deep_enough(saw, wanted.thick)]
    for saw in saws:
        if _stands(saw, wanted) and wanted.wide <= _crosses(saw, wanted.swing):
            yield replace(plain, tool=saw)
    for saw in saws:
        beyond = wanted.wide - _crosses(saw, wanted.swing)
        if _stands(saw, wanted) and 0 < beyond <= RAISED_BY:
            yield replace(plain, tool=saw, way=Way.RAISE, raised=_raised(saw, wanted.wide))
    square = not wanted.swing and not wanted.lean
    for saw in tools.of("miter saw") if square else ():
        deep = _deep_enough(saw, -(-wanted.thick // RESAWS_OVER))
        if deep and 0 < wanted.wide <= RESAWS_OVER * _crosses(saw, NOTHING):
            yield replace(plain, tool=saw, way=Way.FLIP)
    if square:
        yield from _on_the_sled(tools, wanted)
    for saw in saws:
        if wanted.wide <= _crosses(saw, wanted.swing):
            yield from _wedged(saw, wanted)
    yield from _along_a_line(tools, plain, wanted.thick)


def _along_a_line(tools: Tools, plain: Chosen, deep: int) -> Iterator[Chosen]:
    """What is sawn with a saw in the hand: along a guide at once, square from two faces, with a
    hand saw whatever it is."""
    for saw in tools.of("circular saw"):
        tilts = saw.angle("tilt") is None or abs(plain.lean) <= (saw.angle("tilt") or 0)
        if tilts and _deep_enough(saw, deep, plain.lean):
            yield replace(plain, tool=saw, way=Way.GUIDE)
    for saw in tools.of("circular saw") if not plain.lean else ():
        if _deep_enough(saw, -(-deep // RESAWS_OVER)):
            yield replace(plain, tool=saw, way=Way.PASSES, passes=RESAWS_OVER)
    for saw in tools.of("hand saw"):
        yield replace(plain, tool=saw)


def _on_the_sled(tools: Tools, wanted: Crosscut) -> Iterator[Chosen]:
    sleds = [sled for sled in tools.of("sled") if wanted.wide <= (sled.length("width") or 0)]
    for saw in tools.of("table saw") if sleds else ():
        if _deep_enough(saw, wanted.thick):
            yield Chosen(saw, Way.SLED)


def _crosses(saw: Tool, swing: Decimal) -> int:
    """The widest board that a miter saw cuts when it is turned by so much: what is said of 45°, in
    between in proportion; else what its square cut gives, times the cosine."""
    square = saw.length("crosscut")
    if square is None:
        return 10**9
    turned = saw.length("crosscut at 45")
    if not swing:
        return square
    if turned is None:
        return int(square * math.cos(math.radians(abs(swing))))
    share = float(min(abs(swing), _FULL) / _FULL)
    return int(square + share * (turned - square))


def _deep_enough(saw: Tool, thick: int, lean: Decimal = NOTHING) -> bool:
    depth = saw.length("depth")
    return depth is None or thick / math.cos(math.radians(lean)) <= depth + 0.5


def swings_to(saw: Tool, swing: Decimal) -> Decimal | None:
    """How far it turns to the side to which it has to; ``None`` for as far as one likes."""
    return saw.angle("swing left" if swing > 0 else "swing right", "miter")


def tilts_to(saw: Tool, lean: Decimal) -> Decimal | None:
    """How far a miter saw tilts to the side to which it has to."""
    return saw.angle("tilt right" if lean > 0 else "tilt left", "tilt")


def _stands(saw: Tool, wanted: Crosscut) -> bool:
    turns, tilts = swings_to(saw, wanted.swing), tilts_to(saw, wanted.lean)
    return (not wanted.swing or turns is None or abs(wanted.swing) <= turns) and (
        not wanted.lean or tilts is None or abs(wanted.lean) <= tilts
    )


def _wedged(saw: Tool, wanted: Crosscut) -> Iterator[Chosen]:
    """A miter saw at its stop, the piece on a wedge for the rest."""
    for angle, most in (
        (wanted.swing, swings_to(saw, wanted.swing)),
        (wanted.lean, tilts_to(saw, wanted.lean)),
    ):
        if not angle or most is None or not most or abs(angle) <= most:
            continue
        rest = abs(angle) - most
        if rest <= MOST_WEDGE:
            own = most if angle > 0 else -most
            turned = angle is wanted.swing
            yield Chosen(
                saw,
                Way.WEDGE,
                wedge=rest,
                swing=own if turned else wanted.swing,
                lean=wanted.lean if turned else own,
            )


def _raised(saw: Tool, wide: int) -> int:
    """How much a piece is raised so that a blade that is let down in one place cuts so wide: the
    nearer its middle, the longer the chord of the circle that it is. Half an inch to try where
    nothing is said of the blade, or where it is drawn along."""
    eighth, radius = TICKS_PER_INCH // 8, (saw.length("blade") or 0) / 2
    half = (saw.length("crosscut") or 0) / 2
    if wide / 2 >= radius or half >= radius:
        return TICKS_PER_INCH // 2
    middle = math.sqrt(radius**2 - half**2)
    lift = middle - math.sqrt(radius**2 - (wide / 2) ** 2)
    return eighth * math.ceil(lift / eighth)


def _would_cross(tools: Tools, wanted: Crosscut) -> str:
    """What would make a crosscut that no saw makes that is owned."""
    saws = tools.of("miter saw")
    if saws and not any(_deep_enough(saw, wanted.thick) for saw in saws):
        return "a saw that cuts so deep, or a hand saw along the line,"
    if saws and all(wanted.wide > _crosses(saw, wanted.swing) for saw in saws):
        return "a saw that crosses so wide a piece, a circular saw along a guide, or a hand saw"
    if wanted.lean:
        return f"a saw that tilts to {abs(wanted.lean):f}°, or a hand saw along the line,"
    if wanted.swing:
        turns = f"a saw that turns to {abs(wanted.swing):f}°"
        return f"{turns}, a circular saw along the line, or a hand saw"
    return "a miter saw, a sled on a table saw, a circular saw along a guide, or a hand saw"


def for_rip(tools: Tools, wanted: Rip) -> Chosen:
    """The tool for a rip or a resaw."""
    found = next(_resaws(tools, wanted) if wanted.resaw else _rips(tools, wanted), None)
    if found is None:
        return Chosen(None, Way.ANOTHER, lean=wanted.lean, would=_would_rip(wanted))
    if found.tool is not None and found.tool.kind in LINE_SAWS:
        return found
    if wanted.long < SHORT_RIP:
        return replace(found, way=Way.HOLD_DOWN)
    if found.way is None and wanted.reach > wanted.long:
        return replace(found, way=Way.SLED)
    return found


def _rips(tools: Tools, wanted: Rip) -> Iterator[Chosen]:
    plain = Chosen(None, lean=wanted.lean)
    saws = [saw for saw in tools.of("table saw") if _reaches(saw, wanted)]
    for saw in saws:
        if _tilts(saw, wanted.lean) and _deep_enough(saw, wanted.deep, wanted.lean):
            yield replace(plain, tool=saw)
    for saw in tools.of("band saw"):
        throat = saw.length("throat")
        if (
            not wanted.lean
            and _deep_enough(saw, wanted.deep)
            and (throat is None or wanted.reach <= throat)
        ):
            yield replace(plain, tool=saw)
    for saw in saws:
        if not wanted.lean and _deep_enough(saw, -(-wanted.deep // RESAWS_OVER)):
            yield replace(plain, tool=saw, way=Way.PASSES, passes=RESAWS_OVER)
    for saw in saws:
        most = saw.angle("tilt")
        if most and 0 < wanted.lean - most <= MOST_WEDGE and _deep_enough(saw, wanted.deep, most):
            yield replace(plain, tool=saw, way=Way.WEDGE, wedge=wanted.lean - most, lean=most)
    yield from _along_a_line(tools, plain, wanted.deep)


def _resaws(tools: Tools, wanted: Rip) -> Iterator[Chosen]:
    for saw in tools.of("band saw"):
        if _deep_enough(saw, wanted.deep):
            yield Chosen(saw)
    for saw in tools.of("table saw"):
        depth = saw.length("depth")
        if depth is None or wanted.deep <= depth:
            yield Chosen(saw)
        elif wanted.deep <= max(saw.length("resaw") or 0, RESAWS_OVER * depth):
            yield Chosen(saw, Way.PASSES, passes=RESAWS_OVER)
    for saw in tools.of("hand saw"):
        yield Chosen(saw)


def _reaches(saw: Tool, wanted: Rip) -> bool:
    most = saw.length("rip")
    return most is None or wanted.reach <= most


def _tilts(saw: Tool, lean: Decimal) -> bool:
    most = saw.angle("tilt")
    return not lean or most is None or abs(lean) <= most


def _would_rip(wanted: Rip) -> str:
    if wanted.resaw:
        return "a band saw that is high enough, or a hand saw along the line,"
    if wanted.lean:
        return f"a saw that tilts to {abs(wanted.lean):f}°, or a hand saw along the line,"
    return "a circular saw along a guide, a table saw with a longer fence, or a hand saw"
