"""Was everything that is to be there so many times drawn so many times?"""

from __future__ import annotations

from collections.abc import Iterator

from ..geometry import Arc, Circle, Piece, Point
from ..measure import spell
from ..plan.document import Given
from ..plan.writer import as_given
from .finding import Checked, Finding


def inspect(checked: Checked) -> Iterator[Finding]:
    """Count the round pieces of the outline by size against givens with a count."""
    rounds = [
        (p, p.curve)
        for _, _, loop in checked.runs
        for p in loop.pieces
        if isinstance(p.curve, Arc | Circle)
    ]
    counted = [
        entry
        for entry in checked.solution.givens
        if isinstance(entry.given, Given) and entry.given.count
    ]
    if not rounds:
        return
    totals: dict[float, int] = {}
    alike: dict[float, set[str]] = {}
    sizes: dict[int, float] = {}
    for entry in counted:
        given = entry.given
        if not isinstance(given, Given) or entry.quantity is None or given.mark not in ("R", "Ø"):
            continue
        radius = float(entry.quantity.value) / (2 if given.mark == "Ø" else 1)
        radius = next((known for known in totals if abs(known - radius) <= checked.close), radius)
        totals[radius] = totals.get(radius, 0) + given.count
        alike.setdefault(radius, set()).add(given.name)
        sizes[entry.line] = radius
    for entry in counted:
        given = entry.given
        if entry.line not in sizes or not isinstance(given, Given):
            continue
        radius = sizes[entry.line]
        features = [
            curve.centre
            for piece, curve in rounds
            if abs(curve.radius - radius) <= checked.close
            and _is_meant(piece, given.mark, alike[radius], checked)
        ]
        found = len(_apart(features, checked.close))
        wanted, said = totals[radius], as_given(given)
        size = spell(radius * 2 if given.mark == "Ø" else radius, checked.solution.unit)
        if found == wanted:
            yield Finding(
                "good", "count", f"{given.name}, {said}: all are in the outline", entry.line
            )
        else:
            both = f" with all of that size ({wanted})" if wanted != given.count else ""
            message = (
                f"{given.name} is given {said}{both}, and {found} of {given.mark}{size} are "
                "lined in"
            )
            yield Finding("look", "count", message, entry.line)


def _is_meant(piece: Piece, mark: str, names: set[str], checked: Checked) -> bool:
    """Tell whether a round piece is what givens count: made with one of them, or else whole for a
    diameter, part of a round for a radius.

    A rounded corner is no hole, though it may have its radius.
    """
    if not names.isdisjoint(checked.standing_on.get(piece.name.partition(".")[0], ())):
        return True
    return isinstance(piece.curve, Circle if mark == "Ø" else Arc)


def _apart(centres: list[Point], close: float) -> list[Point]:
    """Return the distinct places among centres."""
    points: list[Point] = []
    for centre in centres:
        if all(abs(centre - other) > close for other in points):
            points.append(centre)
    return points
