"""Tests of the trade's rules and of planning. How fast a machine is decides nothing.

Random cases are few and always the same ones, so that the tests are quick and red for a reason;
``make torture`` tries many, and others each time.
"""

import os

from hypothesis import HealthCheck, settings

TORTURE = os.environ.get("GRAIN_TALLY_TORTURE") == "1"

settings.register_profile(
    "any machine",
    deadline=None,
    suppress_health_check=[HealthCheck.too_slow],
    derandomize=not TORTURE,
    max_examples=300 if TORTURE else 40,
)
settings.load_profile("any machine")


def often(few: int, many: int) -> int:
    """How many random cases are tried: a few, or under ``make torture`` many."""
    return many if TORTURE else few


def seeds(few: int, many: int, first: int = 0) -> range:
    """The seeds of as many random cases."""
    return range(first, first + often(few, many))
