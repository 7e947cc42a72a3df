"""Why no board is planned for a part, in words."""

from carpentry.design.ends import is_angled
from carpentry.design.outline import check_notches, check_outline
from carpentry.design.part import Part
from carpentry.language import CarpentryError
from carpentry.lumber import Section


def angles_fault(part: Part, actual: Section | None) -> str | None:
    """Why its ends or edges cannot be cut, in words, or ``None``; ``actual`` is its stock's
    section."""
    if part.fault:
        return part.fault
    if part.square_ended and not is_angled(part.edges) and not part.is_shaped:
        return None
    if actual is None:
        return "has an angle or a shape on stock of unknown size"
    try:
        own = part.finished_section(actual) or actual
        check_notches(part.notches, part.length.ticks, own.width)
        if part.outline:
            check_outline(part.outline, part.length.ticks, own.width)
        part.outermost(actual)
        part.sawn_section(part.finished_section(actual) or actual)
    except CarpentryError as error:
        return error.problems[0].message
    return None


def not_planned_yet(part: Part, actual: Section | None) -> str | None:
    """Why no board is planned for a part, in words, or ``None`` when one is.

    ``actual`` is the real section of the stock it is cut from (ticks).
    """
    if part.stock.is_sheet:
        return part.fault or "cut from a sheet"
    fault = angles_fault(part, actual)
    if fault:
        return fault
    if actual is None:
        return f"{part.stock.size} comes in random widths: name one, such as {part.stock.size}x6"
    if is_angled(part.edges):
        return "has bevelled edges: it has to be ripped"
    for own, real, what in (
        (part.thickness, actual.thickness, "thickness"),
        (part.width, actual.width, "width"),
    ):
        if own is not None and own.ticks < real:
            return f"has to be ripped or planed to its {what}"
        if own is not None and own.ticks > real:
            return f"is more than the {what} of its stock"
    return None
