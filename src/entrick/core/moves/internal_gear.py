"""``internal gear``: involute teeth inside a ring; its spaces have the shape of an outside gear's
teeth."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass, replace
from functools import partial

from ..acts import Way, Work
from ..geometry import Circle, Loop, Point, Shape, polar
from ..kind import Args, Kind, Made
from ..measure import Number, spell_angle
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.gear import INSIDE, RUNS, Gear, Method, inv
from ..worksheets import Remark
from .gear import FEWEST, draw_teeth, method_of, size_of
from .toothed import SHAPE, SIZE, pitch_told, proportions_of, times, tooth_remarks


def construct(args: Args) -> Made:
    """Construct the teeth of an internal gear, pointing to the centre.

    Parts: ``inside`` (the circle of the tips), ``pitch``, ``base``, ``root``, ``pitch_point``
    (middle of the first space), ``space`` (that one, an open run), ``mate`` (the centre of a
    pinion, to the right).

    Notes
    -----
    Inside D − 2a and root D + 2b; thickness of a tooth πm/2 less half the backlash, so that its
    spaces are the teeth of an outside gear of addendum b and dedendum a (definition). Where the
    tips reach inside the base circle their flanks run straight to the centre there. The root's
    corners are left sharp."""
    centre, name = args.need("about").point("centre"), args.need("about").ref("centre").text
    teeth, module, worked = size_of(args)
    shape, method = proportions_of(args, module), method_of(args)
    space = Gear(
        teeth, float(module), shape.pressure, shape.dedendum, shape.addendum, -shape.backlash
    )
    if space.root <= 0:
        raise ClauseError("the teeth are deeper than the gear: more teeth, or a smaller addendum")
    turned = math.radians(args.number("turned", usual=90.0))
    shown = {"one": 1, "three": 3, "all": teeth}[
        args.need("shown").word("which") if args.get("shown") else "all"
    ]
    ring = space.ring(method, args.name, centre, turned, shown, INSIDE)
    exact = module / 2 * teeth
    named: dict[str, Shape | Loop] = {
        "pitch": Circle(centre, space.pitch, exact),
        "inside": Circle(centre, space.root, exact - times(shape.addendum, module)),
        "root": Circle(centre, space.outside, exact + times(shape.dedendum, module)),
        "base": Circle(centre, space.base),
        "pitch_point": centre + polar(space.pitch, turned),
        "centre": centre,
        "space": space.ring(method, f"{args.name}.space", centre, turned, 1, INSIDE),
    }
    pair = _pair(args, space)
    if pair is not None:
        named["mate"] = centre + Point(pair.apart, 0.0)
    told = {"involute": "true involute", "arcs": "two arcs", "arc": "one arc"}[method]
    return Made(
        ring,
        f"Internal gear {args.name} about {name}, {teeth} teeth, {pitch_told(args, module)}, "
        "pressure angle "
        f"{spell_angle(math.degrees(space.pressure))}, flanks by {told}"
        + (f", {shown} shown." if shown < teeth else "."),
        (*worked, *_working(args, space, module, pair)),
        parts=named,
        centre_name=name,
        departs=space.departs(method) if method != "involute" else None,
        remarks=partial(_remarks, args, space, module, pair, centre),
        draw=partial(_draw, args, space, (turned, shown), method, ring, named),
    )


@dataclass(frozen=True, slots=True)
class Pair:
    """An internal gear, told by its spaces, and the pinion that runs in it; lengths in plan
    units."""

    space: Gear
    pinion: Gear

    @property
    def apart(self) -> float:
        """Centre distance (D − d)/2."""
        return self.space.pitch - self.pinion.pitch

    @property
    def reaches(self) -> tuple[float, float]:
        """How far from where they touch their base circles the tips of pinion and gear cross the
        line of action."""
        gear, pinion = self.space, self.pinion
        return math.sqrt(pinion.tip**2 - pinion.base**2), math.sqrt(
            max(gear.root**2 - gear.base**2, 0.0)
        )

    @property
    def contact_ratio(self) -> float:
        """Line of action over base pitch: (√(r² − r_b²) − √(R² − R_b²) + C·sin φ)/πm·cos φ
        (handbook formula)."""
        out, inner = self.reaches
        return (out - inner + self.apart * math.sin(self.space.pressure)) / self.space.base_pitch

    @property
    def interferes(self) -> bool:
        """Whether the gear's tips reach inside the base circle of either (handbook condition)."""
        gear = self.space
        return gear.root < gear.base or self.reaches[1] < self.apart * math.sin(gear.pressure)

    @property
    def clears(self) -> float:
        """By how much the tips pass each other clear, as an angle of the gear; below nought they
        foul.

        Notes
        -----
        Where the tip circles cross, the tips have to come one after the other:
        θ₁·z/Z + inv φ − inv φ_T − θ₂, with the angles θ₁ and θ₂ of that place at either centre, θ₁
        with inv φ_t − inv φ (the handbooks' condition of trochoid interference)."""
        gear, pinion, apart = self.space, self.pinion, self.apart
        if gear.root < gear.base or pinion.tip + apart <= gear.root:
            return 0.0
        squares = gear.root**2 - pinion.tip**2
        at_pinion = math.acos((squares - apart**2) / (2 * apart * pinion.tip))
        at_gear = math.acos((squares + apart**2) / (2 * apart * gear.root))
        first = at_pinion + inv(math.acos(pinion.base / pinion.tip)) - inv(gear.pressure)
        passed = first * pinion.teeth / gear.teeth + inv(gear.pressure)
        return passed - inv(math.acos(gear.base / gear.root)) - at_gear


def _pair(args: Args, space: Gear) -> Pair | None:
    clause = args.get("mating")
    if clause is None:
        return None
    teeth = clause.count("teeth")
    if not FEWEST <= teeth < space.teeth:
        raise ClauseError(
            f"a pinion that runs in it has from {FEWEST} to {space.teeth - 1} teeth", clause.index
        )
    pinion = replace(
        space,
        teeth=teeth,
        addendum=space.dedendum,
        dedendum=space.addendum,
        backlash=-space.backlash,
    )
    return Pair(space, pinion)


def _working(args: Args, space: Gear, module: Number, pair: Pair | None) -> Iterator[str]:
    say, across = args.say, module * space.teeth
    add, ded = times(space.dedendum, module), times(space.addendum, module)
    angle = spell_angle(math.degrees(space.pressure))
    yield f"addendum {space.dedendum:g} × {say(module)} = {say(add)}, to the inside"
    yield f"inside D − 2a = {say(across)} − 2 × {say(add)} = {say(across - 2 * add)}: on both sides"
    yield f"dedendum {space.addendum:g} × {say(module)} = {say(ded)}, to the outside"
    yield f"root D + 2b = {say(across)} + 2 × {say(ded)} = {say(across + 2 * ded)}"
    yield f"base circle D·cos φ = {say(across)} × cos {angle} = {say(2 * space.base)}"
    more = f" + {say(-space.backlash)} ÷ 2" if space.backlash else ""
    yield f"width of a space π × {say(across)} ÷ (2 × {space.teeth}){more} = {say(space.thickness)}"
    if pair is not None:
        out, inner = pair.reaches
        yield (
            f"centre distance ({say(across)} − {say(2 * pair.pinion.pitch)}) ÷ 2 = "
            f"{say(pair.apart)}"
        )
        unless = ", were there no interference: there is" if pair.interferes else ""
        action = say(pair.apart * math.sin(space.pressure))
        yield (
            f"contact ratio (√(r² − r_b²) − √(R² − R_b²) + C·sin φ) ÷ πm·cos φ = ({say(out)} − "
            f"{say(inner)} + "
            f"{action}) ÷ {say(space.base_pitch)} = {pair.contact_ratio:.3f}{unless}"
        )


def _remarks(
    args: Args, space: Gear, module: Number, pair: Pair | None, centre: Point
) -> Iterator[Remark]:
    top = centre + Point(0.0, space.pitch)
    yield from tooth_remarks(args, proportions_of(args, module), module, top)
    if space.is_pointed:
        message = f"the spaces are pointed: their flanks meet at Ø{args.say(2 * space.tip)}"
        yield Remark("wrong", f"{message}, inside Ø{args.say(2 * space.outside)}", top)
    if space.root < space.base:
        message = (
            "the tips reach inside the base circle, where no involute is: more teeth, or a "
            "smaller addendum"
        )
        yield Remark("look", message, top)
    if pair is not None:
        if pair.interferes:
            yield Remark(
                "wrong",
                "the tips of the internal gear reach past where the pinion's involute begins: they "
                "interfere",
                top,
            )
        elif pair.clears < 0:
            most = next(
                (n for n in range(pair.pinion.teeth - 1, FEWEST - 1, -1) if _fits(pair, n)), 0
            )
            yield Remark(
                "wrong",
                f"the tips of the pinion foul those of the gear: {space.teeth - pair.pinion.teeth} "
                "teeth fewer are too few" + (f"; up to {most} teeth run clear" if most else ""),
                top,
            )
        elif pair.contact_ratio < RUNS:
            message = (
                f"the contact ratio is {pair.contact_ratio:.2f}; {RUNS:g} is the usual least "
                "(common practice)"
            )
            yield Remark("look", message, top)


def _fits(pair: Pair, teeth: int) -> bool:
    """Tell whether the tips of a pinion of so many teeth pass clear."""
    return replace(pair, pinion=replace(pair.pinion, teeth=teeth)).clears >= 0


def _draw(
    args: Args,
    space: Gear,
    stands: tuple[float, int],
    method: Method,
    ring: Loop,
    named: dict[str, Shape | Loop],
    work: Work,
) -> None:
    centre = draw_teeth(args, space, stands, method, ring, named, work, INSIDE)
    mate = named.get("mate")
    if isinstance(mate, Point):
        work.measure(centre, Way(0), mate.x - centre.at.x, f"{args.name}.mate", mate)


ABOUT = """\
Teeth that point to the centre, inside a ring: sized as a gear, `inside` at D − 2a and `root` at
D + 2b, `pressure`, `proportions`, `addendum`, `dedendum`, `backlash`, `shown`, `turned`, flanks
`by involute`, `arcs` or `arc`; the first space stands upright. `mating 20` gives centre
distance and contact ratio of a pinion that runs in it, and says where they interfere. The ring
itself is a circle about the same centre. Parts `inside`, `pitch`, `base`, `root`,
`pitch_point`, `space` (the first), `mate`; pieces `space1.root`, `space1.tip` and so on.
"""

SHOWN = """\
units mm
sheet A3
O = datum
ring = internal gear, about O, 60 teeth, module 3, pressure 25°, mating 20
rim = circle, centre O, diameter 220
outer = line in, rim
inner = line in, ring
"""

KIND = Kind(
    name="internal gear",
    group="Curves",
    summary="involute teeth inside a ring, pointing to its centre",
    example="ring = internal gear, about O, 60 teeth, module 2",
    mistake="The addendum is taken outward. Inside, the tips lie at D − 2a and the root at D + 2b.",
    also=("ring gear", "annulus"),
    forms=(
        Form("about {centre:point}", needed=True),
        Form("{count:count} teeth", "teeth"),
        *SIZE,
        Form("pitch diameter {size:diameter}", "pitch"),
        *SHAPE,
        Form("shown {which:one/three/all}"),
        Form("by {how:involute/arcs/arc}"),
        Form("turned {angle:angle}"),
        Form("mating {teeth:count} [teeth]"),
    ),
    construct=construct,
    about=ABOUT,
    shown=SHOWN,
)
