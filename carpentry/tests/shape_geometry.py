"""Shapes made for tests, and the geometry of their pieces."""

import itertools

import numpy as np
from numpy.typing import NDArray

from carpentry.design.shapes import Made, Solid, make_shape
from carpentry.lumber import INCHES, standard_section

SEEDS = range(12)
_FACES = ((0, 1, 2), (4, 5, 6), (0, 1, 4), (2, 3, 6), (0, 3, 4), (1, 2, 5))  # three corners each
_EDGES = (
    *((0, 1), (1, 2), (2, 3), (3, 0), (4, 5), (5, 6), (6, 7), (7, 4)),
    *((0, 4), (1, 5), (2, 6), (3, 7)),
)
SNUG = 0.02  # in: angles are kept to a hundredth of a degree


def made(shape: str, **measures: str) -> Made:
    return make_shape(
        shape,
        {name.replace("_", " "): text for name, text in measures.items()},
        INCHES,
        standard_section,
    )


def lengths(one: Made) -> dict[str, str]:
    return {row.key: one.parts[row.key].plain_fields.length for row in one.written.rows}


def box_round(solids: list[Solid]) -> NDArray[np.float64]:
    corners = np.array([corner for solid in solids for corner in solid.corners])
    return np.ptp(corners, axis=0)  # type: ignore[no-any-return]


def _axes(one: Solid, other: Solid) -> NDArray[np.float64]:
    """The directions on which two convex pieces that do not meet are apart: those of their faces,
    and those square to an edge of each."""
    first, second = np.array(one.corners), np.array(other.corners)
    faces = [np.cross(p[b] - p[a], p[c] - p[a]) for p in (first, second) for a, b, c in _FACES]
    edges = [np.array([p[b] - p[a] for a, b in _EDGES]) for p in (first, second)]
    crossed = np.cross(edges[0][:, None, :], edges[1][None, :, :]).reshape(-1, 3)
    axes = np.concatenate([np.array(faces), crossed])
    sizes = np.linalg.norm(axes, axis=1)
    return axes[sizes > 1e-9] / sizes[sizes > 1e-9, None]  # type: ignore[no-any-return]


def depth_into(one: Solid, other: Solid) -> float:
    """How far two convex pieces reach into one another, along the direction on which they do
    least."""
    axes = _axes(one, other)
    here, there = np.array(one.corners) @ axes.T, np.array(other.corners) @ axes.T
    reach = np.minimum(here.max(0) - there.min(0), there.max(0) - here.min(0))
    return float(reach.min())


def overlaps(one: Made, allowed: float = SNUG) -> list[tuple[str, str]]:
    return [
        (first.key, second.key)
        for first, second in itertools.combinations(one.solids, 2)
        if depth_into(first, second) > allowed
    ]
