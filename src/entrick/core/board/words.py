"""What an act is called: the same act is told in the same words, whichever kind composes it."""

from __future__ import annotations

import math
import re
from dataclasses import replace

from ..acts.act import (
    Act,
    Copy,
    Draw,
    Finish,
    Fix,
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


def step_of(act: Act) -> Step:  # noqa: C901
    """Return the step at the board that an act is: its instrument and its words."""
    match act:
        case Measure(size=size):
            why = f"{act.why}, " if act.why else ""
            told = f"From {act.told} measure {why}{_along(act)} and mark {act.called}"
            if act.computed:
                told += ", as it was worked out"
            return _step(Tool.RULE, told, act, size if size >= 0 else -size)
        case Prick(held=Draw() as held):
            return _ticked(act, held)
        case Prick():
            return _step(Tool.PENCIL, f"Mark {act.called} {act.told}", act)
        case Draw(way=None):
            named = "a light line" if act.called.startswith("the line through") else act.called
            return _step(Tool.STRAIGHTEDGE, f"Draw {named} {act.told}", act)
        case Draw(way=Way() as held):
            return _directed(act, held)
        case Swing(setting=setting):
            return _step(Tool.COMPASS, _swung(act), act, setting.size, act.planned.centre)
        case StepOff(setting=setting, marks=marks):
            start, along, told = act.told.split("|")
            times = f"{len(marks)} times " if len(marks) > 1 else ""
            free = f", {setting.told}," if setting.told else ""
            preposition = "along" if along.startswith(("the line", "the slanted", "line")) else "on"
            text = f"Step off{free} {times}from {start} {preposition} {along}{told and ': '}{told}"
            return _step(Tool.COMPASS if act.compass else Tool.DIVIDERS, text, act, setting.size)
        case Strip():
            text = "Lay the strip with its ticks on the two axes and mark " + act.called
            return _step(Tool.PENCIL, text, act)
        case Trace(touching=touching):
            through = "touching all of them" if touching else "through its points, three at a time"
            if act.tool == BENT:
                return _step(Tool.PENCIL, f"Draw {act.called} {through}, along a {BENT}", act)
            if act.tool != "French curve":
                return _step(
                    Tool.PENCIL,
                    f"Lay the {act.tool} with its marks on the axes, draw {act.called}",
                    act,
                )
            return _step(Tool.PENCIL, f"Draw {act.called} {through}, with the French curve", act)
        case Copy():
            return _step(Tool.DIVIDERS, _copied(act), act)
        case GoOver():
            return _gone_over(act)
        case Finish(told=told, verb=verb, size=size):
            return _step(FINISHED_WITH[verb], told, act, size)
        case Fix():
            return _step(Tool.RULE, f"Mark {act.called}", act)
    raise TypeError(act)


def _ticked(act: Prick, held: Draw) -> Step:
    """Tell a mark made along an edge that is laid there and not drawn along."""
    laid = step_of(held)
    crossed = re.fullmatch(r"where (.+?) and (.+?) cross(.*)", act.told)
    names = [crossed[1], crossed[2]] if crossed else []
    if crossed and held.called in names:
        names.remove(held.called)
        where = f"where it cuts {names[0]}{crossed[3]}"
    else:
        where = act.told
    how = laid.text.replace(f"Draw {held.called} ", "").replace("Draw a light line ", "")
    text = f"Lay the edge {how}: mark {act.called} {where}"
    return replace(laid, text=text, strokes=act.strokes, check=act.check, act=act)


def _step(
    tool: Tool, text: str, act: Act, setting: Number | None = None, needle: Point | None = None
) -> Step:
    return Step(tool, text, setting, needle, act.strokes, act.check, act)


def _along(act: Measure) -> str:
    told = sense(act.ahead)
    if not act.way.off:
        return told or "along the line"
    return f"along {act.way.called}{told and ', '}{told},"


def _directed(act: Draw, way: Way) -> Step:
    degrees = math.degrees(act.planned.direction.angle) % 180
    named = "a light line" if act.called.startswith("the line through") else act.called
    if not way.off:
        turned: Number = way.degrees % 180
        said = {0: "level", 90: "plumb"}.get(int(turned)) if turned == int(turned) else None
        return _step(
            Tool.ANGLE,
            f"Draw {named} {act.told}, {said or 'at ' + spell_angle(way.degrees)}",
            act,
            turned,
        )
    whole = round(float(way.degrees)) % 180
    word = {0: "parallel to", 90: "square to"}.get(whole)
    if word is None:
        text = f"Draw {named} {act.told}, at {spell_angle(way.degrees)} to {way.called}"
        return _step(Tool.ANGLE, text, act, degrees)
    text = f"Draw {named} {act.told}, {word} {way.called}"
    if degrees % 15 > DIRECTION and 15 - degrees % 15 > DIRECTION:
        return _step(Tool.STRAIGHTEDGE, text + ": slide two set squares", act)
    return _step(Tool.ANGLE, text, act, degrees)


def _swung(act: Swing) -> str:
    needle, told = act.told.split("|")
    setting = act.setting
    opened = f", {setting.told}" if setting.told else ""
    if any(isinstance(stroke.shape, Circle) for stroke in act.strokes) or not act.called.startswith(
        "the swing"
    ):
        return f"Needle on {needle}{opened}, draw {act.called} lightly{told and ' '}{told}"
    return f"Needle on {needle}{opened}, swing {told or 'where the mark is expected'}"


def _copied(act: Copy) -> str:
    how = {
        "shift": "by the same distance and direction",
        "turn": f"{spell_angle(act.degrees)} round",
        "mirror": "turned over on the axis",
    }[act.how]
    return f"Repeat what is drawn, {how}: {act.called}"


def _gone_over(act: GoOver) -> Step:
    piece = act.pieces[0]
    match act.told:
        case "feature":
            told = (
                f"Line in {act.called}, feature by feature: arcs by compass or template, "
                "curves as they were drawn"
            )
            return _step(Tool.PENCIL, told, act)
        case "curve":
            told = f"Line in {act.called} with the French curve, a stretch at a time"
            return _step(Tool.PENCIL, told, act)
        case "bent":
            return _step(
                Tool.PENCIL, f"Line in {act.called} along a {BENT}, a stretch at a time", act
            )
        case "arcs":
            return _step(
                Tool.COMPASS,
                f"Line in {act.called}, arc by arc, and what is straight along the edge",
                act,
            )
        case "circle":
            assert act.setting is not None
            centre = piece.planned.centre  # type: ignore[union-attr]
            text = f"{_needle(act)}ine in {act.called}, all round"
            return _step(Tool.COMPASS, text, act, act.setting.size, centre)
        case "arc":
            assert act.setting is not None
            arc = piece.planned
            turned = f"{abs(math.degrees(arc.sweep)):.1f}°"  # type: ignore[union-attr]
            text = f"{_needle(act)}ine in {act.called} from touch point to touch point, {turned}"
            return _step(Tool.COMPASS, text, act, act.setting.size, arc.centre)  # type: ignore[union-attr]
    return _step(Tool.STRAIGHTEDGE, f"Line in {act.called} from mark to mark", act)


def _needle(act: GoOver) -> str:
    """Say where the needle goes for what has not been drawn before; with the letter L after it."""
    if isinstance(act.drawn, Swing):
        return f"Needle on {act.drawn.told.partition('|')[0]}, l"
    return "L"


def setting_of(act: Act) -> tuple[str, Setting] | None:
    """Return what has to be set for an act, and on which instrument; None where nothing is."""
    match act:
        case Swing(setting=setting):
            return "compass", setting
        case GoOver(setting=Setting() as opening):
            return "compass", opening
        case StepOff(setting=setting):
            return ("compass" if act.compass else "dividers"), setting
    return None
