"""About how long work takes, by what it is: common practice, no source, until the builder's own
pace corrects it."""

A_GLUED_JOINT = 3.0  # spread, close, clamp, wipe
A_DRY_JOINT = 1.5
A_FRESH_END = 0.5
A_PIECE = 2.0  # cut, where nothing is known of the saw
SAND_A_SQUARE_FOOT = 0.8
COAT_A_SQUARE_FOOT = 0.4
GET_READY = 5.0  # tools, drop cloth, cleaning up
SET_UP = 20.0  # stakes, string and spade, once
SET_ONE_UP = 10.0  # each where it stands
TRY_IT = 10.0
A_WORKED_PLACE = 2.0  # a notch, a groove, a clipped corner of one piece
MEASURE_ONE = 10.0
