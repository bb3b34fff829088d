"""What a file is that is no plan, told by how it begins."""

from __future__ import annotations

import re

SIGNS = (
    (r"\s*0\s*\r?\n\s*SECTION\b|\s*999\s*\r?\n", "a DXF drawing"),
    (
        r"\s*(?:<\?xml[^>]*>\s*)?(?:<!--.*?-->\s*)*(?:<!DOCTYPE svg[^>]*>\s*)?<svg\b",
        "an SVG drawing",
    ),
    (r"\s*<(?:!doctype|\?xml|html|\w)", "markup, of a web page or the like"),
    (r"%PDF-", "a PDF"),
    (r"\s*%?\s*\n?\s*(?:O\d{1,5}|N\d+|G\d{1,2})\b.*\n", "a program for a machine (ISO 6983)"),
    (r"\s*[\[{]\s*[\"\[{]", "JSON"),
    (
        r"(?:[A-Za-z_ ,;\t]{1,80}\r?\n)?(?:\s*-?[\d.]+\s*[,;\t]\s*-?[\d.]+\s*\r?\n){3}",
        "a table of numbers",
    ),
)
"""How files of other kinds begin, and what they are called."""

READ = 4096
"""Characters that are looked at."""


def foreign(text: str) -> str:
    """Return what a file is that is no plan, such as "a DXF drawing"; empty where nothing says
    so."""
    begins = text[:READ].removeprefix("\ufeff")
    return next((called for sign, called in SIGNS if re.match(sign, begins, re.I | re.S)), "")
