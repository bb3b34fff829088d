"""``swing``: a locus drawn on its own: all places at one distance from a point."""

from __future__ import annotations

import math
from functools import partial

from ..acts import Setting, Work
from ..geometry import Arc, Circle
from ..kind import Args, Kind, Made
from ..kind.parts import parts_of
from ..measure import Number
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..tolerance import same

REACH = math.radians(25)
"""Half of a swing drawn towards a place."""


def construct(args: Args) -> Made:
    """Construct a swing: the whole circle, the part between two directions, or a short part towards
    a point."""
    clause = args.need("from")
    needle, name = clause.point("needle"), clause.ref("needle").text
    radius, through = args.get("radius"), args.get("through")
    between, towards = args.get("between"), args.get("towards")
    if radius and through:
        raise ClauseError("a swing has a radius or goes through a point, not both", through.index)
    if through:
        place, passing = through.point("place"), through.ref("place").text
        size: Number = abs(place - needle)
        if size <= same(max(abs(place), abs(needle))):
            raise ClauseError(f"{passing} is the needle point itself", through.index)
    else:
        size = args.need("radius", "through").length("radius").value
    shape: Circle | Arc = Circle(needle, float(size), size)
    where = "all the way round"
    if between and towards:
        raise ClauseError(
            "a swing runs between two directions or towards a point, not both", towards.index
        )
    if between:
        first, last = float(between.length("first")), float(between.length("last"))
        sweep = math.radians(last - first) % math.tau or math.tau
        shape = Arc(needle, float(size), math.radians(first), sweep, size)
        where = f"from {first:g}° to {last:g}°"
    elif towards:
        target = towards.point("point")
        if target == needle:
            raise ClauseError(
                "a swing towards its own needle point has no direction", towards.index
            )
        shape = Arc(needle, float(size), (target - needle).angle - REACH, 2 * REACH, size)
        where = f"towards {towards.ref('point').text}"
    return Made(
        shape,
        f"Swing {args.name} from {name}, radius {args.say(size)}, {where}.",
        (f"every place on it is {args.say(size)} from {name}",),
        parts=parts_of(shape),
        centre_name=name,
        draw=partial(_draw, args, shape),
    )


def _draw(args: Args, shape: Circle | Arc, work: Work) -> None:
    clause, through = args.need("from"), args.get("through")
    needle = work.mark(shape.centre, clause.ref("needle").text)
    size: Number | Setting = shape.size
    if through:
        size = work.between(needle, work.mark(through.point("place"), through.ref("place").text))
    work.swing(needle, size, args.name, shape=shape, anew=True)


ABOUT = """\
A locus drawn on its own: a circle about a point, by `radius` or `through` a point, or as much
of it as is wanted (`between 20° and 80°`, `towards P`).
"""

SHOWN = """\
units mm
O = datum
A = point, 60 right of O
one = swing, from O, radius 45, towards A
two = swing, from A, radius 40
three = swing, from A, through O
P = crossing, of one and two, upper
"""

KIND = Kind(
    name="swing",
    group="Circles and arcs",
    summary="a locus on its own: all places at one distance from a point",
    example="reach = swing, from A, radius 70, towards B",
    mistake="One locus alone fixes nothing: a centre is where two of them cross.",
    also=("locus", "sweep"),
    forms=(
        Form("from {needle:point}", needed=True),
        Form("radius {radius:radius}"),
        Form("through {place:point}"),
        Form("between {first:angle} [and] {last:angle}"),
        Form("towards {point:point}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
