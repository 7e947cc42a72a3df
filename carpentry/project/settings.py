"""How a project measures and saws."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import StrEnum
from functools import partial

from carpentry.buying import read_money
from carpentry.cutting import Extra, Order, SawLimits, read_saw_angle
from carpentry.errors import CarpentryError, Faults
from carpentry.length import TICKS_PER_FOOT, TICKS_PER_INCH, Length, Notation, Unit, read_length
from carpentry.project.keeping import read_keep_rules
from carpentry.sizes import NO_OWN, OwnStocks, StockName

MAX_COPIES = 1_000
MAX_SPARE = 100
SETTING_LENGTHS = (
    *("kerf", "trim_start", "trim_end", "keep_from"),
    *("extra_length", "extra_width", "extra_thickness", "eased"),
    *("keep_width", "saw_crosscut", "saw_rip_depth", "saw_rip_width", "saw_resaw_depth"),
)
SAW_LENGTHS = tuple(name for name in SETTING_LENGTHS if name.startswith("saw_"))
SAW_ANGLES = ("saw_tilt", "saw_miter")

_MOST = {
    "kerf": (TICKS_PER_INCH, "no saw takes more than an inch"),
    "trim_start": (4 * TICKS_PER_FOOT, "a trim is at most 4 ft"),
    "trim_end": (4 * TICKS_PER_FOOT, "a trim is at most 4 ft"),
    "keep_from": (20 * TICKS_PER_FOOT, "a leftover worth keeping is at most 20 ft"),
    "keep_width": (TICKS_PER_FOOT, "a strip worth keeping is at most a foot wide"),
    **{
        f"saw_{name}": (10 * TICKS_PER_FOOT, "no saw reaches further than 10 ft")
        for name in ("crosscut", "rip_depth", "rip_width", "resaw_depth")
    },
    "eased": (TICKS_PER_INCH, "at most an inch is ripped off an edge"),
    "extra_length": (4 * TICKS_PER_FOOT, "at most 4 ft are added to a length"),
    "extra_width": (TICKS_PER_INCH, "at most an inch is planed off"),
    "extra_thickness": (TICKS_PER_INCH, "at most an inch is planed off"),
}
_SPARE = re.compile(r"(\d+)\s*(%?)")


class RackUse(StrEnum):
    """Whether boards on hand are used: when that lowers what must be bought, or first of all."""

    NEVER = "never"
    SAVING = "saving"
    ALWAYS = "always"


@dataclass(frozen=True)
class SettingFields:
    """Settings exactly as they were typed."""

    unit: str = "in"
    notation: str = "1/32"
    kerf: str = "1/8"
    trim_start: str = "1/2"
    trim_end: str = "0"
    copies: int = 1
    rip: bool = False
    resaw: bool = True
    own_stock: bool = False
    order: str = Order.EITHER.value
    share_angled_cuts: bool = False
    extra_length: str = "0"
    extra_width: str = "0"
    extra_thickness: str = "0"
    eased: str = "0"
    keep_from: str = "12"
    keep_from_of: str = ""
    keep_width: str = "1 1/2"
    saw_crosscut: str = "12"
    saw_rip_depth: str = "3"
    saw_rip_width: str = ""
    saw_resaw_depth: str = "3"
    saw_tilt: str = "45"
    saw_miter: str = ""
    spare: str = "0"
    rack: str = "never"
    budget: str = ""
    sells_for: str = ""

    @classmethod
    def usual(cls, unit: Unit) -> "SettingFields":
        """What a file has that does not say otherwise."""
        if unit is Unit.INCH:
            return cls()
        return cls(
            unit=unit.value,
            notation="mm",
            kerf="3",
            trim_start="10",
            keep_from="300",
            keep_width="40",
            saw_crosscut="305",
            saw_rip_depth="76",
            saw_resaw_depth="76",
        )

    @classmethod
    def new(cls, unit: Unit) -> "SettingFields":
        """What a new project has."""
        return replace(cls.usual(unit), share_angled_cuts=True)


@dataclass(frozen=True)
class Spare:
    """Boards to buy beyond those that are cut, of every size: so many, or so many percent."""

    boards: int = 0
    percent: int = 0

    def of(self, count: int) -> int:
        """The spare boards for ``count`` that are cut, rounded up."""
        return self.boards + -(-count * self.percent // 100) if count else 0


@dataclass(frozen=True)
class Settings:
    r"""Settings as understood. Lengths are exact; ``copies`` is how many are built; ``rip`` whether
    parts may be ripped from other sizes unless they say otherwise, in which ``order`` of work;
    whether what may be ripped may be ``resaw``\ n, too, and comes from its ``own_stock`` alone;
    ``saw`` is what the saws can do; strips are worth keeping from ``keep_width`` on;
    leftovers are worth keeping from ``keep_from`` on, of some stocks as ``kept`` says; ``eased`` is
    ripped off either edge of a board before strips are. ``budget`` is for all copies, ``sells_for``
    is what one could sell for."""

    fields: SettingFields
    unit: Unit
    notation: Notation
    kerf: Length
    trim_start: Length
    trim_end: Length
    keep_from: Length
    extra_length: Length
    extra_width: Length
    extra_thickness: Length
    eased: Length
    keep_width: Length
    saw: SawLimits
    copies: int
    rip: bool
    resaw: bool
    own_stock: bool
    order: Order
    share_angled_cuts: bool
    spare: Spare
    rack: RackUse
    kept: Mapping[StockName, Length]
    budget: Decimal | None
    sells_for: Decimal | None

    def length(self, name: str) -> int | None:
        """Ticks of one of ``SETTING_LENGTHS``; ``None`` for a limit that there is not."""
        if name in SAW_LENGTHS:
            limit: int | None = getattr(self.saw, name.removeprefix("saw_"))
            return limit
        read: Length = getattr(self, name)
        return read.ticks

    def keep_from_for(self, stock: StockName) -> int:
        """Ticks from which on a leftover of a stock is worth keeping."""
        return self.kept.get(stock, self.keep_from).ticks

    @property
    def extra(self) -> Extra:
        """What parts take beyond their finished size unless they say otherwise."""
        return Extra(self.extra_length.ticks, self.extra_width.ticks, self.extra_thickness.ticks)


def _length(fields: SettingFields, unit: Unit, place: str) -> Length:
    most, refused = _MOST[place]
    typed = getattr(fields, place)
    if place in SAW_LENGTHS and not typed.strip():
        return Length(0, "")
    read = read_length(typed, unit)
    if place in SAW_LENGTHS and not read.ticks:
        raise CarpentryError("write what the saw can do, or nothing where it has no limit")
    if read.ticks > most:
        raise CarpentryError(refused)
    return read


def _saw(lengths: Mapping[str, Length], angles: Mapping[str, Decimal | None]) -> SawLimits:
    """The limits of the saws, ``None`` where nothing was typed."""
    crosscut, rip_depth, rip_width, resaw_depth = (
        lengths[name].ticks or None for name in SAW_LENGTHS
    )
    return SawLimits(
        crosscut, rip_depth, rip_width, resaw_depth, *(angles[name] for name in SAW_ANGLES)
    )


def _spare(text: str) -> Spare:
    found = _SPARE.fullmatch(text.strip() or "0")
    if not found or int(found[1]) > MAX_SPARE:
        raise CarpentryError("write spare boards of each size, such as 1, or a share, such as 10 %")
    return Spare(percent=int(found[1])) if found[2] else Spare(boards=int(found[1]))


def _saw_angle(text: str) -> Decimal | None:
    return read_saw_angle(text) if text.strip() else None


def _money(text: str) -> Decimal | None:
    return read_money(text) if text.strip() else None


def _notation(text: str, unit: Unit) -> Notation:
    if text not in [n.value for n in Notation]:
        raise CarpentryError("is no way of writing lengths")
    if (text == Notation.MM.value) != (unit is Unit.MM):
        raise CarpentryError("goes with the other unit")
    return Notation(text)


def _copies(copies: int) -> int:
    if not 1 <= copies <= MAX_COPIES:
        raise CarpentryError(f"build from 1 to {MAX_COPIES:,} copies")
    return copies


def _order(text: str) -> Order:
    if text not in [order.value for order in Order]:
        raise CarpentryError(f"choose one of {', '.join(order.value for order in Order)}")
    return Order(text)


def _rack(text: str) -> RackUse:
    if text not in list(RackUse):
        raise CarpentryError(f"choose one of {', '.join(RackUse)}")
    return RackUse(text)


def read_settings(fields: SettingFields, own: OwnStocks = NO_OWN) -> Settings:
    """Settings from what was typed; ``own`` are materials of one's own. Raises ``CarpentryError``
    with every problem, by field."""
    try:
        unit = Unit(fields.unit)
    except ValueError as error:
        raise CarpentryError("choose inches or millimetres", "unit") from error
    faults = Faults()
    notation = faults.attempt("notation", lambda: _notation(fields.notation, unit), Notation.MM)
    lengths = {
        place: faults.attempt(place, partial(_length, fields, unit, place), Length(0, ""))
        for place in SETTING_LENGTHS
    }
    copies = faults.attempt("copies", lambda: _copies(fields.copies), 1)
    order = faults.attempt("order", lambda: _order(fields.order), Order.EITHER)
    spare = faults.attempt("spare", lambda: _spare(fields.spare), Spare())
    rack = faults.attempt("rack", lambda: _rack(fields.rack), RackUse.NEVER)
    kept: dict[StockName, Length] = {}
    kept = faults.attempt(
        "keep_from_of", lambda: read_keep_rules(fields.keep_from_of, unit, own), kept
    )
    budget, sells_for = (
        faults.attempt(place, partial(_money, getattr(fields, place)), None)
        for place in ("budget", "sells_for")
    )
    angles: dict[str, Decimal | None] = {
        place: faults.attempt(place, partial(_saw_angle, getattr(fields, place)), None)
        for place in SAW_ANGLES
    }
    faults.raise_any()
    saw = _saw(lengths, angles)
    for name in SAW_LENGTHS:
        del lengths[name]
    return Settings(
        fields=fields,
        saw=saw,
        unit=unit,
        notation=notation,
        copies=copies,
        rip=fields.rip,
        resaw=fields.resaw,
        own_stock=fields.own_stock,
        order=order,
        share_angled_cuts=fields.share_angled_cuts,
        spare=spare,
        rack=rack,
        kept=kept,
        budget=budget,
        sells_for=sells_for,
        **lengths,
    )
