"""A set-up in words, for paper and terminal."""

from collections import Counter
from collections.abc import Iterable

from carpentry.cutting import Saw
from carpentry.language import Notation, write_length
from carpentry.shop.bench_cuts import STRAIGHTEN, TRIM, BenchCut, Position
from carpentry.shop.lying import EDGE, END, FACE, FAR_END, LONG_EDGE_DOWN, LONG_EDGE_UP, LONG_POINT
from carpentry.shop.set_ups import SetUp
from carpentry.shop.shaping import Shaping
from carpentry.shop.ways import Way

MARKS = (
    "Before the first cut mark every board: a cross on one face, one edge and one end. They are "
    "the marked face, edge and end on every card; pieces keep them."
)

_CORNER = 8  # ticks, 0.025 mm, within which a line begins at a corner
OVER_ALL = "over all"  # how a piece with slanted ends is measured, on every card and label


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
    if position.do == TRIM:
        return "To the line, no stop"
    if position.at is None:
        return "Along the line"
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
            return _wedge_said(position)
        case Way.SLED if position.is_crosscut:
            return "On the sled: the piece is wider than the miter saw cuts."
        case Way.SLED:
            return (
                "Farther from blade to fence than the side along the fence is long: on a sled, "
                "never against the fence alone."
            )
        case Way.GUIDE:
            return "With the circular saw along a guide that is clamped on the line."
        case Way.HOLD_DOWN if position.is_crosscut:
            return "A short piece: hold it down with a clamp, or cut it from the longer piece."
        case Way.HOLD_DOWN:
            return (
                "Under 12 in long: never against the fence. Clamp it to a sled or a jig that rides "
                "the fence, its line over the edge where the blade runs; else saw it by hand in a "
                "vise. No piece of this plan that is long enough holds it."
            )
        case Way.PASSES if position.kind == "circular saw":
            return (
                "Thicker than the saw cuts: draw the line square all round, saw half way along a "
                "guide, turn the piece over, and saw from the other face on the same line."
            )
        case Way.PASSES:
            return (
                "In two passes: half way, turn it over with the same side to the fence, and again."
            )
        case Way.ANOTHER:
            return f"None of your saws does this: {position.would} would."
    if position.kind == "hand saw":
        return "By hand: draw the line all round, clamp the piece, and saw beside the line."
    return ""


def _wedge_said(position: Position) -> str:
    """Where a wedge lies, and on which side it is thick. A piece is turned or raised by it, so that
    no stop and no fence is right any more: its line is what tells."""
    own = abs(position.swing) or abs(position.lean)
    told = f"The saw stands at its stop, {own:f}°; a wedge of {position.wedge:f}° gives the rest"
    if not position.is_crosscut:
        return (
            f"{told}: as long as the piece and fixed under it, its thick side away from the fence, "
            "the edge of the piece itself against the fence. Set the fence so that the blade meets "
            "the line, and try in scrap first."
        )
    if position.angle:
        where = f"between fence and piece, its thick end to the {position.swing_side}"
    else:
        where = f"under the piece, its thick end to the {position.tilt_side}"
    return f"{told}: {where}. Clamp the piece, line up the blade with its line, no stop."


TOUCHING = {
    LONG_POINT: "its long point against the stop",
    LONG_EDGE_UP: "its long edge up, against the stop",
    LONG_EDGE_DOWN: "its long edge down, against the stop",
}


def lies(cut: BenchCut) -> str:
    """How a piece is put on the saw, and what of a slanted end touches the stop."""
    lying = cut.lying
    end = "first"
    if cut.position.is_crosscut:
        end = "at the stop" if _stopped(cut) else "to the left"
    said = f"{lying.up} up, {lying.fence} against the fence, {lying.first} {end}"
    if _stopped(cut) and lying.touches:
        return f"{said}, {TOUCHING[lying.touches]}"
    return said


def line_from(cut: BenchCut) -> str:
    """From where a line is measured, on the face that is up."""
    lying = cut.lying
    if cut.saw is not Saw.CROSSCUT:
        return f"from the {lying.from_}"
    end = f"{lying.first}" if lying.from_ == "end" else f"long point of the {lying.first}"
    along = f", along the {lying.along}" if cut.position.angle or lying.from_ != "end" else ""
    return f"from the {end}{along}"


def line_said(cut: BenchCut, notation: Notation) -> str:
    """Where a line is drawn, on the face that is up; for a tilted blade where it meets the table,
    beside it."""
    lying = cut.lying
    if cut.shaping:
        return shape_said(cut.shaping, cut.size, notation)
    if cut.mark <= _CORNER and cut.saw is Saw.CROSSCUT:
        return f"line from the corner of {lying.first} and {lying.along}"
    said = f"line at {length_said(cut.mark, notation)} {line_from(cut)}"
    if cut.position.tilt:
        below = length_said(cut.mark_below, notation)
        return f"{said} ({below} on the table)"
    return said


def shape_said(shaping: Shaping, size: tuple[int, int, int], notation: Notation) -> str:
    """Between which points a part of that size is sawn, from its marked end and marked edge."""
    long, wide, _ = size
    top, bottom = shaping.edges
    if not shaping.is_straight:
        corners = ", ".join(
            " × ".join(length_said(one, notation) for one in corner) for corner in shaping.line
        )
        return f"lines through {corners}, each from the {END} and the {top}. {shaping.more}"
    (x0, y0), (x1, y1) = shaping.line
    end = END if x0 == 0 else FAR_END
    begins = f"{length_said(y0, notation)} from the {top} on the {end}"
    if y0 in (0, wide):
        begins = f"the corner of {end} and {bottom if y0 else top}"
    away = length_said(x1 if end == END else long - x1, notation)
    return f"line from {begins} to {away} from the {end} on the {bottom if y1 else top}"


def _stopped(cut: BenchCut) -> bool:
    return cut.position.at is not None


def is_usual(cut: BenchCut) -> bool:
    """Whether it lies as boards usually do, so that nothing need be said."""
    return cut.lying.up == FACE and cut.lying.fence == EDGE and cut.lying.first == END


def piece_said(cut: BenchCut) -> str:
    """Which piece a cut is made of."""
    if cut.shapes:
        return f"{cut.shapes} of board {cut.board}"
    return f"piece {cut.of} of board {cut.board}" if cut.of else f"board {cut.board}"


def made_said(cut: BenchCut) -> str:
    """What comes off, or what is sawn of a part."""
    if cut.shaping:
        return cut.shaping.called
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
    what = position.do.capitalize()
    said = [f"{what}, {tool}: {set_at(position, notation)}, {stands(position)}."]
    boards = ", ".join(str(number) for number in set_up.boards)
    off = counted([*set_up.labels, *set_up.shaped])
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
        stopped = [cut for cut in set_up.cuts if cut.position.at is not None]
        touching = {cut.lying.touches for cut in stopped if cut.lying.touches}
        said += [f"A slanted end: {TOUCHING[one]}." for one in sorted(touching)]
        if not touching:
            said.append("The good end goes against the stop.")
    lines = [cut for cut in set_up.cuts if cut.position.at is None]
    if any(cut.at_end for cut in lines):
        said.append("Back to sound wood; look for splits, and trim more where there are any.")
    if position.do == STRAIGHTEN:
        said.append(
            "The straight edge touches the two ends of the hollow side and rides the fence; its "
            "own width is added to the fence for the first cut."
        )
    plain = [cut for cut in lines if cut.shaping is None]
    if plain:
        kerf = max(cut.kerf for cut in plain)
        half, whole = (length_said(one, notation) for one in (kerf // 2, kerf))
        said.append(
            f"Saw beside the line: with the line itself sawn away the piece is {half} short, on the"
            f" wrong side of it {whole}."
        )
    if position.tilt and position.at is not None:
        said.append("The figure is at the table, from fence or stop to the near teeth.")
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
