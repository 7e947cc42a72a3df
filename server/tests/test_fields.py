"""A field is defined once: columns, contracts, tables, documents and forms follow from it."""

import json
from unittest import TestCase

from django.conf import settings

from carpentry.buying import PRICE_COLUMNS, PriceFields
from carpentry.design import PART_COLUMNS, PartFields
from carpentry.design.measures import MeasureFields
from carpentry.design.runs import RunFields
from carpentry.language import typed_fields
from carpentry.lumber.rack import BoardFields
from carpentry.project import SettingFields
from carpentry.project.settings import SAW
from carpentry.trip import Event
from server.projects.models import Measure, Part, Project, Run
from server.projects.schemas import (
    MeasureOut,
    MeasurePatchIn,
    PartOut,
    PartPatchIn,
    ProjectOut,
    ProjectPatchIn,
    RunIn,
    RunOut,
    RunPatchIn,
)
from server.rack.models import RackBoard
from server.rack.schemas import RackBoardIn, RackBoardOut
from server.site.management.commands.export_contract import EXPORTED, form_fields
from server.trips.schemas import EventIn
from server.yards.models import PriceLine
from server.yards.schemas import PriceLineIn, PriceLineOut


def columns(
    model: type[Part | Measure | Run | Project | RackBoard | PriceLine],
) -> dict[str, int | None]:
    return {one.name: getattr(one, "max_length", None) for one in model._meta.concrete_fields}


class FieldsTest(TestCase):
    def test_every_field_has_its_column_as_long_as_it_may_be(self) -> None:
        for of, model in (
            (PartFields, Part),
            (MeasureFields, Measure),
            (RunFields, Run),
            (SettingFields, Project),
            (BoardFields, RackBoard),
            (PriceFields, PriceLine),
        ):
            known = columns(model)
            for name, way in typed_fields(of).items():
                if name == "yard" or name in SAW:  # whose line it is; what the tools say
                    continue
                self.assertIn(known[name], {way.most, None}, f"{model.__name__}.{name}")

    def test_every_field_is_in_the_contract(self) -> None:
        for of, *schemas in (
            (PartFields, PartOut, PartPatchIn),
            (MeasureFields, MeasureOut, MeasurePatchIn),
            (RunFields, RunOut, RunPatchIn, RunIn),
            (SettingFields, ProjectOut, ProjectPatchIn),
            (BoardFields, RackBoardOut, RackBoardIn),
            (PriceFields, PriceLineOut, PriceLineIn),
            (Event, EventIn),
        ):
            for schema in schemas:
                missing = set(typed_fields(of)) - set(schema.model_fields) - {"yard", *SAW}
                self.assertEqual(missing, set(), schema.__name__)

    def test_every_field_is_a_column_of_its_table(self) -> None:
        self.assertEqual(PART_COLUMNS, tuple(typed_fields(PartFields)))
        self.assertEqual(PRICE_COLUMNS, tuple(typed_fields(PriceFields)))

    def test_the_forms_know_them_all(self) -> None:
        module = (settings.ROOT / "web/src/api/fields.ts").read_text()
        for name, of in EXPORTED.items():
            block = module[module.index(f"export const {name}") :].partition(" as const")[0]
            told = [row["name"] for row in json.loads(block.partition(" = ")[2])]
            self.assertEqual(told, form_fields(of))

    def test_the_contract_says_no_more_than_the_definitions(self) -> None:
        contract = json.loads((settings.ROOT / "server/openapi.json").read_text())
        patch = contract["components"]["schemas"]["PartPatchIn"]["properties"]
        self.assertEqual(set(patch), {*typed_fields(PartFields), "version", "change_id"})
