"""``mirror``: the image of one thing or of several about a line."""

from __future__ import annotations

from ..geometry import Line, Point, reflect
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.parts import as_original, copied, draw, places
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct mirror images of points, lines, circles, arcs and whole runs, with all their named parts."""
    clause, axis = args.need("of"), args.need("about").ref("axis").text
    line = args.need("about").line("axis")
    several = clause.has("originals")
    things = clause.things("originals") if several else [(clause.ref("original").text, clause.thing("original"))]
    lined = as_original(clause.refs("originals") if several else [clause.ref("original")])
    copies = [reflect(thing, line) for _, thing in things]
    for (name, thing), copy in zip(things, copies, strict=True):
        if copy == thing and isinstance(thing, Point):
            raise ClauseError(f"{name} lies on {axis}: its mirror image is itself", clause.clause)
    shape, parts = copied(args.name, things, copies, lined)
    steps: list[Step] = []
    for index, ((name, thing), copy) in enumerate(zip(things, copies, strict=True), 1):
        called = args.name if not several else f"{args.name}.{index}"
        label = called if isinstance(thing, Point) and not several else ""
        carried = [s for what, spot in places(thing) for s in _carry(spot, line, f"{what}{name}", axis, label)]
        steps += carried
        if not isinstance(thing, Point):
            steps += draw(copy, called, lined or Role.CONSTRUCTION)
    told = " and ".join(name for name, _ in things)
    return Made(
        shape,
        f"{args.name}, the mirror image of {told} about {axis}.",
        ("each point is as far behind the axis as its original is before it",),
        tuple(steps),
        parts,
        lined=lined,
    )


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
            (Stroke(Line.between(place, image)), Stroke(image, Role.POINT, label)),
        ),
    )


KIND = Kind(
    name="mirror",
    group="Copies",
    summary="the image of a thing, of several, or of a whole run about a line",
    example="low = mirror, of top, about line A B",
    mistake="Only the curve is copied and not its centre: carry the centre across and swing the same radius.",
    forms=(
        Form("of {original:shape}"),
        Form("of {originals:several}"),
        Form("about {axis:line}", needed=True),
    ),
    construct=construct,
)
