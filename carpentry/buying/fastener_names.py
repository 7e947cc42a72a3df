"""Fasteners by name, as builders write them: ``16d``, ``#8 deck screws 3in``, ``lags``, ``1/2
carriage bolt``."""

import re
from dataclasses import dataclass

from carpentry.buying.fastener_kinds import KINDS, PENNIES, Kind
from carpentry.language import CarpentryError, Unit, read_length

_NAMES = {kind.value: kind for kind in Kind} | {
    name: kind for kind, one in KINDS.items() for name in one.other_names
}
_SORTS = (
    *("deck", "decking", "wood", "exterior", "stainless", "galvanised", "galvanized", "coated"),
    *("common", "box", "finish", "finishing", "ring-shank", "framing", "siding", "trim", "hex"),
    *("hot-dip", "steel", "brass", "cabinet", "joist", "hanger", "roofing", "cut", "wire"),
    *("self-tapping", "flat", "flat-head", "pan", "pan-head", "head", "ring", "shank", "spiral"),
    *("casing", "narrow", "crown", "carpet"),
)
_EVERY_NAME = "|".join(sorted(map(re.escape, _NAMES), key=len, reverse=True))
_KIND = re.compile(rf"(?<![\w-])({_EVERY_NAME})(?:es|s)?(?![\w-])")
_PENNY = re.compile(r"(?<![\w-])(\d{1,2})\s?d(?![\w-])")
_GAUGE = (
    r"(?:#|no\.?\s?|number\s)(?P<number>\d{1,2})|m(?P<metric>\d{1,2})|(?P<bolt>(?:\d\s)?\d/\d{1,2})"
)
_SIZE_BEFORE = re.compile(
    rf"(?:{_GAUGE}|(?<![\d.])(?P<width>\d{{1,2}}(?:\.\d)?)(?=\s?(?:mm\b|$|\s)))(?:\s?(?:in\b|\"|mm\b))?"
)
# A length before the kind: after a gauge and ×, or an inch and more (less is a diameter).
_LENGTH_BEFORE = re.compile(
    r"(?:(?<=\d)\s?[x×]\s?|(?<![\w/#.]))"
    r"(?P<length>[1-9]\d?(?:[ -]\d/\d{1,2})?\s?(?:in\b|\")|\d{2,3}\s?mm\b)"
)


@dataclass(frozen=True)
class Fastener:
    """A kind with its ``name`` in one spelling, gauge and sort first (``#8 deck screw``), the
    length (ticks) that its name has, and the ``word`` that named the kind (``wood glue``)."""

    kind: Kind
    name: str
    length: int | None
    word: str = ""


def read_fastener(text: str, unit: Unit) -> Fastener | None:
    """The fastener that a text names, ``None`` for what is none. A bare ``16d`` is a nail."""
    said = " ".join(text.lower().replace("″", '"').split())
    penny = _PENNY.search(said)
    length = PENNIES.get(int(penny[1])) if penny else None
    if penny:
        said = f"{said[: penny.start()]} {said[penny.end() :]}".strip()
        if length is None:
            return None
    found = _KIND.search(said)
    if not found and not (penny and not said):
        return None
    kind = _NAMES[found[1]] if found else Kind.NAIL
    before = said[: found.start()].strip() if found else ""
    after = said[found.end() :].strip() if found else ""
    sized = _LENGTH_BEFORE.search(before)
    if sized and length is None:
        length = read_length(sized["length"], unit).ticks
        before = f"{before[: sized.start()]} {before[sized.end() :]}"
    gauges, sorts = _gauge_and_sort(before)
    if sorts is None or ("/" in gauges and not KINDS[kind].by_diameter):
        return None
    late = _SIZE_BEFORE.match(after) if not gauges else None
    if late and (
        late["number"] or late["metric"] or after[late.end() :].lstrip()[:1] in {"x", "×"}
    ):
        gauges, after = _spelled(late), after[late.end() :].strip(" x×,")
    if after:
        try:
            typed = read_length(after.lstrip("x× "), unit).ticks
        except CarpentryError:
            return None
        if length not in (None, typed):
            return None
        length = typed
    name = " ".join(filter(None, (gauges, *sorts, kind.value)))
    return Fastener(kind, name, length, found[1] if found else "")


def _gauge_and_sort(before: str) -> tuple[str, tuple[str, ...] | None]:
    """The gauge and the sort that stand before a kind; no sort where a word is none."""
    gauge = _SIZE_BEFORE.search(before)
    if gauge:
        before = f"{before[: gauge.start()]} {before[gauge.end() :]}"
    words = tuple(
        sorted(word for word in before.replace(",", " ").split() if word not in {"x", "of"})
    )
    return (_spelled(gauge) if gauge else ""), (words if set(words) <= set(_SORTS) else None)


def _spelled(gauge: re.Match[str]) -> str:
    if gauge["number"]:
        return f"#{gauge['number']}"
    if gauge["metric"]:
        return f"M{gauge['metric']}"
    return gauge["bolt"] or f"{gauge['width']}mm"
