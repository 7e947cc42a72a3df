"""Set-ups as JSON documents."""

from collections import Counter
from collections.abc import Iterable, Sequence

from carpentry.cutting import CutPlan
from carpentry.cutting.plan_file import signed
from carpentry.language import Json, Notation, Unit, interchange
from carpentry.planning import Workup
from carpentry.shop.bench_cuts import BenchCut, Position, every_cut
from carpentry.shop.from_plan import boards_to_cut, not_yet
from carpentry.shop.said import MARKS, lies, line_from, set_up_said
from carpentry.shop.set_ups import Sequenced, SetUp, board_by_board, stop_by_stop
from carpentry.shop.shaping import Shaping
from carpentry.shop.tools import Tools, starter_tools


def set_ups_of(
    work: Workup,
    plans: Sequence[CutPlan | None],
    tools: Tools | None = None,
    lines: str = "",
) -> Json:
    """The set-ups of a project's plans, for the tools owned, else for a few common ones; ``lines``
    of work on parts are told as not worked out yet."""
    owned = starter_tools() if tools is None else tools
    boards = boards_to_cut(work, plans)
    cuts = every_cut(boards, owned)
    found, alone = stop_by_stop(cuts, owned), board_by_board(cuts, owned)
    settings = work.settings
    return {
        "set_ups": set_ups_document(found, settings.unit, settings.notation),
        "shop": {
            "stop_by_stop": {
                "moves": found.moves,
                "lifts": found.lifts,
                "swings": found.swings,
                "walks": found.walks,
                "fewest": found.is_fewest,
            },
            "board_by_board": {
                "moves": alone.moves,
                "lifts": alone.lifts,
                "swings": alone.swings,
                "walks": alone.walks,
            },
            "marks": MARKS,
            "not_yet": list(not_yet(work, lines.splitlines())),
        },
    }


def set_ups_document(found: Sequenced, unit: Unit, notation: Notation) -> list[Json]:
    """Set-ups in their order, every cut of the plan in exactly one of them."""
    return [_set_up(one, unit, notation) for one in found.set_ups]


def position_document(position: Position, unit: Unit) -> Json:
    """How a tool stands: lengths as text, angles as bare decimals."""
    found: Json = {"tool": position.tool or None, "do": position.do}
    if position.at is not None:
        found["stop" if position.do == "crosscut" else "fence"] = interchange(position.at, unit)
    if position.is_crosscut:
        if position.tilt:
            found["bevel"] = f"{position.tilt:f}"
        found["angle"] = f"{position.angle:f}"
        if position.angle:
            found["swing"] = position.swing_side
    elif position.tilt:
        found["bevel"] = f"{position.tilt:f}"
    if position.tilt:
        found["tilt"] = f"{abs(position.lean):f}"
        found["tilt_side"] = position.tilt_side
    if not position.is_crosscut:
        found["fence_side"] = position.fence_side
    found["way"] = position.way.value if position.way else None
    if position.wedge:
        found["wedge"] = f"{position.wedge:f}"
    if position.raised:
        found["raise"] = interchange(position.raised, unit)
    if position.passes > 1:
        found["passes"] = position.passes
    if position.would:
        found["would"] = position.would
    return found


def _set_up(one: SetUp, unit: Unit, notation: Notation) -> Json:
    parts = Counter(made.part for cut in one.cuts for made in cut.makes if made.part)
    return {
        **position_document(one.position, unit),
        "of": [{"part": part, "count": count} for part, count in parts.items()],
        "cuts": [_cut(cut, unit) for cut in one.cuts],
        "stack": one.stacked,
        "extension": interchange(one.extension, unit) if one.extension else None,
        "support": bool(one.overhang),
        "test_from": one.test_from,
        "says": set_up_said(one, notation),
        "cautions": list(one.cautions),
    }


def _cut(cut: BenchCut, unit: Unit) -> Json:
    return {
        "board": cut.board,
        "cut": cut.number,
        "piece": cut.of,
        "up": cut.lying.up,
        "against": cut.lying.fence,
        "first": cut.lying.first,
        "to_line": cut.position.at is None,
        "touches": cut.lying.touches if cut.position.at is not None else None,
        "mark": None if cut.shaping else signed(cut.mark, unit),
        "mark_from": None if cut.shaping else line_from(cut),
        "mark_on_table": signed(cut.mark_below, unit) if cut.position.tilt else None,
        "waste": cut.waste,
        "held": cut.is_held,
        "drawn": _drawn(cut, unit) if cut.position.is_crosscut and not cut.shaping else None,
        "shapes": cut.shapes or None,
        "line": _line(cut.shaping, unit) if cut.shaping else None,
        "near": _made(cut, near=True),
        "far": _made(cut, near=False),
        "says": lies(cut),
    }


def _line(shaping: Shaping, unit: Unit) -> list[list[str]]:
    """Through which points a part is sawn: from its marked end, and from its marked edge."""
    return [[interchange(one, unit) for one in point] for point in shaping.line]


def _drawn(cut: BenchCut, unit: Unit) -> Json:
    """Where the ends and the near side of the blade are drawn, from what touches the stop: at the
    fence and away from it on the face that is up, away from it and at the fence on the table."""
    lying = cut.lying
    return {
        name: [signed(one, unit) for one in corners]
        for name, corners in (
            ("near_end", lying.near_end),
            ("blade", lying.blade),
            ("far_end", lying.far_end),
        )
    } | {"kerf": interchange(cut.kerf, unit)}


def _made(cut: BenchCut, *, near: bool) -> Json | None:
    """What comes off on one side of the blade."""
    made: Iterable[Json] = (
        {
            "piece": one.number,
            "label": one.label or None,
            "part": one.part or None,
            "keep": one.keep,
        }
        for one in cut.makes
        if one.is_near == near
    )
    return next(iter(made), None)
