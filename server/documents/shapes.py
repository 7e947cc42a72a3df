"""The drawing of a shape as files: on paper with its scale, as SVG and as DXF in the unit of the
project, layers by kind of line."""

import io
from collections.abc import Iterator
from xml.sax.saxutils import escape

import ezdxf
from ezdxf import units
from ezdxf.enums import TextEntityAlignment
from reportlab.lib import colors
from reportlab.platypus import Flowable, Spacer

from carpentry.design.shapes import TEXT, VIEWS, LaidOut, Made, View, lay_out, views_of
from carpentry.design.shapes.views import Point
from carpentry.language import Unit
from server.documents.page import MARGIN, document, heading
from server.documents.type import BOLD, PAPERS, REGULAR, text
from server.projects.drawing import full_size, length_words
from server.projects.models import Project
from server.projects.schemas import ProjectOut

ALL = "all"
_POINTS_PER_INCH = 72
_ROOM = 900.0  # in which files are laid out, before their units are those of the project
_BETWEEN = 0.35  # of the largest view, between two views of a file
LAYERS = ("pieces", "sizes", "letters")


def _views(made: Made, view: str) -> list[View]:
    return [one for one in views_of(made) if view not in VIEWS or one.name == view]


def drawing_pdf(project: ProjectOut, row: Project, made: Made, view: str, paper: str) -> bytes:
    """The views of a shape on paper, each with its scale."""
    called = made.names.called
    wide, high = (size - 2 * MARGIN for size in PAPERS[paper])
    views = _views(made, view)
    story = heading(project, f"drawing of {called}")
    words, unit = length_words(made.sheet, row.notation), Unit(row.unit)
    for one in views:
        room = min(high - 150, 430) if len(views) == 1 else (high - 190) / 2
        laid = lay_out(one, wide, room, full_size(_POINTS_PER_INCH, unit), words)
        story += [ViewDrawing(laid), text(f"{one.name}, 1 : {laid.ratio}", 9), Spacer(1, 12)]
    shown = next((one for one in project.shapes if one.called == called), None)
    story += [text(line, 9) for line in (shown.work if shown else ())]
    return document(f"drawing of {called}", project, paper, story)


class ViewDrawing(Flowable):
    """A view on paper: pieces from the furthest to the nearest, told apart by line alone."""

    def __init__(self, laid: LaidOut) -> None:
        super().__init__()
        self.laid, self.width, self.height = laid, laid.width, laid.height

    def wrap(self, *_: float) -> tuple[float, float]:
        return self.width, self.height

    def draw(self) -> None:
        canvas = self.canv
        canvas.setLineWidth(0.5)
        canvas.setFillColor(colors.white)
        for outline in self.laid.outlines:
            path = canvas.beginPath()
            for n, (x, y) in enumerate(outline.points):
                (path.lineTo if n else path.moveTo)(x, self.height - y)
            path.close()
            canvas.drawPath(path, fill=1)
        canvas.setFillColor(colors.black)
        for line in self.laid.lines:
            (x1, y1), (x2, y2) = line.start, line.end
            canvas.line(x1, self.height - y1, x2, self.height - y2)
        for label in self.laid.labels:
            canvas.setFont(BOLD if label.letter else REGULAR, 9)
            canvas.drawCentredString(label.at[0], self.height - label.at[1], label.text)


def _placed(row: Project, made: Made, view: str) -> Iterator[tuple[LaidOut, Point]]:
    """The views laid out, each with where its low corner lies in the file, in units: the plan
    beneath the front, the side beside it."""
    unit = Unit(row.unit)
    views = _views(made, view)
    words = length_words(made.sheet, row.notation)
    apart = max(max(one.size) for one in views) * _BETWEEN
    front = views[0].size
    at = {"front": (0.0, 0.0), "side": (front[0] + apart, 0.0)}
    for one in views:
        low = at.get(one.name, (0.0, -one.size[1] - apart)) if len(views) > 1 else (0.0, 0.0)
        yield lay_out(one, _ROOM, _ROOM * 0.7, full_size(_POINTS_PER_INCH, unit), words), low


def _moved(laid: LaidOut, point: Point, low: Point) -> Point:
    x, y = laid.unit_point(point)
    return x + low[0], y + low[1]


def drawing_dxf(row: Project, made: Made, view: str) -> bytes:
    """A shape as DXF: one unit is an inch or a millimetre, as the project says."""
    drawing = ezdxf.new("R2010", setup=True)
    drawing.units = units.IN if Unit(row.unit) is Unit.INCH else units.MM
    for color, layer in enumerate(LAYERS, start=5):
        drawing.layers.add(layer, color=color)
    space = drawing.modelspace()
    for laid, low in _placed(row, made, view):
        for outline in laid.outlines:
            corners = [_moved(laid, point, low) for point in outline.points]
            space.add_lwpolyline(corners, close=True, dxfattribs={"layer": "pieces"})
        for line in laid.lines:
            ends = (_moved(laid, point, low) for point in (line.start, line.end))
            space.add_line(*ends, dxfattribs={"layer": "sizes"})
        for label in laid.labels:
            layer = "letters" if label.letter else "sizes"
            height = TEXT / laid.scale * 0.75
            written = space.add_text(label.text, height=height, dxfattribs={"layer": layer})
            written.set_placement(
                _moved(laid, label.at, low), align=TextEntityAlignment.BOTTOM_CENTER
            )
    stream = io.StringIO()
    drawing.write(stream)
    return stream.getvalue().encode()


def drawing_svg(row: Project, made: Made, view: str) -> bytes:
    """A shape as SVG at full size: one unit is an inch or a millimetre, as the project says."""
    views = list(_placed(row, made, view))
    corners = [
        _moved(laid, point, low)
        for laid, low in views
        for point in ((0.0, 0.0), (laid.width, laid.height))
    ]
    left, right = min(x for x, _ in corners), max(x for x, _ in corners)
    foot, top = min(y for _, y in corners), max(y for _, y in corners)
    unit = Unit(row.unit).value
    groups: dict[str, list[str]] = {layer: [] for layer in LAYERS}

    def said(laid: LaidOut, point: Point, low: Point) -> Point:
        x, y = _moved(laid, point, low)
        return round(x - left, 4), round(top - y, 4)

    for laid, low in views:
        for outline in laid.outlines:
            points = " ".join(f"{x},{y}" for x, y in (said(laid, p, low) for p in outline.points))
            title = f"<title>{escape(outline.letter)}{outline.number}</title>"
            groups["pieces"].append(f'<polygon points="{points}">{title}</polygon>')
        for line in laid.lines:
            (x1, y1), (x2, y2) = (said(laid, p, low) for p in (line.start, line.end))
            groups["sizes"].append(f'<line x1="{x1}" y1="{y1}" x2="{x2}" y2="{y2}"/>')
        for label in laid.labels:
            x, y = said(laid, label.at, low)
            height = round(TEXT / laid.scale, 4)
            written = f'<text x="{x}" y="{y}" font-size="{height}">{escape(label.text)}</text>'
            groups["letters" if label.letter else "sizes"].append(written)
    wide, high = round(right - left, 4), round(top - foot, 4)
    thin = round(max(wide, high) / 1000, 4)
    look = {
        "pieces": f'fill="#fff" stroke="#000" stroke-width="{thin}"',
        "sizes": f'stroke="#000" stroke-width="{thin / 2}" text-anchor="middle"',
        "letters": 'text-anchor="middle" font-weight="bold"',
    }
    inside = "".join(f'<g id="{name}" {look[name]}>{"".join(groups[name])}</g>' for name in LAYERS)
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" width="{wide}{unit}" height="{high}{unit}"'
        f' viewBox="0 0 {wide} {high}" font-family="sans-serif">'
        f"<title>{escape(made.names.called)}</title>"
        f"<style>#sizes text {{ stroke: none }}</style>{inside}</svg>"
    ).encode()
