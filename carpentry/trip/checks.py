"""What to look at before a board is taken; common practice, no source."""

from dataclasses import dataclass


@dataclass(frozen=True)
class Check:
    """Something to look for: its ``key``, its name, how it is seen and what to do about it."""

    key: str
    name: str
    how: str


CHECKS = (
    Check(
        "crook",
        "Crook",
        "Sight along the narrow edge. A curved edge costs width: it is ripped straight.",
    ),
    Check("bow", "Bow", "Sight along the face. A little is pulled flat by fasteners."),
    Check("cup", "Cup", "Look at the end: is the face hollow? Strapped or planed flat."),
    Check("twist", "Twist", "Lay it on the pile: a board that rocks on its corners stays there."),
    Check("split", "Splits", "Look at both ends. What is split is cut off: count it as shorter."),
    Check("knot", "Knots", "Tight ones are fine. Loose or wide ones go into the waste."),
    Check("size", "Real size", "Measure thickness and width of one, and the length of each pile."),
)
