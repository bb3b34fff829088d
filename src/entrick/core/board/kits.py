"""Kits one starts with, and kits to and from a file."""

from __future__ import annotations

import json
from dataclasses import dataclass, replace
from fractions import Fraction
from typing import Any, Literal

from ..measure import Scale, Unit
from ..plan.errors import ClauseError
from .kit import GUIDES, METRIC_ELLIPSES, METRIC_TEMPLATE, Kit, default_kit

STARTERS: dict[str, Kit] = {
    "school-mm": default_kit(Unit.MM),
    "school-in": default_kit(Unit.INCH),
    "bare": Kit(Unit.MM, Fraction(1), Fraction(120), None, squares=False, least=Fraction(3), dividers=False,
                curves=False, pencils=(Fraction(1, 2),)),
    "drafting-table": Kit(
        Unit.MM, Fraction(1, 2), Fraction(300), Fraction(1, 4), METRIC_TEMPLATE | {Fraction(n) for n in (40, 45, 50)},
        least=Fraction(1, 2), beam=Fraction(1200), length=Fraction(1000), ellipses=METRIC_ELLIPSES, adjustable=True,
        faces=frozenset({Fraction(1, 2), Fraction(1, 5), Fraction(1, 10), Fraction(2)}), guide=GUIDES[2],
        pencils=(Fraction(1, 4), Fraction(7, 20), Fraction(1, 2), Fraction(7, 10)),
    ),
}  # fmt: skip
"""A school kit in mm and one in inches, a bare kit of compass, straight edge and pencil, a full table (by eye)."""

VERSION = 1
MOST_HOLES = 200
LONGEST = 60
LARGEST = 10_000
"""Sizes in a kit are below this, in its unit."""

Sort = Literal["size", "size or none", "yes", "list", "choice"]


@dataclass(frozen=True, slots=True)
class Item:
    """One thing a kit holds, as its file says it and its page asks for it.

    Attributes
    ----------
    key : str
        In the file.
    label : str
    sort : str
        One size, a size or nothing, whether there is one, several of something, one of several.
    in_unit : bool
        Whether its sizes are in the unit of the rule.
    usual : str
        What stands there where it is there and nothing else is said.
    choices : tuple of str
        What it may be, where it is one of several.
    shown_as : str
        Key of the item whose picture shows it too; its own where it is empty.
    """

    key: str
    label: str
    sort: Sort
    in_unit: bool = False
    usual: str = ""
    choices: tuple[str, ...] = ()
    shown_as: str = ""


ITEMS = (
    Item("unit", "Unit of the rule", "choice", choices=tuple(unit.value for unit in Unit), shown_as="graduation"),
    Item("graduation", "Rule, finest graduation", "size", True),
    Item("length", "Rule, length", "size", True, shown_as="graduation"),
    Item("faces", "Rule, faces at other scales", "list"),
    Item("compass", "Compass, largest radius", "size", True),
    Item("least", "Compass, smallest radius", "size", True, shown_as="compass"),
    Item("beam", "Beam compass, largest radius", "size or none", True, "600"),
    Item("dividers", "Dividers", "yes"),
    Item("template_holes", "Circle template, holes", "list", True),
    Item("ellipse_holes", "Isometric template, holes by the circle", "list", True),
    Item("set_squares", "Set squares, 45° and 30/60", "yes"),
    Item("adjustable_square", "Adjustable set square", "yes"),
    Item("protractor", "Protractor, finest graduation, °", "size or none", usual="1/2"),
    Item("french_curves", "French curves", "yes"),
    Item("pencils", "Pencils, line widths, mm", "list"),
    Item("papers", "Paper at hand (any where none is named)", "list"),
    Item("guide", "What guides level lines", "choice", choices=GUIDES),
)
"""Everything a kit holds, in the order of its page."""


def as_said(kit: Kit) -> dict[str, Any]:
    """Return a kit as its file says it: sizes as fractions in its unit."""
    return {
        "unit": kit.unit.value,
        "graduation": str(kit.graduation),
        "length": str(kit.length),
        "faces": [str(Scale(face.numerator, face.denominator)) for face in sorted(kit.faces)],
        "compass": str(kit.compass),
        "least": str(kit.least),
        "beam": None if kit.beam is None else str(kit.beam),
        "dividers": kit.dividers,
        "template_holes": [str(hole) for hole in sorted(kit.templates)],
        "ellipse_holes": [str(hole) for hole in sorted(kit.ellipses)],
        "set_squares": kit.squares,
        "adjustable_square": kit.adjustable,
        "protractor": None if kit.protractor is None else str(kit.protractor),
        "french_curves": kit.curves,
        "pencils": [str(width) for width in kit.pencils],
        "papers": list(kit.papers),
        "guide": kit.guide,
    }


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
    try:
        said = json.loads(text)
    except json.JSONDecodeError as error:
        raise ClauseError(f"this is no kit: line {error.lineno} is not JSON") from error
    if not isinstance(said, dict) or said.get("entrick_kit") != VERSION:
        raise ClauseError(f'this is no kit: it begins with  "entrick_kit": {VERSION}')
    known = {item.key for item in ITEMS}
    unknown = sorted(said.keys() - known - {"entrick_kit"})
    if unknown:
        raise ClauseError(f"a kit has no {unknown[0]}; it has {', '.join(sorted(known))}")
    if said.get("unit") not in ("mm", "in"):
        raise ClauseError("the unit of a kit is mm or in")
    kit = default_kit(Unit(said["unit"]))
    said = as_said(kit) | said
    if said["guide"] not in GUIDES:
        raise ClauseError(f"what guides level lines is one of {', '.join(GUIDES)}")
    return replace(
        kit,
        graduation=_read(said, "graduation"),
        length=_read(said, "length"),
        faces=frozenset(_ratio(each) for each in _several(said, "faces")),
        compass=_read(said, "compass"),
        least=_read(said, "least", nought=True),
        beam=_read_or_none(said, "beam"),
        dividers=_yes(said, "dividers"),
        templates=frozenset(_size(hole, "template_holes") for hole in _several(said, "template_holes")),
        ellipses=frozenset(_size(hole, "ellipse_holes") for hole in _several(said, "ellipse_holes")),
        squares=_yes(said, "set_squares"),
        adjustable=_yes(said, "adjustable_square"),
        protractor=_read_or_none(said, "protractor"),
        curves=_yes(said, "french_curves"),
        pencils=tuple(_size(width, "pencils") for width in _several(said, "pencils")),
        papers=tuple(_word(paper, "papers") for paper in _several(said, "papers")),
        guide=said["guide"],
    )


def _yes(said: dict[str, Any], key: str) -> bool:
    if not isinstance(said[key], bool):
        raise ClauseError(f"{key} is true or false")
    return bool(said[key])


def _several(said: dict[str, Any], key: str) -> list[object]:
    found = said[key]
    if not isinstance(found, list) or len(found) > MOST_HOLES:
        raise ClauseError(f"{key} are a list of at most {MOST_HOLES}")
    return found


def _word(value: object, key: str) -> str:
    if not isinstance(value, str) or not 0 < len(value) <= LONGEST:
        raise ClauseError(f"{key}: each is a name of at most {LONGEST} characters")
    return value


def _ratio(value: object) -> Fraction:
    drawn, _, actual = _word(value, "faces").partition(":")
    return _size(drawn, "faces") / _size(actual, "faces")


def _read_or_none(said: dict[str, Any], key: str) -> Fraction | None:
    return None if said[key] is None else _read(said, key)


def _read(said: dict[str, Any], key: str, nought: bool = False) -> Fraction:
    return _size(said[key], key, nought)


def _size(value: object, key: str, nought: bool = False) -> Fraction:
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
