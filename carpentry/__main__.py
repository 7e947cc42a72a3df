"""The terminal: ``python -m carpentry plan FILE``, and ``work`` for the server's planner."""

import argparse
import json
import sys
from pathlib import Path
from time import monotonic

from carpentry.cutting import Budget, Status, plan_cuts, plan_document, read_problem
from carpentry.document import Json
from carpentry.errors import CarpentryError
from carpentry.worker import serve

COMPLETE, WRONG_INPUT, PARTS_LEFT = 0, 2, 3


def _plan(file: str, seconds: float) -> int:
    started = monotonic()
    try:
        text = sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()
        problem = read_problem(text)
    except OSError as error:
        print(f"{file}: {error.strerror}", file=sys.stderr)
        return WRONG_INPUT
    except CarpentryError as error:
        print(error, file=sys.stderr)
        return WRONG_INPUT
    plan = plan_cuts(problem, Budget(seconds))
    document = plan_document(plan, problem.unit, monotonic() - started)
    print(json.dumps(document, indent=1, ensure_ascii=False))
    return PARTS_LEFT if plan.status is Status.INCOMPLETE else COMPLETE


def _work() -> int:
    def say(answer: Json) -> None:
        print(json.dumps(answer), flush=True)

    serve(sys.stdin, say)
    return COMPLETE


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; returns the exit code (0 done, 2 wrong input, 3 some parts left out)."""
    parser = argparse.ArgumentParser(prog="python -m carpentry")
    commands = parser.add_subparsers(dest="command", required=True)
    plan = commands.add_parser("plan", help="plan the cuts of a problem file")
    plan.add_argument("file", help="a cut problem (JSON), or - for standard input")
    plan.add_argument("--seconds", type=float, default=10.0, help="time limit (default 10)")
    commands.add_parser("work", help="plan jobs from standard input, one JSON object per line")
    given = parser.parse_args(arguments)
    if given.command == "work":
        return _work()
    return _plan(given.file, given.seconds)


if __name__ == "__main__":
    sys.exit(main())
