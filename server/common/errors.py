"""Carpentry's problems as Django's validation errors."""

from django.core.exceptions import NON_FIELD_ERRORS, ValidationError

from carpentry.language import CarpentryError


def as_validation_error(error: CarpentryError) -> ValidationError:
    """The same problems, by field."""
    by_field: dict[str, list[str]] = {}
    for problem in error.problems:
        by_field.setdefault(problem.place or NON_FIELD_ERRORS, []).append(problem.message)
    return ValidationError(by_field)
