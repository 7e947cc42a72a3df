"""A proof checked against its problem, as files."""

from collections.abc import Iterator
from decimal import Decimal, InvalidOperation

from carpentry.cutting.check import check_plan
from carpentry.cutting.plan_file import read_plan
from carpentry.cutting.problem import CutProblem
from carpentry.cutting.problem_file import problem_document, read_problem
from carpentry.language import CarpentryError, Json, PlanCheckError, Problem, Reader, parse_json
from carpentry.proof.check import check_proof, least_left
from carpentry.proof.proof import Proof, read_proof
from carpentry.proof.prove import is_proved_soon


def proof_answer(problem_text: str | bytes, proof_text: str | bytes) -> tuple[bool, list[str]]:
    """Whether the proof of a plan (or a proof alone) is accepted for a cut problem, and why, in
    words. Where there is a plan, its boards are replayed, and it may claim no higher bound than
    what is proven.

    Raises ``CarpentryError`` for what cannot be read.
    """
    problem = read_problem(problem_text)
    answer = parse_json(proof_text)
    document = _proof_in(answer, problem)
    reader = Reader(document, "proof")
    proof = read_proof(reader)
    reader.raise_problems()
    wrong = [str(fault) for fault in check_proof(problem, proof)]
    if "layouts" in answer and "proofs" not in answer:
        wrong += _plan_faults(problem, answer, proof)
    elif not wrong and not proof.is_whole:
        wrong.append(f"no purchase below {proof.checked:f} is possible: not up to {proof.price:f}")
    if wrong:
        return False, wrong
    said = f"no purchase below {proof.checked:f} holds all parts"
    return True, [said if not proof.is_whole else f"{said}, and the plan costs no more"]


def proof_faults(problem: CutProblem, plan: Json) -> list[Problem]:
    """What is wrong with the proof in the document of a plan; nothing where there is none. All of
    it is worked out anew where that takes a moment; else that it is of this price, and adds up."""
    document = plan.get("proof")
    if document is None:
        return []
    reader = Reader(document, "proof")
    proof = read_proof(reader)
    if reader.problems:
        return list(reader.problems)
    faults = []
    if proof.price != Decimal(plan["price"]):
        faults.append(Problem("price", f"is of {proof.price:f}"))
    if is_proved_soon(problem):
        return [*faults, *check_proof(problem, proof)]
    if least_left(problem, proof) != proof.checked:
        faults.append(Problem("checked", "does not add up"))
    return faults


def _proof_in(answer: Json, problem: CutProblem) -> Json:
    """The proof in the answer of ``plan`` or ``build``, or the answer itself."""
    found = answer.get("proof")
    if isinstance(found, dict):
        return found
    several = answer.get("proofs")
    if isinstance(several, list):
        known = problem_document(problem)
        for one in several:
            if isinstance(one, dict) and one.get("problem") == known:
                inner = one.get("proof")
                if isinstance(inner, dict):
                    return inner
        raise CarpentryError("none of these proofs is of that problem", "proofs")
    if "proof" in answer:
        raise CarpentryError("there is none: parts have no board", "proof")
    return answer


def _plan_faults(problem: CutProblem, answer: Json, proof: Proof) -> Iterator[str]:
    """Faults of the plan that a proof belongs to."""
    try:
        plan = read_plan(answer, problem.unit)
        claimed = Decimal(answer["bound"])
    except (KeyError, TypeError, ValueError, AttributeError, InvalidOperation) as error:
        raise CarpentryError("is no plan that can be read", "layouts") from error
    try:
        check_plan(problem, plan)
    except PlanCheckError as refused:
        yield from map(str, refused.problems)
    if plan.price != proof.price:
        yield f"price: the plan asks for {plan.price:f}, the proof is of {proof.price:f}"
    if claimed > proof.checked:
        yield f"bound: {claimed:f} is claimed, {proof.checked:f} proven"
