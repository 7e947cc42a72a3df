"""About how long work takes, by what it is: common practice, no source, until the builder's own
pace corrects it."""

from carpentry.buying.fasteners import Kind

A_SCREW = 0.75  # minutes, with its pilot hole
A_HOLE = 1.0
A_NAIL = 0.3
A_BOLT = 3.0  # hole, bolt, washers, nut
A_DOWEL = 2.0
A_GLUED_JOINT = 3.0  # spread, close, clamp, wipe
A_DRY_JOINT = 1.5
A_FRESH_END = 0.5
A_PIECE = 2.0  # cut, where nothing is known of the saw
SAND_A_SQUARE_FOOT = 0.8
COAT_A_SQUARE_FOOT = 0.4
GET_READY = 5.0  # tools, drop cloth, cleaning up
SET_IT_UP = 30.0
MEASURE_ONE = 10.0
_FASTENERS = {
    Kind.NAIL: A_NAIL,
    Kind.BRAD: A_NAIL,
    Kind.BOLT: A_BOLT,
    Kind.CARRIAGE: A_BOLT,
    Kind.LAG: A_BOLT,
    Kind.DOWEL: A_DOWEL,
}


def minutes_a_fastener(kind: Kind) -> float:
    """About how long one takes, its hole included."""
    return _FASTENERS.get(kind, A_SCREW)
