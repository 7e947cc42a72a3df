"""A set-up in words, for paper and terminal."""

from collections import Counter
from collections.abc import Iterable

from carpentry.language import Notation, write_length
from carpentry.shop.bench_cuts import STRAIGHTEN, TRIM, BenchCut, Position
from carpentry.shop.lying import EDGE, END, FACE
from carpentry.shop.set_ups import SetUp
from carpentry.shop.ways import Way

MARKS = (
    "Before the first cut mark every board: a cross on one face, one edge and one end. They are "
    "the marked face, edge and end on every card; pieces keep them."
)


def length_said(ticks: int, notation: Notation) -> str:
    return write_length(ticks, notation).text


def stands(position: Position) -> str:
    """How the blade stands."""
    said = []
    if position.angle:
        said.append(f"turned {abs(position.swing):f}° to the {position.swing_side}")
    if position.tilt:
        said.append(f"blade tilted {abs(position.lean):f}°{_tilted(position)}")
    return ", ".join(said) or "square"


def _tilted(position: Position) -> str:
    """To which side a tilted blade leans, as one stands before the saw."""
    if position.is_crosscut:
        return f" to the {position.tilt_side}"
    if position.kind == "table saw":
        return f" to the {position.tilt_side}, away from the fence on the {position.fence_side}"
    return ", away from the fence"


def set_at(position: Position, notation: Notation) -> str:
    """What is set: the stop, the fence, or nothing but the angle."""
    if position.do == TRIM or position.at is None:
        return "Along the line" if position.do != TRIM else "To the line, no stop"
    where = "Stop" if position.do == "crosscut" else "Fence"
    return f"{where} at {length_said(position.at, notation)}"


def way_said(position: Position, notation: Notation) -> str:
    """The way round what the saw cannot do at once; empty where it can."""
    match position.way:
        case Way.FLIP:
            return (
                "More than the saw cuts at once: cut from one side, turn the board over with its "
                "other edge against the fence, and cut on the same line. Its edges must be "
                "parallel."
            )
        case Way.RAISE:
            up = length_said(position.raised, notation)
            return (
                f"A little wider than the saw cuts: lay a scrap about {up} thick under it, clamp "
                "it, and try in scrap first."
            )
        case Way.WEDGE:
            return (
                f"The saw stands at its stop; a wedge of {position.wedge:f}° under or behind the "
                "piece gives the rest. Clamp it, and try in scrap first."
            )
        case Way.SLED if position.is_crosscut:
            return "On the sled: the piece is wider than the miter saw cuts."
        case Way.SLED:
            return (
                "Farther from blade to fence than the side along the fence is long: on a sled, "
                "never against the fence alone."
            )
        case Way.GUIDE:
            return "With the circular saw along a guide that is clamped on the line."
        case Way.HOLD_DOWN:
            return "A short piece: hold it down with a clamp, or cut it from the longer piece."
        case Way.PASSES:
            return (
                "In two passes: half way, turn it over with the same side to the fence, and again."
            )
        case Way.ANOTHER:
            return f"None of your saws does this: {position.would} would."
    return ""


def lies(cut: BenchCut) -> str:
    """How a piece is put on the saw."""
    lying = cut.lying
    end = "first"
    if cut.position.is_crosscut:
        end = "at the stop" if _stopped(cut) else "to the left"
    return f"{lying.up} up, {lying.fence} against the fence, {lying.first} {end}"


def _stopped(cut: BenchCut) -> bool:
    return cut.position.at is not None


def is_usual(cut: BenchCut) -> bool:
    """Whether it lies as boards usually do, so that nothing need be said."""
    return cut.lying.up == FACE and cut.lying.fence == EDGE and cut.lying.first == END


def piece_said(cut: BenchCut) -> str:
    """Which piece a cut is made of."""
    return f"piece {cut.of} of board {cut.board}" if cut.of else f"board {cut.board}"


def made_said(cut: BenchCut) -> str:
    """What comes off."""
    said = []
    for made in cut.makes:
        if made.label:
            said.append(made.label)
        elif made.labels:
            said.append(f"piece {made.number} ({' '.join(made.labels)})")
        else:
            said.append("an offcut to keep" if made.keep else "waste")
    return ", ".join(said)


def counted(labels: Iterable[str]) -> str:
    """Labels by their letters: ``6 × B, 2 × C``."""
    letters = Counter(label.rstrip("0123456789") for label in labels)
    return ", ".join(f"{count} × {letter}" for letter, count in letters.items())


def set_up_said(set_up: SetUp, notation: Notation) -> str:
    """A set-up in a few sentences."""
    position = set_up.position
    tool = position.tool or "no saw that is owned"
    what = {STRAIGHTEN: "Straighten", TRIM: "Trim", "rip": "Rip", "resaw": "Resaw"}.get(
        position.do, "Crosscut"
    )
    said = [f"{what}, {tool}: {set_at(position, notation)}, {stands(position)}."]
    boards = ", ".join(str(number) for number in set_up.boards)
    off = counted(set_up.labels)
    cuts = len(set_up.cuts)
    said.append(
        f"{cuts} cut{'s' if cuts > 1 else ''} from board {boards}{': ' + off if off else ''}."
    )
    if way := way_said(position, notation):
        said.append(way)
    said += notes_of(set_up, notation)
    return " ".join(said)


def notes_of(set_up: SetUp, notation: Notation) -> list[str]:
    """What helps at a set-up beside its figures."""
    position = set_up.position
    said = []
    if position.do == "crosscut" and position.at is not None:
        said.append("The good end goes against the stop.")
    if position.do == TRIM:
        said.append("Back to sound wood; look for splits, and trim more where there are any.")
    if position.do == STRAIGHTEN:
        said.append(
            "The straight edge touches the two ends of the hollow side and rides the fence; its "
            "own width is added to the fence for the first cut."
        )
    if position.at is None:
        kerf = set_up.cuts[0].lying.beyond - set_up.cuts[0].lying.distance
        half, whole = (length_said(one, notation) for one in (kerf // 2, kerf))
        said.append(
            f"Saw beside the line: with the line itself sawn away the piece is {half} short, on the"
            f" wrong side of it {whole}."
        )
    if position.angle and not position.tilt:
        said.append(
            "Two halves of one joint are best cut from opposite sides, one of them turned over:"
            " what the angle is off cancels."
        )
    if position.tilt or position.angle:
        said.append("Distances are measured at the table, from fence or stop to the near teeth.")
    if set_up.stacked > 1:
        said.append(f"Up to {set_up.stacked} alike may be cut at once, their marked ends flush.")
    if set_up.extension:
        more = length_said(set_up.extension, notation)
        said.append(f"The stop is {more} beyond the fence: add an extension.")
    if set_up.overhang:
        said.append("More than a third of the longest board hangs over: support its end.")
    if set_up.test_from is not None:
        said.append(f"Try it first in what becomes waste of board {set_up.test_from}.")
    else:
        said.append("Try it first in scrap of the same section.")
    return said
