"""The ordered steps of a whole plan, each with its instrument and setting at the scale of the
sheet."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator, Mapping, Sequence
from dataclasses import dataclass, replace
from fractions import Fraction
from functools import lru_cache
from itertools import chain, groupby
from typing import cast

from ..acts import act
from ..drawing.strokes import Role, Stroke, Tool
from ..geometry import Point
from ..kind.made import Measured
from ..measure import Number, Reading, Scale, Unit, read_on_rule, spell, spell_angle
from ..memo import MEMO, Distinct, Memo, number_of
from ..sheet import Sheet
from ..sheet.layout import side_told
from ..solve import Entry, Solution
from ..tolerance import DIRECTION, ROUND
from .economy import acts_at_board
from .kit import Kit
from .letters import Letters, lettered, with_letters
from .opening import opened, opens
from .order import acts_of
from .schedule import CALLED, Counted, Schedule, counted, scheduled, why
from .step import Step
from .together import in_few_words, together
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
        return self.check.endswith(act.ACROSS)


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


@dataclass(frozen=True, slots=True)
class _Told:
    """The steps of acts of a statement.

    Attributes
    ----------
    steps : tuple of BoardStep
    met : tuple of (tool, setting, bool)
        What each instrument was wanted at first, and whether it stood so: on no more of how they
        stood do the steps depend.
    left : mapping of tool to setting
        How those that were used stand afterwards.
    """

    steps: tuple[BoardStep, ...]
    met: tuple[tuple[str, act.Setting, bool], ...]
    left: Stands

    def suits(self, stands: Stands) -> bool:
        """Tell whether the same would be told where instruments stand so."""
        return all((stands.get(tool) == wanted) == stood for tool, wanted, stood in self.met)


TOLD = cast(Memo[_Told], MEMO)
"""The steps of acts of a statement, as they were told last."""


@dataclass(frozen=True, slots=True)
class _Teller:
    """Tells acts: what makes a step of each, and by what the things they name are said."""

    set_step: Callable[[Step, int, int, str], BoardStep]
    letters: Letters

    def tell(self, acts: Sequence[act.Act], entry: Entry, first: int, stands: Stands) -> _Told:
        """Tell acts one after another, those that are alike in one go: what stands as it should
        already is left as it is."""
        steps = []
        met: list[tuple[str, act.Setting, bool]] = []
        left: dict[str, act.Setting] = {}
        groups = (pair for each in together(acts) for pair in in_few_words(each, self.letters.say))
        for number, (group, told) in enumerate(groups, first):
            explained = self.letters.explained(group)
            told = replace(
                told,
                strokes=with_letters(told.strokes, group, self.letters),
                check="; ".join(filter(None, (explained, self.letters.say(told.check)))),
            )
            step = self.set_step(told, number, entry.line, entry.statement.name)
            lengths = {abs(each.size) for each in group if isinstance(each, act.Measure)}
            if len(lengths) > 1:
                step = self._in_a_row(step, group, entry)
            wanted, setting = setting_of(group[0]), step.setting
            if wanted is not None and setting is not None:
                tool, opening = wanted
                is_so = left.get(tool, stands.get(tool)) == opening
                if tool not in left:
                    met.append((tool, opening, is_so))
                if is_so and step.tool != "circle template":
                    step = replace(step, setting=replace(setting, kept=True))
                elif opening.free:
                    step = replace(step, setting=_freely(setting))
                left[tool] = opening
            steps.append(step)
        return _Told(tuple(steps), tuple(met), left)

    def _in_a_row(self, step: BoardStep, group: Sequence[act.Act], entry: Entry) -> BoardStep:
        """Tell at which graduations the places of a row stand, the rule laid once."""
        single = (self.set_step(step_of(each), 0, entry.line, "").setting for each in group)
        told = [setting.reading for setting in single if setting is not None]
        unit = told[0].rpartition(" ")[2]
        at = ", ".join(each.removesuffix(f" {unit}") for each in told)
        assert step.setting is not None
        return replace(step, check=f"the rule laid once: {at} {unit}")


def steps_by_statement(
    solution: Solution, kit: Kit, sheet: Sheet, schedule: Schedule = "written"
) -> tuple[tuple[BoardStep, ...], ...]:
    """Return the steps of each statement that has any, numbered through in the order chosen; those
    of a statement that came to the same again are the same."""
    every = acts_at_board(solution, sheet, kit)
    ordered = [own for own in every if own.entry.made is not None]
    placed = {
        index: _placing(own.entry, kit, sheet, own.acts)
        for index, own in enumerate(ordered)
        if own.entry.made is not None and own.entry.made.placing is not None
    }
    own_steps: dict[int, list[BoardStep]] = {index: [] for index in range(len(ordered))}
    acts = [own.acts[1 if index in placed else 0 :] for index, own in enumerate(ordered)]
    count = 0
    for index, placing in placed.items():
        own_steps[index] += (replace(step, number=count + step.number) for step in placing)
        count += len(placing)
    names = {own.entry.statement.name for own in ordered}
    letters = lettered([each for own in every for each in own.acts], names)
    teller = _Teller(setter(kit, sheet.scale, solution.unit, sheet.square), letters)
    read_on = number_of((kit, sheet.scale, solution.unit, sheet.square))
    stands: Stands = {}
    for index, doing, reasons in _in_order(acts, schedule):
        own = ordered[index]
        said = number_of(letters.concerning(doing))
        key = (_Teller, own.entry.serial, number_of(doing), said, read_on, count)
        known = TOLD.get(key)
        if known is None or not known.suits(stands):
            known = TOLD.put(key, teller.tell(doing, own.entry, count + 1, stands), 1 + len(doing))
        stands = {**stands, **known.left}
        own_steps[index] += _with_reasons(known.steps, reasons) if reasons else known.steps
        count += len(known.steps)
    return tuple(tuple(steps) for steps in own_steps.values() if steps)


Reasons = Mapping[act.Act, str]
"""Why acts come where they do."""


def _in_order(
    acts: Sequence[tuple[act.Act, ...]], schedule: Schedule
) -> Iterator[tuple[int, tuple[act.Act, ...], Reasons]]:
    """Yield acts in the order in which they are done, those of one statement that follow one
    another at once, each with the statement they belong to."""
    every = [(index, each) for index, own in enumerate(acts) for each in own]
    plain = [each for _, each in every]
    order = scheduled(plain, schedule)
    reasons: Reasons = {}
    if schedule != "written":
        reasons = dict(zip((plain[at] for at in order), why(plain, order), strict=True))
    for index, group in groupby(order, lambda at: every[at][0]):
        yield index, tuple(plain[at] for at in group), reasons


def _with_reasons(steps: Sequence[BoardStep], reasons: Reasons) -> Iterator[BoardStep]:
    for step in steps:
        first = step.source.act if step.source else None
        reason = reasons.get(first, "") if first else ""
        yield replace(step, why=reason) if reason else step


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
    standing_acts = [each for own in acts_at_board(solution, sheet, kit) for each in own.acts]
    letters = lettered([*standing_acts, *acts], set())
    teller = _Teller(setter(kit, sheet.scale, sheet.unit, sheet.square), letters)
    return teller.tell(acts, entry, 1, {}).steps


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
        text = f"From the {edge} measure {way} to {name}"
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
            "; ".join(filter(None, (step.check, pencil_of(step)))),
            step,
        )

    def pencil_of(step: Step) -> str:
        """Say which pencil lines in: the widest what is seen, the finest what is not."""
        if not isinstance(step.act, act.GoOver) or len(kit.pencils) < 2:
            return ""
        seen = step.act.role in (Role.OUTLINE, Role.EDGE)
        width = max(kit.pencils) if seen else min(kit.pencils)
        return f"{spell(width, Unit.MM)} mm pencil"

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
    words = f"{round(count)}" if abs(count - round(count)) < ROUND else f"{count:.2f}"
    return f"{words} square{'' if words == '1' else 's'} of the ground"


def _is_templated(step: Step) -> bool:
    """Tell whether a step draws circles or blends, and not a locus or a cut."""
    return all(
        (isinstance(each, act.GoOver) and each.told in ("circle", "arc"))
        or (isinstance(each, act.Swing) and _is_drawn(each))
        for each in step.acts
    )


def _is_drawn(swing: act.Swing) -> bool:
    rounds = [stroke.shape for stroke in swing.strokes]
    return len(rounds) == 1 and not swing.called.startswith("the swing")


def template_setting(radius: Number, kit: Kit, scale: Scale, unit: Unit) -> Setting:
    """Return which hole of the circle template to take: templates go by diameter, compasses by
    radius."""
    drawn = scale.apply(radius) * 2 * (unit.mm / kit.unit.mm)
    words = (
        f"{spell(radius, unit)} radius at {scale} is the Ø{spell(drawn, kit.unit)} {kit.unit} hole"
    )
    line_up = "its four marks on the centre lines"
    return Setting(
        False,
        float(radius),
        float(drawn),
        f"Ø{spell(drawn, kit.unit)} {kit.unit}",
        0.0,
        words,
        line_up,
    )


def _tool(step: Step, kit: Kit, setting: Setting | None) -> str:
    if _is_by_curve(step.act):
        return "French curve"
    match step.tool:
        case Tool.COMPASS if setting is not None:
            return kit.round_tool(setting.drawn)
        case Tool.ANGLE if step.setting is not None:
            return kit.angle_tool(_snapped(step.setting))
        case Tool.DIVIDERS if not kit.dividers:
            return "tracing paper" if isinstance(step.act, act.Copy) else "rule"
    return str(step.tool)


def _is_by_curve(each: act.Act | None) -> bool:
    match each:
        case act.Trace(tool="French curve") | act.GoOver(told="curve"):
            return True
    return False


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
    words = (
        drawn_text
        if scale.ratio == 1 and unit is kit.unit
        else f"{spell(actual, unit)} at {scale} is {drawn_text}"
    )
    if abs(float(on_rule)) > kit.length:
        words += f"; in {math.ceil(abs(float(on_rule)) / float(kit.length))} lengths of the rule"
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
        words,
        _rounding(read, f" {kit.unit}"),
    )


def _rounding(read: Reading, unit: str) -> str:
    if read.error == 0:
        return "stands on the graduation"
    size = f"{abs(read.error):.4f}".rstrip("0")
    return f"setting to the graduation is {size}{unit} {'over' if read.error > 0 else 'under'}"


def _read(read: Reading, unit: Unit) -> str:
    return f"{read.text} {unit}"
