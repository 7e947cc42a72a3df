"""How a project measures and saws."""

import re
from collections.abc import Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from enum import Enum, StrEnum
from fractions import Fraction
from functools import partial
from typing import TypeVar

from carpentry.buying import read_money
from carpentry.cutting import Extra, Order, SawLimits, Spare, read_saw_angle
from carpentry.design.measures import Kind as ValueKind
from carpentry.design.measures import Value
from carpentry.hours.windows import USUAL_WINDOWS, week_of, write_week
from carpentry.language import (
    TICKS_PER_FOOT,
    TICKS_PER_INCH,
    CarpentryError,
    Faults,
    Length,
    Notation,
    Unit,
    check_typed,
    interchange,
    length_fields,
    read_length,
    typed,
    typed_fields,
)
from carpentry.lumber import NO_OWN, Lexicon, OwnStocks, StockName
from carpentry.project.days_settings import DAYS_SETTINGS, DaysSettings, read_days_settings
from carpentry.project.keeping import read_keep_rules

E = TypeVar("E", bound=Enum)
MAX_COPIES = 1_000
MAX_SPARE = 100
_FOUR_FEET, _REACH = 4 * TICKS_PER_FOOT, 10 * TICKS_PER_FOOT
_AT_THE_SAW, _SAWS = "At the saw", "What your saws can do"
_SHOWN, _DAYS = "On paper and screen", "Days"
_PLANED = "at most an inch is planed off"
_TOO_FAR = "no saw reaches further than 10 ft"
_SPARE = re.compile(r"(\d+)\s*(%?)")


class RackUse(StrEnum):
    """Whether boards on hand are used: when that lowers what must be bought, or first of all."""

    NEVER = "never"
    SAVING = "saving"
    ALWAYS = "always"


@dataclass(frozen=True)
class SettingFields:
    """Settings exactly as they were typed."""

    copies: int = typed("Build how many", 1)
    spare: str = typed("Spare boards of each size", "0", help="against culls: 1, or 10 %", most=10)
    budget: str = typed("Budget for all of it", most=20)
    sells_for: str = typed("One could sell for", most=20)
    rack: str = typed(
        "Boards from the rack",
        "never",
        most=10,
        choices=tuple(RackUse),
        words=("leave them alone", "use them when that saves buying", "use them first, always"),
    )
    keep_from: str = typed(
        "Keep leftovers from",
        "12",
        largest=20 * TICKS_PER_FOOT,
        refused="a leftover worth keeping is at most 20 ft",
    )
    keep_width: str = typed(
        "Keep strips, wide from",
        "1 1/2",
        largest=TICKS_PER_FOOT,
        refused="a strip worth keeping is at most a foot wide",
    )
    keep_from_of: str = typed("Of some stock from", help="such as 1x4 cedar 36, 2x2 8", most=500)
    kerf: str = typed(
        "Kerf",
        "1/8",
        largest=TICKS_PER_INCH,
        refused="no saw takes more than an inch",
        group=_AT_THE_SAW,
    )
    trim_start: str = typed(
        "Trim, first end",
        "1/2",
        largest=_FOUR_FEET,
        refused="a trim is at most 4 ft",
        group=_AT_THE_SAW,
    )
    trim_end: str = typed(
        "Trim, last end",
        "0",
        largest=_FOUR_FEET,
        refused="a trim is at most 4 ft",
        group=_AT_THE_SAW,
    )
    share_angled_cuts: bool = typed(
        "Neighbours with the same end angle share one cut", False, group=_AT_THE_SAW
    )
    extra_length: str = typed(
        "Add to every length",
        "0",
        help="trimmed after machining, or on site",
        largest=_FOUR_FEET,
        refused="at most 4 ft are added to a length",
        group=_AT_THE_SAW,
    )
    rip: bool = typed("Parts may be ripped from other sizes", False, group=_AT_THE_SAW)
    resaw: bool = typed("… and sawn thinner", True, group=_AT_THE_SAW)
    own_stock: bool = typed("… but only from the stock they name", False, group=_AT_THE_SAW)
    order: str = typed(
        "Order of work on a board",
        Order.EITHER.value,
        most=20,
        choices=tuple(one.value for one in Order),
        words=("rip first, full length", "crosscut first, then rip", "whichever wastes least"),
        group=_AT_THE_SAW,
    )
    extra_width: str = typed(
        "Add to a sawn width",
        "0",
        help="planed off",
        largest=TICKS_PER_INCH,
        refused=_PLANED,
        group=_AT_THE_SAW,
    )
    extra_thickness: str = typed(
        "Add to a sawn thickness",
        "0",
        help="planed off",
        largest=TICKS_PER_INCH,
        refused=_PLANED,
        group=_AT_THE_SAW,
    )
    eased: str = typed(
        "Rip off rounded edges",
        "0",
        help="each edge, kerf included",
        largest=TICKS_PER_INCH,
        refused="at most an inch is ripped off an edge",
        group=_AT_THE_SAW,
    )
    saw_crosscut: str = typed(
        "Crosscuts up to",
        "12",
        help="the widest board",
        largest=_REACH,
        refused=_TOO_FAR,
        group=_SAWS,
    )
    saw_rip_depth: str = typed(
        "Rips up to",
        "3",
        help="thick, in one pass or two",
        largest=_REACH,
        refused=_TOO_FAR,
        group=_SAWS,
    )
    saw_rip_width: str = typed(
        "Fence up to", help="from the blade", largest=_REACH, refused=_TOO_FAR, group=_SAWS
    )
    saw_resaw_depth: str = typed(
        "Resaws up to",
        "3",
        help="wide, in one pass or two",
        largest=_REACH,
        refused=_TOO_FAR,
        group=_SAWS,
    )
    saw_tilt: str = typed("Blade tilts up to", "45", help="degrees", most=20, group=_SAWS)
    saw_miter: str = typed("Miter turns up to", help="degrees", most=20, group=_SAWS)
    unit: str = typed(
        "Bare numbers are",
        "in",
        most=2,
        choices=tuple(Unit),
        words=("inches", "millimetres"),
        group=_SHOWN,
    )
    notation: str = typed(
        "Lengths shown as",
        "1/32",
        most=8,
        choices=tuple(Notation),
        words=(
            *("fractions to 1/16", "fractions to 1/32", "fractions to 1/64"),
            *("decimal inches", "feet and inches", "millimetres"),
        ),
        group=_SHOWN,
    )

    days_wanted: str = typed(
        "Wanted by", help="such as 2027-06-10 20:00; a day alone is its end", most=40, group=_DAYS
    )
    days_begin: str = typed("Not before", help="such as 2027-06-07", most=40, group=_DAYS)
    days_hours: str = typed("Free hours", write_week(week_of(USUAL_WINDOWS)), most=300, group=_DAYS)
    days_off: str = typed(
        "Days off", help="2027-06-09, 2027-07-01 to 2027-07-14", most=2000, group=_DAYS
    )
    days_more: str = typed(
        "Days with other hours",
        help="2027-06-09 8:00-12:00, 2027-06-11 17:00-22:00",
        most=2000,
        group=_DAYS,
    )
    days_zone: str = typed(
        "Time zone", help="such as America/Denver; else that of the screen", most=60, group=_DAYS
    )
    days_clamps: str = typed("Clamps you own", help="nothing: those in Tools", most=4, group=_DAYS)
    days_helper: str = typed(
        "Hours of a helper", help="sat 9:00-12:00; else when you are there", most=300, group=_DAYS
    )
    days_daylight: str = typed("Daylight", "8:00-17:00", most=20, group=_DAYS)
    days_pace: str = typed(
        "Your pace", "100 %", help="150 %: half as long again as is usual", most=8, group=_DAYS
    )

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


SETTING_LENGTHS = length_fields(SettingFields)
SAW_LENGTHS = tuple(name for name in SETTING_LENGTHS if name.startswith("saw_"))
SAW_ANGLES = ("saw_tilt", "saw_miter")
SAW = (*SAW_LENGTHS, *SAW_ANGLES)  # what tools say, where there are any
PROJECT_LENGTHS = tuple(name for name in SETTING_LENGTHS if name not in SAW_LENGTHS)


def saw_fields(saw: SawLimits, unit: Unit) -> dict[str, str]:
    """Limits of saws as they are typed into settings, empty where there is none."""
    lengths = {name: getattr(saw, name.removeprefix("saw_")) for name in SAW_LENGTHS}
    angles = {name: getattr(saw, name.removeprefix("saw_")) for name in SAW_ANGLES}
    return {
        **{name: "" if one is None else interchange(one, unit) for name, one in lengths.items()},
        **{name: "" if one is None else f"{one:f}" for name, one in angles.items()},
    }


@dataclass(frozen=True)
class Settings:
    r"""Settings as understood. Lengths are exact; ``copies`` is how many are built; ``rip`` whether
    parts may be ripped from other sizes unless they say otherwise, in which ``order`` of work;
    whether what may be ripped may be ``resaw``\ n, too, and comes from its ``own_stock`` alone;
    ``saw`` is what the saws can do; strips are worth keeping from ``keep_width`` on;
    leftovers are worth keeping from ``keep_from`` on, of some stocks as ``kept`` says; ``eased`` is
    ripped off either edge of a board before strips are. ``budget`` is for all copies, ``sells_for``
    is what one could sell for; ``days`` says when there is time for it."""

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
    days: DaysSettings

    def length(self, name: str) -> int | None:
        """Ticks of one of ``SETTING_LENGTHS``; ``None`` for a limit that there is not."""
        if name in SAW_LENGTHS:
            limit: int | None = getattr(self.saw, name.removeprefix("saw_"))
            return limit
        read: Length = getattr(self, name)
        return read.ticks

    @property
    def usual_measures(self) -> Mapping[str, Value]:
        """What formulas know without a measure: what the saw takes, and what is cut off the ends of
        a board."""
        lengths = {
            "kerf": self.kerf,
            "first trim": self.trim_start,
            "last trim": self.trim_end,
        }
        return {
            name: Value(ValueKind.LENGTH, Fraction(length.ticks))
            for name, length in lengths.items()
        }

    def keep_from_for(self, stock: StockName) -> int:
        """Ticks from which on a leftover of a stock is worth keeping."""
        return self.kept.get(stock, self.keep_from).ticks

    @property
    def extra(self) -> Extra:
        """What parts take beyond their finished size unless they say otherwise."""
        return Extra(self.extra_length.ticks, self.extra_width.ticks, self.extra_thickness.ticks)


def _length(fields: SettingFields, unit: Unit, place: str) -> Length:
    way = typed_fields(SettingFields)[place]
    typed = getattr(fields, place)
    if place in SAW_LENGTHS and not typed.strip():
        return Length(0, "")
    read = read_length(typed, unit)
    if place in SAW_LENGTHS and not read.ticks:
        raise CarpentryError("write what the saw can do, or nothing where it has no limit")
    if way.largest is not None and read.ticks > way.largest:
        raise CarpentryError(way.refused)
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
    if text not in list(Notation):
        return Notation.MM  # told beside all other faults
    if (text == Notation.MM.value) != (unit is Unit.MM):
        raise CarpentryError("goes with the other unit")
    return Notation(text)


def _copies(copies: int) -> int:
    if not 1 <= copies <= MAX_COPIES:
        raise CarpentryError(f"build from 1 to {MAX_COPIES:,} copies")
    return copies


def _one_of(of: type[E], text: str, usual: E) -> E:
    """One of some words; those that are none are told beside all other faults."""
    return next((one for one in of if one.value == text.strip().lower()), usual)


def read_settings(fields: SettingFields, own: OwnStocks = NO_OWN) -> Settings:
    """Settings from what was typed; ``own`` are materials of one's own. Raises ``CarpentryError``
    with every problem, by field."""
    try:
        unit = Unit(fields.unit)
    except ValueError as error:
        raise CarpentryError("choose inches or millimetres", "unit") from error
    lexicon, faults = Lexicon(unit, own), Faults()
    check_typed(fields, faults)
    notation = faults.attempt("notation", lambda: _notation(fields.notation, unit), Notation.MM)
    lengths = {
        place: faults.attempt(place, partial(_length, fields, unit, place), Length(0, ""))
        for place in SETTING_LENGTHS
    }
    copies = faults.attempt("copies", lambda: _copies(fields.copies), 1)
    order = _one_of(Order, fields.order, Order.EITHER)
    spare = faults.attempt("spare", lambda: _spare(fields.spare), Spare())
    rack = _one_of(RackUse, fields.rack, RackUse.NEVER)
    kept: dict[StockName, Length] = {}
    kept = faults.attempt(
        "keep_from_of", lambda: read_keep_rules(fields.keep_from_of, lexicon), kept
    )
    budget, sells_for = (
        faults.attempt(place, partial(_money, getattr(fields, place)), None)
        for place in ("budget", "sells_for")
    )
    angles: dict[str, Decimal | None] = {
        place: faults.attempt(place, partial(_saw_angle, getattr(fields, place)), None)
        for place in SAW_ANGLES
    }
    days = read_days_settings(
        {name: getattr(fields, f"days_{name}") for name in DAYS_SETTINGS}, faults
    )
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
        days=days,
        **lengths,
    )
