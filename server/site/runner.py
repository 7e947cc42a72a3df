"""The test runner: Django's own, which says at the end which tests took longest."""

from pathlib import Path
from tempfile import mkdtemp
from time import perf_counter
from typing import Any
from unittest import TestCase, TestResult

from django.test.runner import DiscoverRunner

SLOWEST = 10


class Runner(DiscoverRunner):
    """Runs tests, one after the other or side by side, and prints the slowest."""

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
