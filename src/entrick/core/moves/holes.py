"""``holes``: several holes of one size: on a pitch circle, in rows and columns, or at places
named."""

from __future__ import annotations

from collections.abc import Callable, Iterator
from functools import partial

from ..acts import Work
from ..geometry import Circle, Loop, Point, Shape
from ..kind import Args, ClauseValues, Kind, Length, Made
from ..kind.figure import Family, Ref
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from . import circle, grid, spaced

Draw = Callable[[Work], None]


def construct(args: Args) -> Made:
    """Construct equal circles about several places, numbered as the places are.

    Parts: ``1``, ``2`` … and ``1.centre``, ``2.centre`` …; on a pitch circle ``pitch`` as well.

    Notes
    -----
    Each is what a drafter would say in two or three statements, and is drawn as those are."""
    where = [said for key in ("on", "round", "rows", "at") for said in args.all(key)]
    if not where:
        raise Wanting(
            "holes need their places: 6 on diameter 80, about O; or 3 by 2, 20 by 15 apart, "
            "centred on O; or at A B C"
        )
    if len(where) > 1:
        raise ClauseError("the places of holes are said in one way", where[1].index)
    size = args.get("diameter", "radius")
    if size is None:
        raise Wanting("holes need a diameter or a radius")
    found = {"on": _on_new_circle, "round": _on_circle, "rows": _in_rows, "at": _at_places}[
        where[0].key
    ](args, where[0])
    holes: list[Circle] = []
    draws: list[Draw] = list(found.draws)
    working = list(found.working)
    parts: dict[str, Shape | Loop] = dict(found.parts)
    for number, place in enumerate(found.places, 1):
        centre = ClauseValues("centre", where[0].index, (("centre", place),))
        one = circle.construct(Args(f"{args.name}.{number}", args.unit, (centre, size)))
        assert isinstance(one.shape, Circle)
        holes.append(one.shape)
        parts |= {str(number): one.shape, f"{number}.centre": one.shape.centre}
        draws += [one.draw] if one.draw else []
        working += one.working if number == 1 else ()
    said = size.length(size.key).value
    return Made(
        Family(tuple(holes)),
        f"Holes {args.name}, {len(holes)} of {size.key} {args.say(said)}, {found.told}.",
        tuple(working),
        parts=parts,
        draw=partial(_draw, tuple(draws)),
    )


def _draw(draws: tuple[Draw, ...], work: Work) -> None:
    for draw in draws:
        draw(work)


class _Places:
    """Where the holes are, how that is told, and how the places are found on the sheet."""

    def __init__(
        self,
        places: list[Ref],
        told: str,
        made: tuple[Made, ...] = (),
        parts: dict[str, Shape | Loop] | None = None,
    ) -> None:
        self.places, self.told, self.parts = places, told, parts or {}
        self.draws = [each.draw for each in made if each.draw]
        self.working = [row for each in made for row in each.working]


def _on_new_circle(args: Args, clause: ClauseValues) -> _Places:
    """Space places equally on a pitch circle, which is drawn first."""
    about = args.need("about").ref("centre")
    name = f"{args.name}.pitch"
    centre = ClauseValues("centre", clause.index, (("centre", about),))
    diameter = ClauseValues("diameter", clause.index, (("diameter", clause["pitch"]),))
    pitch = circle.construct(Args(name, args.unit, (centre, diameter)))
    assert isinstance(pitch.shape, Circle)
    words = f"on a pitch circle of {args.say(clause.length('pitch').value)} about {about.text}"
    return _spaced(args, clause, Ref(name, pitch.shape, about.text), words, (pitch,))


def _on_circle(args: Args, clause: ClauseValues) -> _Places:
    """Space places equally on a circle that is there."""
    if args.get("about"):
        raise ClauseError("the circle has its centre already", args.need("about").index)
    return _spaced(args, clause, clause.ref("circle"), f"on {clause.ref('circle').text}", ())


def _spaced(
    args: Args, clause: ClauseValues, ring: Ref, told: str, before: tuple[Made, ...]
) -> _Places:
    on = ClauseValues("on", clause.index, (("count", clause["count"]), ("circle", ring)))
    starts = tuple(args.all("from", "start", "through"))
    points = spaced.construct(Args(f"{args.name}.place", args.unit, (on, *starts)))
    assert isinstance(points.shape, Family)
    refs = [
        Ref(f"{args.name}.{number}.centre", _point(spot))
        for number, spot in enumerate(points.shape.members, 1)
    ]
    told += "".join(f", {_start(each)}" for each in starts)
    parts = {"pitch": ring.shape} if before and isinstance(ring.shape, Circle) else {}
    return _Places(refs, told, (*before, points), dict(parts))


def _start(clause: ClauseValues) -> str:
    """Tell where the first hole lies."""
    match clause.key:
        case "from":
            return f"the first {clause.word('side')}"
        case "start":
            return f"the first at {clause.length('angle').text}"
    return f"the first towards {clause.ref('point').text}"


def _in_rows(args: Args, clause: ClauseValues) -> _Places:
    """Place them where the lines of a grid cross, row by row from the lower left."""
    apart, at = args.need("apart"), args.get("centred", "corner")
    if at is None:
        raise Wanting("rows of holes are centred on a point, or start from their lower left hole")
    columns, rows = clause.count("columns"), clause.count("rows")
    lines = tuple(
        ClauseValues(key, apart.index, (("spacings", (_length(apart, slot),) * (count - 1)),))
        for key, slot, count in (("across", "across", columns), ("up", "up", rows))
        if count > 1
    )
    if not lines:
        raise ClauseError("rows and columns come to one hole: say  circle", clause.index)
    where = ClauseValues(at.key, at.index, (("point", at.ref("point")),))
    made = grid.construct(Args(f"{args.name}.grid", args.unit, (*lines, where)))
    refs = [
        Ref(f"{args.name}.{j * columns + i + 1}.centre", _point(made.parts[f"at.{i}.{j}"]))
        for j in range(rows)
        for i in range(columns)
    ]
    steps = " by ".join(args.say(apart.length(slot).value) for slot in ("across", "up"))
    placed = "centred on" if at.key == "centred" else "from the lower left one at"
    words = f"{columns} by {rows}, {steps} apart, {placed} {at.ref('point').text}"
    return _Places(refs, words, (made,))


def _length(clause: ClauseValues, slot: str) -> Length:
    return clause.length(slot)


def _point(shape: object) -> Point:
    assert isinstance(shape, Point)
    return shape


def _at_places(_: Args, clause: ClauseValues) -> _Places:
    """Take places that are there, the members of families one by one."""
    refs = list(_centres(clause))
    return _Places(refs, f"at {', '.join(ref.text for ref in clause.refs('places'))}")


def _centres(clause: ClauseValues) -> Iterator[Ref]:
    for name, thing in clause.things("places"):
        if isinstance(thing, Point):
            yield Ref(name, thing)
        elif isinstance(thing, Circle):
            yield Ref(f"{name}.centre", thing.centre)
        else:
            raise ClauseError(f"{name} is neither a point nor a circle", clause.index)


ABOUT = """\
Several circles of one size: equally spaced on a pitch circle, `6 on diameter 80, about O` or `6
on c` (the first as in *spaced*); in columns and rows, `3 by 2, 20 by 15 apart`, `centred on` a
point or `from` the lower left one; or `at` places that are there. Parts `1`, `2` and so on,
`1.centre`, and `pitch`.
"""

SHOWN = """\
units mm
O = datum
A = point, 60 right of O
B = point, 60 left of O
bolts = holes, 6 on diameter 80, about O, from above, diameter 9
rows = holes, 3 by 2, 20 by 15 apart, centred on O, diameter 5
ends = holes, at A B, radius 4
drilled = line in, bolts
"""

KIND = Kind(
    name="holes",
    group="Ready shapes",
    summary="several holes of one size: on a pitch circle, in rows and columns, or at places",
    example="bolts = holes, 6 on diameter 80, about O, diameter 9",
    mistake="The pitch circle is drawn with its diameter in the compass, or the first hole is set "
    "on the wrong axis.",
    also=("bolt holes", "bolt circle", "pcd", "hole pattern", "rows of holes", "drilled holes"),
    forms=(
        Form("centred on {point:point}", "centred"),
        Form("{count:count} on diameter {pitch:diameter}", "on"),
        Form("{count:count} on {circle:circle}", "round"),
        Form("about {centre:point}"),
        Form("from {side:above/below/left/right}", "from"),
        Form("from {point:point}", "corner"),
        Form("from {angle:angle}", "start"),
        Form("first towards {point:point}", "through"),
        Form("{columns:count} by {rows:count}", "rows"),
        Form("{across:length} by {up:length} apart", "apart"),
        Form("at {places:several}"),
        Form("diameter {diameter:diameter}"),
        Form("radius {radius:radius}"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
