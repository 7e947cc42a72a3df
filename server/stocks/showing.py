"""Materials in the words of the API's contract."""

from dataclasses import asdict
from fractions import Fraction

from carpentry.lumber import (
    TREATED,
    TREATED_FOR_GROUND,
    WOODS,
    Exposure,
    Species,
    pounds,
    rounded,
)
from server.common.schemas import section_out
from server.history.showing import shows
from server.stocks.models import OwnMaterial, OwnMaterials
from server.stocks.schemas import MaterialsOut, OwnMaterialOut, WoodOut

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
        used=row.materials.owner.project_set.filter(parts__stock__iexact=row.key).count(),
    )


@shows(OwnMaterials)
def show_materials(materials: OwnMaterials) -> MaterialsOut:
    """The book's woods and the builder's own materials."""
    return MaterialsOut(
        version=materials.version,
        woods=[_wood(one) for one in (TREATED, TREATED_FOR_GROUND, *WOODS)],
        own=[_own(row) for row in materials.rows.filter(put_away=False)],
        exposures=list(Exposure),
        **asdict(materials.labels),
    )
