"""``detail``: a small part of the view drawn again beside it, so many times as large."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from functools import partial

from ..acts import Setting, Work
from ..acts.act import Gone
from ..drawing.notes import Label
from ..geometry import Arc, Circle, Curve, Line, Loop, Point, Shape
from ..geometry.clipped import inside
from ..kind import Args, Kind, Made, Role, Stroke
from ..kind.figure import Ref
from ..plan.errors import ClauseError
from ..plan.forms import Form

FEWEST, MOST = 2, 20
"""How many times as large a detail may be."""

UNDER = 6.0
"""How far below a detail its letter and scale stand, mm (by eye, no source)."""


def construct(args: Args) -> Made:
    """Draw what lies within a circle about a point again about another, larger, with its letter and
    its own scale.

    It is a picture of what is there: it bounds no material, is not cut, and nothing is measured in
    it."""
    about, size = args.need("about"), args.need("radius").length("radius").value
    times, place = args.need("times").count("count"), args.need("at").point("place")
    if not FEWEST <= times <= MOST:
        raise ClauseError(
            f"a detail is {FEWEST} to {MOST} times as large", args.need("times").index
        )
    here, name = about.point("middle"), about.ref("middle").text
    ring, frame = Circle(here, float(size), size), Circle(place, float(size) * times, size * times)
    strokes = [
        Stroke(_larger(part, here, place, times), ref.lined or Role.EDGE)
        for ref in args.need("of").refs("things")
        for curve in _curves(ref, args.need("of").index)
        for part in inside(curve, ring)
    ]
    if not strokes:
        raise ClauseError(f"nothing of it lies within {args.say(size)} of {name}", about.index)
    drawn = tuple(Stroke(s.shape, Role.EDGE if s.role is Role.OUTLINE else s.role) for s in strokes)
    letter = args.get("letter")
    called = letter.word("text") if letter else args.name
    mm = 1 / float(args.unit.mm)
    names = " ".join(ref.text for ref in args.need("of").refs("things"))
    return Made(
        frame,
        f"Detail {args.name} of {names} about {name}, {times} times as large.",
        (f"every length of it times {times}; its angles stay",),
        parts={"centre": place},
        notes=(
            Label(called, here + Point(ring.radius + 3 * mm, 0.0), 3.5),
            Label(called, place - Point(0.0, frame.radius + UNDER * mm), 3.5, times=times),
        ),
        draw=partial(_draw, args, (ring, frame), drawn, called),
    )


def _draw(
    args: Args, circles: tuple[Circle, Circle], drawn: Sequence[Stroke], called: str, work: Work
) -> None:
    """Draw both circles thin, and lay out in the larger one what lies in the other."""
    about, at, times = args.need("about"), args.need("at"), args.need("times").count("count")
    for circle, said, slot, name in (
        (circles[0], about, "middle", f"the circle of {called}"),
        (circles[1], at, "place", f"the detail {called}"),
    ):
        centre = work.mark(circle.centre, said.ref(slot).text)
        ring = work.swing(centre, circle.size, name, shape=circle)
        work.go_over(
            [Gone(ring.key, "", "", circle, name)],
            Role.THREAD,
            name,
            [Stroke(circle, Role.THREAD)],
            setting=Setting(circle.size),
            told="circle",
        )
    work.finish(
        f"Lay out in it {times} times as large what lies in the first",
        "detail",
        drawn,
        "it leaves the circle where the view leaves its own",
    )


def _curves(ref: Ref, clause: int) -> Iterator[Curve]:
    shape = ref.shape
    if isinstance(shape, Loop):
        yield from (piece.curve for piece in shape.pieces)
    elif isinstance(shape, Circle | Arc) or (isinstance(shape, Line) and shape.start is not None):
        yield shape
    else:
        raise ClauseError(f"{ref.text} has no ends: a detail shows what is drawn", clause)


def _larger(curve: Curve, here: Point, there: Point, times: int) -> Shape:
    def put(spot: Point) -> Point:
        return there + (spot - here) * times

    match curve:
        case Line():
            return Line.between(put(curve.at(curve.start or 0.0)), put(curve.at(curve.end or 0.0)))
        case Arc():
            return Arc(
                put(curve.centre),
                curve.radius * times,
                curve.start,
                curve.sweep,
                curve.size * times,
            )
    return Circle(put(curve.centre), curve.radius * times, curve.size * times)


ABOUT = """\
What lies within a circle about a point, drawn again `at` another, so many `times` as large, its
own scale under it. It is a picture of what is there: it bounds nothing and is not cut.
"""

SHOWN = """\
units mm
sheet A3, scale 1:2
O = datum
disc = circle, centre O, radius 50
notch = keyway, on disc, width 5, depth 6, inward, above
rim = line in, disc > notch, 24 about O
P = point, 50 above O
Q = point, 130 right of O
large = detail, of rim, about P, radius 10, 4 times, at Q, lettered "A"
"""

KIND = Kind(
    name="detail",
    group="Finish",
    summary="a small part of the view again, so many times as large",
    example='large = detail, of rim, about P, radius 10, 4 times, at Q, lettered "A"',
    mistake="Sizes are taken off it by the sheet's scale: it has its own, which stands under it.",
    also=("enlargement", "magnified view", "blow up"),
    forms=(
        Form("of {things:several}", needed=True),
        Form("about {middle:point}", needed=True),
        Form("radius {radius:radius}", needed=True),
        Form("{count:count} times", "times", needed=True),
        Form("at {place:point}", needed=True),
        Form("lettered {text:text}", "letter"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
