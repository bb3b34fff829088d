"""``fillet``: an arc of given radius that rounds the corner of any two curves."""

from __future__ import annotations

from dataclasses import replace

from ..geometry import Arc, Circle, Line
from ..geometry.locus import Tangency
from ..geometry.shapes import is_drawn_at
from ..kind import CHOICES, Args, ClauseValues, Kind, Made
from ..kind.choosing import BEYOND, CONTACT
from ..plan.forms import Form
from . import arc


def construct(args: Args) -> Made:
    """Construct an arc touching two curves where both are drawn; see the kind ``arc`` for how its
    centre is found."""
    between = args.between()
    curves = [between.shape(slot) for slot in ("first", "second")]
    touching = tuple(
        ClauseValues("touching", between.index, (("target", between.ref(slot)),))
        for slot in ("first", "second")
    )
    others = tuple(clause for clause in args.clauses if clause.key not in ("between", "corner"))

    def is_drawn(tangency: Tangency) -> bool:
        return all(
            touch is not None
            and isinstance(curve, Line | Circle | Arc)
            and is_drawn_at(curve, touch)
            for curve, touch in zip(curves, tangency.touches, strict=True)
        )

    made = arc.construct(Args(args.name, args.unit, (*others, *touching)), is_drawn)
    names = [between.ref(slot).text for slot in ("first", "second")]
    radius = args.say(args.need("radius").length("radius").value)
    return replace(
        made, sentence=f"Fillet {args.name} of radius {radius} between {names[0]} and {names[1]}."
    )


ABOUT = """\
Rounds the corner of any two curves: an `arc` touching both, where both are drawn. A corner of a
box, run or outline is said by its name.
"""

SHOWN = """\
units mm
O = datum
frame = box, 60 by 40, centred on O
one = fillet, between frame.bottom and frame.right, radius 8
two = fillet, corner frame.upper_right, radius 8
rim = line in, frame.bottom > one > frame.right > two > frame.top > frame.left
"""

KIND = Kind(
    name="fillet",
    group="Circles and arcs",
    summary="rounds the corner of two lines, circles or arcs",
    example="round = fillet, between edge and ring, radius 6",
    mistake="Its centre is found by eye: it lies where the parallels and swings at the radius "
    "cross.",
    also=("corner", "round", "radius"),
    forms=(
        Form("between {first:curve} [and] {second:curve}"),
        Form("corner {corner:corner}"),
        Form("radius {radius:radius}", needed=True),
        Form("{contact:beside/around/inside}", "contact", choice=True),
        CONTACT,
        BEYOND,
        *CHOICES,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
