"""``turn``: n copies of a thing about a point, equally spaced or at a stated angle; or one copy by
an angle."""

from __future__ import annotations

import math
from collections.abc import Sequence
from fractions import Fraction
from functools import partial

from ..acts import Mark, Work
from ..acts.copies import carried, laid_off, simple, turned
from ..acts.shapes import as_run, go_over
from ..allowance import check_copies
from ..geometry import Loop, Shape, rotate
from ..kind import Args, ClauseValues, Kind, Made, Role
from ..kind.parts import as_original, copied, renamed
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form


def construct(args: Args) -> Made:
    """Construct n places of a thing about a point, the original being the first, counter-clockwise.

    Without an angle they share the whole turn equally; with one, each follows the one before it at
    that angle. A single turned copy is made by ``by 30° about O``."""
    original, name = args.need("of").thing("original"), args.need("of").ref("original").text
    clause = args.need("about", "by")
    if clause.key == "by":
        return _once(args, clause, original, name)
    lined = as_original([args.need("of").ref("original")])
    centre, count = clause.point("centre"), clause.count("count")
    if count < 2:
        raise ClauseError("a thing is turned into at least two places", clause.index)
    check_copies([original], count)
    apart = args.get("apart")
    step: Number = apart.length("angle").value if apart else Fraction(360, count)
    by = float(step)
    degrees = [step * index for index in range(1, count)]
    places = [rotate(original, centre, math.radians(by * index)) for index in range(count)]
    shape, parts = copied(
        args.name, [(str(index), original) for index in range(1, count + 1)], places, lined
    )
    return Made(
        shape,
        f"{args.name}, {name} in {count} places about {clause.ref('centre').text}"
        + (f", {spell_angle(by)} apart." if apart else "."),
        () if apart else (f"360 ÷ {count} = {spell_angle(by)}",),
        parts=parts,
        draw=partial(_draw, args, original, list(enumerate(places[1:], 2)), degrees, lined),
        lined=lined,
        standing=frozenset({0}) if lined else frozenset(),
    )


def _once(args: Args, clause: ClauseValues, original: Shape | Loop, name: str) -> Made:
    centre, angle = clause.point("centre"), clause.length("angle")
    place, lined = (
        rotate(original, centre, math.radians(float(angle))),
        as_original([args.need("of").ref("original")]),
    )
    shape, parts = copied(args.name, [(name, original)], [place], lined)
    return Made(
        shape,
        f"{args.name}, {name} turned {spell_angle(angle.value)} about {clause.ref('centre').text}.",
        parts=parts,
        lined=lined,
        draw=partial(_draw, args, original, [(0, place)], [angle.value], lined),
    )


def _draw(
    args: Args,
    original: Shape | Loop,
    places: Sequence[tuple[int, Shape | Loop]],
    degrees: Sequence[Number],
    lined: Role | None,
    work: Work,
) -> None:
    """Turn the places that fix the thing, each from the first; a longer run is traced and turned
    about the centre."""
    name, clause = args.need("of").ref("original").text, args.need("about", "by")
    centre = work.mark(clause.point("centre"), clause.ref("centre").text)
    for (number, copy), turn in zip(places, degrees, strict=True):
        called = f"{args.name}.{number}" if number else args.name
        copy = renamed(copy, called)

        def carry(work: Work, mark: Mark, told: str, label: str, turn: Number = turn) -> Mark:
            return turned(work, mark, centre, turn, told, label)

        if simple(original):
            carried(work, original, copy, called, name, carry, True)
        else:
            assert isinstance(original, Loop)
            assert isinstance(copy, Loop)
            laid_off(work, original, copy, "turn", centre, degrees=turn, called=called)
        if lined:
            go_over(work, as_run(copy), lined)


ABOUT = """\
A family: n places of a thing about a point, the original being the first.
"""

SHOWN = """\
units mm
O = datum
A = point, 45 above O
boss = circle, centre A, radius 12
lobes = turn, of boss, 3 about O
"""

KIND = Kind(
    name="turn",
    group="Copies",
    summary="n places of a thing about a point, or one copy by an angle",
    example="lobes = turn, of boss, 3 about O",
    mistake="The original is not counted: three places mean two copies beside it.",
    also=("rotate", "pattern", "array", "rotation", "copies round", "spin"),
    forms=(
        Form("of {original:shape}", needed=True),
        Form("{count:count} about {centre:point}", "about"),
        Form("{angle:angle} apart", "apart"),
        Form("by {angle:angle} about {centre:point}", "by"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
