"""What belongs to a builder: to anybody else it does not exist."""

from typing import Any, Self, TypeVar, cast

from django.db import models
from django.http import HttpRequest
from django.shortcuts import get_object_or_404

T = TypeVar("T", bound=models.Model)


class OwnedQuerySet(models.QuerySet[Any]):
    """Rows with an ``owner``."""

    def of(self, user: Any) -> Self:
        """What belongs to a user."""
        return self.filter(owner=user)


def owned(model: type[T], request: HttpRequest, id: Any) -> T:
    """The signed-in builder's row of a model. Raises ``Http404`` where there is none."""
    found: Any = get_object_or_404(model.objects.of(request.user), id=id)
    found.owner = request.user
    return cast(T, found)
