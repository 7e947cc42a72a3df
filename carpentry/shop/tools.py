"""Tools owned, each with its limits as typed, and what plans may ask of them together."""

import re
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from decimal import Decimal
from enum import StrEnum
from functools import partial

from carpentry.cutting import MOST_WEDGE, SawLimits, read_saw_angle
from carpentry.language import (
    TICKS_PER_FOOT,
    CarpentryError,
    Faults,
    Unit,
    read_length,
)

MOST_TOOLS = 100
_FURTHEST = 100 * TICKS_PER_FOOT
_LONGEST = 200
_YES, _NO = ("yes", "true", "1"), ("no", "false", "0", "")
_CLAMPS = re.compile(r"(.+?)\s*[×x]\s*(\d+)")

Value = int | Decimal | bool | str


class Kind(StrEnum):
    """What a limit of a tool is: a length, degrees from square, yes or no, one of a few words, or
    words that are kept as typed."""

    LENGTH = "length"
    ANGLE = "angle"
    FLAG = "flag"
    CHOICE = "choice"
    WORDS = "words"


@dataclass(frozen=True)
class Limit:
    """One limit of a kind of tool: its ``heading`` on the screen, and a ``help`` of a few words."""

    name: str
    heading: str
    kind: Kind = Kind.LENGTH
    help: str = ""
    choices: tuple[str, ...] = ()


def _length(name: str, heading: str, help: str = "") -> Limit:
    return Limit(name, heading, Kind.LENGTH, help)


def _angle(name: str, heading: str, help: str = "") -> Limit:
    return Limit(name, heading, Kind.ANGLE, help)


def _flag(name: str, heading: str, help: str = "") -> Limit:
    return Limit(name, heading, Kind.FLAG, help)


def _words(name: str, heading: str, help: str = "") -> Limit:
    return Limit(name, heading, Kind.WORDS, help)


TILT = _angle("tilt", "Blade tilts up to", "degrees")
KINDS: Mapping[str, tuple[Limit, ...]] = {
    "miter saw": (
        _length("crosscut", "Crosscuts, square", "the widest board"),
        _length("crosscut at 45", "Crosscuts at 45°", "the widest board"),
        _length("depth", "Cuts, thick", "the deepest board"),
        _angle("miter", "Turns up to", "degrees, to both sides"),
        _angle("swing left", "Turns left up to", "where that is another"),
        _angle("swing right", "Turns right up to", "where that is another"),
        _angle("tilt", "Tilts up to", "degrees"),
        _angle("tilt left", "Tilts left up to", "where it is another"),
        _angle("tilt right", "Tilts right up to", "0 where it does not"),
        _length("fence left", "Fence left of the blade", "a stop beyond takes an extension"),
        _length("fence right", "Fence right of the blade"),
        _length("blade", "Blade"),
        _flag("turn over", "Wide boards are cut from both sides", "turned over, on one line"),
    ),
    "table saw": (
        _length("rip", "Fence up to", "from the blade"),
        _length("depth", "Cuts, thick"),
        _length("resaw", "Resaws up to", "in two passes; twice its depth where nothing is said"),
        TILT,
        Limit("tilt side", "Tilts to the", Kind.CHOICE, choices=("left", "right")),
        _flag("dado", "Dado set"),
    ),
    "circular saw": (
        _length("depth", "Cuts, thick"),
        TILT,
        _length("guide", "Guide, long", "a straight edge that it runs along"),
    ),
    "band saw": (_length("depth", "Resaws up to"), _length("throat", "Throat"), TILT),
    "jig saw": (_length("depth", "Cuts, thick"),),
    "hand saw": (),
    "sled": (_length("width", "Holds, wide", "crosscuts on the table saw"),),
    "wedge": (_angle("tilt", "Adds up to", "degrees beyond the stop of a saw"),),
    "straight edge": (_length("width", "Wide"), _length("length", "Long")),
    "planer": (_length("width", "Wide"), _length("thinnest", "Thinnest")),
    "jointer": (_length("width", "Wide"),),
    "router": (_length("collet", "Collet"), _words("bits", "Bits")),
    "router table": (
        _length("collet", "Collet"),
        _words("bits", "Bits", "such as straight 1/2, round over 3/8"),
        _length("pass", "Deepest pass"),
    ),
    "drill": (_words("bits", "Bits"), _flag("depth stop", "Depth stop")),
    "drill press": (
        _words("bits", "Bits"),
        _flag("depth stop", "Depth stop"),
        _length("throat", "Throat"),
    ),
    "clamps": (_words("clamps", "Clamps", "length × how many, such as 24 × 6"),),
    "plug cutters": (_words("sizes", "Sizes"),),
    "packers": (_words("sizes", "Sizes"),),
    "outfeed": (_length("length", "Long"),),
    "helper": (),
}
RESAWS_OVER = 2  # passes, the board turned over, of a table saw


@dataclass(frozen=True)
class Tool:
    """One tool: its ``kind``, a ``name`` where there is more than one of it, its limits as
    ``typed`` and as understood: lengths in ticks, angles in degrees."""

    kind: str
    name: str = ""
    typed: Mapping[str, str] = field(default_factory=dict)
    limits: Mapping[str, Value] = field(default_factory=dict)

    def __str__(self) -> str:
        return self.name or self.kind

    def length(self, name: str) -> int | None:
        """A length (ticks), ``None`` where nothing is said."""
        value = self.limits.get(name)
        return value if isinstance(value, int) and not isinstance(value, bool) else None

    def angle(self, *names: str) -> Decimal | None:
        """Degrees, of the first of several limits that says something."""
        found = (self.limits.get(name) for name in names)
        return next((one for one in found if isinstance(one, Decimal)), None)

    def has(self, name: str) -> bool:
        """Whether a yes or no is a yes."""
        return self.limits.get(name) is True


def read_tool(kind: str, name: str, typed: Mapping[str, str], unit: Unit) -> Tool:
    """A tool from what was typed. Raises ``CarpentryError`` with every problem, by limit."""
    faults = Faults()
    if kind not in KINDS:
        faults.add("kind", f"“{kind[:40]}” is no tool here: choose one of {', '.join(KINDS)}")
        faults.raise_any()
    if len(name) > 60:
        faults.add("name", "longer than 60 characters")
    known = {limit.name: limit for limit in KINDS[kind]}
    for place in typed:
        if place not in known:
            faults.add(place, f"a {kind} has no “{place[:40]}”")
    limits: dict[str, Value] = {}
    for place, limit in known.items():
        text = typed.get(place, "").strip()
        if text:
            nothing: Value = ""
            limits[place] = faults.attempt(place, partial(_read, limit, text, unit), nothing)
    faults.raise_any()
    return Tool(kind, name.strip(), dict(typed), limits)


def _read(limit: Limit, text: str, unit: Unit) -> Value:
    if len(text) > _LONGEST:
        raise CarpentryError(f"longer than {_LONGEST} characters")
    if limit.kind is Kind.LENGTH:
        return _read_limit(limit, text, unit)
    if limit.kind is Kind.ANGLE:
        return _read_degrees(limit, text)
    if limit.kind is Kind.FLAG:
        if text.lower() in _YES:
            return True
        if text.lower() in _NO:
            return False
        raise CarpentryError("write yes or no")
    if limit.choices and text.lower() not in limit.choices:
        raise CarpentryError(f"choose one of {', '.join(limit.choices)}")
    if limit.name == "clamps":
        for one in text.split(","):
            _read_clamps(one.strip(), unit)
    return text.lower() if limit.choices else text


def _read_limit(limit: Limit, text: str, unit: Unit) -> int:
    if text.startswith(("-", "−")):
        raise CarpentryError(f"{text} is less than nothing: write what the tool can do")
    ticks = read_length(text, unit).ticks
    if ticks > _FURTHEST:
        raise CarpentryError("no tool reaches further than 100 ft")
    if not ticks and not limit.name.startswith("fence"):
        raise CarpentryError("write what the tool can do, or nothing where it has no limit")
    return ticks


def _read_degrees(limit: Limit, text: str) -> Decimal:
    may_be_none = limit.name in ("tilt right", "tilt left", "swing left", "swing right")
    if may_be_none and text.rstrip("°") in ("0", "none"):
        return Decimal(0)
    return read_saw_angle(text)


def _read_clamps(text: str, unit: Unit) -> tuple[int, int]:
    """How long clamps are (ticks), and how many there are of them."""
    found = _CLAMPS.fullmatch(text)
    if not found:
        raise CarpentryError(f"“{text[:40]}” are no clamps: write length × how many, as in 24 × 6")
    return read_length(found[1], unit).ticks, int(found[2])


@dataclass(frozen=True)
class Tools:
    """All tools of a workshop, in the order in which they are chosen."""

    owned: Sequence[Tool] = ()

    def of(self, *kinds: str) -> list[Tool]:
        """Those of some kinds, kind by kind."""
        return [tool for kind in kinds for tool in self.owned if tool.kind == kind]

    @property
    def clamps(self) -> int | None:
        """How many clamps there are in all; ``None`` where nothing is said of any."""
        said = [str(tool.limits.get("clamps", "")) for tool in self.of("clamps")]
        found = [_CLAMPS.fullmatch(one.strip()) for text in said for one in text.split(",")]
        counts = [int(one[2]) for one in found if one]
        return sum(counts) if counts else None

    def first(self, kind: str) -> Tool | None:
        return next(iter(self.of(kind)), None)

    @property
    def limits(self) -> SawLimits:
        """What plans may ask for: what one saw or another can do, with the ways round its limits
        that are said to be taken (turned over, on a sled, along a guide, on a wedge). No limit
        where none of the saws that do it says one. Blades of miter and table saw tilt as far as the
        lesser of them; without a band saw the table saw resaws twice its depth."""
        return SawLimits(
            crosscut=self._crosscut(),
            rip_depth=_most(self.of("table saw"), "depth"),
            rip_width=self._rip_width(),
            resaw_depth=self._resaw(),
            tilt=self._tilt(),
            miter=self._miter(),
        )

    def _crosscut(self) -> int | None:
        wide = _most(self.of("miter saw"), "crosscut")
        if wide is None:
            return None
        over = (
            RESAWS_OVER * (saw.length("crosscut") or 0)
            for saw in self.of("miter saw")
            if saw.has("turn over")
        )
        sleds = (sled.length("width") or 0 for sled in self.of("sled"))
        guides = (saw.length("guide") or 0 for saw in self.of("circular saw"))
        return max([wide, *over, *sleds, *guides])

    def _rip_width(self) -> int | None:
        reach = _most(self.of("table saw"), "rip")
        guided = any(saw.length("guide") for saw in self.of("circular saw"))
        return None if guided else reach

    def _resaw(self) -> int | None:
        band = _most(self.of("band saw"), "depth")
        if band is not None:
            return band
        tables = self.of("table saw")
        told = [saw.length("resaw") or (saw.length("depth") or 0) * RESAWS_OVER for saw in tables]
        return max(told, default=0) or None

    def _tilt(self) -> Decimal | None:
        most = [furthest_tilt(saw) for saw in self.of("table saw", "miter saw")]
        least = min((one for one in most if one is not None), default=None)
        return None if least is None else least + self.wedge

    def _miter(self) -> Decimal | None:
        if self.of("circular saw"):  # along a line, at any angle
            return None
        most = [furthest_swing(saw) for saw in self.of("miter saw")]
        least = max((one for one in most if one is not None), default=None)
        return None if least is None else least + self.wedge

    @property
    def wedge(self) -> Decimal:
        """Degrees that a wedge adds to what a saw can do, 0 where there is none."""
        angles = (one.angle("tilt") or Decimal(MOST_WEDGE) for one in self.of("wedge"))
        return max(angles, default=Decimal(0))


def furthest_tilt(saw: Tool) -> Decimal | None:
    """How far a blade tilts to the side to which it tilts furthest."""
    return _furthest(saw, "tilt")


def furthest_swing(saw: Tool) -> Decimal | None:
    """How far a miter saw turns to the side to which it turns furthest."""
    return _furthest(saw, "miter", "swing")


def _furthest(saw: Tool, both: str, side: str = "tilt") -> Decimal | None:
    sides = [saw.angle(f"{side} {way}", both) for way in ("left", "right")]
    if any(one is None for one in sides):
        return saw.angle(both)
    return max(one for one in sides if one is not None)


def _most(tools: Iterable[Tool], name: str) -> int | None:
    return max((one for tool in tools if (one := tool.length(name)) is not None), default=None)


STARTERS: Sequence[tuple[str, Mapping[str, str]]] = (
    (
        "miter saw",
        {
            "crosscut": "12",
            "depth": "3 1/2",
            "miter": "50",
            "tilt": "45",
            "tilt right": "0",
            "fence left": "20",
            "fence right": "20",
        },
    ),
    ("table saw", {"depth": "3", "resaw": "3", "tilt": "45", "tilt side": "left"}),
    ("circular saw", {"depth": "2 3/8", "tilt": "45"}),
    ("jig saw", {"depth": "2 1/2"}),
    ("hand saw", {}),
    ("drill", {}),
)


def starter_tools() -> Tools:
    """A few common tools to start from, with typical limits (inches)."""
    return Tools([read_tool(kind, "", typed, Unit.INCH) for kind, typed in STARTERS])
