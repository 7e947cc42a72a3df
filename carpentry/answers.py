"""What the terminal answers about sizes, as JSON: lengths in inches and in millimetres."""

import re

from carpentry.language import Faults, Json, Notation, Unit, read_length, write_length
from carpentry.lumber import (
    Alternative,
    Entry,
    Rounding,
    Section,
    look_up,
    measured_board_feet,
    nominal_for,
    straight_width,
)

_MOST_PIECES = 100_000


def _measure(ticks: int) -> Json:
    return {
        "in": write_length(ticks, Notation.SIXTY_FOURTHS).text.rstrip("″"),
        "mm": write_length(ticks, Notation.MM).text.removesuffix(" mm"),
    }


_COUNT = re.compile(r"[0-9]{1,9}")


def _section(section: Section) -> Json:
    wide = {"width": _measure(section.width)} if section.width else {}
    return {"thickness": _measure(section.thickness)} | wide


def _read(faults: Faults, place: str, text: str) -> int:
    return faults.attempt(place, lambda: read_length(text, Unit.INCH).ticks, 0)


def _entry(entry: Entry) -> Json:
    size = entry.size
    section = size.green if entry.green and size.green else size.section
    return {
        "name": size.name,
        "family": entry.family.name,
        "condition": "green" if entry.green else "as sold",
        **_section(section),
        "source": entry.family.source,
        "note": entry.family.note,
    }


def size(text: str) -> list[Json]:
    """The entries of the size book that a text means. Raises ``CarpentryError`` for none."""
    return [_entry(entry) for entry in look_up(text)]


def _alternative(one: Alternative) -> Json:
    return {
        "way": one.way.value,
        "size": one.size.name,
        "boards": one.boards,
        **_section(one.size.section),
        "off_width": _measure(one.off_width),
        "off_thickness": _measure(one.off_thickness),
    }


def nominal(thickness: str, width: str) -> list[Json]:
    """The ways to a finished size. Raises ``CarpentryError`` by field."""
    faults = Faults()
    thick, wide = _read(faults, "thickness", thickness), _read(faults, "width", width)
    faults.raise_any()
    return [_alternative(one) for one in nominal_for(thick, wide)]


def board_feet(dimensions: tuple[str, str, str], count: str, rounding: str) -> Json:
    """Board feet of measured pieces. Raises ``CarpentryError`` by field."""
    faults = Faults()
    names = ("thickness", "width", "length")
    thickness, width, length = (
        _read(faults, name, text) for name, text in zip(names, dimensions, strict=True)
    )
    if not _COUNT.fullmatch(count) or not 1 <= int(count) <= _MOST_PIECES:
        faults.add("count", f"“{count}” is no count: write 1 to {_MOST_PIECES:,}")
    faults.raise_any()
    feet = measured_board_feet(thickness, width, length, int(count), Rounding(rounding))
    return {"board_feet": f"{feet:f}", "rounding": rounding, "count": int(count)}


def straighten(width: str, crook: str, corner: str, edges: int) -> Json:
    """The straight strip in a crooked board. Raises ``CarpentryError`` by field."""
    faults = Faults()
    board, hollow, rounding = (
        _read(faults, place, text)
        for place, text in (("width", width), ("crook", crook), ("corners", corner))
    )
    faults.raise_any()
    return {"width": _measure(straight_width(board, hollow, rounding, edges))}
