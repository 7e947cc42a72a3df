"""Type and lengths on paper."""

from functools import cache
from pathlib import Path
from typing import Literal
from xml.sax.saxutils import escape

from reportlab.lib.pagesizes import A4, LETTER
from reportlab.lib.styles import ParagraphStyle
from reportlab.pdfbase import pdfmetrics
from reportlab.pdfbase.ttfonts import TTFont
from reportlab.platypus import Paragraph

from server.common.schemas import LengthOut

REGULAR, BOLD = "Archivo", "Archivo-Bold"
Paper = Literal["letter", "a4"]
PAPERS = {"letter": LETTER, "a4": A4}
_FILES = {REGULAR: "archivo-regular.ttf", BOLD: "archivo-bold.ttf"}


@cache
def register_fonts() -> None:
    """Makes the fonts known to the PDF library, once."""
    folder = Path(__file__).parent / "fonts"
    for name, file in _FILES.items():
        pdfmetrics.registerFont(TTFont(name, str(folder / file)))
    for name in _FILES:
        pdfmetrics.registerFontFamily(name, normal=name, bold=BOLD, italic=name, boldItalic=BOLD)


def style(size: float, *, bold: bool = False, right: bool = False) -> ParagraphStyle:
    """A paragraph style of ours."""
    register_fonts()
    return ParagraphStyle(
        "plain",
        fontName=BOLD if bold else REGULAR,
        fontSize=size,
        leading=size * 1.3,
        alignment=2 if right else 0,
    )


def length_markup(length: LengthOut) -> str:
    """A length as paragraph markup, its fraction set as one; ≈ before one that is rounded."""
    about = "" if length.exact else "≈ "
    if not length.numerator:
        return about + escape(length.text)
    fraction = (
        f'<super size="65%" rise="30%">{length.numerator}</super>⁄'
        f'<sub size="65%" rise="0%">{length.denominator}</sub>'
    )
    return f"{about}{escape(length.whole)}{fraction}{escape(length.mark)}"


def text(content: str, size: float = 9, *, bold: bool = False, right: bool = False) -> Paragraph:
    """A paragraph of plain text."""
    return Paragraph(escape(content), style(size, bold=bold, right=right))
