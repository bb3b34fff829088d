"""The sheet line of a plan, and the arithmetic that sets the view in the middle of the space."""

from __future__ import annotations

import re
from collections.abc import Iterable, Mapping
from dataclasses import dataclass
from fractions import Fraction
from functools import cached_property

from ..geometry import Loop, Point, Shape
from ..geometry.shapes import extremes
from ..kind import Placing
from ..measure import Number, Quantity, Scale, Unit, spell
from ..plan.document import SheetLine
from ..plan.errors import ClauseError, PlanError
from ..plan.expression import Ratio, evaluate, write
from ..plan.forms import Form, match_clauses
from ..solve import Solution

PAPERS: dict[str, tuple[int, int]] = {
    "A4": (210, 297),
    "A3": (297, 420),
    "A2": (420, 594),
    "A1": (594, 841),
    "A0": (841, 1189),
}
"""Trimmed sizes in mm, short edge first (ISO 216)."""

STRIP = 12.0
"""Height of the title strip in mm (common practice, no source)."""

FORMS = (
    Form("{paper:" + "/".join(PAPERS) + "} {way:landscape/portrait}", "paper"),
    Form("{paper:" + "/".join(PAPERS) + "}", "paper"),
    Form("{width:length} by {height:length}", "size"),
    Form("scale {ratio:ratio}"),
    Form("border {border:length}"),
)


@dataclass(frozen=True)
class Sheet:
    """A sheet with a view on it. All lengths in mm on paper, from the lower left corner.

    Attributes
    ----------
    width, height, border : float
    scale : Scale
    unit : Unit
        Of the plan.
    origin : Point
        Where the datum stands.
    view : tuple of two Points
        Lower left and upper right of the view.
    working : tuple of str
        How the place was worked out, in plan units.
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

    @cached_property
    def factor(self) -> float:
        """Millimetres on paper for one plan unit."""
        return float(self.unit.mm * self.scale.ratio)

    @property
    def space(self) -> tuple[Point, Point]:
        """Corners of the drawing space: inside the border, above the title strip."""
        return (
            Point(self.border, self.border + STRIP),
            Point(self.width - self.border, self.height - self.border),
        )

    def on_paper(self, point: Point) -> Point:
        """Return where a point of the figure stands on the paper, mm."""
        return self.origin + point * self.factor


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
        A4 landscape at 1:1 with a 10 mm border where the plan does not say otherwise; faults of the sheet line are
        in its `errors`.
    """
    width, height, border, scale, errors, name = _read(solution.sheet, solution)
    box = view_box(solution)
    placing = next((e.made.placing for e in solution.entries if e.made and e.made.placing), Placing())
    unplaced = Sheet(
        width, height, border, scale, solution.unit, Point(0, 0), (Point(0, 0), Point(0, 0)), (), errors, name
    )
    low, high = unplaced.space
    factor, unit_mm = unplaced.factor, float(solution.unit.mm)
    origin_x, told_x = _place(low.x, high.x, box[0].x, box[1].x, factor, unit_mm, placing.from_left, "across",
                              solution.unit, border)  # fmt: skip
    origin_y, told_y = _place(low.y, high.y, box[0].y, box[1].y, factor, unit_mm, placing.from_below, "up",
                              solution.unit, border)  # fmt: skip
    origin = Point(origin_x, origin_y)
    view = (origin + box[0] * factor, origin + box[1] * factor)
    return Sheet(width, height, border, scale, solution.unit, origin, view, (told_x, told_y), errors, name)


def _place(
    low: float, high: float, start: float, end: float, factor: float, unit_mm: float, stated: Number | None,
    way: str, unit: Unit, border: float,
) -> tuple[float, str]:  # fmt: skip
    def say(mm: float) -> str:
        return spell(mm / unit_mm, unit, 2)

    if stated is not None:
        return border + float(stated) * unit_mm, f"{way}: the datum stands {spell(stated, unit)} from the border"
    space, overall = high - low, (end - start) * factor
    left = float(margin(space, overall))
    return (
        low + left - start * factor,
        f"{way}: ({say(space)} − {say(overall)}) ÷ 2 = {say(left)} each side of the view",
    )


def view_box(solution: Solution) -> tuple[Point, Point]:
    """Return lower left and upper right of the view in plan units: the outline, or all there is without one."""
    shapes = [shape for entry in solution.entries if entry.made for shape in entry.made.shapes]
    loops = [shape for shape in shapes if isinstance(shape, Loop)]
    bounded: Iterable[Shape] = (
        [piece.curve for loop in loops for piece in loop.pieces]
        if loops
        else [shape for shape in shapes if not isinstance(shape, Loop)]
    )
    spots = [spot for shape in bounded for spot in extremes(shape)] or [Point(0.0, 0.0)]
    return (
        Point(min(s.x for s in spots), min(s.y for s in spots)),
        Point(max(s.x for s in spots), max(s.y for s in spots)),
    )


_Read = tuple[float, float, float, Scale, tuple[PlanError, ...], str]


def _read(line: SheetLine | None, solution: Solution) -> _Read:
    short, long = PAPERS["A4"]
    width, height, border, scale, name = float(long), float(short), 10.0, Scale(), "A4 landscape"
    if line is None:
        return width, height, border, scale, (), name
    try:
        for match in match_clauses(line.clauses, FORMS, "sheet"):
            words = {slot: write(items[0]) for slot, items in match.slots.items()}
            match match.form.key:
                case "paper":
                    short, long = PAPERS[words["paper"]]
                    upright = words.get("way") == "portrait"
                    width, height = (float(short), float(long)) if upright else (float(long), float(short))
                    name = f"{words['paper']} {words.get('way', 'landscape')}"
                case "size":
                    width, height = (
                        _mm(match.slots[k][0], solution.quantities, solution.unit) for k in ("width", "height")
                    )
                    name = str(line.clauses[match.clause])
                case "scale":
                    ratio = match.slots["ratio"][0]
                    assert isinstance(ratio, Ratio)
                    scale = read_scale(ratio.text, match.clause)
                case "border":
                    border = _mm(match.slots["border"][0], solution.quantities, solution.unit)
        if not 50 <= min(width, height) <= max(width, height) <= 5000:
            raise ClauseError("a sheet is between 50 mm and 5 m each way")
        if not border >= 0 or 2 * border + STRIP >= min(width, height) - 10:
            raise ClauseError("the border leaves no room on this sheet")
    except ClauseError as error:
        found = PlanError(solution.sheet_line, error.message, error.clause)
        return 297.0, 210.0, 10.0, Scale(), (found,), "A4 landscape"
    return width, height, border, scale, (), name


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
        raise ClauseError(f"{text} is no scale to draw at; use one between 1:1000 and 1000:1", clause)
    return Scale(drawn, actual)
