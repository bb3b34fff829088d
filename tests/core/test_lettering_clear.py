"""No figure stands on a stroke or on another figure: boxes of letters against strokes, by shapely."""

import cmath
import math
import random
from collections.abc import Iterator

import pytest
import shapely
from hypothesis import given
from hypothesis import strategies as st

import parts
from desk import HEAD, outline
from entrick.core.desk import Work, work_out
from entrick.core.dimensioning.suggest import suggest_dimensions
from entrick.core.drawing.marks import (
    Arrowhead,
    DrawnArc,
    DrawnCircle,
    DrawnLine,
    Lettering,
    Mark,
    reach,
    wide,
)
from entrick.core.geometry import Circle, Point
from entrick.demo import sample_plans

BARELY = 0.25
"""By how much letters are smaller than their boxes, mm (by eye)."""


def stroke(mark: Mark) -> shapely.Geometry | None:
    match mark:
        case DrawnLine(x1, y1, x2, y2, role) if role in ("centre", "dimension", "outline"):
            return shapely.LineString([(x1, y1), (x2, y2)])
        case DrawnCircle(cx, cy, r, role) if role in ("centre", "outline"):
            return shapely.Point(cx, cy).buffer(r, 64).exterior
        case DrawnArc(cx, cy, r, start, sweep, role) if role in ("centre", "dimension"):
            turns = [math.radians(start + sweep * share / 48) for share in range(49)]
            return shapely.LineString([(cx + r * math.cos(t), cy + r * math.sin(t)) for t in turns])
        case Arrowhead():
            return shapely.Polygon(mark.corners).exterior
    return None


def strokes(done: Work) -> Iterator[shapely.Geometry]:
    yield from filter(None, map(stroke, done.display.marks))
    at, factor = done.sheet.origin, done.sheet.factor
    for _, _, run in done.checked.runs:
        if run.closed:
            edge = outline(run, per_turn=720).exterior
            yield shapely.transform(edge, lambda xy: xy * factor + [at.x, at.y])


def struck(done: Work) -> list[str]:
    """Return the figures that a stroke or another figure touches."""
    letters = [
        mark
        for mark in done.display.marks
        if isinstance(mark, Lettering) and mark.role in ("dimension", "label") and mark.text.strip()
    ]
    boxes = [shapely.MultiPoint(reach(mark)).convex_hull.buffer(-BARELY) for mark in letters]
    tree = shapely.STRtree([*strokes(done), *boxes])
    return [
        mark.text
        for mark, box in zip(letters, boxes, strict=True)
        if len(tree.query(box, predicate="intersects")) > 1
    ]


@pytest.mark.parametrize("text", sample_plans().values(), ids=sample_plans().keys())
def test_no_figure_of_a_sample_is_struck(text: str) -> None:
    assert struck(work_out(text)) == []


def dimensioned(seed: int) -> str:
    """Return a part with what is suggested, and with as many more as a busy drafter would put on."""
    r, text = random.Random(seed), HEAD + parts.part(seed)[0]
    done = work_out(text)
    rows = list(suggest_dimensions(done.solution).statements)
    names = [item.name for item in done.solution.figure.items.values()]
    places = [f"{name}.{side}" for name in names for side in ("left", "top", "centre", "corner.2")]
    ways = (", level, above", ", level, below", ", plumb, left", ", plumb, right", "")
    for index in range(r.randrange(4, 10)):
        one, other = r.sample(places, 2)
        rows.append(f"e{index} = dimension, from {one} to {other}{r.choice(ways)}")
    rounds = [
        e.statement.name for e in done.solution.entries if e.statement.kind in ("circle", "arc")
    ]
    rows += [
        f"f{i} = dimension, {r.choice(['radius', 'diameter'])} {n}"
        for i, n in enumerate(rounds[:6])
    ]
    rows += [f"cl = centre lines, of {' '.join(rounds[:6])}"] if rounds else []
    return text + "\n".join(rows) + "\n"


@given(st.integers(0, 400))
def test_no_figure_of_a_crowded_sheet_is_struck(seed: int) -> None:
    assert struck(work_out(dimensioned(seed))) == []


def leaders(done: Work) -> Iterator[tuple[DrawnLine, str]]:
    """Return the leader of each radius and diameter, from the round out, with its figure."""
    marks = done.display.marks
    for one, bend, arrow, text in zip(marks, marks[1:], marks[2:], marks[3:], strict=False):
        if isinstance(one, DrawnLine) and isinstance(bend, DrawnLine) and one.role == "dimension":
            joined = (one.x2, one.y2) == (bend.x1, bend.y1) and isinstance(arrow, Arrowhead)
            if joined and isinstance(text, Lettering) and text.role == "dimension":
                yield one, text.text


def is_clear(tip: complex, end: complex, room: float, walls: shapely.STRtree) -> bool:
    """Tell whether a leader would touch nothing, its figure standing right or left of its end."""
    begun = tip + 0.4 * (end - tip) / abs(end - tip)
    line = shapely.LineString([(begun.real, begun.imag), (end.real, end.imag)])
    if walls.query(line, "intersects").size:
        return False
    sides = ((end.real, end.real + room), (end.real - room, end.real))
    boxes = [shapely.box(low, end.imag - 2.2, high, end.imag + 2.2) for low, high in sides]
    return not all(walls.query(box, "intersects").size for box in boxes)


@given(st.integers(0, 400))
def test_a_leader_crosses_something_only_where_no_ray_of_its_round_is_clear(seed: int) -> None:
    done = work_out(dimensioned(seed))
    figures = [m for m in done.display.marks if isinstance(m, Lettering)]
    boxes = [shapely.MultiPoint(reach(mark)).convex_hull for mark in figures]
    walls = [*strokes(done), *(box for box in boxes if box.area)]
    tree, factor = shapely.STRtree(walls), done.sheet.factor
    shapes = [item.shape for item in done.solution.figure.items.values()]
    circles = [shape for shape in shapes if isinstance(shape, Circle)]
    for one, text in leaders(done):
        tip, end = complex(one.x1, one.y1), complex(one.x2, one.y2)
        away = (end - tip) / abs(end - tip)
        inner = [(at.real, at.imag) for at in (tip + 3.3 * away, end - 0.1 * away)]
        drawn = shapely.LineString([(one.x1, one.y1), (one.x2, one.y2)])
        met = [walls[at] for at in tree.query(shapely.LineString(inner), "intersects")]
        if all(wall.equals(drawn) for wall in met):
            continue
        for circle in circles:
            centre, radius = at_paper(done, circle.centre), circle.radius * factor
            if abs(abs(tip - centre) - radius) < 1e-6:
                for way in (cmath.rect(1.0, math.tau * index / 24) for index in range(24)):
                    for length in (7.0, 12.0, 18.0, 26.0):
                        rim = centre + radius * way
                        room = wide(text, 3.5) + 4
                        assert not is_clear(rim, rim + length * way, room, tree), (text, way)


def at_paper(done: Work, place: Point) -> complex:
    at = place * done.sheet.factor + done.sheet.origin
    return complex(at.x, at.y)
