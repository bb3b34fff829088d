"""``conic``: ellipse, parabola or hyperbola from its focus, directrix and eccentricity."""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass
from fractions import Fraction
from functools import partial

from ..acts import Edge, Mark, Way, Work
from ..acts.focal import Conic
from ..acts.procedures import away, divide, offer_middle
from ..geometry import Line, Loop, Point
from ..geometry.conic import Hyperbola, Parabola
from ..geometry.ellipse import Ellipse
from ..kind import Args, Kind, Made
from ..kind.parts import curve_run, true_run
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import FITTED, same
from .hyperbola import reach_of

PARTS = 6
"""Places constructed to either side of the axis where nothing is said."""

FEW = 12
"""Parts into which the way from directrix to focus is divided for the vertex; more is measured."""

WORDS = {Ellipse: "an ellipse", Parabola: "a parabola", Hyperbola: "a hyperbola"}


@dataclass(frozen=True)
class _Given:
    """What a conic is constructed from: the focus, the foot of the axis on the directrix, and the
    eccentricity."""

    focus: Point
    foot: Point
    ratio: Number

    @property
    def ahead(self) -> Point:
        """The direction from the directrix to the focus."""
        return (self.focus - self.foot).unit

    @property
    def apart(self) -> float:
        """How far the focus is from the directrix."""
        return abs(self.focus - self.foot)

    @property
    def vertex(self) -> Point:
        """The vertex between directrix and focus."""
        return self.foot + self.ahead * (self.apart / (1 + float(self.ratio)))

    @property
    def other(self) -> Point:
        """The other vertex: beyond the focus, or beyond the directrix."""
        return self.foot + self.ahead * (self.apart / (1 - float(self.ratio)))


def construct(args: Args) -> Made:
    """Construct the places whose distances from a focus and a directrix have one ratio.

    Parts: ``focus``, ``vertex``, ``axis``, ``directrix``; of an ellipse or hyperbola also
    ``other_vertex``, ``other_focus``, ``centre``; ``station.1`` ….

    Notes
    -----
    r = e·l/(1 + e·cos θ) about the focus, l its distance from the directrix (definition); half the
    axis e·l/(1 − e²).
    """
    given = _read(args)
    curve = _curve(args, given)
    turns = _turns(args, curve)
    shape = _shape(args, curve, turns)
    e, apart, word = float(given.ratio), given.apart, WORDS[type(curve)]
    working = [
        f"focus {args.say(apart)} from the directrix; vertex {args.say(apart)} ÷ (1 + {e:.4g}) = "
        f"{args.say(apart / (1 + e))} from it",
        f"latus rectum 2 × {e:.4g} × {args.say(apart)} = {args.say(2 * e * apart)}",
    ]
    if not isinstance(curve, Parabola):
        working.append(
            f"the other vertex {args.say(apart)} ÷ (1 − {e:.4g}) = {args.say(apart / (1 - e))} "
            f"from the directrix; axes {args.say(2 * curve.a)} and {args.say(2 * curve.b)}"
        )
    ratio = args.need("eccentricity").length("ratio").text
    return Made(
        shape,
        f"Conic {args.name}, {word}, focus {args.need('focus').ref('focus').text}, directrix "
        f"{args.need('directrix').ref('directrix').text}, eccentricity {ratio}.",
        tuple(working),
        parts={
            "focus": given.focus,
            "vertex": given.vertex,
            "axis": Line.between(given.foot, given.focus),
            "directrix": args.need("directrix").line("directrix"),
            **_both(given, curve),
            **{f"station.{index}": curve.at(turn) for index, turn in enumerate(turns, 1)},
            **{str(index): piece.curve for index, piece in enumerate(shape.pieces, 1)},
        },
        draw=partial(_draw, args, given, curve, turns, shape),
    )


def _both(given: _Given, curve: Conic) -> dict[str, Point]:
    if isinstance(curve, Parabola):
        return {}
    far = curve.centre * 2 - given.focus
    return {"other_vertex": given.other, "other_focus": far, "centre": curve.centre}


def _read(args: Args) -> _Given:
    focus, line = args.need("focus"), args.need("directrix")
    clause = args.need("eccentricity")
    ratio = clause.length("ratio").value
    if not 0 < float(ratio) <= 20:
        raise ClauseError("an eccentricity is more than nought and at most 20", clause.index)
    if float(ratio) != 1 and abs(float(ratio) - 1) < FITTED["conic"]:
        raise ClauseError("so near to 1 say 1: it is a parabola", clause.index)
    spot = focus.point("focus")
    foot = line.line("directrix").foot(spot)
    if abs(spot - foot) <= same(abs(spot)):
        raise ClauseError("the focus does not lie on the directrix", focus.index)
    return _Given(spot, foot, ratio)


def _curve(args: Args, given: _Given) -> Conic:
    e, apart = float(given.ratio), given.apart
    if e < 1:
        for clause in args.all("width", "height"):
            raise ClauseError("an ellipse is drawn whole: it has no ends", clause.index)
        a = e * apart / (1 - e * e)
        centre = given.vertex + given.ahead * a
        return Ellipse(centre, given.ahead * -a, a * math.sqrt(1 - e * e))
    if e == 1:
        half = _half_width(args, apart / 2)
        return Parabola(given.vertex, given.ahead, apart / 2, (-half, half))
    a = e * apart / (e * e - 1)
    b = a * math.sqrt(e * e - 1)
    reach = reach_of(args, a, b)
    return Hyperbola(given.vertex - given.ahead * a, given.ahead * a, b, (-reach, reach))


def _half_width(args: Args, focal: float) -> float:
    clause = args.need("width", "height")
    for other in args.all("width", "height")[1:]:
        raise ClauseError("it reaches as far as a width or a height: say one", other.index)
    size = float(clause.length("size"))
    if size <= 0:
        raise ClauseError("it reaches further than nought", clause.index)
    return size / 2 if clause.key == "width" else math.sqrt(4 * focal * size)


def _turns(args: Args, curve: Conic) -> list[float]:
    """Return the parameters of the places constructed, the vertices apart: alike to either side."""
    clause = args.get("parts")
    count = clause.count("count") if clause else PARTS
    if count < 2:
        raise ClauseError(
            "at least two places lie to either side", clause.index if clause else None
        )
    if isinstance(curve, Ellipse):
        return [
            math.pi * index / (count + 1) + side * math.pi
            for side in (0, 1)
            for index in range(1, count + 1)
        ]
    last = curve.span[1]
    return [last * index / count for index in range(-count, count + 1) if index]


def _shape(args: Args, curve: Conic, turns: Sequence[float]) -> Loop:
    if isinstance(curve, Ellipse):
        return curve_run(args.name, curve.drawn(), curve)
    first, last = curve.span
    wide = abs(curve.at(last) - curve.at(first))
    return true_run(args.name, curve, sorted([*turns, 0.0]), FITTED["conic"] * wide)


def _draw(
    args: Args, given: _Given, curve: Conic, turns: Sequence[float], shape: Loop, work: Work
) -> None:
    """A slanted line over the axis has, over every place, the distance from the focus that belongs
    to its distance from the directrix."""
    name, clause = args.name, args.need("directrix")
    focus = work.mark(given.focus, args.need("focus").ref("focus").text)
    directrix = work.edge(clause.line("directrix"), clause.ref("directrix").text)
    axis = work.square(directrix, focus, given.foot, f"the axis of {name}")
    foot = work.prick(axis, directrix, given.foot, f"the foot of the axis of {name}")
    vertex = _vertex(given, foot, focus, axis, name, work)
    square = work.square(axis, vertex, called="the square at the vertex")
    top_at = vertex.at + given.ahead.normal * abs(given.focus - given.vertex)
    swing = work.swing(vertex, work.between(vertex, focus), near=[top_at])
    top = work.prick(swing, square, top_at, "as high as the focus is far")
    slant = work.through(foot, top, f"the line of the ratio of {name}")
    marks: dict[float, Mark] = {0.0: vertex}
    if not isinstance(curve, Parabola):
        other = _other(given, focus, axis, slant, name, work)
        _offer(work, given, curve, axis, (focus, vertex, other), name)
        if isinstance(curve, Ellipse):
            marks[math.pi] = other
    for turn, near in _pairs(curve, turns):
        spots = [curve.at(each) for each in near]
        at = axis.line.foot(curve.at(turn))
        station = work.anywhere(axis, at, "any part of the axis")
        upright = work.square(axis, station, max(spots, key=lambda spot: abs(spot - at)))
        high_at = at + given.ahead.normal * (float(given.ratio) * abs(at - given.foot))
        high = work.prick(upright, slant, high_at, "its height on the line of the ratio")
        ring = work.swing(focus, work.between(station, high), near=spots)
        for each, spot in zip(near, spots, strict=True):
            number = str(list(turns).index(each) + 1)
            marks[each] = work.prick(ring, upright, spot, f"{name}.station.{number}", label=number)
    ordered = [marks[turn] for turn in sorted(marks)]
    work.trace(ordered, shape, name, check="it is square to the axis at the vertex")


def _pairs(curve: Conic, turns: Sequence[float]) -> list[tuple[float, tuple[float, float]]]:
    """Return the places constructed two by two: those over and under one part of the axis."""
    whole = math.tau if isinstance(curve, Ellipse) else 0.0
    half = [turn for turn in turns if (turn < math.pi if whole else turn > 0)]
    return [(turn, (turn, _nearest(turns, whole - turn))) for turn in half]


def _nearest(turns: Sequence[float], wanted: float) -> float:
    return min(turns, key=lambda turn: abs(turn - wanted))


def _vertex(given: _Given, foot: Mark, focus: Mark, axis: Edge, name: str, work: Work) -> Mark:
    """Part the way from directrix to focus in the ratio."""
    ratio = given.ratio
    parts = Fraction(ratio) if isinstance(ratio, int | Fraction) else None
    count = parts.numerator + parts.denominator if parts else 0
    if parts and count <= FEW:
        names = [f"part {index} of the way to the focus" for index in range(1, count)]
        names[parts.denominator - 1] = f"{name}.vertex"
        return divide(work, foot, focus, count, names)[parts.denominator - 1]
    size = given.apart / (1 + float(ratio))
    return work.measure(foot, away(axis, foot, given.vertex), size, f"{name}.vertex", given.vertex)


def _other(given: _Given, focus: Mark, axis: Edge, slant: Edge, name: str, work: Work) -> Mark:
    """The line at 45° through the focus meets the slanted one over the other vertex: there it is as
    far from the focus as it is high."""
    over = given.other + given.ahead.normal * (given.other - given.focus).dot(given.ahead)
    half = work.draw(focus, Way(45, axis.key, axis.called), over, "the line at 45° from the focus")
    crossing = work.prick(half, slant, over, "where it meets the line of the ratio")
    down = work.square(axis, crossing, given.other)
    return work.prick(down, axis, given.other, f"the other vertex of {name}")


def _offer(
    work: Work,
    given: _Given,
    curve: Ellipse | Hyperbola,
    axis: Edge,
    marks: tuple[Mark, Mark, Mark],
    name: str,
) -> None:
    """Say how centre, other focus and the ends of the short axis are found, should they be
    wanted."""
    focus, vertex, other = marks
    offer_middle(work, vertex.at, other.at, f"{name}.centre")

    def far(later: Work, spot: Point) -> Mark:
        centre = later.mark(curve.centre, f"{name}.centre")
        swing = later.swing(centre, later.between(centre, focus), near=[spot])
        return later.prick(swing, axis, spot, f"the other focus of {name}")

    def end(later: Work, spot: Point) -> Mark:
        centre = later.mark(curve.centre, f"{name}.centre")
        square = later.square(axis, centre, spot)
        swing = later.swing(focus, later.between(centre, vertex), near=[spot])
        return later.prick(swing, square, spot, f"an end of the short axis of {name}")

    work.offer(curve.centre * 2 - given.focus, partial(far, spot=curve.centre * 2 - given.focus))
    if isinstance(curve, Ellipse):
        for side in (1, -1):
            spot = curve.centre + curve.across * side
            work.offer(spot, partial(end, spot=spot))


ABOUT = """\
Every place has one ratio of its distances from `focus` and `directrix`, the `eccentricity`: below
1 an ellipse, 1 a parabola, above 1 a hyperbola, of which the branch about the focus is drawn. The
last two reach as far as a `width`, or a `height` from the vertex along the axis. Parts `focus`,
`vertex`, `axis`, `directrix`, `station.1` and so on; of an ellipse or hyperbola `centre`,
`other_vertex`, `other_focus`.
"""

SHOWN = """\
units mm
O = datum
d = line, through O, plumb
F = point, 50 right of O
oval = conic, focus F, directrix d, eccentricity 2/3
horn = conic, focus F, directrix d, eccentricity 3/2, height 60
"""

KIND = Kind(
    name="conic",
    group="Curves",
    summary="ellipse, parabola or hyperbola from focus, directrix and eccentricity",
    example="oval = conic, focus F, directrix d, eccentricity 2/3",
    mistake="The ratio is taken upside down: the distance from the focus comes first.",
    also=("eccentricity", "conic section"),
    forms=(
        Form("focus {focus:point}", "focus", needed=True),
        Form("directrix {directrix:line}", "directrix", needed=True),
        Form("eccentricity {ratio:length}", "eccentricity", needed=True),
        Form("width {size:length}", "width"),
        Form("height {size:length}", "height"),
        Form("{count:count} parts", "parts"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
