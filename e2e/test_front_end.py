"""The front end's own tests, each reported as one of these."""

import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestResult

from django.test import SimpleTestCase

WEB = Path(__file__).parent.parent / "web"


class FrontEndTest(SimpleTestCase):
    """Runs them all, beside whatever else runs once it was begun; then each counts as a test."""

    def begin_beside(self) -> None:
        self.file = Path(tempfile.mkdtemp()) / "outcomes.json"
        self.said = self.file.with_suffix(".txt").open("w+")
        self.process = subprocess.Popen(
            [
                "npx",
                "--no-install",
                "vitest",
                "run",
                "--reporter=json",
                f"--outputFile={self.file}",
            ],
            cwd=WEB,
            stdout=self.said,
            stderr=subprocess.STDOUT,
        )

    def run(self, result: TestResult | None = None) -> TestResult | None:
        if not hasattr(self, "process"):
            self.begin_beside()
        code = self.process.wait()
        told = json.loads(self.file.read_text()) if self.file.exists() else {"testResults": []}
        cases = [
            _case(one["name"], case)
            for one in told["testResults"]
            for case in one["assertionResults"]
        ]
        self.said.seek(0)
        fault = "" if cases and not code else _faults(told) + self.said.read()
        self.said.close()
        for case in (Case("all of them", fault), *cases):
            case.run(result)
        return result

    def test_all(self) -> None:
        """Found by its name; ``run`` does the rest."""


class Case(SimpleTestCase):
    """One case of the front end's, with how it went."""

    def __init__(self, name: str, fault: str) -> None:
        super().__init__("holds")
        self.name, self.fault = name, fault

    def holds(self) -> None:
        if self.fault:
            self.fail(self.fault)

    def id(self) -> str:
        return f"{super().id()}: {self.name}"

    def __str__(self) -> str:
        return self.name


def _case(file: str, case: dict[str, Any]) -> Case:
    fault = ""
    if case["status"] != "passed":
        fault = "\n".join(case.get("failureMessages") or [f"it was {case['status']}"])
    return Case(f"{Path(file).relative_to(WEB / 'src')}: {case['fullName']}", fault)


def _faults(told: dict[str, Any]) -> str:
    """Return what is said of files that could not be read."""
    said = [one.get("message", "") for one in told["testResults"]]
    return "\n".join(filter(None, ["the front end's tests failed", *said, ""]))
