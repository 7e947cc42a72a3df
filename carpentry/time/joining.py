"""Putting together: groups first, each in the order of its joints' lines, then what joins them."""

import re
from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import groupby

from carpentry.buying.fastener_kinds import KINDS
from carpentry.buying.fasteners import Through
from carpentry.buying.joints import MOST_COUNT, Joint
from carpentry.buying.products import Product, Use, product_named
from carpentry.language import TICKS_PER_INCH
from carpentry.lumber.cautions import PROTECTION, TREATED
from carpentry.project import contact
from carpentry.time import usual_minutes as at
from carpentry.time.applied import with_product
from carpentry.time.checks import CHECKS, Check
from carpentry.time.maker import Made, Maker, last_of, marks_of
from carpentry.time.step import Sort, Step

_A_CLAMP = 10 * TICKS_PER_INCH  # every 8 to 12 in, at least two; common practice, no source
_FEWEST_CLAMPS = 2
_MOST_ROUNDS = 12
_IN_TURNS = "in turns, as many at a time as there are clamps for"
_FRAME_CORNERS = 4
_GLUE = "wood glue"
_CHECK_OF_SHAPE = {
    "door": "gap even all round",
    "row": "square every five boards",
    "brace": "trial fit",
}
_HANDS = re.compile(r"\b(left|right)\b", re.IGNORECASE)
_OTHER_HAND = {"left": "right", "right": "left"}


class Joining:
    """The steps that join parts; those that are held come last."""

    def __init__(self, maker: Maker) -> None:
        self.maker = maker
        self.loose: list[Made] = []  # of parts that are held

    def put_together(self) -> Iterator[Step]:
        """Groups first, each in the order of its joints' lines; then what joins them."""
        inside: dict[str, list[Made]] = {group: [] for group in self.maker.groups}
        across: list[Made] = []
        for made in self.maker.of.joints:
            met = {self.maker.of.groups.get(meeting.mark) for meeting in made[0].way}
            if None in met:
                continue  # told at its line
            if any(meeting.mark in self.maker.of.held for meeting in made[0].way):
                self.loose.append(made)
            elif len(met) == 1:
                inside[str(next(iter(met)))].append(made)
            else:
                across.append(made)
        for group, joints in inside.items():
            if joints:
                before = self.maker.made_before(marks_of(joint for joint, _ in joints))
                steps = list(self._joined(f"the {group}" if group else "it", joints, before, group))
                yield from steps
                self.maker.joined[group] = last_of(steps)
        if across or len(self.maker.joined) > 1:
            marks = self.maker.made_before(marks_of(joint for joint, _ in across))
            before = tuple(dict.fromkeys((*self.maker.stands(), *marks)))
            steps = list(self._joined("it all", across, before))
            yield from steps
            self.maker.assembled = last_of(steps)

    def _joined(
        self, what: str, joints: Sequence[Made], before: tuple[str, ...], group: str | None = None
    ) -> Iterator[Step]:
        """Joints in the order of their lines: a dry fit before glue, and each glue-up after what
        holds its pieces by then."""
        sort = Sort.ASSEMBLE if group is None else Sort.JOIN
        runs = [
            (key, list(run))
            for key, run in groupby(
                joints, lambda made: self.glue_of(made[0]).name if _is_clamped(made[0]) else ""
            )
        ]
        for glue, run in runs:
            if glue:
                fit = self._dry_fit(what, run, before)
                yield fit
                rounds = list(self._glued(what, run, (fit.key,)))
                yield from rounds
                before = tuple(step.key for step in rounds)
            else:
                step = self._fastened(f"put {what} together", sort, run, before, group)
                yield step
                before = (step.key,)
        if not runs:
            yield self._fastened(f"put {what} together", sort, (), before, group)

    def _dry_fit(self, what: str, joints: Sequence[Made], before: tuple[str, ...]) -> Step:
        return self.maker.step(
            f"dry fit {what}",
            Sort.FIT,
            at.A_DRY_JOINT * self._count(joints),
            after=before,
            check=CHECKS["trial fit"],
            parts=marks_of(joint for joint, _ in joints),
        )

    def _glued(self, what: str, joints: Sequence[Made], before: tuple[str, ...]) -> Iterator[Step]:
        """Glue-ups, in as many rounds as there are clamps for. Those of one line may be in any
        order; one of a later line waits for what its pieces are held by then."""
        product = self.glue_of(joints[0][0])
        rounds = self._rounds(joints)
        name, done = f"glue {what}", list[tuple[int, str]]()  # the first line of each, and its key
        for n, (counts, clamps) in enumerate(rounds, start=1):
            here = [made for made, count in zip(joints, counts, strict=True) if count]
            marks = marks_of(joint for joint, _ in here)
            lines = [line for line, count in enumerate(counts) if count]
            step = self.maker.step(
                name if len(rounds) == 1 else f"{name} round {n} of {len(rounds)}",
                Sort.GLUE,
                at.GET_READY + at.A_GLUED_JOINT * sum(counts),
                after=(
                    *before,
                    *(() if product.wet else self.maker.dried(marks)),
                    *(key for line, key in done if line < lines[-1]),
                ),
                clamps=clamps,
                check=self._check_of(here),
                parts=marks,
                joints=tuple(
                    _some_of(made[0], count, self.maker.of.copies)
                    for made, count in zip(joints, counts, strict=True)
                    if count
                ),
                notes=(
                    f"{sum(counts)} joints, {product.name}",
                    *((_IN_TURNS,) if n == _MOST_ROUNDS else ()),
                ),
            )
            done.append((lines[0], step.key))
            yield self._with_glue(step, product)

    def _rounds(self, joints: Sequence[Made]) -> list[tuple[list[int], int]]:
        """How many joints of each line are glued in each round, and the clamps that they take. The
        last of very many rounds has all that are left."""
        found: list[tuple[list[int], int]] = []
        for n, (joint, _) in enumerate(joints):
            each = max(_FEWEST_CLAMPS, -(-contact(joint, self.maker.of.parts).long // _A_CLAMP))
            left = joint.count * self.maker.of.copies
            while left:
                room = self._room(found[-1][1], each) if found else 0
                if not room and len(found) < _MOST_ROUNDS:
                    found.append(([0] * len(joints), 0))
                    room = max(1, self._room(0, each))
                counts, clamps = found[-1]
                here = min(left, room) if room else left  # in turns, where rounds are many
                counts[n] += here
                found[-1] = (counts, clamps + here * each if room else clamps)
                left -= here
        return found

    def _room(self, used: int, each: int) -> int:
        """How many more joints can be clamped beside what holds so many clamps."""
        owned = self.maker.of.clamps
        return MOST_COUNT if owned is None else max(0, (owned - used) // each)

    def glue_of(self, joint: Joint) -> Product:
        """The glue of a joint: the one that its line names, or that goes on joints, or that a label
        was typed of."""
        if joint.glue:
            return product_named(joint.glue, self.maker.of.products)
        named = next((coat for coat in self.maker.of.finishes if coat.on_joints), None)
        if named:
            return replace(self.maker.product(named), use=Use.GLUE)
        typed = next(
            (one for one in self.maker.of.products if one.use is Use.GLUE and not one.instead), None
        )
        return typed or product_named(_GLUE, self.maker.of.products)

    def _fastened(
        self,
        name: str,
        sort: Sort,
        joints: Sequence[Made],
        before: tuple[str, ...],
        group: str | None = None,
    ) -> Step:
        """What is screwed, nailed or bolted; where there is glue beside it, that has to set."""
        minutes = at.GET_READY + sum(
            fastened.count * KINDS[joint.kind].minutes for joint, fastened in joints
        )
        marks = marks_of(joint for joint, _ in joints)
        warned = dict.fromkeys(told for _, one in joints for told in one.warnings)
        glued = [joint for joint, _ in joints if joint.glued]
        glue = max((self.glue_of(joint) for joint in glued), key=lambda g: g.wait, default=None)
        dried = () if glue is None or glue.wet else self.maker.dried(marks_of(glued))
        step = self.maker.step(
            name,
            sort,
            minutes,
            after=tuple(dict.fromkeys((*before, *dried))),
            may_split=True,
            check=self._check_of(joints, group),
            parts=marks or self.maker.of_group(group or ""),
            joints=tuple(joint.text for joint, _ in joints),
            notes=(*self._mirrored(group or ""), *self.maker.copies_said("one after the other")),
            cautions=tuple(warned),
            batch=self.maker.of.copies,
        )
        if glue is None:
            return step
        glue = replace(glue, clamps=0)
        return self._with_glue(step, glue)

    def _with_glue(self, step: Step, glue: Product) -> Step:
        maker = self.maker
        return with_product(step, glue, maker.of.products, outdoors=maker.is_outdoors)

    def _mirrored(self, group: str) -> tuple[str, ...]:
        """That a group is another's mirror image, by their names."""
        found = _HANDS.search(group)
        if not found:
            return ()
        other = _HANDS.sub(lambda hand: _OTHER_HAND[hand[1].lower()], group, count=1)
        if other not in self.maker.groups:
            return ()
        return (f"the mirror image of the {other}: lay them out side by side as a pair",)

    def _check_of(self, joints: Sequence[Made], group: str | None = None) -> Check | None:
        """What is looked at when pieces are joined: what fits the thing, or nothing."""
        marks = marks_of(joint for joint, _ in joints)
        shapes = {
            self.maker.of.shapes.get(mark, "") for mark in marks or self.maker.of_group(group or "")
        }
        by_shape = next((_CHECK_OF_SHAPE[one] for one in shapes if one in _CHECK_OF_SHAPE), "")
        if by_shape:
            return CHECKS[by_shape]
        corners = sum(joint.count for joint, _ in joints if _crosses(joint))
        return CHECKS["diagonals equal"] if corners >= _FRAME_CORNERS else None

    def fit_held(self) -> Iterator[Step]:
        held = tuple(mark for mark in self.maker.of.parts if mark in self.maker.of.held)
        named = " ".join(held)
        measured = self.maker.step(
            f"measure for {named} and cut",
            Sort.MEASURE,
            at.MEASURE_ONE * len(held),
            after=self.maker.stands(),
            parts=held,
            notes=("loose until it is measured on the work",),
            cautions=(PROTECTION, *([TREATED] if self.maker.treated & set(held) else [])),
        )
        yield measured
        marks = [
            m for m in marks_of(joint for joint, _ in self.loose) if m not in self.maker.of.held
        ]
        before = tuple(dict.fromkeys((measured.key, *self.maker.made_before(marks))))
        fitted = self._fastened(f"fit {named}", Sort.JOIN, self.loose, before)
        parts = tuple(dict.fromkeys((*held, *(fitted.parts if self.loose else ()))))
        yield replace(fitted, check=CHECKS["trial fit"], parts=parts)
        self.maker.assembled = (fitted.key,)

    def _count(self, joints: Sequence[Made]) -> int:
        return sum(joint.count for joint, _ in joints) * self.maker.of.copies


def _is_clamped(joint: Joint) -> bool:
    """Whether glue alone holds it, and clamps until that has set."""
    return joint.glued and not joint.holds_by_itself


def _crosses(joint: Joint) -> bool:
    """Whether its pieces meet at a corner, not side by side."""
    sides = {meeting.through for meeting in joint.way}
    apart = len({meeting.mark for meeting in joint.way}) > 1
    return not joint.along and (Through.END in sides or (apart and sides != {Through.EDGE}))


def _some_of(joint: Joint, count: int, copies: int) -> str:
    """A joint's line, with how many of them where it is not all."""
    return joint.text if count == joint.count * copies else f"{count} of {joint.text}"
