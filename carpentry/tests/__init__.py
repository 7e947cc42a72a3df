"""Tests of the trade's rules and of planning. How fast a machine is decides nothing."""

from hypothesis import HealthCheck, settings

settings.register_profile(
    "any machine", deadline=None, suppress_health_check=[HealthCheck.too_slow]
)
settings.load_profile("any machine")
