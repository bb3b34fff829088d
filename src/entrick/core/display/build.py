"""From board steps and a sheet to the display list."""

from __future__ import annotations

import math
from collections import ChainMap
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from itertools import groupby, pairwise
from typing import cast

from ..acts.act import GoOver
from ..allowance import pieces
from ..board.steps import BoardStep
from ..drawing.marks import (
    Drawing,
    DrawnArc,
    DrawnCircle,
    DrawnDot,
    DrawnLine,
    DrawnRun,
    Layer,
    Lettering,
    Mark,
    moved,
    wide,
)
from ..drawing.notes import TitleFields
from ..drawing.strokes import Stroke
from ..finish.chain import hidden_dashes
from ..finish.occupied import Occupied, box_of
from ..finish.style import OVERRUN
from ..geometry import Arc, Circle, Line, Loop, Point, Shape
from ..geometry.ellipse import oval_of
from ..kind import Candidate, Role
from ..kind.figure import Family, Item
from ..memo import MEMO, Memo, remembered
from ..sheet import Sheet
from ..sheet.layout import SECOND_ROW, STRIP
from ..solve import Solution, is_projected
from ..tolerance import NOUGHT, ROUND
from .letters import Letter, Lettered, lettered, sides, sides_again


def build_display(
    solution: Solution, steps: Sequence[tuple[BoardStep, ...]], sheet: Sheet
) -> Drawing:
    """Draw a solved plan on its sheet.

    Parameters
    ----------
    solution : Solution
    steps : sequence of tuple of BoardStep
        Those of each statement.
    sheet : Sheet

    Returns
    -------
    Drawing
    """
    drawn = _drawn_all(steps, solution, _from_datum(sheet))
    chosen = sides_again(
        [each.lettered for each in drawn], [_outlined(solution, sheet), *_dimensioned(sheet)]
    )
    layers: list[Layer] = []
    for each, own in zip(drawn, chosen, strict=True):
        if each.layer is None or each.sides != own:
            each.layer, each.sides = (
                Layer((*each.marks, *map(lettered, each.lettered.letters, own))),
                own,
            )
        if each.layer.marks:
            layers.append(each.layer)
    last = {own[-1].line: own[-1].number for own in steps}
    for line, marks in groupby(sheet.finish, lambda found: found[0]):
        layers.append(
            Layer(tuple(moved(mark, 0.0, 0.0, line, last.get(line, 0)) for _, mark in marks))
        )
    ground = (*_ground(sheet), *_border(sheet), *_strip(solution, sheet))
    origin = (sheet.origin.x, sheet.origin.y)
    low, high = sheet.space
    return Drawing(
        sheet.width, sheet.height, ground, tuple(layers), sheet.factor, origin, (*low, *high)
    )


@dataclass(frozen=True, slots=True)
class Stand:
    """Where the figure stands when it is drawn: scale, place of the datum, and the view endless
    lines are drawn in."""

    factor: float
    origin: Point
    low: Point
    high: Point

    def at(self, point: Point) -> Point:
        """Return where a place of the plan is drawn."""
        return self.origin + point * self.factor


def _on_paper(sheet: Sheet) -> Stand:
    return Stand(sheet.factor, sheet.origin, *sheet.view)


def _from_datum(sheet: Sheet) -> Stand:
    return Stand(
        sheet.factor, Point(0.0, 0.0), sheet.view[0] - sheet.origin, sheet.view[1] - sheet.origin
    )


@dataclass(slots=True)
class _Drawn:
    """What the steps of a statement put on the sheet, from the datum; its layer once the letters
    have their places.

    `view` is the box in which lines without ends were drawn, None where there are none.
    """

    view: tuple[Point, Point] | None
    marks: list[Mark]
    lettered: Lettered
    layer: Layer | None = None
    sides: tuple[int, ...] = ()


DRAWN = cast(Memo[_Drawn], MEMO)


def _drawn_all(
    steps: Sequence[tuple[BoardStep, ...]], solution: Solution, stand: Stand
) -> list[_Drawn]:
    """Return what statements draw, as it was drawn before where nothing that it depends on has
    changed."""
    view = (stand.low, stand.high)
    result = []
    for own in steps:
        key = (_drawn, *(step.serial for step in own), stand.factor)
        drawn = DRAWN.get(key)
        if drawn is None or (drawn.view is not None and drawn.view != view):
            # What the statement itself calls a thing comes first.
            owners = [own[0].name, *(name for step in own for name in _lined_in_at_once(step))]
            named = [_names(solution.figure.items.get(name)) for name in dict.fromkeys(owners)]
            marks, letters = _drawn(own, dict(ChainMap(*named)), stand)
            dots = tuple(Point(mark.x, mark.y) for mark in marks if isinstance(mark, DrawnDot))
            drawn = _Drawn(
                view if any(map(_depends_on_view, own)) else None, marks, Lettered(letters, dots)
            )
            asked = pieces(stroke.shape for step in own for stroke in step.strokes)
            DRAWN.put(key, drawn, 5 + asked)
        result.append(drawn)
    return result


def _lined_in_at_once(step: BoardStep) -> Iterator[str]:
    """Yield the statements whose things a step draws that lines them in."""
    for act in step.source.acts if step.source else ():
        if isinstance(act, GoOver) and act.drawn:
            yield act.drawn.leaves.partition(":")[0]


def _depends_on_view(step: BoardStep) -> bool:
    """Tell whether a step draws a line without an end, or letters one that may leave the sheet."""
    return any(
        (isinstance(stroke.shape, Line) and None in (stroke.shape.start, stroke.shape.end))
        or (stroke.label and not isinstance(stroke.shape, Point))
        for stroke in step.strokes
    )


def _drawn(
    steps: Sequence[BoardStep], names: Mapping[Shape | Loop, str], stand: Stand
) -> tuple[list[Mark], list[Letter]]:
    """Draw the strokes of steps, and return what is lettered beside them."""
    marks: list[Mark] = []
    letters: list[Letter] = []
    for step, stroke in ((each, stroke) for each in steps for stroke in each.strokes):
        name = (
            ""
            if stroke.role in (Role.OUTLINE, Role.EDGE, Role.HIDDEN)
            else names.get(stroke.shape, "")
        )
        mark = _draw(stroke.shape, stand, str(stroke.role), step.line, step.number, name)
        if mark is not None:
            marks.append(_dashed(mark) if stroke.role is Role.HIDDEN else mark)
        if stroke.label:
            place = _beside(stroke.shape, stand)
            letters.append((stroke.label, place, step.line, step.number))
    return marks, letters


def draw_steps(steps: Sequence[BoardStep], sheet: Sheet) -> list[Mark]:
    """Draw what steps put on the sheet, each mark numbered with its step: for a construction opened
    up."""
    stand = _on_paper(sheet)
    drawn = (
        _draw(s.shape, stand, str(s.role), step.line, step.number, "")
        for step in steps
        for s in step.strokes
    )
    return [mark for mark in drawn if mark is not None]


def draw_lettered(strokes: Sequence[Stroke], sheet: Sheet) -> list[Mark]:
    """Draw strokes of every role, with the names of their points beside them: for a worksheet."""
    stand = _on_paper(sheet)
    marks: list[Mark] = []
    letters: list[Letter] = []
    for stroke in strokes:
        mark = _draw(stroke.shape, stand, str(stroke.role), 0, 0, "")
        if mark is not None:
            marks.append(_dashed(mark) if stroke.role is Role.HIDDEN else mark)
        if stroke.label and isinstance(stroke.shape, Point):
            letters.append((stroke.label, stand.at(stroke.shape), 0, 0))
    dots = [Point(mark.x, mark.y) for mark in marks if isinstance(mark, DrawnDot)]
    return [*marks, *map(lettered, letters, sides([Lettered(letters, dots)], ())[0])]


def draw_curves(curves: Sequence[Shape], sheet: Sheet) -> list[Mark]:
    """Draw curves as outline, for something that is not yet a statement."""
    stand = _on_paper(sheet)
    drawn = (_draw(curve, stand, str(Role.OUTLINE), 0, 0, "") for curve in curves)
    return [mark for mark in drawn if mark is not None]


def draw_outlines(loops: Sequence[Loop]) -> list[Mark]:
    """Draw outlines in plan units, each in one piece: what a cutter follows."""
    stand = Stand(1.0, Point(0.0, 0.0), Point(0.0, 0.0), Point(0.0, 0.0))
    alone = (
        loop.pieces[0].curve if len(loop.pieces) == 1 and loop.closed else loop for loop in loops
    )
    drawn = (_draw(shape, stand, str(Role.OUTLINE), 0, 0, "") for shape in alone)
    return [mark for mark in drawn if mark is not None]


GHOST = 5.0
"""Height of the letters of what may be chosen, mm."""


def ghosts(
    candidates: Sequence[Candidate], sheet: Sheet, line: int
) -> list[tuple[Candidate, list[Mark]]]:
    """Draw the lettered candidates of a statement, each with its letter at a place along it of its
    own."""
    stand = _on_paper(sheet)
    result = []
    letters: list[Point] = []
    for index, candidate in enumerate(candidates):
        mark = _draw(candidate.shape, stand, "ghost", line, 0, "")
        spot = stand.at(_along(candidate.shape, (index + 1) / (len(candidates) + 1)))
        # Two places close by have their letters over and under them.
        low = any(abs(spot - other) < GHOST for other in letters)
        letters.append(spot)
        rise = -GHOST - 1 if low else 1.0
        letter = Lettering(candidate.letter, spot.x, spot.y + rise, GHOST, "middle", "ghost", line)
        result.append((candidate, [m for m in (mark, letter) if m is not None]))
    return result


BESIDE = (0.3, 0.1, 0.55, 0.8, 0.95, 0.7)
"""Where along a line or circle its letter may stand, as shares of it."""


def _beside(shape: Shape | Loop, stand: Stand) -> Point:
    """Return where the letter of something stands: on the sheet, where any of it is."""
    places = [stand.at(_along(shape, share)) for share in BESIDE]
    low, high = stand.low, stand.high
    inside = (place for place in places if low.x < place.x < high.x and low.y < place.y < high.y)
    return next(inside, places[0])


def _along(shape: Shape | Loop, share: float) -> Point:
    match shape:
        case Loop(pieces=pieces):
            return pieces[min(int(share * len(pieces)), len(pieces) - 1)].entry
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
    """Return what a click on each stroke of a statement refers to: the thing itself, or a part of
    it."""
    if item is None:
        return {}
    names = {shape: f"{item.name}.{key}" for key, shape in reversed(list(item.parts.items()))}
    if not isinstance(item.shape, Loop | Family):
        names[item.shape] = item.name
    return names


def _draw(
    shape: Shape | Loop, stand: Stand, role: str, line: int, step: int, name: str
) -> Mark | None:
    (x, y), factor = (stand.origin.x, stand.origin.y), stand.factor
    match shape:
        case Point():
            return DrawnDot(x + shape.x * factor, y + shape.y * factor, role, line, step, name)
        case Circle(centre=c, radius=r):
            return DrawnCircle(
                x + c.x * factor, y + c.y * factor, r * factor, role, line, step, name
            )
        case Arc(centre=c, radius=r, sweep=sweep) if abs(sweep) > math.tau - ROUND:
            return DrawnCircle(
                x + c.x * factor, y + c.y * factor, r * factor, role, line, step, name
            )
        case Arc(centre=c, radius=r, start=start, sweep=sweep):
            turn = (math.degrees(start), math.degrees(sweep))
            return DrawnArc(
                x + c.x * factor, y + c.y * factor, r * factor, *turn, role, line, step, name
            )
        case Loop():
            return _run(shape, stand, role, line, step, name)
        case Line():
            ends = _ends(shape, stand)
            if ends is None:
                return None
            return DrawnLine(ends[0].x, ends[0].y, ends[1].x, ends[1].y, role, line, step, name)


def _run(loop: Loop, stand: Stand, role: str, line: int, step: int, name: str) -> DrawnRun:
    (x, y), factor = (stand.origin.x, stand.origin.y), stand.factor
    corners = []
    for piece in loop.pieces:
        bulge = math.tan(piece.curve.sweep / 4) if isinstance(piece.curve, Arc) else 0.0
        corners.append((x + piece.entry.x * factor, y + piece.entry.y * factor, bulge))
    if not loop.closed:
        end = loop.pieces[-1].exit
        corners.append((x + end.x * factor, y + end.y * factor, 0.0))
    oval = None
    e = oval_of(loop)
    if e is not None and loop.closed:
        spot = stand.at(e.centre)
        oval = (spot.x, spot.y, e.major.x * factor, e.major.y * factor, e.b / e.a)
    return DrawnRun(tuple(corners), loop.closed, role, line, step, name, oval=oval)


def _dashed(mark: Mark) -> Mark:
    """Give a hidden stroke dashes that begin and end on its ends."""
    match mark:
        case DrawnLine():
            return replace(
                mark, dash=hidden_dashes(math.hypot(mark.x2 - mark.x1, mark.y2 - mark.y1))
            )
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


def _ends(line: Line, stand: Stand) -> tuple[Point, Point] | None:
    """Return the drawn ends; an endless line runs a little past the view (and its own point)."""
    through = stand.at(line.through)
    if line.start is not None and line.end is not None:
        return stand.at(line.at(line.start)), stand.at(line.at(line.end))
    low = Point(min(stand.low.x, through.x) - OVERRUN, min(stand.low.y, through.y) - OVERRUN)
    high = Point(max(stand.high.x, through.x) + OVERRUN, max(stand.high.y, through.y) + OVERRUN)
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
    # On isometric paper the sides of the rhombs are the squares; ruled lines lie √3/2 of them
    # apart.
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
    for place, step, least, most in (
        (through.x, ahead.x, low.x, high.x),
        (through.y, ahead.y, low.y, high.y),
    ):
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
    """Draw the title block (fields after ISO 7200): one row, and a second where a `title` statement
    fills it."""
    low = sheet.height - sheet.border - sheet.strip if sheet.strip_on_top else sheet.border
    said_so = (
        any(str(clause).startswith("isometric ") for clause in solution.sheet.clauses)
        if solution.sheet
        else False
    )
    school = (
        (" isometric projection" if is_projected(solution.sheet) else " isometric drawing")
        if said_so
        else ""
    )
    first: list[Field] = [
        ("TITLE", solution.title, 0.0, 3.5),
        ("DRAWING", solution.drawing, 0.5, 3.5),
        ("SCALE", f"{sheet.scale}{school}", 0.7, 2.5 if school else 3.5),
        ("UNITS", str(solution.unit), 0.85, 3.5),
    ]
    said = title_fields(solution)
    if not said:
        return _row(first, low, STRIP, sheet)
    names = ("drawn", "checked", *(("approved",) if "approved" in said else ()), "date")
    share = 0.5 / len(names) if "approved" in said else 0.17
    second: list[Field] = [
        *((name.upper(), said.get(name, ""), n * share, 2.5) for n, name in enumerate(names)),
        ("MATERIAL", said.get("material", ""), 0.5, 2.5),
        ("SHEET", said.get("sheet", ""), 0.7, 2.5),
        ("PROJECTION", "", 0.85, 2.5),
    ]
    symbol = _projection(said.get("projection", ""), low, sheet)
    return [
        *_row(second, low, SECOND_ROW, sheet),
        *_row(first, low + SECOND_ROW, STRIP, sheet),
        *symbol,
    ]


def title_fields(solution: Solution) -> dict[str, str]:
    """Return what the title statements of a plan say."""
    notes = (note for entry in solution.entries if entry.made for note in entry.made.notes)
    return {
        key: text for note in notes if isinstance(note, TitleFields) for key, text in note.fields
    }


def _row(fields: Sequence[Field], low: float, tall: float, sheet: Sheet) -> list[Mark]:
    left, right, high = sheet.left, sheet.width - sheet.border, low + tall
    wide = right - left
    line = low if sheet.strip_on_top else high
    marks: list[Mark] = [DrawnLine(left, line, right, line, "strip")]
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
        marks += _fitted(text, x + 2, base, height, end - x - 3.5)
    return marks


SMALLEST_LETTERS = 1.8
"""Letters of a strip are not made smaller than this, mm; what is longer still stands in two
rows."""


def _fitted(text: str, x: float, base: float, height: float, room: float) -> list[Mark]:
    """Letter a field as large as it goes into its room; in two rows, at a word, where one would be
    too small."""
    long = wide(text, height)
    if long <= room:
        return [Lettering(text, x, base, height)]
    if height * room / long >= SMALLEST_LETTERS:
        return [Lettering(text, x, base, height * room / long)]
    words = text.split()
    cuts = [(" ".join(words[:at]), " ".join(words[at:])) for at in range(1, len(words))] or [
        (text, "")
    ]
    rows = min(cuts, key=lambda pair: max(wide(part, 1.0) for part in pair))
    small = min(SMALLEST_LETTERS, room / max(wide(part, 1.0) for part in rows))
    return [
        Lettering(part, x, base + (small + 0.6) * (1 - row) - 0.4, small)
        for row, part in enumerate(rows)
        if part
    ]


def _projection(which: str, low: float, sheet: Sheet) -> list[Mark]:
    """Draw the symbol of the projection: a cone's side and its end view, the end on the side the
    school asks for."""
    if not which:
        return []
    left, wide = sheet.left, sheet.width - sheet.border - sheet.left
    x, y = left + wide * 0.97, low + SECOND_ROW / 2
    end, side = (x, x - 9.0) if which == "first" else (x - 9.0, x)
    corners = [
        (side - 3, y - 1.3),
        (side + 3, y - 2.6),
        (side + 3, y + 2.6),
        (side - 3, y + 1.3),
        (side - 3, y - 1.3),
    ]
    cone: list[Mark] = [DrawnLine(*a, *b, "strip") for a, b in pairwise(corners)]
    return [*cone, DrawnCircle(end, y, 2.6, "strip"), DrawnCircle(end, y, 1.3, "strip")]


def _outlined(solution: Solution, sheet: Sheet) -> Occupied:
    """Return where outlines run, mm from the datum; nothing of a view that is too far across to be
    finished."""
    made = [entry.made for entry in solution.entries if entry.made]
    loops = [loop for m in made for loop in m.loops] if sheet.is_finished else []
    return _occupied(loops, sheet.factor)


@remembered(50)
def _occupied(loops: Sequence[Loop], factor: float) -> Occupied:
    return Occupied(loops, factor)


def _dimensioned(sheet: Sheet) -> list[Occupied]:
    """Return where dimensions and their figures stand, mm from the datum; nothing where there are
    none."""
    if not sheet.finish:
        return []
    found = Occupied((), 1.0)
    for _, mark in sheet.finish:
        if isinstance(mark, DrawnLine) and mark.role == "dimension":
            found.cross(Point(mark.x1, mark.y1), Point(mark.x2, mark.y2))
        elif isinstance(mark, Lettering):
            found.take(box_of(mark))
    return [found]
