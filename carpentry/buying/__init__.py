"""What it takes to buy a plan: prices, lines, tax and totals, exact to the cent."""

from carpentry.buying.coating import read_volume, write_volume
from carpentry.buying.fastener_kinds import Kind, usual_lengths
from carpentry.buying.joints import hardware_key, read_each_line, read_package
from carpentry.buying.packages import Package
from carpentry.buying.price_list import (
    KnownYard,
    YardOf,
    prices_table_of_csv,
    prices_table_of_rows,
    read_prices,
    read_prices_csv,
    write_prices_csv,
)
from carpentry.buying.pricing import (
    MAX_AVAILABLE,
    MAX_LINES,
    PER,
    PRICE_COLUMNS,
    PriceFields,
    PriceLine,
    piece_price,
    price_told,
    read_price_line,
)
from carpentry.buying.rules import RULE_SIZES, USUAL_LINES
from carpentry.buying.shopping import (
    ListLine,
    ShoppingList,
    Tax,
    budget_told,
    margin_told,
    shopping_list,
)
from carpentry.language import cents, read_money, write_money

__all__ = [
    "MAX_AVAILABLE",
    "MAX_LINES",
    "PER",
    "PRICE_COLUMNS",
    "RULE_SIZES",
    "USUAL_LINES",
    "Kind",
    "KnownYard",
    "ListLine",
    "Package",
    "PriceFields",
    "PriceLine",
    "ShoppingList",
    "Tax",
    "YardOf",
    "budget_told",
    "cents",
    "hardware_key",
    "margin_told",
    "piece_price",
    "price_told",
    "prices_table_of_csv",
    "prices_table_of_rows",
    "read_each_line",
    "read_money",
    "read_package",
    "read_price_line",
    "read_prices",
    "read_prices_csv",
    "read_volume",
    "shopping_list",
    "usual_lengths",
    "write_money",
    "write_prices_csv",
    "write_volume",
]
