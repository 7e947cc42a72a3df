"""What is known while the steps of a project are made: what they are made from, their names, and
what waits for what."""

from collections import Counter
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.buying.coating import Coat
from carpentry.buying.joints import Joint
from carpentry.buying.products import LABEL, Product, product_named
from carpentry.hours.pace import at_pace
from carpentry.project import Fastened, JoinedPart
from carpentry.shop import Sequenced
from carpentry.time.step import Sort, Step, key_of

Made = tuple[Joint, Fastened]
_OUTDOOR_WOODS = {"treated", "cedar", "redwood", "cypress", "larch", "locust"}


@dataclass(frozen=True)
class MadeOf:
    """What steps are made from: how parts measure (by mark), their names, their groups and the
    stocks they are of, those that are held until something is measured; joints with what was
    chosen for them, and finishes; the set-ups of the shop, where the parts are planned; what
    products say; the clamps that are owned (``None``: enough); the builder's pace in percent, and
    how many are built. ``shapes`` says what shape wrote a part, ``worked`` how many lines of work
    there are on one."""

    parts: Mapping[str, JoinedPart]
    groups: Mapping[str, str]
    stocks: Mapping[str, str]
    held: frozenset[str] = frozenset()
    joints: Sequence[Made] = ()
    finishes: Sequence[Coat] = ()
    set_ups: Sequenced | None = None
    products: Sequence[Product] = ()
    clamps: int | None = None
    pace: Decimal = Decimal(100)
    copies: int = 1
    shapes: Mapping[str, str] = field(default_factory=dict)
    worked: Mapping[str, int] = field(default_factory=dict)


class Maker:
    """The steps after which things are there: of a group ``cut`` and ``joined``, of all
    ``assembled``; what is on a mark ``early``, before it is joined; what treated wood is ``dry``
    after, and what was ``tried`` on an offcut."""

    def __init__(self, of: MadeOf) -> None:
        self.of = of
        self.marks = [mark for mark in of.parts if mark not in of.held]
        self.groups = list(dict.fromkeys(of.groups[mark] for mark in self.marks))
        self.treated = {m for m, stock in of.stocks.items() if "treated" in stock.lower().split()}
        self.dry: tuple[str, ...] = ()
        self.tried: tuple[str, ...] = ()
        self.cut: dict[str, tuple[str, ...]] = {}
        self.joined: dict[str, tuple[str, ...]] = {}
        self.assembled: tuple[str, ...] = ()
        self.early: dict[str, tuple[str, ...]] = {}
        self._names: Counter[str] = Counter()

    def step(self, name: str, sort: Sort, minutes: float, **more: object) -> Step:
        """A step of a name that no other has."""
        self._names[key_of(name)] += 1
        times = self._names[key_of(name)]
        own = name if times == 1 else f"{name} {times}"
        step = Step(key_of(own), own, sort, at_pace(minutes, self.of.pace))
        return replace(step, **more)  # type: ignore[arg-type]

    def of_group(self, group: str) -> tuple[str, ...]:
        """The marks of a group."""
        return tuple(mark for mark in self.marks if self.of.groups[mark] == group)

    def of_coat(self, coat: Coat) -> tuple[str, ...]:
        """The marks that a finish goes on."""
        return tuple(mark for mark in self.of.parts if not coat.marks or mark in coat.marks)

    def product(self, coat: Coat) -> Product:
        """What a finish is; of a mix its first component, unless a label has the mix's name."""
        known = product_named(coat.name, self.of.products)
        if len(coat.mix) == 1 or known.source == LABEL:
            return known
        return replace(product_named(coat.mix[0][0], self.of.products), name=coat.name)

    @property
    def is_outdoors(self) -> bool:
        """Whether it stands outdoors, by its wood and what goes on it."""
        woods = {word for stock in self.of.stocks.values() for word in stock.lower().split()}
        return bool(woods & _OUTDOOR_WOODS) or any(
            self.product(coat).brushed for coat in self.of.finishes
        )

    def copies_said(self, where: str) -> tuple[str, ...]:
        """How many are built, where it is more than one."""
        return (f"{self.of.copies} of them, {where}",) if self.of.copies > 1 else ()

    def dried(self, marks: Iterable[str]) -> tuple[str, ...]:
        """What has to dry before glue or a finish goes on these."""
        return self.dry if self.treated & set(marks) else ()

    def made_before(self, marks: Iterable[str]) -> tuple[str, ...]:
        """The steps after which parts are there to be joined: cut, and coated where they are
        coated first."""
        found: list[str] = []
        for mark in marks:
            found += (*self.cut.get(self.of.groups[mark], ()), *self.early.get(mark, ()))
        return tuple(dict.fromkeys(found))

    def stands(self) -> tuple[str, ...]:
        """The steps after which it stands, with every part of it cut."""
        if self.assembled:
            apart = [key for g in self.groups if g not in self.joined for key in self.cut[g]]
            return tuple(dict.fromkeys((*self.assembled, *apart)))
        found = (self.joined.get(group, self.cut[group]) for group in self.groups)
        return tuple(key for keys in found for key in keys)


def marks_of(joints: Iterable[Joint]) -> tuple[str, ...]:
    """The marks of the parts that joints join."""
    return tuple(dict.fromkeys(meeting.mark for joint in joints for meeting in joint.way))


def last_of(steps: Sequence[Step]) -> tuple[str, ...]:
    """The keys of steps that none of them comes after."""
    needed = {key for step in steps for key in step.after}
    return tuple(step.key for step in steps if step.key not in needed)
