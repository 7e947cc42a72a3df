"""All steps of a project: those that are made from it, with what the builder says otherwise, and
those of the builder's own."""

import re
from collections.abc import Collection, Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from carpentry.buying.products import Product, product_in, product_named
from carpentry.hours.weather import Wait
from carpentry.language import CarpentryError, Problem
from carpentry.time.applied import with_another, with_product
from carpentry.time.asked import MOST_STEPS
from carpentry.time.spoken import CUT, JOINED, Spoken, is_last_of_all
from carpentry.time.step import Sort, Step, key_of
from carpentry.time.step_lines import TypedStep
from carpentry.time.tasks import circle_among

_OWN_MINUTES = 30  # of a step that says nothing
_TYPED = "as you typed it"
_NO_PRODUCT = re.compile(r"(?:sand|scrape|mask|clean|buy|order|fetch|mix|stir|open|let|wait)\b")


@dataclass(frozen=True)
class AllSteps:
    """Steps in their order, and what is wrong with lines, by their text."""

    steps: tuple[Step, ...]
    problems: tuple[Problem, ...] = ()

    @property
    def asks(self) -> tuple[str, ...]:
        """What the builder is asked about, once each."""
        return tuple(dict.fromkeys(one for step in self.steps for one in step.asks))

    def without_hidden(self, done: Collection[str]) -> "AllSteps":
        """The same where what would go on surfaces that are hidden by now is left out: all that
        hides them is ``done`` (by its keys)."""
        hides: dict[str, set[str]] = {}
        for step in self.steps:
            for key in step.after if step.sort in JOINED else ():
                hides.setdefault(key, set()).add(step.key)
        gone = {
            step.key: step
            for step in self.steps
            if step.sort is Sort.EARLY and not step.line and step.key not in done
            if step.key in hides and hides[step.key] <= set(done)
        }
        kept = []
        for step in self.steps:
            after = step.after
            while missing := next((key for key in after if key in gone), ""):
                after = _with((key for key in after if key != missing), *gone[missing].after)
            if step.key not in gone:
                kept.append(replace(step, after=after))
        return replace(self, steps=tuple(kept))


def all_steps(
    made: Sequence[Step],
    typed: Sequence[TypedStep],
    products: Sequence[Product] = (),
    things: Mapping[str, Sequence[str]] | None = None,
) -> AllSteps:
    """The steps that are made, changed and completed by what is typed; ``things`` are the marks of
    parts and groups by their names. What cannot be is told by its line and left out; nothing is
    refused."""
    found = _Steps(made, products, things or {})
    for line in typed:
        before = dict(found.steps)
        try:
            found.take(line)
        except CarpentryError as error:
            found.steps = before
            found.problems += [Problem(line.text, problem.message) for problem in error.problems]
    return found.whole()


class _Steps:
    def __init__(
        self,
        made: Sequence[Step],
        products: Sequence[Product],
        things: Mapping[str, Sequence[str]],
    ) -> None:
        self.spoken = Spoken(made, things)
        self.last: list[str] = []  # what comes when all else is done, in its order
        self.made = {step.key: step for step in made}
        self.steps = dict(self.made)
        self.products = products
        self.problems: list[Problem] = []
        self.last_own = ""
        self.coats: dict[str, list[str]] = {}

    def take(self, line: TypedStep) -> None:
        """Takes a line in. Raises ``CarpentryError``."""
        if len(self.steps) >= MOST_STEPS:
            raise CarpentryError(f"a project has {MOST_STEPS} steps at the most")
        key = key_of(line.name)
        if line.left_out:
            self._leave_out(key)
            return
        known = self._rounds(key)
        if known:
            self._put_in([self._changed(self.steps[one], line) for one in known], line)
        else:
            self._add(line)

    def _rounds(self, key: str) -> list[str]:
        """The step of a name, or all of its rounds."""
        if key in self.steps:
            return [key]
        rounds = re.compile(rf"{re.escape(key)} round \d+ of \d+")
        return [one for one in self.steps if rounds.fullmatch(one)]

    def _add(self, line: TypedStep) -> None:
        """A step of the builder's own: after the parts that it speaks of are made, and, where that
        is no circle, after they stand."""
        before = dict(self.steps)
        try:
            new = list(self._own(line, self.spoken.made_before(line, self.steps)))
            self._put_in(new, line)
        except CarpentryError:
            self.steps = before
            new = list(self._own(line, self.spoken.made_before(line, self.steps, stands=False)))
            self._put_in(new, line)
        is_last = is_last_of_all(line.name) and not line.before
        self.last_own = self.last_own if is_last else new[-1].key
        if len(new) > 1:
            self.coats[key_of(line.name)] = [one.key for one in new]
        if is_last:
            self.last += [one.key for one in new]

    def _put_in(self, new: Sequence[Step], line: TypedStep) -> None:
        """Puts steps in, and what is said to come after them. Raises ``CarpentryError`` for a
        circle."""
        for step in new:
            self.steps[step.key] = step
        for name in line.before:
            for one in self._named(name):
                first = self.steps[one]
                self.steps[one] = replace(first, after=_with(first.after, new[-1].key))
        if line.before_closing:
            self._before_closing(new[-1].key, self.spoken.marks_of(line))
        told = self._circle()
        if told:
            raise CarpentryError(told)

    def _circle(self) -> str:
        """Steps that would wait for each other, named; empty where none do."""
        keys = list(self.steps)
        place = {key: n for n, key in enumerate(keys)}
        after = [[place[k] for k in step.after if k in place] for step in self.steps.values()]
        circle = circle_among(after)
        if not circle:
            return ""
        names = [f"“{self.steps[keys[n]].name}”" for n in (*circle, circle[0])]
        return f"a circle: {' waits for '.join(names)}; none of them could begin"

    def _leave_out(self, key: str) -> None:
        if key not in self.steps:
            raise CarpentryError(f"there is no step “{key}” to leave out")
        gone = self.steps.pop(key)
        for other, step in self.steps.items():
            if key in step.after:
                kept = tuple(k for k in step.after if k != key)
                self.steps[other] = replace(step, after=_with(kept, *gone.after))

    def _named(self, name: str) -> list[str]:
        """The keys that a name, or names with *and* between them, mean."""
        found = self._one_named(name)
        if found:
            return [found]
        many = [self._one_named(one) for one in name.split(" and ")]
        if not all(many):
            raise CarpentryError(f"there is no step “{name.strip()}”")
        return [key for key in many if key]

    def _one_named(self, name: str) -> str | None:
        key = key_of(name)
        if key in self.steps:
            return key
        if key in self.coats:
            return self.coats[key][-1]
        called = [known for known, step in self.steps.items() if key_of(step.name) == key]
        rounds = self._rounds(key)
        begins = [known for known in self.steps if known.startswith(key)]
        for found in (called, rounds[-1:], begins):
            if len(found) == 1:
                return found[0]
        return None

    def _changed(self, step: Step, line: TypedStep) -> Step:
        """A step that is there, as a line says it otherwise."""
        if line.coats is not None and step.key in self.made:
            raise CarpentryError("how many coats there are is typed with the finish at the desk")
        changed = self._said(replace(step, line=line.text), line)
        kept = step.after
        if line.only:
            kept = tuple(k for k in kept if k in self.made and self.made[k].sort in CUT)
        changed = replace(changed, after=_with(kept, *self._after(line)))
        if line.called:
            changed = replace(changed, name=line.called)
        return changed

    def _after(self, line: TypedStep) -> tuple[str, ...]:
        keys = [
            every
            for name in line.after
            for key in self._named(name)
            for every in (self._rounds(key_of(name)) or [key])
        ]
        return tuple(dict.fromkeys(keys))

    def _said(self, step: Step, line: TypedStep) -> Step:
        """A step with what a line says of its time, its wait and its needs."""
        if line.minutes is not None:
            step = replace(step, minutes=line.minutes, reckoned=False)
        if line.product:
            product = product_named(line.product, self.products)
            step = with_another(step, product, self.products)
        if line.wait is not None:
            slower = step.wait.slow > step.wait.minutes
            wait = Wait.slowed(line.wait) if slower else Wait.steady(line.wait)
            step = replace(
                step, wait=wait, wait_told=_TYPED, stays=bool(line.stays), held=None, instead=None
            )
        if line.clamps is not None:
            step = replace(step, clamps=line.clamps)
        if line.may_split is not None:
            step = replace(step, may_split=line.may_split)
        return replace(
            step,
            check=line.check or step.check,
            helper=step.helper or line.helper,
            daylight=step.daylight or line.daylight,
            dry=step.dry or line.dry,
            least=step.least if line.least is None else line.least,
        )

    def _own(self, line: TypedStep, made: Sequence[str]) -> Iterator[Step]:
        """A step of the builder's own, coat by coat."""
        name = line.called or line.name
        sort = Sort.EARLY if line.before_closing else Sort.OWN
        plain = Step(key_of(line.name), name, sort, _OWN_MINUTES, line=line.text)
        if line.minutes is not None:
            plain = replace(plain, minutes=line.minutes, reckoned=False)
        if line.loose:
            plain = replace(plain, notes=("loose until it is measured",))
        is_chained = self.last_own in self.steps and not (line.before_closing or line.only)
        chained = (self.last_own,) if is_chained and not line.after else ()
        after = _with(made, *chained, *self._after(line))
        product, coats = self._product_in(line), line.coats or 1
        for n in range(1, coats + 1):
            many = f" coat {n}" if coats > 1 else ""
            one = replace(
                plain,
                key=f"{plain.key}{many}",
                name=f"{name}{many}",
                after=after,
                may_leave=n > 1,
            )
            if product:
                is_last = n == coats and not line.before_closing
                one = with_product(one, product, self.products, coat=n, is_last=is_last)
            one = self._said(one, replace(line, product=""))
            yield one
            after = (one.key,)

    def _product_in(self, line: TypedStep) -> Product | None:
        """What is used, where the line says it, or its words do."""
        if line.product:
            return product_named(line.product, self.products)
        for product in self.products:
            if f" {key_of(product.name)} " in f" {key_of(line.name)} ":
                return product
        return None if _NO_PRODUCT.match(key_of(line.name)) else product_in(line.name)

    def _before_closing(self, key: str, marks: set[str]) -> None:
        """Makes what is joined of these parts, of all where none is named, wait for a step, but for
        what it comes after itself."""
        earlier = self._all_before(key)
        for other, step in self.steps.items():
            closes = step.sort in JOINED and (not marks or marks & set(step.parts))
            if closes and other != key and other not in earlier:
                self.steps[other] = replace(step, after=_with(step.after, key))

    def _all_before(self, key: str) -> set[str]:
        found: set[str] = set()
        left = [key]
        while left:
            for one in self.steps[left.pop()].after:
                if one in self.steps and one not in found:
                    found.add(one)
                    left.append(one)
        return found

    def whole(self) -> AllSteps:
        """The steps, the last one after all that nothing else comes after."""
        steps = dict(self.steps)
        last = [key for key in self.last if key in steps]
        last += [key for key, step in steps.items() if step.sort is Sort.SET_UP]
        for n, key in enumerate(last):
            others = [one for one in steps if one not in last and key not in self._all_before(one)]
            chained = [one for one in last[:n] if key not in self._all_before(one)]
            after = _with(steps[key].after, *_ends_of(others, steps), *chained)
            self.steps[key] = steps[key] = replace(steps[key], after=after)
        return AllSteps(tuple(_in_order(steps)), tuple(self.problems))


def _with(known: Iterable[str], *more: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys((*known, *more)))


def _ends_of(keys: Sequence[str], steps: Mapping[str, Step]) -> list[str]:
    """Those of some steps that none of them comes after."""
    needed = {one for key in keys for one in steps[key].after}
    return [key for key in keys if key not in needed]


def _in_order(steps: Mapping[str, Step]) -> Iterator[Step]:
    """Steps so that none is before one that it comes after, else as they are."""
    left = dict(steps)
    while left:
        key = next((k for k, s in left.items() if not any(one in left for one in s.after)), None)
        if key is None:  # never: circles are refused
            yield from left.values()
            return
        yield left.pop(key)


def within_hours(steps: Iterable[Step], longest: int) -> Iterator[Step]:
    """Steps, of which those that were reckoned longer than any free hours may be split."""
    for step in steps:
        if step.reckoned and not step.stays and step.minutes > longest:
            yield replace(step, may_split=True)
        else:
            yield step
