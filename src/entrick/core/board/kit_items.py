"""How the things a kit holds are declared, read from its file, written to it and asked for on its
page."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import MISSING, dataclass, field
from fractions import Fraction
from typing import Any, Literal

from ..measure import Scale, Unit
from ..outside import read_number
from ..plan.errors import ClauseError

MOST_HOLES = 200
LONGEST = 60
LARGEST = 10_000
"""Sizes in a kit are below this, in its unit."""

SortName = Literal["size", "size or none", "yes", "list", "choice"]


@dataclass(frozen=True, slots=True)
class Sort:
    """What sort of thing an item is.

    Attributes
    ----------
    name : str
        One size, a size or nothing, whether there is one, several of something, one of several.
    read : callable
        From what the file says, and the key, to what the kit holds; refuses in words what is none.
    write : callable
        From what the kit holds to what the file says.
    choices : tuple of str
        What it may be, where it is one of several.
    """

    name: SortName
    read: Callable[[object, str], Any]
    write: Callable[[Any], Any]
    choices: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Item:
    """One thing a kit holds.

    Attributes
    ----------
    key : str
        In the file and of the kit.
    label : str
        On its page.
    sort : Sort
    in_unit : bool
        Whether its sizes are in the unit of the rule.
    usual : str
        What stands there where it is there and nothing else is said.
    shown_as : str
        Key of the item whose picture shows it too; its own where it is empty.
    """

    key: str
    label: str
    sort: Sort
    in_unit: bool = False
    usual: str = ""
    shown_as: str = ""


def held(label: str, sort: Sort, default: Any = MISSING, **more: Any) -> Any:
    """Declare a field of the kit: all there is to say of it, but for its name and type."""
    return field(default=default, metadata={"label": label, "sort": sort, **more})


def _size(value: object, key: str, nought: bool = False) -> Fraction:
    try:
        fraction = read_number(value if isinstance(value, str) else repr(value))
    except ClauseError as error:
        shown = str(value)[:LONGEST]
        raise ClauseError(f"{key}: {shown} is no size; write it as 1/32 or 0.5") from error
    if not (fraction >= 0 if nought else fraction > 0) or fraction > LARGEST:
        raise ClauseError(f"{key}: {value} is no size of a kit")
    return fraction


def _word(value: object, key: str) -> str:
    if not isinstance(value, str) or not 0 < len(value) <= LONGEST:
        raise ClauseError(f"{key}: each is a name of at most {LONGEST} characters")
    return value


def _ratio(value: object, key: str) -> Fraction:
    drawn, _, actual = _word(value, key).partition(":")
    return _size(drawn, key) / _size(actual, key)


def _several(value: object, key: str) -> list[object]:
    if not isinstance(value, list) or len(value) > MOST_HOLES:
        raise ClauseError(f"{key} are a list of at most {MOST_HOLES}")
    return value


def _yes(value: object, key: str) -> bool:
    if not isinstance(value, bool):
        raise ClauseError(f"{key} is true or false")
    return value


SIZE = Sort("size", _size, str)
NOUGHT_OR_MORE = Sort("size", lambda value, key: _size(value, key, nought=True), str)
SIZE_OR_NONE = Sort(
    "size or none",
    lambda value, key: None if value is None else _size(value, key),
    lambda size: None if size is None else str(size),
)
YES = Sort("yes", _yes, bool)
HOLES = Sort(
    "list",
    lambda value, key: frozenset(_size(hole, key) for hole in _several(value, key)),
    lambda holes: [str(hole) for hole in sorted(holes)],
)
WIDTHS = Sort(
    "list",
    lambda value, key: tuple(_size(width, key) for width in _several(value, key)),
    lambda widths: [str(width) for width in widths],
)
RATIOS = Sort(
    "list",
    lambda value, key: frozenset(_ratio(each, key) for each in _several(value, key)),
    lambda ratios: [str(Scale(ratio.numerator, ratio.denominator)) for ratio in sorted(ratios)],
)
NAMES = Sort(
    "list", lambda value, key: tuple(_word(name, key) for name in _several(value, key)), list
)


def one_of(choices: Sequence[str], told: str) -> Sort:
    """Return the sort of what is one of several words; `told` begins the sentence that says so."""

    def read(value: object, _: str) -> str:
        if value not in choices:
            raise ClauseError(f"{told} is one of {', '.join(choices)}")
        return str(value)

    return Sort("choice", read, str, tuple(choices))


def _unit(value: object, _: str) -> Unit:
    if value not in [unit.value for unit in Unit]:
        raise ClauseError("the unit of a kit is mm or in")
    return Unit(value)


UNIT = Sort("choice", _unit, lambda unit: unit.value, tuple(unit.value for unit in Unit))
