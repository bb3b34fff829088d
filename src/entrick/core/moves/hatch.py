"""``hatch``: even thin lines over a cut region, stopped at its boundary."""

from __future__ import annotations

from ..drawing.notes import Hatching
from ..geometry import Circle, Loop, Point, piece_of
from ..kind import Args, Kind, Made
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form

FINEST, COARSEST = 0.7, 20.0
"""Spacings a pencil can keep apart and an eye still sees as one hatching, mm (common practice, no
source)."""


def construct(args: Args) -> Made:
    """Hatch what lies inside an odd number of the loops named: an outline less its holes."""
    clause = args.need("of")
    loops = []
    for name, thing in clause.things("loops"):
        loop = Loop((piece_of(thing, name),), True) if isinstance(thing, Circle) else thing
        if not isinstance(loop, Loop) or not loop.closed:
            raise ClauseError(
                f"{name} encloses nothing to hatch: name closed outlines and circles", clause.index
            )
        loops.append(loop)
    apart = args.get("spacing")
    degrees = args.number("at", usual=45.0)
    spacing = float(apart.length("spacing").value * args.unit.mm) if apart else 3.0
    if not FINEST <= spacing <= COARSEST:
        raise ClauseError(
            f"hatching is {FINEST:g} to {COARSEST:g} mm apart on paper",
            apart.index if apart else None,
        )
    names = " ".join(ref.text for ref in clause.refs("loops"))
    return Made(
        Point(0.0, 0.0),
        f"Hatch {names} at {spell_angle(degrees)}.",
        notes=(Hatching(tuple(loops), degrees, spacing),),
        nothing=True,
        draw=lambda work: work.finish(
            f"Hatch {names} with even thin lines, {spacing:g} mm apart",
            "hatch",
            check="no line runs past the outline or stops short of it",
            size=degrees,
        ),
    )


ABOUT = """\
Even thin lines over what lies inside an odd number of the outlines named, at 45° or `at`
another angle, 3 mm apart or `spacing`.
"""

SHOWN = """\
units mm
O = datum
c = circle, centre O, radius 30
d = circle, centre O, radius 12
rim = line in, c, cut
bore = line in, d
cut = hatch, of rim bore, at 45°
"""

KIND = Kind(
    name="hatch",
    group="Finish",
    summary="even lines over a cut region",
    example="cut = hatch, of rim bore, at 45°",
    mistake="Hatching is carried past an edge, or its spacing wanders: set the distance once and "
    "keep it.",
    also=("section lines", "section", "shading"),
    forms=(
        Form("of {loops:several}", needed=True),
        Form("at {angle:angle}"),
        Form("spacing {spacing:length}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
