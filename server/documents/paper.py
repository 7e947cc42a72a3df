"""What is printed: the shopping list and the cut sheet, black on white, Letter or A4."""

from collections.abc import Sequence
from dataclasses import dataclass
from uuid import UUID
from xml.sax.saxutils import escape

from reportlab.lib import colors
from reportlab.lib.units import inch
from reportlab.platypus import (
    CondPageBreak,
    Flowable,
    KeepTogether,
    Paragraph,
    Spacer,
    Table,
    TableStyle,
)

from server.common.schemas import SectionOut
from server.documents.drawing import BoardDrawing
from server.documents.page import MARGIN, document, heading
from server.documents.planned import Planned
from server.documents.sheets import packs_in_words
from server.documents.type import (
    PAPERS,
    length_markup,
    style,
    text,
)
from server.plans.schemas import (
    CutOut,
    HardwareLineOut,
    LayoutOut,
    ListLineOut,
    MadeOut,
    MaterialOut,
)
from server.projects.schemas import PartOut, ProjectOut

CUT_TYPE = 11  # points: what is measured is read at arm's length
HELD = "hold: cut after measuring"
MOST_BOXES = 8  # for boards that are cut alike
_RULE = ("LINEBELOW", (0, 0), (-1, 0), 1.2, colors.black)
_HAIR = ("LINEBELOW", (0, 1), (-1, -1), 0.3, colors.grey)
_TOP = ("VALIGN", (0, 0), (-1, -1), "TOP")


def _section(section: SectionOut | None) -> str:
    if section is None:
        return ""
    return f"{length_markup(section.thickness)} × {length_markup(section.width)}"


def _bought_length(line: ListLineOut) -> str:
    if line.real_length is None:
        return line.named_length
    return f"{line.named_length}, really {length_markup(line.real_length)}"


def _not_planned(made: Planned) -> list[Flowable]:
    """Parts without a board, so that nobody drives home without them."""
    called = {part.id: part for part in made.project.parts}
    lines = [
        f"{u.quantity} × {called[u.part].mark} {called[u.part].called}: {u.reason}"
        for material in made.plan.materials
        for u in material.unplaced
    ] + [
        f"{called[la.part].pieces} × {called[la.part].mark} {called[la.part].called}, "
        f"{material.stock}: {la.reason}, not planned yet"
        for material in made.plan.materials
        for la in material.later
    ]
    if not lines:
        return []
    return [
        Spacer(1, 10),
        text("Not on this list", 11, bold=True),
        *(text(line, 9) for line in lines),
    ]


def shopping_list_pdf(made: Planned, paper: str) -> bytes:
    """The shopping list with a box to tick for every line."""
    project, shopping = made.project, made.plan.shopping
    head = [
        text(name, 9, bold=True, right=right)
        for name, right in (
            *(("", False), ("stock", False), ("real size", False), ("length", False)),
            *(("count", True), ("each", True), ("together", True)),
        )
    ]
    rows: list[list[object]] = [head]
    for line in shopping.lines:
        rows.append(
            [
                _Box(),
                text(f"{line.stock}, spare" if line.spare else line.stock, 10, bold=not line.spare),
                Paragraph(_section(line.section), style(9)),
                Paragraph(_bought_length(line), style(9)),
                text(str(line.count), 11, bold=True, right=True),
                text(line.price or "no price", 9, right=True),
                text(line.line_price or "no price", 9, right=True),
            ]
        )
    width = PAPERS[paper][0] - 2 * MARGIN - 12  # the frame pads six points on either side
    columns = [0.05, 0.22, 0.18, 0.21, 0.09, 0.11, 0.14]
    table = Table(
        rows, colWidths=[width * share for share in columns], repeatRows=1, style=[_RULE, _HAIR]
    )
    tables = [table, *_hardware_table(shopping.hardware.lines, width)]
    tax = f"tax {shopping.tax_rate} %" + (
        ", included in the prices" if shopping.tax_included else ""
    )
    totals = [
        [text("wood", right=True), text(shopping.subtotal, right=True)],
        *(
            [[text("hardware", right=True), text(shopping.hardware.price, right=True)]]
            if shopping.hardware.lines
            else []
        ),
        [text(tax, right=True), text(shopping.tax, right=True)],
        [text("total", 11, bold=True, right=True), text(shopping.total, 11, bold=True, right=True)],
    ]
    if shopping.copies > 1:
        each = f"each of {shopping.copies}"
        totals.append([text(each, right=True), text(shopping.per_copy, right=True)])
    story = [
        *heading(project, "shopping list"),
        *tables,
        Spacer(1, 6),
        Table(totals, colWidths=[width * 0.75, width * 0.25]),
    ]
    if shopping.total_note:
        story.append(text(f"The total is {shopping.total_note}.", 9))
    claim = made.plan.tally.claim
    story.append(text(f"{claim.headline}: {claim.detail}.", 9))
    story += [*_not_planned(made), *_cautions(made, made.plan.other_cautions)]
    return document("shopping list", project, paper, story)


def _hardware_table(lines: Sequence[HardwareLineOut], width: float) -> list[Flowable]:
    """What holds and covers it: how many are needed, and in which packs they are bought."""
    if not lines:
        return []
    head = [
        text(name, 9, bold=True, right=right)
        for name, right in (
            *(("", False), ("hardware", False), ("length", False), ("needed", True)),
            *(("to buy", False), ("together", True)),
        )
    ]
    rows: list[list[object]] = [head]
    for part in lines:
        rows.append(
            [
                _Box(),
                text(part.name, 10, bold=True),
                Paragraph(length_markup(part.length) if part.length else "", style(9)),
                text(part.needed, 11, bold=True, right=True),
                text(packs_in_words(part), 9),
                text(part.price or "no price", 9, right=True),
            ]
        )
    columns = [0.05, 0.25, 0.12, 0.14, 0.3, 0.14]
    shares = [width * share for share in columns]
    return [Spacer(1, 10), Table(rows, colWidths=shares, repeatRows=1, style=[_RULE, _HAIR])]


def _cautions(made: Planned, usual: Sequence[str]) -> list[Flowable]:
    """Cautions for the work and for each wood that is used."""
    woods = dict.fromkeys(f"{m.wood}: {m.caution}" for m in made.plan.materials if m.caution)
    cautions = [*usual, *(f"{wood[0].upper()}{wood[1:]}" for wood in woods)]
    return [Spacer(1, 10), KeepTogether([text(caution, 8) for caution in cautions])]


def cut_sheet_pdf(made: Planned, paper: str) -> bytes:
    """Every board to scale, what is cut from it and where each saw line is.

    ``labels`` are the part numbers on each board, by the number of the board.
    """
    width = PAPERS[paper][0] - 2 * MARGIN - 12  # the frame pads six points on either side
    project = made.project
    story: list[Flowable] = heading(project, "cut sheet")
    story.append(
        Paragraph(
            f"Kerf {length_markup(project.kerf.shown)}, first trim "
            f"{length_markup(project.trim_start.shown)}, last trim "
            f"{length_markup(project.trim_end.shown)}. Crosscut lines are measured from the marked "
            "end of the board, rips from its marked edge, resaws from its marked face; the saw "
            "runs beyond or before the line, as is said. A fence distance is from the fence to the "
            "near side of the blade. Angled ends are measured to their long point, on the edge or "
            "face that is named. Tick each cut when it is made.",
            style(9),
        )
    )
    story.append(Spacer(1, 6))
    story.append(_parts_table(project, width))
    marks = {part.id: part.mark for part in project.parts}
    held = {part.id for part in project.parts if part.is_held}
    for material in made.plan.materials:
        if not material.layouts:
            continue
        story.append(Spacer(1, 10))
        story.append(CondPageBreak(1.6 * inch))
        real = _section(material.section)
        title = f"<b>{material.stock}</b>  <font size=9>{real} · {material.summary}</font>"
        story.append(Paragraph(title, style(13)))
        drawing = Drawing(width / made.plan.longest_ticks, width, marks, made.labels, held)
        story += _boards(material, drawing)
        if material.best_boards:
            story.append(text(material.best_boards.capitalize(), 8, bold=True))
        if material.test_piece:
            story.append(text(material.test_piece, 8))
    story += _not_planned(made)
    story += _cautions(made, [*made.plan.saw_cautions, *made.plan.other_cautions])
    return document("cut sheet", project, paper, story)


def _part_name(part: PartOut, pair: str) -> str:
    """What a part is called, with its ends, its edges and its mirror image."""
    said = [part.angles] if part.angles else []
    said += [escape(one) for one in part.shaping if not one.startswith("ends: ")]
    said += [f"edges {part.bevels}"] if part.bevels else []
    said += [f"mirror image of {pair}"] if pair else []
    said += [f"kept together: {escape(part.together)}"] if part.together else []
    said += [HELD] if part.is_held else []
    said += [escape(part.fault)] if part.fault else []
    name = escape(part.called)
    return f"{name} <font size=7>{'; '.join(said)}</font>" if said else name


def _part_length(part: PartOut) -> str:
    """Its length as stated; over all and as it is sawn, where these differ."""
    said = length_markup(part.length_shown) if part.length_shown.ticks else "not known"
    if part.over_all:
        said += f" <font size=7>over all {length_markup(part.over_all)}</font>"
    if part.sawn:
        said += f" <font size=7>sawn {length_markup(part.sawn)}</font>"
    return said


def _parts_table(project: ProjectOut, width: float) -> Table:
    rows: list[list[object]] = [
        [text(name, 8, bold=True) for name in ("", "count", "part", "stock", "real size", "length")]
    ]
    rows += [
        [
            text(part.mark, 9, bold=True),
            text(str(part.pieces), 9),
            Paragraph(_part_name(part, project.pairs.get(part.id, "")), style(9)),
            text(part.stock_name, 9),
            Paragraph(_section(part.section), style(CUT_TYPE)),
            Paragraph(_part_length(part), style(CUT_TYPE, bold=True)),
        ]
        for part in project.parts
    ]
    shares = [0.06, 0.08, 0.32, 0.18, 0.19, 0.17]
    return Table(
        rows,
        colWidths=[width * share for share in shares],
        repeatRows=1,
        style=TableStyle(
            [
                _RULE,
                _HAIR,
                _TOP,
                ("TOPPADDING", (0, 0), (-1, -1), 1),
                ("BOTTOMPADDING", (0, 0), (-1, -1), 2),
            ]
        ),
    )


@dataclass(frozen=True)
class Drawing:
    """How boards are drawn: points per tick, points across the page, what is written on the parts,
    and which of them are held back."""

    scale: float
    width: float
    marks: dict[UUID, str]
    labels: dict[int, list[str]]
    held: set[UUID]

    def called(self, part: UUID) -> str:
        """A part where its cut is told: whether it is to be held back."""
        return f"{self.marks[part]} ({HELD})" if part in self.held else self.marks[part]


def _boards(material: MaterialOut, drawing: Drawing) -> list[Flowable]:
    flowables: list[Flowable] = []
    for layout in material.layouts:
        numbers = range(layout.first, layout.first + layout.count)
        span = f"{numbers[0]}" if layout.count == 1 else f"{numbers[0]}–{numbers[-1]}"
        boards = "board" if layout.count == 1 else "boards"
        alike = f" · {layout.count} alike" if layout.count > 1 else ""
        bought = f"{layout.stock} " if material.ripped else ""
        bought += layout.named_length
        real = f" · really {_section(layout.section)}" if layout.section else ""
        labels = " · ".join(
            f"{number}: {' '.join(drawing.labels.get(number, []))}" for number in numbers
        )
        flowables.append(
            KeepTogether(
                [
                    Spacer(1, 5),
                    Paragraph(f"<b>{boards} {span} · {bought}</b>{real}{alike}", style(11)),
                    BoardDrawing(layout, drawing.marks, drawing.scale),
                    *_cuts(layout, drawing),
                    text(labels, 8),
                ]
            )
        )
    return flowables


def _cuts(layout: LayoutOut, drawing: Drawing) -> list[Flowable]:
    """The cuts of a board in their order, a line each, with a box to tick on every board."""
    boxes, width = min(layout.count, MOST_BOXES), drawing.width
    rows = [
        [
            text(f"{cut.number}", 9, bold=True, right=True),
            _Box(boxes),
            Paragraph(cut_in_words(cut), style(CUT_TYPE)),
            Paragraph(_makes(cut, drawing), style(9)),
        ]
        for cut in layout.cuts
    ]
    if not rows:
        return []
    boxed = 12 * boxes + 4
    shares = [26.0, boxed, (width - 26 - boxed) * 0.64, (width - 26 - boxed) * 0.36]
    tight = [("TOPPADDING", (0, 0), (-1, -1), 0), ("BOTTOMPADDING", (0, 0), (-1, -1), 1)]
    middle = ("VALIGN", (0, 0), (-1, -1), "MIDDLE")
    return [Table(rows, colWidths=shares, style=TableStyle([*tight, middle]))]


def cut_in_words(cut: CutOut) -> str:
    """A cut as it is set up at the saw, as paragraph markup."""
    piece = f"piece {cut.of}" if cut.of else "the board"
    at = f"<b>{length_markup(cut.at)}</b>"
    fence = f"<b>{length_markup(cut.fence)}</b>"
    slanted = f", {cut.angle}" if cut.angle else ""
    if cut.saw == "crosscut":
        long_point = f", long point at the {cut.long_point}" if cut.long_point else ""
        return f"crosscut {piece} at {at}{slanted}{long_point}, saw {cut.waste} the line"
    if cut.held:
        below = f" on the face below, blade tilted {cut.angle}, {cut.face_up} up"
        line = f"{fence} from the {cut.against}{below if cut.angle else ''}"
        return f"{cut.saw} {piece} along a line {line}: {cut.held}"
    if cut.saw == "resaw":
        return f"resaw {piece}, fence {fence}, {cut.against} against it"
    tilted = ""
    if cut.angle:
        tilted = f", blade tilted {cut.angle} away from the fence, {cut.face_up} up"
    return f"rip {piece}, fence {fence}, {cut.against} against it{tilted} (line at {at})"


def _makes(cut: CutOut, drawing: Drawing) -> str:
    """What comes off, piece by piece."""
    return ", ".join(_made(made, drawing) for made in cut.makes)


def _made(made: MadeOut, drawing: Drawing) -> str:
    held = " ".join(map(drawing.called, made.parts))
    if made.is_part:
        return f"<b>{held}</b>"
    if made.parts:
        return f"piece {made.number} ({held})"
    return "keep" if made.keep else "waste"


class _Box(Flowable):
    """So many boxes to tick, side by side."""

    def __init__(self, count: int = 1) -> None:
        super().__init__()
        self.count = count
        self.width, self.height = 12 * count, 10

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        for number in range(self.count):
            self.canv.rect(12 * number, 0, 9, 9)
