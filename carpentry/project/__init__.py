"""A whole project: its parts and a yard's prices become materials, plans, a tally and a list."""

from carpentry.project.file import (
    ProjectFile,
    YardFile,
    own_among,
    project_document,
    read_project_file,
    read_yard_file,
    yard_document,
)
from carpentry.project.gathering import Shelf, gather_materials, section_sold
from carpentry.project.material import Material, NamedPart, Offer
from carpentry.project.rips import RipSegment, rip_segments, whole_leftover
from carpentry.project.settings import Settings, read_settings
from carpentry.project.tally import KEEPABLE, Claim, Purchase, Tally, compare, tally

__all__ = [
    "KEEPABLE",
    "Claim",
    "Material",
    "NamedPart",
    "Offer",
    "ProjectFile",
    "Purchase",
    "RipSegment",
    "Settings",
    "Shelf",
    "Tally",
    "YardFile",
    "compare",
    "gather_materials",
    "own_among",
    "project_document",
    "read_project_file",
    "read_settings",
    "read_yard_file",
    "rip_segments",
    "section_sold",
    "tally",
    "whole_leftover",
    "yard_document",
]
