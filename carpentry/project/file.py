"""Projects and yards as JSON documents (``grain-tally/project@1``, ``grain-tally/yard@1``)."""

import re
from collections.abc import Iterable, Sequence
from dataclasses import asdict, dataclass, fields, replace
from decimal import Decimal

from babel.numbers import list_currencies

from carpentry.buying import MAX_LINES, PriceFields, PriceLine, Tax, read_price_line
from carpentry.cutting import Order
from carpentry.design import (
    FORMULA_FIELDS,
    MAX_PARTS,
    MOST_FORMULA,
    PART_COLUMNS,
    Part,
    PartFields,
    Sections,
    Sheet,
    TypedSheet,
    all_marked,
    with_formulas,
)
from carpentry.design.measures import MeasureFields
from carpentry.design.runs import RunFields
from carpentry.language import (
    CarpentryError,
    Json,
    Notation,
    Problem,
    Reader,
    Unit,
    parse_json,
    spelled_out,
)
from carpentry.lumber import (
    MAX_OWN,
    NO_OWN,
    Lexicon,
    OwnFields,
    OwnStock,
    OwnStocks,
    StockName,
    read_own,
    standard_section,
)
from carpentry.project.days_settings import DAYS_SETTINGS
from carpentry.project.settings import (
    MAX_COPIES,
    SAW_ANGLES,
    SAW_LENGTHS,
    RackUse,
    SettingFields,
    Settings,
    read_settings,
)
from carpentry.project.sheet_in_file import (
    FiledShape,
    lists_document,
    named_by,
    read_measures,
    read_runs,
    read_shapes,
    shapes_document,
)

PROJECT_FORMAT = "grain-tally/project@1"
NEWER_PROJECT_FORMAT = "grain-tally/project@2"
FOLLOWING_PROJECT_FORMAT = "grain-tally/project@3"  # sizes that follow measures
SHAPED_PROJECT_FORMAT = "grain-tally/project@4"  # shapes, and work on parts
TIMED_PROJECT_FORMAT = "grain-tally/project@5"  # days: steps, waits, free hours
ADDING_PROJECT_FORMAT = "grain-tally/project@6"  # “after” adds to what a step needs by itself
PROJECT_FORMATS = (
    *(PROJECT_FORMAT, NEWER_PROJECT_FORMAT),
    *(FOLLOWING_PROJECT_FORMAT, SHAPED_PROJECT_FORMAT, TIMED_PROJECT_FORMAT),
    ADDING_PROJECT_FORMAT,
)
_NEWER_SETTINGS = ("resaw", "own_stock", "keep_width", "saw", "days")
_NEWER_PART_FIELDS = ("resaw", "own_stock")
_FOLLOWING_PART_FIELDS = ("held", "taped", "taped_on")
YARD_FORMAT = "grain-tally/yard@1"
BOUGHT_LINES = ("joints", "hardware", "finishes", "rules")  # what the list is made from
SHAPED_LINES = (*BOUGHT_LINES, "work")
DAYS_LINES = ("steps", "products", "weather")
TYPED_LINES = (*SHAPED_LINES, *DAYS_LINES)
FOLLOWING_LINES = ("joints", "hardware", "finishes", "work")  # which may have formulas in them
ROUNDINGS = ("each", "total")
PRICE_AGE_DAYS = 90
MOST_AGE_DAYS = 3650
_SETTING_GROUPS = {
    "trim": ("start", "end"),
    "extra": ("length", "width", "thickness"),
    "saw": tuple(name.removeprefix("saw_") for name in (*SAW_LENGTHS, *SAW_ANGLES)),
    "days": DAYS_SETTINGS,
}
_MARK = re.compile(r"[A-Z]{1,3}")
_AFTER = re.compile(r",(\s*)after\b", re.IGNORECASE)  # which alone replaced what a step needs
_OWN_FIELDS = tuple(field.name for field in fields(OwnFields))
_LINE_FIELDS = tuple(field.name for field in fields(PriceFields) if field.name != "yard")


@dataclass(frozen=True)
class ProjectFile:
    """Everything a project holds but ids: ``yard`` is the chosen yard's name, empty for none.
    ``materials`` of one's own are those it uses; ``joints``, other ``hardware``,
    ``finishes``, ``rules`` of thumb, ``work`` on parts, ``steps``, the labels of ``products`` and
    the ``weather`` are typed a line each. ``measures``, ``runs`` and ``shapes`` are as they were
    typed, too; parts are as they come out where no yard says otherwise."""

    name: str
    settings: Settings
    yard: str
    parts: tuple[Part, ...]
    marks: tuple[str, ...]
    materials: tuple[OwnStock, ...] = ()
    joints: str = ""
    hardware: str = ""
    finishes: str = ""
    rules: str = ""
    work: str = ""
    steps: str = ""
    products: str = ""
    weather: str = ""
    measures: tuple[MeasureFields, ...] = ()
    runs: tuple[RunFields, ...] = ()
    shapes: tuple[FiledShape, ...] = ()

    def sheet(self, sections: Sections = standard_section) -> Sheet:
        """Its parts, by their marks, with its measures and runs, worked out for what stocks measure
        where they are bought."""
        marks = all_marked(self.marks)
        typed = TypedSheet(
            {mark: part.fields for mark, part in zip(marks, self.parts, strict=True)},
            self.measures,
            self.runs,
            self.settings.usual_measures,
            lines={kind: getattr(self, kind) for kind in FOLLOWING_LINES},
            named=named_by(self.shapes),
        )
        own = {one.name: one for one in self.materials}
        return Sheet(typed, Lexicon(self.settings.unit, own), sections)


@dataclass(frozen=True)
class YardFile:
    """Everything a yard holds but ids. ``tax`` in percent; a price older than ``price_age_days`` is
    marked as old. ``packs`` are what it sells by the pack, a line each; ``walk`` names
    its racks in walking order. ``price_service`` is whom
    to ask for prices, ``service_code`` as which yard."""

    name: str
    unit: Unit
    currency: str
    tax: Tax
    board_foot_rounding: str
    lines: tuple[PriceLine, ...]
    price_age_days: int = PRICE_AGE_DAYS
    price_service: str = ""
    service_code: str = ""
    materials: tuple[OwnStock, ...] = ()
    packs: str = ""
    walk: str = ""


def _open(text: str | bytes, *formats: str) -> Reader:
    reader = Reader(parse_json(text))
    if reader.text("format") not in formats and reader.has("format"):
        reader.fault("format", f"must be {' or '.join(formats)}")
    return reader


def _with_materials(reader: Reader, lexicon: Lexicon) -> Lexicon:
    """A lexicon with the materials that a file brings along; those that are known stay as they
    are."""
    found: dict[str, OwnStock] = {}
    for item in reader.items("materials", most=MAX_OWN, required=False):
        typed = OwnFields(**{n: item.text(n, getattr(OwnFields, n)) for n in _OWN_FIELDS})
        item.refuse_unknown()
        try:
            read = read_own(typed, lexicon.unit, found)
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
            continue
        found[read.name] = read
    return lexicon.knowing(found | dict(lexicon.own))


def _materials_document(materials: Iterable[OwnStock]) -> list[dict[str, str]]:
    """Materials as they are read back, their sizes with the unit."""
    return [
        asdict(one.fields)
        | {"thickness": spelled_out(one.section.thickness, Unit.INCH)}
        | ({} if one.section.round else {"width": spelled_out(one.section.width, Unit.INCH)})
        for one in materials
    ]


def read_project_file(text: str | bytes, own: OwnStocks = NO_OWN) -> ProjectFile:
    """A project from its JSON; ``own`` are materials that are known already.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = _open(text, *PROJECT_FORMATS)
    form = reader.text("format")
    name = reader.text("name", longest=100)
    unit = Unit(reader.choice("unit", [u.value for u in Unit], Unit.INCH.value))
    typed_settings = _read_setting_fields(reader, unit)
    yard = reader.text("yard", "", longest=100)
    lexicon = _with_materials(reader, Lexicon(unit, own))
    measures, runs = read_measures(reader, unit), read_runs(reader)
    shapes = read_shapes(reader, lexicon, [one.name for one in measures])
    marks: list[str] = []
    rows: list[tuple[Reader, PartFields]] = []
    for item in reader.items("parts", most=MAX_PARTS, required=False):
        marks.append(item.text("mark", ""))
        if marks[-1] and not _MARK.fullmatch(marks[-1]):
            item.fault("mark", "must be one to three capital letters")
        typed = PartFields(
            **{column: item.text(column, "", longest=MOST_FORMULA) for column in PART_COLUMNS}
        )
        values = item.inside("values")  # what its formulas came to, for who cannot work them out
        for field in FORMULA_FIELDS:
            values.text(field, "", longest=MOST_FORMULA)
        values.refuse_unknown()
        item.refuse_unknown()
        rows.append((item, with_formulas(typed, lexicon)))
    settings, wrong = _settings_or_usual(typed_settings, lexicon)
    sheet = _sheet_of(
        marks,
        TypedSheet(
            {str(n): typed for n, (_, typed) in enumerate(rows)},
            measures,
            runs,
            settings.usual_measures,
            named=named_by(shapes),
        ),
        lexicon,
    )
    parts: list[Part] = []
    for mark, (item, _) in zip(sheet.typed.parts, rows, strict=True):
        try:
            parts.append(sheet.readable(mark))
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
    typed_lines = {name: "\n".join(reader.texts(name)) for name in TYPED_LINES}
    if form != ADDING_PROJECT_FORMAT:
        typed_lines["steps"] = _AFTER.sub(r",\1only after", typed_lines["steps"])
    reader.refuse_unknown()
    given = [mark for mark in marks if mark]
    if len(given) != len(set(given)):
        reader.fault("parts", "two parts have the same mark")
    for problem in wrong:
        group, _, inner = problem.place.partition("_")
        inside = inner and group in _SETTING_GROUPS
        reader.fault(f"{group}.{inner}" if inside else problem.place, problem.message)
    reader.raise_problems()
    return ProjectFile(
        name,
        settings,
        yard,
        tuple(parts),
        tuple(marks),
        own_among(part.stock for part in parts),
        **typed_lines,
        measures=tuple(measures),
        runs=tuple(runs),
        shapes=tuple(shapes),
    )


def _settings_or_usual(
    typed: SettingFields, lexicon: Lexicon
) -> tuple[Settings, Sequence[Problem]]:
    """The settings, or where they cannot be read the usual ones, with what is wrong."""
    try:
        return read_settings(typed, lexicon.own), ()
    except CarpentryError as error:
        return read_settings(SettingFields.usual(lexicon.unit)), error.problems


def _sheet_of(marks: Sequence[str], typed: TypedSheet, lexicon: Lexicon) -> Sheet:
    """The sheet of a file, in which parts go by their places yet. One that says the same mark twice
    is told so beside all else."""
    given = [mark for mark in marks if mark]
    named = all_marked(marks if len(given) == len(set(given)) else [""] * len(marks))
    parts = dict(zip(named, typed.parts.values(), strict=True))
    return Sheet(replace(typed, parts=parts), lexicon, standard_section)


def _read_setting_fields(reader: Reader, unit: Unit) -> SettingFields:
    usual = SettingFields.usual(unit)
    grouped: dict[str, str] = {}
    for group, names in _SETTING_GROUPS.items():
        inside = reader.inside(group)
        for name in names:
            place = f"{group}_{name}"
            grouped[place] = inside.text(name, getattr(usual, place), longest=2000)
        inside.refuse_unknown()
    return SettingFields(
        unit=unit.value,
        notation=reader.choice("notation", [n.value for n in Notation], usual.notation),
        kerf=reader.text("kerf", usual.kerf),
        copies=reader.whole("copies", 1, least=1, most=MAX_COPIES),
        rip=reader.flag("rip", False),
        resaw=reader.flag("resaw", usual.resaw),
        own_stock=reader.flag("own_stock", usual.own_stock),
        order=reader.choice("order", [o.value for o in Order], usual.order),
        share_angled_cuts=reader.flag("share_angled_cuts", False),
        eased=reader.text("eased", usual.eased),
        keep_from=reader.text("keep_from", usual.keep_from),
        keep_width=reader.text("keep_width", usual.keep_width),
        keep_from_of=reader.text("keep_from_of", usual.keep_from_of),
        spare=reader.text("spare", usual.spare),
        rack=reader.choice("rack", list(RackUse), usual.rack),
        budget=reader.text("budget", usual.budget),
        sells_for=reader.text("sells_for", usual.sells_for),
        **grouped,
    )


def _settings_document(settings: Settings) -> Json:
    typed = _grouped(settings.fields)
    usual = _grouped(SettingFields.usual(settings.unit))
    return {n: v for n, v in typed.items() if n not in _NEWER_SETTINGS or v != usual[n]}


def _grouped(fields: SettingFields) -> Json:
    typed = asdict(fields)
    for group, names in _SETTING_GROUPS.items():
        typed[group] = {name: typed.pop(f"{group}_{name}") for name in names}
    return typed


def own_among(stocks: Iterable[StockName]) -> tuple[OwnStock, ...]:
    """The materials of one's own among stocks, each once, by name."""
    return tuple({stock.size: stock.own for stock in stocks if stock.own}.values())


def project_document(project: ProjectFile) -> Json:
    """A project as the document that reads back to it, every length as it was typed; of a newer
    format where it uses what the first one has not."""
    settings = _settings_document(project.settings)
    follows = bool(project.measures or project.runs) or any(
        part.followed or any(getattr(part.fields, name) for name in _FOLLOWING_PART_FIELDS)
        for part in project.parts
    )
    newer = any(name in settings for name in _NEWER_SETTINGS) or any(
        getattr(part.fields, name) for part in project.parts for name in _NEWER_PART_FIELDS
    )
    shaped = bool(project.shapes or project.work) or any(
        part.is_shaped or part.fields.together for part in project.parts
    )
    lasts = any(getattr(project, name) for name in DAYS_LINES) or "days" in settings
    adds = bool(_AFTER.search(project.steps))
    uses = (adds, lasts, shaped, follows, newer, True)
    lines: tuple[str, ...] = SHAPED_LINES if project.work else BOUGHT_LINES
    lines += tuple(name for name in DAYS_LINES if getattr(project, name))
    return {
        "format": next(
            name for name, used in zip(reversed(PROJECT_FORMATS), uses, strict=True) if used
        ),
        "name": project.name,
        **settings,
        "yard": project.yard,
        "materials": _materials_document(project.materials),
        "parts": [
            {"mark": mark}
            | {name: text for name, text in asdict(part.fields).items() if text}
            | ({"values": {name: text for name, text, _ in part.followed}} if part.followed else {})
            for mark, part in zip(project.marks, project.parts, strict=True)
        ],
        **lists_document("measures", project.measures),
        **lists_document("runs", project.runs),
        **shapes_document(project.shapes),
        **{name: getattr(project, name).splitlines() for name in lines},
    }


def check_currency(currency: str) -> None:
    """Raises ``CarpentryError`` unless this is the three-letter code of a currency."""
    if currency not in list_currencies():
        raise CarpentryError("write the currency's three letters, such as USD", "currency")


def check_tax_rate(text: str) -> Decimal:
    """A tax rate in percent from text. Raises ``CarpentryError`` outside 0 to 50."""
    try:
        rate = Decimal(text.strip() or "0")
    except ArithmeticError as error:
        raise CarpentryError("write the tax in percent, such as 6.75", "tax_rate") from error
    exponent = rate.as_tuple().exponent
    if (
        not rate.is_finite()
        or not 0 <= rate <= 50
        or not isinstance(exponent, int)
        or exponent < -4
    ):
        raise CarpentryError("a tax rate is 0 to 50 percent, at most four decimals", "tax_rate")
    return rate


def read_yard_file(text: str | bytes, own: OwnStocks = NO_OWN) -> YardFile:
    """A yard from its JSON; ``own`` are materials that are known already.

    Raises ``CarpentryError`` with every problem and its path.
    """
    reader = _open(text, YARD_FORMAT)
    name = reader.text("name", longest=100)
    unit = Unit(reader.choice("unit", [u.value for u in Unit], Unit.INCH.value))
    currency = reader.text("currency", "USD")
    rate_text = reader.text("tax_rate", "0")
    included = reader.flag("prices_include_tax", False)
    rounding = reader.choice("board_foot_rounding", ROUNDINGS, "total")
    age = reader.whole("price_age_days", PRICE_AGE_DAYS, least=1, most=MOST_AGE_DAYS)
    service = reader.text("price_service", "", longest=100)
    code = reader.text("service_code", "", longest=60)
    packs = "\n".join(reader.texts("packs"))
    walk = reader.text("walk", "", longest=200)
    rate = Decimal(0)
    try:
        check_currency(currency)
        rate = check_tax_rate(rate_text)
    except CarpentryError as error:
        reader.fault(error.problems[0].place, error.problems[0].message)
    lexicon = _with_materials(reader, Lexicon(unit, own))
    lines: list[PriceLine] = []
    seen: set[tuple[StockName, int]] = set()
    for item in reader.items("lines", most=MAX_LINES, required=False):
        typed = PriceFields(**{field: item.text(field, "") for field in _LINE_FIELDS})
        item.refuse_unknown()
        try:
            line = read_price_line(typed, lexicon)
        except CarpentryError as error:
            for problem in error.problems:
                item.fault(problem.place, problem.message)
            continue
        if (line.stock, line.length.ticks) in seen:
            item.fault("", "the same stock and length is there twice")
        seen.add((line.stock, line.length.ticks))
        lines.append(line)
    reader.refuse_unknown()
    reader.raise_problems()
    return YardFile(
        name,
        unit,
        currency,
        Tax(rate, included),
        rounding,
        tuple(lines),
        age,
        service,
        code,
        own_among(line.stock for line in lines),
        packs,
        walk,
    )


def yard_document(yard: YardFile) -> Json:
    """A yard as the document that reads back to it, every line as it was typed."""
    return {
        "format": YARD_FORMAT,
        "name": yard.name,
        "unit": yard.unit.value,
        "currency": yard.currency,
        "tax_rate": f"{yard.tax.rate:f}",
        "prices_include_tax": yard.tax.included,
        "board_foot_rounding": yard.board_foot_rounding,
        "price_age_days": yard.price_age_days,
        "price_service": yard.price_service,
        "service_code": yard.service_code,
        "packs": yard.packs.splitlines(),
        "walk": yard.walk,
        "materials": _materials_document(yard.materials),
        "lines": [
            {
                name: getattr(line.fields, name)
                for name in _LINE_FIELDS
                if getattr(line.fields, name)
            }
            for line in yard.lines
        ],
    }
