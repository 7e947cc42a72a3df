"""What wood weighs and where it may stand."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction

from carpentry.language import TICKS_PER_MM, Unit
from carpentry.lumber.kinds import Exposure, Kind
from carpentry.lumber.names import StockName
from carpentry.lumber.words import GRADES

_CUBIC_TICKS_PER_M3 = (1000 * TICKS_PER_MM) ** 3
POUNDS_PER_KG = Fraction(100_000_000, 45_359_237)  # the international pound: 0.45359237 kg exactly
AIR_DRY = 12


@dataclass(frozen=True)
class Species:
    """A wood. ``gravity`` is its specific gravity, oven-dry weight over volume at 12 % moisture,
    ``exposure`` where it may stand; both are ``None`` for a wood that nobody here knows. ``word``
    is how it is typed after a size.

    Values from memory of the USDA Wood Handbook, rounded; of panels and composites by common
    practice.
    """

    word: str
    name: str
    gravity: Decimal | None
    exposure: Exposure | None
    caution: str

    def density(self, moisture: int = AIR_DRY) -> Fraction | None:
        """Kilograms per cubic metre at a moisture content in percent (0 to 30): 1000 × G × (1 +
        M ÷ 100), the Wood Handbook's relation, shrinkage left aside."""
        if self.gravity is None:
            return None
        return 1000 * Fraction(self.gravity) * (1 + Fraction(moisture, 100))


_DUST = "Wear a mask when sawing and sanding."
_SEAL = "Seal every face and the end grain; keep it off the ground."
_INDOORS = "Not durable outdoors, sealed or not. Wear a mask when sawing and sanding."
_CEDAR = "The dust irritates lungs and skin: wear a mask. Plain steel screws stain it."
_DENSE = "Predrill; the dust irritates lungs and skin: wear a mask."
_FIBRES = "It swells when wet; the dust is very fine: wear a mask."
_EXTERIOR = "Only exterior glue outdoors; seal the edges."


def _wood(word: str, name: str, gravity: str, exposure: Exposure, caution: str) -> Species:
    return Species(word, name, Decimal(gravity), exposure, caution)


WOODS = (
    _wood("spruce", "spruce-pine-fir", "0.42", Exposure.DRY, _SEAL),
    _wood("pine", "eastern white pine", "0.35", Exposure.DRY, _SEAL),
    _wood("southern pine", "southern pine", "0.55", Exposure.DRY, _SEAL),
    _wood("red pine", "red pine", "0.46", Exposure.DRY, _SEAL),
    _wood("ponderosa pine", "ponderosa pine", "0.40", Exposure.DRY, _SEAL),
    _wood("fir", "Douglas-fir", "0.48", Exposure.DRY, _SEAL),
    _wood("white fir", "white fir", "0.39", Exposure.DRY, _SEAL),
    _wood("hem-fir", "hem-fir", "0.43", Exposure.DRY, _SEAL),
    _wood("hemlock", "western hemlock", "0.45", Exposure.DRY, _SEAL),
    _wood("cedar", "western redcedar", "0.32", Exposure.OUTDOORS, _CEDAR),
    _wood("white cedar", "northern white-cedar", "0.31", Exposure.OUTDOORS, _CEDAR),
    _wood("yellow cedar", "yellow-cedar", "0.44", Exposure.OUTDOORS, _CEDAR),
    _wood("redwood", "redwood", "0.40", Exposure.OUTDOORS, _DUST),
    _wood("larch", "western larch", "0.52", Exposure.OUTDOORS, _DUST),
    _wood("cypress", "baldcypress", "0.46", Exposure.OUTDOORS, _DUST),
    _wood("locust", "black locust", "0.69", Exposure.GROUND, _DENSE),
    _wood("white oak", "white oak", "0.68", Exposure.OUTDOORS, _DUST),
    _wood("red oak", "red oak", "0.63", Exposure.DRY, _INDOORS),
    _wood("oak", "oak, red or white", "0.65", Exposure.DRY, _INDOORS),
    _wood("maple", "hard maple", "0.63", Exposure.DRY, _INDOORS),
    _wood("soft maple", "soft maple", "0.54", Exposure.DRY, _INDOORS),
    _wood("ash", "white ash", "0.60", Exposure.DRY, _INDOORS),
    _wood("birch", "yellow birch", "0.62", Exposure.DRY, _INDOORS),
    _wood("beech", "American beech", "0.64", Exposure.DRY, _INDOORS),
    _wood("cherry", "black cherry", "0.50", Exposure.DRY, _INDOORS),
    _wood("walnut", "black walnut", "0.55", Exposure.DRY, _INDOORS),
    _wood("poplar", "yellow-poplar", "0.42", Exposure.DRY, _INDOORS),
    _wood("ipe", "ipe", "0.92", Exposure.OUTDOORS, _DENSE),
)
_TREATED_CAUTION = (
    "Wear a mask, wash hands, never burn offcuts. Hot-dip galvanised or stainless fasteners. Fresh "
    "from the yard it is far heavier."
)
TREATED = _wood(
    "treated",
    "pressure-treated southern pine",
    "0.55",
    Exposure.OUTDOORS,
    f"Read the end tag: not all of it may touch the ground. {_TREATED_CAUTION}",
)
TREATED_FOR_GROUND = _wood(
    "treated ground contact",
    "pressure-treated southern pine, ground contact",
    "0.55",
    Exposure.GROUND,
    _TREATED_CAUTION,
)
COMPOSITE = _wood(
    "composite",
    "wood-plastic composite",
    "0.95",
    Exposure.OUTDOORS,
    "It creeps and gets hot: keep to the maker's spans.",
)
PANELS = {
    "ply": _wood("ply", "softwood plywood", "0.50", Exposure.DRY, _EXTERIOR),
    "osb": _wood("osb", "oriented strand board", "0.57", Exposure.DRY, _EXTERIOR),
    "hardboard": _wood("hardboard", "hardboard", "0.90", Exposure.DRY, _INDOORS),
    "mdf": _wood("mdf", "medium-density fibreboard", "0.68", Exposure.DRY, _FIBRES),
    "particleboard": _wood("particleboard", "particleboard", "0.62", Exposure.DRY, _FIBRES),
}
PLAIN = WOODS[0]

_SPELLINGS = {
    "southern pine": ("southern yellow pine", "yellow pine", "syp", "southern"),
    "spruce": ("spruce pine fir", "spf", "whitewood"),
    "fir": ("douglas fir", "doug fir", "douglas"),
    "pine": ("white pine", "eastern white pine"),
    "ponderosa pine": ("ponderosa",),
    "hemlock": ("western hemlock",),
    "cedar": ("red cedar", "western red cedar", "redcedar"),
    "white cedar": ("northern white cedar",),
    "yellow cedar": ("alaska cedar",),
    "locust": ("black locust",),
    "maple": ("hard maple",),
    "soft maple": ("red maple",),
}


def _phrases() -> Iterator[tuple[frozenset[str], Species]]:
    """The words of every way to write a wood, the longest first."""
    written = [(text, one) for one in WOODS for text in (one.word, *_SPELLINGS.get(one.word, ()))]
    for text, one in sorted(written, key=lambda pair: (-len(pair[0].replace("-", " ").split()),)):
        yield frozenset(text.replace("-", " ").split()), one


_PHRASES = tuple(_phrases())


def species_of(stock: StockName) -> Species:
    """The wood a stock's words name, phrases before words: plain framing lumber where they name
    none, a wood without weight and exposure where they name one that is not known. A material of
    one's own is a wood of its own."""
    if stock.own:
        gravity = stock.own.density / (1000 * (1 + Decimal(AIR_DRY) / 100))
        name = stock.own.name
        return Species(name, name, gravity, stock.own.exposure, stock.own.caution)
    words = {part for word in stock.words for part in word.split("-")}
    if stock.kind is Kind.TREATED:
        return TREATED_FOR_GROUND if "ground" in words else TREATED
    if stock.kind is Kind.COMPOSITE:
        return COMPOSITE
    named = next((one for phrase, one in _PHRASES if phrase <= words), None)
    if named:
        return named
    unknown = sorted(word for word in stock.words if word not in GRADES)
    if unknown:
        return Species("", " ".join(unknown), None, None, "")
    if stock.is_sheet:
        kind = stock.size.split()[0]
        return PANELS.get(kind, Species("", kind, None, None, ""))
    return PLAIN


def weight_kg(volume: int, density: Fraction) -> Fraction:
    """Kilograms of a volume in cubic ticks at a density in kg/m³."""
    return Fraction(volume, _CUBIC_TICKS_PER_M3) * density


def pounds(kilograms: Fraction) -> Fraction:
    """Kilograms in pounds."""
    return kilograms * POUNDS_PER_KG


def rounded(amount: Fraction, places: str = "0.1") -> Decimal:
    """An amount as a decimal, halves up."""
    exact = Decimal(amount.numerator) / Decimal(amount.denominator)
    return exact.quantize(Decimal(places), ROUND_HALF_UP)


def weight_told(kilograms: Fraction, unit: Unit, places: str = "1") -> str:
    """A weight in the pounds or kilograms that go with a unit, rounded to so many places."""
    if unit is Unit.MM:
        return f"{rounded(kilograms, places)} kg"
    return f"{rounded(pounds(kilograms), places)} lb"


def load_told(kilograms: Decimal, unweighed: int, unit: Unit) -> str:
    """The weight of what is carried, with how many boards it leaves out."""
    weight = weight_told(Fraction(kilograms), unit)
    return f"{weight}, {unweighed} not weighed" if unweighed else weight
