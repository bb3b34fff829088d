"""``rocker``: a radial cam whose follower swings about a pivot, for a roller, a point or a flat
face."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, field, replace
from functools import partial

from ..acts import Edge, Mark, Round, Way, Work
from ..acts.act import Thing
from ..acts.procedures import ray_to
from ..drawing.notes import RotationArrow
from ..geometry import Circle, Line, Loop, Point, Shape, polar, rotate
from ..kind import Args, Kind, Made
from ..measure import spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.cam import STEEP, Event, Follower
from ..rules.envelope import envelope
from ..rules.rocker import Rocker
from ..tolerance import ROUND, same
from ..worksheets import Remark
from ..worksheets.rocker import RockerSheet
from .cam import bore_of, cut_off, hatched, outline_of
from .cam_board import CamBoard
from .cam_events import LEAST, PARTS, events_by, events_of, parts_of


def construct(args: Args) -> Made:
    """Construct the profile of a radial cam under a swinging follower, stations numbered against
    its rotation.

    Parts: ``least`` (the circle of the least distance), ``shaft``, ``pivots`` (the circle the pivot
    goes round on), ``station.0`` … (of the roller's middle).

    Notes
    -----
    The cam standing, the pivot goes round it; at each station the arm has swung by so much from
    where it rests (inversion; common practice)."""
    cam, problems = _read(args)
    drawn, bore, parts = envelope(cam), bore_of(args, cam), parts_of(args)
    rim = Loop(tuple(outline_of(drawn, args.name)), True)
    name = args.need("about").ref("centre").text
    named: dict[str, Shape | Loop] = {
        "least": Circle(cam.centre, cam.least, args.need("least").length("radius").value),
        "pivots": Circle(cam.centre, cam.apart),
        "centre": cam.centre,
        **{f"station.{k}": _spot(cam, math.tau * k / parts) for k in range(parts)},
        **({"shaft": bore} if bore else {}),
        **{piece.name.removeprefix(f"{args.name}."): piece.curve for piece in rim.pieces},
    }
    turning = "clockwise" if cam.clockwise else "counter-clockwise"
    return Made(
        rim,
        f"Cam {args.name} about {name}, turning {turning}, least "
        f"{args.say(args.need('least').length('radius').value)}, under an arm "
        f"{args.say(cam.arm)} about {args.need('pivot').ref('pivot').text}, "
        f"{_follower_told(args, cam)}: " + ", ".join(map(_words, cam.events)) + ".",
        tuple(_working(args, cam, parts)),
        parts=named,
        centre_name=name,
        notes=(RotationArrow(cam.centre, cam.least * 0.7, -cam.way), *hatched(args, bore)),
        remarks=lambda: (*problems, *_remarks(cam), *cut_off(args, cam, drawn)),
        worksheet=RockerSheet(cam, rim, bore, 1 / float(args.unit.mm), parts, args.say).at,
        draw=partial(_draw, args, cam, rim, drawn.corners, parts),
    )


def _read(args: Args) -> tuple[Rocker, tuple[Remark, ...]]:
    least = float(args.need("least").length("radius"))
    if least <= 0:
        raise ClauseError("the least distance is more than nought", args.need("least").index)
    told, problems = events_of(args)
    events = tuple(
        replace(event, start=math.radians(event.start), end=math.radians(event.end))
        for event in told
    )
    drop = next((event for event in events if event.drops), None)
    if drop is not None:
        raise ClauseError("an arm does not drop over no angle: give the fall some", None)
    centre, pivot = args.need("about").point("centre"), args.need("pivot").point("pivot")
    apart = abs(pivot - centre)
    if apart <= same(abs(centre)):
        raise ClauseError("the pivot lies off the cam's centre", args.need("pivot").index)
    roller, face = args.get("roller"), args.get("follower")
    if roller and face:
        raise ClauseError("the follower is a roller or something else, not both", face.index)
    size = float(roller.length("size")) if roller else 0.0
    follower: Follower = "roller" if roller else "knife"
    if face and face.word("follower") == "flat":
        follower = "flat"
    arm = _arm(args, follower, apart, least + size)
    side = -1 if args.get("side") and args.need("side").word("side") == "right" else 1
    cam = Rocker(
        centre,
        least,
        args.get("ccw") is None,
        events,
        follower,
        size,
        pivot=pivot,
        arm=arm,
        side=side,
    )
    if cam.rests + cam.greatest >= math.pi / 2 + (0 if follower == "flat" else math.pi / 2):
        told_ = "the arm would swing past its pivot: a smaller rise, or a pivot further away"
        raise ClauseError(told_, args.need("pivot").index)
    return cam, problems


def _arm(args: Args, follower: str, apart: float, out: float) -> float:
    """Return the length of the arm; a face is as long as it is touched."""
    clause = args.get("arm")
    if follower == "flat":
        if clause:
            raise ClauseError("a flat face has no arm: it is touched all along", clause.index)
        if out >= apart:
            pivot = args.need("pivot")
            raise ClauseError("the pivot lies inside the least circle", pivot.index)
        return apart
    arm = float(args.need("arm").length("size"))
    if not abs(apart - out) < arm < apart + out:
        least, most = args.say(abs(apart - out)), args.say(apart + out)
        message = (
            "from this pivot an arm does not come to rest on the least circle: it is longer than "
            f"{least} and shorter than {most}"
        )
        raise ClauseError(message, args.need("arm").index)
    return arm


def _spot(cam: Rocker, angle: float) -> Point:
    index, share = cam.where(angle)
    if cam.follower == "flat":
        return cam.centre + cam.going(index, share) * cam.height(index, share)
    return cam.pitch(index, share)[0]


def _words(event: Event) -> str:
    angle = spell_angle(math.degrees(event.angle))
    if event.stands:
        return f"dwell {angle}"
    way, swing = ("out" if event.lift > 0 else "in"), round(math.degrees(abs(event.lift)), 9)
    motion = f" {event.motion.title}" if event.motion else ""
    return f"in {angle} {way} by {spell_angle(swing)}{motion}"


def _follower_told(args: Args, cam: Rocker) -> str:
    if cam.follower == "roller":
        return f"roller R{args.say(cam.roller)}"
    return "flat face" if cam.follower == "flat" else "point"


def _working(args: Args, cam: Rocker, parts: int) -> Iterator[str]:
    say = args.say
    yield " + ".join(spell_angle(math.degrees(event.angle)) for event in cam.events) + " = 360°"
    yield (
        f"360° ÷ {parts} = {spell_angle(360 / parts)} a part; the pivot goes round "
        f"{'counter-clockwise' if cam.clockwise else 'clockwise'}, against the rotation"
    )
    rests = math.degrees(cam.rests)
    if cam.follower == "flat":
        yield (
            f"at rest the face makes sin⁻¹({say(cam.least)} ÷ {say(cam.apart)}) = {rests:.3f}° "
            "with the line to the centre"
        )
        yield f"it is touched up to {say(cam.reach())} from the pivot"
        return
    out = cam.least + cam.roller
    yield (
        f"at rest the arm makes cos⁻¹(({say(cam.apart)}² + {say(cam.arm)}² − {say(out)}²) ÷ (2 × "
        f"{say(cam.apart)} × {say(cam.arm)})) = {rests:.3f}° with the line to the centre"
    )
    most = math.degrees(cam.greatest)
    chord = 2 * cam.arm * math.sin(cam.greatest / 2)
    yield f"chord of {most:.6g}°: 2 × {say(cam.arm)} × sin {most / 2:.6g}° = {say(chord)}"
    going = [
        f"{angle:.1f}° {'outward' if way == 'rise' else 'inward'} at {where:.0f}°"
        for way, (angle, where) in cam.steepest_going.items()
        if way
    ]
    yield f"greatest pressure angle {', '.join(going)}"
    radius, where = cam.tightest()
    if 0 < radius < math.inf:
        yield f"the profile bulges most sharply with R{say(radius)}, at {where:.0f}°"


def _remarks(cam: Rocker) -> Iterator[Remark]:
    for turn, before, after in cam.jumps():
        yield Remark(
            "look",
            f"the swing's velocity jumps at {turn:g}°, from {math.degrees(before):.3g} to "
            f"{math.degrees(after):.3g} degrees a degree: the follower is struck there",
            _spot(cam, math.radians(turn)),
        )
    if cam.follower != "flat":
        angle, where = cam.steepest
        if angle > SWINGS:
            yield Remark(
                "look",
                f"the pressure angle is {angle:.1f}° at {where:.0f}°; {SWINGS:g}° is the usual "
                "limit of an arm (common practice): another pivot, or a larger least distance "
                "makes it less",
                _spot(cam, math.radians(where)),
            )


SWINGS = STEEP + 15
"""Usual limit of the pressure angle of a follower that swings, degrees (common practice, no
source)."""


def _draw(
    args: Args, cam: Rocker, rim: Loop, corners: tuple[Point, ...], parts: int, work: Work
) -> None:
    """Carry the pivot round the cam, swing the arm at every station, and draw the profile along
    what it carries."""
    about = args.need("about")
    centre = work.mark(cam.centre, about.ref("centre").text)
    least = args.need("least").length("radius").value
    work.swing(centre, least, f"the circle of the least distance of {args.name}")
    RockerBoard(args, cam, (rim, corners), centre, work, parts, {}).draw()


@dataclass
class RockerBoard(CamBoard):
    """A cam under an arm at the board."""

    pivots: Round = field(init=False)
    pivot: Mark = field(init=False)

    @property
    def rocker(self) -> Rocker:
        """The cam."""
        assert isinstance(self.cam, Rocker)
        return self.cam

    def begin(self) -> None:
        """Draw the circle on which the arm's end rests, and the one the pivot goes round on."""
        work, cam = self.work, self.rocker
        said = self.args.need("pivot").ref("pivot").text
        self.pivot = work.mark(cam.pivot, said)
        self.pivots = work.swing(
            self.centre, work.between(self.centre, self.pivot), "the circle of the pivots"
        )
        if cam.follower != "flat":
            size = self._exact(cam.least + cam.roller)
            self.circle = work.swing(self.centre, size, "the circle on which the arm's end rests")

    def _pivot(self, angle: float) -> Mark:
        spot = self.rocker.pivot_at(math.radians(angle))
        if abs(spot - self.pivot.at) <= self.work.paper.nothing:
            return self.pivot
        base = math.degrees((self.pivot.at - self.centre.at).angle)
        degrees = base + self.cam.way * angle
        return ray_to(
            self.work, self.centre, self.pivots, degrees, spot, f"the pivot at {angle:g}°"
        )

    def _station(self, angle: float, lift: float | None = None) -> Mark:
        """Mark where the arm's end is at an angle of the cam: from where it rests the chord of its
        swing is stepped off; of a face, where the square from the centre meets it."""
        work, cam = self.work, self.rocker
        turn = math.radians(angle)
        swing = cam.lift(turn)[0] if lift is None else lift
        pivot, label = self._pivot(angle), self._label(angle)
        called = f"station {label} of {self.args.name}" if label else f"{angle:g}° of the cam"
        inward = (self.centre.at - pivot.at).unit
        if cam.follower == "flat":
            face = self._face(pivot, angle, swing)
            foot = face.line.foot(self.centre.at)
            square = work.square(face, self.centre, foot)
            return work.prick(square, face, foot, called, label=label, anew=bool(label))
        rest = pivot.at + rotate(inward, Point(0.0, 0.0), cam.side * cam.rests) * cam.arm
        spot = pivot.at + rotate(inward, Point(0.0, 0.0), cam.side * cam.leans(swing)) * cam.arm
        arm = self.args.need("arm").length("size").value
        arc = work.swing(pivot, arm, f"the arm's end at {angle:g}°", near=[rest, spot])
        at = work.prick(arc, self.circle, rest, f"where the arm rests at {called}")
        if abs(spot - rest) <= work.paper.nothing:
            work.relabel(at, label)
            return at
        chord = 2 * cam.arm * math.sin(abs(swing) / 2)
        labels = [label] if label else []
        words = "the chord of the swing, from the table of the worksheet"
        return work.step_off(at, chord, arc, [spot], [called], labels=labels, told=words)[0]

    def _face(self, pivot: Mark, angle: float, swing: float) -> Edge:
        work, cam = self.work, self.rocker
        inward = (self.centre.at - pivot.at).angle
        degrees = math.degrees(inward + cam.side * cam.leans(swing))
        far = pivot.at + polar(cam.apart * 1.4, math.radians(degrees))
        shown = Line.between(pivot.at, far)
        return work.draw(pivot, Way(degrees), called=f"the face at {angle:g}°", shown=shown)

    def _followed(self, station: Mark, angle: float) -> Thing:
        cam = self.rocker
        if cam.follower == "flat":
            return self._face(self._pivot(angle), angle, cam.lift(math.radians(angle))[0])
        return super()._followed(station, angle)

    def _label(self, angle: float) -> str:
        index = round(angle * self.parts / 360)
        even = abs(index - angle * self.parts / 360) < ROUND
        return str(index) if even and angle < 360 else ""


ABOUT = """\
A radial cam whose follower swings about a `pivot`: an `arm` to a roller (`roller radius`) or a
point, or a `flat` face along the arm. `least` is the distance from the centre to the nearest place
of the profile; at rest the arm lies on that circle, to the left of the line from the pivot to the
centre or to the `right`. Events as in a cam, by how far the arm swings: `rise 120° by 25°
harmonic`, `dwell 60°`, `fall 180° by 25°`. `cw` (the usual) or `ccw` says which way it turns.
`24 parts` or `every 15°` divides it. Parts `least`, `shaft`, `pivots`, `station.0` on.
"""

SHOWN = """\
units mm
O = datum
P = point, 80 right of O, 20 above
toggle = rocker, about O, pivot P, arm 76, least 30, roller radius 8, shaft diameter 18, rise 120° by 22° harmonic, dwell 60°, fall 180° by 22° cycloidal
rim = line in, toggle
"""  # noqa: E501

KIND = Kind(
    name="rocker",
    group="Curves",
    summary="radial cam under a swinging arm, with roller, point or flat face",
    example="toggle = rocker, about O, pivot P, arm 76, least 30, roller radius 8, "
    "rise 120° by 22° harmonic, dwell 60°, fall 180° by 22° cycloidal",
    mistake="The lift is set off along a radius; the arm's end moves on an arc about its pivot.",
    also=("oscillating follower", "swinging follower", "swinging arm", "rocking lever"),
    forms=(
        Form("about {centre:point}", needed=True),
        Form("pivot {pivot:point}", needed=True),
        Form("arm {size:length}", "arm"),
        *LEAST,
        *events_by("angle"),
        Form("cw"),
        Form("ccw"),
        Form("{side:left/right}", "side"),
        Form("shaft diameter {size:diameter}", "shaft"),
        Form("roller radius {size:radius}", "roller"),
        Form("roller diameter {size_across:diameter}", "roller"),
        Form("{follower:knife/flat}", "follower"),
        *PARTS,
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
    follows=True,
)
