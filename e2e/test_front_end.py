"""The front end's own tests, each reported as one of these."""

import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestLoader, TestSuite

from django.test import SimpleTestCase

WEB = Path(__file__).parent.parent / "web"


class FrontEndTest(SimpleTestCase):
    """One case of the front end's, with how it went."""

    name = ""
    fault = ""

    def holds(self) -> None:
        if self.fault:
            self.fail(self.fault)

    def __eq__(self, other: object) -> bool:
        return isinstance(other, FrontEndTest) and self.name == other.name

    def __hash__(self) -> int:
        return hash(self.name)

    def id(self) -> str:
        return f"{super().id()}: {self.name}"

    def __str__(self) -> str:
        return self.name


def load_tests(_loader: TestLoader, tests: TestSuite, _pattern: str | None) -> TestSuite:
    """Runs them all, once: a test for each case, and one for what belongs to none of them."""
    with tempfile.TemporaryDirectory() as folder:
        file = Path(folder) / "outcomes.json"
        run = subprocess.run(
            ["npx", "--no-install", "vitest", "run", "--reporter=json", f"--outputFile={file}"],
            cwd=WEB,
            capture_output=True,
            text=True,
            check=False,
        )
        told = json.loads(file.read_text()) if file.exists() else {"testResults": []}
    cases = [(one["name"], case) for one in told["testResults"] for case in one["assertionResults"]]
    tests.addTest(_test("all of them", "" if cases and not run.returncode else _said(run, told)))
    for file_name, case in cases:
        of = Path(file_name).relative_to(WEB / "src")
        tests.addTest(_test(f"{of}: {case['fullName']}", _fault(case)))
    return tests


def _test(name: str, fault: str) -> FrontEndTest:
    test = FrontEndTest("holds")
    test.name, test.fault = name, fault
    return test


def _fault(case: dict[str, Any]) -> str:
    if case["status"] == "passed":
        return ""
    return "\n".join(case.get("failureMessages") or [f"it was {case['status']}"])


def _said(run: subprocess.CompletedProcess[str], told: dict[str, Any]) -> str:
    """What the run said, where it failed: of a file that could not be read, too."""
    files = [one.get("message", "") for one in told["testResults"]]
    return "\n".join(filter(None, ["the front end's tests failed", *files, run.stdout, run.stderr]))
