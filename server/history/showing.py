"""How things with a version are shown: each says so once, where it is at home."""

from collections.abc import Callable
from typing import Any, TypeVar

from pydantic import BaseModel

from server.history.models import Versioned

Show = Callable[[Any], BaseModel]
F = TypeVar("F", bound=Show)
_ways: dict[type[Versioned], Show] = {}


def shows(model: type[Versioned]) -> Callable[[F], F]:
    """Registers how a model is shown as it is now."""

    def register(show: F) -> F:
        _ways[model] = show
        return show

    return register


def shown(subject: Versioned) -> BaseModel:
    """A thing with a version as it is now."""
    return _ways[type(subject)](subject)
