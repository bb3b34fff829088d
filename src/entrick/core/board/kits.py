"""Kits one starts with, and kits to and from a file."""

from __future__ import annotations

import json
from dataclasses import replace
from fractions import Fraction
from typing import Any

from ..measure import Unit
from ..plan.errors import ClauseError
from .kit import METRIC_TEMPLATE, Kit, default_kit

STARTERS: dict[str, Kit] = {
    "school-mm": default_kit(Unit.MM),
    "school-in": default_kit(Unit.INCH),
    "bare": Kit(Unit.MM, Fraction(1), Fraction(120), None, squares=False, least=Fraction(3)),
    "drafting-table": Kit(Unit.MM, Fraction(1, 2), Fraction(300), Fraction(1, 4),
                          METRIC_TEMPLATE | {Fraction(n) for n in (40, 45, 50)}, least=Fraction(1, 2)),
}  # fmt: skip
"""A school kit in mm and one in inches, a bare kit of compass, straight edge and pencil, a full table (by eye)."""

VERSION = 1
MOST_HOLES = 200
LONGEST = 60
LARGEST = 10_000
"""Sizes in a kit are below this, in its unit."""


def write_kit(kit: Kit) -> str:
    """Write a kit as JSON, sizes as fractions in its unit."""
    said = {
        "entrick_kit": VERSION,
        "unit": kit.unit.value,
        "graduation": str(kit.graduation),
        "compass": str(kit.compass),
        "least": str(kit.least),
        "protractor": None if kit.protractor is None else str(kit.protractor),
        "set_squares": kit.squares,
        "template_holes": [str(hole) for hole in sorted(kit.templates)],
    }
    return json.dumps(said, indent=1) + "\n"


def read_kit(text: str) -> Kit:
    """Read a kit from JSON.

    Raises
    ------
    ClauseError
        In words, naming what is wrong.
    """
    try:
        said = json.loads(text)
    except json.JSONDecodeError as error:
        raise ClauseError(f"this is no kit: line {error.lineno} is not JSON") from error
    if not isinstance(said, dict) or said.get("entrick_kit") != VERSION:
        raise ClauseError(f'this is no kit: it begins with  "entrick_kit": {VERSION}')
    known = {"entrick_kit", "unit", "graduation", "compass", "least", "protractor", "set_squares", "template_holes"}
    unknown = sorted(said.keys() - known)
    if unknown:
        raise ClauseError(f"a kit has no {unknown[0]}; it has {', '.join(sorted(known - {'entrick_kit'}))}")
    if said.get("unit") not in ("mm", "in"):
        raise ClauseError("the unit of a kit is mm or in")
    holes = said.get("template_holes", [])
    if not isinstance(holes, list) or len(holes) > MOST_HOLES:
        raise ClauseError(f"template_holes are a list of at most {MOST_HOLES} diameters")
    kit = default_kit(Unit(said["unit"]))
    return replace(
        kit,
        graduation=_size(said, "graduation", kit.graduation),
        compass=_size(said, "compass", kit.compass),
        least=_size(said, "least", kit.least, nought=True),
        protractor=None if said.get("protractor") is None else _size(said, "protractor", Fraction(1, 2)),
        squares=bool(said.get("set_squares", True)),
        templates=frozenset(_read(hole, "template_holes", False) for hole in holes),
    )


def _size(said: dict[str, Any], key: str, usual: Fraction, nought: bool = False) -> Fraction:
    return usual if key not in said else _read(said[key], key, nought)


def _read(value: object, key: str, nought: bool) -> Fraction:
    if len(str(value)) > LONGEST:
        raise ClauseError(f"{key}: a size has at most {LONGEST} characters")
    try:
        found = Fraction(str(value))
    except (ValueError, ZeroDivisionError) as error:
        raise ClauseError(f"{key}: {value} is no size; write it as 1/32 or 0.5") from error
    if not (found >= 0 if nought else found > 0) or found > LARGEST:
        raise ClauseError(f"{key}: {value} is no size of a kit")
    return found


def kit_named(name: str) -> Kit:
    """Return one of the kits one starts with.

    Raises
    ------
    ClauseError
    """
    if name not in STARTERS:
        raise ClauseError(f"there is no kit {name}; there are {', '.join(STARTERS)}, or a file")
    return STARTERS[name]
