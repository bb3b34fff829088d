"""From the core's results to what crosses the API: the order of work."""

from __future__ import annotations

from functools import lru_cache
from urllib.parse import urlencode

from ...core.assist.methods import framed, methods
from ...core.board.opening import opens
from ...core.board.schedule import CALLED
from ...core.board.steps import BoardStep, counts, opened_steps
from ...core.desk import Work
from ...core.display import draw_steps
from ...core.formats.run_sheet import CAUTION
from ...core.kept import KEPT_PIECES, Kept
from ...core.logbook.taught import Taught
from ...core.moves import kinds
from ...core.rehearsal.rehearse import rehearse
from ..schemas.board import (
    AroundOut,
    CountedOut,
    InsteadOut,
    JoinOut,
    MethodOut,
    MethodsOut,
    OpenedOut,
    OverallOut,
    RehearsalOut,
    SchedulesOut,
    SettingOut,
    ShareOut,
    SpreadOut,
    StepOut,
)
from .places import pair


def schedules(done: Work, taught: Taught) -> SchedulesOut:
    """Present what every order of work takes, minutes as far as they are known in one's own pace."""
    found = counts(done.solution, done.sheet, done.kit, taught.pace)
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    told = f"minutes by {taught.steps} steps of the logbook{rehearsed}" if taught.steps else "minutes are guesses"
    return SchedulesOut(
        told=told,
        schedules=tuple(
            CountedOut(schedule=how, called=CALLED[how], settings=c.settings, changes=c.changes, minutes=c.minutes)
            for how, c in found.items()
        ),
    )


def _whose(taught: Taught) -> str:
    """Tell whose errors a rehearsal makes."""
    if not taught.values:
        return "The errors of the hand are common practice, no source."
    rest = " and ".join(f"{tool} ({count} values)" for tool, count in taught.values.items())
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    return f"The errors of {rest} are those of the logbook{rehearsed}; the others are common practice, no source."


def rehearsal(done: Work, taught: Taught) -> RehearsalOut:
    """Present a rehearsal by one's own hand as far as it is known, places in mm on paper."""
    found, sheet = rehearse(done.solution, done.sheet, hand=taught.hand, kit=done.kit), done.sheet
    joins = []
    for join, cloud in zip(found.joins, found.clouds, strict=True):
        spot = sheet.on_paper(join.place)
        joins.append(
            JoinOut(
                outline=join.outline, first=join.first, second=join.second, tangent=join.tangent,
                place=(spot.x, spot.y), miss=SpreadOut.model_validate(join.miss), kink=join.kink, hidden=join.hidden,
                unmet=join.unmet, shares=tuple(map(ShareOut.model_validate, join.shares)),
                instead=tuple(map(InsteadOut.model_validate, join.instead)),
                cloud=tuple((each.real * sheet.factor, each.imag * sheet.factor) for each in cloud),
            )
        )  # fmt: skip
    sizes = tuple(map(OverallOut.model_validate, found.sizes))
    return RehearsalOut(hands=found.hands, joins=tuple(joins), sizes=sizes, whose=_whose(taught))


def opened(done: Work, number: int) -> OpenedOut:
    """Present the classic construction behind a step; empty for a step the plan does not have."""
    step = next((step for step in done.steps if step.number == number), None)
    steps = opened_steps(step, done.solution, done.kit, done.sheet) if step else ()
    return OpenedOut(steps=tuple(step_out(each, done) for each in steps), marks=tuple(draw_steps(steps, done.sheet)))


def compared(done: Work, line: int) -> MethodsOut:
    """Present the methods of a statement side by side."""
    found = methods(done, line)
    drawn = [draw_steps(method.steps, done.sheet) for method in found]
    box = framed(done, line)
    return MethodsOut(
        methods=tuple(
            MethodOut(
                said=method.said or "the usual way", row=method.row, told=method.told, settings=method.settings,
                instruments=method.instruments, chosen=method.chosen, marks=tuple(marks),
            )
            for method, marks in zip(found, drawn, strict=True)
        ),
        box=(box.left, box.lower, box.right - box.left, box.upper - box.lower),
    )  # fmt: skip


_STEPS: Kept[StepOut] = Kept(KEPT_PIECES)


def step_out(step: BoardStep, done: Work) -> StepOut:
    key = (id(step), done.sheet.factor)
    return _STEPS.recall(key) or _STEPS.keep(key, _shown(step, done), step, 10)


@lru_cache(maxsize=2048)
def _picture(tool: str, value: str, unit: str, graduation: str) -> str:
    return "/api/pictures/setting.svg?" + urlencode(
        {"tool": tool, "value": value, "unit": unit, "graduation": graduation}
    )


def _shown(step: BoardStep, done: Work) -> StepOut:
    setting, kit = None, done.kit
    if step.setting is not None:
        s = step.setting
        unit = "deg" if s.is_angle else kit.unit.value
        setting = SettingOut(
            is_angle=s.is_angle,
            actual=s.actual,
            drawn=s.drawn,
            reading=s.reading,
            error=s.error,
            told=s.told,
            rounding=s.rounding,
            kept=s.kept,
            picture=_picture(step.tool, f"{s.drawn:.6g}", unit, str(kit.graduation)),
        )
    return StepOut(
        number=step.number,
        line=step.line,
        name=step.name,
        tool=step.tool,
        text=step.text,
        check=step.check,
        setting=setting,
        needle=pair(step.needle * done.sheet.factor) if step.needle else None,
        opens=step.source is not None and step.source.act is not None and opens(step.source.act),
        why=step.why,
    )


def around(done: Work) -> AroundOut:
    """Present what is done before the first statement and after the last."""
    mistakes = {e.line: kinds()[e.statement.kind].mistake for e in done.solution.entries if e.statement.kind in kinds()}
    ready, finish = (tuple(_shown(step, done) for step in steps) for steps in (done.before, done.after))
    return AroundOut(ready=ready, finish=finish, mistakes=mistakes, caution=CAUTION)
