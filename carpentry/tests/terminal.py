"""The terminal's commands, run within the tests' own process."""

import io
import sys
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from pathlib import Path
from unittest.mock import patch

from carpentry.__main__ import main

ROOT = Path(__file__).parents[2]


@dataclass(frozen=True)
class Ran:
    returncode: int
    stdout: str
    stderr: str


def run(*arguments: str, given: str = "") -> Ran:
    """Run ``python -m carpentry`` with ``given`` on standard input."""
    typed = io.TextIOWrapper(io.BytesIO(given.encode()), encoding="utf-8")
    with (
        patch.object(sys, "stdin", typed),
        redirect_stdout(io.StringIO()) as out,
        redirect_stderr(io.StringIO()) as err,
    ):
        try:
            code = main(list(arguments))
        except SystemExit as refused:  # by the parser of arguments
            code = int(refused.code or 0)
    return Ran(code, out.getvalue(), err.getvalue())
