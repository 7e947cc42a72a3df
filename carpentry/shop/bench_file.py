"""Boards on the bench and what events came to, as JSON documents to be kept: lengths in ticks."""

from decimal import Decimal
from typing import Any

from carpentry.cutting import (
    Cut,
    CutPlan,
    Layout,
    Leftover,
    PlacedPart,
    Saw,
    SawnPiece,
    Status,
    plan_document,
)
from carpentry.design.edges import Edges
from carpentry.design.ends import EndAngle, Ends
from carpentry.language import Json
from carpentry.lumber import Section
from carpentry.shop.bench import Bench, Changed, Key
from carpentry.shop.bench_cuts import BenchBoard, lying_pieces
from carpentry.shop.placing import Supply
from carpentry.shop.shaping import read_shape, shape_document
from carpentry.shop.tree import box_of


def board_document(board: BenchBoard) -> Json:
    """A board as plain data that ``read_board_document`` takes back."""
    return {
        "number": board.number,
        "stock": board.stock,
        "length": board.length,
        "section": [board.section.thickness, board.section.width] if board.section else None,
        "cuts": [
            [n, cut.saw.value, cut.of, cut.start, cut.end, list(cut.makes), _angle(cut.angle)]
            for n, cut in board.numbered()
        ],
        "pieces": [[one.number, one.part, one.keep] for one in board.pieces],
        "labels": [[n, label] for n, label in board.labels.items()],
        "placed": [[n, _placed(one)] for n, one in board.placed.items()],
        "material": board.material,
        "offer": board.offer,
        "called": board.called,
        "price": None if board.price is None else f"{board.price:f}",
        "crooked": board.crooked,
        "flaws": [list(one) for one in board.flaws],
        "trims": list(board.trims),
        "rack": board.rack,
        "shapes": {part: shape_document(one) for part, one in board.shapes.items()},
    }


def _angle(angle: EndAngle) -> list[Any]:
    return [f"{angle.degrees:f}", angle.bevel]


def _placed(one: PlacedPart) -> Json:
    return {
        "part": one.part,
        "x": [one.start, one.end],
        "y": one.y,
        "z": one.z,
        "ends": [_angle(end) for end in one.ends],
        "edges": [_angle(edge) for edge in one.edges],
    }


def read_board_document(document: Json) -> BenchBoard:
    """A board from its document."""
    section = document["section"]
    price = document["price"]
    first, last = document["trims"]
    return BenchBoard(
        number=document["number"],
        stock=document["stock"],
        length=document["length"],
        section=Section(*section) if section else None,
        cuts=tuple(
            Cut(Saw(saw), of, start, end, (makes[0], makes[1]), _read_angle(angle))
            for _, saw, of, start, end, makes, angle in document["cuts"]
        ),
        pieces=tuple(SawnPiece(*one) for one in document["pieces"]),
        labels=dict(document["labels"]),
        placed={n: _read_placed(one) for n, one in document["placed"]},
        numbers=tuple(cut[0] for cut in document["cuts"]),
        material=document["material"],
        offer=document["offer"],
        called=document["called"],
        price=None if price is None else Decimal(price),
        crooked=document["crooked"],
        flaws=tuple((start, end) for start, end in document["flaws"]),
        trims=(first, last),
        rack=document["rack"],
        shapes={part: read_shape(one) for part, one in document.get("shapes", {}).items()},
    )


def _read_angle(told: list[Any]) -> EndAngle:
    return EndAngle(Decimal(told[0]), bool(told[1]))


def _two(told: list[list[Any]]) -> Ends | Edges:
    return _read_angle(told[0]), _read_angle(told[1])


def _read_placed(told: Json) -> PlacedPart:
    start, end = told["x"]
    y, z = (tuple(told[axis]) if told[axis] else None for axis in ("y", "z"))
    return PlacedPart(told["part"], start, end, y, z, _two(told["ends"]), _two(told["edges"]))


def changed_document(changed: Changed) -> Json:
    """What an event came to, as plain data that ``read_changed`` takes back."""
    return {
        "boards": [board_document(board) for board in changed.boards],
        "done": [list(key) for key in sorted(changed.done)],
        "gone": [list(key) for key in sorted(changed.gone)],
        "missing": dict(changed.missing),
        "says": changed.says,
    }


def read_changed(document: Json) -> Changed:
    """What an event came to, from its document."""
    return Changed(
        tuple(read_board_document(one) for one in document["boards"]),
        _keys(document["done"]),
        _keys(document["gone"]),
        document["missing"],
        document["says"],
    )


def plans_as_cut(bench: Bench, supply: Supply) -> list[Json]:
    """The boards as they were really cut, as a plan for each cut problem that they were planned
    from. Nothing is claimed of their price."""
    found = []
    for material, problem in enumerate(supply.problems):
        if problem is None:
            continue
        prices = {piece.id: piece.price for piece in problem.stock}
        used = [b for b in bench.boards.values() if b.material == material and b.placed]
        plan = CutPlan(
            Status.FEASIBLE,
            sum((prices.get(board.offer, Decimal(0)) for board in used), Decimal(0)),
            Decimal(0),
            tuple(_as_layout(board) for board in used),
            (),
        )
        found.append(plan_document(plan, supply.unit))
    return found


def _as_layout(board: BenchBoard) -> Layout:
    lying = lying_pieces(board)
    kept = [box_of(lying[one.number]) for one in board.pieces if one.keep]
    _, width, thickness = board.size
    across, through = (0, width), (0, thickness)
    return Layout(
        board.offer,
        1,
        tuple(board.placed[n] for n in sorted(board.placed)),
        tuple(
            Leftover(
                *box.x,
                None if box.y == across else box.y,
                None if box.z == through else box.z,
                keep=True,
            )
            for box in kept
        ),
        board.cuts,
        board.pieces,
        board.number,
    )


def _keys(told: list[list[int]]) -> frozenset[Key]:
    return frozenset((board, number) for board, number in told)
