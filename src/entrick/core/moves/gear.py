"""``gear``: a spur gear with involute teeth, by any sufficient two of teeth, pitch or module, and pitch diameter."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import replace
from functools import partial

from ..geometry import Arc, Circle, Line, Loop, Point, Shape, polar
from ..kind import Args, Kind, Made, Role, Step, Stroke, Tool
from ..kind.classic import square_at
from ..kind.parts import run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.gear import CLOSE, RUNS, Gear, Method, inv
from ..rules.recess import recess
from ..tolerance import ROUND, assembled
from ..worksheets import Remark
from ..worksheets.gear import GearSheet
from .toothed import SHAPE, SIZE, module_of, pitch_told, proportions_of, times, tooth_remarks

FEWEST = 6
"""Teeth below which no involute gear is drawn."""


MOST_SHIFT = 1
"""Modules by which a profile is shifted at most: beyond, teeth are pointed or undercut (common practice, no source)."""


def construct(args: Args) -> Made:
    """Construct a spur gear: its circles, and its teeth by the true involute, by two arcs or by one.

    Parts: ``outside``, ``pitch``, ``base``, ``root``, ``bore``, ``pitch_point``, ``tooth`` (the first, an open run),
    ``mate`` (the centre of a mate to the right).

    Notes
    -----
    D = N·m = N/P; outside D + 2a and root D − 2b, both sides; base D·cos φ; thickness πD/2N (handbook formulas).
    Below the base circle the flank is radial, with a fillet to the root.
    """
    centre, name = args.need("about").point("centre"), args.need("about").ref("centre").text
    teeth, module, worked = _size(args)
    gear = _gear(args, teeth, module)
    method: Method = "involute"
    if args.get("by"):
        method = {"involute": "involute", "arcs": "arcs", "arc": "arc"}[args.need("by").word("how")]  # type: ignore[assignment]
    turned = math.radians(args.number("turned", usual=90.0))
    shown = {"one": 1, "three": 3, "all": teeth}[args.need("shown").word("which") if args.get("shown") else "all"]
    ring = gear.ring(method, args.name, centre, turned, shown)
    exact = module / 2
    circles = {
        "pitch": Circle(centre, gear.pitch, exact * teeth),
        "outside": Circle(centre, gear.outside, exact * teeth + times(gear.addendum + gear.shift, module)),
        "root": Circle(centre, gear.root, exact * teeth - times(gear.dedendum - gear.shift, module)),
        "base": Circle(centre, gear.base),
    }
    named: dict[str, Shape | Loop] = {
        **circles, "pitch_point": centre + polar(gear.pitch, turned), "centre": centre,
        "tooth": gear.ring(method, f"{args.name}.tooth", centre, turned, 1),
    }  # fmt: skip
    bore = _bore(args, centre, gear)
    if bore is not None:
        named["bore"] = bore
        if isinstance(bore, Loop):
            named |= {piece.name.removeprefix(f"{args.name}."): piece.curve for piece in bore.pieces}
    mating = args.get("mating")
    mate = gear.mate(mating.count("teeth")) if mating else None
    if mate is not None:
        if mate.teeth < FEWEST:
            raise ClauseError(f"a mate has at least {FEWEST} teeth", args.need("mating").clause)
        named["mate"] = centre + Point(gear.distance(mate), 0.0)
    told = {"involute": "true involute", "arcs": "two arcs", "arc": "one arc"}[method]
    return Made(
        ring,
        f"Gear {args.name} about {name}, {teeth} teeth, {pitch_told(args, module)}, pressure angle "
        f"{spell_angle(math.degrees(gear.pressure))}, flanks by {told}"
        + (f", {shown} shown." if shown < teeth else "."),
        (*worked, *_working(args, gear, module, method, mate)),
        tuple(_steps(args, gear, module, centre, turned, method, ring, circles)),
        named,
        name,
        departs=gear.departs(method) if method != "involute" else None,
        remarks=tuple(_remarks(args, gear, module, mate, centre, bore)),
        worksheet=GearSheet(gear, centre, mate, method, 1 / float(args.unit.mm), args.say).at,
    )


def _size(args: Args) -> tuple[int, Number, list[str]]:
    """Return teeth and module from any two of teeth, pitch or module, and pitch diameter."""
    teeth, size = args.get("teeth"), args.get("pitch")
    m, worked = module_of(args)
    count = teeth.count("count") if teeth else None
    across = size.length("size").value if size else None
    if sum(value is not None for value in (count, m, across)) < 2:
        raise ClauseError("a gear needs two of these: so many teeth; module or diametral pitch; pitch diameter")
    if count is None:
        assert m is not None
        assert across is not None
        whole = round(float(across / m))
        if abs(float(across) - whole * float(m)) > assembled(float(across)):
            raise ClauseError(f"Ø{args.say(across)} ÷ {args.say(m)} = {float(across / m):.4g}: not a whole number of "
                              "teeth", size.clause if size else None)  # fmt: skip
        count = whole
        worked.append(f"N = {args.say(across)} ÷ {args.say(m)} = {count}")
    elif m is None:
        assert across is not None
        m = across / count
        worked.append(f"module {args.say(across)} ÷ {count} = {args.say(m)}")
    elif across is not None and abs(float(across) - count * float(m)) > assembled(float(across)):
        raise ClauseError(
            f"{count} teeth of module {args.say(m)} make a pitch diameter of {args.say(m * count)}, not "
            f"{args.say(across)}: one of the three is wrong", size.clause if size else None,
        )  # fmt: skip
    if count < FEWEST:
        raise ClauseError(f"a gear has at least {FEWEST} teeth", teeth.clause if teeth else None)
    worked.append(f"D = N × m = {count} × {args.say(m)} = {args.say(m * count)}")
    return count, m, worked


def _gear(args: Args, teeth: int, module: Number) -> Gear:
    shape = proportions_of(args, module)
    fillet = args.number("fillet", usual=0.3 * float(module))
    shift = args.number("shift", usual=0.0)
    if abs(shift) > MOST_SHIFT:
        raise ClauseError(f"a profile is shifted by at most {MOST_SHIFT} modules either way", args.need("shift").clause)
    gear = Gear(
        teeth, float(module), shape.pressure, shape.addendum, shape.dedendum, shape.backlash, max(fillet, 0.0), shift
    )  # fmt: skip
    gear = replace(gear, radii=_radii(args, gear))
    if gear.root <= 0:
        raise ClauseError("the teeth are deeper than the gear: more teeth, or a smaller dedendum")
    return gear


def _radii(args: Args, gear: Gear) -> tuple[float, float] | None:
    """Return the radii of face and flank where they are stated, as from a chart."""
    said = args.get("radii")
    if said is None:
        return None
    if not args.get("by") or args.need("by").word("how") != "arcs":
        raise ClauseError("radii of face and flank belong to flanks  by arcs", said.clause)
    found = float(said.length("face")), float(said.length("flank"))
    low, high = gear.pitch - gear.base, gear.pitch + gear.base
    if not all(low < radius < high for radius in found):
        told = f"an arc through the pitch point with its centre on the base circle has a radius over {args.say(low)}"
        raise ClauseError(told, said.clause)
    return found


def _over_pins(args: Args, gear: Gear) -> Iterator[str]:
    said = args.get("pins")
    if said is None:
        return
    size = gear.over_pins(float(said.length("pin")))
    if size is None:
        raise ClauseError("the pins fall past the flanks to the root: take larger ones", said.clause)
    yield f"over two pins of Ø{args.say(said.length('pin').value)}: {args.say(size)}"


def _bore(args: Args, centre: Point, gear: Gear) -> Circle | Loop | None:
    """Return the bore, with its keyway where one is wanted: its depth is measured from the bore on the middle line."""
    said, key = args.get("bore"), args.get("keyway")
    if said is None:
        if key:
            raise ClauseError("a keyway is cut in a bore: say its diameter too", key.clause)
        return None
    across = said.length("size")
    circle = Circle(centre, float(across) / 2, across.value / 2)
    if not 0 < circle.radius < gear.root:
        raise ClauseError(f"the bore lies inside the root circle, Ø{args.say(2 * gear.root)}", said.clause)
    if key is None:
        return circle
    wide, deep = float(key.length("width")), float(key.length("depth"))
    if not 0 < wide < 2 * circle.radius or deep <= 0 or circle.radius + deep >= gear.root:
        raise ClauseError("a keyway is narrower than the bore, and ends inside the root circle", key.clause)
    sides = recess(circle, wide, circle.radius + deep, math.pi / 2)
    ends = sides[-1][1].at(sides[-1][1].end or 0.0), sides[0][1].at(0.0)
    return run(f"{args.name}.bore", [("round", Arc.between(circle, *ends, long=True)), *sides], True)


def _unless(gear: Gear, mate: Gear) -> str:
    """Return the reservation under which the contact ratio of a pair stands."""
    interfere = gear.interferes(mate) or mate.interferes(gear)
    return ", were there no interference: there is, and the real one is less" if interfere else ""


def _working(args: Args, gear: Gear, module: Number, method: Method, mate: Gear | None) -> Iterator[str]:
    say, a, b = args.say, gear.addendum, gear.dedendum
    across = module * gear.teeth
    add, ded = times(a, module), times(b, module)
    angle = spell_angle(math.degrees(gear.pressure))
    yield f"addendum {a:g} × {say(module)} = {say(add)}"
    yield f"outside D + 2a = {say(across)} + 2 × {say(add)} = {say(across + 2 * add)}: on both sides"
    yield f"dedendum {b:g} × {say(module)} = {say(ded)}"
    yield f"root D − 2b = {say(across)} − 2 × {say(ded)} = {say(across - 2 * ded)}"
    yield f"base circle D·cos φ = {say(across)} × cos {angle} = {say(2 * gear.base)}"
    less = f" − {say(gear.backlash)} ÷ 2" if gear.backlash else ""
    if gear.shift:
        moved = times(gear.shift, module)
        with_it = f"with it outside {say(2 * gear.outside)}, root {say(2 * gear.root)}"
        yield f"profile shift {gear.shift:g} × {say(module)} = {say(moved)}: {with_it}"
        less += f" + 2 × {say(moved)} × tan {angle}"
    yield f"thickness π × {say(across)} ÷ (2 × {gear.teeth}){less} = {say(gear.thickness)}"
    wide, high = gear.chordal
    half = spell_angle(math.degrees(gear.thickness / (2 * gear.pitch)))
    yield f"chordal thickness D·sin(t ÷ D) = {say(across)} × sin {half} = {say(wide)}, {say(high)} below the top"
    count = gear.spanned
    by_letter, by_number = "", ""
    if gear.backlash:
        by_letter, by_number = " − b ÷ 2", f" − {say(gear.backlash)} ÷ 2"
    if gear.shift:
        by_letter += " + 2xm·tan φ"
        by_number += f" + 2 × {say(times(gear.shift, module))} × tan {angle}"
    yield (
        f"span over {count} teeth cos φ·(m·(π(k − ½) + N·inv φ){by_letter}) = cos {angle} × ({say(module)} × "
        f"(π × {count - 0.5:g} + {gear.teeth} × {inv(gear.pressure):.6f}){by_number}) = {say(gear.span(count))}"
    )
    yield from _over_pins(args, gear)
    if mate is not None:
        if mate.shift:
            yield f"the mate is shifted as far the other way, {mate.shift:g}: their distance stays as it is without"
        yield f"centre distance ({say(across)} + {say(2 * mate.pitch)}) ÷ 2 = {say(gear.distance(mate))}"
        reach = [math.sqrt(each.tip**2 - each.base**2) for each in (gear, mate)]
        yield (
            f"contact ratio (√(R₁² − r₁²) + √(R₂² − r₂²) − C·sin φ) ÷ πm·cos φ = ({say(reach[0])} + {say(reach[1])} − "
            f"{say(gear.distance(mate) * math.sin(gear.pressure))}) ÷ {say(gear.base_pitch)} = "
            f"{gear.contact_ratio(mate):.3f}{_unless(gear, mate)}"
        )
    if method == "arcs":
        face, inner, off = gear.two_arcs
        yield (
            f"face radius {face.radius / gear.module:.3f} × {say(module)} = {say(face.radius)}, flank radius "
            f"{inner.radius / gear.module:.3f} × {say(module)} = {say(inner.radius)}: centres on the base circle"
        )
        yield f"the arcs depart {say(off)} at most from the involute"  # fmt: skip
        if gear.radii is not None:
            best = replace(gear, radii=None).two_arcs
            yield f"stated; the best are {say(best[0].radius)} and {say(best[1].radius)}, and depart {say(best[2])}"
    elif method == "arc":
        one, off = gear.one_arc
        yield f"radius {one.radius / gear.module:.3f} × {say(module)} = {say(one.radius)}, centre on the base circle"
        yield f"the arc departs {say(off)} at most from the involute"
    else:
        yield f"the flank is the true involute, drawn with arcs within {CLOSE:g} × {say(module)} of it"


def _remarks(
    args: Args, gear: Gear, module: Number, mate: Gear | None, centre: Point, bore: Circle | Loop | None
) -> Iterator[Remark]:
    top = centre + Point(0.0, gear.pitch)
    yield from tooth_remarks(args, proportions_of(args, module), module, top)
    if gear.is_pointed:
        yield Remark("wrong", f"the teeth are pointed: their flanks meet at Ø{args.say(2 * gear.tip)}, inside "
                     f"Ø{args.say(2 * gear.outside)}", top)  # fmt: skip
    if gear.is_undercut:
        least = math.ceil(2 * gear.addendum / math.sin(gear.pressure) ** 2 - ROUND)
        yield Remark("look", f"{gear.teeth} teeth are undercut when a rack cuts them: from {least} teeth on they "
                     "are not", top)  # fmt: skip
    if mate is not None:
        ratio = gear.contact_ratio(mate)
        if ratio < RUNS:
            yield Remark(
                "look", f"the contact ratio is {ratio:.2f}; {RUNS:g} is the usual least (common practice)", top
            )
        if gear.interferes(mate) or mate.interferes(gear):
            yield Remark("wrong", "the tip of one gear reaches below where the other's involute begins: they interfere",
                         top)  # fmt: skip


def _steps(
    args: Args, gear: Gear, module: Number, centre: Point, turned: float, method: Method, ring: Loop,
    circles: dict[str, Circle],
) -> Iterator[Step]:  # fmt: skip
    def circle(key: str, text: str, check: str = "") -> Step:
        return Step(Tool.COMPASS, text, circles[key].size, centre, (Stroke(circles[key]),), check)

    ahead = polar(1.0, turned)
    spot = centre + ahead * gear.pitch
    yield circle("pitch", "Draw the pitch circle")
    yield circle("outside", "Draw the outside circle: the addendum beyond it", "the addendum counts on both sides")
    yield circle("root", "Draw the root circle: the dedendum inside it")
    middle = Line.between(centre, centre + ahead * gear.outside)
    yield Step(Tool.STRAIGHTEDGE, "Draw the middle line of a tooth: where it meets the pitch circle is the pitch point",
               strokes=(Stroke(middle), Stroke(spot, Role.POINT)))  # fmt: skip
    slope = polar(1.0, turned + math.pi / 2 - gear.pressure)
    reach = gear.pitch * math.sin(gear.pressure) * 1.3
    yield Step(Tool.ANGLE, "Through the pitch point draw the pressure line, at the pressure angle to the tangent",
               math.degrees(gear.pressure), spot,
               (Stroke(Line.between(spot - slope * reach, spot + slope * reach)),))  # fmt: skip
    yield circle("base", "Draw the base circle, touching the pressure line", "it touches the pressure line")
    wide, _ = gear.chordal
    edges = [centre + polar(gear.pitch, turned + side * gear.half(gear.pitch)) for side in (-1, 1)]
    yield Step(Tool.DIVIDERS, "Set off the chordal thickness on the pitch circle, half each side of the middle line",
               wide, strokes=tuple(Stroke(edge, Role.POINT) for edge in edges))  # fmt: skip
    if method == "involute":
        threads = [
            (_put(centre, turned, out * gear.base), _put(centre, turned, place))
            for place, out in (gear.involute(gear.roll(gear.tip) * k / 6) for k in range(1, 7))
        ]
        yield Step(Tool.DIVIDERS, "Unwind the base circle: tangents at equal parts, on each as many parts as unwound",
                   gear.base * gear.roll(gear.tip) / 6,
                   strokes=(*(Stroke(Line.between(*ends)) for ends in threads),
                            *(Stroke(end, Role.POINT) for _, end in threads)),
                   opened=partial(square_at, threads[-1][0], (threads[-1][0] - centre).unit, gear.module,
                                  Stroke(Line.between(*threads[-1]))))  # fmt: skip
    else:
        arcs = gear.two_arcs[:2] if method == "arcs" else (gear.one_arc[0],)
        words = ("face", "flank") if method == "arcs" else ("flank",)
        for word, arc in zip(words, arcs, strict=True):
            needle = _put(centre, turned, arc.centre)
            yield Step(Tool.COMPASS, f"Needle on the base circle, draw the {word} arc through the thickness point",
                       arc.radius, needle, (Stroke(needle, Role.POINT),))  # fmt: skip
    yield Step(Tool.PENCIL, "Draw one flank; below the base circle it runs straight to the centre, with its fillet; "
               "mirror it", strokes=(Stroke(gear.ring(method, args.name, centre, turned, 1)),))  # fmt: skip
    yield Step(Tool.DIVIDERS, f"Step the teeth round: {gear.teeth} chords of the pitch circle",
               2 * gear.pitch * math.sin(math.pi / gear.teeth), centre, (Stroke(ring),),
               "the last step comes back to the first tooth")  # fmt: skip


def _put(centre: Point, turned: float, place: Point) -> Point:
    cos, sin = math.cos(turned), math.sin(turned)
    return Point(centre.x + place.x * cos - place.y * sin, centre.y + place.x * sin + place.y * cos)


KIND = Kind(
    name="gear",
    group="Curves",
    summary="spur, with involute teeth, a bore and a keyway; its mate in the worksheet",
    example="wheel = gear, about O, 24 teeth, module 4, bore diameter 25",
    mistake="The addendum is added once. It counts on both sides: outside is D + 2a.",
    forms=(
        Form("about {centre:point}", needed=True),
        Form("{count:count} teeth", "teeth"),
        *SIZE,
        Form("pitch diameter {size:diameter}", "pitch"),
        *SHAPE,
        Form("fillet radius {size:radius}", "fillet"),
        Form("profile shift {factor:length}", "shift"),
        Form("radii {face:radius} [and] {flank:radius}"),
        Form("over pins {pin:diameter}", "pins"),
        Form("bore diameter {size:diameter}", "bore"),
        Form("keyway {width:length} by {depth:length}"),
        Form("shown {which:one/three/all}"),
        Form("by {how:involute/arcs/arc}"),
        Form("turned {angle:angle}"),
        Form("mating {teeth:count} [teeth]"),
    ),
    construct=construct,
)
