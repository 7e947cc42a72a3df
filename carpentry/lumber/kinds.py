"""What sort of material a stock is, and where it may stand."""

from enum import StrEnum


class Kind(StrEnum):
    """The kind of stock, which also gives a drawing its tone and its mark."""

    PLAIN = "plain"
    TREATED = "treated"
    DURABLE = "durable"
    COMPOSITE = "composite"
    SHEET = "sheet"


class Exposure(StrEnum):
    """The wettest place a material may stand."""

    GROUND = "ground contact"
    OUTDOORS = "outdoors, off the ground"
    DRY = "indoors, or sealed on every face"
