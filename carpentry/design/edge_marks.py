"""Marks along a part's own edge: several alike, one after the other on a board.

With parallel ends every piece takes the length of its edge, and every cut between two takes the
kerf along that edge: kerf ÷ cos θ. Plane geometry, no source needed.
"""

from carpentry.design.part import Part
from carpentry.design.runs import AtEnd, RunFields, Side
from carpentry.language import CarpentryError


def edge_run(mark: str, part: Part) -> RunFields:
    """The run of marks for all pieces of a part, along its edge from the first point.

    Raises ``CarpentryError`` for ends that are not parallel, or shaped: such pieces lie otherwise.
    """
    left, right = part.ends
    if part.is_shaped:
        raise CarpentryError("it is cut square and shaped then: its pieces do not share an edge")
    if right != left.flipped:
        raise CarpentryError("its ends are not parallel: no one distance is between two marks")
    return RunFields(
        name=f"edge marks {mark.lower()}",
        item=f"edge of {mark}",
        way="count",
        figure=f"quantity of {mark}",
        gap=f"kerf / cos(angle of {mark})",
        first=AtEnd.ITEM.value,
        last=AtEnd.ITEM.value,
        marks=Side.FAR.value,
    )
