"""``line``: through two points; through one level, plumb, at an angle, parallel or square; touching circles."""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import replace
from functools import partial
from itertools import product

from ..geometry import Arc, Circle, Line, Point, meet, polar
from ..kind import CHOICES, Args, Candidate, Kind, Made, Option, Said, Step, Stroke, Tool, choose
from ..kind.classic import parallel_by_sliding, square_at, square_from, tangent_from
from ..kind.figure import Ref
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a straight line from any two sufficient conditions."""
    span, throughs, touchings = args.get("from"), args.all("through"), args.all("touching")
    both = args.get("pair of circles")
    directions = args.all("level", "plumb", "at", "parallel", "square")
    if args.get("for", "to"):
        return _limited(args, throughs, directions)
    if span:
        if throughs or touchings or directions:
            raise ClauseError("a line from a point to a point needs nothing more", span.clause)
        return _two_points(args, span.ref("start"), span.ref("finish"))
    if both:
        if throughs or touchings or directions:
            raise ClauseError("a line touching two circles needs nothing more", both.clause)
        return _touching(args, both.ref("first"), both.ref("second"))
    count = len(throughs) + len(touchings) + len(directions)
    if count != 2:
        raise ClauseError(
            f"a line needs two conditions and has {count}: two points, a point and a direction, or circles to touch"
        )
    if len(throughs) == 2:
        return _two_points(args, throughs[0].ref("point"), throughs[1].ref("point"))
    if len(touchings) == 2:
        return _touching(args, touchings[0].ref("circle"), touchings[1].ref("circle"))
    if throughs and touchings:
        return _touching(args, throughs[0].ref("point"), touchings[0].ref("circle"))
    if throughs:
        return _directed(args, throughs[0].ref("point"))
    raise ClauseError("say a point the line goes through, such as  through A", directions[0].clause)


HANDY = 20.0
"""Compass opening where any will do, mm."""


def _two_points(args: Args, first: Ref, second: Ref) -> Made:
    a, b = first.shape, second.shape
    assert isinstance(a, Point)
    assert isinstance(b, Point)
    if abs(b - a) <= same(max(abs(a), abs(b))):
        raise ClauseError(f"{first.text} and {second.text} are the same place: a line needs two")
    line = Line.between(a, b)
    return Made(
        line,
        f"Line {args.name} from {first.text} to {second.text}.",
        (f"length {args.say(abs(b - a))}, at {spell_angle(math.degrees(line.direction.angle) % 180)}",),
        (
            Step(
                Tool.STRAIGHTEDGE,
                f"Join {first.text} and {second.text} lightly",
                strokes=(Stroke(line),),
                check=f"measure {first.text} to {second.text}: {args.say(abs(b - a))} at full size",
            ),
        ),
        _parts(line),
    )


def _directed(args: Args, point: Ref) -> Made:
    place = point.shape
    assert isinstance(place, Point)
    clause = args.need("level", "plumb", "at", "parallel", "square")
    if clause.key in ("parallel", "square"):
        model = clause.ref("line")
        assert isinstance(model.shape, Line)
        direction = model.shape.direction if clause.key == "parallel" else model.shape.direction.normal
        said = f"{clause.key} to {model.text}"
        degrees: float = math.degrees(direction.angle) % 180
    else:
        exact = {"level": 0, "plumb": 90}.get(clause.key)
        degrees = clause.length("angle").value if exact is None else exact  # type: ignore[assignment]
        direction = _exact_direction(float(degrees))
        said = clause.key if exact is not None else f"at {spell_angle(degrees)}"
    line = Line(place, direction)
    opened = None
    if clause.key in ("parallel", "square"):
        model_line = clause.line("line")
        foot = model_line.foot(place)
        off = abs(foot - place) > same(abs(place))
        if clause.key == "parallel" and off:
            opened = partial(parallel_by_sliding, model_line, place, Stroke(line))
        elif clause.key == "square":
            opened = (
                partial(square_from, place, foot, Stroke(line))
                if off
                else partial(square_at, place, model_line.direction, HANDY / float(args.unit.mm), Stroke(line))
            )
    how = "Slide two set squares: draw" if clause.key in ("parallel", "square") else "Draw"
    return Made(
        line,
        f"Line {args.name} through {point.text}, {said}.",
        steps=(
            Step(
                Tool.ANGLE,
                f"{how} a light line through {point.text}, {said}",
                degrees,
                strokes=(Stroke(line),),
                opened=opened,
            ),
        ),
    )


def _limited(args: Args, throughs: list[Said], directions: list[Said]) -> Made:
    """From a point in a direction, for a length or up to a curve."""
    if len(throughs) != 1 or len(directions) != 1:
        raise ClauseError("a line of limited length starts from one point in one direction")
    made, start = _directed(args, throughs[0].ref("point")), throughs[0].point("point")
    ray, bound = made.shape, args.need("for", "to")
    assert isinstance(ray, Line)
    candidates: tuple[Candidate, ...] = ()
    if bound.key == "for":
        end = ray.at(float(bound.length("length")))
        told = f"for {args.say(bound.length('length').value)}"
    else:
        target, name = bound.shape("curve"), bound.ref("curve").text
        assert not isinstance(target, Point)
        options = [
            Option(m.point, m.point, "end") for m in meet(ray, target) if abs(m.point - start) > same(abs(start))
        ]
        if not options:
            raise ClauseError(f"the line never comes to {name}", bound.clause)
        ahead = [o for o in options if ray.along(o.spot) > 0]
        index, candidates = choose(ahead if len(ahead) == 1 else options, args, "end")
        end = (ahead if len(ahead) == 1 else options)[index].spot
        told = f"to {name}"
    if abs(end - start) <= same(abs(start)):
        raise ClauseError("the line has no length", bound.clause)
    line = Line.between(start, end)
    step = replace(
        made.steps[0], strokes=(Stroke(line),), check=f"it is {args.say(abs(end - start))} long at full size"
    )
    return replace(
        made,
        shape=line,
        sentence=f"{made.sentence[:-1]}, {told}.",
        steps=(step,),
        parts=_parts(line),
        candidates=candidates,
    )


def _exact_direction(degrees: float) -> Point:
    """Return a direction with the quarter turns exact."""
    quarters = {0.0: Point(1.0, 0.0), 90.0: Point(0.0, 1.0), 180.0: Point(-1.0, 0.0), 270.0: Point(0.0, -1.0)}
    return quarters.get(degrees % 360) or polar(1.0, math.radians(degrees))


def _touching(args: Args, first: Ref, second: Ref) -> Made:
    """Common tangents: their normal makes ±acos((r1 ∓ r2)/d) with the line of centres; a point has r = 0."""
    centres, radii = zip(*((_centre(ref), _radius(ref)) for ref in (first, second)), strict=True)
    between = centres[1] - centres[0]
    distance = abs(between)
    size = max(*radii, distance)
    if distance <= same(size):
        raise ClauseError(f"{first.text} and {second.text} have the same centre: no line touches both")
    options, touches = [], []
    for crossed, side in product((False, True), (1, -1)):
        if crossed and min(radii) == 0:
            continue
        reach = radii[0] + radii[1] if crossed else radii[0] - radii[1]
        if abs(reach) > distance - same(size):
            continue
        normal = polar(1.0, between.angle + side * math.acos(reach / distance))
        ends = (centres[0] + normal * radii[0], centres[1] + normal * (-radii[1] if crossed else radii[1]))
        line = Line.between(*ends)
        kind = "crossed" if crossed else "outer"
        options.append(Option(line, ends[0] if radii[0] else ends[1], f"{kind} tangent", frozenset({kind})))
        touches.append(ends)
    if not options:
        raise ClauseError(
            f"no line touches both: {first.text} and {second.text} lie one inside the other "
            f"({args.say(distance)} apart, radii {args.say(radii[0])} and {args.say(radii[1])})"
        )
    index, candidates = choose(options, args, "line")
    chosen = options[index].shape
    assert isinstance(chosen, Line)
    marks = dict(zip((first.text, second.text), touches[index], strict=True))
    square = [
        Step(
            Tool.ANGLE,
            f"Square to the line, through the centre of {ref.text}, mark the touch point",
            math.degrees(line.direction.normal.angle) % 180,
            strokes=(Stroke(Line.between(_centre(ref), marks[ref.text])), Stroke(marks[ref.text])),
            check="the line goes past the circle, it does not cut it",
        )
        for ref in (first, second)
        if _radius(ref) > 0
    ]
    touched = {f"touch.{ref.text}": marks[ref.text] for ref in (first, second) if _radius(ref) > 0}
    passing = "through" if radii[0] == 0 else "touching"
    return Made(
        chosen,
        f"Line {args.name} {passing} {first.text} and touching {second.text}, {options[index].about}.",
        (f"touch points {args.say(abs(chosen.at(0) - marks[second.text]))} apart",),
        (
            Step(
                Tool.STRAIGHTEDGE,
                f"Lay the edge {'through' if radii[0] == 0 else 'against'} {first.text} and against {second.text}, "
                "draw lightly",
                strokes=(Stroke(chosen),),
                opened=_opened(first, second, touches[index], Stroke(chosen)),
            ),
            *square,
        ),
        {**_parts(chosen), **touched},
        candidates=candidates,
    )


def _opened(first: Ref, second: Ref, touches: tuple[Point, Point], result: Stroke) -> Callable[[], tuple[Step, ...]]:
    """Return how the tangent is constructed: from a point directly, of two circles after shrinking one to a point.

    A circle about the larger centre, of the difference of the radii (the sum for a crossed tangent), takes the place
    of the larger one; the tangent to it from the other centre is parallel to the one wanted.
    """
    refs, spots = (first, second), touches
    if _radius(first) > _radius(second):
        refs, spots = (second, first), (touches[1], touches[0])
    point, other = _centre(refs[0]), refs[1]
    centre = _centre(other)
    if _radius(refs[0]) == 0:
        return partial(tangent_from, point, Circle(centre, _radius(other)), spots[1], result)
    inner = spots[1] - (spots[0] - point)
    helper = Circle(centre, abs(inner - centre))

    def steps() -> tuple[Step, ...]:
        if helper.radius <= same(abs(spots[1])):
            return (*square_at(point, (centre - point).unit, abs(spots[0] - point) / 2, Stroke(spots[0])),
                    Step(Tool.STRAIGHTEDGE, "Join the touch points", strokes=(result,)))  # fmt: skip
        light = Stroke(Line.between(point, inner))
        return (
            Step(Tool.COMPASS, f"Needle on the centre of {other.text}, draw a circle of the "
                 f"{'sum' if helper.radius > _radius(other) else 'difference'} of the radii", helper.radius, centre,
                 (Stroke(helper),)),
            *tangent_from(point, helper, inner, light),
            *parallel_by_sliding(Line.between(point, inner), spots[1], result),
        )  # fmt: skip

    return steps


def _centre(ref: Ref) -> Point:
    if isinstance(ref.shape, Circle | Arc):
        return ref.shape.centre
    assert isinstance(ref.shape, Point)
    return ref.shape


def _radius(ref: Ref) -> float:
    return ref.shape.radius if isinstance(ref.shape, Circle | Arc) else 0.0


def _parts(line: Line) -> dict[str, Point]:
    assert line.start is not None
    assert line.end is not None
    return {"start": line.at(line.start), "end": line.at(line.end), "middle": line.at((line.start + line.end) / 2)}


KIND = Kind(
    name="line",
    group="Lines",
    summary="through points, level, plumb, at an angle, parallel, square, or touching circles",
    example="edge = line, through A, at 30°",
    mistake="A tangent is laid by eye and cuts the circle a little: find the touch points square to the line, "
    "and draw to them.",
    forms=(
        Form("from {start:point} to {finish:point}"),
        Form("through {start:point} [and] {finish:point}", "from"),
        Form("through {point:point}", most=2),
        Form("from {point:point}", "through", most=2),
        Form("for {length:length}"),
        Form("to {curve:curve}"),
        Form("level"),
        Form("plumb"),
        Form("at {angle:angle}"),
        Form("parallel to {line:line}", "parallel"),
        Form("square to {line:line}", "square"),
        Form("touching {circle:circle}", most=2),
        Form("touching {first:circle} [and] {second:circle}", "pair of circles"),
        Form("{pair:outer/crossed}", "pair", choice=True),
        *CHOICES,
        # Last, so that no word of the forms above is taken for a point.
        Form("{start:point} [to] {finish:point}", "from"),
    ),
    construct=construct,
)
