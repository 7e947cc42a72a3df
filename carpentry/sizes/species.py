"""What wood weighs and where it may stand."""

from dataclasses import dataclass
from decimal import ROUND_HALF_UP, Decimal
from fractions import Fraction

from carpentry.length import TICKS_PER_MM
from carpentry.sizes.kinds import Exposure
from carpentry.sizes.names import StockName

_CUBIC_TICKS_PER_M3 = (1000 * TICKS_PER_MM) ** 3
POUNDS_PER_KG = Fraction(100_000_000, 45_359_237)  # the international pound: 0.45359237 kg exactly
AIR_DRY = 12


@dataclass(frozen=True)
class Species:
    """A wood. ``gravity`` is its specific gravity: oven-dry weight over volume at 12 % moisture.

    Values from memory of the USDA Wood Handbook, rounded.
    """

    word: str
    name: str
    gravity: Decimal
    exposure: Exposure
    caution: str

    def density(self, moisture: int = AIR_DRY) -> Fraction:
        """Kilograms per cubic metre at a moisture content in percent (0 to 30): 1000 × G × (1 +
        M ÷ 100), the Wood Handbook's relation, shrinkage left aside."""
        return 1000 * Fraction(self.gravity) * (1 + Fraction(moisture, 100))


_DUST = "Wear a mask when sawing and sanding."
_SEAL = "Seal every face and the end grain; keep it off the ground."
SPECIES = {
    one.word: one
    for one in (
        Species("spruce", "spruce-pine-fir", Decimal("0.42"), Exposure.DRY, _SEAL),
        Species("pine", "eastern white pine", Decimal("0.35"), Exposure.DRY, _SEAL),
        Species("southern", "southern pine", Decimal("0.55"), Exposure.DRY, _SEAL),
        Species("fir", "Douglas-fir", Decimal("0.48"), Exposure.DRY, _SEAL),
        Species("hemlock", "western hemlock", Decimal("0.45"), Exposure.DRY, _SEAL),
        Species(
            "cedar",
            "western redcedar",
            Decimal("0.32"),
            Exposure.OUTDOORS,
            "The dust irritates lungs and skin: wear a mask. Plain steel screws stain it.",
        ),
        Species("redwood", "redwood", Decimal("0.40"), Exposure.OUTDOORS, _DUST),
        Species("larch", "western larch", Decimal("0.52"), Exposure.OUTDOORS, _DUST),
        Species("cypress", "baldcypress", Decimal("0.46"), Exposure.OUTDOORS, _DUST),
        Species("locust", "black locust", Decimal("0.69"), Exposure.GROUND, _DUST),
        Species("oak", "white oak", Decimal("0.68"), Exposure.OUTDOORS, _DUST),
    )
}
TREATED = Species(
    "treated",
    "pressure-treated southern pine",
    Decimal("0.55"),
    Exposure.GROUND,
    "Wear a mask, wash hands, never burn offcuts. Fresh from the yard it is far heavier.",
)
COMPOSITE = Species(
    "composite",
    "wood-plastic composite",
    Decimal("0.95"),
    Exposure.OUTDOORS,
    "It creeps and gets hot: keep to the maker's spans.",
)
SHEET = Species(
    "sheet",
    "softwood plywood",
    Decimal("0.50"),
    Exposure.DRY,
    "Only exterior glue outdoors; seal the edges.",
)
PLAIN = SPECIES["spruce"]


def species_of(stock: StockName) -> Species:
    """The wood a stock's words name; plain framing lumber where they name none. A material
    of one's own is a wood of its own."""
    if stock.own:
        gravity = stock.own.density / (1000 * (1 + Decimal(AIR_DRY) / 100))
        name = stock.own.name
        return Species(name, name, gravity, stock.own.exposure, stock.own.caution)
    words = set(stock.words)
    if words & {"treated", "pt"}:
        return TREATED
    if "composite" in words:
        return COMPOSITE
    for word in stock.words:
        if word in SPECIES:
            return SPECIES[word]
    return SHEET if stock.is_sheet else PLAIN


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
