"""Words and signs of other offices, and what they are here."""

from __future__ import annotations

import re

OURS = {
    "horizontal": "level",
    "horizontally": "level",
    "vertical": "plumb",
    "vertically": "plumb",
    "perpendicular": "square",
    "tangent": "touching",
    "tangential": "touching",
    "center": "centre",
    "dia": "diameter",
    "diam": "diameter",
    "d": "diameter",
    "D": "diameter",
    "Ø": "diameter",
    "rad": "radius",
    "r": "radius",
    "R": "radius",
    "up": "above",
    "down": "below",
    "over": "above",
    "under": "below",
    "outside": "beside",
    "external": "beside",
    "within": "inside",
    "internal": "inside",
    "wide": "width",
    "deep": "depth",
    "long": "length",
    "high": "height",
    "angle": "at",
    "x": "by",
    "AF": "across flats",
    "AC": "across corners",
}
"""Words and signs other offices use, and ours."""

LITTLE = frozenset({"of", "on", "to", "at", "in", "by", "with", "from", "the"})
"""Words that are easily one too many."""

SAYS_NOTHING = frozenset(
    {
        *("tangent", "tangential", "blending", "connecting", "construction", "auxiliary"),
        *("guide", "light", "thin", "drilled", "bored", "clearance", "plain", "true", "regular"),
        *("common", "image", "circular", "straight", "equal", "external", "centre", "bolt"),
    }
)
"""Words that stand with a kind and say nothing that its clauses do not."""

SIZING = frozenset(
    {
        "diameter",
        "dia",
        "diam",
        "radius",
        "across",
        "half",
        "twice",
        "circumscribed",
        "inscribed",
        "circumference",
        "pitch",
    }
)
"""Words that say of what a number is the size: left out, it would be another."""

COUNTING = frozenset(
    {
        "hole",
        "holes",
        "off",
        "no",
        "times",
        "places",
        "copies",
        "teeth",
        "rows",
        "columns",
        "sides",
        "sided",
    }
)
"""Words behind a number that make a count of it, and no size."""

BETWEEN = ("to", "and", "by")
"""Words that stand between two values, and are easily left out or taken for one another."""

DEGREES = frozenset({"degree", "degrees", "deg"})

SIGNED = re.compile(r"([RrØDd])(\d+(?:\.\d+)?(?: \d+/\d+|/\d+)?)")


RATIO = re.compile(r"\d+:\d+")

SCALES = {"full": "1:1", "half": "1:2", "quarter": "1:4", "double": "2:1", "twice": "2:1"}
"""Scales by their names (common practice, no source)."""

LAID = {"horizontal": "landscape", "vertical": "portrait", "upright": "portrait"}
"""Which way round paper lies, in other words."""
