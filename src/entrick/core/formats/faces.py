"""The faces text is set in, in PDF files: the lettering face, and another for the letters it has
not."""

from __future__ import annotations

from collections.abc import Iterator
from functools import cache
from importlib import resources
from itertools import groupby
from typing import TYPE_CHECKING, Literal
from xml.sax.saxutils import escape

if TYPE_CHECKING:
    from reportlab.pdfgen.canvas import Canvas

LETTERING, OTHER = "RoutedGothic", "DejaVuSansCondensed"
FILES = {LETTERING: "routed-gothic.ttf", OTHER: "dejavu-sans-condensed.ttf"}

NARROWER = 0.86
"""How much smaller the other face is set, to look as high (by eye, no source)."""

Anchor = Literal["start", "middle", "end"]


@cache
def _known() -> frozenset[int]:
    """Register the faces, and return which letters the lettering face has."""
    from reportlab.pdfbase import pdfmetrics
    from reportlab.pdfbase.ttfonts import TTFont

    known: frozenset[int] = frozenset()
    for name, file in FILES.items():
        with resources.as_file(resources.files("entrick") / "fonts" / file) as path:
            face = TTFont(name, str(path))
        pdfmetrics.registerFont(face)
        if name == LETTERING:
            known = frozenset(face.face.charToGlyph)
    return known


def face_name() -> str:
    """Return the name of the lettering face, registered."""
    _known()
    return LETTERING


def runs(text: str) -> Iterator[tuple[str, str]]:
    """Yield the runs of a text that are set in one face, each with the face."""
    known = _known()
    for has, letters in groupby(text, lambda letter: ord(letter) in known):
        yield (LETTERING if has else OTHER), "".join(letters)


def wide(text: str, letters: float) -> float:
    """Return how wide a text is set, at a height of its lettering."""
    from reportlab.pdfbase.pdfmetrics import stringWidth

    return sum(
        float(stringWidth(run, face, letters * (NARROWER if face == OTHER else 1.0)))
        for face, run in runs(text)
    )


def write_text(
    canvas: Canvas, text: str, at: tuple[float, float], letters: float, anchor: Anchor = "start"
) -> None:
    """Write a text at a place, every letter in a face that has it."""
    share = {"start": 0.0, "middle": 0.5, "end": 1.0}[anchor]
    x, y = at[0] - share * wide(text, letters), at[1]
    for face, run in runs(text):
        size = letters * (NARROWER if face == OTHER else 1.0)
        canvas.setFont(face, size)
        canvas.drawString(x, y, run)
        x += wide(run, letters)


def marked_up(text: str) -> str:
    """Return a text as the markup of a paragraph in the lettering face."""
    return "".join(
        escape(run) if face == LETTERING else f'<font name="{face}">{escape(run)}</font>'
        for face, run in runs(text)
    )


def split_rows(text: str, letters: float, room: float) -> list[str]:
    """Return the rows a text is written in, for so much room."""
    result: list[str] = [""]
    for word in text.split(" "):
        longer = f"{result[-1]} {word}".strip() if result[-1] else word
        if result[-1] and wide(longer, letters) > room:
            result.append(word)
        else:
            result[-1] = longer
    return result
