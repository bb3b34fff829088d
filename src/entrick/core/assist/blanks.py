"""Blanks: a kind's usual clauses stand ready with one for every value; what is picked goes to the
one it fits."""

from __future__ import annotations

import re
from collections.abc import Iterator

from ..geometry import Loop, Shape
from ..kind import Kind
from ..kind.figure import Family, Figure, fits
from ..memo import remembered
from ..moves import kinds
from ..plan.document import Statement
from ..plan.forms import Form, Match, Slot, Word, match_clause
from ..plan.reader import read_line
from ..plan.slots import REFERENCES
from ..plan.terms import write
from ..solve.values import spoken

BLANK = "…"
"""Stands where a value has still to be written."""


@remembered()
def usual_clauses(kind: Kind) -> str:
    """Return the clauses of a kind's example with a blank for every value, ``centre …, diameter
    …``.

    Clauses that only choose among solutions are left out: which are there shows when the rest is
    said. A kind that is said by clicking pieces has nothing to fill in."""
    said = read_line(kind.example).content
    if kind.by_clicking or not isinstance(said, Statement):
        return ""
    clauses = []
    for clause in spoken(said):
        found = match_clause(clause, kind.forms)
        if found is None or found.form.choice:
            continue
        clauses.append(" ".join(_blanked(found)))
    return ", ".join(clauses)


def _blanked(match: Match) -> Iterator[str]:
    parts = match.form.parts
    for part in parts:
        if isinstance(part, Word):
            yield part.text
        elif part.choices and part is parts[-1]:
            yield str(write(match.slots[part.name][0]))
        else:
            yield f'"{BLANK}"' if part.type == "text" else BLANK


def filled(figure: Figure, row: str, name: str, near: int) -> str | None:
    """Return a row with a picked reference in the first blank it fits, from a place in the row
    onwards; None where it fits none.

    A circle may also stand for its centre where a point is wanted.
    """
    for at, type in sorted(_blanks(row), key=lambda place: (place[0] < near, place[0])):
        for each in (name, f"{name}.centre"):
            shape = _shape(figure, each)
            if shape is not None and type in REFERENCES and fits(shape, type):
                return row[:at] + each + row[at + len(BLANK) :]
    return None


def wanted_at(row: str, at: int) -> str:
    """Return the type of the blank that stands at a place of a row; empty where none does."""
    return dict(_blanks(row)).get(at, "")


def _shape(figure: Figure, name: str) -> Shape | Loop | Family | None:
    owner, _, part = name.partition(".")
    item = figure.items.get(owner)
    if item is None:
        return None
    return item.part(part) if part else item.shape


def _blanks(row: str) -> Iterator[tuple[int, str]]:
    """Yield where the blanks of a row stand, each with the type of value that is wanted there."""
    rest = row.partition("=")[2]
    name, _, clauses = rest.partition(",")
    kind = kinds().get(name.strip())
    if kind is None:
        return
    start = len(row) - len(clauses)
    for clause in clauses.split(","):
        types = _types(kind, clause.strip())
        for index, found in enumerate(re.finditer(BLANK, clause)):
            if index < len(types):
                yield start + found.start(), types[index]
        start += len(clause) + 1


def _types(kind: Kind, clause: str) -> list[str]:
    """Return the types of the blanks of a clause, by the form that knows most of them."""
    return max((_types_by(form, clause) for form in kind.forms), key=len, default=[])


def _types_by(form: Form, clause: str) -> list[str]:
    pattern, slots = "", list[Slot]()
    for part in form.parts:
        if isinstance(part, Word):
            pattern += (
                rf"(?:{re.escape(part.text)}\s+)?"
                if part.optional
                else rf"{re.escape(part.text)}\s+"
            )
        else:
            pattern += r"(\S.*?)\s+"
            slots.append(part)
    found = re.fullmatch(pattern, f"{clause} ")
    if not found or any(
        s.choices and found[i] not in (*s.choices, BLANK) for i, s in enumerate(slots, 1)
    ):
        return []
    return [slot.type for i, slot in enumerate(slots, 1) if found[i] == BLANK]
