"""The fields that builders type, for the forms of the front end."""

import json
from dataclasses import asdict
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from carpentry.design import PartFields
from carpentry.design.questions import QUESTIONS
from carpentry.design.runs import RunFields
from carpentry.design.shapes import PLACED_ASKS, SHAPES
from carpentry.language import typed_fields, usual_values
from carpentry.project import SettingFields
from carpentry.project.settings import SAW

EXPORTED = {"PART_FIELDS": PartFields, "RUN_FIELDS": RunFields, "SETTINGS": SettingFields}


class Command(BaseCommand):
    help = "Writes the fields and questions of carpentry as the front end's module api/fields.ts."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("--shapes", action="store_true", help="shapes, as api/shapes.ts")

    def handle(self, *args: Any, **options: Any) -> None:
        self.stdout.write(
            "/** Made from the definitions of the fields: make schema. */\n", ending=""
        )
        if options["shapes"]:
            rows = json.dumps(list(_shapes()), indent=2, ensure_ascii=False)
            self.stdout.write(f"export const SHAPES = {rows} as const\n", ending="")
            return
        for name, of in EXPORTED.items():
            rows = json.dumps(list(_rows(of)), indent=2, ensure_ascii=False)
            self.stdout.write(f"export const {name} = {rows} as const\n", ending="")
        rows = json.dumps(
            [{k: v for k, v in asdict(one).items() if k != "formula"} for one in QUESTIONS],
            indent=2,
            ensure_ascii=False,
        )
        self.stdout.write(f"export const QUESTIONS = {rows} as const\n", ending="")


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
