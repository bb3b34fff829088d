"""``label``: words on the drawing, beside a place or at the end of a leader."""

from __future__ import annotations

from ..drawing.notes import Label
from ..geometry import Point
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form

HEIGHTS = (2.5, 3.5, 5.0, 7.0)
"""Heights of lettering, mm (ISO 3098)."""


def construct(args: Args) -> Made:
    """Letter words at a point, or at offsets from it with a leader back to it."""
    text = args.need("text").word("text")
    if not text.strip():
        raise ClauseError("a label says something", args.need("text").index)
    at, pointing, said = args.get("at"), args.get("pointing"), args.get("height")
    height = float(said.length("height").value * args.unit.mm) if said else 3.5
    if not 1.5 <= height <= 30:
        raise ClauseError(
            f"letters are {', '.join(f'{h:g}' for h in HEIGHTS)} mm high; 1.5 to 30 can be drawn",
            said.index if said else None,
        )
    if (at is None) == (pointing is None):
        raise Wanting("a label stands at a point, or points to one")
    clause = args.need("at", "pointing")
    place, name = clause.point("point"), clause.ref("point").text
    by = Point(0.0, 0.0)
    for offset in args.all("offset"):
        by = by + SIDES[offset.word("way")] * float(offset.length("amount"))
    if pointing and by == Point(0.0, 0.0):
        raise Wanting(
            "a leader has a length: say how far off the words stand, such as  20 right, 10 above"
        )
    return Made(
        Point(0.0, 0.0),
        f"Label “{text}” {'pointing to' if pointing else 'at'} {name}.",
        notes=(Label(text, place + by, height, place if pointing else None),),
        nothing=True,
        draw=lambda work: work.finish(
            f"Letter “{text}” between guide lines", "letter", check=f"letters {height:g} mm high"
        ),
    )


ABOUT = """\
Words beside a place, or `pointing to` it with a leader. Height 3.5 mm unless said.
"""

SHOWN = """\
units mm
O = datum
A = point, 40 right of O
n1 = label, saying "SHAFT", pointing to A, 20 right, 12 above
n2 = label, saying "A", at A, 8 above
"""

KIND = Kind(
    name="label",
    group="Finish",
    summary="words beside a place, or with a leader to it",
    example='note = label, saying "SHAFT", pointing to P, 20 right, 12 above',
    mistake="Letters without guide lines wander in height.",
    also=("text", "note", "leader", "words"),
    forms=(
        Form("saying {text:text}", "text", needed=True),
        Form("at {point:point}"),
        Form("pointing to {point:point}", "pointing"),
        Form("{amount:length} {way:left/right/above/below}", "offset", most=2),
        Form("height {height:length}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
