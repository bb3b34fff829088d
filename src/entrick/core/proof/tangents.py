"""Does a tangent follow from the numbers, though no statement asks for it?"""

from __future__ import annotations

from collections.abc import Iterator, Mapping

from ..geometry import Junction, Point
from ..plan.terms import Name
from ..solve import Entry
from .finding import Checked, Finding

ASKING = frozenset({"arc", "fillet", "line", "smooth", "slot", "keyway", "inset"})
"""Kinds that make tangents on purpose."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report smooth joins of an outline that hold only because the givens happen to agree."""
    kinds = {entry.statement.name: entry for entry in checked.solution.entries}
    told: set[tuple[str, str]] = set()
    for _, line, loop in checked.runs:
        for junction in loop.junctions:
            pair = (_owner(junction.first), _owner(junction.second))
            if (
                not junction.is_tangent
                or pair[0] == pair[1]
                or pair in told
                or _asked(junction, kinds)
                or _is_touch(junction, kinds, checked.close)
            ):
                continue
            told |= {pair, pair[::-1]}
            message = (
                f"{junction.first} is tangent to {junction.second} because the givens "
                "agree, not because it was asked"
            )
            yield Finding(
                "note",
                "relation",
                f"{message}: a changed given may break it",
                line,
                checked.sheet.on_paper(junction.point),
            )


def _owner(name: str) -> str:
    return name.partition(".")[0]


def _asked(junction: Junction, kinds: Mapping[str, Entry]) -> bool:
    """Tell whether one of the two was constructed from the other, or is a copy of something that
    was."""
    first, second = _owner(junction.first), _owner(junction.second)
    return _made_with(first, second, kinds) or _made_with(second, first, kinds)


def _is_touch(junction: Junction, kinds: Mapping[str, Entry], close: float) -> bool:
    """Tell whether one of the two has its touch there: it was constructed to."""
    for owner in (_owner(junction.first), _owner(junction.second)):
        made = kinds[owner].made if owner in kinds else None
        for key, part in made.parts.items() if made else ():
            is_touch = key.startswith("touch.") or ".touch." in key
            if is_touch and isinstance(part, Point) and abs(part - junction.point) <= close:
                return True
    return False


def _made_with(one: str, other: str, kinds: Mapping[str, Entry]) -> bool:
    if one not in kinds:
        return False
    statement = kinds[one].statement
    if statement.kind in ("mirror", "turn", "shift"):
        return True
    named = {
        _owner(item.text)
        for clause in statement.clauses
        for item in clause.items
        if isinstance(item, Name)
    }
    return statement.kind in ASKING and other in named
