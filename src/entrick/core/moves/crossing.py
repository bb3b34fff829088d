"""``crossing``: where two curves cross or touch."""

from __future__ import annotations

from functools import partial

from ..acts import Edge, Round, Work
from ..acts.shapes import draw
from ..geometry import Arc, Circle, Line, Point, gap, meet
from ..kind import CHOICES, Args, Kind, Made, Option, choose
from ..kind.figure import Ref
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the point two curves share; place words choose among two."""
    clause = args.need("of")
    first, second = clause.ref("first"), clause.ref("second")
    assert isinstance(first.shape, Line | Circle | Arc)
    assert isinstance(second.shape, Line | Circle | Arc)
    found = meet(first.shape, second.shape)
    if not found:
        miss, _ = gap(first.shape, second.shape)
        if miss == 0:
            raise ClauseError(
                f"{first.text} and {second.text} lie on the same line or circle", clause.index
            )
        raise ClauseError(
            f"{first.text} and {second.text} do not meet: they miss by {args.say(miss)}",
            clause.index,
        )
    options = [Option(m.point, m.point, "touch point" if m.touch else "crossing") for m in found]
    index, candidates = choose(options, args, "crossing")
    how = "touch" if found[index].touch else "cross"
    place = found[index].point
    return Made(
        place,
        f"Point {args.name}, where {first.text} and {second.text} {how}.",
        draw=partial(_draw, args, first, second, place, found[index].touch),
        candidates=candidates,
    )


def _draw(args: Args, first: Ref, second: Ref, place: Point, touch: bool, work: Work) -> None:
    things = []
    for ref in (first, second):
        thing = draw(work, ref.shape, ref.text)  # type: ignore[arg-type]
        assert isinstance(thing, Edge | Round)
        things.append(thing)
    rounds = sorted(things, key=lambda thing: isinstance(thing, Edge))
    if touch and isinstance(rounds[0], Round):
        work.touch(rounds[0], rounds[1], place, args.name, label=args.name)
    else:
        work.prick(
            things[0], things[1], place, args.name, label=args.name, anew=not work.has_mark(place)
        )


ABOUT = """\
Where two curves cross or touch.
"""

SHOWN = """\
units mm
O = datum
c = circle, centre O, radius 20
P = crossing, of c and O.plumb, upper
Q = crossing, of c O.level, left
"""

KIND = Kind(
    name="crossing",
    group="Points",
    summary="where two lines, circles or arcs cross or touch",
    example="P = crossing, of ring and axis, upper",
    mistake="Of two crossings close together the wrong one is taken: look which side of the part "
    "it must lie on.",
    also=("intersection", "meeting point"),
    forms=(Form("of {first:curve} [and] {second:curve}", "of", needed=True), *CHOICES),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
