"""A whole project: its parts and a yard's prices become materials, a tally, claims and a list."""

from carpentry.project.claims import Claim, limits_of
from carpentry.project.cut_lines import CutLine, Made, cut_lines
from carpentry.project.file import (
    ProjectFile,
    YardFile,
    own_among,
    project_document,
    read_project_file,
    read_yard_file,
    yard_document,
)
from carpentry.project.gathering import (
    Grouping,
    Owned,
    Shelf,
    gather_materials,
    section_sold,
    standard_lines,
)
from carpentry.project.groups import GroupShare, group_shares
from carpentry.project.hardware import Fastened, Hardware, HardwareFields, hardware_of
from carpentry.project.leftovers import kept_leftovers, section_left, test_piece
from carpentry.project.material import Material, NamedPart, Offer, extra_of
from carpentry.project.notes import Note, notes
from carpentry.project.packing import (
    FoundPacks,
    HardwareLine,
    content_of,
    missing_told,
    pack_key,
    pack_prices,
    packs_priced,
)
from carpentry.project.passed import JoinedPart, contact
from carpentry.project.proof_words import ProofTold, proof_told
from carpentry.project.rack_file import read_rack_file
from carpentry.project.rips import RipSegment, RipStrip, rip_segments
from carpentry.project.settings import RackUse, SettingFields, Settings, read_settings
from carpentry.project.tally import Beside, Tally, Totals, compare, compare_beside, tally
from carpentry.project.units import part_in, settings_in

__all__ = [
    "Beside",
    "Claim",
    "CutLine",
    "Fastened",
    "FoundPacks",
    "GroupShare",
    "Grouping",
    "Hardware",
    "HardwareFields",
    "HardwareLine",
    "JoinedPart",
    "Made",
    "Material",
    "NamedPart",
    "Note",
    "Offer",
    "Owned",
    "ProjectFile",
    "ProofTold",
    "RackUse",
    "RipSegment",
    "RipStrip",
    "SettingFields",
    "Settings",
    "Shelf",
    "Tally",
    "Totals",
    "YardFile",
    "compare",
    "compare_beside",
    "contact",
    "content_of",
    "cut_lines",
    "extra_of",
    "gather_materials",
    "group_shares",
    "hardware_of",
    "kept_leftovers",
    "limits_of",
    "missing_told",
    "notes",
    "own_among",
    "pack_key",
    "pack_prices",
    "packs_priced",
    "part_in",
    "project_document",
    "proof_told",
    "read_project_file",
    "read_rack_file",
    "read_settings",
    "read_yard_file",
    "rip_segments",
    "section_left",
    "section_sold",
    "settings_in",
    "standard_lines",
    "tally",
    "test_piece",
    "yard_document",
]
