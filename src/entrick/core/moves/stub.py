"""``stub``: isometric, a cylinder stepped on a cylinder, its end flat or rounded."""

from __future__ import annotations

import math

from ..geometry import Arc, Circle, Line, Loop, Point
from ..geometry.isometric import AXES, FORESHORTENED
from ..geometry.partial import between, places_on
from ..geometry.shapes import Curve
from ..geometry.silhouette import swept
from ..kind import Args, Kind, Made, Step, Stroke, Tool
from ..kind.parts import curve_run
from ..plan.errors import ClauseError
from ..plan.forms import Form
from .cylinder import PLANE_OF, counter_clockwise, end_on


def construct(args: Args) -> Made:
    """Construct a cylinder with a smaller one on the end that is seen, on the same axis.

    Parts: ``rim`` (what the smaller one leaves to be seen of the shoulder), ``edge.1``, ``edge.2``, ``far`` and
    ``hidden`` of the larger one; ``edge.3``, ``edge.4``, ``seam`` (where it stands on the shoulder) and ``end`` of the
    smaller one, or ``round`` where its end is rounded; ``axis``, ``middle`` (of the shoulder), ``tip``.

    Notes
    -----
    A ball of diameter d is seen as a circle of diameter √(3/2)·d in isometric drawing (drawn at full length along the
    axes, 1/√(2/3)). Between four-centre ends its round is drawn as wide as they are, so that it runs into the edges.
    """
    foot, name = args.need("from").point("foot"), args.need("from").ref("foot").text
    large, long = args.need("diameter").length("size"), args.need("length").length("length")
    small, step = args.need("step_diameter").length("size"), args.need("step_length").length("length")
    word = args.need("along").word("axis") if args.get("along") else "up"
    scale = FORESHORTENED if args.foreshortened else 1.0
    if float(long) <= 0 or float(step) <= 0:
        raise ClauseError("both cylinders are more than nought long", args.need("length", "step_length").clause)
    if not 0 < float(small) < float(large):
        raise ClauseError(
            f"the step is narrower than the {args.say(large.value)} it stands on", args.need("step_diameter").clause
        )
    plane, axis, true = PLANE_OF[word], AXES[word], args.get("true") is not None
    # The larger one grows from the foot towards the eye: upright ones upwards, slanted ones down their axis.
    towards = axis if word == "up" else -axis
    shoulder, tip = foot + towards * (float(long) * scale), foot + towards * ((float(long) + float(step)) * scale)
    ring = end_on(f"{args.name}.shoulder", shoulder, float(large) * scale, plane, true)
    body = swept(counter_clockwise(ring), foot - shoulder)
    end = end_on(f"{args.name}.end", tip, float(small) * scale, plane, true)
    neck = swept(counter_clockwise(end), shoulder - tip)
    wide = abs(neck.touches[0] - neck.touches[1])
    rounded = args.get("rounded") is not None
    cap = Arc.between(Circle((neck.touches[0] + neck.touches[1]) * 0.5, wide / 2), *neck.touches)
    if (cap.middle - tip).dot(towards) < 0:
        cap = Arc(cap.centre, cap.radius, cap.start, -cap.sweep)
    outline = curve_run(f"{args.name}.neck", _with_cap(neck.outline, cap) if rounded else neck.outline)
    rim = _left_of(ring, outline)
    parts: dict[str, Point | Curve | Loop] = {
        "rim": rim, "shoulder": ring, "seam": curve_run(f"{args.name}.seam", neck.far, closed=False),
        "far": curve_run(f"{args.name}.far", body.far, closed=False),
        "hidden": curve_run(f"{args.name}.hidden", body.hidden, closed=False),
        "edge.1": body.edges[0], "edge.2": body.edges[1], "edge.3": neck.edges[0], "edge.4": neck.edges[1],
        "touch.1": body.touches[0], "touch.2": body.touches[1], "touch.3": neck.touches[0], "touch.4": neck.touches[1],
        "axis": Line.between(foot, tip), "middle": shoulder, "tip": tip, "foot": foot, "neck": outline,
        **({"round": cap} if rounded else {"end": end}),
    }  # fmt: skip
    working = [f"shoulder ({args.say(large.value)} − {args.say(small.value)}) ÷ 2 = "
               f"{args.say((large.value - small.value) / 2)} wide all round"]  # fmt: skip
    last: Curve | Loop = cap if rounded else end
    setting = cap.radius if rounded else abs(tip - shoulder)
    if rounded:
        ball = float(small) * scale * math.sqrt(1.5)
        working.append(f"a ball of {args.say(small.value)} shows as a circle √1.5 × {args.say(float(small) * scale)} = "
                       f"{args.say(ball)} across")  # fmt: skip
        if not true:
            working.append(f"drawn {args.say(wide)} across, as wide as the four-centre end: {args.say(ball - wide)} "
                           "narrower, so that it runs into the edges")  # fmt: skip
    return Made(
        curve_run(f"{args.name}.outline", body.outline),
        f"Stub {args.name} from {name}, Ø{args.say(large.value)} × {args.say(long.value)}, "
        f"then Ø{args.say(small.value)} × {args.say(step.value)}{', rounded' if rounded else ''}, {word}.",
        tuple(working),
        (
            Step(Tool.ANGLE, f"Draw the axis from {name}; set off both lengths", math.degrees(axis.angle) % 180,
                 strokes=(Stroke(parts["axis"]),)),
            Step(Tool.COMPASS, "Construct the shoulder", strokes=(Stroke(ring),)),
            Step(Tool.COMPASS, "Carry its centres back and draw the seen half of the far end",
                 abs(shoulder - foot), strokes=(Stroke(parts["far"]), Stroke(parts["hidden"])),
                 check="the hidden half stays light"),
            Step(Tool.STRAIGHTEDGE, "Draw the edges of the larger cylinder, touching both ends",
                 strokes=tuple(Stroke(edge) for edge in body.edges), check="they run on without a corner"),
            Step(Tool.COMPASS, "About the middle of the shoulder construct the smaller circle: its near half is the "
                 "seam", strokes=(Stroke(parts["seam"]),)),
            Step(Tool.COMPASS, "Round the end with the compass from edge to edge" if rounded
                 else "Carry its centres forward and draw the whole end", setting,
                 tip if rounded else None, (Stroke(last),)),
            Step(Tool.STRAIGHTEDGE, "Draw the edges of the smaller cylinder",
                 strokes=tuple(Stroke(edge) for edge in neck.edges),
                 check="what it hides of the shoulder is not gone over"),
        ),
        parts,
    )  # fmt: skip


def _with_cap(outline: tuple[Line | Arc, ...], cap: Arc) -> tuple[Line | Arc, ...]:
    """Return an outline whose near end, the curves up to its first straight edge, is the cap instead."""
    first = next(index for index, curve in enumerate(outline) if isinstance(curve, Line))
    return (cap, *outline[first:])


def _left_of(ring: Loop, cover: Loop) -> Loop:
    """Return what of a closed run is seen when an outline lies over part of it."""
    spots = places_on(ring, [piece.curve for piece in cover.pieces])
    if len(spots) < 2:
        return ring
    parts = (between(ring, spots[0], spots[1]), between(ring, spots[1], spots[0]))
    return next(part for part in parts if not cover.encloses(_halfway(part)))


def _halfway(part: Loop) -> Point:
    piece = max(part.pieces, key=lambda one: one.length)
    return piece.curve.middle if isinstance(piece.curve, Arc) else (piece.entry + piece.exit) * 0.5


KIND = Kind(
    name="stub",
    group="Isometric",
    summary="isometric, a cylinder stepped on a cylinder, flat or rounded",
    example="stud = stub, from P, diameter 40, length 20, step diameter 24, step length 30, along up, rounded",
    mistake="The rim is gone over behind the smaller cylinder, which hides it.",
    forms=(
        Form("from {foot:point}", needed=True),
        Form("diameter {size:diameter}", needed=True),
        Form("length {length:length}", needed=True),
        Form("step diameter {size:diameter}", "step_diameter", needed=True),
        Form("step length {length:length}", "step_length", needed=True),
        Form("along {axis:up/right/left}"),
        Form("rounded"),
        Form("true"),
        Form("projection"),
    ),
    construct=construct,
)
