"""One step of a project, as it is shown and planned."""

from dataclasses import dataclass
from enum import StrEnum
from fractions import Fraction

from carpentry.buying.products import Product
from carpentry.hours.weather import Wait
from carpentry.time.asked import Instead, TimedStep
from carpentry.time.checks import Check
from carpentry.time.tasks import NOTHING

MOST_NAME = 120


class Sort(StrEnum):
    """What a step is, in the order of the work."""

    DRY = "dry"
    CUT = "cut"
    PRESERVE = "preserve"
    TRY = "try"
    FIT = "fit"
    GLUE = "glue"
    EARLY = "early finish"
    JOIN = "join"
    ASSEMBLE = "assemble"
    MEASURE = "measure"
    SAND = "sand"
    FINISH = "finish"
    SET_UP = "set up"
    OWN = "own"


@dataclass(frozen=True)
class Used:
    """A product that is used in a step, for its ``coat`` of that number; it cures after the last
    one."""

    product: Product
    coat: int = 1
    is_last: bool = True
    outdoors: bool = False


@dataclass(frozen=True)
class Step:
    """A step by its lasting ``key``: about so many ``minutes`` of hands-on work (``reckoned`` where
    nobody typed them), what it comes ``after`` (keys), its wait and who says so, what it needs, its
    check, the parts (by mark) and joints (as typed) it is about, what to mind, what
    it ``asks`` the builder about, the line by which
    the builder changed or added it, and the product that is ``used``. It is done for each of a
    ``batch`` of equal things, once set up."""

    key: str
    name: str
    sort: Sort
    minutes: int = 0
    reckoned: bool = True
    after: tuple[str, ...] = ()
    wait: Wait = NOTHING
    wait_told: str = ""
    stays: bool = False
    clamps: int = 0
    held: Wait | None = None
    helper: bool = False
    daylight: bool = False
    dry: bool = False
    least: Fraction | None = None
    may_split: bool = False
    may_leave: bool = False
    instead: Instead | None = None
    check: Check | None = None
    parts: tuple[str, ...] = ()
    joints: tuple[str, ...] = ()
    notes: tuple[str, ...] = ()
    asks: tuple[str, ...] = ()
    cautions: tuple[str, ...] = ()
    line: str = ""
    used: Used | None = None
    batch: int = 1

    def timed(self) -> TimedStep:
        """It as the plan of days knows it."""
        return TimedStep(
            self.key,
            self.minutes,
            self.after,
            wait=self.wait,
            stays=self.stays,
            clamps=self.clamps,
            held=self.held,
            helper=self.helper,
            daylight=self.daylight,
            dry=self.dry,
            least=self.least,
            may_split=self.may_split,
            may_leave=self.may_leave,
            instead=self.instead,
        )


def key_of(name: str) -> str:
    """What two names of the same step have in common."""
    return " ".join(name.lower().split())
