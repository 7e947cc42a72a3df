"""What a crooked board still gives."""

from carpentry.language import CarpentryError, Faults


def straight_width(width: int, crook: int, corner: int, edges: int) -> int:
    """The width (ticks) of the straight strip in a crooked board.

    ``width`` less the ``crook`` (the hollow of its curved edge), less the rounded ``corner`` for
    each straightened edge (1 or 2); common practice, no source. Bow matters less, cup is planed
    flat, a twisted board is rejected. Raises ``CarpentryError`` by field when nothing is left.
    """
    faults = Faults()
    if width < 1:
        faults.add("width", "must be more than 0")
    if crook < 0 or corner < 0:
        faults.add("crook", "cannot be negative")
    if edges not in {1, 2}:
        faults.add("edges", "one or two edges can be straightened")
    faults.raise_any()
    left = width - crook - corner * edges
    if left < 1:
        raise CarpentryError("nothing straight is left of that board", "crook")
    return left
