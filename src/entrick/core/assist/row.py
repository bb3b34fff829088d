"""A row being written: how one of a kind begins, what a pick on the sheet adds to it, what it still
lacks."""

from __future__ import annotations

import re
from collections.abc import Iterator
from itertools import islice

from ..kind import Kind
from ..moves import kinds
from ..plan.document import Content, Plan, Statement, Unread
from ..plan.writer import write_content
from ..solve import Solution
from .blanks import filled, usual_clauses

LETTERS = "OABCDEFGHJKLMNPQSTUVWXYZ"
"""Names of points, in the order they are given."""

OUTLINES = ("rim", "bore")
"""Names of the first outlines; those after them are numbered."""

FIRST = (
    "O = datum, middle of sheet",
    "A = point, 40 left of O",
    "eye = circle, centre A, diameter 60",
)
"""How work usually starts."""


def free_name(solution: Solution, kind: Kind) -> str:
    """Return a name nothing has yet: letters for points, usual names for outlines, the kind's own
    with a number."""
    taken = solution.taken
    usual = LETTERS if kind.group == "Points" else OUTLINES if kind.lines_in else ()
    free = next((name for name in usual if name not in taken), None)
    return free or solution.free_name(
        "outline" if kind.lines_in else kind.name.split()[0], first="1"
    )


def begin(solution: Solution, kind: str) -> str:
    """Return the row with which a statement of a kind begins, its usual clauses ready with blanks
    to fill in; empty for a kind there is none of."""
    known = kinds().get(kind)
    return f"{free_name(solution, known)} = {known.name}, {usual_clauses(known)}" if known else ""


def picked(solution: Solution, row: str, name: str, near: int = 0) -> str:
    """Return a row with what was picked on the sheet: in the blank it fits, from a place in the row
    onwards, or at its end; in a walk, as the next piece of it."""
    text = filled(solution.figure, row, name, near)
    if text is not None:
        return text
    before = row.rstrip()
    head, _, rest = before.partition("=")
    kind, comma, walk = rest.partition(",")
    if head and comma and (known := kinds().get(kind.strip())) and known.by_clicking:
        said = walk.rpartition(",")[2].strip()
        return f"{before} > {name}" if said and not said.endswith(">") else f"{before} {name}"
    return f"{before} {name}".lstrip()


def doubt(row: str) -> str:
    """Return in words why a row is no statement yet, whatever follows; empty where it may become
    one."""
    if (
        not row.strip()
        or "=" in row
        or re.match(r"\s*(given|chain|plan|drawing|units|sheet|#)", row)
    ):
        return ""
    return "a statement starts with a name and =, such as  A = point, 20 right of O"


def usually_next(plan: Plan) -> str:
    """Return the statement that usually comes next in a plan just begun as work usually begins;
    empty after that."""
    stated = [write_content(said) for said in islice(_stated(plan), len(FIRST))]
    if len(stated) == len(FIRST) or any(
        row != first for row, first in zip(stated, FIRST, strict=False)
    ):
        return ""
    return FIRST[len(stated)]


def _stated(plan: Plan) -> Iterator[Content]:
    """Return the statements of a plan, those that cannot be read too."""
    return (line.content for line in plan.lines if isinstance(line.content, Statement | Unread))
