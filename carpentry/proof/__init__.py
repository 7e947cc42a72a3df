"""Proofs that no purchase is cheaper, small enough to be checked by adding up.

A proof gives every part a worth, and says how much worth one board of each stock holds at the most,
and what all parts are worth together. ``check_proof`` works every figure out anew, in whole numbers
and with code that the planner does not share. ``prove`` writes a proof down from the worths that a
plan was found with.
"""

from carpentry.proof.answer import proof_answer, proof_faults
from carpentry.proof.check import check_proof, least_left
from carpentry.proof.proof import Line, Proof, proof_document, read_proof
from carpentry.proof.prove import is_proved_soon, prove, with_proof

__all__ = [
    "Line",
    "Proof",
    "check_proof",
    "is_proved_soon",
    "least_left",
    "proof_answer",
    "proof_document",
    "proof_faults",
    "prove",
    "read_proof",
    "with_proof",
]
