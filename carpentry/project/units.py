"""A project in another unit of bare numbers: nothing changes its size."""

from dataclasses import replace

from carpentry.design import Part, PartFields, part_keeping_unit, read_part
from carpentry.design.ends import ends_spelled_out
from carpentry.language import CarpentryError, Unit, interchange, spelled_out, unambiguous
from carpentry.lumber import Lexicon
from carpentry.project.keeping import written_out
from carpentry.project.settings import SETTING_LENGTHS, SettingFields, Settings


def settings_in(settings: Settings, unit: Unit) -> SettingFields:
    """Settings as they are typed in another unit: usual ones become those that are usual there, all
    others are written out with the size they have."""
    fields = settings.fields
    usual_before, usual = SettingFields.usual(settings.unit), SettingFields.usual(unit)
    lengths = {}
    for name in SETTING_LENGTHS:
        ticks = settings.length(name)
        if getattr(fields, name) == getattr(usual_before, name):
            lengths[name] = getattr(usual, name)
        elif ticks is None:
            lengths[name] = ""
        else:
            lengths[name] = interchange(ticks, unit) if ticks else "0"
    return replace(
        fields,
        **lengths,
        unit=unit.value,
        notation=usual.notation,
        keep_from_of=written_out(settings.kept),
    )


def part_in(part: Part, lexicon: Lexicon, unit: Unit) -> PartFields:
    """A part as it is typed in another unit: texts that would be read as another length there are
    written out with the unit they were typed in, formulas say it.

    Raises ``CarpentryError`` for one whose size cannot be kept.
    """
    fields = part.fields
    formulas = part_keeping_unit(fields, lexicon.unit)
    spelled = {
        name: unambiguous(getattr(fields, name) or length.text, length.ticks, lexicon.unit)
        for name, length in part.lengths().items()
        if name not in formulas
    }
    again = replace(fields, **spelled, **_shaping_spelled_out(part, lexicon.unit), **formulas)
    if formulas:
        return again
    if read_part(again, lexicon.in_unit(unit)).length.ticks != part.length.ticks:
        raise CarpentryError(f"{part.name} would change its size", "unit")
    return again


def _shaping_spelled_out(part: Part, unit: Unit) -> dict[str, str]:
    """Clipped ends, notches and outline of a part with the unit of every figure."""
    found: dict[str, str] = {}
    if any(end.stub for end in part.ends):
        found["ends"] = ends_spelled_out(part.fields.ends, unit)
    if part.notches:
        found["notches"] = "; ".join(one.spelled_out(unit) for one in part.notches)
    if part.outline:
        found["outline"] = ", ".join(
            " ".join(spelled_out(ticks, unit) for ticks in corner) for corner in part.outline
        )
    return found
