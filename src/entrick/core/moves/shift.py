"""``shift``: the same thing moved by one or two offsets."""

from __future__ import annotations

from ..geometry import Arc, Circle, Line, Point, Shape
from ..geometry.place import SIDES
from ..geometry.transform import shift
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct a thing moved by offsets along the level and plumb directions."""
    original, name = args.need("of").shape("original"), args.need("of").ref("original").text
    offsets = [(said.length("amount"), said.word("way")) for said in args.all("offset")]
    by = Point(0.0, 0.0)
    for amount, way in offsets:
        by = by + SIDES[way] * float(amount)
    if by == Point(0.0, 0.0):
        raise ClauseError("the offsets come to nought: nothing would move")
    moved = shift(original, by)
    parts: dict[str, Shape] = {"centre": moved.centre} if isinstance(moved, Circle | Arc) else {}
    told = " and ".join(f"{args.say(amount.value)} {way}" for amount, way in offsets)
    return Made(moved, f"{args.name}, {name} moved {told}.", (), _steps(args, original, moved, name), parts)


def _steps(args: Args, before: Shape, after: Shape, name: str) -> tuple[Step, ...]:
    match before, after:
        case (Circle() | Arc()) as one, (Circle() | Arc()) as other:
            path = Stroke(Line.between(one.centre, other.centre))
            return (
                Step(
                    Tool.DIVIDERS,
                    f"Carry the centre of {name} across",
                    abs(other.centre - one.centre),
                    one.centre,
                    (path,),
                ),
                Step(Tool.COMPASS, f"Needle on it, draw {args.name}", one.size, other.centre, (Stroke(other),)),
            )
        case Point(), Point():
            mark = (Stroke(Line.between(before, after)), Stroke(after, Role.POINT, args.name))
            return (Step(Tool.DIVIDERS, f"Carry {name} across: {args.name}", abs(after - before), before, mark),)
        case Line(), Line():
            return (Step(Tool.STRAIGHTEDGE, f"Slide two set squares: draw {args.name}", strokes=(Stroke(after),)),)
    raise TypeError(before)


KIND = Kind(
    name="shift",
    group="Copies",
    summary="the same thing moved right, left, up or down",
    example="second = shift, of hole, 30 right",
    mistake="A chain of moves is measured each from the last, and the errors add up: measure each from the first.",
    forms=(
        Form("of {original:shape}", needed=True),
        Form("{amount:length} {way:left/right/above/below}", "offset", needed=True, most=2),
    ),
    construct=construct,
)
