"""What an act is called: the same act is told in the same words, whichever kind composes it."""

from __future__ import annotations

import math
from dataclasses import replace
from functools import lru_cache

from ..acts.act import (
    Act,
    Copy,
    Draw,
    Finish,
    Fix,
    Gone,
    GoOver,
    Measure,
    Prick,
    Setting,
    StepOff,
    Strip,
    Swing,
    Trace,
    Way,
)
from ..acts.names import named, plain
from ..drawing.strokes import Tool
from ..geometry import Circle, Point
from ..measure import Number, spell_angle
from ..tolerance import DIRECTION
from .step import Step

FINISHED_WITH = {
    "hatch": Tool.ANGLE,
    "dimension": Tool.RULE,
    "scale bar": Tool.DIVIDERS,
    "compare": Tool.RULE,
    "letter": Tool.PENCIL,
    "centre lines": Tool.PENCIL,
    "detail": Tool.PENCIL,
    "fix": Tool.STRAIGHTEDGE,
    "border": Tool.RULE,
    "rub out": Tool.PENCIL,
}
"""Instruments of what finishes a sheet."""

BENT = "bent strip, held on its edge"
"""What a curve is drawn along without French curves (common practice, no source)."""


def sense(ahead: Point) -> str:
    """Return in which sense something lies: to the right, up, to the left and down."""
    across = "to the right" if ahead.x > NEARLY else "to the left" if ahead.x < -NEARLY else ""
    up = "up" if ahead.y > NEARLY else "down" if ahead.y < -NEARLY else ""
    return " and ".join(filter(None, (across, up)))


NEARLY = 0.1
"""Sine of the angle up to which a direction is told as level or plumb (by eye, no source)."""


@lru_cache(maxsize=8192)
def step_of(act: Act) -> Step:
    """Return the step at the board that an act is: its instrument and its words, in which things
    are named with what they are (`acts.names`)."""
    own = named(act.leaves, "")
    match act:
        case Measure(size=size):
            words = f"From {act.told} measure {_along(act)}, mark {own}"
            if act.computed:
                words = f"From {act.told} measure {_along(act)} as worked out, mark {own}"
            step = _step(Tool.RULE, words, act, size if size >= 0 else -size)
            return replace(step, check=_and(act.why, act.check))
        case Prick(held=Draw() as held):
            return _ticked(act, held)
        case Prick():
            return _step(Tool.PENCIL, f"Mark {own} {act.told}", act)
        case Draw(way=None):
            return _step(Tool.STRAIGHTEDGE, f"Draw {_named(act)} {act.told}", act)
        case Draw(way=Way() as held):
            return _directed(act, held)
        case Swing(setting=setting):
            return _step(Tool.COMPASS, _swung(act), act, setting.size, act.planned.centre)
        case StepOff():
            return _stepped(act)
        case Strip():
            middle, long, short = act.ends
            ticks = f"{middle}–{long} and {middle}–{short}"
            text = (
                f"On the edge of a strip of paper tick {ticks}, both from one place of it; slide "
                f"the ticks on the axes, mark {own}"
            )
            return _step(Tool.PENCIL, text, act)
        case Trace():
            step = _step(Tool.PENCIL, _traced(act), act)
            return replace(step, check=_and(plain(act.called), act.check))
        case Copy():
            step = _step(Tool.DIVIDERS, _copied(act), act)
            return replace(step, check=_and(plain(act.called), act.check))
        case GoOver():
            return _gone_over(act)
        case Finish(told=told, verb=verb, size=size):
            return _step(FINISHED_WITH[verb], told, act, size)
        case Fix():
            return _step(Tool.RULE, f"Mark {own}", act)
    raise TypeError(act)


def _named(act: Act) -> str:
    return named(act.leaves, act.called)


def _ticked(act: Prick, held: Draw) -> Step:
    """Tell a mark made along an edge that is laid there and not drawn along."""
    laid = step_of(held)
    how = laid.text.replace(f"Draw {_named(held)} ", "")
    where = (act.laid or act.told).removeprefix("where ").replace(f"{_named(held)} and ", "", 1)
    where = where.replace(f" and {_named(held)}", "", 1).replace(" cross", "", 1)
    text = f"Edge {how}: mark {named(act.leaves, '')} where it cuts {where}"
    check = act.check if laid.check == held.check else _and(act.check, TWO_SQUARES)
    return replace(laid, text=text, strokes=act.strokes, check=check, act=act)


def _step(
    tool: Tool, text: str, act: Act, setting: Number | None = None, needle: Point | None = None
) -> Step:
    return Step(tool, text, setting, needle, act.strokes, act.check, act)


def _along(act: Measure) -> str:
    told = sense(act.ahead)
    if not act.way.off:
        return named("", told) if told else "along the line"
    how = "square to" if float(act.way.degrees) % 180 == 90 else "along"
    return f"{how} {act.way.called}{told and ', '}{named('', told)}"


def _directed(act: Draw, way: Way) -> Step:
    degrees = math.degrees(act.planned.direction.angle) % 180
    if not way.off:
        turned: Number = way.degrees % 180
        said = {0: "level", 90: "plumb"}.get(int(turned)) if turned == int(turned) else None
        how = said or f"at {spell_angle(turned)}"
        return _step(Tool.ANGLE, f"Draw {_named(act)} {act.told}, {how}", act, turned)
    whole = round(float(way.degrees)) % 180
    word = {0: "parallel to", 90: "square to"}.get(whole)
    if word is None:
        text = f"Draw {_named(act)} {act.told}, at {spell_angle(way.degrees % 180)} to {way.called}"
        return _step(Tool.ANGLE, text, act, degrees)
    text = f"Draw {_named(act)} {act.told}, {word} {way.called}"
    if degrees % 15 > DIRECTION and 15 - degrees % 15 > DIRECTION:
        return replace(_step(Tool.STRAIGHTEDGE, text, act), check=_and(act.check, TWO_SQUARES))
    return _step(Tool.ANGLE, text, act, degrees)


TWO_SQUARES = "two set squares, the one slid along the other"


def _and(*told: str) -> str:
    return "; ".join(filter(None, told))


def _swung(act: Swing) -> str:
    needle, told = act.told.split("|")
    setting = act.setting
    opened = f", {setting.told}" if setting.told else ""
    whole = any(isinstance(stroke.shape, Circle) for stroke in act.strokes)
    if whole or not act.called.startswith("the swing"):
        return f"Needle on {needle}{opened}, draw {_named(act)} lightly{told and ' '}{told}"
    swung = f"swing {named(act.leaves, '')}"
    return f"Needle on {needle}{opened}, {swung} {told or 'where the mark is expected'}"


def _stepped(act: StepOff) -> Step:
    start, along, told = act.told.split("|")
    if act.by_rule:
        text = f"Rule along {along} from {start}: tick it {len(act.marks)} times"
        return _step(Tool.RULE, text, act, act.setting.size)
    if act.setting.between and len(act.marks) == 1:
        taken = act.setting.told.removeprefix("from ").replace(" to ", "–")
        text = f"Carry {taken} from {start} along {along}, mark {named(act.marks[0], '')}"
        return _step(Tool.COMPASS, text, act, act.setting.size)
    times = f"{len(act.marks)} times " if len(act.marks) > 1 else ""
    free = f", {act.setting.told}," if act.setting.told else ""
    line = plain(along).startswith(("the line", "the slanted", "line"))
    text = f"Step off{free} {times}from {start} {'along' if line else 'on'} {along}"
    tool = Tool.COMPASS if act.compass else Tool.DIVIDERS
    marks = "".join(f", mark {named(key, '')}" for key in act.marks[:1] if len(act.marks) == 1)
    return _step(tool, f"{text}{marks}{told and ': '}{told}", act, act.setting.size)


def _traced(act: Trace) -> str:
    through = "touching all of them" if act.touching else "through the points, three at a time"
    if act.tool == BENT:
        return f"Draw the curve {through}, along a {BENT}"
    if act.tool != "French curve":
        return f"Lay the {act.tool} with its marks on the axes, draw the ellipse"
    return f"Draw the curve {through}"


def _copied(act: Copy) -> str:
    how = {
        "shift": "by the same distance and direction",
        "turn": f"{named('', spell_angle(act.degrees))} round",
        "mirror": "turned over on the axis",
    }[act.how]
    return f"Repeat what is drawn, {how}"


def _gone_over(act: GoOver) -> Step:
    piece = act.pieces[0]
    match act.told:
        case "feature":
            words = f"Line in {act.called}, feature by feature, as they were drawn"
            return _step(Tool.PENCIL, words, act)
        case "curve":
            words = "Line in the curve, a stretch at a time"
            step = _step(Tool.PENCIL, words, act)
            return replace(step, check=_and(plain(act.called), act.check))
        case "bent":
            words = f"Line in {act.called} along a {BENT}, a stretch at a time"
            return _step(Tool.PENCIL, words, act)
        case "arcs":
            words = f"Line in {_part(act)}, arc by arc, straights along the edge"
            step = _step(Tool.COMPASS, words, act)
            return replace(step, check=_and(act.called, act.check))
        case "circle":
            text = f"Needle on {_needle(piece)}, line in the circle, all round"
            return _round(act, text)
        case "arc":
            arc = piece.planned
            turned = f"{abs(math.degrees(arc.sweep)):.1f}°"  # type: ignore[union-attr]
            text = f"Needle on {_needle(piece)}, line in from touch to touch, {named('', turned)}"
            return _round(act, text)
    ends = named("", f"{named(piece.start, 'mark')}–{named(piece.end, 'mark')}")
    text = f"Line in the straight {ends}"
    return _step(Tool.STRAIGHTEDGE, text, act)


def _part(act: GoOver) -> str:
    """Return in two words what is gone over: ``wheel flank`` for ``wheel.tooth2.flank``."""
    thing, *parts = (word for word in act.called.split(".") if not word.isdigit())
    return " ".join((thing, *parts[-1:]))


def _round(act: GoOver, text: str) -> Step:
    assert act.setting is not None
    centre = act.pieces[0].planned.centre  # type: ignore[union-attr]
    return _step(Tool.COMPASS, text, act, act.setting.size, centre)


def _needle(piece: Gone) -> str:
    return named(piece.needle, "its centre")


def setting_of(act: Act) -> tuple[str, Setting] | None:
    """Return what has to be set for an act, and on which instrument; None where nothing is."""
    match act:
        case StepOff(by_rule=True):
            return None
        case Swing(setting=setting):
            return "compass", setting
        case GoOver(setting=Setting() as opening):
            return "compass", opening
        case StepOff(setting=setting):
            return ("compass" if act.compass else "dividers"), setting
    return None
