"""``circle``: a centre and a radius or a diameter; or touching any three of points, lines and
circles."""

from __future__ import annotations

from functools import partial

from ..acts import Edge, Mark, Round, Work
from ..acts.act import ACROSS
from ..acts.procedures import circle_centre, touch_on
from ..acts.shapes import draw
from ..geometry import Arc, Circle, Line, Point, support
from ..geometry.three import Touching, circles_touching
from ..kind import CHOICES, Args, ClauseValues, Kind, Made, Option, choose
from ..kind.choosing import BEYOND, CONTACT, sides_of
from ..kind.figure import Ref
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..tolerance import same


def construct(args: Args) -> Made:
    """Construct a circle about a point, by radius or diameter; or one that touches any three
    things."""
    touching = args.all("through", "touching")
    if len(touching) == 1 and touching[0].key == "through" and args.get("centre", "concentric"):
        return _through(args, touching[0])
    if touching:
        return _three(args, touching)
    centre = _centre(args)
    radius, diameter = args.get("radius"), args.get("diameter")
    if radius and diameter:
        raise ClauseError("a circle takes a radius or a diameter, not both", diameter.index)
    working: tuple[str, ...] = ()
    if diameter:
        across = diameter.length("diameter")
        size = across.value / 2
        working = (
            f"Ø {args.say(across.value)} ÷ 2 = {args.say(size)}: the compass goes by radius",
        )
        given = f"diameter {args.say(across.value)}"
    elif radius:
        size = radius.length("radius").value
        given = f"radius {args.say(size)}"
    else:
        raise Wanting("a circle needs a radius or a diameter, or a point it goes through")
    assert isinstance(centre.shape, Point)
    circle = Circle(centre.shape, float(size), size)
    return Made(
        circle,
        f"Circle {args.name} about {centre.text}, {given}.",
        working,
        parts={"centre": centre.shape},
        centre_name=centre.text,
        draw=partial(_draw, args, circle, centre.text, None),
    )


def _through(args: Args, clause: ClauseValues) -> Made:
    """Construct a circle about a centre through a point: the needle on the one, opened to the
    other."""
    size = args.get("radius", "diameter")
    if size:
        raise ClauseError(
            f"a circle about a centre through a point has its size: no {size.key}", size.index
        )
    centre, place, name = _centre(args), clause.point("target"), clause.ref("target").text
    assert isinstance(centre.shape, Point)
    radius = abs(place - centre.shape)
    if radius <= same(max(abs(place), abs(centre.shape))):
        raise ClauseError(
            f"{name} is the centre itself: a circle goes through a place beside it", clause.index
        )
    circle = Circle(centre.shape, radius, radius)
    return Made(
        circle,
        f"Circle {args.name} about {centre.text}, through {name}.",
        (f"radius, from {centre.text} to {name}: {args.say(radius)}",),
        parts={"centre": circle.centre},
        centre_name=centre.text,
        draw=partial(_draw, args, circle, centre.text, clause),
    )


def _centre(args: Args) -> Ref:
    """Return the centre said: a point, or that of another circle."""
    centre, other = args.get("centre"), args.get("concentric")
    if centre and other:
        raise ClauseError(
            "a circle has one centre: say either the point or the other circle", other.index
        )
    if centre:
        return centre.ref("centre")
    if other is None:
        raise Wanting("circle needs centre (point), or three things to touch or go through")
    shape = other.shape("circle")
    assert isinstance(shape, Circle | Arc)
    return Ref(other.ref("circle").centre_name, shape.centre)


def _three(args: Args, clauses: list[ClauseValues]) -> Made:
    other = args.get("centre", "radius", "diameter")
    if other or len(clauses) != 3:
        message = f"and has {len(clauses)}" if not other else f"and no {other.key}"
        raise (Wanting if len(clauses) < 3 and not other else ClauseError)(
            f"a circle that touches or goes through things needs three of them, {message}",
            clauses[-1].index,
        )
    targets, names = [], [clause.ref("target").text for clause in clauses]
    for clause in clauses:
        shape = clause.shape("target")
        targets.append(shape if isinstance(shape, Point) else support(shape))
    found = circles_touching(targets)
    if not found:
        raise ClauseError(f"no circle touches {', '.join(names[:2])} and {names[2]} all at once")
    options = [
        Option(f.circle, f.circle.centre, _about(f, names), _traits(f, clauses)) for f in found
    ]
    index, candidates = choose(options, args, "circle")
    chosen = found[index]
    circle = chosen.circle
    touches = zip(clauses, chosen.touches, strict=True)
    return Made(
        circle,
        f"Circle {args.name}, {_about(chosen, names)}.",
        (
            f"radius {args.say(circle.radius)}",
            f"centre {args.say(circle.centre.x)} across and {args.say(circle.centre.y)} up from "
            "the datum",
        ),
        parts={"centre": circle.centre}
        | {f"touch.{c.ref('target').text}": p for c, p in touches if c.key == "touching"},
        centre_name=f"{args.name}.centre",
        candidates=candidates,
        draw=partial(_draw_three, args, clauses, chosen),
    )


def _traits(touching: Touching, clauses: list[ClauseValues]) -> frozenset[str]:
    result: set[str] = set()
    for contact, clause in zip(touching.contacts, clauses, strict=True):
        name, shape = clause.ref("target").text, clause.ref("target").shape
        if isinstance(shape, Line):
            result |= sides_of(shape, name, touching.circle.centre)
        elif contact in ("beside", "around", "inside"):
            result |= {contact, f"{contact} {name}"}
    return frozenset(result)


def _about(touching: Touching, names: list[str]) -> str:
    return ", ".join(
        f"{contact} {name}" for contact, name in zip(touching.contacts, names, strict=True)
    )


def _draw_three(args: Args, clauses: list[ClauseValues], touching: Touching, work: Work) -> None:
    """Construct the centre from the three things, mark the touches, and open the compass to the
    first of them."""
    circle, called = touching.circle, f"{args.name}.centre"
    things = []
    for clause in clauses:
        thing = draw(work, clause.shape("target"), clause.ref("target").text)
        assert isinstance(thing, Mark | Edge | Round)
        things.append(thing)
    centre = circle_centre(work, things, touching.touches, circle.centre, called) or work.mark(
        circle.centre, called
    )
    ends = []
    for clause, thing, spot in zip(clauses, things, touching.touches, strict=True):
        name = clause.ref("target").text
        if isinstance(thing, Mark):
            ends.append(thing)
        else:
            target = thing.line if isinstance(thing, Edge) else thing.circle
            ends.append(touch_on(work, centre, target, spot, name, f"{args.name}.touch.{name}"))
    work.swing(
        centre,
        work.between(centre, ends[0]),
        args.name,
        shape=circle,
        check="it goes through all three",
    )


def _draw(
    args: Args, circle: Circle, centre: str, through: ClauseValues | None, work: Work
) -> None:
    mark = work.mark(circle.centre, centre)
    if through:
        end = work.mark(through.point("target"), through.ref("target").text)
        work.swing(
            mark,
            work.between(mark, end),
            args.name,
            shape=circle,
            check=f"it goes through {end.called}",
            anew=True,
        )
        return
    check = ACROSS
    work.swing(mark, circle.size, args.name, shape=circle, check=check, anew=True)


ABOUT = """\
`centre`, and `radius`, `diameter` or a point it goes `through`; or any three of `through` a
point and `touching` a line, circle or arc. Parts `centre`, `touch.NAME`, and its outermost
places `left right top bottom`, which arcs have as far as they are drawn; they are found on the
level or plumb line through the centre.
"""

SHOWN = """\
units mm
O = datum
A = point, 40 right of O
B = point, 30 above O
c = circle, centre O, radius 10
l = line, from c.top to B
f = circle, centre A, through B
d = circle, through O, through A, through B
e = circle, touching O.level, touching O.plumb, touching c, beside, above, right
"""

KIND = Kind(
    name="circle",
    group="Circles and arcs",
    summary="about a centre, by radius, diameter or a point on it; or touching three things",
    example="eye = circle, centre A, diameter 60",
    mistake="The diameter is set on the compass instead of the radius. "
    "Templates go by diameter, compasses by radius, briefs by either.",
    also=("hole", "bore", "boss", "eye", "disc", "ring"),
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
    about=ABOUT,
    shown=SHOWN,
)
