"""``tapped hole``: end view or section of a thread by table, through or blind, empty or filled."""

from __future__ import annotations

import math
from collections.abc import Callable
from fractions import Fraction
from functools import partial

from ..acts import Edge, Setting, Way, Work
from ..acts.act import Gone
from ..acts.procedures import away
from ..acts.shapes import go_over
from ..geometry import Arc, Circle, Line, Loop, Point, Shape, piece_of, polyline
from ..kind import Args, Kind, Made, Role, Stroke
from ..measure import Number, Unit, spell
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..rules.thread import Thread, UnknownThread, thread
from ..tolerance import ROUND
from ..worksheets import Remark

WAYS = {
    "down": Point(0.0, -1.0),
    "up": Point(0.0, 1.0),
    "left": Point(-1.0, 0.0),
    "right": Point(1.0, 0.0),
}

BEYOND = Fraction(1, 2)
"""How far the drill goes beyond the thread where nothing is said, in diameters (common practice, no
source)."""

SIMPLIFIED = Fraction(4, 5)
"""The minor diameter of the simplified school, in diameters (common practice, no source)."""

AGREES = 0.02
"""Share of the diameter by which a stated thread depth may miss the standard's before it is
remarked."""

CAUTION = "drill sizes are starting values: follow the tap maker's data, clamp the work, mind chips"


def construct(args: Args) -> Made:
    """Construct a tapped hole about a point, or from a point of a face into the material.

    Parts: in the end view ``minor`` and ``major``; in section ``edge`` (closed: what hatching stops
    at), ``minor.1``, ``minor.2``, ``major.1``, ``major.2``, ``end``, ``shoulder``, ``point.1``,
    ``point.2``, ``axis``, ``tip``, ``deep`` and ``drilled`` (where thread and drill end on the
    axis).

    Notes
    -----
    Empty, the hole's edge is thick and the thread's outer line thin: hatching runs through the
    thread to the edge. With a bolt in it, the outer line is thick and hatching stops there (after
    ISO 6410). The drill's point has 120°."""
    place, name = args.need("at").point("place"), args.need("at").ref("place").text
    said = args.need("thread")
    try:
        found = thread(said.word("size"), args.get("special") is not None)
    except UnknownThread as error:
        raise ClauseError(str(error), said.index) from error
    major = found.major / args.unit.mm
    minor, worked, remarks = _minor(args, found, major, place)
    drill = found.drill / args.unit.mm
    working = [
        f"{found.name}, {found.series}: major {args.say(major)}, pitch "
        f"{args.say(found.pitch / args.unit.mm)}",
        *worked,
        f"tapping drill {args.say(major)} − {args.say(found.pitch / args.unit.mm)} = "
        f"{args.say(drill)}"
        + (f", {_nearest(drill)}" if args.unit is Unit.INCH else "")
        + (
            ""
            if _is_standard(args, found, minor)
            else f": the standard thread, not the Ø{args.say(minor)} drawn"
        ),
        f"caution: {CAUTION}",
    ]
    if args.get("section"):
        return _section(args, place, name, found, major, minor, working, remarks)
    if args.get("depth", "through", "drilled", "filled", "runout"):
        clause = args.need("depth", "through", "drilled", "filled", "runout").index
        raise Wanting(
            "depths belong to a section: say which way it goes, such as  section down", clause
        )
    return _end_view(args, place, name, found, major, minor, working, remarks)


def _is_standard(args: Args, found: Thread, minor: Number) -> bool:
    """Tell whether the hole is drawn as wide as the thread of the table leaves it."""
    return abs(float(minor - found.minor / args.unit.mm)) <= AGREES * float(
        found.major / args.unit.mm
    )


def _nearest(drill: Number) -> str:
    """Return a drill to the nearest 64th."""
    return f"nearest 64th {spell(Fraction(round(float(drill) * 64), 64), Unit.INCH)}"


def _minor(
    args: Args, found: Thread, major: Number, place: Point
) -> tuple[Number, list[str], tuple[Remark, ...]]:
    """Return the minor diameter by the school chosen, how it was found, and where it disagrees with
    the standard."""
    pitch, basic = found.pitch / args.unit.mm, found.minor / args.unit.mm
    school, stated = args.get("minor"), args.get("thread_depth")
    if school and stated:
        raise ClauseError("the thread's depth is stated, or follows from a school", stated.index)
    if stated:
        deep = stated.length("deep").value
        minor: Number = major - 2 * deep
        if not 0 < minor < major:
            raise ClauseError(f"a thread is less deep than half of {args.say(major)}", stated.index)
        words = (
            f"minor {args.say(major)} − 2 × {args.say(deep)} = {args.say(minor)}, as the "
            "thread's depth is stated"
        )
        off = float(minor - basic)
        if abs(off) > AGREES * float(major):
            remark = Remark(
                "look",
                f"the stated thread depth {args.say(deep)} gives a minor diameter of "
                f"{args.say(minor)}; by the standard it is {args.say(basic)}",
                place,
            )
            return minor, [words], (remark,)
        return minor, [words], ()
    if school and school.word("school") == "simplified":
        minor = major * SIMPLIFIED
        return (
            minor,
            [
                f"minor 0.8 × {args.say(major)} = {args.say(minor)} (simplified; by the standard "
                f"{args.say(basic)})"
            ],
            (),
        )
    return basic, [f"minor {args.say(major)} − 1.0825 × {args.say(pitch)} = {args.say(basic)}"], ()


def _end_view(  # noqa: PLR0913
    args: Args,
    place: Point,
    name: str,
    found: Thread,
    major: Number,
    minor: Number,
    working: list[str],
    remarks: tuple[Remark, ...],
) -> Made:
    hole = Circle(place, float(minor) / 2, minor / 2)
    # Open for a quarter, a little off the axes, so that it is not taken for a circle that stops at
    # a line.
    outer = Arc(place, float(major) / 2, math.radians(95), math.radians(270), major / 2)
    loop = Loop((piece_of(hole, f"{args.name}.minor"),), True)
    return Made(
        loop,
        f"Tapped hole {args.name} at {name}, {found.name}, end view.",
        tuple(working),
        parts={"minor": hole, "major": outer, "centre": place},
        centre_name=f"{args.name}.centre",
        lined=Role.OUTLINE,
        remarks=lambda: remarks,
        draw=partial(_draw_end, args, loop, outer),
    )


def _section(  # noqa: PLR0913
    args: Args,
    place: Point,
    name: str,
    found: Thread,
    major: Number,
    minor: Number,
    working: list[str],
    remarks: tuple[Remark, ...],
) -> Made:
    ahead = WAYS[args.need("section").word("way")]
    across = ahead.normal
    deep, drilled, through = _depths(args, major)
    filled = args.get("filled") is not None
    wide, thin = float(major) / 2, float(minor) / 2

    def at(out: float, down: float) -> Point:
        return place + across * out + ahead * down

    point = 0.0 if through else thin / math.sqrt(3)
    parts: dict[str, Shape | Loop] = {"axis": Line.between(place, at(0.0, drilled + point))}
    for number, side in ((1, -1), (2, 1)):
        parts[f"major.{number}"] = Line.between(at(side * wide, 0.0), at(side * wide, deep))
        parts[f"minor.{number}"] = Line.between(at(side * thin, 0.0), at(side * thin, drilled))
        if filled and drilled > deep:
            parts[f"rest.{number}"] = Line.between(at(side * thin, deep), at(side * thin, drilled))
        if not through:
            parts[f"point.{number}"] = Line.between(
                at(side * thin, drilled), at(0.0, drilled + point)
            )
    if not through:
        parts["end"] = Line.between(at(-wide, deep), at(wide, deep))
        parts["shoulder"] = Line.between(at(-thin, drilled), at(thin, drilled))
        parts |= {
            "tip": at(0.0, drilled + point),
            "deep": at(0.0, deep),
            "drilled": at(0.0, drilled),
        }
    parts |= _run_out(args, at, wide, thin, (deep, drilled), through)
    parts["edge"] = _edge(args.name, at, wide, thin, (deep, drilled, point), filled, through)
    working.append(
        "hatching stops at the outer line of the thread: the bolt is not cut"
        if filled
        else "hatching runs through the thread to the edge of the hole"
    )
    if not through:
        working.append("the drill's point has 120°: 30° to the square at each side")
    words = "through" if through else f"thread {args.say(deep)}, drilled {args.say(drilled)} deep"
    edge = parts["edge"]
    assert isinstance(edge, Loop)
    return Made(
        edge,
        f"Tapped hole {args.name} at {name}, {found.name}, in section, "
        f"{words}{', filled' if filled else ''}.",
        tuple(working),
        parts=parts,
        remarks=lambda: remarks,
        draw=partial(_draw_section, args, parts, place, (major, minor), filled),
    )


def _run_out(
    args: Args,
    at: Callable[[float, float], Point],
    wide: float,
    thin: float,
    depths: tuple[float, float],
    through: bool,
) -> dict[str, Shape | Loop]:
    """Return the slanted lines along which a thread runs out behind its full depth."""
    clause, (deep, drilled) = args.get("runout"), depths
    if clause is None:
        return {}
    long = float(clause.length("long"))
    if through or not 0 < long <= drilled - deep:
        room = (
            "a hole that goes through has none"
            if through
            else f"it ends within the drilled depth, {drilled - deep:g}"
        )
        raise ClauseError(f"the run-out lies behind the full thread: {room}", clause.index)
    return {
        f"run_out.{number}": Line.between(at(side * wide, deep), at(side * thin, deep + long))
        for number, side in ((1, -1), (2, 1))
    }


def _depths(args: Args, major: Number) -> tuple[float, float, bool]:
    """Return how deep the thread and the full drill go, and whether they go through."""
    through, depth, drilled = args.get("through"), args.get("depth"), args.get("drilled")
    if through:
        if depth or drilled:
            raise ClauseError(
                "a hole goes through, or it has depths", args.need("depth", "drilled").index
            )
        thick = float(through.length("thick"))
        if thick <= 0:
            raise ClauseError("the material is more than nought thick", through.index)
        return thick, thick, True
    if depth is None:
        raise Wanting(
            "a blind hole has a depth of thread, such as  depth 20; or it goes  through 12"
        )
    deep = float(depth.length("deep"))
    full = float(drilled.length("deep")) if drilled else deep + float(major * BEYOND)
    if not 0 < deep <= full:
        raise ClauseError("the drill goes at least as deep as the thread", (drilled or depth).index)
    return deep, full, False


def _edge(
    owner: str,
    at: Callable[[float, float], Point],
    wide: float,
    thin: float,
    depths: tuple[float, float, float],
    filled: bool,
    through: bool,
) -> Loop:
    """Return the closed line at which hatching stops: the hole's edge, or the bolt's where one
    fills it."""
    deep, drilled, point = depths
    right = [at(wide, 0.0), at(wide, deep), at(thin, deep)] if filled else [at(thin, 0.0)]
    left = [at(-thin, deep), at(-wide, deep), at(-wide, 0.0)] if filled else [at(-thin, 0.0)]
    if through:
        corners = [
            right[0],
            at(wide if filled else thin, deep),
            at(-wide if filled else -thin, deep),
            left[-1],
        ]
    else:
        corners = [*right, at(thin, drilled), at(0.0, drilled + point), at(-thin, drilled), *left]
    kept = [
        corner for index, corner in enumerate(corners) if abs(corner - corners[index - 1]) > ROUND
    ]
    return polyline(
        kept, [f"{owner}.edge{number}" for number in range(1, len(kept) + 1)], closed=True
    )


def _draw_end(args: Args, hole: Loop, outer: Arc, work: Work) -> None:
    centre = work.mark(outer.centre, args.need("at").ref("place").text)
    inner = hole.pieces[0].curve
    assert isinstance(inner, Circle)
    work.swing(centre, inner.size, f"{args.name}.minor", shape=inner)
    work.swing(centre, outer.size, f"{args.name}.major", shape=outer)
    go_over(work, hole, Role.OUTLINE)
    by_eye = Gone(work.round(outer).key, "", "", outer, f"{args.name}.major")
    work.go_over(
        [by_eye],
        Role.THREAD,
        f"{args.name}.major",
        [Stroke(outer, Role.THREAD)],
        "thick inside, thin outside: for a bolt it is the other way",
        Setting(outer.size),
        "arc",
    )


def _draw_section(
    args: Args,
    parts: dict[str, Shape | Loop],
    place: Point,
    sizes: tuple[Number, Number],
    filled: bool,
    work: Work,
) -> None:
    """Draw the axis, half of both diameters each side, close thread and drill at their depths,
    point the drill."""
    name, (major, minor) = args.name, sizes
    axis_line, mouth = parts["axis"], work.mark(place, args.need("at").ref("place").text)
    assert isinstance(axis_line, Line)
    ways = {"right": 0, "up": 90, "left": 180, "down": 270}
    degrees = ways[args.need("section").word("way")]
    axis = work.draw(mouth, Way(degrees), called=f"the axis of {name}", shown=axis_line)
    face = work.square(axis, mouth, called=f"the face of {name}")
    for word, size in (("minor", minor), ("major", major)):
        for number in (1, 2):
            line = parts[f"{word}.{number}"]
            assert isinstance(line, Line)
            start = line.at(0.0)
            mark = work.measure(
                mouth,
                away(face, mouth, start),
                size / 2,
                f"the place of {name}.{word}.{number}",
                start,
            )
            work.parallel(axis, mark, called=f"{name}.{word}.{number}", shown=line)
    for key, clause, slot in (("end", "depth", "deep"), ("shoulder", "drilled", "deep")):
        close = parts.get(key)
        said = args.get("through") or args.get(clause)
        if isinstance(close, Line):
            spot = (close.at(0.0) + close.at(close.end or 0.0)) * 0.5
            size = said.length(slot).value if said else abs(spot - place)
            at = work.measure(
                mouth, away(axis, mouth, spot), size, f"the place of {name}.{key}", spot
            )
            work.square(axis, at, called=f"{name}.{key}")
    bottom = args.get("through")
    if bottom:
        spot = axis_line.at(axis_line.end or 0.0)
        at = work.measure(
            mouth,
            away(axis, mouth, spot),
            bottom.length("thick").value,
            f"the far face of {name}",
            spot,
        )
        work.square(axis, at, called=f"the far face of {name}")
    for number, turn in ((1, 60), (2, -60)):
        point = parts.get(f"point.{number}")
        if isinstance(point, Line):
            corner = work.mark(point.at(0.0), f"a corner of the drill of {name}")
            work.draw(
                corner,
                Way(turn, axis.key, axis.called),
                point.at(point.end or 0.0),
                f"{name}.point.{number}",
                check="its point has 120°",
            )
    _draw_run_out(args, parts, axis, work)
    for key, part in parts.items():
        role = _role_of(key, filled)
        if role is not None and isinstance(part, Line):
            go_over(work, Loop((piece_of(part, f"{name}.{key}"),), False), role)


def _draw_run_out(args: Args, parts: dict[str, Shape | Loop], axis: Edge, work: Work) -> None:
    clause, line = args.get("runout"), parts.get("run_out.1")
    if clause is None or not isinstance(line, Line):
        return
    deep = work.mark(axis.line.foot(line.at(0.0)))
    spot = axis.line.foot(line.at(line.end or 0.0))
    end = work.measure(
        deep, away(axis, deep, spot), clause.length("long").value, "the end of the run-out", spot
    )
    work.square(axis, end, called="the end of the run-out")


def _role_of(key: str, filled: bool) -> Role | None:
    """Return as what a part is gone over: the hole thick and the thread thin, with a bolt in it the
    other way."""
    match key.partition(".")[0]:
        case "minor":
            return Role.THREAD if filled else Role.OUTLINE
        case "major":
            return Role.OUTLINE if filled else Role.THREAD
        case "run_out":
            return Role.THREAD
        case "end" | "shoulder" | "rest" | "point":
            return Role.OUTLINE
    return None


ABOUT = """\
A thread by table: metric coarse `"M10"` and fine `"M10x1.25"`, unified `"1/4-20"` and `"#10-32"`,
pipe `"G1/2"`, trapezoidal `"Tr20x4"`; with `special` a pitch of its own, `"M22x0.7"`. As `end view`
(the usual): hole thick, outer circle thin and open for a quarter. Or `section down` (`up left
right`) into the material: `depth` of thread and `drilled` depth with its 120° point, or `through` a
thickness; `runout 3` behind the full thread; `filled` when a bolt stands in it. The minor diameter
is `minor computed` (the usual), `minor simplified` (0.8 of the major), or follows from a `thread
depth` stated for each side. Its part `edge` is what hatching stops at.
"""

SHOWN = """\
units mm
O = datum
block = box, 60 by 50, centred on O
rim = line in, block.bottom > block.right > block.top > block.left, cut
P = point, 25 above O
tap = tapped hole, at P, thread "M16", section down, depth 24, drilled 32
sect = hatch, of rim tap.edge
"""

KIND = Kind(
    name="tapped hole",
    group="Ready shapes",
    summary="end view or section of a thread by table, through or blind",
    example='tap = tapped hole, at P, thread "M10", section down, depth 20, drilled 26',
    mistake="Hatching stops at the outer line of an empty thread: it runs on to the edge of the "
    "hole.",
    also=("thread", "tapping", "threaded hole"),
    forms=(
        Form("at {place:point}", needed=True),
        Form("thread {size:text}", needed=True),
        Form("special"),
        Form("end view", "end"),
        Form("section {way:" + "/".join(WAYS) + "}"),
        Form("through {thick:length}"),
        Form("depth {deep:length}"),
        Form("drilled {deep:length}"),
        Form("runout {long:length}"),
        Form("filled"),
        Form("minor {school:computed/simplified}"),
        Form("thread depth {deep:length}", "thread_depth"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
