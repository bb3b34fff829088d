"""The ordered steps of a whole plan, each with its instrument and setting at the scale of the
sheet."""

from __future__ import annotations

import math
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from itertools import chain
from typing import cast

from ..acts import act
from ..drawing.strokes import Stroke, Tool
from ..geometry import Arc, Circle, Point
from ..kind.made import Measured
from ..measure import Number, Reading, Scale, Unit, read_on_rule, spell, spell_angle
from ..memo import MEMO, Distinct, Memo, number_of
from ..sheet import Sheet
from ..sheet.layout import side_told
from ..solve import Entry, Solution
from ..tolerance import DIRECTION, ROUND
from .economy import acts_at_board
from .kit import Kit
from .opening import opened, opens
from .order import Ordered, acts_of
from .schedule import CALLED, Counted, Schedule, counted, scheduled, why
from .step import Step
from .words import setting_of, step_of


@dataclass(frozen=True, slots=True)
class Setting:
    """What to set on an instrument.

    Attributes
    ----------
    is_angle : bool
    actual : float
        At full size, plan units; degrees for an angle.
    drawn : float
        At the scale of the sheet.
    reading : str
        To the graduation of the rule or protractor.
    error : float
        What the rounding to a graduation adds, same unit as `drawn`.
    told : str
        The whole conversion in words: ``70 at 1:2 is 35``.
    rounding : str
        What the graduation adds or takes, in words; empty where nothing is read off.
    kept : bool
        Whether the instrument stands so already and is left as it is.
    """

    is_angle: bool
    actual: float
    drawn: float
    reading: str
    error: float
    told: str
    rounding: str = ""
    kept: bool = False


@dataclass(frozen=True, slots=True, eq=False)
class BoardStep(Distinct):
    """One numbered step at the board; `why` it comes here and not where it is written. Compared by
    identity."""

    number: int
    line: int
    name: str
    tool: str
    text: str
    setting: Setting | None
    needle: Point | None
    strokes: tuple[Stroke, ...]
    check: str
    source: Step | None = None
    why: str = ""

    @property
    def is_across(self) -> bool:
        """Whether what is asked to be measured back is twice what is set."""
        return self.check == act.ACROSS


def board_steps(solution: Solution, kit: Kit, sheet: Sheet) -> tuple[BoardStep, ...]:
    """Return every step of a solved plan in the order of work.

    Parameters
    ----------
    solution : Solution
    kit : Kit
        Settings are read on its rule; its reach decides between compass and beam compass.
    sheet : Sheet
        Its scale turns lengths into settings (angles do not scale); the datum is measured from its
        border.

    Returns
    -------
    tuple of BoardStep
    """
    return tuple(chain.from_iterable(steps_by_statement(solution, kit, sheet)))


Stands = Mapping[str, act.Setting]
"""How each instrument stands."""

TOLD = cast(Memo[tuple[tuple[BoardStep, ...], Stands, int]], MEMO)
"""The steps of a statement, how the instruments stand afterwards, and the number of that."""


def steps_by_statement(
    solution: Solution, kit: Kit, sheet: Sheet, schedule: Schedule = "written"
) -> tuple[tuple[BoardStep, ...], ...]:
    """Return the steps of each statement that has any, numbered through in the order chosen; those
    of a statement that came to the same again are the same where the order is as written."""
    if schedule != "written":
        return _rescheduled(solution, kit, sheet, schedule)
    found: list[tuple[BoardStep, ...]] = []
    count = 0
    set_step = setter(kit, sheet.scale, solution.unit, sheet.square)
    stands: Stands = {}
    standing = _number_of(stands)
    read_on = number_of((kit, sheet.scale, solution.unit, sheet.square))
    for own in acts_at_board(solution, sheet, kit):
        entry = own.entry
        made = entry.made
        if made is None:
            continue
        if made.placing:
            placing = _placing(entry, kit, sheet, own.acts)
            told, stands = _told(own, set_step, count + len(placing), stands)
            steps, standing = (*placing, *told), _number_of(stands)
        else:
            # However the instruments have come to stand so: what follows is told alike.
            key = (_told, own.serial, read_on, count, standing)
            known = TOLD.get(key)
            if known is None:
                told, after = _told(own, set_step, count, stands)
                known = TOLD.put(key, (told, after, _number_of(after)), 1 + len(told))
            steps, stands, standing = known
        if steps:
            found.append(steps)
        count += len(steps)
    return tuple(found)


def _number_of(stands: Stands) -> int:
    return number_of(tuple(stands.items()))


def _told(
    own: Ordered,
    set_step: Callable[[Step, int, int, str], BoardStep],
    count: int,
    stands: Mapping[str, act.Setting],
) -> tuple[tuple[BoardStep, ...], Stands]:
    """Tell the acts of a statement after so many steps, and how the instruments stand
    afterwards."""
    acts = own.acts[1:] if own.entry.made is not None and own.entry.made.placing else own.acts
    return _tell(acts, own.entry, set_step, count + 1, stands)


def _tell(
    acts: Sequence[act.Act],
    entry: Entry,
    set_step: Callable[[Step, int, int, str], BoardStep],
    first: int,
    stands: Mapping[str, act.Setting],
) -> tuple[tuple[BoardStep, ...], Stands]:
    """Tell acts one after another: what stands as it should already is left as it is."""
    steps = []
    now = dict(stands)
    for number, each in enumerate(acts, first):
        step = set_step(step_of(each), number, entry.line, entry.statement.name)
        wanted, setting = setting_of(each), step.setting
        if wanted is not None and setting is not None:
            tool, opening = wanted
            if now.get(tool) == opening and step.tool != "circle template":
                step = replace(step, setting=replace(setting, kept=True))
            elif opening.free:
                step = replace(step, setting=_freely(setting))
            now[tool] = opening
        steps.append(step)
    return tuple(steps), now


def _rescheduled(
    solution: Solution, kit: Kit, sheet: Sheet, schedule: Schedule
) -> tuple[tuple[BoardStep, ...], ...]:
    """Tell all acts in another order: places on the sheet first, then as it is scheduled."""
    set_step = setter(kit, sheet.scale, solution.unit, sheet.square)
    ordered = [own for own in acts_at_board(solution, sheet, kit) if own.entry.made is not None]
    own_steps: dict[int, list[BoardStep]] = {index: [] for index in range(len(ordered))}
    acts: list[tuple[int, act.Act]] = []
    count = 0
    for index, own in enumerate(ordered):
        placed = own.entry.made is not None and own.entry.made.placing is not None
        if placed:
            for step in _placing(own.entry, kit, sheet, own.acts):
                count += 1
                own_steps[index].append(replace(step, number=count))
        acts += [(index, each) for each in own.acts[1 if placed else 0 :]]
    plain = [each for _, each in acts]
    order = scheduled(plain, schedule)
    stands: Mapping[str, act.Setting] = {}
    for place, reason in zip(order, why(plain, order), strict=True):
        index, each = acts[place]
        count += 1
        (step,), stands = _tell((each,), ordered[index].entry, set_step, count, stands)
        own_steps[index].append(replace(step, why=reason))
    return tuple(tuple(steps) for steps in own_steps.values() if steps)


def counts(
    solution: Solution, sheet: Sheet, kit: Kit, pace: Mapping[str, float] | None = None
) -> dict[Schedule, Counted]:
    """Return what every order of work takes: settings, changes of instrument, minutes (guesses, or
    one's own pace)."""
    acts = [each for own in acts_at_board(solution, sheet, kit) for each in own.acts]
    return {how: counted(acts, scheduled(acts, how), pace) for how in CALLED}


def _freely(setting: Setting) -> Setting:
    """Return a setting that need not be met: a handy one, or more than a bound."""
    # Said roundly: nobody sets a free opening to a graduation.
    whole = f"about {_roundly(setting.drawn)} {setting.reading.rpartition(' ')[2]}"
    return replace(setting, reading=whole, rounding="any opening near it will do")


def _roundly(drawn: float) -> str:
    """Say a size to the nearest whole, or below ten to the nearest half."""
    if drawn >= 10:
        return str(round(drawn))
    whole, half = divmod(round(2 * drawn), 2)
    return f"{whole or ''}{' ' if whole and half else ''}{'1/2' if half else ''}" or "1/2"


def opened_steps(
    step: BoardStep, solution: Solution, kit: Kit, sheet: Sheet
) -> tuple[BoardStep, ...]:
    """Open a step up into the construction by compass, straight edge and dividers, with settings at
    the scale.

    Returns
    -------
    tuple of BoardStep
        Numbered from 1; empty where the step is that already.
    """
    if step.source is None or step.source.act is None or not opens(step.source.act):
        return ()
    standing = (own.left for own in acts_of(solution, sheet) if own.entry.line <= step.line)
    things = {thing.key: thing for left in standing for thing in left}
    acts = opened(step.source.act, things, sheet)
    entry = next(entry for entry in solution.entries if entry.line == step.line)
    return _tell(acts, entry, setter(kit, sheet.scale, sheet.unit, sheet.square), 1, {})[0]


def _placing(entry: Entry, kit: Kit, sheet: Sheet, acts: Sequence[act.Act]) -> list[BoardStep]:
    """Return the two measurements from the border that place the datum on the paper, at full
    size."""
    name, placing = entry.statement.name, entry.made.placing if entry.made else None
    measured = (
        (placing and placing.across) or Measured(0, "left"),
        (placing and placing.up) or Measured(0, "bottom"),
    )
    ways = {"left": "to the right", "right": "to the left", "top": "downwards", "bottom": "upwards"}
    places = [
        (side_told(side), ways[side.side], abs(at - sheet.side(side)))
        for side, at in zip(measured, (sheet.origin.x, sheet.origin.y), strict=True)
    ]
    steps = []
    for number, ((edge, way, at), told) in enumerate(zip(places, sheet.working, strict=True), 1):
        on_paper = at / float(sheet.unit.mm)
        setting = length_setting(on_paper, kit, Scale(), sheet.unit)
        text = f"From the {edge} measure {way} to the place of {name}"
        steps.append(BoardStep(number, entry.line, name, "rule", text, setting, None, (), told))
    return [
        steps[0],
        replace(steps[1], text=f"{steps[1].text}, and mark it", strokes=acts[0].strokes),
    ]


@lru_cache(maxsize=16)
def setter(
    kit: Kit, scale: Scale, unit: Unit, square: float = 0.0
) -> Callable[[Step, int, int, str], BoardStep]:
    """Return what makes a numbered step of one: its instrument, and what to set on it; steps seen
    before are kept."""

    @lru_cache(maxsize=4096, typed=True)
    def setting_of(is_angle: bool, value: Number) -> Setting:
        if is_angle:
            return angle_setting(value, kit)
        setting = length_setting(value, kit, scale, unit)
        return (
            replace(setting, told=f"{setting.told}, {_squares(setting, kit, square)}")
            if square
            else setting
        )

    @lru_cache(maxsize=4096, typed=True)
    def hole_of(radius: Number) -> Setting | None:
        fits = kit.has_template(scale.apply(radius) * 2, unit)
        return template_setting(radius, kit, scale, unit) if fits else None

    @lru_cache(maxsize=8192)
    def set_step(step: Step, number: int, line: int, name: str) -> BoardStep:
        tool, setting = set_on(step)
        return BoardStep(
            number,
            line,
            name,
            tool,
            step.text,
            setting,
            step.needle,
            step.strokes,
            step.check,
            step,
        )

    def set_on(step: Step) -> tuple[str, Setting | None]:
        if step.setting is None:
            return _tool(step, kit, None), None
        if step.tool is Tool.COMPASS and _is_templated(step):
            hole = hole_of(step.setting)
            if hole is not None:
                return "circle template", hole
        setting = setting_of(step.tool is Tool.ANGLE, step.setting)
        return _tool(step, kit, setting), setting

    return set_step


def _squares(setting: Setting, kit: Kit, square: float) -> str:
    """Return a setting counted in the squares of ruled paper."""
    count = setting.drawn * float(kit.unit.mm) / square
    told = f"{round(count)}" if abs(count - round(count)) < ROUND else f"{count:.2f}"
    return f"{told} square{'' if told == '1' else 's'} of the ground"


def _is_templated(step: Step) -> bool:
    """Tell whether a step draws a circle or a blend, and not a locus or a cut."""
    rounds = [s.shape for s in step.strokes if isinstance(s.shape, Circle | Arc)]
    return (
        step.tool is Tool.COMPASS
        and len(rounds) == 1
        and rounds[0].size == step.setting
        and ", swing " not in step.text
    )


def template_setting(radius: Number, kit: Kit, scale: Scale, unit: Unit) -> Setting:
    """Return which hole of the circle template to take: templates go by diameter, compasses by
    radius."""
    drawn = scale.apply(radius) * 2 * (unit.mm / kit.unit.mm)
    told = (
        f"{spell(radius, unit)} radius at {scale} is the Ø{spell(drawn, kit.unit)} {kit.unit} hole"
    )
    line_up = "its four marks on the centre lines"
    return Setting(
        False,
        float(radius),
        float(drawn),
        f"Ø{spell(drawn, kit.unit)} {kit.unit}",
        0.0,
        told,
        line_up,
    )


def _tool(step: Step, kit: Kit, setting: Setting | None) -> str:
    match step.tool:
        case Tool.COMPASS if setting is not None:
            return kit.round_tool(setting.drawn)
        case Tool.ANGLE if step.setting is not None:
            return kit.angle_tool(_snapped(step.setting))
        case Tool.DIVIDERS if not kit.dividers:
            return "tracing paper" if isinstance(step.act, act.Copy) else "rule"
    return str(step.tool)


def _snapped(degrees: Number) -> Number:
    """Treat a direction worked out in floats as the whole degree it is meant to be."""
    return Fraction(round(degrees)) if abs(float(degrees) - round(degrees)) < DIRECTION else degrees


def angle_setting(degrees: Number, kit: Kit) -> Setting:
    """Return the setting of a direction: a set square's own angle, or read on the protractor."""
    degrees = _snapped(degrees)
    tool = kit.angle_tool(degrees)
    if tool != "protractor":
        told = spell_angle(degrees)
        set_on = f"{told} on the {tool}" if tool.startswith("adjustable") else told
        return Setting(True, float(degrees), float(degrees), told, 0.0, set_on)
    read = read_on_rule(degrees, kit.protractor or Fraction(1, 2), Unit.MM)
    told = f"{spell_angle(degrees)} on the protractor"
    return Setting(
        True,
        float(degrees),
        float(degrees),
        f"{read.text}°",
        read.error,
        told,
        _rounding(read, "°"),
    )


def length_setting(actual: Number, kit: Kit, scale: Scale, unit: Unit) -> Setting:
    """Return the setting of a length: scaled, turned into the rule's unit, read to its graduation.

    Examples
    --------
    >>> from .kit import default_kit
    >>> length_setting(Fraction(70), default_kit(Unit.MM), Scale(1, 2), Unit.MM).told
    '70 at 1:2 is 35 mm'
    """
    drawn = scale.apply(actual)
    on_rule = (
        drawn * unit.mm / kit.unit.mm
        if isinstance(drawn, Fraction)
        else drawn * float(unit.mm / kit.unit.mm)
    )
    read = read_on_rule(on_rule, kit.graduation, kit.unit)
    drawn_text = f"{spell(on_rule, kit.unit)} {kit.unit}"
    told = (
        drawn_text
        if scale.ratio == 1 and unit is kit.unit
        else f"{spell(actual, unit)} at {scale} is {drawn_text}"
    )
    if abs(float(on_rule)) > kit.length:
        told += f"; in {math.ceil(abs(float(on_rule)) / float(kit.length))} lengths of the rule"
    reading = _read(read, kit.unit)
    if scale.ratio != 1 and scale.ratio in kit.faces and unit is kit.unit:
        # A face is figured in sizes of the part, with the same graduations on the paper.
        face = read_on_rule(actual, kit.graduation / scale.ratio, kit.unit)
        reading = f"{_read(face, kit.unit)} on the {scale} face"
    return Setting(
        False,
        float(actual),
        float(on_rule),
        reading,
        read.error,
        told,
        _rounding(read, f" {kit.unit}"),
    )


def _rounding(read: Reading, unit: str) -> str:
    if read.error == 0:
        return "stands on the graduation"
    size = f"{abs(read.error):.4f}".rstrip("0")
    return f"setting to the graduation is {size}{unit} {'over' if read.error > 0 else 'under'}"


def _read(read: Reading, unit: Unit) -> str:
    return f"{read.text} {unit}"
