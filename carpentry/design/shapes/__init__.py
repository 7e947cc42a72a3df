"""Shapes: small, named bits of construction that write parts, joints, work and runs.

``make_shape`` makes one by itself; ``Placed`` is one in a project, which ``write_placed`` writes
and ``made_placed`` finds again among the parts. ``views_of`` draws either.
"""

from carpentry.design.shapes.asked import Ask, Asks
from carpentry.design.shapes.known import SHAPES
from carpentry.design.shapes.layout import TEXT, Label, LaidOut, Line, lay_out
from carpentry.design.shapes.placed import (
    LINE_KINDS,
    MOST_SHAPES,
    PART_FIELDS,
    PLACED_ASKS,
    RUN_FIELDS,
    Placed,
    Rows,
    check_placed,
    made_alone,
    made_placed,
    write_placed,
)
from carpentry.design.shapes.shape import Made, Shape, Solid
from carpentry.design.shapes.shapes_file import make_shape, shape_document
from carpentry.design.shapes.views import VIEWS, Dimension, Outline, View, part_view, views_of

__all__ = [
    "LINE_KINDS",
    "MOST_SHAPES",
    "PART_FIELDS",
    "PLACED_ASKS",
    "RUN_FIELDS",
    "SHAPES",
    "TEXT",
    "VIEWS",
    "Ask",
    "Asks",
    "Dimension",
    "Label",
    "LaidOut",
    "Line",
    "Made",
    "Outline",
    "Placed",
    "Rows",
    "Shape",
    "Solid",
    "View",
    "check_placed",
    "lay_out",
    "made_alone",
    "made_placed",
    "make_shape",
    "part_view",
    "shape_document",
    "views_of",
    "write_placed",
]
