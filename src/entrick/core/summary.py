"""What the register lists of a plan: its heading, how far it is, its outline as a small picture."""

from __future__ import annotations

import hashlib
from dataclasses import dataclass, replace
from functools import cache
from pathlib import Path

from .measure import Unit
from .plan.document import DrawingNumber, Title, Units
from .plan.reader import read_line


@dataclass(frozen=True, slots=True)
class Summary:
    """A plan as the register lists it.

    Attributes
    ----------
    title, drawing, unit, scale : str
    mistakes : int
        Statements and givens that cannot be worked out.
    outlines : int
        Outlines lined in.
    trouble : str
        The first mistake with its line, or why the plan was not worked out at all; empty where
        nothing is wrong.
    thumbnail : str
        The outline as SVG; empty where there is nothing to show.
    """

    title: str = ""
    drawing: str = ""
    unit: str = ""
    scale: str = ""
    mistakes: int = 0
    outlines: int = 0
    trouble: str = ""
    thumbnail: str = ""


def heading(text: str) -> Summary:
    """Return what can be told of a plan without working it out: its title, drawing number and
    units."""
    title = drawing = unit = ""
    for row in text.split("\n")[:HEAD]:
        match (
            read_line(row).content
            if row.lstrip().startswith(("plan", "drawing", "units"))
            else None
        ):
            case Title(said):
                title = title or said
            case DrawingNumber(said):
                drawing = drawing or said
            case Units(said) if said in list(Unit):
                unit = unit or said
    return Summary(title, drawing, unit)


def unsummarized(text: str, reason: str) -> Summary:
    """Return what the register lists of a plan that asks for too much: its heading, and why there
    is no more."""
    return replace(heading(text), mistakes=1, trouble=reason)


HEAD = 40
"""Lines among which the heading of a plan is looked for when it is not read whole."""


@cache
def version() -> str:
    """Return what tells one version of the core from another: a digest of its sources."""
    folder = Path(__file__).parent
    digest = hashlib.sha256()
    for file in sorted(folder.rglob("*.py")) + sorted(folder.rglob("*.lark")):
        digest.update(file.read_bytes())
    return digest.hexdigest()[:16]
