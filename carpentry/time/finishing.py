"""Finishes: what is tried, sanded and coated, and in which order.

Finishes on one surface follow one another in the order of their lines. What joints hide is coated
before they do, and ends as soon as they are cut; the rest when it stands.
"""

from collections.abc import Iterable, Iterator, Sequence
from dataclasses import dataclass, replace

from carpentry.buying.coating import Coat, surface
from carpentry.buying.products import Product, Use
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.cautions import DUST
from carpentry.project import contact
from carpentry.time import usual_minutes as at
from carpentry.time.applied import with_product
from carpentry.time.maker import Maker
from carpentry.time.step import Sort, Step
from carpentry.time.surfaces import Coated, Surface, hidden_by, is_on_ends_alone, sides_of

_SQUARE_FOOT = (12 * TICKS_PER_INCH) ** 2
_GRITS = "100, 150, 220"
_MOST_BATCHES = 3


@dataclass(frozen=True)
class _Batch:
    """Parts that are coated together, and what is on them already."""

    name: str
    coat: Coat
    sort: Sort
    marks: Sequence[str]
    on_it: Sequence[str]


class Finishing:
    """The steps of all finishes but glue."""

    def __init__(self, maker: Maker) -> None:
        self.maker = maker
        self.coats = [coat for coat in maker.of.finishes if not coat.on_joints]
        self.first = [c for c in self.coats if c.before_closing or self._is_sealed_early(c)]
        self.coated = Coated()
        self.used: dict[str, Product] = {}  # by the key of a step
        self.sanded: dict[str, str] = {}  # of a mark, the step

    def before_joining(self) -> Iterator[Step]:
        """What is tried, and what goes on before anything is joined."""
        yield from self._tried()
        sands = list(self._sand_all(self.first, Sort.EARLY))
        yield from sands
        for coat in self.first:
            yield from self._coat(coat, Sort.EARLY, sands)
        for coat in self.coats:
            if coat not in self.first:
                yield from self._where_pieces_meet(coat)

    def when_it_stands(self) -> Iterator[Step]:
        """What goes on when it is put together."""
        self.coated = Coated()  # what is on before it is joined is dry by then
        late = [coat for coat in self.coats if coat not in self.first]
        sands = list(self._sand_all(late, Sort.FINISH))
        yield from sands
        for coat in late:
            yield from self._coat(coat, Sort.FINISH, sands)

    def _sand_all(self, coats: Sequence[Coat], sort: Sort) -> Iterator[Step]:
        """All sanding before any coat: its dust settles on what is wet."""
        for coat in coats:
            marks = self.maker.of_coat(coat)
            before = self._there(coat, marks, sort)
            yield from self._sand(f"{coat.name}{self._where(coat)}", coat, marks, before)

    def _there(self, coat: Coat, marks: Sequence[str], sort: Sort) -> tuple[str, ...]:
        """The steps after which parts are there to be finished, and what goes on them is known."""
        maker = self.maker
        early = [key for mark in marks for key in maker.early.get(mark, ())]
        there = maker.made_before(marks) if sort is Sort.EARLY else maker.stands()
        if maker.product(coat).use is Use.PRESERVATIVE:  # which takes wet wood as it is
            return tuple(dict.fromkeys((*there, *early)))
        return tuple(dict.fromkeys((*there, *early, *maker.dried(marks), *maker.tried)))

    def _is_sealed_early(self, coat: Coat) -> bool:
        """Whether it only seals ends, which are hidden in feet and against other pieces."""
        return is_on_ends_alone(coat) and self.maker.product(coat).seals

    def _tried(self) -> Iterator[Step]:
        shown = [c for c in self.coats if self.maker.product(c).use is not Use.PRESERVATIVE]
        marks = tuple(dict.fromkeys(m for coat in shown for m in self.maker.of_coat(coat)))
        if not marks:
            return
        names = " and the ".join(dict.fromkeys(coat.name for coat in shown))
        step = self.maker.step(
            f"try the {names} on an offcut",
            Sort.TRY,
            at.TRY_IT,
            after=self.maker.made_before(m for m in marks if m not in self.maker.of.held),
            parts=marks,
            notes=("of the same wood, sanded alike; look at it dry, in daylight",),
        )
        self.maker.tried = (step.key,)
        tried = with_product(step, self.maker.product(shown[0]), is_last=False)
        yield replace(tried, notes=step.notes)

    def _where_pieces_meet(self, coat: Coat) -> Iterator[Step]:
        """A coat on what joints hide, before they do; the coats after it go on what shows."""
        maker, product, sides = self.maker, self.maker.product(coat), sides_of(coat)
        wanted = set(maker.of_coat(coat)) - maker.of.held
        joints = [joint for joint, _ in maker.of.joints if not joint.glued]
        bare = set(hidden_by(joints)) - self._under(coat)
        hidden = {mark for mark, side in bare if side in sides}
        marks = tuple(mark for mark in maker.of.parts if mark in wanted and mark in hidden)
        if not product.seals or not marks:
            return
        where = self._where(coat)
        early = tuple(mark for mark in maker.of_coat(coat) if mark in wanted)
        before = (*maker.made_before(early), *maker.dried(early), *maker.tried)
        sand = list(self._sand(f"{coat.name}{where}", coat, early, before))
        yield from sand
        area = sum(contact(joint, maker.of.parts).area * joint.count for joint in joints)
        step = maker.step(
            f"{coat.name}{where} where pieces meet",
            Sort.EARLY,
            at.GET_READY + at.COAT_A_SQUARE_FOOT * 2 * maker.of.copies * area / _SQUARE_FOOT,
            after=tuple(dict.fromkeys((*before, *(one.key for one in sand)))),
            parts=marks,
            notes=("one coat on what joints will hide; faces that are glued stay bare",),
        )
        yield with_product(step, product, maker.of.products, is_last=False)
        for mark in marks:
            maker.early[mark] = (*maker.early.get(mark, ()), step.key)

    def _under(self, coat: Coat) -> set[Surface]:
        """The surfaces that another finish is on before."""
        earlier = self.coats[: self.coats.index(coat)]
        return {(m, side) for c in earlier for m in self.maker.of_coat(c) for side in sides_of(c)}

    def _where(self, coat: Coat) -> str:
        """On which parts, where the same is used twice."""
        again = sum(one.mix == coat.mix for one in self.coats) > 1
        return f" on {' '.join(coat.marks) or 'all of it'}" if again else ""

    def _feet(self, coat: Coat, marks: Iterable[str]) -> float:
        """Square feet that a finish covers of parts."""
        parts = [self.maker.of.parts[mark] for mark in marks]
        area = sum(surface(p.thickness, p.width, p.length, coat.sides) * p.pieces for p in parts)
        return self.maker.of.copies * area / _SQUARE_FOOT

    def _sand(
        self, name: str, coat: Coat, marks: Sequence[str], before: Sequence[str]
    ) -> Iterator[Step]:
        """Sanding of what was not sanded yet; ends alone are not."""
        bare = [mark for mark in marks if mark not in self.sanded]
        if is_on_ends_alone(coat) or coat.grit == 0 or not bare:
            return
        feet = self._feet(coat, bare)
        grits = _GRITS if coat.grit is None else f"at {coat.grit}"
        step = self.maker.step(
            f"sand for the {name}",
            Sort.SAND,
            at.GET_READY + at.SAND_A_SQUARE_FOOT * feet * (1 if coat.grit is None else 0.5),
            after=tuple(dict.fromkeys(before)),
            may_split=True,
            parts=tuple(bare),
            notes=(f"{grits}; {feet:.0f} sq ft",),
            cautions=(DUST,),
        )
        self.sanded.update(dict.fromkeys(bare, step.key))
        yield step

    def _coat(self, coat: Coat, sort: Sort, sands: Sequence[Step]) -> Iterator[Step]:
        """Its parts in batches, each of which waits for what is on them already."""
        marks = self.maker.of_coat(coat)
        batches = self.coated.batches(marks, sides_of(coat)) if marks else {}
        if len(batches) > _MOST_BATCHES:
            every = tuple(dict.fromkeys(key for keys in batches for key in keys))
            batches = {every: list(marks)}
        for on_it, some in batches.items():
            where = self._where(coat) if len(batches) == 1 else f" on {' '.join(some)}"
            sanded = [self.sanded[mark] for mark in some if mark in self.sanded]
            before = (*self._there(coat, some, sort), *on_it, *sanded, *(s.key for s in sands))
            yield from self._batch(_Batch(f"{coat.name}{where}", coat, sort, some, on_it), before)

    def _batch(self, batch: _Batch, before: Sequence[str]) -> Iterator[Step]:
        """Coat after coat of some parts."""
        maker, name, coat, sort, marks = self.maker, batch.name, batch.coat, batch.sort, batch.marks
        product = maker.product(coat)
        asked = tuple(self._asked(product, batch.on_it))
        over = [self.used[key] for key in batch.on_it]
        feet = self._feet(coat, marks)
        sides = ("one side", "the other side") if product.turned else ("",)
        last = ""
        for n in range(1, coat.coats + 1):
            for side in sides:
                number = 2 if n == 1 and any(_takes_a_rub(one) for one in over) else n
                rub = at.SAND_A_SQUARE_FOOT / 4 * feet if product.rubbed and number > 1 else 0
                many = f" coat {n}" if coat.coats > 1 else ""
                step = maker.step(
                    f"{name}{many}{f' {side}' if side else ''}",
                    sort,
                    at.GET_READY + rub + at.COAT_A_SQUARE_FOOT * feet / len(sides),
                    after=tuple(dict.fromkeys(before)),
                    may_leave=n > 1 and len(sides) == 1,
                    parts=tuple(marks),
                    notes=(coat.text,) if n == 1 else (),
                    asks=asked if n == 1 else (),
                )
                is_last = n == coat.coats and side == sides[-1] and sort is Sort.FINISH
                yield with_product(step, product, maker.of.products, coat=number, is_last=is_last)
                before, last = (step.key,), step.key
        self.used[last] = product
        self.coated.put_on(marks, sides_of(coat), last)
        if sort is Sort.EARLY:
            for mark in marks:
                maker.early[mark] = (*maker.early.get(mark, ()), last)

    def _asked(self, product: Product, on_it: Sequence[str]) -> Iterator[str]:
        """Whether an order that is not sensible is meant."""
        for key in on_it:
            under = self.used[key]
            if product.goes_on_before(under):
                yield (
                    f"is it meant that the {product.name} goes on over the {under.name}? Usually "
                    "it goes on first: put its line before the other"
                )


def _takes_a_rub(under: Product) -> bool:
    """Whether what is on a surface is rubbed before something else goes on it; stain never is."""
    return under.use in (Use.COAT, Use.PRIMER) and under.rubbed
