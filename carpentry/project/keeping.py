"""From which length on leftovers are worth keeping: for a project, and for some stock otherwise."""

import re
from collections.abc import Mapping
from functools import partial

from carpentry.language import CarpentryError, Faults, Length, Unit, spelled_out
from carpentry.lumber import Lexicon, StockName, read_stock

MOST_RULES = 40


def read_keep_rules(text: str, lexicon: Lexicon) -> dict[StockName, Length]:
    """Rules as they are typed: a stock and a length each, ``1x4 cedar 36, 2x2 12``.

    Raises ``CarpentryError`` for the first rule that is none.
    """
    rules = [rule.strip() for rule in re.split(r"[,;\n]", text) if rule.strip()]
    if len(rules) > MOST_RULES:
        raise CarpentryError(f"at most {MOST_RULES} rules")
    return dict(_rule(rule, lexicon) for rule in rules)


def _rule(text: str, lexicon: Lexicon) -> tuple[StockName, Length]:
    words = text.split()
    for last in range(1, len(words)):
        faults = Faults()
        name, size = " ".join(words[:last]), " ".join(words[last:])
        stock = faults.attempt("stock", partial(read_stock, name, lexicon), None)
        length = faults.attempt("length", partial(lexicon.length, size), None)
        if stock and length and stock.length is None:
            return stock.stock, length
    raise CarpentryError(f"“{text}” is no rule: write a stock and a length, such as 1x4 cedar 36")


def written_out(rules: Mapping[StockName, Length]) -> str:
    """Rules that mean the same whatever a bare number means."""
    return ", ".join(
        f"{stock} {spelled_out(length.ticks, Unit.INCH)}" for stock, length in rules.items()
    )
