"""The front end's own tests, each reported as one of these."""

import json
import subprocess
import tempfile
from pathlib import Path
from typing import Any
from unittest import TestLoader, TestSuite

from django.test import SimpleTestCase

WEB = Path(__file__).parent.parent / "web"
VITEST = ("npx", "--no-install", "vitest")


def _ask(*words: str) -> subprocess.CompletedProcess[str]:
    return subprocess.run([*VITEST, *words], cwd=WEB, capture_output=True, text=True, check=False)


class FrontEndTest(SimpleTestCase):
    """They are run once, all together, when the first of them is asked for."""

    outcomes: dict[str, Any]
    said: str

    @classmethod
    def setUpClass(cls) -> None:
        super().setUpClass()
        with tempfile.TemporaryDirectory() as folder:
            file = Path(folder) / "outcomes.json"
            run = _ask("run", "--reporter=json", f"--outputFile={file}")
            cls.said = run.stdout + run.stderr
            told = json.loads(file.read_text()) if file.exists() else {"testResults": []}
        cls.outcomes = {
            _name(one["name"], case["fullName"]): case
            for one in told["testResults"]
            for case in one["assertionResults"]
        }
        cls.outcomes["all"] = {"status": "passed" if run.returncode == 0 else "failed"}

    def holds(self, name: str) -> None:
        """Fails unless the case of that name was run and passed."""
        case = self.outcomes.get(name)
        if case is None:
            self.fail(f"{name} was not run:\n{self.said}")
        if case["status"] != "passed":
            self.fail("\n".join(case.get("failureMessages") or [self.said]))


def _name(file: str, case: str) -> str:
    """A case's name: its file, and what it says of it."""
    words = case.replace(" > ", " ")
    return f"{Path(file).relative_to(WEB / 'src')}: {words}"


def load_tests(_loader: TestLoader, tests: TestSuite, _pattern: str | None) -> TestSuite:
    """One test for each case that the front end has, and one for what belongs to none of them."""
    listed = _ask("list", "--json")
    names = [_name(case["file"], case["name"]) for case in json.loads(listed.stdout)]
    for name in ("all", *dict.fromkeys(names)):
        tests.addTest(_case(name))
    return tests


def _case(name: str) -> FrontEndTest:
    def case(self: FrontEndTest) -> None:
        self.holds(name)

    case.__doc__ = name
    setattr(FrontEndTest, name, case)
    return FrontEndTest(name)
