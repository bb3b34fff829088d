"""What is to be set for circles, centres, places and equal steps."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import replace
from random import Random

from ...acts.act import GoOver, Measure, StepOff, Swing
from ...board.steps import BoardStep
from ...geometry import Arc, Circle, Point
from ...kind import Made
from ...tolerance import worked
from ..question import Question, Slip
from ..slips import OnRule, chord
from .context import Context, of_length

PLACE = 1
"""Where it stands among the others."""


def ask(at: Context, _: Random) -> Iterator[Question]:
    """Ask what is to be set for circles, centres, places and equal steps."""
    for step in at.work.steps:
        act = step.source.act if step.source else None
        setting = step.setting
        if setting is None or setting.is_angle or act is None:
            continue
        match act:
            case Swing(setting=opening) if not opening.free and opening.between is None:
                yield from _swing(at, step, act)
            case GoOver(drawn=Swing() as swing):
                name = swing.leaves.partition(":")[0]
                entries = at.work.solution.entries
                line = next((each.line for each in entries if each.statement.name == name), 0)
                yield from _swing(at, replace(step, line=line, name=name), swing)
            case Measure(computed=False):
                yield from _measure(at, step, act)
            case StepOff(setting=opening) if not opening.free:
                yield from _step_off(at, step)


def _swing(at: Context, step: BoardStep, act: Swing) -> Iterator[Question]:
    entry = at.entry(step.line)
    made = entry.made if entry else None
    if made is None or step.setting is None:
        return
    own = _round_of(made, act)
    size, say = float(act.setting.size), at.rule.say
    drawn = at.rule.drawn
    if own is not None and abs(act.planned.centre - own.centre) <= worked(
        own.radius + abs(own.centre)
    ):
        told = _neighbours(at, act.planned, step.name)
        right = drawn(size)
        if step.tool == "circle template":
            slips = [
                Slip(
                    "radius for diameter", 4, right, f"Templates go by diameter: {say(2 * right)}"
                ),
                *told,
            ]
            what = "Which hole of the circle template is taken, by its diameter?"
            yield from of_length(at, step, "template", slips, 2 * right, made.working, what)
            return
        slips = [
            Slip(
                "diameter for radius",
                6,
                2 * right,
                f"The compass goes by radius: half of Ø{say(2 * right)}",
            ),
            Slip(
                "halved once too often",
                4,
                right / 2,
                f"{say(right)} was no diameter: it is not halved again",
            ),
            *told,
        ]
        yield from of_length(
            at,
            step,
            "radius",
            slips,
            right,
            made.working,
            f"{step.text}: what is the compass set to?",
        )
    elif own is not None:
        yield from _locus(at, step, act, own, made)


def _round_of(made: Made, act: Swing) -> Circle | Arc | None:
    """Return the circle or arc that a swing belongs to."""
    shapes = [shape for shape in made.shapes if isinstance(shape, Circle | Arc)]
    on = [
        s for s in shapes if abs(s.centre - act.planned.centre) <= worked(s.radius + abs(s.centre))
    ]
    return next(iter(on or shapes), None)


def _neighbours(at: Context, circle: Circle, name: str) -> Iterator[Slip]:
    for other, c in at.about(circle.centre):
        if other != name and abs(c.radius - circle.radius) > worked(c.radius):
            size = at.rule.drawn(c.radius)
            yield Slip(
                "a neighbour's circle", 3, size, f"{at.rule.say(size)} is the size of {other}"
            )


def _locus(
    at: Context, step: BoardStep, act: Swing, own: Circle | Arc, made: Made
) -> Iterator[Question]:
    """Ask for the opening that finds a centre, and whether it is a sum or a difference."""
    radius, size = own.radius, float(act.setting.size)
    found = [
        c
        for _, c in at.about(act.planned.centre)
        if min(abs(radius + c.radius - size), abs(abs(radius - c.radius) - size))
        <= worked(radius + c.radius)
    ]
    if not found:
        return
    r = found[0].radius
    beside = abs(radius + r - size) <= worked(radius + r)
    others = [c.radius for _, c in at.circles if abs(c.radius - r) > worked(r) and _touches(c, own)]
    slips = _locus_slips(at.rule, size, (radius, r), others, beside)
    if r * 2 > radius * 1.9 and not beside:
        slips = [slip for slip in slips if slip.answer]
    what = f"{step.text}: what is the compass set to?"
    right = at.rule.drawn(size)
    yield from of_length(at, step, "locus", slips, right, made.working, what)
    yield _locus_method(at, step, made, (radius, r), beside)


def _locus_slips(
    rule: OnRule,
    size: float,
    radii: tuple[float, float],
    others: Sequence[float],
    beside: bool,
) -> list[Slip]:
    """Return what is set by mistake for the opening that finds the centre of an arc: from its
    radius and that of the circle it touches."""
    drawn, say = rule.drawn, rule.say
    right, big, small = drawn(size), *map(drawn, radii)
    if beside:
        told = f"You took away: beside a circle the centre is at R + r = {say(right)}"
        swapped = Slip("difference for sum", 6, abs(big - small), told)
    else:
        told = f"You added: an arc that goes around has its centre at R − r = {say(right)}"
        swapped = Slip("sum for difference", 6, big + small, told)
    sign = 1 if beside else -1
    alone = f"{say(big)} is the arc alone; the circle's {say(small)} belongs to it"
    twice = f"Ø{say(2 * small)} goes in by half"
    slips = [
        swapped,
        Slip("eye forgotten", 4, big, alone),
        Slip("eye's diameter", 3, abs(big + sign * 2 * small), twice),
    ]
    for other in map(drawn, others):
        told = f"{say(other)} is the other circle's"
        slips.append(Slip("the other eye", 4, abs(big + sign * other), told))
    return slips


def _locus_method(
    at: Context, step: BoardStep, made: Made, radii: tuple[float, float], beside: bool
) -> Question:
    """Ask whether the opening is the sum of two radii or their difference."""
    big, small = (at.rule.say(at.rule.drawn(each)) for each in radii)
    words = {
        "sum": f"the sum, {big} + {small}",
        "difference": f"the difference, {big} − {small}",
        "arc": f"the radius of the arc alone, {big}",
    }
    correct = "sum" if beside else "difference"
    wrong = {
        "sum": "sum for difference",
        "difference": "difference for sum",
        "arc": "eye forgotten",
    }
    return Question(
        f"method:{at.key(step)}",
        "locus",
        f"{at.told(step.line)} {step.text}: which opening finds the centre?",
        "choice",
        step.line,
        words[correct],
        step.number,
        choices=tuple(words.values()),
        slips=tuple(
            Slip(wrong[key], 6 if key != "arc" else 4, words[key], _SAID[correct])
            for key in words
            if key != correct
        ),
        working=made.working,
        hints=("Think of the arc drawn: does it wrap the circle, or pass by its side?",),
    )


_SAID = {
    "sum": "Beside a circle the centre is away by both radii",
    "difference": "An arc that goes around has its centre nearer: its radius less that of the "
    "circle",
}


def _touches(circle: Circle, arc: Circle | Arc) -> bool:
    apart = abs(circle.centre - arc.centre)
    gaps = (abs(apart - circle.radius - arc.radius), abs(apart - abs(circle.radius - arc.radius)))
    return min(gaps) <= worked(circle.radius + arc.radius)


def _measure(at: Context, step: BoardStep, act: Measure) -> Iterator[Question]:
    """Ask what is measured off: the whole or half of it, to the middle and not to the edge."""
    entry = at.entry(step.line)
    # Only what the brief itself places: what a kind measures off on the way cannot be known from
    # it.
    if (
        entry is None
        or entry.made is None
        or step.setting is None
        or not isinstance(entry.made.shape, Point)
    ):
        return
    right, say = at.rule.drawn(abs(float(act.size))), at.rule.say
    own: list[Slip] = []
    halved = any("/2" in each or "÷ 2" in each for each in entry.made.working)
    if halved:
        own.append(
            Slip("not halved", 6, 2 * right, f"{say(2 * right)} is the whole; half goes each side")
        )
    for name, circle in at.about(act.planned):
        r = at.rule.drawn(circle.radius)
        for sign in (1, -1):
            words = f"That goes to the edge of {name}; the needle wants the middle"
            own.append(Slip("to the edge", 3, right + sign * r, words))
    if own or at.work.sheet.scale.ratio != 1:
        what = f"{step.text}: what is measured off on the rule?"
        yield from of_length(at, step, "place", own, right, entry.made.working, what)


def _step_off(at: Context, step: BoardStep) -> Iterator[Question]:
    """Ask for the chord of equal parts."""
    entry = at.entry(step.line)
    if entry is None or entry.made is None or step.setting is None:
        return
    spots = [shape for shape in entry.made.shapes if isinstance(shape, Point)]
    count = len(spots)
    if count < 3:
        return
    middle = Point(sum(p.x for p in spots) / count, sum(p.y for p in spots) / count)
    radius = abs(spots[0] - middle)
    right = at.rule.drawn(step.setting.actual)
    if abs(at.rule.drawn(chord(radius, count)) - right) > at.rule.near:
        return
    wide, say = at.rule.drawn(radius), at.rule.say
    own = [
        Slip("one part out", 4, chord(wide, count + 1), f"{count} marks make {count} gaps"),
        Slip("one part out", 4, chord(wide, count - 1), f"{count} marks make {count} gaps"),
        Slip("arc for chord", 4, math.tau * wide / count, f"Dividers span the chord: {say(right)}"),
        Slip("radius stepped", 2, wide, "The radius steps off six only"),
        Slip("half chord", 2, right / 2, "Half of 360/n, and then twice R times its sine"),
        Slip(
            "double angle",
            2,
            chord(wide, count / 2),
            "Half of 360/n, and then twice R times its sine",
        ),
    ]
    yield from of_length(
        at,
        step,
        "parts",
        own,
        right,
        entry.made.working,
        f"{step.text}: what are the dividers set to?",
    )
