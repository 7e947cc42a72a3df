"""The size book's families in their order.

The tables are in modules of their own: ``softwood``, ``hardwood``, ``metric`` and ``panels``. Their
values are from memory of the sources named; the tests hold the same tables, typed a second time.
Standard families are never changed: a yard's or a board's own size is kept apart from them.
"""

from carpentry.lumber.hardwood import HARDWOOD
from carpentry.lumber.metric import METRIC_BOARDS, METRIC_PLANED, METRIC_SAWN, METRIC_STUDS
from carpentry.lumber.panels import PANEL_FAMILIES
from carpentry.lumber.softwood import (
    BOARDS,
    DECKING,
    DIMENSION,
    FURRING,
    LANDSCAPE,
    LATTICE,
    PICKETS,
    ROUGH_SAWN,
    SHIPLAP,
    SIDING,
    TIMBERS,
    TONGUE_AND_GROOVE,
)

DRESSED_FAMILIES = (BOARDS, DIMENSION, TIMBERS)  # a size alone names one of these
WORKED_FAMILIES = (
    *(DECKING, TONGUE_AND_GROOVE, SHIPLAP, SIDING, ROUGH_SAWN),
    *(PICKETS, FURRING, LATTICE, LANDSCAPE),
)
METRIC_FAMILIES = (METRIC_STUDS, METRIC_SAWN, METRIC_BOARDS, METRIC_PLANED)
FAMILIES = (
    *DRESSED_FAMILIES,
    *WORKED_FAMILIES,
    HARDWOOD,
    *METRIC_FAMILIES,
    *PANEL_FAMILIES,
)
