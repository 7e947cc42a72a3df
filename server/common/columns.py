"""Columns and contracts made from the fields that a builder types: each is defined once."""

from typing import Annotated, Any

from django.db import models
from pydantic import BaseModel, Field, create_model

from carpentry.language import Typed, typed_fields, usual_values

_OPTIONAL: dict[type, Any] = {str: str | None, bool: bool | None, int: int | None}


def typed_columns(of: type[Any], called: str, module: str, *leave: str) -> Any:
    """An abstract model with a column for every typed text, but those to ``leave``."""
    usual = usual_values(of)
    columns = {
        name: _column(way, usual[name])
        for name, way in typed_fields(of).items()
        if name not in leave
    }
    meta = type("Meta", (), {"abstract": True})
    return type(called, (models.Model,), columns | {"Meta": meta, "__module__": module})


def _column(way: Typed, usual: Any) -> "models.Field[Any, Any]":
    if isinstance(usual, bool):
        return models.BooleanField(default=usual)
    if isinstance(usual, int):
        return models.PositiveIntegerField(default=usual)
    return models.CharField(max_length=way.most, default=usual, blank=True)


def shown_fields(of: type[Any], called: str, *leave: str) -> type[BaseModel]:
    """The typed fields as they are answered."""
    usual = usual_values(of)
    kept = {name: (type(usual[name]), ...) for name in typed_fields(of) if name not in leave}
    return create_model(called, **kept)  # type: ignore[call-overload,no-any-return]


def given_fields(of: type[Any], called: str, base: type[Any], *leave: str) -> type[Any]:
    """Those of the typed fields that a request gives."""
    usual = usual_values(of)
    kept = {
        name: (_OPTIONAL[type(usual[name])], None) for name in typed_fields(of) if name not in leave
    }
    return create_model(called, __base__=base, **kept)  # type: ignore[call-overload,no-any-return]


def told_fields(of: type[Any], called: str, base: type[Any]) -> type[Any]:
    """The typed fields of something that happened: what is not told is as usual."""
    usual = usual_values(of)
    kept = {
        name: (
            Annotated[str, Field(max_length=way.most)] if isinstance(usual[name], str) else int,
            usual[name],
        )
        for name, way in typed_fields(of).items()
    }
    return create_model(called, __base__=base, **kept)  # type: ignore[call-overload,no-any-return]


def given(request: Any, *leave: str) -> dict[str, Any]:
    """The fields that a request gives a value, texts without spaces around them, without what every
    change carries."""
    told = request.dict(exclude_none=True, exclude={"version", "change_id", *leave})
    return {name: one.strip() if isinstance(one, str) else one for name, one in told.items()}
