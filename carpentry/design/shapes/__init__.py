"""Shapes: small, named bits of construction that write parts, joints, work and runs."""

from carpentry.design.shapes.asked import Ask, Asks
from carpentry.design.shapes.shape import Made, Shape, Solid
from carpentry.design.shapes.shapes_file import SHAPES, make_shape, shape_document

__all__ = ["SHAPES", "Ask", "Asks", "Made", "Shape", "Solid", "make_shape", "shape_document"]
