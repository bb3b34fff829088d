"""``circle``: a centre and a radius or a diameter; or touching any three of points, lines and circles."""

from __future__ import annotations

from ..geometry import Arc, Circle, Line, Point, support
from ..geometry.three import Touching, circles_touching
from ..kind import CHOICES, Args, Kind, Made, Option, Role, Said, Step, Stroke, Tool, choose
from ..kind.choosing import BEYOND, CONTACT, sides_of
from ..kind.classic import bisection
from ..kind.figure import Ref
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a circle about a point, by radius or diameter; or one that touches any three things."""
    touching = args.all("through", "touching")
    if len(touching) == 1 and touching[0].key == "through" and args.get("centre", "concentric"):
        return _through(args, touching[0])
    if touching:
        return _three(args, touching)
    centre = _centre(args)
    radius, diameter = args.get("radius"), args.get("diameter")
    if radius and diameter:
        raise ClauseError("a circle takes a radius or a diameter, not both", diameter.clause)
    working: tuple[str, ...] = ()
    if diameter:
        across = diameter.length("diameter")
        size = across.value / 2
        working = (f"Ø {args.say(across.value)} ÷ 2 = {args.say(size)}: the compass goes by radius",)
        given = f"diameter {args.say(across.value)}"
    elif radius:
        size = radius.length("radius").value
        given = f"radius {args.say(size)}"
    else:
        raise ClauseError("a circle needs a radius or a diameter, or a point it goes through")
    assert isinstance(centre.shape, Point)
    circle = Circle(centre.shape, float(size), size)
    return Made(
        circle,
        f"Circle {args.name} about {centre.text}, {given}.",
        working,
        (_draw(args, circle, centre.text, size),),
        {"centre": centre.shape},
        centre.text,
    )


def _through(args: Args, said: Said) -> Made:
    """Construct a circle about a centre through a point: the needle on the one, opened to the other."""
    size = args.get("radius", "diameter")
    if size:
        raise ClauseError(f"a circle about a centre through a point has its size: no {size.key}", size.clause)
    centre, place, name = _centre(args), said.point("target"), said.ref("target").text
    assert isinstance(centre.shape, Point)
    radius = abs(place - centre.shape)
    if radius <= same(max(abs(place), abs(centre.shape))):
        raise ClauseError(f"{name} is the centre itself: a circle goes through a place beside it", said.clause)
    circle = Circle(centre.shape, radius, radius)
    return Made(
        circle,
        f"Circle {args.name} about {centre.text}, through {name}.",
        (f"radius, from {centre.text} to {name}: {args.say(radius)}",),
        (
            Step(
                Tool.COMPASS,
                f"Needle on {centre.text}, open to {name}, draw circle {args.name} lightly",
                radius,
                circle.centre,
                (Stroke(circle),),
                f"it goes through {name}",
            ),
        ),
        {"centre": circle.centre},
        centre.text,
    )


def _centre(args: Args) -> Ref:
    """Return the centre said: a point, or that of another circle."""
    centre, other = args.get("centre"), args.get("concentric")
    if centre and other:
        raise ClauseError("a circle has one centre: say either the point or the other circle", other.clause)
    if centre:
        return centre.ref("centre")
    if other is None:
        raise ClauseError("circle needs centre (point), or three things to touch or go through")
    shape = other.shape("circle")
    assert isinstance(shape, Circle | Arc)
    return Ref(other.ref("circle").centre_name, shape.centre)


def _three(args: Args, said: list[Said]) -> Made:
    other = args.get("centre", "radius", "diameter")
    if other or len(said) != 3:
        told = f"and has {len(said)}" if not other else f"and no {other.key}"
        raise ClauseError(f"a circle that touches or goes through things needs three of them, {told}", said[-1].clause)
    targets, names = [], [clause.ref("target").text for clause in said]
    for clause in said:
        shape = clause.shape("target")
        targets.append(shape if isinstance(shape, Point) else support(shape))
    found = circles_touching(targets)
    if not found:
        raise ClauseError(f"no circle touches {', '.join(names[:2])} and {names[2]} all at once")
    options = [Option(f.circle, f.circle.centre, _about(f, names), _traits(f, said)) for f in found]
    index, candidates = choose(options, args, "circle")
    chosen = found[index]
    circle = chosen.circle
    touches = zip(said, chosen.touches, strict=True)
    return Made(
        circle,
        f"Circle {args.name}, {_about(chosen, names)}.",
        (
            f"radius {args.say(circle.radius)}",
            f"centre {args.say(circle.centre.x)} across and {args.say(circle.centre.y)} up from the datum",
        ),
        (*_find_centre(args, chosen, names), _draw(args, circle, f"{args.name}.centre", circle.radius)),
        {"centre": circle.centre} | {f"touch.{c.ref('target').text}": p for c, p in touches if c.key == "touching"},
        f"{args.name}.centre",
        candidates,
    )


def _traits(touching: Touching, said: list[Said]) -> frozenset[str]:
    found: set[str] = set()
    for contact, clause in zip(touching.contacts, said, strict=True):
        name, shape = clause.ref("target").text, clause.ref("target").shape
        if isinstance(shape, Line):
            found |= sides_of(shape, name, touching.circle.centre)
        elif contact in ("beside", "around", "inside"):
            found |= {contact, f"{contact} {name}"}
    return frozenset(found)


def _about(touching: Touching, names: list[str]) -> str:
    return ", ".join(f"{contact} {name}" for contact, name in zip(touching.contacts, names, strict=True))


def _find_centre(args: Args, touching: Touching, names: list[str]) -> tuple[Step, ...]:
    """Through three points: bisect two of the chords. Else the centre is set off as worked out."""
    centre = touching.circle.centre
    mark = Stroke(centre, Role.POINT)
    if touching.contacts == ("through",) * 3:
        a, b, c = touching.touches
        middle = (a + b) * 0.5
        # Where the angle at the third point is square the centre is the middle itself: the bisector runs through it.
        end = centre if abs(centre - middle) > same(touching.circle.radius) else middle + (b - a).normal * 0.5
        first = bisection(a, b, (names[0], names[1]), Stroke(Line.between(middle, end)), "run it on")
        second = bisection(b, c, (names[1], names[2]), mark, "mark the centre where it meets the first")
        return (*first, *second)
    return (
        Step(Tool.RULE, "From the datum measure to the right to the centre worked out", centre.x),
        Step(Tool.RULE, "From there measure upwards and mark the centre", centre.y, strokes=(mark,)),
    )


def _draw(args: Args, circle: Circle, centre: str, size: Number) -> Step:
    return Step(
        Tool.COMPASS,
        f"Needle on {centre}, draw circle {args.name} lightly",
        size,
        circle.centre,
        (Stroke(circle),),
        "measure across the finished circle: it is twice the setting",
    )


KIND = Kind(
    name="circle",
    group="Circles and arcs",
    summary="about a centre, by radius, diameter or a point on it; or touching three things",
    example="eye = circle, centre A, diameter 60",
    mistake="The diameter is set on the compass instead of the radius. "
    "Templates go by diameter, compasses by radius, briefs by either.",
    forms=(
        Form("centre {centre:point}"),
        Form("concentric with {circle:circle}", "concentric"),
        Form("radius {radius:radius}"),
        Form("diameter {diameter:diameter}"),
        Form("through {target:point}", most=3),
        Form("touching {target:curve}", most=3),
        Form("{contact:beside/around/inside}", "contact", choice=True),
        CONTACT,
        BEYOND,
        *CHOICES,
    ),
    construct=construct,
)
