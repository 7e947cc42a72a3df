"""What holds a project together: fasteners counted from its joints, and whatever else is bought by
name, in packs where the yard sells packs."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.buying.coating import Coat, millilitres, read_coat, surface, write_area
from carpentry.buying.fastener_kinds import KINDS, Kind
from carpentry.buying.fasteners import RECESS, Rules, Through, check_length, choose_length
from carpentry.buying.joints import (
    Item,
    Joint,
    hardware_key,
    read_each_line,
    read_item,
    read_joint,
    read_package,
)
from carpentry.buying.packages import Package
from carpentry.buying.rules import read_rules
from carpentry.design import EMPTY, Sheet
from carpentry.language import TICKS_PER_INCH, CarpentryError, Problem, Unit
from carpentry.project.packing import FoundPacks, HardwareLine, packed_line
from carpentry.project.passed import JoinedPart, contact, passed_by
from carpentry.project.settings import Settings

Key = tuple[str, int | None, bool]  # kind or name, length in ticks, whether it is a volume
PILOT = "drill pilot holes"


@dataclass(frozen=True)
class Fastened:
    """A joint with what was chosen for it: the fastener, empty for none, and its length (ticks),
    how many in all, what is wrong with it, and what to do for it."""

    text: str
    fastener: str
    length: int | None
    count: int
    warnings: tuple[str, ...]
    notes: tuple[str, ...] = ()


@dataclass(frozen=True)
class Hardware:
    """All that is not wood: its lines, the joints they come from, and what could not be read."""

    lines: tuple[HardwareLine, ...]
    joints: tuple[Fastened, ...]
    problems: tuple[Problem, ...]
    coated: int = 0  # square ticks, every coat's parts once

    @property
    def packs(self) -> int:
        """How many packs, tins and single things are bought."""
        return sum(count for line in self.lines for _, count in line.packs)

    @property
    def price(self) -> Decimal:
        """What the lines with a price cost together."""
        return sum((line.price or Decimal(0) for line in self.lines), Decimal(0))

    @property
    def left_out(self) -> int:
        """How many lines that were typed are not counted, because they cannot be."""
        return len(self.problems) + sum(not one.fastener for one in self.joints)

    @property
    def left_out_told(self) -> str:
        """That lines are not counted, in words; empty where all are."""
        if not self.left_out:
            return ""
        lines = "1 line" if self.left_out == 1 else f"{self.left_out} lines"
        return f"without {lines} of hardware that cannot be counted"

    @property
    def unpriced(self) -> int:
        return sum(line.price is None for line in self.lines)


@dataclass
class _Needs:
    names: dict[Key, str] = field(default_factory=dict)
    counts: dict[Key, int] = field(default_factory=dict)
    reasons: dict[Key, list[str]] = field(default_factory=dict)

    def add(self, key: Key, name: str, count: int, reason: str) -> None:
        self.names.setdefault(key, name)
        self.counts[key] = self.counts.get(key, 0) + count
        self.reasons.setdefault(key, []).append(reason)


@dataclass(frozen=True)
class HardwareFields:
    """Joints, other hardware, finishes, rules of thumb and the yard's packs exactly as typed, a
    line each; bare lengths of packs are in ``packs_unit``, prices in ``currency``. ``found`` is
    what is known of packs at the yard, by their keys."""

    joints: str = ""
    hardware: str = ""
    finishes: str = ""
    rules: str = ""
    packs: str = ""
    packs_unit: Unit = Unit.INCH
    currency: str = "USD"
    found: Mapping[str, FoundPacks] = field(default_factory=dict)


def hardware_of(
    fields: HardwareFields,
    parts: Mapping[str, JoinedPart],
    settings: Settings,
    sheet: Sheet = EMPTY,
) -> Hardware:
    """The hardware of a project whose ``parts`` are known by their marks; lines may follow the
    measures of its ``sheet``. What cannot be read is told by line, nothing is refused."""
    read = _read_lines(fields, settings.unit, sheet)
    needs = _Needs()
    fastened = [_fasten(joint, parts, settings, read, needs) for joint in read.joints]
    prices: dict[Key, Decimal] = {}
    have: dict[Key, int] = {}
    for item in read.items:
        foreign = item.currency and item.currency != fields.currency
        _take(replace(item, price=None) if foreign else item, settings, needs, prices, have)
    glued = sum(contact(joint, parts).area * joint.count for joint in read.joints if joint.glued)
    for coat in read.finishes:
        _coat(coat, parts, glued, settings, needs)
    lines = tuple(
        packed_line(
            _need(key, needs, have.get(key, 0)),
            [Package("one", 1, prices[key])] if key in prices else read.packages.get(key, []),
            fields.found,
        )
        for key in needs.counts
    )
    problems = (*read.problems, *_unused(read.finishes, parts, glued=bool(glued)))
    coated = sum(_coated(coat, parts) for coat in read.finishes if not coat.on_joints)
    return Hardware(lines, tuple(fastened), problems, coated * settings.copies)


@dataclass(frozen=True)
class _Lines:
    """What the lines of a project say, and the problems of those that say nothing."""

    joints: Sequence[Joint]
    items: Sequence[Item]
    finishes: Sequence[Coat]
    rules: Rules
    packages: Mapping[Key, list[Package]]
    problems: Sequence[Problem]


def _read_lines(fields: HardwareFields, unit: Unit, sheet: Sheet) -> _Lines:
    joints, wrong_joints = read_each_line(
        fields.joints, lambda line: read_joint(sheet.inline(line), unit=unit)
    )
    items, wrong_items = read_each_line(fields.hardware, lambda line: read_item(sheet.inline(line)))
    finishes, wrong_finishes = read_each_line(
        fields.finishes, lambda line: read_coat(sheet.inline(line))
    )
    packages, _ = read_each_line(fields.packs, read_package)
    rules, wrong_rules = read_rules(fields.rules, unit)
    offered: dict[Key, list[Package]] = {}
    for package in packages:
        key = *hardware_key(package.name, fields.packs_unit), package.volume
        offered.setdefault(key, []).append(package)
    wrong = {
        "joints": wrong_joints,
        "hardware": wrong_items,
        "finishes": wrong_finishes,
        "rules": wrong_rules,
    }
    problems = [
        Problem(f"{kind}, {one.place}", one.message) for kind, told in wrong.items() for one in told
    ]
    mixed = [
        Problem(
            f"hardware, {item.name}",
            f"{item.currency} on a list in {fields.currency}: currencies are not mixed",
        )
        for item in items
        if item.currency and item.currency != fields.currency
    ]
    return _Lines(joints, items, finishes, rules, offered, [*problems, *mixed])


def _unused(
    finishes: Iterable[Coat], parts: Mapping[str, JoinedPart], *, glued: bool
) -> Iterator[Problem]:
    """Finishes that name what is not there."""
    for coat in finishes:
        unknown = [mark for mark in coat.marks if mark not in parts]
        if unknown:
            told = f"no part is marked {', '.join(unknown)}"
            yield Problem(f"finishes, {coat.text}", told)
        if coat.on_joints and not glued:
            told = "no joint is glued: write glue or glued in its line"
            yield Problem(f"finishes, {coat.text}", told)


def _fasten(
    joint: Joint,
    parts: Mapping[str, JoinedPart],
    settings: Settings,
    read: _Lines,
    needs: _Needs,
) -> Fastened:
    count = joint.count * joint.each * settings.copies
    unknown = [meeting.mark for meeting in joint.way if meeting.mark not in parts]
    if unknown:
        return Fastened(joint.text, "", None, count, (f"no part is marked {', '.join(unknown)}",))
    kind, rules, unit = KINDS[joint.kind], read.rules, settings.unit
    deep = rules.recess if joint.recess is None else joint.recess
    sunk = deep if joint.recessed else 0
    sold = [length for name, length, _ in read.packages if name == joint.name and length]
    try:
        way = passed_by(joint, parts)
        chosen = choose_length(joint.kind, way, unit, sunk=sunk, rules=rules, sold=sold)
    except CarpentryError as error:
        return Fastened(joint.text, "", None, count, (error.problems[0].message,))
    length, warnings = chosen.length, list(chosen.warnings)
    if joint.length is not None:
        length = joint.length
        warnings = list(check_length(joint.kind, length, way, unit, sunk=sunk, rules=rules))
    if joint.load:
        warnings += filter(None, [kind.gives_way])
    thin = any(parts[meeting.mark].depth(meeting.through) < TICKS_PER_INCH for meeting in joint.way)
    splits = kind.is_driven and (thin or way[-1].through is not Through.FACE or joint.toed)
    notes = (PILOT,) if splits else ()
    if joint.kind is Kind.GLUE:
        return Fastened(joint.text, joint.kind.value, None, count, tuple(warnings))
    if length is None and chosen.warnings:
        return Fastened(joint.text, "", None, count, tuple(warnings))
    needs.add((joint.name, length, False), joint.name, count, joint.text)
    takes = [joint.kind.value, RECESS] if joint.recessed else [joint.kind.value]
    for consumed, each in (one for by in takes for one in rules.taken.get(by, {}).items()):
        if each:
            key = *hardware_key(consumed, settings.unit), False
            needs.add(key, consumed, count * each, joint.text)
    return Fastened(joint.text, joint.name, length, count, tuple(warnings), notes)


def _coated(coat: Coat, parts: Mapping[str, JoinedPart]) -> int:
    """The area (square ticks) of the parts that a finish goes on."""
    coated = [part for mark, part in parts.items() if not coat.marks or mark in coat.marks]
    return sum(surface(p.thickness, p.width, p.length, coat.sides) * p.pieces for p in coated)


def _coat(
    coat: Coat,
    parts: Mapping[str, JoinedPart],
    glued: int,
    settings: Settings,
    needs: _Needs,
) -> None:
    """A finish by the area of its parts, or glue by that of the joints."""
    area = (glued if coat.on_joints else _coated(coat, parts)) * settings.copies
    metric = settings.unit is Unit.MM
    told = f"{coat.text}: {write_area(area, metric=metric)}"
    if coat.usual:
        told += f", {coat.coverage_told(metric=metric)} as is usual for it"
    for name, volume in millilitres(coat, area) if area else ():
        needs.add((*hardware_key(name, settings.unit), True), name, volume, told)


def _take(
    item: Item,
    settings: Settings,
    needs: _Needs,
    prices: dict[Key, Decimal],
    have: dict[Key, int],
) -> None:
    key = *hardware_key(item.name, settings.unit), item.volume
    if item.have:
        have[key] = have.get(key, 0) + item.count
        return
    name = item.name if key[1] is None else key[0]
    needs.add(key, name, item.count * settings.copies, "")
    if item.price is not None:
        prices[key] = item.price


def _need(key: Key, needs: _Needs, have: int) -> HardwareLine:
    """What is needed of a thing, without any packs yet."""
    _, length, volume = key
    reasons = tuple(filter(None, dict.fromkeys(needs.reasons[key])))
    return HardwareLine(
        needs.names[key], length, needs.counts[key], have, (), None, 0, reasons, volume
    )
