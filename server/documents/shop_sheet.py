"""The shop sheet: every set-up on paper, so that boards are cut without a screen."""

import math
from typing import Any
from xml.sax.saxutils import escape

from reportlab.graphics.shapes import Drawing, Line, Polygon, Rect, String
from reportlab.lib import colors
from reportlab.lib.units import inch
from reportlab.platypus import CondPageBreak, Flowable, KeepTogether, Paragraph, Spacer, Table

from server.documents.drawing import box_to_tick
from server.documents.page import MARGIN, document, heading
from server.documents.type import BOLD, PAPERS, REGULAR, length_markup, style, text
from server.projects.schemas import ProjectOut
from server.shop.schemas import CardCutOut, CardOut, CardRowOut, CuttingOut

_END_WIDE, _END_HIGH = 2.2 * inch, 0.9 * inch


def shop_sheet_pdf(
    project: ProjectOut, cutting: CuttingOut, paper: str, *, by_board: bool = False
) -> bytes:
    """Set-ups one after the other, each with its figure, how pieces lie and a box to tick for every
    board; stop by stop, or board after board."""
    found = cutting.by_board if by_board else cutting.by_stop
    width = PAPERS[paper][0] - 2 * MARGIN - 12
    way = "board after board" if by_board else "stop by stop"
    story: list[Flowable] = heading(project, f"shop sheet, {way}")
    story.append(text(cutting.marks, 9))
    for one in cutting.held:
        story.append(text(f"{one.mark} ({one.name}): rough now, to length after measuring.", 9))
    story += [text(one, 9) for one in cutting.not_yet]
    story.append(Spacer(1, 8))
    for number, card in enumerate(found.cards, start=1):
        story.append(CondPageBreak(1.5 * inch))
        story += _card(number, card, width)
    cautions = dict.fromkeys(caution for card in found.cards for caution in card.cautions)
    story.append(Spacer(1, 8))
    story += [text(one, 8) for one in cautions]
    return document("shop sheet", project, paper, story)


def _card(number: int, card: CardOut, width: float) -> list[Flowable]:
    at = f" <font size=20><b>{length_markup(card.at)}</b></font>" if card.at else ""
    head = f"<font size=9>{number}</font>  {escape(card.heading)}{at}"
    told = ", ".join(filter(None, [card.stands, card.tool, card.tells]))
    parts: list[Flowable] = [
        Paragraph(head, style(12)),
        Spacer(1, 8),
        text(told, 9, bold=True),
    ]
    if card.way:
        parts.append(text(card.way, 9))
    first = card.rows[0].cuts[0]
    if first.corners and not card.is_crosscut:
        parts.append(_end_grain(card, first))
    parts += [text(note, 8) for note in card.notes]
    rows = [_row(card, row) for row in card.rows]
    shares = [0.05, 0.08, 0.17, 0.7]
    table = Table(rows, colWidths=[width * share for share in shares], hAlign="LEFT")
    table.setStyle(
        [("VALIGN", (0, 0), (-1, -1), "TOP"), ("LINEBELOW", (0, 0), (-1, -1), 0.3, colors.grey)]
    )
    return [KeepTogether(parts), table, Spacer(1, 12)]


def _row(card: CardOut, row: CardRowOut) -> list[Any]:
    return [
        box_to_tick(),
        text(str(row.board), 11, bold=True),
        text(row.called, 9),
        [Paragraph(_cut(card, cut), style(9)) for cut in row.cuts],
    ]


def _cut(card: CardOut, cut: CardCutOut) -> str:
    """One cut: of which piece, how it lies where that matters, and what comes off."""
    said = [escape(cut.piece)]
    if not (cut.is_usual and card.is_crosscut) or card.tilt:
        said.append(escape(cut.lies))
    if cut.to_line:
        said.append(f"{escape(cut.line)}, saw {'outside' if cut.shape else cut.waste} it")
    how = ""
    if cut.measured and cut.measured_how:
        named = cut.labels[0] if cut.labels else "the piece"
        how = f", {escape(named)} is {length_markup(cut.measured)} {cut.measured_how}"
    return f"{'; '.join(said)}: <b>{escape(cut.makes)}</b>{how}"


def _end_grain(card: CardOut, cut: CardCutOut) -> Drawing:
    """The board's end on the saw, to scale, with the fence on the side it stands."""
    wide = max([*(corner[0] for corner in cut.corners), cut.far])
    high = max(corner[1] for corner in cut.corners)
    scale = min((_END_WIDE - 40) / wide, (_END_HIGH - 26) / high)
    tall = high * scale + 26
    drawing = Drawing(_END_WIDE, tall + 12)
    left = card.fence_side == "left"

    def across(out: float) -> float:
        return 20 + out * scale if left else _END_WIDE - 20 - out * scale

    points: list[float] = []
    for out, up in cut.corners:
        points += [across(out), 12 + up * scale]
    drawing.add(Line(0, 12, _END_WIDE, 12, strokeWidth=1.5))
    fence = 6 if left else _END_WIDE - 20
    drawing.add(Rect(fence, 12, 14, high * scale + 8, fillColor=colors.lightgrey, strokeWidth=0.5))
    drawing.add(Polygon(points, fillColor=None, strokeWidth=1))
    run = _lean(card, high)
    for at in (cut.near, cut.far):
        line = Line(across(at), 12, across(at + run), 12 + high * scale + 8, strokeWidth=0.8)
        line.strokeDashArray = [3, 2]
        drawing.add(line)
    name = String(_END_WIDE / 2, tall + 2, f"{cut.up} up", fontSize=7, textAnchor="middle")
    name.fontName = REGULAR
    side = String(2 if left else _END_WIDE - 2, 2, "fence", fontSize=7)
    side.fontName, side.textAnchor = BOLD, "start" if left else "end"
    drawing.add(name)
    drawing.add(side)
    return drawing


def _lean(card: CardOut, high: int) -> float:
    """How much further from the fence a tilted blade is at the top of a board."""
    return high * math.tan(math.radians(card.tilt))
