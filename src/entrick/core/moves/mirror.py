"""``mirror``: the image of one thing or of several about a line."""

from __future__ import annotations

from collections.abc import Sequence
from functools import partial

from ..acts import Mark, Work
from ..acts.copies import carried, laid_off, mirrored, simple
from ..acts.shapes import as_run, go_over
from ..geometry import Line, Loop, Point, Shape, reflect
from ..kind import Args, Kind, Made, Role
from ..kind.parts import as_original, copied, renamed
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct mirror images of points, lines, circles, arcs and whole runs, with all their named
    parts."""
    clause, axis = args.need("of"), args.need("about").ref("axis").text
    line = args.need("about").line("axis")
    several = clause.has("originals")
    things = (
        clause.things("originals")
        if several
        else [(clause.ref("original").text, clause.thing("original"))]
    )
    lined = as_original(clause.refs("originals") if several else [clause.ref("original")])
    copies = [reflect(thing, line) for _, thing in things]
    for (name, thing), copy in zip(things, copies, strict=True):
        if copy == thing and isinstance(thing, Point):
            raise ClauseError(f"{name} lies on {axis}: its mirror image is itself", clause.index)
    shape, parts = copied(args.name, things, copies, lined)
    words = " and ".join(name for name, _ in things)
    return Made(
        shape,
        f"{args.name}, the mirror image of {words} about {axis}.",
        ("each point is as far behind the axis as its original is before it",),
        parts=parts,
        lined=lined,
        draw=partial(_draw, args, line, things, copies, lined),
    )


def _draw(
    args: Args,
    line: Line,
    things: Sequence[tuple[str, Shape | Loop]],
    copies: Sequence[Shape | Loop],
    lined: Role | None,
    work: Work,
) -> None:
    """Carry the places that fix each thing square across; a longer run is traced and turned
    over."""
    axis = work.edge(line, args.need("about").ref("axis").text)

    def carry(work: Work, mark: Mark, called: str, label: str) -> Mark:
        return mirrored(work, mark, axis, called, label)

    several = args.need("of").has("originals")
    for index, ((name, thing), copy) in enumerate(zip(things, copies, strict=True), 1):
        called = f"{args.name}.{index}" if several else args.name
        copy = renamed(copy, called)
        if simple(thing):
            carried(work, thing, copy, called, name, carry, not several)
        else:
            assert isinstance(thing, Loop)
            assert isinstance(copy, Loop)
            laid_off(work, thing, copy, "mirror", axis, called=called)
        if lined:
            go_over(work, as_run(copy), lined)


ABOUT = """\
The image of a thing about a line, with its parts; of several things, which make a family; or of
a whole run.
"""

SHOWN = """\
units mm
O = datum
A = point, 40 left of O
c = circle, centre A, radius 10
B = point, 30 left of O, 30 above
d = mirror, of c, about O.plumb
both = mirror, of c B, about O.plumb
"""

KIND = Kind(
    name="mirror",
    group="Copies",
    summary="the image of a thing, of several, or of a whole run about a line",
    example="low = mirror, of top, about line A B",
    mistake="Only the curve is copied and not its centre: carry the centre across and swing the "
    "same radius.",
    also=("reflection", "reflect", "symmetry", "opposite hand"),
    forms=(
        Form("of {original:shape}"),
        Form("of {originals:several}"),
        Form("about {axis:line}", needed=True),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
