"""All steps of a project: those that are made from it, with what the builder says otherwise, and
those of the builder's own."""

from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace

from carpentry.hours.weather import Wait
from carpentry.language import CarpentryError, Problem
from carpentry.lumber.cautions import OILY_RAGS, is_oily
from carpentry.time.asked import MOST_STEPS
from carpentry.time.products import MOST_STAY, PRACTICE, Product, Use, product_named, usual_product
from carpentry.time.step import Sort, Step, key_of
from carpentry.time.step_lines import TypedStep
from carpentry.time.tasks import circle_among

_OWN_MINUTES = 30  # of a step that says nothing
_TYPED = "as you typed it"
_JOINED = (Sort.JOIN, Sort.ASSEMBLE, Sort.GLUE, Sort.FIT)


@dataclass(frozen=True)
class AllSteps:
    """Steps in their order, and what is wrong with lines, by their text."""

    steps: tuple[Step, ...]
    problems: tuple[Problem, ...] = ()


def all_steps(
    made: Sequence[Step], typed: Sequence[TypedStep], products: Sequence[Product] = ()
) -> AllSteps:
    """The steps that are made, changed and completed by what is typed. What cannot be is told by
    its line and left away; nothing is refused."""
    found = _Steps(made, products)
    for line in typed:
        before = dict(found.steps)
        try:
            found.take(line)
        except CarpentryError as error:
            found.steps = before
            found.problems += [Problem(line.text, problem.message) for problem in error.problems]
    return found.whole()


class _Steps:
    def __init__(self, made: Sequence[Step], products: Sequence[Product]) -> None:
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
        known = self.steps.get(key)
        new = [self._changed(known, line)] if known else list(self._own(line))
        for step in new:
            self.steps[step.key] = step
        for name in line.before:
            for one in self._named(name):
                first = self.steps[one]
                self.steps[one] = replace(first, after=_with(first.after, new[-1].key))
        if line.before_closing:
            self._before_closing(new[-1].key)
        told = self._circle()
        if told:
            raise CarpentryError(told)
        if not known:
            self.last_own = new[-1].key
            if len(new) > 1:
                self.coats[key] = [one.key for one in new]

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
        begins = [known for known in self.steps if known.startswith(key)]
        return begins[-1] if len(begins) == 1 else None

    def _changed(self, step: Step, line: TypedStep) -> Step:
        """A step that is there, as a line says it otherwise."""
        if line.coats is not None and step.key in self.made:
            raise CarpentryError("how many coats there are is typed with the finish at the desk")
        changed = self._said(replace(step, line=line.text), line)
        if line.after is not None:
            changed = replace(changed, after=self._after(line))
        if line.called:
            changed = replace(changed, name=line.called)
        return changed

    def _after(self, line: TypedStep) -> tuple[str, ...]:
        keys = [key for name in line.after or () for key in self._named(name)]
        return tuple(dict.fromkeys(keys))

    def _said(self, step: Step, line: TypedStep) -> Step:
        """A step with what a line says of its time, its wait and its needs."""
        if line.minutes is not None:
            step = replace(step, minutes=line.minutes, reckoned=False)
        if line.product:
            step = self._with_product(step, product_named(line.product, self.products))
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

    def _with_product(self, step: Step, product: Product) -> Step:
        return replace(
            step,
            wait=product.waits,
            wait_told=product.told,
            least=product.least,
            held=Wait.steady(product.clamps) if product.clamps else None,
            stays=5 <= product.wait <= MOST_STAY,
            instead=None,
            cautions=_with(step.cautions, OILY_RAGS) if is_oily(product.name) else step.cautions,
        )

    def _own(self, line: TypedStep) -> Iterator[Step]:
        """A step of the builder's own, coat by coat."""
        name = line.called or line.name
        sort = Sort.EARLY if line.before_closing else Sort.OWN
        step = Step(key_of(line.name), name, sort, _OWN_MINUTES, line=line.text)
        product = self._product_in(line)
        if product:
            step = self._with_product(step, product)
        step = self._said(step, replace(line, product=""))
        if line.after is not None:
            step = replace(step, after=self._after(line))
        elif self.last_own in self.steps and not line.before_closing:
            step = replace(step, after=(self.last_own,))
        if line.loose:
            step = replace(step, notes=("loose until it is measured",))
        coats = line.coats or 1
        after = step.after
        for n in range(1, coats + 1):
            many = f" coat {n}" if coats > 1 else ""
            one = replace(
                step,
                key=f"{step.key}{many}",
                name=f"{name}{many}",
                after=after,
                may_leave=n > 1,
            )
            yield one
            after = (one.key,)

    def _product_in(self, line: TypedStep) -> Product | None:
        """What is used, where the line says it, or its words do."""
        if line.product:
            return product_named(line.product, self.products)
        for product in self.products:
            if f" {key_of(product.name)} " in f" {key_of(line.name)} ":
                return product
        usual = usual_product(line.name)
        known = usual.source == PRACTICE and usual.use is not Use.WOOD
        return replace(usual, name=_WORD_OF.get(usual.use, "")) if known else None

    def _before_closing(self, key: str) -> None:
        """Makes what is joined wait for a step, but for what it comes after itself."""
        earlier = self._all_before(key)
        for other, step in self.steps.items():
            if step.sort in _JOINED and other != key and other not in earlier:
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
        last = next((s.key for s in steps.values() if s.sort is Sort.SET_UP), None)
        if last:
            needed = {key for step in steps.values() for key in step.after}
            follow = {key for key in needed if last in self._all_before(key)}
            ends = [
                key
                for key in steps
                if key != last and key not in needed - follow and last not in self._all_before(key)
            ]
            steps[last] = replace(steps[last], after=_with(steps[last].after, *ends))
        return AllSteps(tuple(_in_order(steps)), tuple(self.problems))


_WORD_OF = {Use.GLUE: "glue", Use.FINISH: "finish", Use.PRESERVATIVE: "preservative"}


def _with(known: Iterable[str], *more: str) -> tuple[str, ...]:
    return tuple(dict.fromkeys((*known, *more)))


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
