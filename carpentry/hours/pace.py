"""How fast a builder is, of what is usual."""

from decimal import Decimal

from carpentry.language import CarpentryError

LEAST_PACE, MOST_PACE = Decimal(20), Decimal(500)


def read_pace(text: str) -> Decimal:
    """One's own pace in percent of what is usual: ``150 %`` takes half as long again. Raises
    ``CarpentryError``."""
    typed = text.strip().rstrip("%").strip() or "100"
    try:
        pace = Decimal(typed)
    except ArithmeticError as error:
        raise CarpentryError("write it in percent of the usual minutes, such as 150 %") from error
    if not pace.is_finite() or not LEAST_PACE <= pace <= MOST_PACE:
        raise CarpentryError(f"a pace is from {LEAST_PACE} to {MOST_PACE} %")
    return pace


def at_pace(minutes: float, pace: Decimal) -> int:
    """Whole minutes, at least one, to the next five from a quarter of an hour on."""
    found = minutes * float(pace) / 100
    return max(1, round(found)) if found < 15 else -(-round(found) // 5) * 5
