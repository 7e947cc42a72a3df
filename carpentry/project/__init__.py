"""A whole project: its parts and a yard's prices become materials, plans, a tally and a list."""

from carpentry.project.build import build_document, is_complete, plan_all, work_up
from carpentry.project.claims import Claim, limits_of
from carpentry.project.comparing import AtYard, cheaper_told
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
from carpentry.project.gathering import Owned, Shelf, gather_materials, section_sold, standard_lines
from carpentry.project.groups import GroupShare, group_shares
from carpentry.project.hardware import Hardware, HardwareFields, JoinedPart, hardware_of
from carpentry.project.leftovers import kept_leftovers, section_left, test_piece
from carpentry.project.making import MakeOrBuy, make_or_buy, read_made_price
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
from carpentry.project.rips import RipSegment, RipStrip, rip_segments
from carpentry.project.settings import RackUse, SettingFields, Settings, read_settings
from carpentry.project.tally import Purchase, Tally, compare, tally
from carpentry.project.workshop_files import read_rack_file, read_tools_file
from carpentry.project.workup import Workup

__all__ = [
    "AtYard",
    "Claim",
    "CutLine",
    "FoundPacks",
    "GroupShare",
    "Hardware",
    "HardwareFields",
    "HardwareLine",
    "JoinedPart",
    "Made",
    "MakeOrBuy",
    "Material",
    "NamedPart",
    "Note",
    "Offer",
    "Owned",
    "ProjectFile",
    "Purchase",
    "RackUse",
    "RipSegment",
    "RipStrip",
    "SettingFields",
    "Settings",
    "Shelf",
    "Tally",
    "Workup",
    "YardFile",
    "build_document",
    "cheaper_told",
    "compare",
    "content_of",
    "cut_lines",
    "extra_of",
    "gather_materials",
    "group_shares",
    "hardware_of",
    "is_complete",
    "kept_leftovers",
    "limits_of",
    "make_or_buy",
    "missing_told",
    "notes",
    "own_among",
    "pack_key",
    "pack_prices",
    "packs_priced",
    "plan_all",
    "project_document",
    "read_made_price",
    "read_project_file",
    "read_rack_file",
    "read_settings",
    "read_tools_file",
    "read_yard_file",
    "rip_segments",
    "section_left",
    "section_sold",
    "standard_lines",
    "tally",
    "test_piece",
    "work_up",
    "yard_document",
]
