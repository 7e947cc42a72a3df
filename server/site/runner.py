"""The test runner: Django's own, which shares tests out evenly and says which took longest."""

from collections.abc import Iterator
from pathlib import Path
from tempfile import mkdtemp
from time import perf_counter
from typing import Any
from unittest import TestCase, TestResult, TestSuite

from django.contrib.contenttypes.management import create_contenttypes
from django.db.models.signals import post_migrate
from django.test import LiveServerTestCase
from django.test.runner import DiscoverRunner, ParallelTestSuite

SLOWEST = 20
AT_ONCE = 4
SHARED = ("setUpClass", "setUpTestData")


class EvenSuite(ParallelTestSuite):
    """Hands tests out a few at a time: a whole class of them would keep one process busy at the
    end. A test with a ``begin_beside`` runs in this process, and is begun before all others."""

    def __init__(self, subsuites: list[TestSuite], *args: Any) -> None:
        classes = [list(suite) for suite in subsuites]
        self.beside = [t for tests in classes for t in tests if hasattr(t, "begin_beside")]
        others = [tests for tests in classes if not hasattr(tests[0], "begin_beside")]
        parts = [part for tests in others for part in _shared_out(tests)]
        parts.sort(key=lambda tests: len(tests) > AT_ONCE, reverse=True)
        super().__init__([TestSuite(tests) for tests in parts], *args)

    def run(self, result: TestResult) -> TestResult:
        for test in self.beside:
            test.begin_beside()
        super().run(result)
        for test in self.beside:
            test.run(result)
        return result


def _shared_out(tests: list[Any]) -> Iterator[list[Any]]:
    size = (
        len(tests)
        if _shares(tests[0])
        else 1
        if isinstance(tests[0], LiveServerTestCase)
        else AT_ONCE
    )
    for first in range(0, len(tests), size):
        yield tests[first : first + size]


def _shares(test: Any) -> bool:
    """True if what tests of a class need is made once for all of them."""
    own = [base for base in type(test).__mro__ if ".test_" in base.__module__]
    return any(name in vars(base) for base in own for name in SHARED)


class Runner(DiscoverRunner):
    """Runs tests, one after the other or side by side, and prints the slowest."""

    parallel_test_suite = EvenSuite

    def setup_databases(self, **options: Any) -> Any:
        """Makes them; no test wants permissions and content types anew after each flush."""
        made = super().setup_databases(**options)
        post_migrate.disconnect(dispatch_uid="django.contrib.auth.management.create_permissions")
        post_migrate.disconnect(create_contenttypes)
        return made

    def run_suite(self, suite: Any, **options: Any) -> TestResult:
        file = Path(mkdtemp(prefix="grain-tally-durations-")) / "durations"
        plain = TestCase.run

        def timed(test: TestCase, result: TestResult | None = None) -> TestResult | None:
            started = perf_counter()
            try:
                return plain(test, result)
            finally:
                with file.open("a") as durations:  # of whichever process it ran in
                    durations.write(f"{perf_counter() - started:.2f} {test.id()}\n")

        TestCase.run = timed  # type: ignore[method-assign]
        try:
            return super().run_suite(suite, **options)
        finally:
            TestCase.run = plain  # type: ignore[method-assign]
            self._print_slowest(file)

    def _print_slowest(self, file: Path) -> None:
        if not file.exists():
            return
        took = [line.split(" ", 1) for line in file.read_text().splitlines()]
        took.sort(key=lambda one: -float(one[0]))
        print("\nThe slowest:")
        for seconds, test in took[:SLOWEST]:
            print(f"{seconds:>8} s  {test}")
