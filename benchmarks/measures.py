"""Formulas worked out anew, and runs laid: made up afresh at every run, their seeds printed."""

import random
import time
from fractions import Fraction

from benchmarks.reporting import report
from carpentry.design.measures import read_measures, work_out_formulas
from carpentry.design.runs import AtEnd, Spacing, lay, packed
from carpentry.language import CarpentryError, Faults, Unit, rounded

FORMULAS, GIVEN, TIMES = 2_000, 40, 9
RUNS = 10_000
ROUND = Fraction(1, 2)


def formulas() -> None:
    """How long 2,000 formulas take that were parsed once, and that they are all worked out."""
    seed = random.SystemRandom().randrange(10**6)
    chance = random.Random(seed)
    names = [f"m{number}" for number in range(FORMULAS)]
    texts = {
        name: f"{chance.randint(10, 90)} {chance.randrange(1, 16, 2)}/16" for name in names[:GIVEN]
    }
    for number, name in enumerate(names[GIVEN:], start=GIVEN):
        one, other = (
            names[chance.randrange(max(0, number - 50), number)],
            chance.choice(names[:GIVEN]),
        )
        ways = (
            f"({one} + {other}) / 2",
            f"{one} - 2 * 1 3/4 + 3",
            f"max({one}, {other}) - {other} / 3",
            f"round({one} / 2, 1/16)",
        )
        texts[name] = chance.choice(ways)
    faults = Faults()
    started = time.process_time()
    read = read_measures(texts, Unit.INCH, faults)
    parsed = time.process_time() - started
    took = []
    for _ in range(TIMES):
        started = time.process_time()
        worked = work_out_formulas(read, set(texts), faults)
        took.append(time.process_time() - started)
    report(
        f"{FORMULAS:,} formulas (seed {seed})",
        f"{len(worked.values):,} worked out in {sorted(took)[TIMES // 2] * 1000:.0f} ms of CPU, "
        f"worst {max(took) * 1000:.0f}; parsed in {parsed:.2f} s",
    )


def runs() -> None:
    """Whether random runs add up exactly, and how far off a mark and an item on packers get."""
    seed = random.SystemRandom().randrange(10**6)
    chance = random.Random(seed)
    packers = [Fraction(2**number, 2) for number in range(10)]
    laid = wrong = on_packers = 0
    off, off_packers = Fraction(0), Fraction(0)
    started = time.process_time()
    while laid < RUNS:
        item = Fraction(chance.randint(100, 4000), 10)
        along = item * chance.randint(3, 40) + Fraction(chance.randint(1, 9999), 7)
        end = chance.choice([AtEnd.ITEM, AtEnd.GAP, AtEnd.HALF_GAP])
        try:
            run = lay(along, item, (end, end), Spacing(gap=Fraction(chance.randint(5, 900), 4)))
        except CarpentryError:
            continue
        laid += 1
        before = run.places[0]
        wrong += before + run.count * item + sum(run.gaps) + before != along
        off = max(off, *(abs(rounded(place, ROUND) - place) for place in run.places))
        if packers[0] <= run.gap <= sum(packers):
            on_packers += 1
            at = rounded(before, ROUND)
            for exact, pile in zip(run.places[1:], packed(run, at, packers), strict=True):
                at += item + sum(pile)
                off_packers = max(off_packers, abs(at - exact))
    report(
        f"{RUNS:,} runs (seed {seed})",
        f"{wrong} do not add up; marks within {float(off / ROUND):.3f} of the rounding; "
        f"{on_packers:,} on packers within {float(off_packers / packers[0]):.3f} of the smallest; "
        f"{time.process_time() - started:.1f} s of CPU",
    )
