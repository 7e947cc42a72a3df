"""The steps of a project, made from what it is: its parts by group, joints, glue and finishes."""

from collections import Counter
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, field, replace
from decimal import Decimal

from carpentry.buying.coating import Coat, surface
from carpentry.buying.fastener_kinds import KINDS
from carpentry.buying.joints import Joint
from carpentry.hours.pace import at_pace
from carpentry.hours.weather import Wait
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.cautions import DUST, OILY_RAGS, PROTECTION, TREATED, is_oily
from carpentry.project import Fastened, JoinedPart
from carpentry.shop import Sequenced
from carpentry.time import usual_minutes as at
from carpentry.time.asked import Instead
from carpentry.time.checks import CHECKS
from carpentry.time.products import Product, Use, instead_of, product_named
from carpentry.time.step import Sort, Step, key_of

_SQUARE_FOOT = (12 * TICKS_PER_INCH) ** 2
_CLAMPS_A_JOINT = 2  # common practice, no source
_MOST_ROUNDS = 12
_GLUE = "wood glue"
_PRESERVATIVE = "end-cut preservative"
_CHECK_OF_SHAPE = {
    "door": "gap even all round",
    "row": "square every five boards",
    "brace": "trial fit",
}


@dataclass(frozen=True)
class MadeOf:
    """What steps are made from: how parts measure (by mark), their groups and the stocks they are
    of, those that are held until something is measured; joints with what was chosen for them, and
    finishes; the set-ups of the shop, where the parts are planned; what products say; the clamps
    that are owned (``None``: enough); the builder's pace in percent, and how many are built.
    ``shapes`` says what shape wrote a part."""

    parts: Mapping[str, JoinedPart]
    groups: Mapping[str, str]
    stocks: Mapping[str, str]
    held: frozenset[str] = frozenset()
    joints: Sequence[tuple[Joint, Fastened]] = ()
    finishes: Sequence[Coat] = ()
    set_ups: Sequenced | None = None
    products: Sequence[Product] = ()
    clamps: int | None = None
    pace: Decimal = Decimal(100)
    copies: int = 1
    shapes: Mapping[str, str] = field(default_factory=dict)


def made_steps(of: MadeOf) -> list[Step]:
    """The steps in the order of the work, each after those that it needs."""
    return list(_Maker(of).all()) if of.parts else []


class _Maker:
    def __init__(self, of: MadeOf) -> None:
        self.of = of
        self.names: Counter[str] = Counter()
        self.marks = [mark for mark in of.parts if mark not in of.held]
        self.groups = list(dict.fromkeys(of.groups[mark] for mark in self.marks))
        self.treated = {m for m, stock in of.stocks.items() if "treated" in stock.lower().split()}
        self.cut: dict[str, tuple[str, ...]] = {}  # of a group, the steps that make its parts
        self.early: dict[str, str] = {}  # of a mark, the last coat before closing
        self.joined: dict[str, tuple[str, ...]] = {}  # of a group, what puts it together
        self.assembled: tuple[str, ...] = ()
        self.loose: list[tuple[Joint, Fastened]] = []  # of parts that are held

    def all(self) -> Iterator[Step]:
        of = self.of
        dry: list[Step] = []
        if self._is_wet():
            dry = [self._dry()]
            yield from dry
        self.dry = tuple(one.key for one in dry)
        for group in self.groups:
            yield from self._cut(group)
        for coat in (one for one in of.finishes if one.before_closing):
            yield from self._coats(coat, Sort.EARLY)
        inside: dict[str, list[tuple[Joint, Fastened]]] = {group: [] for group in self.groups}
        across: list[tuple[Joint, Fastened]] = []
        for joint, fastened in of.joints:
            met = {of.groups.get(meeting.mark) for meeting in joint.way}
            known = len(met) == 1 and next(iter(met)) in inside
            loose = any(meeting.mark in of.held for meeting in joint.way)
            if known and not loose:
                inside[str(next(iter(met)))].append((joint, fastened))
            elif loose and None not in met:
                self.loose.append((joint, fastened))
            elif None not in met:
                across.append((joint, fastened))
        for group, joints in inside.items():
            if joints:
                steps = list(self._together(f"the {group}" if group else "it", joints, group))
                yield from steps
                self.joined[group] = _last_of(steps)
        if across or len(self.joined) > 1:
            yield from self._assemble(across)
        if of.held:
            yield from self._held()
        for coat in (one for one in of.finishes if not (one.before_closing or one.on_joints)):
            yield from self._coats(coat, Sort.FINISH)
        yield self._step(
            "set it up and level it",
            Sort.SET_UP,
            at.SET_IT_UP * of.copies,
            check=CHECKS["level"],
        )

    def _step(self, name: str, sort: Sort, minutes: float, **more: object) -> Step:
        """A step of a name that no other has."""
        self.names[key_of(name)] += 1
        times = self.names[key_of(name)]
        own = name if times == 1 else f"{name} {times}"
        step = Step(key_of(own), own, sort, at_pace(minutes, self.of.pace))
        return replace(step, **more)  # type: ignore[arg-type]

    def _dry(self) -> Step:
        wood = product_named("treated wood", self.of.products)
        return self._step(
            "stack the treated boards to dry",
            Sort.DRY,
            15,
            wait=wood.waits,
            wait_told=wood.told,
            parts=tuple(mark for mark in self.marks if mark in self.treated),
            notes=("before glue or finish goes on them; stickers between, air all round",),
            cautions=(TREATED,),
        )

    def _is_wet(self) -> bool:
        """Whether glue or finish goes on treated wood."""
        finished = {m for c in self.of.finishes for m in (c.marks or self.marks) if not c.on_joints}
        glued = set(_marks_of(joint for joint, _ in self.of.joints if joint.glued))
        return bool(self.treated & (finished | glued))

    def _of_group(self, group: str) -> tuple[str, ...]:
        return tuple(mark for mark in self.marks if self.of.groups[mark] == group)

    def _cut(self, group: str) -> Iterator[Step]:
        marks = self._of_group(group)
        pieces = sum(self.of.parts[mark].pieces for mark in marks) * self.of.copies
        minutes, cautions = self._sawing(marks, pieces)
        cut = self._step(
            f"cut the parts of the {group}" if group else "cut the parts",
            Sort.CUT,
            minutes,
            may_split=True,
            check=CHECKS["first piece of each length"],
            parts=marks,
            notes=(f"{pieces} pieces",),
            cautions=cautions,
        )
        yield cut
        treated = tuple(mark for mark in marks if mark in self.treated)
        self.cut[group] = (cut.key,)
        if not treated:
            return
        ends = 2 * sum(self.of.parts[mark].pieces for mark in treated) * self.of.copies
        product = product_named(_PRESERVATIVE, self.of.products)
        sealed = self._step(
            f"{_PRESERVATIVE} on the {group}" if group else f"{_PRESERVATIVE} on fresh cuts",
            Sort.PRESERVE,
            at.GET_READY + at.A_FRESH_END * ends,
            after=(cut.key,),
            wait=product.waits,
            wait_told=product.told,
            may_split=True,
            parts=treated,
            notes=(f"{ends} fresh ends",),
            cautions=(TREATED,),
        )
        yield sealed
        self.cut[group] = (sealed.key,)

    def _sawing(self, marks: Iterable[str], pieces: int) -> tuple[float, tuple[str, ...]]:
        """About how long parts are sawn, their share of every set-up, and what to mind."""
        found = self.of.set_ups
        if found is None or not found.set_ups:
            return at.A_PIECE * pieces + at.GET_READY, (PROTECTION,)
        wanted, minutes = set(marks), 0.0
        cautions: dict[str, None] = {}
        for set_up in found.set_ups:
            labels = [_mark_of(label) for label in set_up.labels]
            here = sum(label in wanted for label in labels)
            if here:
                share = here / len(labels)
                minutes += share * (3 + 0.75 * len(set_up.cuts))
                cautions |= dict.fromkeys(set_up.cautions)
        return minutes or at.A_PIECE * pieces, tuple(cautions) or (PROTECTION,)

    def _together(
        self,
        of_group: str,
        joints: list[tuple[Joint, Fastened]],
        group: str = "",
        after: tuple[str, ...] = (),
    ) -> Iterator[Step]:
        """Dry fit, glue and fasten what belongs together, after what else has to be there."""
        glued = [one for one in joints if one[0].glued and not one[0].holds_by_itself]
        others = [one for one in joints if one not in glued]
        marks = _marks_of(joint for joint, _ in joints)
        before = tuple(dict.fromkeys((*self._before(marks), *after)))
        if glued:
            fit = self._step(
                f"dry fit {of_group}",
                Sort.FIT,
                at.A_DRY_JOINT * self._count(glued),
                after=before,
                check=CHECKS["trial fit"],
                parts=_marks_of(joint for joint, _ in glued),
            )
            yield fit
            rounds = list(self._glue(of_group, glued, (fit.key,)))
            yield from rounds
            before = tuple(step.key for step in rounds)
        if self.treated & set(_marks_of(joint for joint, _ in others if joint.glued)):
            before = tuple(dict.fromkeys((*before, *self.dry)))
        if others or not glued:
            sort = Sort.ASSEMBLE if after else Sort.JOIN
            yield self._join(f"put {of_group} together", sort, others, before, group)

    def _glue(
        self, of_group: str, glued: list[tuple[Joint, Fastened]], before: tuple[str, ...]
    ) -> Iterator[Step]:
        """Glue-ups, in as many rounds as there are clamps for."""
        product = self._glue_used()
        count = self._count(glued)
        each = _CLAMPS_A_JOINT
        owned = self.of.clamps
        at_once = count if owned is None else max(1, owned // each)
        rounds = min(_MOST_ROUNDS, -(-count // at_once))
        marks = _marks_of(joint for joint, _ in glued)
        for n in range(rounds):
            joints = count // rounds + (n < count % rounds)
            name = f"glue {of_group}"
            step = self._step(
                name if rounds == 1 else f"{name} round {n + 1} of {rounds}",
                Sort.GLUE,
                at.GET_READY + at.A_GLUED_JOINT * joints,
                after=(*before, *(self.dry if self.treated & set(marks) else ())),
                wait=product.waits,
                wait_told=product.told,
                clamps=joints * each if owned is None or joints <= at_once else owned,
                held=Wait.steady(product.clamps) if product.clamps else None,
                least=product.least,
                instead=self._faster(product),
                check=CHECKS["diagonals equal"],
                parts=marks,
                joints=tuple(joint.text for joint, _ in glued),
                notes=(f"{joints} joints, {product.name}",),
            )
            yield step

    def _glue_used(self) -> Product:
        """The glue that is put on joints, or the one a label was typed of."""
        named = next((coat.mix[0][0] for coat in self.of.finishes if coat.on_joints), "")
        if named:
            return product_named(named, self.of.products)
        typed = next(
            (one for one in self.of.products if one.use is Use.GLUE and not one.instead), None
        )
        return typed or product_named(_GLUE, self.of.products)

    def _join(
        self,
        name: str,
        sort: Sort,
        joints: list[tuple[Joint, Fastened]],
        before: tuple[str, ...],
        group: str = "",
    ) -> Step:
        minutes = at.GET_READY + sum(
            fastened.count * KINDS[joint.kind].minutes for joint, fastened in joints
        )
        warned = dict.fromkeys(told for _, one in joints for told in one.warnings)
        marks = _marks_of(joint for joint, _ in joints)
        shapes = {self.of.shapes.get(mark, "") for mark in marks or self._of_group(group)}
        by_shape = next((_CHECK_OF_SHAPE[one] for one in shapes if one in _CHECK_OF_SHAPE), "")
        return self._step(
            name,
            sort,
            minutes,
            after=tuple(dict.fromkeys(before)),
            may_split=True,
            check=CHECKS[by_shape or "diagonals equal"],
            parts=marks,
            joints=tuple(joint.text for joint, _ in joints),
            cautions=tuple(warned),
        )

    def _assemble(self, joints: list[tuple[Joint, Fastened]]) -> Iterator[Step]:
        """What joins the groups, glued as they are."""
        parts = tuple(key for keys in self.joined.values() for key in keys)
        steps = list(self._together("it all", joints, after=parts or self._ends()))
        yield from steps
        self.assembled = _last_of(steps)

    def _before(self, marks: Iterable[str]) -> tuple[str, ...]:
        """The steps after which parts are there to be joined."""
        found: list[str] = []
        for mark in marks:
            group = self.of.groups[mark]
            found += self.cut.get(group, ())
            if mark in self.early:
                found.append(self.early[mark])
        return tuple(dict.fromkeys(found))

    def _ends(self) -> tuple[str, ...]:
        """The steps after which it stands."""
        if self.assembled:
            return self.assembled
        found = (self.joined.get(group, self.cut[group]) for group in self.groups)
        return tuple(key for keys in found for key in keys)

    def _held(self) -> Iterator[Step]:
        held = tuple(mark for mark in self.of.parts if mark in self.of.held)
        named = " ".join(held)
        measured = self._step(
            f"measure for {named} and cut",
            Sort.MEASURE,
            at.MEASURE_ONE * len(held),
            after=self._ends(),
            parts=held,
            notes=("loose until it is measured on the work",),
            cautions=(PROTECTION, *([TREATED] if self.treated & set(held) else [])),
        )
        yield measured
        fitted = self._join(f"fit {named}", Sort.JOIN, self.loose, (measured.key,))
        parts = tuple(dict.fromkeys((*held, *fitted.parts)))
        yield replace(fitted, check=CHECKS["trial fit"], parts=parts)
        self.assembled = (fitted.key,)

    def _coats(self, coat: Coat, sort: Sort) -> Iterator[Step]:
        """Sanding, then coat after coat."""
        of = self.of
        marks = tuple(mark for mark in of.parts if not coat.marks or mark in coat.marks)
        if not marks:
            return
        area = of.copies * sum(
            surface(p.thickness, p.width, p.length, coat.sides) * p.pieces
            for p in (of.parts[mark] for mark in marks)
        )
        feet = area / _SQUARE_FOOT
        name = " + ".join(one for one, _ in coat.mix)
        product = replace(product_named(name, of.products), use=Use.FINISH, clamps=0)
        again_used = sum(one.mix == coat.mix and not one.on_joints for one in of.finishes) > 1
        where = f" on {' '.join(coat.marks) or 'all of it'}" if again_used else ""
        before = self._before(marks) if sort is Sort.EARLY else self._ends()
        before = tuple(dict.fromkeys((*before, *(self.dry if self.treated & set(marks) else ()))))
        ends_only = set(coat.sides) == {"ends"}
        if not ends_only:
            sand = self._step(
                f"sand for the {name}{where}",
                Sort.SAND,
                at.GET_READY + at.SAND_A_SQUARE_FOOT * feet,
                after=before,
                may_split=True,
                parts=marks,
                notes=(f"100, 150, 220; {feet:.0f} sq ft",),
                cautions=(DUST,),
            )
            yield sand
            before = (sand.key,)
        sides = ("one side", "the other side") if product.turned else ("",)
        last = ""
        for n in range(1, coat.coats + 1):
            for side in sides:
                is_last = n == coat.coats and side == sides[-1]
                again = at.SAND_A_SQUARE_FOOT / 4 * feet if product.sanded and n > 1 else 0
                many = f" coat {n}" if coat.coats > 1 else ""
                step = self._step(
                    f"{name}{where}{many}{f' {side}' if side else ''}",
                    sort,
                    at.GET_READY + product.wipe + again + at.COAT_A_SQUARE_FOOT * feet / len(sides),
                    after=before,
                    wait=product.last_wait if is_last else product.waits,
                    wait_told=product.told,
                    least=product.least,
                    may_leave=n > 1 and len(sides) == 1,
                    instead=self._faster(product),
                    parts=marks,
                    notes=tuple(_coating_notes(product, coat, n)),
                    cautions=(OILY_RAGS,) if is_oily(name) else (),
                )
                yield step
                before = (step.key,)
                last = step.key
        if sort is Sort.EARLY:
            self.early |= dict.fromkeys(marks, last)

    def _faster(self, product: Product) -> Instead | None:
        other = instead_of(product, self.of.products)
        return Instead(other.name, other.waits, other.least) if other else None

    def _count(self, joints: Iterable[tuple[Joint, Fastened]]) -> int:
        return sum(joint.count for joint, _ in joints) * self.of.copies


def _last_of(steps: Sequence[Step]) -> tuple[str, ...]:
    """The keys of steps that none of them comes after."""
    needed = {key for step in steps for key in step.after}
    return tuple(step.key for step in steps if step.key not in needed)


def _mark_of(label: str) -> str:
    """The mark of a part in a piece's label: ``B`` of ``B12``."""
    return label.rstrip("0123456789")


def _marks_of(joints: Iterable[Joint]) -> tuple[str, ...]:
    return tuple(dict.fromkeys(meeting.mark for joint in joints for meeting in joint.way))


def _coating_notes(product: Product, coat: Coat, number: int) -> Iterator[str]:
    if number == 1:
        yield coat.text
    if product.wipe:
        yield f"wipe off after {product.wipe} min, stay with it"
    if product.sanded and number > 1:
        yield "sanded lightly first"
