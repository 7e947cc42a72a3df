"""How the pieces of shapes are held, by what their stock is: as a carpenter would. Common practice,
no source."""

from carpentry.design.shapes.asked import Given, Joint
from carpentry.language import TICKS_PER_INCH

MOST_THROUGH = 2 * TICKS_PER_INCH  # of wood, that a plain screw goes through
_LEAST_LAPPED = TICKS_PER_INCH  # that still takes a screw where it is sawn to half


def end_on_edge(count: str, given: Given, stock: str, end: str, other: str) -> Joint:
    """An end that meets the edge of another part of the same stock: screwed through that where it
    is narrow, else from pockets."""
    if given.section(stock).width <= MOST_THROUGH:
        return Joint(count, f"{{{other}}} edge to {{{end}}} end, 2 screws")
    return Joint(count, f"{{{end}}} end to {{{other}}} edge, 2 pocket screws")


def half_lapped(count: str, given: Given, stock: str, one: str, other: str) -> Joint:
    """Pieces sawn into one another: glued, and screwed where enough is left of them."""
    thick = given.section(stock).thickness >= _LEAST_LAPPED
    held = "2 screws, half lap, glued" if thick else "glue, half lap"
    return Joint(count, f"{{{one}}} to {{{other}}}, {held}")
