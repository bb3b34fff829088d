"""A plan of the other hand: the same part mirrored, said by the opposite words."""

from __future__ import annotations

import re
from dataclasses import replace

from ..geometry import Arc, Circle, Point
from ..memo import remembered
from ..plan.document import Plan, Statement
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..plan.terms import Name, Term
from ..plan.writer import write_plan
from ..solve import Solution, solve
from ..tolerance import worked

LEVEL = (("left", "right"),)
PLUMB = (("above", "below"), ("up", "down"), ("top", "bottom"), ("upper", "lower"))
"""Words that change places in a mirror: about the plumb through the datum, and about the level."""


@remembered()
def hands(text: str) -> tuple[str, ...]:
    """Return a plan and those of its other hands that its words can say: mirrored left to right, up
    to down, both.

    Parameters
    ----------
    text : str
        A plan without mistakes.
    """
    own = solve(read_plan(text))
    result = [text]
    for across, up in ((-1, 1), (1, -1), (-1, -1)):
        words = {*(LEVEL if across < 0 else ()), *(PLUMB if up < 0 else ())}
        try:
            plan = _said_otherwise(own.plan, dict([*words, *((b, a) for a, b in words)]))
            other = solve(read_plan(write_plan(plan)))
        except (ClauseError, ValueError):
            continue
        if not other.errors and _is_mirrored(own, other, across, up):
            result.append(write_plan(plan))
    return tuple(result)


def _said_otherwise(plan: Plan, opposite: dict[str, str]) -> Plan:
    """Return a plan with words changed for their opposites in its statements."""

    def other(item: Term) -> Term:
        if not isinstance(item, Name):
            return item
        return Name(re.sub(r"[a-z]+", lambda word: opposite.get(word[0], word[0]), item.text))

    lines = []
    for line in plan.lines:
        content = line.content
        if isinstance(content, Statement):
            clauses = tuple(
                each._replace(items=tuple(map(other, each.items))) for each in content.clauses
            )
            content = replace(content, clauses=clauses)
        lines.append(replace(line, content=content))
    return Plan(tuple(lines))


def _is_mirrored(own: Solution, other: Solution, across: int, up: int) -> bool:
    """Tell whether a figure is another one mirrored: every point, circle and arc of it, whatever it
    is called."""
    one, two = _places(own, across, up), _places(other, 1, 1)
    return len(one) == len(two) and all(
        abs(a - b) <= worked(abs(a) + 1)
        for row, mate in zip(one, two, strict=True)
        for a, b in zip(row, mate, strict=True)
    )


def _places(solution: Solution, across: int, up: int) -> list[tuple[float, float, float]]:
    result = set()
    for _, shape in solution.figure.things():
        if isinstance(shape, Point):
            spot, radius = shape, 0.0
        elif isinstance(shape, Circle | Arc):
            spot, radius = shape.centre, shape.radius
        else:
            continue
        # Rounded, so that those of one place are sorted alike.
        result.add((round(across * spot.x, 6) + 0.0, round(up * spot.y, 6) + 0.0, round(radius, 6)))
    return sorted(result)


def hand_of(text: str, plan: Plan) -> int:
    """Return which of the hands of a plan another one is, that has other sizes."""
    said = _without_sizes(write_plan(plan))
    return next((n for n, each in enumerate(hands(text)) if _without_sizes(each) == said), 0)


def _without_sizes(text: str) -> str:
    return re.sub(r"[\d./\s]+", "", text)
