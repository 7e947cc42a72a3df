"""The usual cautions, said where the work can hurt someone."""

CUT_SHEET_CAUTIONS = (
    "Eye, ear and lung protection on. Hands away from the blade, guards stay on, no gloves near "
    "it.",
    "Never crosscut against the rip fence. Hold pieces under 6 in with a stick. Twisted stock is "
    "not run through a table saw.",
    "This plans cuts and cost; it does not check strength. What bears people or weight, is a "
    "guard, stands on posts in the ground, holds water overhead or joins a building: local codes "
    "and a licensed professional decide.",
)
