"""Real sizes: what a board is called, what it measures, and where that number is from.

``read_stock("2 X 4 treated")`` gives the name and ``standard_section`` the dressed size; a yard's
own section, where its price list gives one, wins. ``look_up`` opens the size book, ``nominal_for``
asks it the other way round. ``board_feet``, ``straight_width`` and ``species_of`` answer what else
a size decides.
"""

from carpentry.lumber.board_measure import Rounding, board_feet, measured_board_feet
from carpentry.lumber.book import Alternative, Entry, Way, entries, look_up, nominal_for
from carpentry.lumber.families import FAMILIES
from carpentry.lumber.family import Family, Size
from carpentry.lumber.kinds import Exposure, Kind
from carpentry.lumber.lexicon import INCHES, MILLIMETRES, Lexicon, lexicon_in
from carpentry.lumber.names import (
    DRESSED_SIZES,
    METRIC_SIZES,
    STANDARD_LENGTHS,
    ReadStock,
    StockName,
    ask_for_feet,
    feet_or_inches,
    match_size,
    nominal,
    read_stock,
    sheet_section,
    standard_section,
)
from carpentry.lumber.own import (
    MAX_OWN,
    NO_OWN,
    Form,
    OwnFields,
    OwnStock,
    OwnStocks,
    read_own,
)
from carpentry.lumber.section import Section
from carpentry.lumber.species import (
    TREATED,
    TREATED_FOR_GROUND,
    WOODS,
    Species,
    load_told,
    pounds,
    rounded,
    species_of,
    weight_kg,
    weight_told,
)
from carpentry.lumber.straighten import straight_width
from carpentry.lumber.words import KNOWN_WORDS, names_a_shape, names_a_wood, woods_in
from carpentry.lumber.writing import SHEET_KINDS, words_at, written_third

__all__ = [
    "DRESSED_SIZES",
    "FAMILIES",
    "INCHES",
    "KNOWN_WORDS",
    "MAX_OWN",
    "METRIC_SIZES",
    "MILLIMETRES",
    "NO_OWN",
    "SHEET_KINDS",
    "STANDARD_LENGTHS",
    "TREATED",
    "TREATED_FOR_GROUND",
    "WOODS",
    "Alternative",
    "Entry",
    "Exposure",
    "Family",
    "Form",
    "Kind",
    "Lexicon",
    "OwnFields",
    "OwnStock",
    "OwnStocks",
    "ReadStock",
    "Rounding",
    "Section",
    "Size",
    "Species",
    "StockName",
    "Way",
    "ask_for_feet",
    "board_feet",
    "entries",
    "feet_or_inches",
    "lexicon_in",
    "load_told",
    "look_up",
    "match_size",
    "measured_board_feet",
    "names_a_shape",
    "names_a_wood",
    "nominal",
    "nominal_for",
    "pounds",
    "read_own",
    "read_stock",
    "rounded",
    "sheet_section",
    "species_of",
    "standard_section",
    "straight_width",
    "weight_kg",
    "weight_told",
    "woods_in",
    "words_at",
    "written_third",
]
