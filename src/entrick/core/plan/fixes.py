"""Lines that cannot be read as they stand, and how they would be: usual ways of writing a size,
each with its mend."""

from __future__ import annotations

import re
from collections.abc import Callable

_NUMBER = r"\d*\.?\d+(?: \d+)?(?:/\d+)?"
_SIZE = r"[RØ]?\s*(?:\d+ \d+/\d+|\d+(?:\.\d+)?(?:/\d+)?)(?:\s*(?:mm|in|°|\"))?"

_MEASURES = r"(?:thou|mil|mils|microns?|feet|foot|ft|yards?|metres?|m|dia\w*|rad\w*|off|holes?)\b"
"""Words behind a number that are no note: what they say belongs to the size."""

COUNTED = "how often a size stands there is written 4×"
NOTED = "a note stands in quotes"

WAYS = tuple(
    (re.compile(wrong), right, told)
    for wrong, right, told in (
        (r"[;.]\s*$", "", "a line ends without a sign"),
        (r"^let\s+", "given ", "a size with a name is a given"),
        (r"^(given\s+\w+\s*=\s*\d+)\s*-\s*(?=[RØ⌀]\s*\d)", r"\1× ", COUNTED),
        (r"^(given\s+\w+\s*=\s*[^\"(]*?\d)\s*\(([^\"()]+)\)$", r'\1 "\2"', NOTED),
        (r"^(given\s+\w+)\s*:=\s*", r"\1 = ", "a given has = between its name and its size"),
        (
            r"(\d+)\s*(?:degrees?|degs?|°|d)\.?\s*(\d+)\s*(?:minutes?|mins?|['′m])?\.?(?=\s|,|$)",
            r"\1° \2'",
            "degrees and minutes are written 22° 30'",
        ),
        (r"(?<=\d)\s*(?:degrees?|degs?)\b\.?", "°", "degrees are written °"),
        (
            r"^(given\s+\w+\s*=)\s*(\d+)\s*(?:off|holes?|no\.?|places)\s*(?=[ØR⌀\d])",
            r"\1 \2× ",
            COUNTED,
        ),
        (
            rf"^(given\s+\w+\s*=)\s*([ØR⌀]\s*{_NUMBER})\s*[x×]\s*(\d+)$",
            r"\1 \3× \2",
            "how often a size stands there is written in front of it",
        ),
        (
            r"^(given\s+\w+\s*=)\s*(?i:dia(?:m|meter)?)\b\.?\s*",
            r"\1 Ø",
            "a diameter is written Ø in a given",
        ),
        (
            r"^(given\s+\w+\s*=)\s*(?i:rad(?:ius)?)\b\.?\s*",
            r"\1 R",
            "a radius is written R in a given",
        ),
        (
            r"^(given\s+\w+\s*=)\s*([\d./ ]*\d(?:\s?mm|\s?in)?)\s*(?i:dia(?:m|meter)?)\b\.?",
            r"\1 Ø\2",
            "a diameter is written Ø in a given",
        ),
        (
            r"^(given\s+\w+\s*=)\s*([\d./ ]*\d(?:\s?mm|\s?in)?)\s*(?i:rad(?:ius)?)\b\.?",
            r"\1 R\2",
            "a radius is written R in a given",
        ),
        (r"(?<=\d)\s*x\s*(?=\d)(?!\d+(?:\.\d+)?\s*°)", "*", "times is written ×"),
        (
            r"^(given\s+\w+\s*=\s*[^\"+]*?\d)\s+(\+[\d.]+\s*,?\s*[-−][\d.]+)\s*$",
            r'\1 "\2"',
            "a given has one size: what it may be off by goes into its note",
        ),
        (
            rf"^(given\s+\w+\s*=\s*[^\"±]*?)\s*(±\s*{_NUMBER})$",
            r'\1 "\2"',
            "a given has one size: what it may be off by goes into its note",
        ),
        (
            r"^(given\s+[^\W\d]\w*)\s*:?\s*(?=[\dRØ.])",
            r"\1 = ",
            "a given has = between its name and its size",
        ),
        (
            rf"^((?!given\b|chain\b)[^\W\d]\w*\s*=\s*{_SIZE})$",
            r"given \1",
            "a size with a name is a given",
        ),
        (r"^(given)\s+([^\W\d]\w*)\s+(\w+)\s*=", r"\1 \2_\3 =", "a name is one word"),
        (
            rf"^(given\s+\w+\s*=\s*{_SIZE})\s+\(?(?!{_MEASURES})([^\W\d][^\"()]*?)\)?$",
            r'\1 "\2"',
            NOTED,
        ),
        (
            rf"^(chain\s+\w+\s*=[^,=]*),?\s*(?:=|total|sum|over all|in all)\s*({_NUMBER})$",
            r"\1, overall \2",
            "what the links come to is their overall size",
        ),
        (
            rf"^(chain\s+\w+\s*=[^,=]*),?\s*({_NUMBER})\s*(?:overall|over all|in all|total)$",
            r"\1, overall \2",
            "what the links come to is their overall size",
        ),
        (
            r"(?<=\d)\s*,\s*(?=\d)",
            " ",
            "the links of a chain stand one after another, without commas",
        ),
    )
)
"""How a line is written elsewhere, what that is here, and what is told."""

TOLERANCE = re.compile(r"^(given\s+\w+\s*=\s*[^\"+]*?)\s*(\+\s*[\d.]+\s*/\s*[-−]\s*[\d.]+)\s*$")
"""A size with what it may be off by, which would be read as a sum."""


def fixed(text: str, reads: Callable[[str], bool]) -> tuple[str, str] | None:
    """Return what is told of a line that cannot be read, and the line as it would be; None where no
    usual way of writing it is known.

    Parameters
    ----------
    text : str
    reads : callable
        Tells whether a line can be read.
    """
    for wrong, right, told in WAYS:
        row = wrong.sub(right, text)
        if row != text and reads(row):
            return told, row
    return None
