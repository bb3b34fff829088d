"""The sheet line of a plan, and the arithmetic that sets the view in the middle of the space."""

from __future__ import annotations

import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from fractions import Fraction
from functools import cached_property
from typing import Literal

from ..allowance import FARTHEST
from ..drawing.marks import reach
from ..drawing.notes import TitleFields
from ..finish import Finished, View, finish
from ..geometry import Loop, Point, Shape
from ..geometry.shapes import extremes
from ..kind import Placing
from ..kind.made import Measured
from ..measure import Number, Quantity, Scale, Unit, spell
from ..plan.clauses import match_clauses
from ..plan.document import SheetLine
from ..plan.errors import ClauseError, PlanError
from ..plan.evaluate import evaluate
from ..plan.forms import Form
from ..plan.reader import read_line
from ..plan.terms import Num, Ratio, write
from ..plan.writer import write_content
from ..solve import Solution
from ..solve.meant import Desk, Outcome, told

PAPERS: dict[str, tuple[int, int]] = {
    "A4": (210, 297),
    "A3": (297, 420),
    "A2": (420, 594),
    "A1": (594, 841),
    "A0": (841, 1189),
}
"""Trimmed sizes in mm, short edge first (ISO 216)."""

INCH_PAPERS: dict[str, tuple[Fraction, Fraction]] = {
    "8 1/2 by 11": (Fraction(17, 2), Fraction(11)),
    "11 by 17": (Fraction(11), Fraction(17)),
    "17 by 22": (Fraction(17), Fraction(22)),
    "22 by 34": (Fraction(22), Fraction(34)),
    "34 by 44": (Fraction(34), Fraction(44)),
}
"""The inch series by size, short edge first (from memory: trade sizes, each twice the one
before)."""

STRIP, SECOND_ROW = 12.0, 10.0
"""Height of the title strip, and of its second row where there is one, mm (common practice, no
source)."""

FILING = 20.0
"""Border on the filing side, mm (ISO 5457); the other sides have 10."""

BORDERS = (
    ("10 mm all round", "border 10 mm"),
    ("20 mm on the filing side", "border filing"),
    ("1/2 in all round", "border 1/2 in"),
)
"""Schools of border: what each is called, and how the sheet line says it (ISO 5457; the inch one
common practice)."""

FINEST_SQUARE = 2.0
"""Ruled squares smaller than this, mm, are a grey field."""

FORMS = (
    Form("{paper:" + "/".join(PAPERS) + "} {way:landscape/portrait}", "paper"),
    Form("{paper:" + "/".join(PAPERS) + "}", "paper"),
    Form("{width:length} by {height:length}", "size"),
    Form("scale {ratio:ratio}"),
    Form("border filing", "filing"),
    Form("border {border:length}"),
    Form("dimensions {lettering:aligned/unidirectional}", "dimensions"),
    Form("isometric {school:drawing/projection}", "isometric"),
    Form("strip {where:bottom/top}"),
    Form("construction {what:kept/rubbed} [out]", "construction"),
    Form("ground {which:isometric/squares} {size:length}", "ground"),
)


@dataclass(frozen=True)
class Sheet:
    """A sheet with a view on it. All lengths in mm on paper, from the lower left corner.

    Attributes
    ----------
    width, height, border : float
    left : float
        Border on the left, the filing side.
    strip : float
        Height of the title strip.
    strip_on_top : bool
        Whether it runs along the top of the sheet.
    rubbed_out : bool
        Whether the construction is rubbed out in the end; schools differ.
    scale : Scale
    unit : Unit
        Of the plan.
    origin : Point
        Where the datum stands.
    view : tuple of two Points
        Lower left and upper right of the view.
    working : tuple of str
        How the place was worked out, in plan units.
    aligned : bool
        Whether dimensions are lettered along their lines, or all level.
    finish : tuple of (int, Mark)
        Dimensions, centre lines, hatching and labels in mm from the datum, each with its line of
        the plan.
    room : tuple of two Points
        Lower left and upper right of the view with its dimensions.
    ground : str
        "isometric" or "squares" where the paper is ruled so, else empty.
    square : float
        Side of its squares, mm; 0 on plain paper.
    """

    width: float
    height: float
    border: float
    scale: Scale
    unit: Unit
    origin: Point
    view: tuple[Point, Point]
    working: tuple[str, ...]
    errors: tuple[PlanError, ...] = ()
    name: str = ""
    left: float = 10.0
    strip: float = STRIP
    strip_on_top: bool = False
    aligned: bool = True
    finish: tuple[Finished, ...] = ()
    room: tuple[Point, Point] = (Point(0.0, 0.0), Point(0.0, 0.0))
    ground: str = ""
    square: float = 0.0
    rubbed_out: bool = False

    @cached_property
    def factor(self) -> float:
        """Millimetres on paper for one plan unit."""
        return float(self.unit.mm * self.scale.ratio)

    @property
    def is_finished(self) -> bool:
        """Whether the view is small enough for dimensions, letters and hatching to find their
        places in it."""
        low, high = self.view[0] - self.origin, self.view[1] - self.origin
        return reach_of(low, high) <= FARTHEST

    @property
    def space(self) -> tuple[Point, Point]:
        """Corners of the drawing space: inside the border, clear of the title strip."""
        low, high = (0.0, self.strip) if self.strip_on_top else (self.strip, 0.0)
        return (
            Point(self.left, self.border + low),
            Point(self.width - self.border, self.height - self.border - high),
        )

    def side(self, measured: Measured) -> float:
        """Return where the border or the edge stands from which something is measured in, mm."""
        border = 0.0 if measured.edge else self.left if measured.side == "left" else self.border
        far = {"right": self.width, "top": self.height}.get(measured.side)
        return border if far is None else far - border

    def on_paper(self, point: Point) -> Point:
        """Return where a point of the figure stands on the paper, mm."""
        return self.origin + point * self.factor

    def on_plan(self, place: Point) -> Point:
        """Return the point of the figure that stands at a place on the paper."""
        return (place - self.origin) * (1 / self.factor)


def margin(space: Number, overall: Number) -> Number:
    """Return what is left each side of a view set in the middle: (space − overall)/2.

    Examples
    --------
    >>> margin(Fraction(400), Fraction(260))
    Fraction(70, 1)
    """
    return (space - overall) / 2


def lay_out(solution: Solution) -> Sheet:
    """Lay the solved plan out on its sheet.

    Returns
    -------
    Sheet
        A4 landscape at 1:1 with a 10 mm border where the plan does not say otherwise; faults of the
        sheet line are in its `errors`.
    """
    said = _read(solution.sheet, solution)
    titled = any(
        isinstance(n, TitleFields) for e in solution.entries if e.made for n in e.made.notes
    )
    nowhere = Point(0.0, 0.0)
    bare = Sheet(
        said.width,
        said.height,
        said.border,
        said.scale,
        solution.unit,
        nowhere,
        (nowhere, nowhere),
        (),
        said.errors,
        said.name,
        said.left,
        STRIP + (SECOND_ROW if titled else 0.0),
        said.strip_on_top,
        said.aligned,
        ground=said.ground,
        square=said.square,
        rubbed_out=said.rubbed_out,
    )
    return lay_out_at(solution, bare)


def lay_out_at(solution: Solution, sheet: Sheet) -> Sheet:
    """Set the view of a solved plan in the middle of a sheet of given paper, border and scale."""
    box = view_box(solution)
    made = [(entry.line, entry.made) for entry in solution.entries if entry.made]
    placing = next((m.placing for _, m in made if m.placing), Placing())
    notes = [(line, note) for line, m in made for note in m.notes]
    factor = float(sheet.unit.mm * sheet.scale.ratio)
    view = (box[0] * factor, box[1] * factor)
    outlines = tuple(loop for _, m in made for loop in m.loops)
    wide = reach_of(*view)
    marks: tuple[Finished, ...] = ()
    if wide <= FARTHEST:
        marks = finish(notes, View(factor, *view, outlines, sheet.aligned, sheet.scale))
    elif notes:
        reaches = f"at {sheet.scale} the view reaches {wide / 1000:.0f} m on paper"
        message = (
            f"{reaches}; dimensions, hatching and centre lines go with one of up to "
            f"{FARTHEST / 1000:g} m"
        )
        sheet = replace(
            sheet, errors=(*sheet.errors, PlanError(max(1, solution.sheet_line), message))
        )
    room = _with_marks(view, marks)
    low, high = sheet.space
    places = [
        _place(
            Room(low.x, high.x, view[0].x, view[1].x, room[0].x, room[1].x),
            "across",
            placing.across,
            placing.corner and placing.corner[0],
            sheet,
        ),
        _place(
            Room(low.y, high.y, view[0].y, view[1].y, room[0].y, room[1].y),
            "up",
            placing.up,
            placing.corner and placing.corner[1],
            sheet,
        ),
    ]
    origin = Point(places[0][0], places[1][0])
    return replace(
        sheet,
        origin=origin,
        view=(origin + view[0], origin + view[1]),
        working=(places[0][1], places[1][1]),
        finish=marks,
        room=(origin + room[0], origin + room[1]),
    )


def reach_of(low: Point, high: Point) -> float:
    """Return how far a view goes: from side to side, or from the datum."""
    return max(abs(high - low), abs(low), abs(high))


def _with_marks(view: tuple[Point, Point], marks: Sequence[Finished]) -> tuple[Point, Point]:
    """Grow the box of the view by everything drawn around it."""
    spots = [spot for _, mark in marks for spot in reach(mark)]
    xs, ys = (
        [view[0].x, view[1].x, *(x for x, _ in spots)],
        [view[0].y, view[1].y, *(y for _, y in spots)],
    )
    return Point(min(xs), min(ys)), Point(max(xs), max(ys))


@dataclass(frozen=True, slots=True)
class Room:
    """One direction of the sheet, mm: the space, and from the datum the view alone and with its
    dimensions."""

    low: float
    high: float
    start: float
    end: float
    room_start: float
    room_end: float


def _place(
    span: Room,
    way: Literal["across", "up"],
    stated: Measured | None,
    corner: Number | None,
    sheet: Sheet,
) -> tuple[float, str]:
    """Return where the datum stands, mm from the edge of the paper, and the arithmetic in plan
    units."""
    unit, border = sheet.unit, sheet.left if way == "across" else sheet.border
    mm = float(unit.mm)

    def say(length: float) -> str:
        return spell(length / mm, unit, 2)

    if stated is not None:
        inward = -1 if stated.side in ("right", "top") else 1
        words = f"{way}: the datum stands {spell(stated.length, unit)} from the {side_told(stated)}"
        return sheet.side(stated) + inward * float(stated.length) * mm, words
    if corner is not None:
        words = f"{way}: the view begins {spell(corner, unit)} from the border"
        return border + float(corner) * mm - span.start, words
    space, overall = span.high - span.low, span.end - span.start
    extra = (span.room_end - span.room_start) - overall
    left = float(margin(space, overall + extra))
    around = f" − {say(extra)} for dimensions" if extra > 0.005 else ""
    each = "each side of it all" if around else "each side of the view"
    words = f"{way}: ({say(space)} − {say(overall)}{around}) ÷ 2 = {say(left)} {each}"
    return span.low + left - span.room_start, words


def side_told(measured: Measured) -> str:
    """Say from where something is measured in."""
    named = {"top": "upper", "bottom": "lower"}.get(measured.side, measured.side)
    return f"{named} edge of the paper" if measured.edge else f"{named} border"


def view_box(solution: Solution) -> tuple[Point, Point]:
    """Return lower left and upper right of the view in plan units: the outline, or all there is
    without one."""
    made = [entry.made for entry in solution.entries if entry.made]
    loops = [loop for m in made for loop in m.loops]
    drawn: list[Shape | Loop] = [*loops] or [shape for m in made for shape in m.shapes]
    spots = [
        spot
        for shape in drawn
        for spot in (
            (s for piece in shape.pieces for s in piece.outermost)
            if isinstance(shape, Loop)
            else extremes(shape)
        )
    ] or [Point(0.0, 0.0)]
    return (
        Point(min(s.x for s in spots), min(s.y for s in spots)),
        Point(max(s.x for s in spots), max(s.y for s in spots)),
    )


@dataclass(frozen=True, slots=True)
class _Read:
    """What the sheet line says, lengths in mm."""

    width: float = 297.0
    height: float = 210.0
    border: float = 10.0
    left: float = 10.0
    scale: Scale = field(default_factory=Scale)
    strip_on_top: bool = False
    aligned: bool = True
    errors: tuple[PlanError, ...] = ()
    name: str = "A4 landscape"
    ground: str = ""
    square: float = 0.0
    rubbed_out: bool = False


def _read(line: SheetLine | None, solution: Solution) -> _Read:
    if line is None:
        return _Read()
    try:
        return _said(line, solution)
    except ClauseError as error:
        desk = Desk(lambda row: _tried(row, solution), solution.quantities.__contains__)
        return _Read(errors=(told(solution.sheet_line, write_content(line), error, desk),))


def _tried(text: str, solution: Solution) -> Outcome:
    """Tell what would come of a sheet line in the place of the one that stands."""
    line = read_line(text).content
    if not isinstance(line, SheetLine):
        return Outcome(ClauseError("this is no sheet line"))
    try:
        read = _said(line, solution)
    except ClauseError as error:
        return Outcome(error, text=write_content(line))
    return Outcome(None, True, write_content(line), str(replace(read, name="")))


def _said(line: SheetLine, solution: Solution) -> _Read:
    read = _Read()
    for match in match_clauses(line.clauses, FORMS, "sheet"):
        words = {slot: write(items[0]) for slot, items in match.slots.items()}
        match match.form.key:
            case "paper":
                short, long = map(float, PAPERS[words["paper"]])
                width, height = (short, long) if words.get("way") == "portrait" else (long, short)
                name = f"{words['paper']} {words.get('way', 'landscape')}"
                read = replace(read, width=width, height=height, name=name)
            case "size":
                width, height = (
                    _mm(match.slots[k][0], solution.quantities, solution.unit)
                    for k in ("width", "height")
                )
                read = replace(
                    read, width=width, height=height, name=str(line.clauses[match.clause])
                )
            case "scale":
                ratio = match.slots["ratio"][0]
                assert isinstance(ratio, Ratio)
                read = replace(read, scale=read_scale(ratio.text, match.clause))
            case "border":
                border = _mm(match.slots["border"][0], solution.quantities, solution.unit)
                read = replace(read, border=border, left=border)
            case "filing":
                read = replace(read, border=10.0, left=FILING)
            case "strip":
                read = replace(read, strip_on_top=words["where"] == "top")
            case "construction":
                read = replace(read, rubbed_out=words["what"] == "rubbed")
            case "dimensions":
                read = replace(read, aligned=words["lettering"] == "aligned")
            case "ground":
                square = _mm(match.slots["size"][0], solution.quantities, solution.unit)
                if not FINEST_SQUARE <= square <= 100:
                    raise ClauseError(
                        f"squares of a ground are {FINEST_SQUARE:g} to 100 mm", match.clause
                    )
                read = replace(read, ground=words["which"], square=square)
    if not 50 <= min(read.width, read.height) <= max(read.width, read.height) <= 5000:
        raise ClauseError("a sheet is between 50 mm and 5 m each way")
    if not _has_room(read, read.border, read.left):
        raise _no_room(line, read, solution.unit)
    return read


def _has_room(read: _Read, border: float, left: float) -> bool:
    return border >= 0 and left + border + STRIP < min(read.width, read.height) - 10


def _no_room(line: SheetLine, read: _Read, unit: Unit) -> ClauseError:
    """Return what is told of a border that leaves nothing of the sheet; in an inch plan it may be
    meant in mm."""
    message = (
        f"a border of {spell(read.border / float(unit.mm), unit)} {unit} leaves no room on "
        "this sheet"
    )
    for at, clause in enumerate(line.clauses):
        number = clause.items[-1]
        if str(clause).startswith("border ") and isinstance(number, Num):
            said = Fraction(number.text) if number.text.isdigit() else None
            if unit is Unit.INCH and said and _has_room(read, float(said), float(said)):
                return ClauseError(message, at, (str(clause), f"border {said} mm"))
            return ClauseError(message, at)
    return ClauseError(message)


def _mm(item: object, quantities: Mapping[str, Quantity], unit: Unit) -> float:
    return float(evaluate(item, quantities, unit).value * unit.mm)  # type: ignore[arg-type]


def read_scale(text: str, clause: int | None = None) -> Scale:
    """Read a scale such as 1:2.

    Raises
    ------
    ClauseError
        Beyond 1000:1 either way.
    """
    drawn, actual = (Fraction(part) for part in re.split(r"\s*:\s*", text))
    if drawn <= 0 or actual <= 0 or not Fraction(1, 1000) <= drawn / actual <= 1000:
        raise ClauseError(
            f"{text} is no scale to draw at; use one between 1:1000 and 1000:1", clause
        )
    return Scale(drawn, actual)
