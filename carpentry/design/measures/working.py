"""Working out measures: each from those it rests on, however they are ordered."""

from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from difflib import get_close_matches
from graphlib import CycleError, TopologicalSorter

from carpentry.design.measures.formula import (
    NAME,
    RESERVED,
    Formula,
    Look,
    Reference,
    read_formula,
)
from carpentry.design.measures.values import Value
from carpentry.language import CarpentryError, Faults, Problem, Unit

MOST_MEASURES = 2_000
LONGEST_NAME = 40


@dataclass(frozen=True)
class Worked:
    """Measures as they come out, and what is wrong with the others, each at its name.

    A measure that rests on one that could not be worked out is in neither: its fault is told where
    it is.
    """

    values: Mapping[str, Value]
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
    like = get_close_matches(name, list(known), n=3, cutoff=0.5)
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
    formulas: Mapping[str, Formula], named: set[str], faults: Faults, look: Look = nothing_known
) -> Worked:
    """As ``work_out``, of formulas that were read before; ``named`` are all names that there are,
    with those the formulas of which could not be read."""
    for name, formula in formulas.items():
        for other in formula.names:
            if other not in named:
                faults.add(name, f"“{other}” is not known{nearest(other, named)}")
    values: dict[str, Value] = {}
    for name in _in_order(formulas, faults):
        formula = formulas[name]
        if all(other in values for other in formula.names):
            try:
                values[name] = formula.value(values, look)
            except CarpentryError as error:
                faults.problems.extend(Problem(name, p.message) for p in error.problems)
    return Worked(values, tuple(faults.problems))


def _in_order(formulas: Mapping[str, Formula], faults: Faults) -> list[str]:
    """Names so that each comes after those it rests on; circles are told and left out."""
    rests_on = {
        name: {other for other in formula.names if other in formulas}
        for name, formula in formulas.items()
    }
    while True:
        try:
            return list(TopologicalSorter(rests_on).static_order())
        except CycleError as error:
            round_it: list[str] = error.args[1][::-1]  # each rests on the one after it
            first = min(round_it, key=list(formulas).index)
            at = round_it.index(first)
            chain = [*round_it[at:-1], *round_it[:at], first]
            faults.add(first, f"goes round in a circle: {' → '.join(chain)}")
            for name in round_it:
                rests_on.pop(name, None)
            for names in rests_on.values():
                names.difference_update(round_it)
