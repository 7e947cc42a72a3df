"""The words of a board's name: woods, grades and workings, each in one spelling."""

import re

from carpentry.language import StockNameError
from carpentry.lumber.families import WORKED_FAMILIES
from carpentry.lumber.kinds import Kind
from carpentry.lumber.writing import is_word

WORKED_WORDS = (*(family.word for family in WORKED_FAMILIES), "surfaced")
UNEVEN_WORDS = frozenset({"t&g", "shiplap", "siding", "landscape"})  # no board is ripped from them
WORDS_OF_KIND = {
    Kind.COMPOSITE: frozenset({"composite"}),
    Kind.TREATED: frozenset({"treated", "pt"}),
    Kind.DURABLE: frozenset(
        {"cedar", "redcedar", "redwood", "larch", "cypress", "locust", "ipe", "teak"}
    ),
}
GRADES = frozenset(
    {
        *("select", "clear", "common", "premium", "prime", "standard", "stud", "kd", "s4s", "s2s"),
        *("green", "dry", "exterior", "marine", "sanded", "sheathing", "cdx", "heat", "treated"),
        *("ht", "pt", "ground", "contact", "dog-ear", "#1", "#2", "#3", "c16", "c24", "twin-wall"),
        *("clad", "steel", "melamine", "moisture-resistant", *WORKED_WORDS),
    }
)
_WOODS = {
    *("pine", "fir", "spruce", "hemlock", "douglas", "whitewood", "southern", "yellow", "red"),
    *("white", "spf", "syp", "oak", "maple", "ash", "birch", "beech", "cherry", "walnut"),
    *("poplar", "ponderosa", "soft", "hard", "black", "hem-fir", "douglas-fir"),
    *("spruce-pine-fir", "western", "eastern", "northern", "alaska"),
}
KNOWN_WORDS = frozenset((GRADES | _WOODS).union(*WORDS_OF_KIND.values()))

_MATERIALS = frozenset().union(*WORDS_OF_KIND.values()) | _WOODS - {
    *("southern", "yellow", "red", "white", "soft", "hard", "black"),
    *("western", "eastern", "northern", "alaska"),
}

_SHAPES = r"posts?|boards?|planks?|lumber|timbers?|sheets?"  # of no size and no wood

# Ways to write a word, the longest first where one begins like another.
_SPELLINGS = tuple(
    (re.compile(rf"(?<![\w&#-]){pattern}(?![\w&-])", re.IGNORECASE), word)
    for pattern, word in (
        (r"tongue[\s-]+(?:and|&)[\s-]+groove|t\s*(?:&|\+|and)\s*g|tg", "t&g"),
        (r"pressure[\s-]+treated", "treated"),
        (r"p\.\s*t\.?|pt(?=.*\bheat\b)", "pt"),
        (r"dog[\s-]?ear(?:ed)?(?:\s+pickets?)?", "dog-ear picket"),
        (r"fence\s+pickets?|pickets", "picket"),
        (r"(?:bevel(?:led)?\s+)?siding", "siding"),
        (r"furring(?:\s+strips?)?", "furring"),
        (r"lattice(?:\s+strips?)?", "lattice"),
        (r"landscap(?:e|ing)(?:\s+timbers?)?", "landscape"),
        (r"deck(?:ing)?(?:\s+boards?)?", "decking"),
        (r"rough[\s-]?sawn", "rough"),
        (r"(?:#|no\.?|number|gr(?:ade)?\.?)\s*([1-3])", r"#\1"),
        (r"kiln[\s-]dried", "kd"),
        (r"ground[\s-]+contact", "ground contact"),
        (r"heat[\s-]+treated", "heat treated"),
        (_SHAPES, ""),
    )
)


def read_words(text: str, whole: str) -> tuple[tuple[str, ...], tuple[str, ...]]:
    """The words of a name in the order of the alphabet, and a warning for each that is nobody's
    but the builder's. Raises ``StockNameError`` for what is no word; ``whole`` is the name."""
    spelled = f" {text.lower()} "
    for pattern, word in _SPELLINGS:
        spelled = pattern.sub(word, spelled)
    words: set[str] = set()
    for word in re.split(r"[\s,;()]+", spelled.strip(" ,;()")):
        if not word:
            continue
        if word.isdigit():
            raise StockNameError(
                f"“{word}” in “{whole.strip()}” has no unit: write {word}ft or {word}in"
            )
        if not is_word(word):
            raise StockNameError(f"“{word}” in “{whole.strip()}” is neither a size nor a word")
        words.add(word.rstrip("."))
    if "pt" in words and "heat" not in words:
        words = words - {"pt"} | {"treated"}
    warnings = tuple(
        f"“{word}” is a word of your own: it must match the yard's"
        for word in sorted(words - KNOWN_WORDS)
    )
    return tuple(sorted(words)), warnings


def woods_in(text: str) -> frozenset[str]:
    """The words of a text that say what a board is made of: ``treated``, ``cedar``."""
    try:
        words = set(read_words(text, text)[0])
    except StockNameError:
        return frozenset()
    return frozenset(words & _MATERIALS)


def names_a_wood(text: str) -> bool:
    """Whether a text is the words of a wood and nothing else: ``PT``, ``western red cedar``."""
    try:
        words, own_words = read_words(text, text)
    except StockNameError:
        return False
    return bool(_MATERIALS & set(words)) and not own_words


def names_a_shape(text: str) -> bool:
    """Whether a text has a word for a board of any wood: ``posts``."""
    return re.search(rf"\b(?:{_SHAPES})\b", text, re.IGNORECASE) is not None
