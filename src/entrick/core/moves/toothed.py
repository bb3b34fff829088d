"""No kind: what toothed things have in common, their clauses and what these come to."""

from __future__ import annotations

import math
from collections.abc import Iterator
from dataclasses import dataclass
from fractions import Fraction

from ..geometry import Point
from ..kind import Args
from ..measure import Number, Unit, spell
from ..plan.errors import ClauseError
from ..plan.forms import Form
from ..rules.gear import PREFERRED, PROPORTIONS
from ..tolerance import SPECK
from ..worksheets import Remark

SIZE = (
    Form("module {module:length}"),
    Form("diametral pitch {pitch:pitch}", "diametral"),
    Form("circular pitch {pitch:length}", "circular"),
)
"""Clauses that say how large a tooth is."""

SHAPE = (
    Form("pressure {angle:angle}"),
    Form("proportions {which:older/full/stub}"),
    Form("addendum {factor:length}"),
    Form("dedendum {factor:length}"),
    Form("backlash {length:length}"),
)
"""Clauses that say what a tooth looks like."""

LEAST_ANGLE, MOST_ANGLE, USUAL_ANGLE = 10, 35, 20
"""Pressure angles, degrees: 14 1/2, 20 and 25 are usual (common practice, no source)."""


@dataclass(frozen=True, slots=True)
class Proportions:
    """The shape of a tooth: pressure angle in radians, addendum and dedendum in modules, backlash
    in plan units."""

    pressure: float
    addendum: float
    dedendum: float
    backlash: float


def module_of(args: Args) -> tuple[Number | None, list[str]]:
    """Return the module, plan units, from a module, a diametral or a circular pitch, with its
    working; None where none is said.

    Raises
    ------
    ClauseError
        Where two are said, or one that is not more than nought.
    """
    module, pitch, round_ = (args.get(key) for key in ("module", "diametral", "circular"))
    several = [said for said in (module, pitch, round_) if said]
    if len(several) > 1:
        message = "teeth have a module, a diametral or a circular pitch, and one of them only"
        raise ClauseError(message, several[1].index)
    if round_:
        along = float(round_.length("pitch"))
        if along <= 0:
            raise ClauseError("the circular pitch is more than nought", round_.index)
        wide = along / math.pi
        return wide, [f"module p ÷ π = {args.say(along)} ÷ π = {args.say(wide)}"]
    if module:
        size = module.length("module").value
        if size <= 0:
            raise ClauseError("the module is more than nought", module.index)
        return size, []
    if not pitch:
        return None, []
    value = pitch.length("pitch").value
    if value <= 0:
        raise ClauseError(
            "the diametral pitch is more than nought: teeth to an inch of pitch diameter",
            pitch.index,
        )
    inch = 1 / args.unit.mm * Fraction(254, 10)
    message = (
        f"module {args.say(inch)} ÷ {spell(value, Unit.INCH)} = {args.say(inch / value)}: "
        "pitch diameter for each tooth"
    )
    return inch / value, [message]


def proportions_of(args: Args, module: Number) -> Proportions:
    """Return the shape of a tooth from what is said of it, usual values for the rest (ISO 53).

    Raises
    ------
    ClauseError
    """
    if float(module) < SPECK:
        raise ClauseError(f"teeth of module {float(module):g} are too small to draw")
    clause = args.get("pressure")
    angle = args.number("pressure", usual=USUAL_ANGLE)
    if not LEAST_ANGLE <= angle <= MOST_ANGLE:
        message = (
            f"pressure angles lie between {LEAST_ANGLE}° and {MOST_ANGLE}°: 14 1/2°, 20° and "
            "25° are usual"
        )
        raise ClauseError(message, clause.index if clause else None)
    which = args.get("proportions")
    heights = dict(
        zip(
            ("addendum", "dedendum"),
            PROPORTIONS[which.word("which") if which else "full"],
            strict=True,
        )
    )
    for key in heights:
        own = args.get(key)
        if own:
            heights[key] = float(own.length("factor"))
            if not 0.1 <= heights[key] <= 3:
                raise ClauseError(f"the {key} is told in modules, between 0.1 and 3", own.index)
    play = args.get("backlash")
    backlash = args.number("backlash", usual=0.0)
    if not 0 <= backlash < math.pi * float(module) / 2:
        raise ClauseError(
            "the backlash is less than a tooth is thick", play.index if play else None
        )
    return Proportions(math.radians(angle), heights["addendum"], heights["dedendum"], backlash)


def times(factor: float, module: Number) -> Number:
    """Return so many modules, exactly where the module is exact."""
    return (
        Fraction(factor).limit_denominator(100_000) * module
        if isinstance(module, Fraction)
        else factor * module
    )


def pitch_told(args: Args, module: Number) -> str:
    """Say the size of a tooth as the brief does."""
    clause = args.get("diametral")
    if clause:
        return f"diametral pitch {spell(clause.length('pitch').value, Unit.INCH)}"
    along = args.get("circular")
    if along:
        return f"circular pitch {args.say(along.length('pitch').value)}"
    return f"module {args.say(module)}"


def heights_told(args: Args, shape: Proportions, module: Number) -> Iterator[str]:
    """Say what the heights of a tooth come to."""
    for word, factor in (("addendum", shape.addendum), ("dedendum", shape.dedendum)):
        yield f"{word} {factor:g} × {args.say(module)} = {args.say(times(factor, module))}"


def tooth_remarks(args: Args, shape: Proportions, module: Number, place: Point) -> Iterator[Remark]:
    """Say what is wrong, or worth a look, with teeth of any shape."""
    if shape.dedendum <= shape.addendum:
        clearance = args.say((shape.dedendum - shape.addendum) * float(module))
        message = f"the clearance is {clearance}: the dedendum must be larger than the addendum"
        yield Remark("wrong", message, place)
    mm = float(module) * float(args.unit.mm)
    if args.get("module") and all(abs(mm - size) > SPECK for size in PREFERRED):
        yield Remark("note", f"module {mm:.4g} is not in the first series of ISO 54", place)
