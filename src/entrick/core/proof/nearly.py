"""Do two curves nearly touch, or nearly meet, that were probably meant to?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from itertools import combinations

from ..acts.shapes import MOST_STROKES
from ..geometry import Arc, Circle, Curve, Line, Point, meet, support
from ..geometry.loop import nearest_place
from ..geometry.nearest import ends_of
from ..geometry.shapes import is_drawn_at
from ..measure import Unit, spell
from ..solve.named import drawn_curves
from ..solve.remembered import owners
from ..tolerance import NEAR_MISS, surely_two
from .finding import Checked, Finding

MOST_CURVES = 120
"""Curves beyond which every pair is no longer compared."""


def inspect(checked: Checked) -> Iterator[Finding]:
    """Report curves of the construction that miss touching, and ends that miss another curve, by
    very little."""
    # The pieces of a ready shape stop where its kind says; only what was drawn for itself can have
    # missed.
    drawn = list(drawn_curves(checked.solution))
    of_one = Counter(name.rpartition(".")[0] for name, _ in drawn)
    curves = [
        (name, curve)
        for name, curve in drawn
        if all(map(str.isdigit, name.split(".")[1:]))
        and of_one[name.rpartition(".")[0] or name] <= MOST_STROKES
    ]
    curves = curves[:MOST_CURVES]
    lines = {entry.statement.name: entry.line for entry in checked.solution.entries}
    walked = {name for entry in checked.lining_in for name in owners(entry.statement)}
    unit = checked.solution.unit
    for (first, a), (second, b) in combinations(curves, 2):
        line = lines.get(second.partition(".")[0], 0)
        touch = _nearly_touching(a, b)
        if touch is not None:
            by, place = touch
            told = f"{first} and {second} {_misses(by)} by {spell(abs(by), unit)} {unit}: "
            told += exactly(a, b, first, second, unit)
            yield Finding("look", "nearly", told, line, checked.sheet.on_paper(place))
            continue
        # A construction line is as long as the construction needed it; only what is lined in, or
        # should have been, was meant to meet.
        if not {first.partition(".")[0], second.partition(".")[0]} <= walked:
            continue
        for name, end, other, target in ((first, a, second, b), (second, b, first, a)):
            for spot in ends_of(end) if isinstance(end, Arc) else ():
                miss = abs(nearest_place(target, spot) - spot)
                if surely_two(abs(spot)) < miss < _little(end, target) and not _goes_through(
                    end, target, spot, miss
                ):
                    told = (
                        f"{name} ends {spell(miss, unit)} {unit} short of {other}: was it "
                        "meant to meet it?"
                    )
                    yield Finding("look", "nearly", told, line, checked.sheet.on_paper(spot))


def _little(first: Curve, second: Curve) -> float:
    sizes = [c.radius for c in (first, second) if isinstance(c, Circle | Arc)]
    sizes += [
        c.end - c.start
        for c in (first, second)
        if isinstance(c, Line) and c.start is not None and c.end
    ]
    return min(sizes, default=0.0) * NEAR_MISS


def _goes_through(end: Curve, target: Curve, spot: Point, miss: float) -> bool:
    """Tell whether a curve crosses the other near its end: then it runs past, which construction
    may."""
    return any(
        abs(m.point - spot) < miss * 20
        and is_drawn_at(end, m.point)
        and is_drawn_at(target, m.point)
        for m in meet(end, target)
    )


def _nearly_touching(first: Curve, second: Curve) -> tuple[float, Point] | None:
    """Return by how much two curves miss touching (below nought where they cross) and where."""
    one, other = support(first), support(second)
    match one, other:
        case (Line() as line, Circle() as circle) | (Circle() as circle, Line() as line):
            foot = line.foot(circle.centre)
            by, size = abs(foot - circle.centre) - circle.radius, circle.radius
            ahead = foot - circle.centre
            place = circle.centre + ahead.unit * circle.radius if abs(ahead) else foot
        case Circle() as a, Circle() as b:
            apart, size = abs(b.centre - a.centre), min(a.radius, b.radius)
            if apart < size * 10 * NEAR_MISS:
                return None
            axis = (b.centre - a.centre).unit
            outside, inside = apart - a.radius - b.radius, abs(a.radius - b.radius) - apart
            by = min(outside, inside, key=abs)
            way = axis if by == outside or a.radius >= b.radius else -axis
            place = a.centre + way * a.radius
        case _:
            return None
    if not surely_two(size) < abs(by) < size * NEAR_MISS:
        return None
    near = all(abs(nearest_place(curve, place) - place) <= abs(by) * 2 for curve in (first, second))
    return (by, place) if near else None


def _misses(by: float) -> str:
    return "miss touching" if by > 0 else "cross instead of touching,"


def exactly(first: Curve, second: Curve, name: str, other: str, unit: Unit) -> str:
    """Return what exact tangency would need, in numbers."""
    match support(first), support(second):
        case Line() as line, Circle() as circle:
            needed = abs(line.offset_of(circle.centre))
            return (
                f"exact tangency wants {other} at R{spell(needed, unit)}, or a tangent line "
                "drawn as touching it"
            )
        case Circle(), Line():
            return exactly(second, first, other, name, unit)
        case Circle() as a, Circle() as b:
            apart = abs(b.centre - a.centre)
            choices = (apart - a.radius, a.radius - apart, a.radius + apart)
            needed = min((r for r in choices if r > 0), key=lambda r: abs(r - b.radius))
            return f"exact tangency wants {other} at R{spell(needed, unit)}"
    return "they would have to be one line"
