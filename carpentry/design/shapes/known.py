"""The shapes that there are, by name."""

from carpentry.design.shapes.box import Box
from carpentry.design.shapes.brace import Brace
from carpentry.design.shapes.door import Door
from carpentry.design.shapes.frame import Frame
from carpentry.design.shapes.legs import CrossedLegs, SplayedLegs
from carpentry.design.shapes.row import BoardRow
from carpentry.design.shapes.shape import Shape
from carpentry.design.shapes.stand import Stand
from carpentry.design.shapes.truss import Truss
from carpentry.design.shapes.wall import Wall

SHAPES: dict[str, Shape] = {
    shape.name: shape
    for shape in (
        *(Frame(), BoardRow(), Wall(), Box(), Stand(), Door()),
        *(Brace(), SplayedLegs(), CrossedLegs(), Truss()),
    )
}
