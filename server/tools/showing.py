"""Tools in the words of the API's contract."""

from collections.abc import Iterator
from dataclasses import asdict

from carpentry.cutting import SawLimits
from carpentry.language import Notation, write_length
from carpentry.shop import KINDS
from server.history.showing import shows
from server.tools.models import Toolbox
from server.tools.schemas import LimitOut, OwnedToolOut, ToolboxOut, ToolKindOut

_KINDS = [
    ToolKindOut(
        kind=kind,
        limits=[
            LimitOut(
                name=one.name,
                heading=one.heading,
                kind=one.kind.value,
                help=one.help,
                choices=list(one.choices),
            )
            for one in limits
        ],
    )
    for kind, limits in KINDS.items()
]


@shows(Toolbox)
def show_toolbox(toolbox: Toolbox) -> ToolboxOut:
    """The tools as they are."""
    return ToolboxOut(
        version=toolbox.version,
        tools=[
            OwnedToolOut(id=row.id, kind=row.kind, name=row.name, limits=row.limits)
            for row in toolbox.rows()
        ],
        kinds=_KINDS,
        can=list(_can(toolbox.owned.limits)),
        **asdict(toolbox.labels),
    )


def _can(limits: SawLimits) -> Iterator[str]:
    """What plans may ask of the saws together."""

    def length(ticks: int) -> str:
        return write_length(ticks, Notation.SIXTY_FOURTHS).text

    for name, ticks, none in (
        ("Crosscuts", limits.crosscut, "any width"),
        ("Rips", limits.rip_depth, "any thickness"),
        ("Fence", limits.rip_width, "any distance"),
        ("Resaws", limits.resaw_depth, "any width"),
    ):
        yield f"{name} up to {length(ticks)}" if ticks is not None else f"{name}: {none}"
    for name, angle in (("Blade tilts", limits.tilt), ("Miters", limits.miter)):
        yield f"{name} to {angle:f}°" if angle is not None else f"{name}: any angle"
