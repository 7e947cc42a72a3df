"""The usual cautions, said where the work can hurt someone. Common practice, no source."""

from collections.abc import Iterator
from dataclasses import dataclass

from carpentry.language import TICKS_PER_INCH

PROTECTION = (
    "Wear eye, ear and lung protection. Keep hands away from the blade, leave its guards on, and "
    "wear no gloves near it."
)
CROSSCUTS = (
    "Never crosscut against the rip fence, and never use fence and miter gauge together on a cut "
    "that goes right through: the piece binds and is thrown back."
)
RIPS = (
    "A board that binds, or is farther across from blade to fence than the side along the fence is "
    "long, kicks back: use a riving knife, stand out of its line, and take a sled for short "
    "pieces. Twisted stock is not run through a table saw."
)
NARROW = (
    "Some strips are narrower than 2 in: use push sticks, and let a thin strip come off on the "
    "side of the blade away from the fence."
)
SHORT_RIP_HELD = "under 12 in, clamped to a sled or jig or in a vise, never at the fence"
SHORT_RIPPED = (
    "Some pieces are under 12 in: never rip or resaw one against the fence. Rip the longer piece "
    "before it is crosscut; else clamp it to a sled or a jig that rides the fence, or saw it by "
    "hand in a vise."
)
SHORT = "Some pieces are under 6 in: clamp them, or cut them from the longer piece."
STEEP = (
    "Some angles are past the 45° stop of most saws: the work is clamped to a wedge or a jig, and "
    "tried in scrap first."
)
TREATED = (
    "Treated wood: wear a mask, wash hands before eating, and never burn the offcuts. Fresh cuts "
    "take end-cut preservative."
)
DUST = (
    "Sanding: wear a dust mask and carry the dust outdoors; that of treated wood, cedar and old "
    "paint is harmful."
)
OILY_RAGS = (
    "Rags with oil or oil stain heat up by themselves and can catch fire: spread them flat "
    "outdoors to dry."
)
STRENGTH = (
    "This plans cuts and cost; it does not check strength. Where it bears people or weight, is a "
    "guard, stands on posts in the ground, holds water overhead or joins a building, local codes "
    "and a licensed professional decide."
)
NARROW_STRIP = 2 * TICKS_PER_INCH
SHORT_PIECE = 6 * TICKS_PER_INCH
SHORT_RIP = 12 * TICKS_PER_INCH
_STOP = 45  # degrees


@dataclass(frozen=True)
class Work:
    """What is done at the saw: the narrowest strip that is ripped and the shortest piece that is
    cut (ticks, ``None`` for none), and the steepest angle of any cut (degrees)."""

    narrowest: int | None = None
    shortest: int | None = None
    steepest: float = 0.0


def at_the_saw(work: Work) -> Iterator[str]:
    """What to mind at the saw for this work."""
    yield PROTECTION
    yield CROSSCUTS
    if work.narrowest is not None:
        yield RIPS
        if work.narrowest < NARROW_STRIP:
            yield NARROW
    if work.shortest is not None and work.shortest < SHORT_PIECE:
        yield SHORT
    if work.steepest > _STOP:
        yield STEEP


def beyond_the_saw(
    *, finished: bool = False, oily: bool = False, treated: bool = False
) -> Iterator[str]:
    """What to mind of finishes, of ``oily`` ones, and of ``treated`` wood, and what the plan does
    not answer for."""
    if treated:
        yield TREATED
    if finished:
        yield DUST
    if oily:
        yield OILY_RAGS
    yield STRENGTH
