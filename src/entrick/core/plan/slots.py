"""The types of place a clause has for a value: what each is called, what may stand there, how much
of a clause it takes."""

from __future__ import annotations

from collections.abc import Sequence, Set
from dataclasses import dataclass
from typing import Literal

from .terms import Arrow, Binary, Bracket, Call, Name, Negative, Num, Ratio, Term, Text


@dataclass(frozen=True, slots=True)
class SlotType:
    """A type of slot.

    Attributes
    ----------
    name : str
    expectation : str
        What is wanted there, in the trade's words.
    takes : str
        "number", "reference" (to something drawn) or "words".
    shapes : tuple of str
        What a reference may refer to: "point", "line", "circle", "arc", "outline".
    each : str
        What is wanted of one reference where there are several; as `expectation` where empty.
    """

    name: str
    expectation: str
    takes: Literal["number", "reference", "words"]
    shapes: tuple[str, ...] = ()
    each: str = ""


ANYTHING = ("point", "line", "circle", "arc", "outline")

SLOTS = {
    slot.name: slot
    for slot in (
        SlotType("length", "a length", "number"),
        SlotType("radius", "a radius", "number"),
        SlotType("diameter", "a diameter", "number"),
        SlotType("angle", "an angle", "number"),
        SlotType("count", "a whole number", "number"),
        SlotType("pitch", "a number to the inch", "number"),
        SlotType("lengths", "lengths one after another", "number"),
        SlotType("point", "a point", "reference", ("point",)),
        SlotType("corner", "a corner of a box, run or outline", "reference", ("point",)),
        SlotType("line", "a line", "reference", ("line",)),
        SlotType("circle", "a circle or arc", "reference", ("circle", "arc")),
        SlotType("curve", "a line, circle or arc", "reference", ("line", "circle", "arc")),
        SlotType("shape", "anything drawn", "reference", ANYTHING),
        SlotType("run", "an outline or a run of pieces", "reference", ("outline",)),
        SlotType("several", "several things by name", "reference", ANYTHING, "anything drawn"),
        SlotType(
            "walk",
            "pieces with > between them",
            "reference",
            ("line", "circle", "arc", "outline"),
            "a line, circle, arc or run of pieces",
        ),
        SlotType("text", "text in quotes", "words"),
        SlotType("ratio", "a ratio such as 1:2", "words"),
        SlotType("word", "a word", "words"),
    )
}
"""Every type by its name; any other type is a choice of words, written with / between them."""

REFERENCES = frozenset(slot.name for slot in SLOTS.values() if slot.takes == "reference")
NUMBERS = frozenset(slot.name for slot in SLOTS.values() if slot.takes == "number")


def lengths(type: str, items: tuple[Term, ...], givens: Set[str] = frozenset()) -> Sequence[int]:
    """Return how many of the terms that follow a slot can take, the most likely first; none where
    nothing fits.

    What is known to be the name of a given is no reference.
    """
    if not items:
        return ()
    first = items[0]
    if type in REFERENCES and isinstance(first, Name) and first.text in givens:
        return ()
    match type:
        case "walk":
            return (len(items),)
        case "ratio":
            return (1,) if isinstance(first, Ratio) else ()
        case "line" if first == Name("line") and len(items) >= 3:
            return (3,)
        case "several":
            return range(_leading(items, (Name,)), 0, -1)
        case "lengths":
            return range(_leading(items, (Num, Name, Negative, Bracket, Call, Binary)), 0, -1)
        case "text":
            return (1,) if isinstance(first, Text) else ()
    if type in REFERENCES or type == "word":
        return (1,) if isinstance(first, Name) else ()
    if type in NUMBERS:
        return () if isinstance(first, (Arrow, Ratio, Text)) else (1,)
    return (1,) if isinstance(first, Name) and first.text in type.split("/") else ()


def _leading(items: tuple[Term, ...], kinds: tuple[type, ...]) -> int:
    """Count the terms of certain kinds that stand first."""
    return next(
        (index for index, item in enumerate(items) if not isinstance(item, kinds)), len(items)
    )


LISTS = frozenset({"several", "walk", "lengths"})
"""Types of slot that take any number of words."""
