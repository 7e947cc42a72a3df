"""Lumber named in millimetres."""

from carpentry.lumber.family import COMMON, Family, as_named, metric

METRIC_STUDS = Family(
    "metric studs",
    COMMON,
    "Regularised or planed studs and joists, named by what they measure.",
    tuple(
        metric(
            as_named(
                {
                    38: (38, 63, 89, 114, 140, 184, 235, 286),
                    45: (45, 70, 95, 120, 145, 170, 195, 220),
                    47: (72, 97, 122, 147, 170, 195, 220),
                }
            )
        )
    ),
)
METRIC_SAWN = Family(
    "metric sawn",
    COMMON,
    "Sawn, not planed: named by what they measure, more or less the saw's wander.",
    tuple(
        metric(
            as_named(
                {
                    19: (38, 50, 75, 100, 125, 150),
                    22: (50, 75, 100, 125, 150, 175, 200),
                    25: (25, 38, 50, 75, 100, 125, 150, 175, 200, 225),
                    32: (50, 75, 100, 125, 150, 175, 200),
                    38: (50, 75, 100, 125, 150, 175, 200, 225),
                    47: (47, 50, 75, 100, 125, 150, 175, 200, 225, 250),
                    50: (50, 75, 100, 125, 150, 175, 200, 225),
                    63: (150, 175, 200, 225),
                    75: (75, 100, 125, 150, 175, 200, 225),
                    100: (100, 150, 200, 225, 250),
                    150: (150, 200),
                    200: (200,),
                }
            )
        )
    ),
)
METRIC_BOARDS = Family(
    "metric boards",
    COMMON,
    "Planed battens, boards, decking and posts, named by what they measure.",
    tuple(
        metric(
            as_named(
                {
                    15: (45, 70, 95),
                    18: (45, 70, 95, 120, 145),
                    20: (45, 70, 95, 120, 145),
                    21: (45, 70, 95, 120, 145),
                    28: (45, 70, 95, 120, 145),
                    34: (45, 70, 95, 120, 145),
                    70: (70,),
                    90: (90,),
                    95: (95,),
                    120: (120,),
                    145: (145,),
                }
            )
        )
    ),
)
METRIC_PLANED = Family(
    "metric planed",
    COMMON,
    "Named after the sawn size they were planed from: about 5 mm less each way.",
    tuple(
        metric(
            (
                *((25, width, 20, width - 5) for width in (25, 38, 50, 75, 100, 125, 150)),
                *((38, width, 33, width - 5) for width in (38, 50, 75, 100, 150)),
                *((50, width, 45, width - 5) for width in (50, 75, 100, 125, 150)),
                *((75, 75, 70, 70), (100, 100, 95, 95)),
            ),
            "ex ",
        )
    ),
)
