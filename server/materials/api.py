"""The API of materials: the book's woods, and materials of one's own."""

import uuid
from fractions import Fraction
from typing import Any

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.errors import CarpentryError
from carpentry.sizes import (
    MAX_OWN,
    TREATED,
    TREATED_FOR_GROUND,
    WOODS,
    Exposure,
    Species,
    pounds,
    rounded,
)
from server.config.schemas import ErrorOut
from server.materials.models import OwnMaterial, OwnMaterials
from server.materials.schemas import (
    MaterialsConflictOut,
    MaterialsOut,
    OwnFieldsIn,
    OwnMaterialIn,
    OwnMaterialOut,
    WoodOut,
)
from server.plans.effects import effect_of_material
from server.plans.schemas import EffectOut, section_out
from server.projects.models import Part
from server.projects.schemas import SeenIn

router = Router(tags=["materials"])
CHANGE = {200: MaterialsOut, 404: ErrorOut, 409: MaterialsConflictOut, 422: ErrorOut}
CUBIC_FOOT = Fraction(3048, 10_000) ** 3  # in m³, exactly
NOTATION = "1/64"


def _wood(species: Species) -> WoodOut:
    density = species.density()
    assert density is not None and species.exposure, "the woods of the book are known"
    return WoodOut(
        word=species.word,
        name=species.name,
        kilograms_per_m3=f"{rounded(density, '1')}",
        pounds_per_foot3=f"{rounded(pounds(density) * CUBIC_FOOT)}",
        exposure=species.exposure,
        caution=species.caution,
    )


def _own(row: OwnMaterial) -> OwnMaterialOut:
    read = row.read()
    section = section_out(read.section, NOTATION)
    assert section is not None
    return OwnMaterialOut(
        id=row.id,
        name=row.name,
        form=row.form,
        thickness=row.thickness,
        width=row.width,
        density=row.density,
        kind=row.kind,
        exposure=row.exposure,
        caution=row.caution,
        section=section,
        kilograms_per_m3=f"{read.density:f}",
        used=Part.objects.filter(project__owner=row.materials.owner, stock__iexact=row.key).count(),
    )


def show_materials(materials: OwnMaterials) -> MaterialsOut:
    """The book's woods and the builder's own materials."""
    newest = materials.revision(materials.version)
    return MaterialsOut(
        version=materials.version,
        woods=[_wood(one) for one in (TREATED, TREATED_FOR_GROUND, *WOODS)],
        own=[_own(row) for row in materials.rows.filter(put_away=False)],
        exposures=list(Exposure),
        undo=materials.undo_label,
        redo=materials.redo_label,
        change=newest.label if newest else "",
    )


@router.get("/materials", response=MaterialsOut)
def get_materials(request: HttpRequest) -> MaterialsOut:
    """Woods and treatments, and materials of one's own."""
    return show_materials(OwnMaterials.of(request.user))


@router.put("/materials/{uuid:material_id}", response=CHANGE)
def write_material(
    request: HttpRequest, material_id: uuid.UUID, fields: OwnMaterialIn
) -> MaterialsOut:
    """Adds a material under this id, or changes fields of it; its name stays."""
    materials = OwnMaterials.of(request.user)
    given: dict[str, Any] = {
        name: value.strip()
        for name, value in fields.dict(exclude_none=True, exclude={"version", "change_id"}).items()
    }

    def make(materials: OwnMaterials) -> str:
        row = materials.rows.filter(id=material_id).first()
        added = row is None or row.put_away
        if row and not added:
            given.pop("name", None)
            given.pop("form", None)
        else:
            row = row or _new_row(materials, material_id, given.get("name", ""))
            row.put_away = False
        for name, value in given.items():
            setattr(row, name, value)
        row.full_clean()
        row.save()
        if added:
            return f"{row} added"
        return f"{row}: {', '.join(f'{name} {value}' for name, value in given.items())}"[:200]

    materials.change(fields.version, fields.change_id, "material", make)
    return show_materials(materials)


def _new_row(materials: OwnMaterials, material_id: uuid.UUID, name: str) -> OwnMaterial:
    """A new material; one of that name that was put away is taken up again."""
    if materials.rows.filter(put_away=False).count() >= MAX_OWN:
        raise CarpentryError(f"{MAX_OWN} materials of your own are the most")
    key = " ".join(name.lower().split())
    known = materials.rows.filter(key=key).first()
    if known and not known.put_away:
        raise CarpentryError("you have a material of this name", "name")
    return known or OwnMaterial(id=material_id, materials=materials)


@router.post(
    "/materials/{uuid:material_id}/effect",
    response={200: list[EffectOut], 404: ErrorOut, 422: ErrorOut},
)
def effect_of_changing(
    request: HttpRequest, material_id: uuid.UUID, fields: OwnFieldsIn
) -> list[EffectOut]:
    """The parts that another size of a material would change; keeps nothing."""
    row = get_object_or_404(OwnMaterials.of(request.user).rows, id=material_id)
    return effect_of_material(row, fields.dict(exclude_none=True))


@router.post("/materials/{uuid:material_id}/put-away", response=CHANGE)
def put_away(request: HttpRequest, material_id: uuid.UUID, seen: SeenIn) -> MaterialsOut:
    """Puts a material away; what names it is understood as before."""
    materials = OwnMaterials.of(request.user)

    def make(materials: OwnMaterials) -> str:
        row = get_object_or_404(materials.rows, id=material_id)
        row.put_away = True
        row.save()
        return f"{row} put away"

    materials.change(seen.version, seen.change_id, "material put away", make)
    return show_materials(materials)


@router.post("/materials/undo", response=CHANGE)
def undo_materials(request: HttpRequest, seen: SeenIn) -> MaterialsOut:
    """Takes the newest change back."""
    materials = OwnMaterials.of(request.user)
    materials.undo(seen.version, seen.change_id)
    return show_materials(materials)


@router.post("/materials/redo", response=CHANGE)
def redo_materials(request: HttpRequest, seen: SeenIn) -> MaterialsOut:
    """Brings back what the last undo took."""
    materials = OwnMaterials.of(request.user)
    materials.redo(seen.version, seen.change_id)
    return show_materials(materials)
