"""The API of yards: the list, every change of one, and price lists in."""

import uuid
from decimal import Decimal
from typing import Any

from django.db import models, transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from ninja import File, Form, Router
from ninja.files import UploadedFile

from carpentry.buying import MAX_LINES, KnownYard, YardOf, read_prices
from carpentry.buying import PriceLine as ReadLine
from carpentry.buying.price_list import COLUMNS as PRICE_TABLE
from carpentry.language import CarpentryError, Unit
from carpentry.lumber import INCHES, ask_for_feet
from carpentry.project import YardFile, read_yard_file
from carpentry.project.file import check_tax_rate
from server.common.columns import given
from server.common.owned import owned
from server.common.schemas import ConflictOut, ErrorOut, Page, ProblemOut, SeenIn
from server.common.uploads import chosen_columns, columns_out, prices_table, upload_bytes
from server.stocks.models import OwnMaterials, own_stocks
from server.yards.asking import ask_yard, quoted_fields
from server.yards.models import PriceLine, Yard
from server.yards.schemas import (
    AskedOut,
    NewYardIn,
    PriceLineIn,
    PricePointOut,
    PricesReadingOut,
    QuotesIn,
    RemoveLinesIn,
    YardOut,
    YardPatchIn,
    YardRowOut,
)
from server.yards.showing import compare_list, show_asked, show_yard

router = Router(tags=["yards"])
MOST_POINTS = 200
CHANGE = {200: YardOut, 404: ErrorOut, 409: ConflictOut[YardOut], 422: ErrorOut}


def _yards(request: HttpRequest) -> YardOf:
    """What is known of the builder's yards by name; one that is new is in inches and dollars."""
    words = INCHES.knowing(own_stocks(request.user))
    known = {
        yard.name: KnownYard(words.in_unit(Unit(yard.unit)), yard.currency)
        for yard in Yard.objects.of(request.user)
    }
    return lambda name: known.get(name, KnownYard(words, Yard().currency))


@router.get("/yards", response=list[YardRowOut])
def list_yards(request: HttpRequest) -> list[YardRowOut]:
    """All yards by name."""
    yards = Yard.objects.of(request.user).annotate(
        line_count=models.Count("lines", distinct=True),
        project_count=models.Count(
            "projects", filter=models.Q(projects__deleted=None), distinct=True
        ),
        newest=models.Max("lines__date"),
    )
    return [
        YardRowOut(
            id=yard.id,
            name=yard.name,
            currency=yard.currency,
            tax_rate=f"{yard.tax.rate:f}",
            lines=yard.line_count,
            newest=yard.newest or "",
            projects=yard.project_count,
        )
        for yard in yards
    ]


@router.post("/yards", response={200: YardOut, 422: ErrorOut})
@transaction.atomic
def create_yard(request: HttpRequest, new: NewYardIn) -> YardOut:
    """A new yard under an id of the client's making; asked twice it is made once."""
    known = Yard.objects.of(request.user).filter(id=new.id).first()
    if known:
        return show_yard(known)
    yard = Yard(
        id=new.id, owner=request.user, name=new.name.strip(), currency=new.currency, unit=new.unit
    )
    yard.full_clean()
    yard.save(force_insert=True)
    yard.begin_history("new yard")
    return show_yard(yard)


@router.get("/yards/{uuid:yard_id}", response={200: YardOut, 404: ErrorOut})
def get_yard(request: HttpRequest, yard_id: uuid.UUID, find: str = "", page: Page = 1) -> YardOut:
    """A yard with a page of its price list, or of the lines that a search finds."""
    return show_yard(owned(Yard, request, yard_id), find, page)


@router.delete("/yards/{uuid:yard_id}", response={204: None, 404: ErrorOut})
def delete_yard(request: HttpRequest, yard_id: uuid.UUID) -> tuple[int, None]:
    """Deletes a yard; projects that had chosen it have none then."""
    owned(Yard, request, yard_id).delete()
    return 204, None


SETTINGS_SAID = {
    "tax_rate": "tax, percent",
    "price_age_days": "a price is old after, days",
    "price_service": "price service",
    "service_code": "its code for this yard",
    "walk": "walking order",
    "packs": "packs",
}
ROUNDING_SAID = {"total": "board feet with fractions", "each": "board feet by whole inches"}


def _setting_said(name: str, value: Any) -> str:
    """A setting that was changed, in words."""
    if name == "prices_include_tax":
        return "prices include the tax" if value else "tax comes on top of prices"
    if name == "board_foot_rounding":
        return ROUNDING_SAID.get(value, "board feet")
    called = SETTINGS_SAID.get(name, name)
    lines = str(value).strip().splitlines()
    if not lines:
        return f"no {called}"
    return f"{called} {lines[0]}" if len(lines) == 1 else f"{called} changed"


@router.patch("/yards/{uuid:yard_id}", response=CHANGE)
def change_yard(request: HttpRequest, yard_id: uuid.UUID, patch: YardPatchIn) -> YardOut:
    """Changes what holds for the whole yard."""
    yard = owned(Yard, request, yard_id)
    told = given(patch)

    def make(yard: Yard) -> str:
        for name, value in told.items():
            if name == "packs":
                yard.write_packs(value)
            else:
                setattr(yard, name, check_tax_rate(value) if name == "tax_rate" else value)
        return ", ".join(_setting_said(name, value) for name, value in told.items())

    yard.change(patch.version, patch.change_id, "yard changed", make)
    return show_yard(yard)


@router.put("/yards/{uuid:yard_id}/lines/{uuid:line_id}", response=CHANGE)
def write_line(
    request: HttpRequest, yard_id: uuid.UUID, line_id: uuid.UUID, fields: PriceLineIn
) -> YardOut:
    """Writes a price line: changes the fields given, or adds the line under this id."""
    yard = owned(Yard, request, yard_id)
    told = given(fields)
    ask_for_feet(told.get("length", ""), yard.unit)

    def make(yard: Yard) -> str:
        line = yard.lines.filter(id=line_id).first()
        added = line is None
        if line is None:
            last = yard.lines.aggregate(models.Max("position"))["position__max"]
            if yard.lines.count() >= MAX_LINES:
                raise CarpentryError(f"a price list holds {MAX_LINES:,} lines at the most")
            line = PriceLine(id=line_id, position=(last or 0) + 1)
        before = line.price
        line.yard = yard
        for name, value in told.items():
            setattr(line, name, value)
        line.full_clean()
        line.save()
        if added:
            return f"{line} added"
        return f"{line}: {before} → {line.price}" if before != line.price else f"{line} changed"

    yard.change(fields.version, fields.change_id, "price line", make)
    return show_yard(yard)


@router.get(
    "/yards/{uuid:yard_id}/lines/{uuid:line_id}/prices",
    response={200: list[PricePointOut], 404: ErrorOut},
)
def price_history(
    request: HttpRequest, yard_id: uuid.UUID, line_id: uuid.UUID
) -> list[PricePointOut]:
    """The prices a line had, the newest first."""
    yard = owned(Yard, request, yard_id)
    line = get_object_or_404(yard.lines, id=line_id)
    points = yard.price_points.filter(stock_key=line.stock_key, length_ticks=line.length_ticks)
    return [
        PricePointOut(price=p.price, per=p.per, date=p.date, entered=p.entered)
        for p in points[:MOST_POINTS]
    ]


@router.post("/yards/{uuid:yard_id}/lines/remove", response=CHANGE)
def remove_lines(request: HttpRequest, yard_id: uuid.UUID, removal: RemoveLinesIn) -> YardOut:
    """Removes price lines."""
    yard = owned(Yard, request, yard_id)

    def make(yard: Yard) -> str:
        gone = list(yard.lines.filter(id__in=removal.lines))
        yard.lines.filter(id__in=[line.id for line in gone]).delete()
        return f"{gone[0]} removed" if len(gone) == 1 else f"{len(gone)} lines removed"

    yard.change(removal.version, removal.change_id, "lines removed", make)
    return show_yard(yard)


@router.post("/yards/{uuid:yard_id}/ask", response={200: AskedOut, 404: ErrorOut, 422: ErrorOut})
def ask_price_service(request: HttpRequest, yard_id: uuid.UUID) -> AskedOut:
    """What the yard's price service says now; keeps nothing."""
    yard = owned(Yard, request, yard_id)
    return show_asked(ask_yard(yard), yard)


@router.post("/yards/{uuid:yard_id}/quotes", response=CHANGE)
def take_quotes(request: HttpRequest, yard_id: uuid.UUID, accepted: QuotesIn) -> YardOut:
    """Takes the quotes that a builder accepts, all as one step."""
    yard = owned(Yard, request, yard_id)

    def make(yard: Yard) -> str:
        lines = {line.id: line for line in yard.lines.all()}
        taken = []
        for quote in accepted.quotes:
            line = lines.get(quote.line)
            if line is None:
                raise CarpentryError("a line that was asked about is gone: ask again")
            fields = quoted_fields(quote.price, quote.available, accepted.as_of)
            for name, value in fields.items():
                setattr(line, name, value)
            line.full_clean(exclude=["yard"], validate_unique=False, validate_constraints=False)
            taken.append(line)
        PriceLine.objects.bulk_update(taken, ["price", "per", "available", "date"])
        return f"{len(taken)} prices of {accepted.as_of} taken from {yard.price_service}"

    yard.change(accepted.version, accepted.change_id, "prices asked for", make)
    return show_yard(yard)


@router.post("/yards/{uuid:yard_id}/undo", response=CHANGE)
def undo_yard(request: HttpRequest, yard_id: uuid.UUID, seen: SeenIn) -> YardOut:
    """Takes the newest change back."""
    yard = owned(Yard, request, yard_id)
    yard.undo(seen.version, seen.change_id)
    return show_yard(yard)


@router.post("/yards/{uuid:yard_id}/redo", response=CHANGE)
def redo_yard(request: HttpRequest, yard_id: uuid.UUID, seen: SeenIn) -> YardOut:
    """Brings back what the last undo took."""
    yard = owned(Yard, request, yard_id)
    yard.redo(seen.version, seen.change_id)
    return show_yard(yard)


@router.post("/reading/prices-file", response={200: PricesReadingOut, 413: ErrorOut})
def read_prices_file(
    request: HttpRequest, file: File[UploadedFile], at: Form[str] = "", columns: Form[str] = ""
) -> PricesReadingOut:
    """What a price list file would do, yard by yard; keeps nothing. Rows that name no yard are
    ``at`` this one."""
    choices, table = list(PRICE_TABLE.known), None
    try:
        table = prices_table(file, chosen_columns(columns))
        lists = read_prices(table, _yards(request), at)
    except CarpentryError as error:
        problems = [ProblemOut(place=p.place, message=p.message) for p in error.problems]
        known_columns = columns_out(table) if table else []
        return PricesReadingOut(yards=[], problems=problems, columns=known_columns, choices=choices)
    known = {yard.name: yard for yard in Yard.objects.of(request.user).filter(name__in=lists)}
    return PricesReadingOut(
        yards=[compare_list(name, known.get(name), lines) for name, lines in lists.items()],
        problems=[],
        columns=columns_out(table),
        choices=choices,
    )


@router.post("/yards/import-prices", response={200: list[YardOut], 413: ErrorOut, 422: ErrorOut})
def import_prices(
    request: HttpRequest,
    change_id: Form[uuid.UUID],
    file: File[UploadedFile],
    at: Form[str] = "",
    columns: Form[str] = "",
) -> list[YardOut]:
    """Takes a price list: each yard in it gets exactly these lines, as one step of its history."""
    table = prices_table(file, chosen_columns(columns))
    lists = read_prices(table, _yards(request), at)
    return [show_yard(yard) for yard in take_price_lists(request.user, lists, change_id)]


@transaction.atomic
def take_price_lists(
    owner: Any, lists: dict[str, list[ReadLine]], change_id: uuid.UUID
) -> list[Yard]:
    """Yards of the owner with these lists as theirs; unknown ones are made."""
    yards = []
    for name, lines in lists.items():
        yard = Yard.objects.of(owner).filter(name=name).first()
        if yard is None:
            yard = Yard(owner=owner, name=name)
            yard.full_clean()
            yard.save()
            yard.replace_lines(lines)
            yard.begin_history("price list imported")
        else:

            def make(yard: Yard, lines: list[ReadLine] = lines) -> None:
                yard.replace_lines(lines)

            yard.change(yard.version, change_id, "price list imported", make)
        yards.append(yard)
    return yards


@router.post("/yards/import", response={200: YardOut, 413: ErrorOut, 422: ErrorOut})
def import_yard(
    request: HttpRequest, change_id: Form[uuid.UUID], file: File[UploadedFile]
) -> YardOut:
    """A yard from its JSON file; one of the same name becomes what the file says, undoably."""
    return show_yard(
        yard_from_file(
            request.user, read_yard_file(upload_bytes(file), own_stocks(request.user)), change_id
        )
    )


@transaction.atomic
def yard_from_file(owner: Any, read: YardFile, change_id: uuid.UUID) -> Yard:
    """The owner's yard of the file's name, new or changed to what the file says."""
    OwnMaterials.of(owner).take(read.materials)
    yard = Yard.objects.of(owner).filter(name=read.name).first()
    if yard is None:
        yard = Yard(owner=owner, name=read.name, tax_rate=Decimal(0))
        yard.full_clean()
        yard.save()
        yard.take(read)
        yard.begin_history("imported")
        return yard
    yard.change(yard.version, change_id, "imported", lambda yard: yard.take(read))
    return yard
