"""``mirror``: the image of a thing about a line."""

from __future__ import annotations

from ..geometry import Arc, Circle, Line, Point, Shape, reflect
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct the mirror image of a point, line, circle or arc, with all its named parts."""
    original, axis = args.need("of").ref("original"), args.need("about").ref("axis")
    line, before = args.need("about").line("axis"), args.need("of").shape("original")
    image = reflect(before, line)
    parts: dict[str, Shape] = {}
    match image:
        case Circle():
            parts = {"centre": image.centre}
        case Arc():
            parts = {"centre": image.centre, "start": image.first, "end": image.last, "middle": image.middle}
        case Line(start=float() as start, end=float() as end):
            parts = {"start": image.at(start), "end": image.at(end)}
    if image == before and isinstance(image, Point):
        raise ClauseError(f"{original.text} lies on {axis.text}: its mirror image is itself")
    return Made(
        image,
        f"{args.name}, the mirror image of {original.text} about {axis.text}.",
        ("each point is as far behind the axis as its original is before it",),
        _steps(args, before, image, line, original.text, axis.text),
        parts,
    )


def _steps(args: Args, original: Shape, image: Shape, axis: Line, name: str, about: str) -> tuple[Step, ...]:
    match original, image:
        case (Circle() | Arc()) as before, (Circle() | Arc()) as after:
            carried = _carry(before.centre, axis, f"the centre of {name}", about, f"{args.name}.centre")
            draw = Step(
                Tool.COMPASS,
                f"Needle on the carried centre, draw {args.name}",
                before.size,
                after.centre,
                (Stroke(after),),
                "it touches or crosses the same pieces on this side",
            )
            return (*carried, draw)
        case Line() as before, Line() as after:
            ends = [before.at(along) for along in (before.start or 0.0, before.end or 1.0)]
            carried = tuple(step for end in ends for step in _carry(end, axis, f"a point of {name}", about, ""))
            join = Step(Tool.STRAIGHTEDGE, f"Join the carried points: {args.name}", strokes=(Stroke(after),))
            return (*carried, join)
        case Point(), Point():
            return _carry(original, axis, name, about, args.name)
    raise TypeError(original)


def _carry(place: Point, axis: Line, what: str, about: str, label: str) -> tuple[Step, ...]:
    image = reflect(place, axis)
    distance = abs(axis.offset_of(place))
    if distance == 0:
        return ()
    return (
        Step(
            Tool.DIVIDERS,
            f"Carry {what} square across {about} by the same distance",
            distance,
            axis.foot(place),
            (Stroke(Line.between(place, image)), Stroke(image, Role.POINT, "" if "." in label else label)),
        ),
    )


KIND = Kind(
    name="mirror",
    group="Copies",
    summary="the image of a thing about a line",
    example="low = mirror, of top, about line A B",
    mistake="Only the curve is copied and not its centre: carry the centre across and swing the same radius.",
    forms=(
        Form("of {original:shape}", needed=True),
        Form("about {axis:line}", needed=True),
    ),
    construct=construct,
)
