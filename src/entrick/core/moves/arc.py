"""``arc``: a given radius and any two conditions; its centre is found by crossing two loci."""

from __future__ import annotations

import math
from collections.abc import Callable
from functools import partial

from ..acts import Work
from ..acts.procedures import locus, touch_on
from ..geometry import Arc, Circle, Line, Point, reflect, support
from ..geometry.locus import (
    Locus,
    Tangency,
    around,
    beside,
    centred_on,
    inside,
    limit,
    tangencies,
    through,
    touching_line,
)
from ..kind import CHOICES, Args, ClauseValues, Kind, Made, Option, choose
from ..kind.choosing import BEYOND, sides_of
from ..kind.figure import Ref
from ..measure import Number
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import DIRECTION, same

CONDITIONS = ("beside", "around", "inside", "touching", "through", "centred")


def construct(args: Args, keep: Callable[[Tangency], bool] | None = None) -> Made:
    """Construct an arc of given radius that meets two conditions.

    Parameters
    ----------
    args : Args
    keep : callable, optional
        Which solutions are meant, where some are; all of them otherwise.

    Returns
    -------
    Made
        Parts ``centre``, ``start``, ``end``, ``middle`` and ``touch.NAME`` for everything touched;
        candidates when several arcs fit.

    Raises
    ------
    ClauseError
        When no arc fits, with the limiting radius; `Undecided` when several do and no word chooses.
    """
    clauses = _conditions(args)
    size = args.need("radius").length("radius").value
    if len(clauses) != 2:
        raise (Wanting if len(clauses) < 2 else ClauseError)(
            f"an arc of given radius needs two conditions and has {len(clauses)}: "
            "beside, around, inside or touching something, through a point, or centred on a line "
            "or circle"
        )
    loci = [_loci(args, clause, size) for clause in clauses]
    _refuse_concentric(args, clauses, loci)
    found = tangencies(loci[0], loci[1], size)
    if not found:
        raise ClauseError(_why_none(args, clauses, loci, size), clauses[1].index)
    if keep is not None:
        found = tuple(filter(keep, found)) or found
    long = any(s.word("span") == "long" for s in args.all("span"))
    options = [
        (tangency, option)
        for tangency in found
        for option in _options(tangency, clauses, size, long)
    ]
    index, candidates = choose([option for _, option in options], args, "arc")
    tangency, shape = options[index][0], options[index][1].shape
    assert isinstance(shape, Arc | Circle)
    touched = {
        f"touch.{clause.ref('target').text}": point
        for clause, point in zip(clauses, tangency.touches, strict=True)
        if point is not None and clause.key != "through"
    }
    ends = (
        {"start": shape.first, "end": shape.last, "middle": shape.middle}
        if isinstance(shape, Arc)
        else {}
    )
    return Made(
        shape,
        f"Arc {args.name} of radius {args.say(size)}, "
        f"{' and '.join(_words(clause) for clause in clauses)}" + _lying(args) + ".",
        tuple(
            _working(args, clause, locus, size)
            for clause, locus in zip(clauses, tangency.loci, strict=True)
        ),
        parts={"centre": tangency.centre, **touched, **ends},
        centre_name=f"{args.name}.centre",
        candidates=candidates,
        draw=partial(_draw, args, clauses, tangency, shape),
    )


def _conditions(args: Args) -> list[ClauseValues]:
    """Return the conditions; ``around a`` beside ``touching a`` says how it touches, and is no
    condition of its own."""
    clauses = args.all(*CONDITIONS)
    touched = {clause.ref("target").text for clause in clauses if clause.key == "touching"}
    return [
        clause
        for clause in clauses
        if clause.key == "touching" or clause.ref("target").text not in touched
    ]


def _loci(args: Args, clause: ClauseValues, size: Number) -> list[Locus]:
    target = clause.ref("target")
    match clause.key, target.shape:
        case "through", Point() as point:
            return [through(point, size)]
        case "centred", (Line() | Circle() | Arc()) as curve:
            return [centred_on(support(curve))]
        case "touching", Line() as line:
            return list(touching_line(support(line), size))  # type: ignore[arg-type]
        case key, (Circle() | Arc()) as round_:
            circle = Circle(round_.centre, round_.radius, round_.exact)
            return _round_loci(args, clause, key, target, circle, size)
    raise TypeError(clause.key)


def _round_loci(
    args: Args, clause: ClauseValues, key: str, target: Ref, circle: Circle, size: Number
) -> list[Locus]:
    equal = abs(float(size) - circle.radius) <= same(circle.radius)
    if key == "touching":
        grown = (
            [] if equal else [around(circle, size) if size > circle.size else inside(circle, size)]
        )
        return [beside(circle, size), *grown]
    if key == "beside":
        return [beside(circle, size)]
    bigger = float(size) > circle.radius
    if equal or bigger != (key == "around"):
        other = "inside" if key == "around" else "around"
        bound = "larger" if key == "around" else "smaller"
        raise ClauseError(
            f"an arc {key} {target.text} must be {bound} than its radius {args.say(circle.size)}; "
            f"{args.say(size)} is not",
            clause.index,
            None if equal else (key, other),
        )
    return [around(circle, size) if key == "around" else inside(circle, size)]


def _refuse_concentric(args: Args, clauses: list[ClauseValues], loci: list[list[Locus]]) -> None:
    first, second = loci[0][0].curve, loci[1][0].curve
    names = [clause.ref("target").text for clause in clauses]
    if isinstance(first, Circle) and isinstance(second, Circle):
        size = max(first.radius, second.radius)
        if size > same(1.0) and abs(first.centre - second.centre) <= same(size):
            radii = [[locus.curve.radius for locus in each] for each in loci[:2]]  # type: ignore[union-attr]
            if any(abs(one - other) <= same(size) for one in radii[0] for other in radii[1]):
                raise ClauseError(
                    f"{names[0]} and {names[1]} share their centre, and arcs fit all the way "
                    "round: "
                    "give a condition that fixes the place",
                    clauses[1].index,
                )
            raise ClauseError(
                f"{names[0]} and {names[1]} share their centre: swings of "
                f"{args.say(loci[0][0].swing)} "
                f"and {args.say(loci[1][0].swing)} about it never cross",
                clauses[1].index,
            )


def _why_none(
    args: Args, clauses: list[ClauseValues], loci: list[list[Locus]], size: Number
) -> str:
    one, other = loci[0][0], loci[1][0]
    names = [clause.ref("target").text for clause in clauses]
    limits = [limit(a, b) for a in loci[0] for b in loci[1]]
    possible = [bound for bound in limits if not bound.never]
    if isinstance(one.curve, Circle) and isinstance(other.curve, Circle):
        apart = abs(other.curve.centre - one.curve.centre)
        words = (
            f"swings of {args.say(one.swing)} and {args.say(other.swing)} cannot meet across "
            f"{args.say(apart)}"
        )
    else:
        words = f"no arc of {args.say(size)} reaches both {names[0]} and {names[1]}"
    if not possible:
        return f"{words}: no radius would do; change a contact or move {names[1]}"
    least = min((b.least or 0.0 for b in possible), default=0.0)
    greatest = [b.greatest for b in possible]
    if float(size) < least:
        return f"{words}: the radius must be at least {args.say(least)}"
    top = None if None in greatest else max(g for g in greatest if g is not None)
    if top is not None and float(size) > top:
        return f"{words}: the radius may be at most {args.say(top)}"
    return f"{words}: move {names[1]}"


def _options(
    tangency: Tangency, clauses: list[ClauseValues], size: Number, long: bool
) -> list[Option]:
    """Return the arc about a centre; both halves where neither way round is the longer."""
    circle = Circle(tangency.centre, float(size), size)
    start, end = tangency.touches
    about = ", ".join(
        f"{locus.contact} {clause.ref('target').text}"
        for locus, clause in zip(tangency.loci, clauses, strict=True)
    )
    contacts = {
        clause.ref("target").text: locus.contact
        for locus, clause in zip(tangency.loci, clauses, strict=True)
        if clause.key == "touching" and locus.contact in ("beside", "around", "inside")
    }
    each = {f"{contact} {name}" for name, contact in contacts.items()}
    for clause in clauses:
        line = clause.ref("target").shape
        if clause.key == "touching" and isinstance(line, Line):
            each |= sides_of(line, clause.ref("target").text, tangency.centre)
    traits = frozenset(
        each | (set(contacts.values()) if len(set(contacts.values())) == 1 else set())
    )
    if start is None or end is None or abs(start - end) <= same(float(size)):
        return [Option(circle, tangency.centre, about, traits)]
    arc = Arc.between(circle, start, end, long)
    if abs(abs(arc.sweep) - math.pi) <= DIRECTION:
        halves = (arc, Arc.between(circle, start, end, not long))
        return [Option(half, half.centroid, about, traits) for half in halves]
    return [Option(arc, arc.centroid, about, traits, None if long else _said_to_lie(tangency, arc))]


def _said_to_lie(tangency: Tangency, arc: Arc) -> Point | None:
    """Return where an arc lies for words of place: on the side of the line of centres on which both
    its touches are.

    A blend beside two eyes that stand far apart for its radius dips across their line of centres,
    and its middle comes to lie on the other side; it is still the upper one of the two."""
    first, second = (locus.target for locus in tangency.loci)
    match first, second:
        case ((Circle(centre=a) | (Point() as a)), (Circle(centre=b) | (Point() as b))) if a != b:
            axis = Line.between(a, b)
        case ((Circle(centre=a) | (Point() as a)), Line(direction=along)):
            axis = Line(a, along.normal)
        case Line(direction=along), (Circle(centre=b) | (Point() as b)):
            axis = Line(b, along.normal)
        case _:
            return None
    sides = [axis.offset_of(touch) for touch in tangency.touches if touch is not None]
    lies = axis.offset_of(arc.centroid)
    least = same(arc.radius)
    if any(side * lies >= 0 for side in sides if abs(side) > least) or all(
        abs(side) <= least for side in sides
    ):
        return None
    return reflect(arc.centroid, axis)


def _words(clause: ClauseValues) -> str:
    return f"{'centred on' if clause.key == 'centred' else clause.key} {clause.ref('target').text}"


def _lying(args: Args) -> str:
    words = [clause.word("where") for clause in args.all("where")]
    return f", lying {' '.join(words)}" if words else ""


def _working(args: Args, clause: ClauseValues, locus: Locus, size: Number) -> str:
    target = clause.ref("target")
    radius = args.say(size)
    swing = args.say(locus.swing) if isinstance(locus.curve, Circle) else ""
    match locus.contact, locus.target:
        case "beside", Circle() as circle:
            return f"{radius} + {args.say(circle.size)} = {swing}: swing from {target.centre_name}"
        case "around", Circle() as circle:
            return f"{radius} − {args.say(circle.size)} = {swing}: swing from {target.centre_name}"
        case "inside", Circle() as circle:
            return f"{args.say(circle.size)} − {radius} = {swing}: swing from {target.centre_name}"
        case "through", _:
            return f"{radius} from {target.text}: the centre is a radius away from it"
        case "touching", _:
            return f"a parallel to {target.text} at {radius}: the centre lies on it"
    return f"the centre lies on {target.text}"


def _draw(
    args: Args, clauses: list[ClauseValues], tangency: Tangency, shape: Arc | Circle, work: Work
) -> None:
    """Cross the two loci in the centre, mark where it touches, swing from touch to touch."""
    named = [(clause.ref("target").text, clause.ref("target").centre_name) for clause in clauses]
    centre, called = tangency.centre, f"{args.name}.centre"
    things = [
        locus(work, each, names, centre) for each, names in zip(tangency.loci, named, strict=True)
    ]
    first, second = things
    mark = (
        work.mark(centre, called)
        if first is None or second is None
        else work.prick(
            first, second, centre, called, check="the needle must hold here, so prick it lightly"
        )
    )
    for clause, where, spot in zip(clauses, tangency.loci, tangency.touches, strict=True):
        if spot is not None and clause.key != "through":
            name = clause.ref("target").text
            assert isinstance(where.target, Line | Circle)
            touch_on(work, mark, where.target, spot, name, f"{args.name}.touch.{name}")
    work.swing(
        mark,
        shape.size,
        args.name,
        shape=shape,
        check="it runs into what it touches without a corner and does not cross it",
    )


ABOUT = """\
A `radius` and **any two** of: `beside` a circle (centre at R + r), `around` it (R − r),
`inside` it (r − R), `touching` a line or circle, `through` a point, `centred on` a line or
circle. Runs from touch to touch, the short way unless `long`. Parts `centre`, `start`, `end`,
`middle`, `touch.NAME`. What cannot be is explained with the limiting radius.
"""

SHOWN = """\
units mm
O = datum
A = point, 70 left of O
B = point, 70 right of O
c = circle, centre A, radius 30
d = circle, centre B, radius 20
floor = line, through O, level
one = arc, radius 100, around c, beside d, above
two = arc, radius 80, through O, beside c, left, above
three = arc, radius 25, touching floor, beside d, above, left
four = arc, radius 110, centred on floor, around c, right
"""

KIND = Kind(
    name="arc",
    group="Circles and arcs",
    summary="a given radius and two of: beside, around, inside, touching, through, centred on",
    example="top = arc, radius 140, around eyeA, around eyeB, above",
    mistake="Sum for difference: an arc beside a circle has its centre at R + r, one that goes "
    "around it at R − r. "
    "The arc over the top has its centre below.",
    also=("blend", "radius", "curve"),
    forms=(
        Form("radius {radius:radius}", needed=True),
        *(
            Form(f"{contact} {{target:circle}}", most=2)
            for contact in ("beside", "around", "inside")
        ),
        Form("touching {target:curve}", most=2),
        Form("through {target:point}", most=2),
        Form("centred on {target:curve}", "centred", most=2),
        Form("{span:short/long}", "span"),
        Form("{contact:beside/around/inside}", "contact", choice=True),
        BEYOND,
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
