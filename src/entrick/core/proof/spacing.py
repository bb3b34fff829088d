"""Do equal holes stand evenly on a circle, though nobody spaced them so?"""

from __future__ import annotations

import math
from collections.abc import Iterator

from ..geometry import Circle, Line, Point, meet
from ..measure import spell, spell_angle
from .finding import Checked, Finding

FEWEST = 3
"""Holes that make a row or a circle of them."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report holes of one size that stand evenly on a circle: offered as a relation, never
    forced."""
    said = {
        entry.line
        for entry in checked.solution.entries
        if entry.statement.kind in ("spaced", "turn")
    }
    groups: dict[float, list[tuple[Point, int]]] = {}
    for _, line, loop in checked.runs:
        curve = loop.pieces[0].curve
        if len(loop.pieces) == 1 and isinstance(curve, Circle):
            groups.setdefault(round(curve.radius, 6), []).append((curve.centre, line))
    if said:
        return
    for radius, holes in groups.items():
        centres = list(dict.fromkeys(centre for centre, _ in holes))
        if len(centres) < FEWEST:
            continue
        pitch = _pitch(centres, checked.close)
        if pitch is not None:
            unit, count = checked.solution.unit, len(centres)
            message = (
                f"{count} holes of R{spell(radius, unit)} stand evenly on "
                f"Ø{spell(pitch * 2, unit)}, "
            )
            message += (
                f"360 ÷ {count} = {spell_angle(360 / count)}: spaced, {count} on a circle "
                "would say so"
            )
            yield Finding("note", "relation", message, holes[0][1])


def _pitch(centres: list[Point], close: float) -> float | None:
    """Return the radius of the circle on which centres stand evenly, if they do."""
    a, b, c = centres[:3]
    axes = [Line((p + q) * 0.5, (q - p).unit.normal) for p, q in ((a, b), (b, c))]
    found = meet(*axes)
    if not found:
        return None
    middle = found[0].point
    radius = abs(a - middle)
    if any(abs(abs(spot - middle) - radius) > close for spot in centres):
        return None
    turns = sorted((spot - middle).angle % math.tau for spot in centres)
    steps = [(y - x) % math.tau for x, y in zip(turns, [*turns[1:], turns[0]], strict=True)]
    even = math.tau / len(centres)
    return radius if all(abs(step - even) * radius <= close for step in steps) else None
