"""The API of materials: the book's woods, and materials of one's own."""

import uuid

from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import Router

from carpentry.language import CarpentryError
from carpentry.lumber import MAX_OWN
from server.common.columns import given
from server.common.schemas import ConflictOut, ErrorOut, SeenIn
from server.stocks.models import OwnMaterial, OwnMaterials
from server.stocks.schemas import MaterialsOut, OwnMaterialIn
from server.stocks.showing import show_materials

router = Router(tags=["materials"])
CHANGE = {200: MaterialsOut, 404: ErrorOut, 409: ConflictOut[MaterialsOut], 422: ErrorOut}


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
    told = given(fields)

    def make(materials: OwnMaterials) -> str:
        row = materials.rows.filter(id=material_id).first()
        added = row is None or row.put_away
        if row and not added:
            told.pop("name", None)
            told.pop("form", None)
        else:
            row = row or _new_row(materials, material_id, told.get("name", ""))
            row.put_away = False
        for name, value in told.items():
            setattr(row, name, value)
        row.full_clean()
        row.save()
        if added:
            return f"{row} added"
        return f"{row}: {', '.join(_said(name, value) for name, value in told.items())}"

    materials.change(fields.version, fields.change_id, "material", make)
    return show_materials(materials)


def _said(name: str, value: str) -> str:
    """A field that was typed over, in words."""
    if name == "exposure":
        return f"may stand {value}"
    if not value.strip():
        return f"{name} taken away"
    return f"{name} {value} kg/m³" if name == "density" else f"{name} {value}"


def _new_row(materials: OwnMaterials, material_id: uuid.UUID, name: str) -> OwnMaterial:
    """A new material; one of that name that was put away is taken up again."""
    if materials.rows.filter(put_away=False).count() >= MAX_OWN:
        raise CarpentryError(f"{MAX_OWN} materials of your own are the most")
    key = " ".join(name.lower().split())
    known = materials.rows.filter(key=key).first()
    if known and not known.put_away:
        raise CarpentryError("you have a material of this name", "name")
    return known or OwnMaterial(id=material_id, materials=materials)


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
