"""What happens on a trip to a yard, one event after the other."""

from dataclasses import dataclass
from enum import StrEnum

from carpentry.language import typed


class EventKind(StrEnum):
    """``TOOK`` so many from the pile; ``PUT_BACK`` one of them; a price seen on the ``TAG``;
    ``ONLY`` so many are there in all; a board was ``KEPT`` or ``REJECTED`` when it was measured; a
    pick check was ``CHECKED``; an earlier event is ``UNDONE``."""

    TOOK = "took"
    PUT_BACK = "put back"
    TAG = "tag"
    ONLY = "only"
    KEPT = "kept"
    REJECTED = "rejected"
    CHECKED = "checked"
    UNDONE = "undone"


@dataclass(frozen=True)
class Event:
    """One event, as typed. ``line`` is the key of what it is about, or of a check; ``price`` that
    of one piece, empty when the tag says nothing any more; the sizes those of a measured board;
    ``undoes`` the id of another event."""

    id: str
    kind: EventKind
    line: str = typed("Line", most=300)
    count: int = typed("Count", 1)
    price: str = typed("Price on the tag")
    length: str = typed("Length", is_length=True)
    thickness: str = typed("Thickness", is_length=True)
    width: str = typed("Width", is_length=True)
    crook: str = typed("Crook", is_length=True)
    bow: str = typed("Bow", is_length=True)
    cup: str = typed("Cup", is_length=True)
    twist: str = typed("Twist")
    undoes: str = typed("Undoes")

    @property
    def replans(self) -> bool:
        """Whether it changes what there is to cut from."""
        return self.kind in {EventKind.ONLY, EventKind.KEPT, EventKind.REJECTED}
