"""The figure: what the statements of a plan have made, by name."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Mapping, Sequence, Set
from dataclasses import dataclass, field
from difflib import SequenceMatcher, get_close_matches
from itertools import groupby

from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Line, Loop, Piece, Point, Shape
from ..geometry.shapes import quarters
from ..memo import Distinct
from ..plan.errors import Astray, ClauseError, Unknown
from ..plan.slots import SLOTS
from ..plan.suggestions import OURS
from ..tolerance import assembled


@dataclass(frozen=True, slots=True)
class Family:
    """Several things made by one statement: ``ring.1``, ``ring.2`` and so on.

    Attributes
    ----------
    members : tuple of Point, Line, Circle, Arc or Loop
    labels : tuple of str
        What stands behind the dot for each: its number, or two where each member of a family made
        several.
    """

    members: tuple[Shape | Loop, ...]
    labels: tuple[str, ...] = ()

    @property
    def labelled(self) -> tuple[tuple[str, Shape | Loop], ...]:
        """Every member with what stands behind the dot for it."""
        numbers = self.labels or tuple(map(str, range(1, len(self.members) + 1)))
        return tuple(zip(numbers, self.members, strict=True))


QUARTERS = {
    "right": Point(1.0, 0.0),
    "top": Point(0.0, 1.0),
    "left": Point(-1.0, 0.0),
    "bottom": Point(0.0, -1.0),
}
"""The outermost places of a circle, by quarter turns from the right, and whither they lie from its
centre."""


@dataclass(frozen=True, slots=True)
class Item(Distinct):
    """A named thing of the figure.

    Attributes
    ----------
    name : str
    shape : Point, Line, Circle, Arc, Loop or Family
    line : int
        Line of the plan whose statement made it.
    parts : mapping of str to Shape
        What can be referred to behind a dot, such as ``centre`` or ``touch.eyeA``.
    centre_name : str
        What the drafter calls the centre of a circle or arc.
    lined : Role or None
        What it has been gone over as; None while it is construction.
    """

    name: str
    shape: Shape | Loop | Family
    line: int
    parts: Mapping[str, Shape | Loop] = field(default_factory=dict)
    centre_name: str = ""
    lined: Role | None = None

    def part(self, name: str) -> Shape | Loop | None:
        """Return what stands behind a dot: a part, or an outermost place of one that is round."""
        result = self.parts.get(name)
        if result is None:
            owner, _, side = name.rpartition(".")
            result = _outermost(self.parts.get(owner) if owner else self.shape).get(side)
        return result

    @property
    def named(self) -> Mapping[str, Shape | Loop]:
        """All that may stand behind its dot, by name; of its parts not their own outermost
        places."""
        return {**self.parts, **_outermost(self.shape)}


def _outermost(shape: Shape | Loop | Family | None) -> Mapping[str, Point]:
    """Return the outermost places of a circle, and those an arc reaches."""
    if not isinstance(shape, Circle | Arc):
        return {}
    drawn = {turn % 4 for turn in quarters(shape)} if isinstance(shape, Arc) else range(4)
    return {
        side: shape.centre + QUARTERS[side] * shape.radius
        for turn, side in enumerate(QUARTERS)
        if turn in drawn
    }


@dataclass(frozen=True, slots=True)
class Ref:
    """A reference as written, with what it refers to, and as what that has been gone over; of a
    corner, the two pieces that meet in it as well."""

    text: str
    shape: Shape | Loop | Family
    centre_name: str = ""
    lined: Role | None = None
    meeting: tuple[Piece, Piece] | None = None


_CLASSES: dict[str, type] = {
    "point": Point,
    "line": Line,
    "circle": Circle,
    "arc": Arc,
    "outline": Loop,
}
_TYPES = {
    name: tuple(_CLASSES[shape] for shape in slot.shapes)
    for name, slot in SLOTS.items()
    if slot.shapes
}
_CALLED = {
    Point: "a point",
    Line: "a line",
    Circle: "a circle",
    Arc: "an arc",
    Loop: "an outline",
    Family: "a family of several",
}


FEW_PARTS = 8
"""Numbered parts that are told one by one."""

NEARLY = 0.6
"""How much of a name must agree with one that is known for it to be taken as that (by eye)."""


AS_NEAR = 0.05
"""By how much one may agree less than the most likely one (by eye)."""

OTHERS = {"bottom_": "lower_", "top_": "upper_", "center": "centre", "midpoint": "middle"}
"""How parts are called elsewhere, and here."""


def _listed(name: str, parts: Sequence[str]) -> Iterator[str]:
    """Yield the parts of a thing as they are told: a row of numbered ones by its first and last."""
    for stem, run in groupby(parts, lambda part: part.rstrip("0123456789")):
        row = [f"{name}.{part}" for part in run]
        yield from [row[0], "…", row[-1]] if stem.endswith(".") and len(row) > FEW_PARTS else row


def _in_our_words(part: str) -> str:
    for other, ours in OTHERS.items():
        part = part.replace(other, ours)
    return part


def nearest(name: str, known: Iterable[str]) -> list[str]:
    """Return the names that one is most likely misspelt for, several where they are as near."""
    alike = {each: SequenceMatcher(None, name, each).ratio() for each in known}
    most = max(alike.values(), default=0.0)
    return [each for each, share in alike.items() if share >= max(NEARLY, most - AS_NEAR)]


def _wanted(type: str) -> str:
    return SLOTS[type].each or SLOTS[type].expectation


def _meeting(
    text: str, spot: Shape | Loop | Family, owner: Shape | Loop | Family
) -> tuple[Piece, Piece]:
    """Return the two pieces of a run that meet in a corner of it."""
    pieces = owner.pieces if isinstance(owner, Loop) else ()
    after = (*pieces[1:], *pieces[:1]) if isinstance(owner, Loop) and owner.closed else pieces[1:]
    for first, second in zip(pieces, after, strict=False):
        if isinstance(spot, Point) and abs(first.exit - spot) <= assembled(abs(spot)):
            return first, second
    raise ClauseError(f"{text} is no corner of a box, run or outline: say between what it lies")


def fits(shape: Shape | Loop | Family, type: str) -> bool:
    """Tell whether a thing may stand in a slot of a type; a family may wherever all its members
    may."""
    members = shape.members if isinstance(shape, Family) else (shape,)
    return all(isinstance(member, _TYPES[type]) for member in members)


@dataclass(frozen=True)
class Figure:
    """All items made so far, in order, and the names whose statements failed."""

    items: Mapping[str, Item] = field(default_factory=dict)
    failed: Set[str] = frozenset()

    def refer(self, text: str, wanted: str) -> Ref:
        """Return what a reference means, checked against the type wanted.

        Parameters
        ----------
        text : str
            A name or dotted part: ``eyeA``, ``top.touch.eyeA``.
        wanted : str
            Type of the slot, one of those in `plan.slots` that take a reference.

        Raises
        ------
        ClauseError
            For a name that stands nowhere above, or means something of another type.
        """
        name, _, part = text.partition(".")
        item = self.items.get(name)
        if item is None:
            raise self._unknown(text, name, wanted)
        shape = item.part(part) if part else item.shape
        if shape is None:
            choices = ", ".join(_listed(name, list(item.named))) or "no named parts"
            close = get_close_matches(_in_our_words(part), list(item.named), 1, NEARLY)
            instead = (text, f"{name}.{close[0]}") if close else None
            raise ClauseError(f"{name} has no part {part}; it has {choices}", None, instead)
        whole = not part or (isinstance(item.shape, Family) and shape in item.shape.members)
        lined = item.lined if whole else None
        if isinstance(shape, Family) and all(
            isinstance(member, _TYPES[wanted]) for member in shape.members
        ):
            return Ref(text, shape, lined=lined)
        if not isinstance(shape, _TYPES[wanted]):
            found = _CALLED[type(shape)]
            fitting = [
                key for key, value in item.parts.items() if isinstance(value, _TYPES[wanted])
            ]
            instead = (text, f"{name}.{fitting[0]}") if fitting and not part else None
            raise ClauseError(f"{text} is {found}; {_wanted(wanted)} is wanted here", None, instead)
        if wanted == "corner":
            return Ref(text, shape, meeting=_meeting(text, shape, item.shape))
        return Ref(
            text,
            shape,
            (item.centre_name or f"{name}.centre") if not part else f"{text}.centre",
            lined,
        )

    def suits(self, text: str, wanted: str) -> bool | None:
        """Tell whether a name is of something of the type wanted; None where nothing has it.

        What has a mistake of its own may come to anything.
        """
        name, _, part = text.partition(".")
        if name in self.failed:
            return True
        item = self.items.get(name)
        shape = None if item is None else item.part(part) if part else item.shape
        if shape is None:
            return None
        shapes = shape.members if isinstance(shape, Family) else (shape,)
        return all(isinstance(each, _TYPES[wanted]) for each in shapes)

    def things(self) -> Iterator[tuple[str, Shape | Loop]]:
        """Return everything made by name, the members of families one by one."""
        for item in self.items.values():
            if isinstance(item.shape, Family):
                yield from (
                    (f"{item.name}.{label}", member) for label, member in item.shape.labelled
                )
            else:
                yield item.name, item.shape

    def _unknown(self, text: str, name: str, wanted: str) -> ClauseError:
        if name in self.failed:
            return Astray(name)
        if len(name) > 3 and name in OURS:
            return ClauseError(f"{name} is said {OURS[name]} here", None, (name, OURS[name]))
        part = text[len(name) :]
        close = [each for each in self.items if each.casefold() == name.casefold()]
        close += nearest(name, self.items)
        ways = [(text, f"{each}{part}") for each in dict.fromkeys(close)]
        words = f"nothing above is called {name}; {_wanted(wanted)} is wanted here"
        return Unknown(words, name, ways)
