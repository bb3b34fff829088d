"""``cam``: radial, from its events in order, for a knife edge, a roller or a flat face; with its
diagram."""

from __future__ import annotations

import math
from collections import Counter
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from functools import partial
from typing import Literal

from ..acts import LEVEL, Mark, Work
from ..drawing.notes import Hatching, Note, RotationArrow
from ..geometry import Circle, Loop, Piece, Point, Shape, piece_of
from ..geometry.place import SIDES
from ..kind import Args, Kind, Made, Role, Stroke
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.cam import MOST_EVENTS, STEEP, Cam, Event, Follower
from ..rules.envelope import Envelope, envelope
from ..rules.motion import MOTIONS, rounded_by
from ..tolerance import ROUND, assembled, worked
from ..worksheets import Remark
from ..worksheets.cam import CamSheet, Diagram, follower_strokes
from .cam_board import CamBoard, draw_diagram
from .cam_events import LEAST, PARTS, described, events_by, events_of, parts_of

GRAPHS = ("velocity", "acceleration")
"""What may be plotted under the displacement diagram, in that order."""

MUCH = 0.01
"""Share of the lift that may be lost at a corner before the cam is wrong (by eye, no source)."""


def construct(args: Args) -> Made:
    """Construct the profile of a radial cam, stations numbered against its rotation.

    Parts: ``least`` (the circle of the least distance), ``shaft``, ``station.0`` … (of the
    follower's middle), for a roller ``pitch``, for an offset ``offset``; with a diagram ``diagram``
    (its curve).

    Notes
    -----
    At each station the follower stands its least distance plus its lift from the centre
    (definition). A roller's profile is the inner parallel of the path of its middle, a flat face's
    the envelope of its lines. Dwells are arcs."""
    cam, problems = _read(args)
    bore, parts, mm = bore_of(args, cam), parts_of(args), 1 / float(args.unit.mm)
    drawn = envelope(cam)
    rim = Loop(tuple(outline_of(drawn, args.name)), True)
    groove = _groove(args, cam)
    outer = Loop(tuple(outline_of(groove, f"{args.name}.outer")), True) if groove else None
    graph = _graph(args, cam, parts, mm)
    name = args.need("about").ref("centre").text
    return Made(
        rim,
        f"Cam {args.name} about {name}, least "
        f"{args.say(args.need('least').length('radius').value)}, turning "
        f"{'clockwise' if cam.clockwise else 'counter-clockwise'}, {_follower_told(args, cam)}: "
        + ", ".join(described(event, args.say) for event in cam.events)
        + ".",
        tuple(_working(args, cam, parts)),
        parts={
            **_named(args, cam, bore, parts),
            **({"diagram": graph.curve} if graph.curve else {}),
            **({"outer": outer} if outer else {}),
            **{piece.name.removeprefix(f"{args.name}."): piece.curve for piece in rim.pieces},
        },
        centre_name=name,
        notes=(
            RotationArrow(cam.centre, cam.least * 0.7, -cam.way),
            *hatched(args, bore),
            *graph.notes,
        ),
        remarks=lambda: (
            *problems,
            *_remarks(args, cam, drawn, bore),
            *(cut_off(args, replace(cam, outer=True), groove) if groove else ()),
        ),
        worksheet=CamSheet(cam, rim, bore, _wide(args, mm), _tall(args), mm, parts, args.say).at,
        draw=partial(
            _draw,
            args,
            cam,
            (rim, drawn.corners),
            (outer, groove.corners) if outer and groove else None,
            graph,
            parts,
            mm,
        ),
    )


def _read(args: Args) -> tuple[Cam, tuple[Remark, ...]]:
    """Read the cam, and what is to be remarked of its events."""
    least = args.need("least").length("radius")
    if float(least) <= 0:
        raise ClauseError("the least distance is more than nought", args.need("least").index)
    events, problems = events_of(args)
    events = _with_ends(args, events)
    return _cam(args, args.need("about").point("centre"), float(least), events), problems


def _groove(args: Args, cam: Cam) -> Envelope | None:
    """Return the outer flank of the groove a roller runs in, where one is cut."""
    clause = args.get("groove")
    if clause is None:
        return None
    if not cam.roller:
        raise ClauseError("a groove is as wide as its roller: say  roller radius", clause.index)
    return envelope(replace(cam, outer=True))


def _least(args: Args, cam: Cam) -> Circle:
    return Circle(cam.centre, cam.least, args.need("least").length("radius").value)


def bore_of(args: Args, cam: Cam) -> Circle | None:
    """Return the shaft, where one is said."""
    shaft = args.get("shaft")
    if shaft is None:
        return None
    size = shaft.length("size")
    return Circle(cam.centre, float(size) / 2, size.value / 2)


def outline_of(drawn: Envelope, owner: str) -> Iterator[Piece]:
    """Yield the profile piece by piece, those of one event numbered."""
    many = Counter(event for event, _ in drawn.curves)
    numbers: Counter[str] = Counter()
    for event, curve in drawn.curves:
        own = f"{owner}.{event}"
        if many[event] == 1:
            yield piece_of(curve, own)
            continue
        numbers[event] += 1
        yield piece_of(curve, f"{own}.{numbers[event]}", own)


def _named(args: Args, cam: Cam, bore: Circle | None, parts: int) -> dict[str, Shape | Loop]:
    """Return the circles, stations and paths that can be referred to."""
    named: dict[str, Shape | Loop] = {
        "least": _least(args, cam),
        **{f"station.{k}": _spot(cam, k / parts) for k in range(parts)},
        "centre": cam.centre,
    }
    if bore is not None:
        named["shaft"] = bore
    if cam.aside:
        named["offset"] = Circle(cam.centre, abs(cam.aside))
    if cam.roller:
        path = Cam(
            cam.centre,
            cam.least + cam.roller,
            cam.clockwise,
            cam.events,
            "knife",
            0.0,
            cam.offset,
            cam.ahead,
        )
        named["pitch"] = Loop(tuple(outline_of(envelope(path), f"{args.name}.pitch")), True)
    return named


def hatched(args: Args, bore: Circle | None) -> tuple[Note, ...]:
    """Return the hatching of a shaft."""
    return (
        () if bore is None else (Hatching((Loop((piece_of(bore, f"{args.name}.shaft"),), True),)),)
    )


@dataclass(frozen=True)
class _Graph:
    """The displacement diagram: its curve, how it is drawn, its lettering. Nothing where none is
    asked for."""

    diagram: Diagram | None = None
    curve: Loop | None = None
    graphs: tuple[Stroke, ...] = ()
    notes: tuple[Note, ...] = ()


def _graph(args: Args, cam: Cam, parts: int, mm: float) -> _Graph:
    at = args.get("diagram")
    if at is None:
        return _Graph()
    titled = args.get("titled")
    title = titled.word("title") if titled else "DISPLACEMENT DIAGRAM"
    in_degrees = args.get("degrees") is not None
    diagram = Diagram(
        cam,
        at.point("corner"),
        _wide(args, mm),
        _tall(args),
        parts,
        mm,
        args.say,
        title,
        in_degrees,
        _scale(args),
    )
    curve = diagram.curve(f"{args.name}.diagram")
    notes, graphs = list(diagram.lettering()), list[Stroke]()
    asked = {one.word("graph") for one in args.all("with")}
    below = diagram.depth
    for order, word in enumerate(GRAPHS, 1):
        if word in asked:
            drawn, lettered = diagram.under(order, below)
            graphs += drawn
            notes += lettered
            below += 26 * mm
    _check_carried(args, cam, diagram)
    return _Graph(diagram, curve, tuple(graphs), tuple(notes))


def _check_carried(args: Args, cam: Cam, diagram: Diagram) -> None:
    """Refuse to carry heights of the diagram across to a follower's line that does not stand level
    with them."""
    clause = args.get("carried")
    if clause is None:
        return
    line = cam.centre - cam.ahead.normal * cam.aside
    rest = line + cam.ahead * cam.rest
    if cam.ahead != SIDES["above"] or diagram.tall != 1.0:
        message = (
            "heights are carried across to a follower that points up, from a diagram whose "
            "lift is at 1:1"
        )
        raise ClauseError(message, clause.index)
    off = diagram.at.y - rest.y
    if abs(off) > worked(cam.rest):
        way = "below" if off > 0 else "above"
        message = (
            "the diagram's base is not level with the follower at no lift: set its corner "
            f"{args.say(abs(off))} {way}"
        )
        raise ClauseError(message, clause.index)


def _with_ends(args: Args, events: tuple[Event, ...]) -> tuple[Event, ...]:
    """Give the rounded ends of uniform motions the radius they are to have on the displacement
    diagram."""
    clause = args.get("ends")
    if clause is None:
        return events
    if not args.get("diagram"):
        raise ClauseError(
            "the radius of rounded ends is one of the displacement diagram: say  diagram from",
            clause.index,
        )
    if not any(event.motion is MOTIONS["rounded"] for event in events):
        raise ClauseError("no event is  rounded", clause.index)
    wide, tall, radius = (
        _wide(args, 1 / float(args.unit.mm)),
        _tall(args),
        float(clause.length("radius")),
    )
    result = []
    for event in events:
        if event.motion is MOTIONS["rounded"]:
            motion = rounded_by(radius, math.degrees(event.angle) * wide, abs(event.lift) * tall)
            if motion is None:
                message = (
                    f"R{args.say(radius)} is too large for the ends of {event.name}: they take "
                    "more than half of it"
                )
                raise ClauseError(message, clause.index)
            event = replace(event, motion=motion)
        result.append(event)
    return tuple(result)


def _cam(args: Args, centre: Point, least: float, events: tuple[Event, ...]) -> Cam:
    roller, follower = args.get("roller"), args.get("follower")
    radius = float(roller.length("size")) if roller else 0.0
    if roller and radius <= 0:
        raise ClauseError("a roller is larger than nought", roller.index)
    if roller and follower:
        raise ClauseError("the follower is a roller or something else, not both", follower.index)
    kind: Follower = (
        "roller"
        if roller
        else "flat"
        if follower and follower.word("follower") == "flat"
        else "knife"
    )
    clause = args.get("offset")
    off = (
        float(clause.length("amount")) * (1 if clause.word("way") == "right" else -1)
        if clause
        else 0.0
    )
    if clause and not abs(off) < least + radius:
        raise ClauseError(
            "the follower's line passes the least circle: an offset is less than "
            f"{args.say(least + radius)}",
            clause.index,
        )
    where = args.get("where")
    ahead = SIDES[where.word("where")] if where else SIDES["above"]
    return Cam(centre, least, args.get("ccw") is None, events, kind, radius, off, ahead)


def _wide(args: Args, mm: float) -> float:
    clause = args.get("graph")
    if clause is None:
        return 8 * mm / 30
    angle, length = float(clause.length("angle")), float(clause.length("length"))
    if angle <= 0 or length <= 0:
        raise ClauseError(
            "the scale of the base is an angle and a length, such as  30° is 8", clause.index
        )
    return length / angle


def _scale(args: Args) -> str:
    """Return the scale of the base as it is stated."""
    clause = args.get("graph")
    if clause is None:
        return ""
    angle, length = clause.length("angle").value, clause.length("length").value
    return f"{spell_angle(angle)} = {args.say(length)}"


def _tall(args: Args) -> float:
    clause = args.get("lift_scale")
    if clause is None:
        return 1.0
    drawn, actual = (float(part) for part in clause.word("ratio").replace(" ", "").split(":"))
    if not 0.01 <= drawn / max(actual, ROUND) <= 100:
        raise ClauseError("the lift is drawn between 1:100 and 100:1", clause.index)
    return drawn / actual


def _spot(cam: Cam, share: float) -> Point:
    """Return where the follower's middle stands at a share of the turn, on the standing cam."""
    return cam.pitch(*cam.where(math.tau * share))[0]


def _follower_told(args: Args, cam: Cam) -> str:
    told = {
        "knife": "knife edge",
        "roller": f"roller R{args.say(cam.roller)}",
        "flat": "flat face",
    }[cam.follower]
    side = "right" if cam.offset > 0 else "left"
    return (
        f"{told} offset {args.say(abs(cam.offset))} to the {side}"
        if cam.offset
        else f"{told} in line"
    )


def _working(args: Args, cam: Cam, parts: int) -> Iterator[str]:
    yield " + ".join(spell_angle(math.degrees(event.angle)) for event in cam.events) + " = 360°"
    yield (
        f"360° ÷ {parts} = {spell_angle(360 / parts)} a part; stations run "
        f"{'counter-clockwise' if cam.clockwise else 'clockwise'}, against the rotation"
    )
    middle = cam.least + cam.roller
    if cam.roller:
        yield (
            f"roller's middle at least {args.say(cam.least)} + {args.say(cam.roller)} = "
            f"{args.say(middle)} out"
        )
    if cam.aside:
        yield (
            f"along its line √({args.say(middle)}² − {args.say(abs(cam.aside))}²) = "
            f"{args.say(cam.rest)} above the "
            "foot of the offset"
        )
    top = cam.rest + cam.greatest
    if cam.aside:
        off = args.say(abs(cam.aside))
        yield (
            f"greatest opening √(({args.say(cam.rest)} + {args.say(cam.greatest)})² + {off}²) = "
            f"{args.say(math.hypot(top, cam.aside))}"
        )
    else:
        yield f"greatest opening {args.say(middle)} + {args.say(cam.greatest)} = {args.say(top)}"
    if cam.follower == "flat":
        yield (
            f"the face is touched up to {args.say(cam.reach())} off its line: it reaches at "
            "least so far each side"
        )
    else:
        going = cam.steepest_going
        parts_ = [
            f"{angle:.1f}° in the {way} at {where:.0f}°"
            for way, (angle, where) in going.items()
            if way
        ]
        yield f"greatest pressure angle {', '.join(parts_)}"
    radius, where = cam.tightest()
    if 0 < radius < math.inf:
        yield f"the profile bulges most sharply with R{args.say(radius)}, at {where:.0f}°"


def _remarks(args: Args, cam: Cam, drawn: Envelope, bore: Circle | None) -> Iterator[Remark]:
    for turn, before, after in cam.jumps():
        yield Remark(
            "look",
            f"the velocity jumps at {turn:g}°, from {args.say(before)} to {args.say(after)} a "
            "degree: the follower is struck there",
            _spot(cam, turn / 360),
        )
    for index, event in enumerate(cam.events):
        if event.drops:
            turn = math.degrees(cam.starts[index])
            yield Remark(
                "look",
                f"the follower drops {args.say(-event.lift)} at {turn:g}°, suddenly: it strikes at "
                "the foot, and the cam turns one way only",
                _spot(cam, turn / 360),
            )
    yield from cut_off(args, cam, drawn)
    if cam.follower != "flat":
        angle, where = cam.steepest
        if angle > STEEP:
            yield Remark(
                "look",
                f"the pressure angle is {angle:.1f}° at {where:.0f}°; {STEEP:g}° is the usual "
                "limit "
                "(common practice): a larger least distance or a longer rise makes it less",
                _spot(cam, where / 360),
            )
    if cam.lowest < -assembled(cam.least):
        yield Remark(
            "look",
            f"the curve through the measured lifts falls {args.say(-cam.lowest)} below the least "
            "distance between stations: measure more of them there",
        )
    if cam.overshoots > assembled(cam.greatest):
        yield Remark(
            "look",
            f"the curve through the measured lifts rises {args.say(cam.overshoots)} above the "
            "greatest of them, between stations: measure more of them there",
        )
    if bore is not None and cam.least <= bore.radius:
        yield Remark(
            "wrong",
            f"the least distance {args.say(cam.least)} does not clear the shaft's radius "
            f"{args.say(bore.size)}",
            bore.centre,
        )


def cut_off(args: Args, cam: Cam, drawn: Envelope) -> Iterator[Remark]:
    """Tell where the profile had to be cut off, why, and how much of the lift is lost by it."""
    where, why = drawn.lags_at, "the profile is cut off to a corner"
    if cam.follower == "flat" and cam.flattest()[0] <= 0:
        least, where = cam.flattest()
        why = (
            f"at {where:.0f}° the profile would bend the other way (radius {args.say(least)}), the "
            "face would lose contact, and it is cut off to a corner"
        )
        if cam.least_that_does is not None:
            why += f"; with the least distance more than {args.say(cam.least_that_does)} it is not"
    elif cam.roller and cam.sharpest()[0] < cam.roller * (1 + ROUND):
        radius, where = cam.sharpest()
        why = (
            f"at {where:.0f}° the path of the roller bends with {args.say(radius)}, less than the "
            f"roller's {args.say(cam.roller)}: the profile is undercut, and cut off to a corner; a "
            "smaller roller or a larger least distance mends that"
        )
    spot = _spot(cam, where / 360)
    if drawn.lost:
        message = "the follower cuts away what should carry it: no profile does that"
        yield Remark("wrong", message, spot)
    elif drawn.corners and cam.outer:
        message = (
            "the outer flank of the groove is cut off to a corner: the roller is not led there"
        )
        yield Remark("look", message, drawn.corners[0])
    elif drawn.corners:
        # Before a drop a roller or a face comes down over the corner, as it is meant to.
        much = drawn.lag > MUCH * cam.travel
        falls = any(event.drops for event in cam.events)
        weight: Literal["wrong", "look"] = "wrong" if much and not falls else "look"
        yield Remark(
            weight,
            f"{why}: the follower comes up to {args.say(drawn.lag)} short of its lift, most at "
            f"{drawn.lags_at:.0f}°",
            drawn.corners[0] if len(drawn.corners) == 1 else spot,
        )


def _carry_across(cam: Cam, lifts: Mapping[float, tuple[Mark, Mark]], work: Work) -> None:
    """Carry every height of the diagram level across to the follower's line."""
    across = (cam.centre - cam.ahead.normal * cam.aside).x
    for mark in {
        round(mark.at.y / work.paper.nothing): mark for _, mark in reversed(list(lifts.values()))
    }.values():
        work.draw(mark, LEVEL, Point(across, mark.at.y), "the height carried across", anew=True)
        work.want()


def _draw(  # noqa: PLR0913
    args: Args,
    cam: Cam,
    flank: tuple[Loop, tuple[Point, ...]],
    outer: tuple[Loop, tuple[Point, ...]] | None,
    graph: _Graph,
    parts: int,
    mm: float,
    work: Work,
) -> None:
    """Draw the diagram, the circles, the line of the follower at every station, and the profile
    along them."""
    about = args.need("about")
    centre = work.mark(cam.centre, about.ref("centre").text)
    lifts: dict[float, tuple[Mark, Mark]] = {}
    if graph.diagram is not None and graph.curve is not None:
        lifts = draw_diagram(
            work, graph.diagram, graph.curve, args.name, args.need("diagram").ref("corner").text
        )
        if graph.graphs:
            work.finish(
                "Plot the slope of the curve under it, from its table",
                "letter",
                graph.graphs,
                "it is nought where the curve is level",
            )
        if args.get("carried"):
            _carry_across(cam, lifts, work)
        if graph.diagram.tall != 1.0:
            lifts = {}
    least = args.need("least").length("radius").value
    work.swing(centre, least, f"the circle of the least distance of {args.name}")
    CamBoard(args, cam, flank, centre, work, parts, lifts, outer).draw()
    if any(one.word("graph") == "follower" for one in args.all("with")):
        drawn = [
            Stroke(s.shape, Role.EDGE)
            for s in follower_strokes(cam, cam.lift(0.0)[0], mm)
            if s.role is Role.OUTLINE
        ]
        work.finish("Draw the follower where it stands at 0°", "letter", drawn)


ABOUT = """\
Radial, from its events in order: `rise 120° by 20 harmonic`, `dwell 60°`, `fall 180° by 20
uniform`; motions `uniform`, `rounded` (uniform with rounded ends), `harmonic` (the usual),
`parabolic` (uniform acceleration and retardation), `cycloidal`, `polynomial` (3-4-5); `fall 0° by
20` is a sudden drop; `ends
radius 10` states the radius of the rounded ends on the diagram. Or measured: `lift 3 at 30°`,
station by station from 0° on. `least` is the distance from the centre to the nearest place of
the profile; `cw` (the usual) or `ccw` says which way it turns, and stations run the other way.
The follower is `knife` (the usual), `flat`, or has a `roller radius`, in a `groove` where it is led
both ways (`outer` is its outer flank); its line may be `offset 8
right`, and points `above` or another way. `24 parts` or `every 15°` divides it. `diagram from
G` draws the displacement diagram from its corner at `30° is 8` and `lift scale 2:1`, `with
velocity` and `with acceleration` under it, `titled "LIFT OF THE PADDLE"`; stations lettered in
`degrees`, there and round the cam. A first event may fall: lifts are told from where the
follower stands at 0°. `with follower` draws it there; `carried across` takes the heights level
to its line from a diagram whose base stands level with it. Parts `least`, `shaft`, `station.0`
on, `pitch`, `offset`, `diagram`.
"""

SHOWN = """\
units mm
O = datum
G = point, 90 right of O
lifter = cam, about O, least 36, ccw, shaft diameter 25, roller radius 9, rise 120° by 28 harmonic, dwell 60°, fall 180° by 28 cycloidal, 24 parts, diagram from G, 30° is 8
rim = line in, lifter
bore = line in, lifter.shaft
curve = line in, lifter.diagram, open
"""  # noqa: E501

KIND = Kind(
    name="cam",
    group="Curves",
    summary="radial, from its events in order, with its displacement diagram",
    example="striker = cam, about O, least 30, rise 120° by 20 harmonic, dwell 60°, fall 180° by "
    "20 uniform",
    mistake="The stations are numbered the way the cam turns. They run against it.",
    also=("follower", "cam profile", "snail cam", "drop cam"),
    forms=(
        Form("about {centre:point}", needed=True),
        *LEAST,
        *events_by("length"),
        Form("ends radius {radius:radius}", "ends"),
        Form("lift {lift:length} at {angle:angle}", most=MOST_EVENTS),
        Form("cw"),
        Form("ccw"),
        Form("shaft diameter {size:diameter}", "shaft"),
        Form("{follower:knife/flat}", "follower"),
        Form("roller radius {size:radius}", "roller"),
        Form("roller diameter {size_across:diameter}", "roller"),
        Form("groove"),
        Form("offset {amount:length} {way:left/right}"),
        Form("{where:" + "/".join(SIDES) + "}", "where"),
        *PARTS,
        Form("diagram from {corner:point}"),
        Form("with {graph:velocity/acceleration/follower}", most=3),
        Form("carried across", "carried"),
        Form("titled {title:text}", "titled"),
        Form("degrees"),
        Form("{angle:angle} is {length:length}", "graph"),
        Form("lift scale {ratio:ratio}", "lift_scale"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    follows=True,
)
