"""The steps of a project, made from what it is: its parts by group, joints, glue and finishes."""

from collections.abc import Iterable, Iterator

from carpentry.buying.products import Use, product_named
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.cautions import PROTECTION, TREATED
from carpentry.shop import minutes_of
from carpentry.time import usual_minutes as at
from carpentry.time.applied import with_product
from carpentry.time.checks import CHECKS
from carpentry.time.finishing import Finishing
from carpentry.time.joining import Joining
from carpentry.time.maker import MadeOf, Maker, marks_of
from carpentry.time.step import Sort, Step

_ON_A_TABLE = 24 * TICKS_PER_INCH  # what is shorter, and no outdoor wood, is set on something
_PRESERVATIVE = "end-cut preservative"


def made_steps(of: MadeOf) -> list[Step]:
    """The steps in the order of the work, each after those that it needs."""
    return list(_Making(Maker(of)).all()) if of.parts else []


class _Making:
    def __init__(self, maker: Maker) -> None:
        self.maker = maker
        self.joining, self.finishing = Joining(maker), Finishing(maker)

    def all(self) -> Iterator[Step]:
        maker = self.maker
        if self._is_wet():
            dry = self._dry()
            yield dry
            maker.dry = (dry.key,)
        for group in maker.groups:
            yield from self._cut(group)
        yield from self.finishing.before_joining()
        yield from self.joining.put_together()
        if maker.of.held:
            yield from self.joining.fit_held()
        yield from self.finishing.when_it_stands()
        longest = max(part.length for part in maker.of.parts.values())
        if maker.is_outdoors or longest >= _ON_A_TABLE:
            yield maker.step(
                "set it up and level it",
                Sort.SET_UP,
                at.SET_UP + at.SET_ONE_UP * maker.of.copies,
                check=CHECKS["level"],
                batch=maker.of.copies,
                notes=maker.copies_said("each where it stands"),
            )

    def _dry(self) -> Step:
        wood = product_named("treated wood", self.maker.of.products)
        return self.maker.step(
            "stack the treated boards to dry",
            Sort.DRY,
            15,
            wait=wood.waits,
            wait_told=wood.told,
            parts=tuple(mark for mark in self.maker.marks if mark in self.maker.treated),
            notes=("before glue or finish goes on them; stickers between, air all round",),
            cautions=(TREATED,),
        )

    def _is_wet(self) -> bool:
        """Whether glue or a finish that does not take wet wood goes on treated wood."""
        finished = {
            mark
            for coat in self.maker.of.finishes
            if not coat.on_joints and self.maker.product(coat).use is not Use.PRESERVATIVE
            for mark in coat.marks or self.maker.of.parts
        }
        glued = {
            mark
            for joint, _ in self.maker.of.joints
            if joint.glued and not self.joining.glue_of(joint).wet
            for mark in marks_of([joint])
        }
        return bool(self.maker.treated & (finished | glued))

    def _cut(self, group: str) -> Iterator[Step]:
        marks = self.maker.of_group(group)
        pieces = sum(self.maker.of.parts[mark].pieces for mark in marks) * self.maker.of.copies
        minutes, cautions = self._sawing(marks, pieces)
        worked = sum(
            self.maker.of.worked.get(mark, 0) * self.maker.of.parts[mark].pieces for mark in marks
        )
        cut = self.maker.step(
            f"cut the parts of the {group}" if group else "cut the parts",
            Sort.CUT,
            minutes + at.A_WORKED_PLACE * worked * self.maker.of.copies,
            may_split=True,
            check=CHECKS["first piece of each length"],
            parts=marks,
            notes=(f"{pieces} pieces",),
            cautions=cautions,
        )
        yield cut
        treated = tuple(mark for mark in marks if mark in self.maker.treated)
        self.maker.cut[group] = (cut.key,)
        if not treated:
            return
        ends = 2 * sum(self.maker.of.parts[mark].pieces for mark in treated) * self.maker.of.copies
        sealed = self.maker.step(
            f"{_PRESERVATIVE} on the {group}" if group else f"{_PRESERVATIVE} on fresh cuts",
            Sort.PRESERVE,
            at.GET_READY + at.A_FRESH_END * ends,
            after=(cut.key,),
            may_split=True,
            parts=treated,
            notes=(f"{ends} fresh ends",),
            cautions=(TREATED,),
        )
        product = product_named(_PRESERVATIVE, self.maker.of.products)
        yield with_product(sealed, product, self.maker.of.products, is_last=False)
        self.maker.cut[group] = (sealed.key,)

    def _sawing(self, marks: Iterable[str], pieces: int) -> tuple[float, tuple[str, ...]]:
        """About how long parts are sawn, their share of every set-up, and what to mind."""
        found = self.maker.of.set_ups
        if found is None or not found.set_ups:
            return at.A_PIECE * pieces + at.GET_READY, (PROTECTION,)
        wanted, minutes = set(marks), 0.0
        everything = self.maker.of.copies * sum(
            part.pieces for part in self.maker.of.parts.values()
        )
        cautions: dict[str, None] = {}
        for set_up in found.set_ups:
            labels = [_mark_of(label) for label in set_up.labels]
            here = sum(label in wanted for label in labels)
            share = here / len(labels) if labels else pieces / everything
            minutes += share * minutes_of([set_up])
            if here:
                cautions |= dict.fromkeys(set_up.cautions)
        return minutes or at.A_PIECE * pieces, tuple(cautions) or (PROTECTION,)


def _mark_of(label: str) -> str:
    """The mark of a part in a piece's label: ``B`` of ``B12``."""
    return label.rstrip("0123456789")
