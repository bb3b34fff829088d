"""A value measured back at the board, against the computed one: within the line, within the hand,
or a slip by name."""

from __future__ import annotations

import math
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from fractions import Fraction
from typing import Literal

from ..board.kit import Kit
from ..board.steps import BoardStep, Setting
from ..measure import Scale, Unit, spell
from ..plan.document import Given
from ..plan.errors import ClauseError
from ..plan.evaluate import evaluate
from ..plan.reader import read_line
from ..rehearsal.hand import Hand
from ..tolerance import ROUND

NINE_IN_TEN = 1.645
"""Standard deviations within which nine in ten values of a hand without bias lie (normal
distribution)."""

LINE = 0.35
"""Width of a pencil line, mm: what is closer is hidden by it (common practice, no source)."""

LARGEST = 1_000_000
"""Of a value read at the board, whatever its unit."""

Judged = Literal["line", "hand", "slip"]


@dataclass(frozen=True, slots=True)
class Verdict:
    """What is to be said of a measured value.

    Attributes
    ----------
    judged : str
        "line" where the pencil line hides the miss, "hand" where a hand usually misses as much,
        else "slip".
    off : float
        Measured less computed, in the unit of the rule, or degrees.
    told : str
    slips : tuple of str
        What it looks like, the likeliest first; empty where nothing known gives that value.
    """

    judged: Judged
    off: float
    told: str
    slips: tuple[str, ...] = ()


def judge(
    measured: Fraction,
    step: BoardStep,
    others: Sequence[BoardStep],
    kit: Kit,
    scale: Scale,
    unit: Unit,
    hand: Hand | None = None,
) -> Verdict:
    """Compare a measured value with what a step sets.

    Parameters
    ----------
    measured : Fraction
        In the unit of the rule, or degrees where the step sets an angle.
    step : BoardStep
        One that sets something.
    others : sequence of BoardStep
        The steps of the plan: a neighbour's size may have been taken.
    kit : Kit
    scale : Scale
    unit : Unit
        Of the plan.
    hand : Hand, optional
        The usual one where the logbook knows no better.

    Raises
    ------
    ClauseError
        Where the step sets nothing that could be measured back.
    """
    setting = step.setting
    if setting is None:
        raise ClauseError("this step sets nothing that could be measured back")
    if setting.is_angle:
        return _angle(float(measured), setting, hand or Hand())
    # Measured across, the opening is half of it: what is asked is what is compared.
    opened = measured / 2 if step.is_across else measured
    off, graduation = float(opened) - setting.drawn, float(kit.graduation)
    if step.is_across and abs(float(measured) - setting.drawn) <= graduation / 2 + ROUND:
        words = f"that is the radius, and right: across it is {_spelt(2 * setting.drawn, kit)}"
        return Verdict("line", float(measured) - setting.drawn, words)
    mm = abs(off) * float(kit.unit.mm)
    # What is measured back is measured by hand too.
    usual = NINE_IN_TEN * math.hypot(
        spread_of(step.tool, hand or Hand()), (hand or Hand()).measuring
    )
    away = float(measured) - setting.drawn * (2 if step.is_across else 1)
    said = f"{_spelt(abs(away), kit)} {'over' if off > 0 else 'under'}"
    if mm <= LINE:
        return Verdict("line", off, "within the line" if off == 0 else f"within the line: {said}")
    if mm <= usual:
        return Verdict("hand", off, f"within what a hand usually misses: {said}")
    found = tuple(dict.fromkeys(_slips(opened, step, setting, others, kit, scale, unit)))
    return Verdict("slip", off, f"a slip: {said}", found)


def _spelt(size: float, kit: Kit) -> str:
    """Write a length as the rule of the kit has it: an inch in 64ths, else to a hundredth."""
    if kit.unit is Unit.INCH:
        return f"{spell(Fraction(round(size * 64), 64), kit.unit)} in"
    return f"{round(size, 2):g} {kit.unit}"


def read_value(text: str, unit: Unit) -> Fraction:
    """Read a value as a drafter writes it: ``3 1/4``, ``83 mm``, ``3.25 in``; in a unit where it
    names none.

    Raises
    ------
    ClauseError
        Where it is no number.
    """
    content = read_line(f"given m = {text.strip().removeprefix('Ø').removeprefix('R')}").content
    if not isinstance(content, Given) or content.note:
        raise ClauseError(
            f"{text.strip() or 'nothing'} is no value; write it as  3 1/4,  83 mm  or  3.25 in"
        )
    found = evaluate(content.value, {}, unit).value
    if abs(float(found)) > LARGEST:
        raise ClauseError(f"{text.strip()[:20]} is larger than anything at the board")
    return found if isinstance(found, Fraction) else Fraction(found)


def spread_of(tool: str, hand: Hand) -> float:
    """Return the spread of an instrument, mm on paper, one standard deviation."""
    return {"dividers": hand.dividers, "rule": hand.measuring}.get(tool, hand.opening)


def _angle(measured: float, setting: Setting, hand: Hand) -> Verdict:
    off = measured - setting.drawn
    usual = NINE_IN_TEN * (hand.protractor + hand.base)
    if abs(off) <= usual:
        return Verdict("hand", off, f"within what a hand usually misses: {abs(off):.2g}°")
    known = (
        (180 - setting.drawn, "read from the other end of the protractor: 180° less the angle"),
        (90 - setting.drawn, "counted from the plumb line instead of the level one"),
        (-setting.drawn, "turned the other way"),
    )
    slips = tuple(told for value, told in known if abs(measured - value) <= max(usual, 0.5))
    return Verdict("slip", off, f"a slip: {abs(off):.3g}° {'over' if off > 0 else 'under'}", slips)


def _slips(
    measured: Fraction,
    step: BoardStep,
    setting: Setting,
    others: Sequence[BoardStep],
    kit: Kit,
    scale: Scale,
    unit: Unit,
) -> Iterator[str]:
    """Yield the slips that give a value, to half a graduation, heaviest first."""
    value, near = float(measured), float(kit.graduation) / 2 + ROUND

    def gives(wrong: float) -> bool:
        grid = float(kit.graduation)
        return abs(round(wrong / grid) * grid - value) <= near

    right, ratio, mm = setting.drawn, float(scale.ratio), float(unit.mm / kit.unit.mm)
    whole, word = (10.0, "centimetre") if kit.unit is Unit.MM else (1.0, "inch")
    known = [
        (2 * right, "the diameter was set for the radius: it is twice as large"),
        (right / 2, "the radius was set for the diameter: it is half as large"),
        (
            setting.actual * mm,
            f"the scale was forgotten: {setting.actual:g} full size is {right:g} at {scale}",
        ),
        (right * ratio, "the scale was taken twice"),
        (right + whole, f"read from the wrong {word}: one too far"),
        (right - whole, f"read from the wrong {word}: one too short"),
        (right * 10, "a decimal place too far"),
        (right / 10, "a decimal place short"),
        (right * 25.4, "inches taken for millimetres"),
        (right / 25.4, "millimetres taken for inches"),
        (right + float(kit.graduation), "one graduation too far"),
        (right - float(kit.graduation), "one graduation short"),
    ]
    for wrong, told in known:
        if abs(wrong - right) > near and gives(wrong):
            yield told
    for other in others:
        size = other.setting
        if size is None or size.is_angle or other is step or abs(size.drawn - right) <= near:
            continue
        if gives(size.drawn):
            yield (
                f"the size of a neighbour: {size.reading} belongs to step {other.number}, "
                f"{other.name}"
            )
            return
