"""What an event at the bench comes to: the boards it touches cut otherwise, and a place for every
part that lost its own. Every board that changes is sawn again by its cuts alone before it is
believed.
"""

from collections.abc import Sequence
from dataclasses import replace

from carpentry.cutting import Cut, CutProblem, Saw, SawnPiece
from carpentry.language import CarpentryError, PlanCheckError, Unit, read_length, write_length
from carpentry.shop.bench import Bench, Changed, Key
from carpentry.shop.bench_cuts import BenchBoard, every_cut
from carpentry.shop.events import BenchEvent, BenchEventKind
from carpentry.shop.placing import Supply, Work, place, told
from carpentry.shop.tree import (
    Labelled,
    box_of,
    checked,
    cut_anew,
    keep,
    moved_along,
    next_piece,
    parts_in,
    without,
)


def come_to(bench: Bench, event: BenchEvent, supply: Supply) -> Changed:
    """What an event comes to that changes what there is to cut. Raises ``CarpentryError`` for one
    that cannot be."""
    work = Work(bench, supply)
    done: frozenset[Key] = frozenset()
    gone: frozenset[Key] = frozenset()
    if event.kind is BenchEventKind.MISCUT:
        done = _miscut(work, event)
        work.bench = replace(work.bench, done=work.bench.done | done)
    elif event.kind is BenchEventKind.LOST:
        gone = _lose(work, event)
    elif event.kind is BenchEventKind.LENGTH:
        _measure(work, event)
    else:
        _flaw(work, event)
    missing = place(work)
    boards = tuple(work.bench.boards[number] for number in sorted(work.touched))
    return Changed(boards, done, gone, missing, told(work, missing))


def _length(text: str, place: str, unit: Unit) -> int:
    if text.strip().startswith(("-", "−")):
        raise CarpentryError("a length is more than nothing", place)
    try:
        return read_length(text, unit).ticks
    except CarpentryError as error:
        raise CarpentryError(error.problems[0].message, place) from error


def _piece_there(bench: Bench, event: BenchEvent) -> BenchBoard:
    """The board that an event is about, whose piece is there now."""
    board = bench.boards.get(event.board)
    if board is None:
        raise CarpentryError(f"there is no board {event.board}", "board")
    if event.piece not in bench.there(event.board):
        raise CarpentryError("that piece is not there any more: it is cut", "piece")
    return board


def _miscut(work: Work, event: BenchEvent) -> frozenset[Key]:
    """A cut that left too little on the side of stop or fence. What is beyond it keeps its parts:
    moved along where nothing stands in the way, else it is sawn once more to where its cuts
    begin."""
    keys = event.keys
    if len(keys) != 1:
        raise CarpentryError("one cut goes wrong at a time", "cuts")
    bench, (number, cut_number) = work.bench, keys[0]
    before = bench.with_before(keys)
    board = bench.boards[number]
    cut = bench.cut(keys[0])
    if cut is None:
        raise CarpentryError(
            "a part that was spoiled while it was shaped is made anew: say that it is lost", "cuts"
        )
    (shown,) = every_cut([board], work.supply.tools)
    seen = next(one for one in shown if one.number == cut_number)
    near = next((made for made in seen.makes if made.is_near), None)
    if near is None or not near.labels:
        raise CarpentryError("nothing is measured by this cut: say how long the board is", "cuts")
    axis = {"crosscut": 0, "rip": 1, "resaw": 2}[cut.saw.value]
    pieces = bench.lying(number)
    was = round(pieces[near.number].size(axis))
    now = _length(event.now, "now", work.supply.unit)
    _check_shorter(work.supply, now, was, round(pieces[cut.of].size(axis)))
    work.material = board.material
    is_first = near.number == cut.makes[0]
    work.lost = parts_in(board, near.number)
    if (number, cut_number) in bench.done:
        if near.number not in bench.there(number):
            raise CarpentryError("that piece is cut further already: name the smaller one", "cuts")
        work.put(_cut_short(work, board, near.number, axis, now))
        return before
    by = now - was if is_first else was - now
    rest = cut.makes[1 if is_first else 0]
    moved = replace(cut, start=cut.start + by, end=cut.end + by)
    bare = without(board, near.number)
    cuts = [moved if n == cut_number else one for n, one in bare.numbered()]
    bare = replace(bare, cuts=tuple(cuts))
    if rest is None:
        bare = _with_rest(bare, cut_number, is_first=is_first)
    else:
        bare = _rest_moved(
            work.supply.problem(board), bare, (cut_number, cut), by, is_first=is_first
        )
    work.put(keep(bare, near.number))
    work.fresh.add((number, near.number))
    return before | {(number, cut_number)}


def _check_shorter(supply: Supply, now: int, was: int, whole: int) -> None:
    """A miscut left less than there should be, and more than nothing."""
    if not now:
        raise CarpentryError("write what is left of it, or say that it is lost", "now")
    if now > whole:
        told = write_length(whole, supply.notation).text
        raise CarpentryError(f"the piece was only {told} before it was cut", "now")
    if now == was:
        raise CarpentryError("that is what it should be: it is no miscut", "now")
    if now > was:
        told = write_length(now - was, supply.notation).text
        raise CarpentryError(
            f"that is {told} too long, which is no miscut: take so much off at the same stop",
            "now",
        )


def _with_rest(board: BenchBoard, cut_number: int, *, is_first: bool) -> BenchBoard:
    """A cut that was to leave nothing beyond it leaves a piece there now."""
    fresh = next_piece(board)
    cuts = [
        replace(one, makes=(one.makes[0], fresh) if is_first else (fresh, one.makes[1]))
        if n == cut_number
        else one
        for n, one in board.numbered()
    ]
    return replace(board, cuts=tuple(cuts), pieces=(*board.pieces, SawnPiece(fresh)))


def _rest_moved(
    problem: CutProblem,
    board: BenchBoard,
    numbered_cut: tuple[int, Cut],
    by: int,
    *,
    is_first: bool,
) -> BenchBoard:
    """What is beyond a miscut, with its parts where they still come free."""
    cut_number, cut = numbered_cut
    rest = cut.makes[1 if is_first else 0]
    assert rest is not None
    parts = parts_in(board, rest)
    if not parts:
        return board
    if cut.saw.value == "crosscut" and is_first and not board.flaws:
        moved = moved_along(board, rest, by)
        if _comes_free(problem, moved):
            return moved
    # sawn once more, to where its cuts begin
    fresh = next_piece(board)
    kerf = cut.end - cut.start
    first, second = (cut.end - kerf, cut.end) if is_first else (cut.start, cut.start + kerf)
    again = replace(
        cut,
        of=fresh,
        start=first,
        end=second,
        makes=(fresh + 1, rest) if is_first else (rest, fresh + 1),
    )
    slip = abs(by)
    if slip <= kerf:  # the blade takes all there is
        again = replace(again, makes=(None, rest) if is_first else (rest, None))
    numbered = list(board.numbered())
    at = next(n for n, (number, _) in enumerate(numbered) if number == cut_number)
    known = numbered[at][1]
    makes = tuple(fresh if made == rest else made for made in known.makes)
    numbered[at] = (cut_number, replace(known, makes=(makes[0], makes[1])))
    numbered.insert(at + 1, (max(board.numbers) + 1, again))
    pieces = board.pieces if slip <= kerf else (*board.pieces, SawnPiece(fresh + 1))
    return replace(
        board,
        cuts=tuple(one for _, one in numbered),
        numbers=tuple(n for n, _ in numbered),
        pieces=pieces,
    )


def _comes_free(problem: CutProblem, board: BenchBoard) -> bool:
    try:
        checked(problem, board)
    except PlanCheckError:
        return False
    return True


def _cut_short(work: Work, board: BenchBoard, piece: int, axis: int, now: int) -> BenchBoard:
    """A piece that is there, cut once more to what is left of it."""
    bare = without(board, piece)
    lying = work.bench.lying(board.number)[piece]
    low, high = (round(one) for one in lying.spans[axis])
    kerf = work.supply.problem(board).kerf
    fresh = next_piece(board)
    end = low + now + kerf
    saw = (Saw.CROSSCUT, Saw.RIP, Saw.RESAW)[axis]
    makes = (fresh, fresh + 1 if end < high else None)
    number = max(board.numbers) + 1
    pieces = [one for one in bare.pieces if one.number != piece]
    pieces += [SawnPiece(made) for made in makes if made is not None]
    work.bench = replace(work.bench, done=work.bench.done | {(board.number, number)})
    work.fresh.add((board.number, fresh))
    short = replace(
        bare,
        cuts=(*bare.cuts, Cut(saw, piece, low + now, end, makes)),
        numbers=(*bare.numbers, number),
        pieces=tuple(pieces),
    )
    return keep(short, fresh)


def _lose(work: Work, event: BenchEvent) -> frozenset[Key]:
    """A board or a piece that is not there, or of no use."""
    board = _piece_there(work.bench, event)
    work.material = board.material
    work.lost = parts_in(board, event.piece)
    work.put(without(board, event.piece))
    gone = frozenset({(event.board, event.piece)})
    work.bench = replace(work.bench, gone=work.bench.gone | gone)
    return gone


def _measure(work: Work, event: BenchEvent) -> None:
    """A board that is not as long as it should be; only one that is not cut yet is measured."""
    board = _piece_there(work.bench, replace(event, piece=0))
    now = _length(event.now, "now", work.supply.unit)
    if not now:
        raise CarpentryError("write how long it is", "now")
    if now == board.length:
        raise CarpentryError("that is how long it is planned", "now")
    if now > 2 * board.length:
        raise CarpentryError("that is more than twice as long as its name says", "now")
    parts = parts_in(board, 0)
    last = now - board.trims[1]
    work.lost = [one for one in parts if one[0].end > last]
    left = [one for one in parts if one[0].end <= last]
    flaws = tuple((start, min(end, now)) for start, end in board.flaws if start < now)
    shorter = replace(board, length=now, flaws=flaws)
    _cut_again(work, shorter, 0, left)


def _flaw(work: Work, event: BenchEvent) -> None:
    """A bad spot in a board or in a piece of it; parts that lie on it lose their place, those that
    need not be clear do not."""
    board = _piece_there(work.bench, event)
    box = box_of(work.bench.lying(event.board)[event.piece])
    start, end = (
        _length(getattr(event, name) or "0", name, work.supply.unit) for name in ("start", "end")
    )
    if end <= start:
        raise CarpentryError("must be beyond where the flaw begins", "end")
    if end > box.size[0]:
        told = write_length(box.size[0], work.supply.notation).text
        raise CarpentryError(f"lies beyond the end: it is {told} long", "end")
    flaw = (start + box.x[0], end + box.x[0])
    problem = work.supply.problem(board)
    clear = {part.id for part in problem.parts if part.clear}
    parts = parts_in(board, event.piece)
    work.lost = [
        one
        for one in parts
        if one[0].part in clear and one[0].start < flaw[1] and flaw[0] < one[0].end
    ]
    left = [one for one in parts if one not in work.lost]
    _cut_again(work, replace(board, flaws=tuple(sorted((*board.flaws, flaw)))), event.piece, left)


def _cut_again(work: Work, board: BenchBoard, piece: int, parts: Sequence[Labelled]) -> None:
    """A piece cut for the parts that still have their place on it; where that cannot be, all of
    them lose it."""
    work.material = board.material
    problem = work.supply.problem(board)
    try:
        work.put(cut_anew(problem, board, piece, parts))
    except PlanCheckError:
        work.lost = sorted([*work.lost, *parts], key=lambda one: one[0].start)
        work.put(without(board, piece))
