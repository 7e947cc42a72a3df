"""The terminal: ``python -m carpentry COMMAND``, JSON out."""

import argparse
import json
import os
import sys
from collections.abc import Callable
from contextlib import suppress
from pathlib import Path
from time import monotonic

from carpentry import answers
from carpentry.cutting import (
    CutPlan,
    CutProblem,
    Status,
    plan_document,
    plan_within,
    problem_document,
    read_problem,
)
from carpentry.design.measures import worked_document
from carpentry.design.runs import run_document
from carpentry.design.shapes import shape_document
from carpentry.language import CarpentryError, Json
from carpentry.lumber import Rounding
from carpentry.planning import build_document, is_complete, plan_all, work_up_files
from carpentry.project import read_project_file, read_rack_file, read_yard_file
from carpentry.proof import proof_answer, proof_document, prove
from carpentry.shop import read_tools_file, set_ups_of, shop_document
from carpentry.time.days_file import days_answer
from carpentry.time.steps_file import days_of_build
from carpentry.worker import serve

COMPLETE, WRONG_INPUT, PARTS_LEFT = 0, 2, 3
REFUSED = 3  # a proof
_GIVES_WAY = 5


def _refused(error: OSError | CarpentryError) -> int:
    """Says what cannot be read."""
    text = f"{error.filename}: {error.strerror}" if isinstance(error, OSError) else str(error)
    print(text, file=sys.stderr)
    return WRONG_INPUT


def _bytes_of(file: str) -> bytes:
    """A file, or what comes from standard input for ``-``. Raises ``OSError``."""
    return sys.stdin.buffer.read() if file == "-" else Path(file).read_bytes()


def _plan(file: str, seconds: float, *, proof: bool) -> int:
    started = monotonic()
    try:
        problem = read_problem(_bytes_of(file))
    except (OSError, CarpentryError) as error:
        return _refused(error)
    plan = plan_within(problem, seconds)
    document = plan_document(plan, problem.unit, monotonic() - started)
    if proof:
        document["proof"] = _proof_of(problem, plan)
    print(json.dumps(document, indent=1, ensure_ascii=False))
    return PARTS_LEFT if plan.status is Status.INCOMPLETE else COMPLETE


def _proof_of(problem: CutProblem, plan: CutPlan) -> Json | None:
    """The proof of a plan, as far as it goes; ``None`` where parts have no board."""
    if plan.unplaced:
        return None
    return plan.proof or proof_document(prove(problem, plan.price, plan.worths))


def _check_proof(problem: str, proof: str) -> int:
    try:
        accepted, said = proof_answer(_bytes_of(problem), _bytes_of(proof))
    except (OSError, CarpentryError) as error:
        return _refused(error)
    print("accepted" if accepted else "refused", *said, sep="\n")
    return COMPLETE if accepted else REFUSED


def _build(project: str, yard: str, rack: str, tools: str, seconds: float, *, proof: bool) -> int:
    read = {name: file for name, file in (("yard", yard), ("rack", rack), ("tools", tools)) if file}
    try:
        texts = {name: Path(file).read_bytes() for name, file in read.items()}
        text = _bytes_of(project)
        chosen = read_yard_file(texts["yard"]) if yard else None
        known = {one.name: one for one in chosen.materials} if chosen else {}
        found = read_project_file(text, known)
        known |= {one.name: one for one in found.materials}
        boards = read_rack_file(texts["rack"], known) if rack else []
        owned = read_tools_file(texts["tools"]) if tools else None
    except (OSError, CarpentryError) as error:
        return _refused(error)
    work = work_up_files(found, chosen, boards, owned.limits if owned else None)
    plans = plan_all(work, seconds)
    document = build_document(work, plans) | set_ups_of(work, plans, owned, found.work)
    document |= days_of_build(found, work, plans, owned)
    if proof:
        document["proofs"] = [
            {
                "of": material.called,
                "problem": problem_document(problem),
                "proof": _proof_of(problem, plan),
            }
            for material, problem, plan in zip(work.materials, work.problems, plans, strict=True)
            if problem and plan
        ]
    print(json.dumps(document, indent=1, ensure_ascii=False))
    return COMPLETE if is_complete(work, plans) else PARTS_LEFT


def _work() -> int:
    os.nice(_GIVES_WAY)  # to whoever waits for an answer

    def say(answer: Json) -> None:
        print(json.dumps(answer), flush=True)

    with suppress(BrokenPipeError):  # whoever asked is gone
        serve(sys.stdin, say)
    return COMPLETE


def _answer(ask: Callable[[], Json | list[Json]]) -> int:
    """Prints what ``ask`` finds, or on standard error what cannot be read."""
    try:
        found = ask()
    except (OSError, CarpentryError) as error:
        return _refused(error)
    print(json.dumps(found, indent=1, ensure_ascii=False))
    return COMPLETE


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="python -m carpentry")
    commands = parser.add_subparsers(dest="command", required=True)
    plan = commands.add_parser("plan", help="plan the cuts of a problem file")
    plan.add_argument("file", help="a cut problem (JSON), or - for standard input")
    plan.add_argument("--seconds", type=float, default=10.0, help="time limit (default 10)")
    plan.add_argument("--proof", action="store_true", help="with its proof, to be checked")
    build = commands.add_parser("build", help="plan and price a whole project from files")
    build.add_argument("project", help="a project (JSON), or - for standard input")
    build.add_argument("--yard", default="", help="a yard's prices (JSON)")
    build.add_argument("--rack", default="", help="boards on hand (JSON)")
    build.add_argument("--tools", default="", help="tools owned (JSON): their limits")
    build.add_argument("--seconds", type=float, default=10.0, help="time limit (default 10)")
    build.add_argument("--proof", action="store_true", help="with its proofs, to be checked")
    check = commands.add_parser("check-proof", help="check that no cheaper purchase exists")
    check.add_argument("problem", help="the cut problem (JSON)")
    check.add_argument("proof", help="what plan --proof or build --proof answered, or -")
    commands.add_parser("work", help="plan jobs from standard input, one JSON object per line")
    size = commands.add_parser("size", help="look a size up in the size book")
    size.add_argument("name", help='such as "5/4x6 cedar", "8/4", "2x10 green", "38x89"')
    nominal = commands.add_parser("nominal", help="what to buy for a finished size")
    nominal.add_argument("--thickness", required=True)
    nominal.add_argument("--width", required=True)
    feet = commands.add_parser("boardfeet", help="board feet of measured pieces")
    for name in ("thickness", "width", "length"):
        feet.add_argument(name)
    feet.add_argument("--count", default="1")
    feet.add_argument("--rounding", choices=[r.value for r in Rounding], default="each")
    worked = commands.add_parser("work-out", help="work measures out from their formulas")
    worked.add_argument("file", help="measures (JSON), or - for standard input")
    run = commands.add_parser("run", help="lay equal things along a length")
    run.add_argument("file", help="a run (JSON), or - for standard input")
    shape = commands.add_parser("shape", help="what a shape writes: parts, joints, marks")
    shape.add_argument("file", help="a shape (JSON), or - for standard input")
    shop = commands.add_parser("shop", help="set-ups for parts, tools and boards alone")
    shop.add_argument("file", help="parts and tools (JSON), or - for standard input")
    days = commands.add_parser("days", help="when steps are done, and by when to begin")
    days.add_argument("file", help="steps, free hours and waits (JSON), or - for standard input")
    days.add_argument("--seconds", type=float, default=8.0, help="time limit (default 8)")
    straight = commands.add_parser("straighten", help="the straight strip in a crooked board")
    straight.add_argument("--width", required=True)
    straight.add_argument("--crook", default="0")
    straight.add_argument("--corners", default="0", help="rounded corner, per straightened edge")
    straight.add_argument("--edges", choices=["1", "2"], default="1")
    return parser


def main(arguments: list[str] | None = None) -> int:
    """Runs one command; returns the exit code (0 done, 2 wrong input, 3 some parts left out,
    or a proof refused)."""
    given = _parser().parse_args(arguments)
    match given.command:
        case "plan":
            return _plan(given.file, given.seconds, proof=given.proof)
        case "check-proof":
            return _check_proof(given.problem, given.proof)
        case "build":
            files = (given.project, given.yard, given.rack, given.tools)
            return _build(*files, given.seconds, proof=given.proof)
        case "work":
            return _work()
        case "work-out":
            return _answer(lambda: worked_document(_bytes_of(given.file)))
        case "run":
            return _answer(lambda: run_document(_bytes_of(given.file)))
        case "shape":
            return _answer(lambda: shape_document(_bytes_of(given.file)))
        case "shop":
            return _answer(lambda: shop_document(_bytes_of(given.file)))
        case "days":
            return _answer(lambda: days_answer(_bytes_of(given.file), given.seconds))
        case "size":
            return _answer(lambda: answers.size(given.name))
        case "nominal":
            return _answer(lambda: answers.nominal(given.thickness, given.width))
        case "boardfeet":
            return _answer(
                lambda: answers.board_feet(
                    (given.thickness, given.width, given.length), given.count, given.rounding
                )
            )
        case _:
            return _answer(
                lambda: answers.straighten(
                    given.width, given.crook, given.corners, int(given.edges)
                )
            )


if __name__ == "__main__":
    sys.exit(main())
