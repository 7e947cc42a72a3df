"""Parts that no board is there for, each with the reason."""

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import replace
from decimal import Decimal

from carpentry.cutting.line.sound_runs import sound_stretches
from carpentry.cutting.plan import Layout, Unplaced
from carpentry.cutting.problem import (
    MOST_WEDGE,
    NO_LIMITS,
    CutPart,
    CutProblem,
    Order,
    StockPiece,
)
from carpentry.cutting.ripped.numbers import fits_stock
from carpentry.design.ends import EndAngle
from carpentry.language import Notation, Unit, write_length

Written = Callable[[int], str]


def unplaced_of(problem: CutProblem, layouts: Iterable[Layout]) -> tuple[Unplaced, ...]:
    """What boards leave out of a problem."""
    placed: Counter[str] = Counter()
    for layout in layouts:
        for part in layout.parts:
            placed[part.part] += layout.count
    return tuple(
        Unplaced(part.id, part.quantity - placed[part.id], _reason(problem, part))
        for part in problem.parts
        if part.quantity > placed[part.id]
    )


def _beyond_the_saw(
    problem: CutProblem, part: CutPart, stock: list[StockPiece], written: Written
) -> str:
    """Why no saw at hand makes a part, in words; empty where one does."""
    saw = problem.saw
    for end in part.ends:
        if not saw.turns(end):
            most = saw.tilt if end.bevel else saw.miter
            would = _on_a_wedge(end, most)
            return f"an end of {end.words} is beyond the saw, which goes to {most:f}°{would}"
    if saw == NO_LIMITS or part.width is None or part.thickness is None:
        return ""
    for edge in part.edges:
        if not saw.tilts(edge):
            would = _on_a_wedge(edge, saw.tilt)
            return f"an edge of {edge.words} is beyond the saw, which tilts to {saw.tilt:f}°{would}"
    wide = max(part.width, part.thickness)
    if not saw.crosses(wide, 0):
        return (
            f"{written(wide)} is wider than the saw crosscuts, {written(saw.crosscut or 0)}: turned"
            " over and cut from both sides, on a sled or along a guide it would do"
        )
    if problem.is_ripped and problem.order is Order.CROSSCUT_FIRST:
        narrow = [p for p in stock if saw.crosses(p.width or 0, p.thickness or 0)]
        if stock and not any(fits_stock(part, piece, problem) for piece in narrow):
            return "crosscuts come first, and the saw crosses no board that is wide enough"
    freely = replace(problem, saw=NO_LIMITS)
    fitting = [piece for piece in stock if fits_stock(part, piece, freely)]
    if not problem.is_ripped or any(fits_stock(part, piece, problem) for piece in fitting):
        return ""
    if not fitting:
        return ""
    limits = {"rips": saw.rip_depth, "resaws": saw.resaw_depth}
    does = " and ".join(f"{word} up to {written(most)}" for word, most in limits.items() if most)
    return f"no board gives it within what the saw does, which {does or 'reaches too short'}"


def _on_a_wedge(end: EndAngle, most: Decimal | None) -> str:
    """What would do where an angle is a little beyond a saw."""
    beyond = abs(end.degrees) - (most or 0)
    return f": a wedge of {beyond:f}° would do" if most and beyond <= MOST_WEDGE else ""


def _reason(problem: CutProblem, part: CutPart) -> str:
    notation = Notation.MM if problem.unit is Unit.MM else Notation.SIXTY_FOURTHS

    def written(ticks: int) -> str:
        return write_length(ticks, notation).text

    stock = [piece for piece in problem.stock if piece.available != 0]
    if not stock:
        return "there is no stock to cut it from"
    if part.on:
        stock = [piece for piece in stock if piece.id in part.on]
    if not stock:
        return f"nothing is left of {', '.join(part.on)}, which it may come from"
    has_section = part.thickness is not None and part.width is not None
    fitting = [p for p in stock if not has_section or fits_stock(part, p, problem)]
    return (
        _beyond_the_saw(problem, part, stock, written)
        or _too_large_across(part, stock, written, fits=bool(fitting))
        or _too_long(problem, part, fitting, written)
        or "every piece of stock that holds it is used up"
    )


def _too_large_across(
    part: CutPart, stock: list[StockPiece], written: Written, *, fits: bool
) -> str:
    """Why no stock is wide and thick enough, in words; empty where some is."""
    if fits or part.thickness is None or part.width is None:
        return ""
    thick, wide = part.thickness + part.extra.thickness, part.width + part.extra.width
    widest = max(piece.width or 0 for piece in stock)
    thickest = max(piece.thickness or 0 for piece in stock)
    if wide > widest:
        return f"it is {written(wide - widest)} wider than the widest stock"
    short = max(thick - thickest, 1)
    return f"it is {written(short)} thicker than the stock that is wide enough"


def _too_long(problem: CutProblem, part: CutPart, stock: list[StockPiece], written: Written) -> str:
    """Why no sound wood is long enough, in words; empty where some is."""
    if part.clear and any(piece.flaws for piece in stock):
        sound = max((b - a for p in stock for a, b in sound_stretches(problem, p)), default=0)
        if part.sawn_length > sound:
            by = written(part.sawn_length - sound)
            found = f"the longest sound wood, {written(sound)}" if sound else "all sound wood"
            return f"{written(part.sawn_length)} misses {found}, by {by}"
    longest = max(stock, key=lambda piece: piece.length)
    sound = problem.sound_length(longest)
    if sound <= 0:
        return "the trims take all of every piece of stock"
    if part.sawn_length <= sound:
        return ""
    trims = problem.trim_start + problem.trim_end
    left = f", {written(sound)} after trimming" if trims else ""
    missed = f"{written(part.sawn_length)} misses the longest stock, {written(longest.length)}"
    return f"{missed}{left}, by {written(part.sawn_length - sound)}"
