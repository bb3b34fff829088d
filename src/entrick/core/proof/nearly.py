"""Do two curves nearly touch, or nearly meet, that were probably meant to?"""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator, Mapping, Sequence
from itertools import combinations
from typing import TypeGuard

from ..acts.shapes import MOST_STROKES
from ..geometry import Arc, Circle, Curve, Line, Point, meet, support
from ..geometry.loop import nearest_place
from ..geometry.nearest import ends_of
from ..geometry.shapes import is_drawn_at
from ..measure import Unit, spell
from ..plan.document import Plan, Statement
from ..plan.reader import read_line
from ..plan.terms import Name
from ..solve import Entry, solve
from ..solve.named import drawn_curves
from ..solve.remembered import owners
from ..tolerance import NEAR_MISS, surely_two
from .finding import Checked, Finding, Mend

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
    touching = {
        (first, second): touch
        for (first, a), (second, b) in combinations(curves, 2)
        if (touch := _nearly_touching(a, b)) is not None
    }
    mends = dict(_as_touching(checked, dict(curves), touching))
    for (first, a), (second, b) in combinations(curves, 2):
        line = lines.get(second.partition(".")[0], 0)
        touch = touching.get((first, second))
        if touch is not None:
            by, place = touch
            message = f"{first} and {second} {_misses(by)} by {spell(abs(by), unit)} {unit}: "
            message += exactly(a, b, first, second, unit)
            straight = first if isinstance(a, Line) else second
            at = checked.sheet.on_paper(place)
            yield Finding("look", "nearly", message, line, at, mends.get(straight))
            continue
        # A construction line is as long as the construction needed it; only what is lined in, or
        # should have been, was meant to meet.
        if not {first.partition(".")[0], second.partition(".")[0]} <= walked:
            continue
        for name, end, other, target in ((first, a, second, b), (second, b, first, a)):
            for spot in ends_of(end) if isinstance(end, Arc) else ():
                if _is_touch(spot, name, checked):
                    continue
                miss = abs(nearest_place(target, spot) - spot)
                if surely_two(abs(spot)) < miss < _little(end, target) and not _goes_through(
                    end, target, spot, miss
                ):
                    message = (
                        f"{name} ends {spell(miss, unit)} {unit} short of {other}: was it "
                        "meant to meet it?"
                    )
                    yield Finding("look", "nearly", message, line, checked.sheet.on_paper(spot))


def _as_touching(
    checked: Checked,
    curves: Mapping[str, Curve],
    touching: Mapping[tuple[str, str], tuple[float, Point]],
) -> Iterator[tuple[str, Mend]]:
    """Yield for every line that nearly touches what would make it touch: the statement that says
    so, where that gives nearly the same line."""
    rounds: dict[str, list[str]] = {}
    for pair in touching:
        straight = [name for name in pair if isinstance(curves[name], Line)]
        if len(straight) == 1:
            other = pair[0] if pair[1] == straight[0] else pair[1]
            rounds.setdefault(straight[0], []).append(other)
    for name, others in rounds.items():
        entry = next((e for e in checked.solution.entries if e.statement.name == name), None)
        line = curves[name]
        if entry is None or entry.statement.kind != "line" or not isinstance(line, Line):
            continue
        for text in _tangents(entry.statement, line, others, curves):
            made = _made_of(checked, entry, text)
            if isinstance(made, Line) and _is_nearly(made, line):
                yield name, Mend("line", entry.line, text, "Make it touch")
                break


def _tangents(
    said: Statement, line: Line, others: Sequence[str], curves: Mapping[str, Curve]
) -> Iterator[str]:
    """Yield statements of a tangent near to a line: of two circles, or from an end to one."""
    sides = ("above", "below", "left", "right")
    if len(others) > 1:
        one, other = (curves[each] for each in others[:2])
        assert isinstance(one, Circle | Arc)
        assert isinstance(other, Circle | Arc)
        same = line.offset_of(one.centre) * line.offset_of(other.centre) > 0
        pair = "outer" if same else "crossed"
        touches = f"touching {others[0]}, touching {others[1]}, {pair}"
        yield from (f"{said.name} = line, {touches}, {side}" for side in sides)
    points = [item.text for clause in said.clauses for item in clause.items if _is_name(item)]
    for point in points:
        yield from (
            f"{said.name} = line, from {point}, touching {others[0]}, {side}" for side in sides
        )


def _is_name(item: object) -> TypeGuard[Name]:
    return isinstance(item, Name) and item.text not in ("from", "to", "through", "and")


def _made_of(checked: Checked, entry: Entry, text: str) -> object:
    """Return what a statement would make in the place of another; None where it does not solve."""
    lines = list(checked.solution.plan.lines)
    lines[entry.line - 1] = read_line(text)
    made = solve(Plan(tuple(lines[: entry.line]))).entry(entry.line)
    return made.made.shape if made is not None and made.made is not None else None


def _is_nearly(found: Line, line: Line) -> bool:
    """Tell whether a line lies where another one does, but for very little."""
    if line.start is None or line.end is None:
        return abs(found.direction.cross(line.direction)) < NEAR_MISS
    ends = (line.at(line.start), line.at(line.end))
    return all(abs(found.offset_of(end)) < NEAR_MISS * (line.end - line.start) for end in ends)


def _is_touch(spot: Point, name: str, checked: Checked) -> bool:
    """Tell whether a curve ends where it touches something: it was constructed to end there."""
    item = checked.solution.figure.items.get(name.partition(".")[0])
    return item is not None and any(
        "touch." in key and isinstance(part, Point) and abs(part - spot) <= checked.close
        for key, part in item.parts.items()
    )


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
