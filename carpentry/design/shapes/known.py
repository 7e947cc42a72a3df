"""The shapes that there are, by name."""

from carpentry.design.shapes.box import Box
from carpentry.design.shapes.brace import Brace
from carpentry.design.shapes.frame import Frame
from carpentry.design.shapes.legs import CrossedLegs, SplayedLegs
from carpentry.design.shapes.row import BoardRow
from carpentry.design.shapes.shape import Shape
from carpentry.design.shapes.stand import Stand

SHAPES: dict[str, Shape] = {
    shape.name: shape
    for shape in (Frame(), BoardRow(), Box(), Stand(), Brace(), SplayedLegs(), CrossedLegs())
}
