"""The contract between server and front end: the API schema, and the fields builders type."""

import json
from collections.abc import Iterable
from dataclasses import asdict
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core.management.base import BaseCommand, CommandError, CommandParser
from ninja.responses import NinjaJSONEncoder

from carpentry.design import PartFields
from carpentry.design.questions import QUESTIONS
from carpentry.design.runs import RunFields
from carpentry.design.shapes import PLACED_ASKS, SHAPES
from carpentry.language import typed_fields, usual_values
from carpentry.project import SettingFields
from carpentry.project.settings import SAW
from server.site.api import api

EXPORTED = {"PART_FIELDS": PartFields, "RUN_FIELDS": RunFields, "SETTINGS": SettingFields}
WEB = settings.ROOT / "web" / "src" / "api"


class Command(BaseCommand):
    help = "Writes openapi.json and the front end's fields.ts and shapes.ts, or checks them."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--check", action="store_true", help="only say what is out of step")

    def handle(self, *args: Any, check: bool, **options: Any) -> None:
        for file, text in _files().items():
            if not check:
                file.write_text(text)
            elif not file.exists() or file.read_text() != text:
                raise CommandError(f"{file.relative_to(settings.ROOT)} is out of step: make schema")


def _files() -> dict[Path, str]:
    """The text of each file."""
    fields = {name: list(_rows(of)) for name, of in EXPORTED.items()}
    asked = [{k: v for k, v in asdict(one).items() if k != "formula"} for one in QUESTIONS]
    schema = json.dumps(api.get_openapi_schema(), cls=NinjaJSONEncoder, indent=1, sort_keys=True)
    return {
        settings.ROOT / "server" / "openapi.json": f"{schema}\n",
        WEB / "fields.ts": _module(fields | {"QUESTIONS": asked}),
        WEB / "shapes.ts": _module({"SHAPES": list(_shapes())}),
    }


def _module(constants: dict[str, Iterable[Any]]) -> str:
    """A module of the front end that says these."""
    said = [
        f"export const {name} = {json.dumps(rows, indent=2, ensure_ascii=False)} as const\n"
        for name, rows in constants.items()
    ]
    return "/** Made from the definitions of the fields: make schema. */\n" + "".join(said)


def form_fields(of: type[Any]) -> list[str]:
    """The names of the fields that forms ask for: what saws can do is asked of tools."""
    return [name for name in typed_fields(of) if name not in SAW]


def _rows(of: type[Any]) -> Any:
    usual = usual_values(of)
    for name in form_fields(of):
        way = typed_fields(of)[name]
        kind = "flag" if isinstance(usual[name], bool) else "choice" if way.words else "text"
        yield {
            "name": name,
            "heading": way.heading,
            "help": way.help,
            "kind": "whole" if type(usual[name]) is int else kind,
            "isLength": way.is_length,
            "group": way.group,
            "choices": [
                {"value": value, "title": title}
                for value, title in zip(way.choices, way.words, strict=True)
            ]
            if way.words
            else [],
        }


def _shapes() -> Any:
    """What there is to build, and what each asks for; what is asked of all comes last."""
    for shape in SHAPES.values():
        yield {
            "name": shape.name,
            "heading": shape.heading,
            "help": shape.help,
            "caution": shape.caution,
            "asks": [asdict(one) for one in (*shape.asks, *PLACED_ASKS)],
        }
