"""Working out measures: each from those it rests on, however they are ordered."""

from collections.abc import Collection, Iterable, Iterator, Mapping
from contextlib import suppress
from dataclasses import dataclass
from difflib import get_close_matches
from graphlib import CycleError, TopologicalSorter
from typing import Protocol

from carpentry.design.measures.formula import (
    NAME,
    RESERVED,
    Formula,
    Known,
    Look,
    Reference,
    read_formula,
)
from carpentry.design.measures.values import Value
from carpentry.language import CarpentryError, Faults, Problem, Unit

MOST_MEASURES = 2_000
LONGEST_NAME = 40
MOST_SUGGESTED = 20  # unknown names for which known ones are looked for
_NOTHING_MEASURED: Mapping[str, Value] = {}


class Reckoned(Protocol):
    """What is worked out from names and from what is said of parts and runs, as a formula is."""

    @property
    def names(self) -> tuple[str, ...]: ...

    @property
    def references(self) -> tuple[Reference, ...]: ...

    def value(self, known: Known, look: Look) -> Value: ...


@dataclass(frozen=True)
class Worked:
    """What holds, by name: as it was measured, else as it comes out. ``computed`` is what those
    that were measured would come to; ``problems`` what is wrong with the others, each at its name.

    What rests on something that could not be worked out is nowhere: the fault is told where it is.
    """

    values: Mapping[str, Value]
    computed: Mapping[str, Value]
    problems: tuple[Problem, ...]


def check_name(name: str) -> None:
    """Raises ``CarpentryError`` where a measure cannot be called so."""
    if len(name) > LONGEST_NAME:
        raise CarpentryError(f"a name has {LONGEST_NAME} characters at the most")
    if not NAME.fullmatch(name):
        raise CarpentryError(f"“{name[:LONGEST_NAME]}” is no name: names are lower-case words")
    if name in RESERVED:
        raise CarpentryError(f"“{name}” means something in formulas: choose another name")


def nearest(name: str, known: Iterable[str]) -> str:
    """Words for the known names that are most like one that is not known; empty for none."""
    names = list(known)
    begin = [one for one in names if one.startswith(name)]
    like = [*begin, *get_close_matches(name, names, n=3, cutoff=0.5)]
    like = list(dict.fromkeys(like))[:3]
    return f". Nearest known: {', '.join(like)}" if like else ""


def read_measures(measures: Mapping[str, str], unit: Unit, faults: Faults) -> dict[str, Formula]:
    """The formulas of measures, by name; what cannot be read is added to ``faults`` at its name."""
    formulas: dict[str, Formula] = {}
    for name, text in measures.items():
        try:
            check_name(name)
            formulas[name] = read_formula(text, unit)
        except CarpentryError as error:
            faults.problems.extend(Problem(name, p.message) for p in error.problems)
    return formulas


def nothing_known(reference: Reference) -> Value:
    """What is said of parts and runs where there are none."""
    what = "part" if reference.of.isupper() else "run"
    raise CarpentryError(f"there is no {what} {reference.of} here: {reference}")


def work_out(measures: Mapping[str, str], unit: Unit, look: Look = nothing_known) -> Worked:
    """Measures (name to formula) worked out; ``unit`` is what bare figures that stand for lengths
    are in, and ``look`` tells what is said of parts and runs.

    Raises ``CarpentryError`` where there are too many. Names without a measure, circles (with the
    whole chain), and figures that do not go together are told among the problems.
    """
    if len(measures) > MOST_MEASURES:
        raise CarpentryError(f"measures are {MOST_MEASURES:,} at the most")
    faults = Faults()
    formulas = read_measures(measures, unit, faults)
    return work_out_formulas(formulas, set(measures), faults, look)


def work_out_formulas(
    formulas: Mapping[str, Reckoned],
    named: Collection[str],
    faults: Faults,
    look: Look = nothing_known,
    measured: Mapping[str, Value] = _NOTHING_MEASURED,
) -> Worked:
    """As ``work_out``, of formulas that were read before. ``named`` are all measures that there
    are, with those that could not be read.

    A formula may also stand for what is said of a part or a run, under the words of that (``length
    of A``): what refers to it then follows it, and is not asked of ``look``. What was ``measured``
    holds instead of its formula, and so breaks a circle that goes through it.
    """
    _tell_unknown(formulas, named, faults)
    values: dict[str, Value] = dict(measured)

    def known(reference: Reference) -> Value:
        return values.get(str(reference)) or look(reference)

    def work(name: str) -> Value | None:
        formula = formulas[name]
        if any(other not in values for other in _rests_on(formula, formulas)):
            return None
        try:
            return formula.value(values, known)
        except CarpentryError as error:
            faults.problems.extend(Problem(name, p.message) for p in error.problems)
        return None

    follows = {name: formula for name, formula in formulas.items() if name not in measured}
    for name in _in_order(follows, faults):
        value = work(name)
        if value is not None:
            values[name] = value
    computed = {name: value for name in measured if name in formulas and (value := work(name))}
    return Worked(values, computed, tuple(faults.problems))


def _tell_unknown(formulas: Mapping[str, Reckoned], named: Collection[str], faults: Faults) -> None:
    told: dict[str, str] = {}
    for name, formula in formulas.items():
        for other in formula.names:
            if other not in named:
                if other not in told:
                    told[other] = nearest(other, named) if len(told) < MOST_SUGGESTED else ""
                faults.add(name, f"“{other}” is not known{told[other]}")


def _rests_on(formula: Reckoned, formulas: Mapping[str, Reckoned]) -> list[str]:
    """The names that a formula rests on, with what is said of parts and runs where a formula says
    it."""
    said = [words for words in map(str, formula.references) if words in formulas]
    return [*formula.names, *said]


def used_by(name: str, formulas: Mapping[str, Reckoned]) -> list[str]:
    """Where a name is used: the names of the formulas that rest on it, in their order."""
    return [
        one
        for one, formula in formulas.items()
        if name in formula.names or name in map(str, formula.references)
    ]


def _in_order(formulas: Mapping[str, Reckoned], faults: Faults) -> list[str]:
    """Names so that each comes after those it rests on; circles are told and left out, with what
    rests on them."""
    rests_on = {
        name: [other for other in _rests_on(formula, formulas) if other in formulas]
        for name, formula in formulas.items()
    }
    sorter = TopologicalSorter(rests_on)
    with suppress(CycleError):  # it gives as much as it can all the same
        sorter.prepare()
    order: list[str] = []
    while ready := sorter.get_ready():
        order.extend(ready)
        sorter.done(*ready)
    blocked = set(rests_on) - set(order)
    for chain in _circles({name: rests_on[name] for name in rests_on if name in blocked}):
        faults.add(chain[0], f"goes round in a circle: {' → '.join([*chain, chain[0]])}")
    return order


def _circles(rests_on: Mapping[str, list[str]]) -> Iterator[list[str]]:
    """Circles among names of which each rests on another of them."""
    seen: set[str] = set()
    for start in rests_on:
        name, path = start, dict[str, None]()
        while name not in seen:
            seen.add(name)
            path[name] = None
            name = next(other for other in rests_on[name] if other in rests_on)
        if name in path:
            names = list(path)
            yield names[names.index(name) :]
