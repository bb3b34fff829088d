"""From board steps and a sheet to the display list."""

from __future__ import annotations

import math
from collections.abc import Mapping, Sequence
from dataclasses import replace
from itertools import pairwise

from ..allowance import pieces
from ..board import BoardStep
from ..drawing.marks import DisplayList, DrawnArc, DrawnCircle, DrawnDot, DrawnLine, DrawnRun, Lettering, Mark, moved
from ..drawing.notes import TitleFields
from ..drawing.strokes import Stroke
from ..finish.chain import hidden_dashes
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..kind import Candidate, Role
from ..kind.figure import Family, Item
from ..sheet import Sheet
from ..sheet.layout import SECOND_ROW, STRIP
from ..solve import Solution, is_projected
from ..tolerance import NOUGHT, ROUND

OVERRUN = 8.0
"""How far a line without ends runs past the view, mm on paper."""

LETTER = 2.5
"""Height of letters beside points, mm (ISO 3098)."""


def build_display(solution: Solution, steps: Sequence[BoardStep], sheet: Sheet) -> DisplayList:
    """Draw a solved plan on its sheet.

    Parameters
    ----------
    solution : Solution
    steps : sequence of BoardStep
    sheet : Sheet

    Returns
    -------
    DisplayList
    """
    marks = [*_ground(sheet), *_border(sheet), *_strip(solution, sheet)]
    letters: list[Letter] = []
    kept = _kept_at(sheet)
    named: dict[str, dict[Shape | Loop, str]] = {}
    for step in steps:
        drawn = kept.get(id(step))
        if drawn is None:
            item = solution.figure.items.get(step.name)
            if step.name not in named:
                named[step.name] = _names(item)
            drawn = (step, *_drawn(step, named[step.name], sheet))
            # What a stroke of a family is called depends on its other members too.
            alone = item is None or not isinstance(item.shape, Family)
            if alone and pieces(stroke.shape for stroke in step.strokes) <= MOST_KEPT:
                kept[id(step)] = drawn
        marks += drawn[1]
        letters += drawn[2]
    marks.extend(_letter(letters, marks))
    last = {step.line: step.number for step in steps}
    marks.extend(moved(mark, sheet.origin.x, sheet.origin.y, line, last.get(line, 0)) for line, mark in sheet.finish)
    return DisplayList(sheet.width, sheet.height, tuple(marks), sheet.factor, (sheet.origin.x, sheet.origin.y))


Letter = tuple[str, Point, int, int]
"""A name, the place it stands beside on paper, line and step."""

_Drawn = tuple[BoardStep, list[Mark], list[Letter]]
_PLACES: dict[tuple[Point, float, tuple[Point, Point]], dict[int, _Drawn]] = {}

MOST_PLACES, MOST_STEPS, MOST_KEPT = 2, 3000, 40
"""Places of the view whose marks are kept; steps at one of them; pieces of a step that is kept."""


def _kept_at(sheet: Sheet) -> dict[int, _Drawn]:
    """Return what was drawn before at the same place on paper, by step: an edit redraws what it changed.

    The step is held beside its marks, so that nothing else can have its identity.
    """
    place = (sheet.origin, sheet.factor, sheet.view)
    if place not in _PLACES and len(_PLACES) >= MOST_PLACES:
        _PLACES.pop(next(iter(_PLACES)), None)
    kept = _PLACES.setdefault(place, {})
    if len(kept) > MOST_STEPS:
        kept.clear()
    return kept


def _drawn(step: BoardStep, names: Mapping[Shape | Loop, str], sheet: Sheet) -> tuple[list[Mark], list[Letter]]:
    """Draw the strokes of a step, and return what is lettered beside them."""
    marks: list[Mark] = []
    letters: list[Letter] = []
    for stroke in step.strokes:
        name = "" if stroke.role in (Role.OUTLINE, Role.HIDDEN) else names.get(stroke.shape, "")
        mark = _draw(stroke.shape, sheet, str(stroke.role), step.line, step.number, name)
        if mark is not None:
            marks.append(_dashed(mark) if stroke.role is Role.HIDDEN else mark)
        if stroke.label and isinstance(stroke.shape, Point):
            letters.append((stroke.label, sheet.on_paper(stroke.shape), step.line, step.number))
    return marks, letters


def draw_steps(steps: Sequence[BoardStep], sheet: Sheet) -> list[Mark]:
    """Draw what steps put on the sheet, each mark numbered with its step: for a construction opened up."""
    drawn = (_draw(s.shape, sheet, str(s.role), step.line, step.number, "") for step in steps for s in step.strokes)
    return [mark for mark in drawn if mark is not None]


def draw_lettered(strokes: Sequence[Stroke], sheet: Sheet) -> list[Mark]:
    """Draw strokes of every role, with the names of their points beside them: for a worksheet."""
    marks: list[Mark] = []
    letters: list[tuple[str, Point, int, int]] = []
    for stroke in strokes:
        mark = _draw(stroke.shape, sheet, str(stroke.role), 0, 0, "")
        if mark is not None:
            marks.append(_dashed(mark) if stroke.role is Role.HIDDEN else mark)
        if stroke.label and isinstance(stroke.shape, Point):
            letters.append((stroke.label, sheet.on_paper(stroke.shape), 0, 0))
    return [*marks, *_letter(letters, marks)]


def draw_curves(curves: Sequence[Shape], sheet: Sheet) -> list[Mark]:
    """Draw curves as outline, for something that is not yet a statement."""
    drawn = (_draw(curve, sheet, str(Role.OUTLINE), 0, 0, "") for curve in curves)
    return [mark for mark in drawn if mark is not None]


def ghosts(candidates: Sequence[Candidate], sheet: Sheet, line: int) -> list[tuple[Candidate, list[Mark]]]:
    """Draw the lettered candidates of a statement, each with its letter at a place along it of its own."""
    found = []
    for index, candidate in enumerate(candidates):
        mark = _draw(candidate.shape, sheet, "ghost", line, 0, "")
        spot = sheet.on_paper(_along(candidate.shape, (index + 1) / (len(candidates) + 1)))
        letter = Lettering(candidate.letter, spot.x, spot.y + 1, 5.0, "middle", "ghost", line)
        found.append((candidate, [m for m in (mark, letter) if m is not None]))
    return found


def _along(shape: Shape, share: float) -> Point:
    match shape:
        case Point():
            return shape
        case Arc():
            return shape.at(shape.start + shape.sweep * share)
        case Circle():
            return shape.at(math.pi * share)
        case Line():
            start, end = shape.start or 0.0, shape.end or 0.0
            return shape.at(start + (end - start) * share)


def _names(item: Item | None) -> dict[Shape | Loop, str]:
    """Return what a click on each stroke of a statement refers to: the thing itself, or a part of it."""
    if item is None:
        return {}
    names = {shape: f"{item.name}.{key}" for key, shape in reversed(list(item.parts.items()))}
    if not isinstance(item.shape, Loop | Family):
        names[item.shape] = item.name
    return names


def _draw(shape: Shape | Loop, sheet: Sheet, role: str, line: int, step: int, name: str) -> Mark | None:
    (x, y), factor = (sheet.origin.x, sheet.origin.y), sheet.factor
    match shape:
        case Point():
            return DrawnDot(x + shape.x * factor, y + shape.y * factor, role, line, step, name)
        case Circle(centre=c, radius=r):
            return DrawnCircle(x + c.x * factor, y + c.y * factor, r * factor, role, line, step, name)
        case Arc(centre=c, radius=r, sweep=sweep) if abs(sweep) > math.tau - ROUND:
            return DrawnCircle(x + c.x * factor, y + c.y * factor, r * factor, role, line, step, name)
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            turn = (math.degrees(start), math.degrees(sweep))
            return DrawnArc(x + c.x * factor, y + c.y * factor, r * factor, *turn, role, line, step, name)
        case Loop():
            return _run(shape, sheet, role, line, step, name)
        case Line():
            ends = _ends(shape, sheet)
            if ends is None:
                return None
            return DrawnLine(ends[0].x, ends[0].y, ends[1].x, ends[1].y, role, line, step, name)


def _run(loop: Loop, sheet: Sheet, role: str, line: int, step: int, name: str) -> DrawnRun:
    (x, y), factor = (sheet.origin.x, sheet.origin.y), sheet.factor
    corners = []
    for piece in loop.pieces:
        bulge = math.tan(piece.curve.sweep / 4) if isinstance(piece.curve, Arc) else 0.0
        corners.append((x + piece.entry.x * factor, y + piece.entry.y * factor, bulge))
    if not loop.closed:
        end = loop.pieces[-1].exit
        corners.append((x + end.x * factor, y + end.y * factor, 0.0))
    oval = None
    if loop.stands_for is not None and loop.closed:
        e = loop.stands_for
        spot = sheet.on_paper(e.centre)
        oval = (spot.x, spot.y, e.major.x * factor, e.major.y * factor, e.b / e.a)
    return DrawnRun(tuple(corners), loop.closed, role, line, step, name, oval=oval)


def _dashed(mark: Mark) -> Mark:
    """Give a hidden stroke dashes that begin and end on its ends."""
    match mark:
        case DrawnLine():
            return replace(mark, dash=hidden_dashes(math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1)))
        case DrawnArc():
            return replace(mark, dash=hidden_dashes(abs(math.radians(mark.sweep)) * mark.r))
        case DrawnCircle():
            return replace(mark, dash=hidden_dashes(math.tau * mark.r, True))
        case DrawnRun():
            long = sum(_along_bulge(*stretch) for stretch in mark.stretches)
            return replace(mark, dash=hidden_dashes(long, mark.closed))
    return mark


def _along_bulge(x: float, y: float, u: float, v: float, bulge: float) -> float:
    chord = math.hypot(u - x, v - y)
    turn = 4 * math.atan(abs(bulge))
    return chord if turn < ROUND else chord / (2 * math.sin(turn / 2)) * turn


def _ends(line: Line, sheet: Sheet) -> tuple[Point, Point] | None:
    """Return the drawn ends on paper; an endless line runs a little past the view (and its own point)."""
    through = sheet.on_paper(line.through)
    if line.start is not None and line.end is not None:
        return sheet.on_paper(line.at(line.start)), sheet.on_paper(line.at(line.end))
    low = Point(min(sheet.view[0].x, through.x) - OVERRUN, min(sheet.view[0].y, through.y) - OVERRUN)
    high = Point(max(sheet.view[1].x, through.x) + OVERRUN, max(sheet.view[1].y, through.y) + OVERRUN)
    start, end = -math.inf, math.inf
    for position, direction, least, most in (
        (through.x, line.direction.x, low.x, high.x),
        (through.y, line.direction.y, low.y, high.y),
    ):
        if abs(direction) < NOUGHT:
            continue
        first, second = sorted(((least - position) / direction, (most - position) / direction))
        start, end = max(start, first), min(end, second)
    if not start < end:
        return None
    return through + line.direction * start, through + line.direction * end


def _ground(sheet: Sheet) -> list[Mark]:
    """Rule the paper in squares, or along the isometric axes, through the datum."""
    if not sheet.square:
        return []
    low, high = sheet.space
    directions = {"squares": ((1.0, 0.0), (0.0, 1.0))}.get(
        sheet.ground, ((0.0, 1.0), (math.cos(math.pi / 6), 0.5), (-math.cos(math.pi / 6), 0.5))
    )
    # On isometric paper the sides of the rhombs are the squares; ruled lines lie √3/2 of them apart.
    apart = sheet.square * (1.0 if sheet.ground == "squares" else math.sqrt(3) / 2)
    marks: list[Mark] = []
    for dx, dy in directions:
        across = Point(-dy, dx)
        corners = [Point(x, y) - sheet.origin for x in (low.x, high.x) for y in (low.y, high.y)]
        offs = [corner.dot(across) for corner in corners]
        for index in range(math.ceil(min(offs) / apart), math.floor(max(offs) / apart) + 1):
            ends = _clipped(sheet.origin + across * (index * apart), Point(dx, dy), low, high)
            if ends is not None:
                marks.append(DrawnLine(ends[0].x, ends[0].y, ends[1].x, ends[1].y, "guide"))
    return marks


def _clipped(through: Point, ahead: Point, low: Point, high: Point) -> tuple[Point, Point] | None:
    """Return what of an endless line lies in a box."""
    start, end = -math.inf, math.inf
    for place, step, least, most in ((through.x, ahead.x, low.x, high.x), (through.y, ahead.y, low.y, high.y)):
        if abs(step) < NOUGHT:
            if not least <= place <= most:
                return None
            continue
        one, other = sorted(((least - place) / step, (most - place) / step))
        start, end = max(start, one), min(end, other)
    return (through + ahead * start, through + ahead * end) if start < end else None


def _border(sheet: Sheet) -> list[Mark]:
    left, low = sheet.left, sheet.border
    right, high = sheet.width - sheet.border, sheet.height - sheet.border
    if sheet.border <= 0:
        return []
    corners = [(left, low), (right, low), (right, high), (left, high), (left, low)]
    return [DrawnLine(*first, *second, "border") for first, second in pairwise(corners)]


Field = tuple[str, str, float, float]
"""Label, what it says, where it begins as a share of the width, height of the letters in mm."""


def _strip(solution: Solution, sheet: Sheet) -> list[Mark]:
    """Draw the title block (fields after ISO 7200): one row, and a second where a `title` statement fills it."""
    low = sheet.border
    said_so = (
        any(str(clause).startswith("isometric ") for clause in solution.sheet.clauses) if solution.sheet else False
    )
    school = (" isometric projection" if is_projected(solution.sheet) else " isometric drawing") if said_so else ""
    first: list[Field] = [
        ("TITLE", solution.title, 0.0, 3.5),
        ("DRAWING", solution.drawing, 0.5, 3.5),
        ("SCALE", f"{sheet.scale}{school}", 0.7, 2.5 if school else 3.5),
        ("UNITS", str(solution.unit), 0.85, 3.5),
    ]
    said = title_fields(solution)
    if not said:
        return _row(first, low, STRIP, sheet)
    second: list[Field] = [
        ("DRAWN", said.get("drawn", ""), 0.0, 2.5),
        ("CHECKED", said.get("checked", ""), 0.17, 2.5),
        ("DATE", said.get("date", ""), 0.34, 2.5),
        ("MATERIAL", said.get("material", ""), 0.5, 2.5),
        ("SHEET", said.get("sheet", ""), 0.7, 2.5),
        ("PROJECTION", "", 0.85, 2.5),
    ]
    symbol = _projection(said.get("projection", ""), sheet)
    return [*_row(second, low, SECOND_ROW, sheet), *_row(first, low + SECOND_ROW, STRIP, sheet), *symbol]


def title_fields(solution: Solution) -> dict[str, str]:
    """Return what the title statements of a plan say."""
    notes = (note for entry in solution.entries if entry.made for note in entry.made.notes)
    return {key: text for note in notes if isinstance(note, TitleFields) for key, text in note.fields}


def _row(fields: Sequence[Field], low: float, tall: float, sheet: Sheet) -> list[Mark]:
    left, right, high = sheet.left, sheet.width - sheet.border, low + tall
    wide = right - left
    marks: list[Mark] = [DrawnLine(left, high, right, high, "strip")]
    for index, (label, text, share, height) in enumerate(fields):
        x = left + wide * share
        end = left + wide * fields[index + 1][2] if index + 1 < len(fields) else right
        if share:
            marks.append(DrawnLine(x, low, x, high, "strip"))
        base = low + 2.6 if tall >= STRIP else low + 1.8
        # Guide lines for the lettering, at its foot and its head.
        if label != "PROJECTION":
            marks += [DrawnLine(x + 1.5, y, end - 1.5, y, "guide") for y in (base, base + height)]
        marks.append(Lettering(label, x + 2, high - 3.3 if tall >= STRIP else high - 2.7, 1.8))
        marks.append(Lettering(text, x + 2, base, height))
    return marks


def _projection(which: str, sheet: Sheet) -> list[Mark]:
    """Draw the symbol of the projection: a cone's side and its end view, the end on the side the school asks for."""
    if not which:
        return []
    left, wide = sheet.left, sheet.width - sheet.border - sheet.left
    x, y = left + wide * 0.97, sheet.border + SECOND_ROW / 2
    end, side = (x, x - 9.0) if which == "first" else (x - 9.0, x)
    corners = [(side - 3, y - 1.3), (side + 3, y - 2.6), (side + 3, y + 2.6), (side - 3, y + 1.3), (side - 3, y - 1.3)]
    cone: list[Mark] = [DrawnLine(*a, *b, "strip") for a, b in pairwise(corners)]
    return [*cone, DrawnCircle(end, y, 2.6, "strip"), DrawnCircle(end, y, 1.3, "strip")]


CROWDED = 400
"""Dots and letters about one place beyond which no letter can be read there, wherever it is put."""

_AROUND = ((1.4, 1.2, "start"), (1.4, -3.4, "start"), (-1.4, 1.2, "end"), (-1.4, -3.4, "end"))


def _letter(letters: Sequence[tuple[str, Point, int, int]], marks: Sequence[Mark]) -> list[Mark]:
    """Set each name beside its point, where it covers the fewest other names and dots."""
    reach = 6 * LETTER
    taken: dict[tuple[int, int], list[Point]] = {}

    def take(spot: Point) -> None:
        taken.setdefault((math.floor(spot.x / reach), math.floor(spot.y / reach)), []).append(spot)

    def close_to(at: Point, wide: float) -> list[Point]:
        """Return what stands near a place; nothing where it is so crowded that no side is better than another."""
        rows = range(math.floor((at.y - reach) / reach), math.floor((at.y + reach) / reach) + 1)
        columns = range(math.floor((at.x - wide) / reach), math.floor((at.x + wide) / reach) + 1)
        found = [p for column in columns for row in rows for p in taken.get((column, row), ())]
        return found if len(found) <= CROWDED else []

    for mark in marks:
        if isinstance(mark, DrawnDot):
            take(Point(mark.x, mark.y))
    placed: list[Mark] = []
    for text, at, line, step in letters:
        half = LETTER * 0.35 * len(text)
        wide = reach + 2 * half
        near = [p for p in close_to(at, wide) if abs(p.y - at.y) < reach and abs(p.x - at.x) < wide]

        def covered(
            offset: tuple[float, float, str], at: Point = at, half: float = half, near: list[Point] = near
        ) -> int:
            middle = Point(at.x + offset[0] + (half if offset[2] == "start" else -half), at.y + offset[1] + LETTER / 2)
            return sum(abs(p.x - middle.x) < half + 1 and abs(p.y - middle.y) < LETTER for p in near)

        dx, dy, anchor = min(_AROUND, key=covered)
        placed.append(
            Lettering(text, at.x + dx, at.y + dy, LETTER, "start" if anchor == "start" else "end", "letter", line, step)
        )
        take(Point(at.x + dx + (half if anchor == "start" else -half), at.y + dy + LETTER / 2))
    return placed
