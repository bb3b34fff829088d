"""From the model back to text, in canonical spacing; comments survive."""

from __future__ import annotations

from collections.abc import Iterable

from .document import (
    Chain,
    Content,
    DrawingNumber,
    Given,
    Line,
    Plan,
    SheetLine,
    Statement,
    Title,
    Units,
    Unread,
)
from .terms import write


def write_plan(plan: Plan) -> str:
    """Return the text of a plan, ending in a line end.

    Examples
    --------
    >>> write_plan(Plan((Line(Title("Pawl")), Line(None, "# eyes first"))))
    'plan "Pawl"\\n# eyes first\\n'
    """
    return "".join(write_line(line) + "\n" for line in plan.lines)


def write_line(line: Line) -> str:
    """Return the text of one line: in canonical spacing, or as typed where that would be too
    long."""
    if line.typed:
        return line.typed
    text = write_content(line.content)
    return f"{text}  {line.comment}" if text and line.comment else text or line.comment


def write_content(content: Content) -> str:
    """Return the canonical text of a line's content."""
    match content:
        case None:
            return ""
        case Unread(text=text):
            return text
        case Title(text):
            return f'plan "{text}"'
        case DrawingNumber(text):
            return f"drawing {text}"
        case Units(text):
            return f"units {text}"
        case SheetLine(clauses):
            return "sheet " + ", ".join(map(str, clauses))
        case Given():
            return f"given {content.name} = {as_given(content)}" + _tail(
                content.assumed, content.note, " "
            )
        case Chain():
            links = " ".join("?" if link is None else write(link) for link in content.links)
            overall = f", overall {write(content.overall)}" if content.overall is not None else ""
            return f"chain {content.name} = {links}{overall}" + _tail(
                content.assumed, content.note, " "
            )
        case Statement():
            return f"{content.name} = " + write_clauses(
                [content.kind, *map(str, content.clauses)], content
            )


def as_given(given: Given) -> str:
    """Return the size as the brief says it, with count and mark: ``4× Ø9/16``."""
    count = f"{given.count}× " if given.count else ""
    return f"{count}{given.mark}{write(given.value)}"


def write_clauses(parts: Iterable[str], content: Statement) -> str:
    """Return a statement's right-hand side from its parts, with its mark and note."""
    return ", ".join(parts) + _tail(content.assumed, content.note, " ")


def _tail(assumed: bool, note: str, space: str) -> str:
    return (", assumed" if assumed else "") + (f'{space}"{note}"' if note else "")
