"""``line``: through two points; through one level, plumb, at an angle, parallel or square; touching
circles."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import partial
from itertools import product

from ..acts import Edge, Round, Way, Work
from ..acts.procedures import offer_middle, tangent_from, tangent_to_both
from ..acts.shapes import draw
from ..geometry import Arc, Circle, Line, Point, meet, polar
from ..kind import CHOICES, Args, Candidate, ClauseValues, Kind, Made, Option, choose
from ..kind.figure import Ref
from ..measure import spell_angle
from ..plan.errors import ClauseError, Wanting
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
            raise ClauseError("a line from a point to a point needs nothing more", span.index)
        return _two_points(args, span.ref("start"), span.ref("finish"))
    if both:
        if throughs or touchings or directions:
            raise ClauseError("a line touching two circles needs nothing more", both.index)
        return _touching(args, both.ref("first"), both.ref("second"))
    count = len(throughs) + len(touchings) + len(directions)
    if count != 2:
        raise (Wanting if count < 2 else ClauseError)(
            f"a line needs two conditions and has {count}: two points, a point and a direction, "
            "or circles to touch"
        )
    if len(throughs) == 2:
        return _two_points(args, throughs[0].ref("point"), throughs[1].ref("point"))
    if len(touchings) == 2:
        return _touching(args, touchings[0].ref("circle"), touchings[1].ref("circle"))
    if throughs and touchings:
        return _touching(args, throughs[0].ref("point"), touchings[0].ref("circle"))
    if throughs:
        return _directed(args, throughs[0].ref("point"))
    if touchings and directions:
        return _touching_directed(args, touchings[0].ref("circle"))
    raise ClauseError("say a point the line goes through, such as  through A", directions[0].index)


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
        (
            f"length {args.say(abs(b - a))}, at "
            f"{spell_angle(math.degrees(line.direction.angle) % 180)}",
        ),
        parts=_parts(line),
        draw=partial(_draw_two, args, first, second, line),
    )


def _directed(args: Args, point: Ref) -> Made:
    place = point.shape
    assert isinstance(place, Point)
    direction, said = _direction(args)
    line = Line(place, direction)
    return Made(
        line,
        f"Line {args.name} through {point.text}, {said}.",
        draw=partial(_draw_whole, args, point, line),
    )


def _touching_directed(args: Args, circle: Ref) -> Made:
    """Construct a line in a direction that touches a circle: it lies a radius square to the
    direction from the centre."""
    centre, radius = _centre(circle), _radius(circle)
    direction, said = _direction(args)
    touches = [centre + direction.normal * side * radius for side in (1, -1)]
    options = [Option(Line(touch, direction), touch, "tangent") for touch in touches]
    index, candidates = choose(options, args, "line")
    line, touch = options[index].shape, touches[index]
    assert isinstance(line, Line)
    return Made(
        line,
        f"Line {args.name} touching {circle.text}, {said}.",
        parts={f"touch.{circle.text}": touch},
        candidates=candidates,
        draw=partial(_draw_touching_directed, args, circle, touch, line),
    )


def _direction(args: Args) -> tuple[Point, str]:
    """Return the direction that is given, and how it is said."""
    clause = args.need("level", "plumb", "at", "parallel", "square")
    if clause.key in ("parallel", "square"):
        model = clause.ref("line")
        assert isinstance(model.shape, Line)
        direction = (
            model.shape.direction if clause.key == "parallel" else model.shape.direction.normal
        )
        return direction, f"{clause.key} to {model.text}"
    exact = {"level": 0, "plumb": 90}.get(clause.key)
    degrees = clause.length("angle").value if exact is None else exact
    direction = _exact_direction(float(degrees))
    return direction, clause.key if exact is not None else f"at {spell_angle(degrees)}"


def _limited(args: Args, throughs: list[ClauseValues], directions: list[ClauseValues]) -> Made:
    """From a point in a direction, for a length or up to a curve."""
    if len(throughs) != 1 or len(directions) != 1:
        raise ClauseError("a line of limited length starts from one point in one direction")
    made, start = _directed(args, throughs[0].ref("point")), throughs[0].point("point")
    ray, bound = made.shape, args.need("for", "to")
    assert isinstance(ray, Line)
    candidates: tuple[Candidate, ...] = ()
    if bound.key == "for":
        end = ray.at(float(bound.length("length")))
        words = f"for {args.say(bound.length('length').value)}"
    else:
        target, name = bound.shape("curve"), bound.ref("curve").text
        assert not isinstance(target, Point)
        options = [
            Option(m.point, m.point, "end")
            for m in meet(ray, target)
            if abs(m.point - start) > same(abs(start))
        ]
        if not options:
            raise ClauseError(f"the line never comes to {name}", bound.index)
        ahead = [o for o in options if ray.along(o.spot) > 0]
        index, candidates = choose(ahead if len(ahead) == 1 else options, args, "end")
        end = (ahead if len(ahead) == 1 else options)[index].spot
        words = f"to {name}"
    if abs(end - start) <= same(abs(start)):
        raise ClauseError("the line has no length", bound.index)
    line = Line.between(start, end)
    return replace(
        made,
        shape=line,
        sentence=f"{made.sentence[:-1]}, {words}.",
        parts=_parts(line),
        candidates=candidates,
        draw=partial(_draw_limited, args, throughs[0].ref("point"), bound, line, end),
    )


def _exact_direction(degrees: float) -> Point:
    """Return a direction with the quarter turns exact."""
    quarters = {
        0.0: Point(1.0, 0.0),
        90.0: Point(0.0, 1.0),
        180.0: Point(-1.0, 0.0),
        270.0: Point(0.0, -1.0),
    }
    return quarters.get(degrees % 360) or polar(1.0, math.radians(degrees))


def _touching(args: Args, first: Ref, second: Ref) -> Made:
    """Common tangents: their normal makes ±acos((r1 ∓ r2)/d) with the line of centres; a point has
    r = 0."""
    centres, radii = zip(*((_centre(ref), _radius(ref)) for ref in (first, second)), strict=True)
    between = centres[1] - centres[0]
    distance = abs(between)
    size = max(*radii, distance)
    if distance <= same(size):
        raise ClauseError(
            f"{first.text} and {second.text} have the same centre: no line touches both"
        )
    options, touches = [], []
    for crossed, side in product((False, True), (1, -1)):
        if crossed and min(radii) == 0:
            continue
        reach = radii[0] + radii[1] if crossed else radii[0] - radii[1]
        if abs(reach) > distance - same(size):
            continue
        normal = polar(1.0, between.angle + side * math.acos(reach / distance))
        ends = (
            centres[0] + normal * radii[0],
            centres[1] + normal * (-radii[1] if crossed else radii[1]),
        )
        line = Line.between(*ends)
        kind = "crossed" if crossed else "outer"
        options.append(
            Option(line, ends[0] if radii[0] else ends[1], f"{kind} tangent", frozenset({kind}))
        )
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
    touched = {f"touch.{ref.text}": marks[ref.text] for ref in (first, second) if _radius(ref) > 0}
    passing = "through" if radii[0] == 0 else "touching"
    return Made(
        chosen,
        f"Line {args.name} {passing} {first.text} and touching {second.text}, "
        f"{options[index].about}.",
        (f"touch points {args.say(abs(chosen.at(0) - marks[second.text]))} apart",),
        parts={**_parts(chosen), **touched},
        candidates=candidates,
        draw=partial(_draw_touching, args, (first, second), touches[index], chosen),
    )


def _draw_two(args: Args, first: Ref, second: Ref, line: Line, work: Work) -> None:
    marks = [work.mark(ref.shape, ref.text) for ref in (first, second)]  # type: ignore[arg-type]
    check = (
        f"measure {first.text} to {second.text}: "
        f"{args.say((line.end or 0.0) - (line.start or 0.0))} at full size"
    )
    work.through(marks[0], marks[1], args.name, shown=line, check=check)
    offer_middle(work, marks[0].at, marks[1].at, f"{args.name}.middle")


def _draw_whole(args: Args, point: Ref, line: Line, work: Work) -> None:
    _draw_directed(args, point, line, work)


def _draw_directed(args: Args, point: Ref, line: Line, work: Work) -> Edge:
    mark = work.mark(point.shape, point.text)  # type: ignore[arg-type]
    return work.draw(mark, _way(args, work), called=args.name, shown=line)


def _way(args: Args, work: Work) -> Way:
    """Return how what is held is laid: by a line that is drawn, or by an angle."""
    clause = args.need("level", "plumb", "at", "parallel", "square")
    if clause.key in ("parallel", "square"):
        model = work.edge(clause.line("line"), clause.ref("line").text)
        return Way(0 if clause.key == "parallel" else 90, model.key, model.called)
    degrees = {"level": 0, "plumb": 90}.get(clause.key)
    return Way(clause.length("angle").value if degrees is None else degrees)


def _draw_touching_directed(args: Args, circle: Ref, touch: Point, line: Line, work: Work) -> None:
    round_ = draw(work, circle.shape, circle.text)  # type: ignore[arg-type]
    assert isinstance(round_, Round)
    edge = work.draw_touching(round_, _way(args, work), touch, touch, args.name, shown=line)
    work.touch(round_, edge, touch, f"{args.name}.touch.{circle.text}")


def _draw_limited(
    args: Args, point: Ref, bound: ClauseValues, line: Line, end: Point, work: Work
) -> None:
    edge = _draw_directed(args, point, line, work)
    start, called = work.mark(point.shape, point.text), f"{args.name}.end"  # type: ignore[arg-type]
    if bound.key == "for":
        ahead = edge.line.direction.dot(end - start.at) * float(bound.length("length")) > 0
        way = Way(0 if ahead else 180, edge.key, edge.called)
        work.measure(start, way, bound.length("length").value, called, end)
        return
    target = draw(work, bound.shape("curve"), bound.ref("curve").text)
    assert isinstance(target, Edge | Round)
    work.prick(edge, target, end, called)


def _draw_touching(
    args: Args, refs: tuple[Ref, Ref], touches: tuple[Point, Point], line: Line, work: Work
) -> None:
    if min(map(_radius, refs)) > 0:
        circles = [Circle(ref.shape.centre, ref.shape.radius, ref.shape.exact) for ref in refs]  # type: ignore[union-attr]
        names = [ref.text for ref in refs]
        tangent_to_both(work, circles, names, touches, args.name, line)
        return
    (point, at), (round_, touch) = sorted(
        zip(refs, touches, strict=True), key=lambda pair: _radius(pair[0])
    )
    circle = work.round(round_.shape, round_.text)  # type: ignore[arg-type]
    mark = work.mark(at, point.text)
    tangent_from(work, mark, circle, touch, args.name, f"{args.name}.touch.{round_.text}", line)


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
    return {
        "start": line.at(line.start),
        "end": line.at(line.end),
        "middle": line.at((line.start + line.end) / 2),
    }


ABOUT = """\
Two points (`from O to A`, `through O and A`, `O A`); or a point and `level`, `plumb`, `at 30°`,
`parallel to`, `square to`; or touching circles (`touching c, touching d` or `touching c and d`),
or one circle in a direction (`touching c, level, above`). Parts `start`, `end`, `middle`,
`touch.NAME`.
"""

SHOWN = """\
units mm
O = datum
A = point, 60 right of O
c = circle, centre O, radius 20
d = circle, centre A, radius 12
l = line, from O to A
m = line, through A, plumb
n = line, through A, at -30°
p = line, through O, parallel to n
q = line, through O, square to line O A
over = line, touching c, touching d, outer, above
cross = line, touching c, touching d, crossed, below
slope = line, through A, touching c, above
top = line, touching c, level, above
"""

KIND = Kind(
    name="line",
    group="Lines",
    summary="through points, level, plumb, at an angle, parallel, square, or touching circles",
    example="edge = line, through A, at 30°",
    mistake="A tangent is laid by eye and cuts the circle a little: find the touch points square "
    "to the line, "
    "and draw to them.",
    also=("straight", "edge", "ray", "tangent line"),
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
    about=ABOUT,
    shown=SHOWN,
)
