"""Yards and their price lists."""

from collections.abc import Iterable
from dataclasses import asdict
from datetime import date, timedelta
from decimal import Decimal

from django.core.exceptions import ValidationError
from django.core.validators import MaxValueValidator, MinValueValidator
from django.db import models
from django.utils.functional import cached_property

from carpentry.buying import (
    PRICE_COLUMNS,
    PriceFields,
    Tax,
    read_each_line,
    read_package,
    read_price_line,
)
from carpentry.buying import PriceLine as ReadLine
from carpentry.language import CarpentryError, Unit
from carpentry.lumber import Lexicon, OwnStocks, lexicon_in
from carpentry.project import YardFile, own_among
from carpentry.project.file import MOST_AGE_DAYS, PRICE_AGE_DAYS, check_currency
from server.common.columns import typed_columns
from server.common.errors import as_validation_error
from server.common.rows import Row, TextLine, as_lines, replace_rows, snapshots, whole_text
from server.history.models import Revision, Snapshot, Versioned
from server.stocks.models import own_stocks

MOST_PACKS = 20_000  # characters of all of them


class Yard(Versioned):
    """A place that sells lumber, with its own prices, sizes, currency and tax."""

    class Unit(models.TextChoices):
        INCH = "in", "inches"
        MM = "mm", "millimetres"

    class Rounding(models.TextChoices):
        EACH = "each", "width and length to whole inches"
        TOTAL = "total", "fractions kept"

    unit = models.CharField(max_length=2, choices=Unit, default=Unit.INCH)
    currency = models.CharField(max_length=3, default="USD")
    tax_rate = models.DecimalField(
        max_digits=6,
        decimal_places=4,
        default=Decimal(0),
        validators=[MinValueValidator(0), MaxValueValidator(50)],
    )
    prices_include_tax = models.BooleanField(default=False)
    board_foot_rounding = models.CharField(max_length=5, choices=Rounding, default=Rounding.TOTAL)

    price_age_days = models.PositiveIntegerField(
        default=PRICE_AGE_DAYS,
        validators=[MinValueValidator(1), MaxValueValidator(MOST_AGE_DAYS)],
    )

    price_service = models.CharField(max_length=100, blank=True)
    service_code = models.CharField(max_length=60, blank=True)

    walk = models.CharField(max_length=200, blank=True)  # racks in walking order

    class Meta:
        ordering = ["name"]
        constraints = [
            models.UniqueConstraint(
                fields=["owner", "name"],
                name="one_yard_of_a_name",
                violation_error_message="you have a yard of this name",
            )
        ]

    def clean(self) -> None:
        super().clean()
        if self.service_code and not self.service_code.isprintable():
            raise ValidationError({"service_code": "a code is plain text"})
        try:
            check_currency(self.currency)
        except CarpentryError as error:
            raise as_validation_error(error) from error

    @property
    def tax(self) -> Tax:
        return Tax(self.tax_rate.normalize(), self.prices_include_tax)

    @property
    def whole_inches(self) -> bool:
        return self.board_foot_rounding == self.Rounding.EACH

    @cached_property
    def _own(self) -> OwnStocks:
        return own_stocks(self.owner)

    @property
    def lexicon(self) -> Lexicon:
        """How its words are read, with the materials of the builder's own."""
        return lexicon_in(self.unit, self._own)

    @property
    def packs(self) -> str:
        """What is sold by the pack, a line each, as typed."""
        return whole_text(self.pack_lines.all())

    def write_packs(self, text: str) -> None:
        """Makes the packs those of a text; a line that stays keeps its id. Raises
        ``ValidationError`` for a line that is none."""
        _, problems = read_each_line(text, read_package)
        if problems:
            raise ValidationError({"packs": f"{problems[0].place}: {problems[0].message}"})
        if len(text) > MOST_PACKS:
            raise ValidationError({"packs": f"longer than {MOST_PACKS:,} characters"})
        known = self.pack_lines.all()
        replace_rows(
            known,
            [
                PackLine(id=id_, yard=self, position=position, text=line)
                for position, (id_, line) in enumerate(as_lines(text, known))
            ],
        )

    def find_lines(self, find: str) -> "models.QuerySet[PriceLine]":
        """The lines whose stock or length has every word of a search in it."""
        lines = self.lines.all()
        for word in find.split():
            lines = lines.filter(
                models.Q(stock_key__icontains=word) | models.Q(length__icontains=word)
            )
        return lines

    def old_lines(self) -> "models.QuerySet[PriceLine]":
        """The lines whose price is older than this yard's prices may be."""
        return self.lines.exclude(date="").filter(date__lt=self.oldest_fresh.isoformat())

    @property
    def oldest_fresh(self) -> date:
        """The first day whose prices are not old yet."""
        return date.today() - timedelta(days=self.price_age_days)

    def read_lines(self) -> list[ReadLine]:
        """The price list as carpentry understands it."""
        return [line.read() for line in self.lines.all()]

    def as_file(self) -> YardFile:
        return YardFile(
            self.name,
            Unit(self.unit),
            self.currency,
            self.tax,
            self.board_foot_rounding,
            tuple(self.read_lines()),
            self.price_age_days,
            self.price_service,
            self.service_code,
            own_among(line.stock for line in self.read_lines()),
            self.packs,
            self.walk,
        )

    def take(self, file: YardFile) -> None:
        """Becomes what a file says, lines and all; saves."""
        self.name = file.name
        self.unit = file.unit.value
        self.currency = file.currency
        self.tax_rate = file.tax.rate
        self.prices_include_tax = file.tax.included
        self.board_foot_rounding = file.board_foot_rounding
        self.price_age_days = file.price_age_days
        self.price_service = file.price_service
        self.service_code = file.service_code
        self.walk = file.walk
        self.full_clean()
        self.save()
        self.write_packs(file.packs)
        self.replace_lines(file.lines)

    def replace_lines(self, lines: Iterable[ReadLine]) -> None:
        """The whole list anew; a line for the same stock and length keeps its id."""
        kept = {(line.stock_key, line.length_ticks): line for line in self.lines.all()}
        fresh = [PriceLine.of(self, position, read) for position, read in enumerate(lines)]
        for line in fresh:
            before = kept.get((line.stock_key, line.length_ticks))
            if before:
                line.id = before.id
        replace_rows(self.lines, fresh)

    def remember(self) -> dict[tuple[str, int], tuple[str, str, str]]:
        """The prices as they are, by stock and length."""
        rows = self.lines.values_list("stock_key", "length_ticks", "price", "per", "date")
        return {(stock, length): (price, per, day) for stock, length, price, per, day in rows}

    def changed_from(self, before: dict[tuple[str, int], tuple[str, str, str]]) -> None:
        """Keeps every new price for the history of its line."""
        PricePoint.objects.bulk_create(
            PricePoint(
                yard=self, stock_key=key[0], length_ticks=key[1], price=price, per=per, date=day
            )
            for key, (price, per, day) in self.remember().items()
            if before.get(key, ("", "", ""))[:2] != (price, per)
        )

    def begin_history(self, label: str) -> None:
        super().begin_history(label)
        self.changed_from({})

    def snapshot(self) -> Snapshot:
        return {
            "name": self.name,
            "unit": self.unit,
            "currency": self.currency,
            "tax_rate": f"{self.tax.rate:f}",
            "prices_include_tax": self.prices_include_tax,
            "board_foot_rounding": self.board_foot_rounding,
            "price_age_days": self.price_age_days,
            "price_service": self.price_service,
            "service_code": self.service_code,
            "pack_lines": snapshots(self.pack_lines.all()),
            "walk": self.walk,
            "lines": snapshots(self.lines.all()),
        }

    def restore(self, snapshot: Snapshot) -> None:
        self.name = snapshot["name"]
        self.unit = snapshot["unit"]
        self.currency = snapshot["currency"]
        self.tax_rate = Decimal(snapshot["tax_rate"])
        self.prices_include_tax = snapshot["prices_include_tax"]
        self.board_foot_rounding = snapshot["board_foot_rounding"]
        self.price_age_days = snapshot.get("price_age_days", PRICE_AGE_DAYS)
        self.price_service = snapshot.get("price_service", "")
        self.service_code = snapshot.get("service_code", "")
        self.walk = snapshot.get("walk", "")
        replace_rows(
            self.lines, [PriceLine.from_snapshot(line, yard=self) for line in snapshot["lines"]]
        )
        if "pack_lines" in snapshot:
            packs = [PackLine.from_snapshot(line, yard=self) for line in snapshot["pack_lines"]]
            replace_rows(self.pack_lines, packs)
        else:  # written before packs were rows
            self.write_packs(snapshot.get("packs", ""))


class YardRevision(Revision):
    subject = models.ForeignKey(Yard, on_delete=models.CASCADE, related_name="revisions")

    class Meta(Revision.Meta):
        constraints = [
            models.UniqueConstraint(
                fields=["subject", "number"], name="one_yard_revision_a_version"
            )
        ]


class PricePoint(models.Model):
    """A price that a stock and length had at a yard, from when it was entered."""

    yard = models.ForeignKey(Yard, on_delete=models.CASCADE, related_name="price_points")
    stock_key = models.CharField(max_length=100)
    length_ticks = models.PositiveBigIntegerField()
    price = models.CharField(max_length=20, blank=True)
    per = models.CharField(max_length=10, blank=True)
    date = models.CharField(max_length=20, blank=True)
    entered = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-entered", "-id"]
        indexes = [models.Index(fields=["yard", "stock_key", "length_ticks"])]

    def __str__(self) -> str:
        return f"{self.stock_key} {self.price}"


class PackLine(TextLine):
    """Something that is sold by the pack, as typed."""

    whose = "yard"
    yard = models.ForeignKey(Yard, on_delete=models.CASCADE, related_name="pack_lines")


class PriceLine(Row, typed_columns(PriceFields, "PriceColumns", __name__, "yard")):
    """One stock and length as the yard's list has it: as typed, with what was understood."""

    whose = "yard"
    yard = models.ForeignKey(Yard, on_delete=models.CASCADE, related_name="lines")
    position = models.PositiveIntegerField(default=0)
    stock_key = models.CharField(max_length=100, editable=False)
    length_ticks = models.PositiveBigIntegerField(editable=False)

    class Meta:
        ordering = ["position"]
        constraints = [
            models.UniqueConstraint(
                fields=["yard", "stock_key", "length_ticks"],
                name="one_price_a_stock_and_length",
                violation_error_message="this stock and length has a price line already",
            )
        ]

    def __str__(self) -> str:
        return f"{self.stock} {self.length}"

    @property
    def is_old(self) -> bool:
        """Whether the price is older than the yard's prices may be; never without a date."""
        day = self.read().date
        return day is not None and day < self.yard.oldest_fresh

    @property
    def fields(self) -> PriceFields:
        typed = {name: getattr(self, name) for name in PRICE_COLUMNS if name != "yard"}
        return PriceFields(yard=self.yard.name, **typed)

    def read(self) -> ReadLine:
        return read_price_line(self.fields, self.yard.lexicon, currency=self.yard.currency)

    def clean(self) -> None:
        try:
            self._understand(self.read())
        except CarpentryError as error:
            raise as_validation_error(error) from error

    def _understand(self, read: ReadLine) -> None:
        self.price, self.date = read.fields.price, read.fields.date
        self.stock_key = str(read.stock)
        self.length_ticks = read.length.ticks

    @classmethod
    def of(cls, yard: Yard, position: int, read: ReadLine) -> "PriceLine":
        """A line, not saved, from one that carpentry has read."""
        typed = {name: text for name, text in asdict(read.fields).items() if name != "yard"}
        line = cls(yard=yard, position=position, **typed)
        line._understand(read)
        return line
