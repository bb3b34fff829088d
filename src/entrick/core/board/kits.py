"""Kits one starts with, and kits to and from a file."""

from __future__ import annotations

import json
from dataclasses import fields, replace
from fractions import Fraction
from typing import Any

from ..measure import Unit
from ..outside import read_json
from ..plan.errors import ClauseError
from .kit import GUIDES, METRIC_ELLIPSES, METRIC_TEMPLATE, Kit, default_kit
from .kit_items import Item

STARTERS: dict[str, Kit] = {
    "school-mm": default_kit(Unit.MM),
    "school-in": default_kit(Unit.INCH),
    "bare": Kit(
        unit=Unit.MM,
        graduation=Fraction(1),
        compass=Fraction(120),
        least=Fraction(3),
        dividers=False,
        set_squares=False,
        protractor=None,
        french_curves=False,
        pencils=(Fraction(1, 2),),
    ),
    "drafting-table": Kit(
        unit=Unit.MM,
        graduation=Fraction(1, 2),
        length=Fraction(1000),
        faces=frozenset({Fraction(1, 2), Fraction(1, 5), Fraction(1, 10), Fraction(2)}),
        compass=Fraction(300),
        least=Fraction(1, 2),
        beam=Fraction(1200),
        template_holes=METRIC_TEMPLATE | {Fraction(n) for n in (40, 45, 50)},
        ellipse_holes=METRIC_ELLIPSES,
        adjustable_square=True,
        protractor=Fraction(1, 4),
        pencils=(Fraction(1, 4), Fraction(7, 20), Fraction(1, 2), Fraction(7, 10)),
        guide=GUIDES[2],
    ),
}
"""A school kit in mm and one in inches, a bare kit of compass, straight edge and pencil, a full
table (by eye)."""

VERSION = 1

LONGEST_KIT = 8_000
"""Characters of a kit's file."""

ITEMS = tuple(Item(key=each.name, **each.metadata) for each in fields(Kit))
"""Everything a kit holds, in the order of its page."""


def as_said(kit: Kit) -> dict[str, Any]:
    """Return a kit as its file says it: sizes as fractions in its unit."""
    return {item.key: item.sort.write(getattr(kit, item.key)) for item in ITEMS}


def write_kit(kit: Kit) -> str:
    """Write a kit as JSON, sizes as fractions in its unit."""
    return json.dumps({"entrick_kit": VERSION, **as_said(kit)}, indent=1, ensure_ascii=False) + "\n"


def read_kit(text: str) -> Kit:
    """Read a kit from JSON; what is not said is as in the small kit of its unit.

    Raises
    ------
    ClauseError
        In words, naming what is wrong.
    """
    if len(text) > LONGEST_KIT:
        raise ClauseError(f"a kit has at most {LONGEST_KIT} characters")
    said = read_json(text, "kit")
    if not isinstance(said, dict) or said.get("entrick_kit") != VERSION:
        raise ClauseError(f'this is no kit: it begins with  "entrick_kit": {VERSION}')
    items = {item.key: item for item in ITEMS}
    unknown = sorted(said.keys() - items.keys() - {"entrick_kit"})
    if unknown:
        raise ClauseError(f"a kit has no {unknown[0]}; it has {', '.join(sorted(items))}")
    unit = items["unit"].sort.read(said.get("unit"), "unit")
    held = {key: items[key].sort.read(value, key) for key, value in said.items() if key in items}
    return replace(default_kit(unit), **held)


def tidy_kit(text: str) -> str:
    """Return the text of a kit as it is kept.

    Raises
    ------
    ClauseError
        Where it is none, or is longer than one may be.
    """
    tidy = write_kit(read_kit(text))
    if len(tidy) > LONGEST_KIT:
        raise ClauseError(f"written out, this kit has more than {LONGEST_KIT} characters")
    return tidy


def kit_named(name: str) -> Kit:
    """Return one of the kits one starts with.

    Raises
    ------
    ClauseError
    """
    if name not in STARTERS:
        raise ClauseError(f"there is no kit {name}; there are {', '.join(STARTERS)}, or a file")
    return STARTERS[name]
