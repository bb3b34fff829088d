"""``gear``: a spur gear with involute teeth, by any sufficient two of teeth, pitch or module, and
pitch diameter."""

from __future__ import annotations

import math
from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import partial

from ..acts import PLUMB, Edge, Mark, Round, Way, Work
from ..acts.copies import laid_off
from ..acts.procedures import away, foot, off
from ..geometry import Arc, Circle, Line, Loop, Piece, Point, Shape, polar
from ..kind import Args, Kind, Made
from ..kind.parts import run
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError, Wanting
from ..plan.forms import Form
from ..rules.gear import CLOSE, OUTSIDE, RUNS, Called, Gear, Method, inv
from ..rules.recess import recess
from ..tolerance import ROUND, SPECK, assembled
from ..worksheets import Remark
from ..worksheets.gear import GearSheet
from .keyway import draw_recess
from .toothed import SHAPE, SIZE, module_of, pitch_told, proportions_of, times, tooth_remarks

UNWOUND = 5
"""Places of a flank that are unwound from the base circle."""

FEWEST = 6
"""Teeth below which no involute gear is drawn."""


MOST_SHIFT = 1
"""Modules by which a profile is shifted at most: beyond, teeth are pointed or undercut (common
practice, no source)."""


def construct(args: Args) -> Made:
    """Construct a spur gear: its circles, and its teeth by the true involute, by two arcs or by
    one.

    Parts: ``outside``, ``pitch``, ``base``, ``root``, ``bore``, ``pitch_point``, ``tooth`` (the
    first, an open run), ``mate`` (the centre of a mate to the right).

    Notes
    -----
    D = N·m = N/P; outside D + 2a and root D − 2b, both sides; base D·cos φ; thickness πD/2N
    (handbook formulas). Below the base circle the flank is radial, with a fillet to the root."""
    centre, name = args.need("about").point("centre"), args.need("about").ref("centre").text
    teeth, module, worked = size_of(args)
    gear = _gear(args, teeth, module)
    method = method_of(args)
    turned = math.radians(args.number("turned", usual=90.0))
    shown = {"one": 1, "three": 3, "all": teeth}[
        args.need("shown").word("which") if args.get("shown") else "all"
    ]
    ring = gear.ring(method, args.name, centre, turned, shown)
    exact = module / 2
    circles = {
        "pitch": Circle(centre, gear.pitch, exact * teeth),
        "outside": Circle(
            centre, gear.outside, exact * teeth + times(gear.addendum + gear.shift, module)
        ),
        "root": Circle(
            centre, gear.root, exact * teeth - times(gear.dedendum - gear.shift, module)
        ),
        "base": Circle(centre, gear.base),
    }
    named: dict[str, Shape | Loop] = {
        **circles,
        "pitch_point": centre + polar(gear.pitch, turned),
        "centre": centre,
        "tooth": gear.ring(method, f"{args.name}.tooth", centre, turned, 1),
    }
    bore = _bore(args, centre, gear)
    if bore is not None:
        named["bore"] = bore
        if isinstance(bore, Loop):
            named |= {
                piece.name.removeprefix(f"{args.name}."): piece.curve for piece in bore.pieces
            }
    mating = args.get("mating")
    mate = gear.mate(mating.count("teeth")) if mating else None
    if mate is not None:
        if mate.teeth < FEWEST:
            raise ClauseError(f"a mate has at least {FEWEST} teeth", args.need("mating").index)
        named["mate"] = centre + Point(gear.distance(mate), 0.0)
    told = {"involute": "true involute", "arcs": "two arcs", "arc": "one arc"}[method]
    return Made(
        ring,
        f"Gear {args.name} about {name}, {teeth} teeth, {pitch_told(args, module)}, pressure angle "
        f"{spell_angle(math.degrees(gear.pressure))}, flanks by {told}"
        + (f", {shown} shown." if shown < teeth else "."),
        (*worked, *_working(args, gear, module, method, mate)),
        parts=named,
        centre_name=name,
        departs=gear.departs(method) if method != "involute" else None,
        remarks=partial(_remarks, args, gear, module, mate, centre, bore),
        worksheet=GearSheet(gear, centre, mate, method, 1 / float(args.unit.mm), args.say).at,
        draw=partial(_draw, args, gear, (turned, shown), method, ring, named),
    )


def method_of(args: Args) -> Method:
    """Return by which method the flanks are drawn."""
    said: dict[str, Method] = {"involute": "involute", "arcs": "arcs", "arc": "arc"}
    return said[args.need("by").word("how")] if args.get("by") else "involute"


def size_of(args: Args) -> tuple[int, Number, list[str]]:
    """Return teeth and module from any two of teeth, pitch or module, and pitch diameter."""
    teeth, size = args.get("teeth"), args.get("pitch")
    m, worked = module_of(args)
    count = teeth.count("count") if teeth else None
    across = size.length("size").value if size else None
    if sum(value is not None for value in (count, m, across)) < 2:
        raise Wanting(
            "a gear needs two of these: so many teeth; module, diametral or circular pitch; pitch "
            "diameter"
        )
    if count is None:
        assert m is not None
        assert across is not None
        whole = round(float(across / m))
        if abs(float(across) - whole * float(m)) > assembled(float(across)):
            raise ClauseError(
                f"Ø{args.say(across)} ÷ {args.say(m)} = {float(across / m):.4g}: not a whole "
                "number of "
                "teeth",
                size.index if size else None,
            )
        count = whole
        worked.append(f"N = {args.say(across)} ÷ {args.say(m)} = {count}")
    elif m is None:
        assert across is not None
        m = across / count
        worked.append(f"module {args.say(across)} ÷ {count} = {args.say(m)}")
    elif across is not None and abs(float(across) - count * float(m)) > assembled(float(across)):
        raise ClauseError(
            f"{count} teeth of module {args.say(m)} make a pitch diameter of "
            f"{args.say(m * count)}, not "
            f"{args.say(across)}: one of the three is wrong",
            size.index if size else None,
        )
    if count < FEWEST:
        raise ClauseError(f"a gear has at least {FEWEST} teeth", teeth.index if teeth else None)
    worked.append(f"D = N × m = {count} × {args.say(m)} = {args.say(m * count)}")
    return count, m, worked


def _gear(args: Args, teeth: int, module: Number) -> Gear:
    shape = proportions_of(args, module)
    fillet = args.number("fillet", usual=0.3 * float(module))
    shift = args.number("shift", usual=0.0)
    if abs(shift) > MOST_SHIFT:
        raise ClauseError(
            f"a profile is shifted by at most {MOST_SHIFT} modules either way",
            args.need("shift").index,
        )
    gear = Gear(
        teeth,
        float(module),
        shape.pressure,
        shape.addendum,
        shape.dedendum,
        shape.backlash,
        max(fillet, 0.0),
        shift,
    )
    gear = replace(gear, radii=_radii(args, gear))
    if gear.root <= 0:
        raise ClauseError("the teeth are deeper than the gear: more teeth, or a smaller dedendum")
    return gear


def _radii(args: Args, gear: Gear) -> tuple[float, float] | None:
    """Return the radii of face and flank where they are stated, as from a chart."""
    clause = args.get("radii")
    if clause is None:
        return None
    if not args.get("by") or args.need("by").word("how") != "arcs":
        raise ClauseError("radii of face and flank belong to flanks  by arcs", clause.index)
    result = float(clause.length("face")), float(clause.length("flank"))
    low, high = gear.pitch - gear.base, gear.pitch + gear.base
    if not all(low < radius < high for radius in result):
        message = (
            "an arc through the pitch point with its centre on the base circle has a radius "
            f"over {args.say(low)}"
        )
        raise ClauseError(message, clause.index)
    return result


def _over_pins(args: Args, gear: Gear) -> Iterator[str]:
    clause = args.get("pins")
    if clause is None:
        return
    size = gear.over_pins(float(clause.length("pin")))
    if size is None:
        raise ClauseError(
            "the pins fall past the flanks to the root: take larger ones", clause.index
        )
    touch = gear.pins_touch(float(clause.length("pin")))
    if touch > gear.tip:
        raise ClauseError(
            f"the pins would touch at Ø{args.say(2 * touch)}, beyond the tips at "
            f"Ø{args.say(2 * gear.tip)}: take smaller ones",
            clause.index,
        )
    if size < 2 * gear.tip:
        raise ClauseError("the pins lie below the tips: take larger ones", clause.index)
    yield f"over two pins of Ø{args.say(clause.length('pin').value)}: {args.say(size)}"


def _bore(args: Args, centre: Point, gear: Gear) -> Circle | Loop | None:
    """Return the bore, with its keyway where one is wanted: its depth is measured from the bore on
    the middle line."""
    clause, key = args.get("bore"), args.get("keyway")
    if clause is None:
        if key:
            raise Wanting("a keyway is cut in a bore: say its diameter too", key.index)
        return None
    across = clause.length("size")
    circle = Circle(centre, float(across) / 2, across.value / 2)
    if not 0 < circle.radius < gear.root:
        raise ClauseError(
            f"the bore lies inside the root circle, Ø{args.say(2 * gear.root)}", clause.index
        )
    if key is None:
        return circle
    wide, deep = float(key.length("width")), float(key.length("depth"))
    if not 0 < wide < 2 * circle.radius or deep <= 0 or circle.radius + deep >= gear.root:
        raise ClauseError(
            "a keyway is narrower than the bore, and ends inside the root circle", key.index
        )
    sides = recess(circle, wide, circle.radius + deep, math.pi / 2)
    ends = sides[-1][1].at(sides[-1][1].end or 0.0), sides[0][1].at(0.0)
    return run(
        f"{args.name}.bore", [("round", Arc.between(circle, *ends, long=True)), *sides], True
    )


def _thicknesses(args: Args, gear: Gear) -> Iterator[str]:
    """Tell how thick a tooth is round its tip circle, and round any that is asked for: R(t/R₀ +
    2·inv φ − 2·inv φ_R), cos φ_R = r/R (handbook formula; r the base, R₀ the pitch circle)."""
    if not gear.is_pointed:
        thick = args.say(2 * gear.tip * gear.half(gear.tip))
        yield f"thickness at the tip {thick}, round Ø{args.say(2 * gear.tip)}"
    for clause in args.all("thick"):
        size = float(clause.length("size"))
        if not gear.base <= size <= gear.tip:
            message = (
                f"the flanks are involutes from R{args.say(gear.base)} to R{args.say(gear.tip)}: "
                "no thickness is told elsewhere"
            )
            raise ClauseError(message, clause.index)
        there = math.degrees(math.acos(min(1.0, gear.base / size)))
        yield (
            f"thickness at R{args.say(clause.length('size').value)}, pressure angle there "
            f"{spell_angle(round(there, 4))}: {args.say(2 * size * gear.half(size))}"
        )


def _unless(gear: Gear, mate: Gear) -> str:
    """Return the reservation under which the contact ratio of a pair stands."""
    interfere = gear.interferes(mate) or mate.interferes(gear)
    return ", were there no interference: there is, and the real one is less" if interfere else ""


def _working(
    args: Args, gear: Gear, module: Number, method: Method, mate: Gear | None
) -> Iterator[str]:
    yield from _sizes_worked(args, gear, module)
    yield from _thicknesses(args, gear)
    yield from _measured_worked(args, gear, module)
    yield from _over_pins(args, gear)
    if mate is not None:
        yield from _mate_worked(args, gear, module, mate)
    yield from _flank_worked(args, gear, module, method)


def _sizes_worked(args: Args, gear: Gear, module: Number) -> Iterator[str]:
    say, a, b = args.say, gear.addendum, gear.dedendum
    across = module * gear.teeth
    add, ded = times(a, module), times(b, module)
    angle = spell_angle(math.degrees(gear.pressure))
    yield f"addendum {a:g} × {say(module)} = {say(add)}"
    yield (
        f"outside D + 2a = {say(across)} + 2 × {say(add)} = {say(across + 2 * add)}: on both sides"
    )
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


def _measured_worked(args: Args, gear: Gear, module: Number) -> Iterator[str]:
    """Yield what a caliper measures: one tooth across its chord, several over their flanks."""
    say, across = args.say, module * gear.teeth
    angle = spell_angle(math.degrees(gear.pressure))
    wide, high = gear.chordal
    half = spell_angle(math.degrees(gear.thickness / (2 * gear.pitch)))
    yield (
        f"chordal thickness D·sin(t ÷ D) = {say(across)} × sin {half} = {say(wide)}, "
        f"{say(high)} below the top"
    )
    count = gear.spanned
    by_letter, by_number = "", ""
    if gear.backlash:
        by_letter, by_number = " − b ÷ 2", f" − {say(gear.backlash)} ÷ 2"
    if gear.shift:
        by_letter += " + 2xm·tan φ"
        by_number += f" + 2 × {say(times(gear.shift, module))} × tan {angle}"
    yield (
        f"span over {count} teeth cos φ·(m·(π(k − ½) + N·inv φ){by_letter}) = cos {angle} × "
        f"({say(module)} × "
        f"(π × {count - 0.5:g} + {gear.teeth} × {inv(gear.pressure):.6f}){by_number}) = "
        f"{say(gear.span(count))}"
    )


def _mate_worked(args: Args, gear: Gear, module: Number, mate: Gear) -> Iterator[str]:
    say, across = args.say, module * gear.teeth
    if mate.shift:
        yield (
            f"the mate is shifted as far the other way, {mate.shift:g}: their distance "
            "stays as it is without"
        )
    yield (
        f"centre distance ({say(across)} + {say(2 * mate.pitch)}) ÷ 2 = {say(gear.distance(mate))}"
    )
    reach = [math.sqrt(each.tip**2 - each.base**2) for each in (gear, mate)]
    yield (
        f"contact ratio (√(R₁² − r₁²) + √(R₂² − r₂²) − C·sin φ) ÷ πm·cos φ = ({say(reach[0])} "
        f"+ {say(reach[1])} − "
        f"{say(gear.distance(mate) * math.sin(gear.pressure))}) ÷ {say(gear.base_pitch)} = "
        f"{gear.contact_ratio(mate):.3f}{_unless(gear, mate)}"
    )


def _flank_worked(args: Args, gear: Gear, module: Number, method: Method) -> Iterator[str]:
    say = args.say
    if method == "arcs":
        face, inner, off = gear.two_arcs
        yield (
            f"face radius {face.radius / gear.module:.3f} × {say(module)} = {say(face.radius)}, "
            "flank radius "
            f"{inner.radius / gear.module:.3f} × {say(module)} = {say(inner.radius)}: centres on "
            "the base circle"
        )
        yield f"the arcs depart {say(off)} at most from the involute"
        if gear.radii is not None:
            best = replace(gear, radii=None).two_arcs
            yield (
                f"stated; the best are {say(best[0].radius)} and {say(best[1].radius)}, and "
                f"depart {say(best[2])}"
            )
    elif method == "arc":
        one, off = gear.one_arc
        yield (
            f"radius {one.radius / gear.module:.3f} × {say(module)} = {say(one.radius)}, centre "
            "on the base circle"
        )
        yield f"the arc departs {say(off)} at most from the involute"
    else:
        yield (
            f"the flank is the true involute, drawn with arcs within {CLOSE:g} × {say(module)} "
            "of it"
        )


def _remarks(
    args: Args,
    gear: Gear,
    module: Number,
    mate: Gear | None,
    centre: Point,
    bore: Circle | Loop | None,
) -> Iterator[Remark]:
    top = centre + Point(0.0, gear.pitch)
    yield from tooth_remarks(args, proportions_of(args, module), module, top)
    if gear.is_pointed:
        yield Remark(
            "wrong",
            f"the teeth are pointed: their flanks meet at Ø{args.say(2 * gear.tip)}, inside "
            f"Ø{args.say(2 * gear.outside)}",
            top,
        )
    if gear.is_undercut:
        rack = 2 * (gear.addendum - gear.shift) / math.sin(gear.pressure) ** 2
        least = math.ceil(rack - ROUND)
        yield Remark(
            "look",
            f"{gear.teeth} teeth are undercut when a rack cuts them: from {least} teeth on they "
            f"are not{', at this shift' if gear.shift else ''}",
            top,
        )
    if mate is not None and mate.is_undercut and not gear.is_undercut:
        yield Remark(
            "look",
            f"the mate's {mate.teeth} teeth are undercut when a rack cuts them"
            + (", as it is shifted the other way" if mate.shift else ""),
            top,
        )
    if mate is not None:
        ratio = gear.contact_ratio(mate)
        if ratio < RUNS:
            yield Remark(
                "look",
                f"the contact ratio is {ratio:.2f}; {RUNS:g} is the usual least (common practice)",
                top,
            )
        if gear.interferes(mate) or mate.interferes(gear):
            yield Remark(
                "wrong",
                "the tip of one gear reaches below where the other's involute begins: they "
                "interfere",
                top,
            )


def _draw(
    args: Args,
    gear: Gear,
    stands: tuple[float, int],
    method: Method,
    ring: Loop,
    named: dict[str, Shape | Loop],
    work: Work,
) -> None:
    """Draw the teeth, the bore and where a mate stands."""
    centre = draw_teeth(args, gear, stands, method, ring, named, work)
    _draw_bore(args, named, centre, work)
    mating = args.get("mating")
    if mating:
        mate = named["mate"]
        assert isinstance(mate, Point)
        work.measure(centre, Way(0), mate.x - centre.at.x, f"{args.name}.mate", mate)


def draw_teeth(  # noqa: PLR0913
    args: Args,
    gear: Gear,
    stands: tuple[float, int],
    method: Method,
    ring: Loop,
    named: dict[str, Shape | Loop],
    work: Work,
    called: Called = OUTSIDE,
) -> Mark:
    """Draw the circles, one side of a tooth, turn it over on the middle line of the tooth, and the
    tooth round; return the centre."""
    centre = work.mark(named["centre"], args.need("about").ref("centre").text)  # type: ignore[arg-type]
    turned, shown = stands
    degrees: Number = args.need("turned").length("angle").value if args.get("turned") else 90
    drawn = _Drawn(args, gear, centre.at, turned, method)
    parts = {"pitch": "pitch", "outside": called.far, "root": called.near}
    circles = {
        key: work.swing(centre, named[part].size, f"the {part} circle of {args.name}")  # type: ignore[union-attr]
        for key, part in parts.items()
    }
    if gear.is_pointed:
        circles["tip"] = work.swing(
            centre, gear.tip, f"the circle on which each {called.stands} ends"
        )
    middle = work.draw(
        centre,
        Way(degrees),
        centre.at + polar(gear.outside, turned),
        f"the middle line of a {called.stands}",
    )
    spot = work.prick(
        middle, circles["pitch"], drawn.put(polar(gear.pitch, 0.0)), f"{args.name}.pitch_point"
    )
    half = gear.half(gear.pitch)
    place = drawn.put(polar(gear.pitch, -half))
    chord = work.swing(
        spot, 2 * gear.pitch * math.sin(half / 2), near=[place], told="the chord of half a tooth"
    )
    flank = work.prick(chord, circles["pitch"], place, "where a flank crosses the pitch circle")
    line = _pressure_line(work, gear, drawn, centre, flank)
    touch = foot(work, centre, line, "where the pressure line touches the base circle")
    circles["base"] = work.swing(
        centre, work.between(centre, touch), f"the base circle of {args.name}"
    )
    far = drawn.put(polar(gear.outside, -math.pi / gear.teeth))
    words = f"the middle line of a {called.between}"
    space = work.draw(centre, Way(degrees - Fraction(180, gear.teeth)), far, words)
    place = drawn.put(polar(gear.root, -math.pi / gear.teeth))
    work.prick(space, circles["root"], place, f"the middle of a {called.between}")
    teeth = _by_tooth(args, ring, shown, called.stands)
    first = teeth[shown // 2 if shown < gear.teeth else 0]
    rise, fall = _sides(first, f".{called.end}")
    _draw_rise(work, drawn, centre, circles, (flank, touch), rise)
    laid_off(work, rise, fall, "mirror", middle, called=f"the other side of the {called.stands}")
    for index, tooth in enumerate(teeth):
        number = index - (shown // 2 if shown < gear.teeth else 0)
        if number:
            laid_off(
                work,
                first,
                tooth,
                "turn",
                centre,
                degrees=Fraction(360 * number, gear.teeth),
                called=f"{called.stands} {index + 1} of {args.name}",
            )
    return centre


@dataclass(frozen=True)
class _Drawn:
    """A gear where it stands: what puts a place of its first tooth, about the origin to the right,
    on the sheet."""

    args: Args
    gear: Gear
    centre: Point
    turned: float
    method: Method

    def put(self, place: Point) -> Point:
        return _put(self.centre, self.turned, place)


def _by_tooth(args: Args, ring: Loop, shown: int, stands: str) -> list[Loop]:
    found: dict[str, list[Piece]] = {
        f"{args.name}.{stands}{index}": [] for index in range(1, shown + 1)
    }
    for piece in ring.pieces:
        found[_tooth_of(args.name, piece.name)].append(piece)
    return [Loop(tuple(pieces), False) for pieces in found.values()]


def _tooth_of(owner: str, name: str) -> str:
    return f"{owner}.{name.removeprefix(f'{owner}.').partition('.')[0]}"


def _sides(tooth: Loop, end: str) -> tuple[Loop, Loop]:
    """Return the side of a tooth that rises, without its tip, and the other one, walked from the
    space to the tip."""
    pieces = [piece for piece in tooth.pieces if not piece.name.endswith(end)]
    half = len(pieces) // 2
    return Loop(tuple(pieces[:half]), False), Loop(
        tuple(p.reversed for p in reversed(pieces[half:])), False
    )


def _pressure_line(work: Work, gear: Gear, drawn: _Drawn, centre: Mark, flank: Mark) -> Edge:
    """Draw the line through a place of the pitch circle that makes the pressure angle with the
    tangent there."""
    radius = work.through(centre, flank)
    forth = radius.line.direction.dot(flank.at - centre.at) > 0
    angle = math.degrees(gear.pressure)
    given = drawn.args.get("pressure")
    size: Number = given.length("angle").value if given else angle
    way = Way(90 + size + (0 if forth else 180), radius.key, radius.called)
    reach = work.direction(way) * (gear.pitch * math.sin(gear.pressure) * 1.3)
    return work.draw(
        flank,
        way,
        called="the pressure line",
        shown=Line.between(flank.at - reach, flank.at + reach),
    )


def _draw_rise(
    work: Work,
    drawn: _Drawn,
    centre: Mark,
    circles: Mapping[str, Round],
    found: tuple[Mark, Mark],
    rise: Loop,
) -> None:
    """Draw the working flank, run it straight to the centre inside the base circle, and round it
    into the root."""
    gear, put, (flank, touch) = drawn.gear, drawn.put, found
    tip = circles.get("tip", circles["outside"])
    if drawn.method == "involute":
        start = put(polar(gear.base, -gear.half_base))
        chord = work.swing(
            touch,
            2 * gear.base * math.sin(math.tan(gear.pressure) / 2),
            near=[start],
            told="as much arc as the pressure line is long, as a chord",
        )
        begin = work.prick(chord, circles["base"], start, "where the involute begins")
        _draw_involute(work, drawn, centre, circles["base"], begin, rise)
        line_end = begin
    else:
        arcs = gear.two_arcs[:2] if drawn.method == "arcs" else (gear.one_arc[0],)
        rounds = []
        for word, arc in zip(("face", "flank") if len(arcs) > 1 else ("flank",), arcs, strict=True):
            spot = put(arc.centre)
            swing = work.swing(flank, arc.radius, near=[spot], told=f"the radius of the {word}")
            needle = work.prick(swing, circles["base"], spot, f"the centre of the {word} arc")
            rounds.append(work.swing(needle, arc.radius, f"the {word} arc", near=[flank.at]))
            if arc is arcs[0]:
                end = rise.pieces[-1].exit
                work.prick(rounds[0], tip, end, "where the flank ends")
        line_end = work.prick(
            rounds[-1],
            circles["base"] if gear.base > gear.root else circles["root"],
            put(polar(gear.start, arcs[-1].angle(gear.start))),
            "where the flank begins",
        )
    radial = next((piece for piece in rise.pieces if piece.name.endswith(".radial")), None)
    edge = (
        work.through(centre, line_end, "the flank inside the base circle", reach=line_end.at)
        if (radial or gear.root < gear.base)
        else None
    )
    _draw_fillet(work, drawn, centre, circles, edge, rise)


def _draw_involute(
    work: Work, drawn: _Drawn, centre: Mark, base: Round, begin: Mark, rise: Loop
) -> None:
    """Step equal parts round the base circle; on the tangent at each set off what has been
    unwound."""
    gear, put = drawn.gear, drawn.put
    curve = next(
        Loop(tuple(p for p in rise.pieces if p.curve_of == name), False)
        for name in (rise.pieces[-1].curve_of,)
    )
    if not rise.pieces[-1].curve_of:
        curve = Loop((rise.pieces[-1],), False)
    low = gear.roll(max(abs(curve.pieces[0].entry - drawn.centre), gear.base))
    high = gear.roll(gear.tip)
    rolls = [low + (high - low) * k / UNWOUND for k in range(UNWOUND + 1)]
    marks = [] if low > SPECK else [begin]
    here, at = begin, 0.0
    for number, roll in enumerate(rolls if low > SPECK else rolls[1:], 1):
        spot = put(polar(gear.base, roll - gear.half_base))
        (here,) = work.step_off(
            here,
            2 * gear.base * math.sin((roll - at) / 2),
            base,
            [spot],
            [f"part {number} of the base circle"],
        )
        at = roll
        radius = work.through(centre, here)
        place = put(gear.involute(roll)[0])
        thread = work.square(radius, here, place, f"the thread from part {number}")
        marks.append(
            work.measure(
                here,
                away(thread, here, place),
                gear.base * roll,
                f"place {number} of the flank",
                place,
            )
        )
    work.trace(
        marks,
        curve,
        rise.pieces[-1].curve_of or rise.pieces[-1].name,
        within=2 * CLOSE * gear.module,
    )


def _draw_fillet(
    work: Work,
    drawn: _Drawn,
    centre: Mark,
    circles: Mapping[str, Round],
    edge: Edge | None,
    rise: Loop,
) -> None:
    """Cross the circle on which its centre lies with the locus beside the flank, and swing it from
    touch to touch."""
    found = next((p.curve for p in rise.pieces if p.name.endswith(".fillet")), None)
    if not isinstance(found, Arc):
        return
    size, gear = found.size, drawn.gear
    ring = work.swing(
        centre,
        gear.root + found.radius,
        "the circle on which the fillet's centre lies",
        near=[found.centre],
    )
    touch = max((found.first, found.last), key=lambda spot: abs(spot - drawn.centre))
    called = "the centre of the fillet"
    if edge is not None and abs(touch - drawn.centre) <= gear.base * (1 + ROUND):
        locus = off(
            work,
            edge,
            centre,
            size,
            "the parallel to the flank",
            Line.between(
                edge.line.foot(drawn.centre) + (found.centre - edge.line.foot(found.centre)),
                found.centre,
            ),
            found.centre,
        )
        needle = work.prick(ring, locus, found.centre, called)
        work.prick(
            work.square(edge, needle, touch), edge, touch, "where the fillet touches the flank"
        )
    elif drawn.method == "involute":
        needle = _beside_involute(work, drawn, centre, circles["base"], found, touch)
    else:
        arc = gear.two_arcs[1] if drawn.method == "arcs" else gear.one_arc[0]
        own = work.mark(drawn.put(arc.centre))
        beside = work.swing(own, arc.radius + found.radius, near=[found.centre])
        needle = work.prick(ring, beside, found.centre, called)
        line = work.through(own, needle, "the line of centres", reach=touch)
        flank = work.round(Circle(own.at, arc.radius))
        work.prick(line, flank, touch, "where the fillet touches the flank")
    foot_ = min((found.first, found.last), key=lambda spot: abs(spot - drawn.centre))
    work.prick(
        work.through(centre, needle),
        circles["root"],
        foot_,
        "where the fillet touches the root circle",
    )
    work.swing(needle, size, f"the fillet of {drawn.args.name}", shape=found)


def _beside_involute(
    work: Work, drawn: _Drawn, centre: Mark, base: Round, fillet: Arc, touch: Point
) -> Mark:
    """The centre lies on the thread that ends where the fillet touches, further along it by the
    radius."""
    out, rb = touch - drawn.centre, drawn.gear.base
    away_ = math.acos(min(1.0, rb / abs(out)))
    spots = [drawn.centre + polar(rb, out.angle + side * away_) for side in (1, -1)]
    spot = min(spots, key=lambda each: abs((each - touch).unit.cross((fillet.centre - touch).unit)))
    start = work.mark(drawn.put(polar(rb, -drawn.gear.half_base)))
    (part,) = work.step_off(
        start, abs(spot - start.at), base, [spot], ["where the thread of the fillet touches"]
    )
    thread = work.square(
        work.through(centre, part), part, fillet.centre, "the thread through the fillet's touch"
    )
    at = work.measure(
        part,
        away(thread, part, touch),
        abs(touch - spot),
        "where the fillet touches the flank",
        touch,
    )
    return work.measure(
        at, away(thread, at, fillet.centre), fillet.size, "the centre of the fillet", fillet.centre
    )


def _draw_bore(args: Args, named: Mapping[str, Shape | Loop], centre: Mark, work: Work) -> None:
    bore, key = named.get("bore"), args.get("keyway")
    if bore is None:
        return
    size = args.need("bore").length("size").value
    ring = work.swing(centre, size / 2, f"the bore of {args.name}")
    if key is None or not isinstance(bore, Loop):
        return
    start = centre.at + Point(0.0, ring.circle.radius)
    middle = work.draw(
        centre,
        PLUMB,
        start + Point(0.0, float(key.length("depth"))),
        "the middle line of the keyway",
    )
    near = work.prick(middle, ring, start, "the middle of the keyway on the bore")
    draw_recess(
        work,
        ring,
        middle,
        near,
        (key.length("width").value, key.length("depth").value),
        {piece.name.rpartition(".")[2]: piece.curve for piece in bore.pieces},
        f"{args.name}.bore",
    )


def _put(centre: Point, turned: float, place: Point) -> Point:
    cos, sin = math.cos(turned), math.sin(turned)
    return Point(centre.x + place.x * cos - place.y * sin, centre.y + place.x * sin + place.y * cos)


ABOUT = """\
A spur gear with involute teeth, by any two of `24 teeth`, `module 4`, `diametral pitch 8` or
`circular pitch 12`, and `pitch diameter`; all three must agree. `pressure 20°` (the usual),
`proportions full` (dedendum 1.25, the usual), `older` (1.157) or `stub`, or its own `addendum`
and `dedendum` in modules; `backlash`; `fillet radius`. Flanks `by involute` (the usual), `by
arcs` (two, centres on the base circle, departing least) or `by arc`. `shown one`, `three` or `all`;
`turned` to where the first tooth points (90° else); `bore diameter` with `keyway 8 by 3`; `mating
60` teeth for its measures and the worksheet. `profile shift 0.3`, in modules (its mate the other
way); with `by arcs` stated `radii 18 and 9` of face and flank, as from a chart, held against the
best; `over pins 7` adds that measure, `thickness at radius 50` that of a tooth there. Parts
`pitch`, `outside`, `root`, `base`, `bore`, `pitch_point`, `tooth`, `mate`.
"""

SHOWN = """\
units mm
O = datum
wheel = gear, about O, 24 teeth, module 4, bore diameter 25, keyway 8 by 3, mating 60
rim = line in, wheel
bore = line in, wheel.bore
"""

KIND = Kind(
    name="gear",
    group="Curves",
    summary="spur, with involute teeth, a bore and a keyway; its mate in the worksheet",
    example="wheel = gear, about O, 24 teeth, module 4, bore diameter 25",
    mistake="The addendum is added once. It counts on both sides: outside is D + 2a.",
    also=("spur gear", "pinion", "cog", "wheel"),
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
        Form("thickness at radius {size:radius}", "thick", most=4),
        Form("bore diameter {size:diameter}", "bore"),
        Form("keyway {width:length} by {depth:length}"),
        Form("shown {which:one/three/all}"),
        Form("by {how:involute/arcs/arc}"),
        Form("turned {angle:angle}"),
        Form("mating {teeth:count} [teeth]"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
