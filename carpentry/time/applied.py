"""What a product makes of a step in which it is used: one rule for steps that are made and for
those that are typed."""

from collections.abc import Iterator, Sequence
from dataclasses import replace

from carpentry.buying.products import MOST_STAY, Product, Use, instead_of
from carpentry.hours.durations import write_long
from carpentry.hours.weather import Wait
from carpentry.lumber.cautions import OILY_RAGS
from carpentry.time.asked import Instead
from carpentry.time.step import Step, Used


def with_product(
    step: Step,
    product: Product,
    products: Sequence[Product] = (),
    *,
    coat: int = 1,
    is_last: bool = True,
    outdoors: bool = False,
) -> Step:
    """A step in which a product is used, for its ``coat`` of that number: its wait and who says
    so, its clamps' wait, what to do, what to mind and what to ask. Minutes that nobody typed grow
    by those for which the builder stays with it."""
    other = instead_of(product, products)
    cautions = (OILY_RAGS,) if product.oily else ()
    quicker = Instead(other.name, _wait(other, is_last), other.least, other.work) if other else None
    return replace(
        step,
        minutes=step.minutes + (product.stays if step.reckoned else 0),
        wait=_wait(product, is_last),
        wait_told=product.last_told if _cures(product, is_last) else product.told,
        least=product.least if step.least is None else step.least,
        held=Wait.steady(product.clamps) if product.clamps else None,
        stays=5 <= product.wait <= MOST_STAY,
        instead=quicker,
        notes=tuple(dict.fromkeys((*step.notes, *_notes(product, coat, outdoors=outdoors)))),
        asks=tuple(dict.fromkeys((*step.asks, *filter(None, [product.asks])))),
        cautions=tuple(dict.fromkeys((*step.cautions, *cautions))),
        used=Used(product, coat, is_last=is_last, outdoors=outdoors),
    )


def with_another(step: Step, product: Product, products: Sequence[Product]) -> Step:
    """A step in which another product is used than it was made with."""
    was = step.used
    if was is None:
        return with_product(step, product, products)
    gone = set(_notes(was.product, was.coat, outdoors=was.outdoors))
    bare = replace(
        step,
        minutes=step.minutes - (was.product.stays if step.reckoned else 0),
        least=None if step.least == was.product.least else step.least,
        notes=tuple(note for note in step.notes if note not in gone),
        asks=tuple(one for one in step.asks if one != was.product.asks),
        cautions=tuple(one for one in step.cautions if one != OILY_RAGS),
    )
    return with_product(
        bare, product, products, coat=was.coat, is_last=was.is_last, outdoors=was.outdoors
    )


def _cures(product: Product, is_last: bool) -> bool:
    return is_last and product.use is not Use.GLUE


def _wait(product: Product, is_last: bool) -> Wait:
    return product.last_wait if _cures(product, is_last) else product.waits


def _notes(product: Product, coat: int, *, outdoors: bool) -> Iterator[str]:
    if product.use is Use.GLUE:
        if outdoors and not product.waterproof:
            yield f"{product.name} is not waterproof: outdoors take one that is"
        return
    if product.rubbed and coat > 1:
        yield "rub it lightly first, 220 to 320, and wipe off the dust"
    if product.within and coat > 1:
        yield (
            f"within {write_long(product.within)} of the coat before; after that rub it first, or "
            "this coat does not hold"
        )
    if product.brushed:
        yield "back-brush: work it in with a brush before it sets"
    if product.wipe:
        yield f"wipe off after {product.wipe} min, stay with it"
    if product.buff:
        yield f"buff after {product.buff} min"
    if product.use is Use.FILLER:
        yield "sand it flush when it is hard"
