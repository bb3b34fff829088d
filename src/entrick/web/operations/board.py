"""The order of work: what it takes, rehearsal, a step opened up, values measured back, pictures of
settings."""

from __future__ import annotations

from fractions import Fraction
from functools import lru_cache
from typing import Annotated, Literal, cast
from urllib.parse import urlencode

from pydantic import Field

from ...core.assist.methods import framed, methods
from ...core.board.kits import read_kit
from ...core.board.lacks import lacks
from ...core.board.opening import opens
from ...core.board.schedule import CALLED
from ...core.board.steps import BoardStep, counts, opened_steps
from ...core.desk import Work, work_out
from ...core.display import draw_steps
from ...core.display.instruments import instrument_picture
from ...core.display.picture import (
    angle_picture,
    compass_over_rule,
    height_of,
    template_picture,
)
from ...core.formats import write_svg
from ...core.formats.run_sheet import CAUTION
from ...core.logbook.measured import judge, read_value
from ...core.logbook.taught import Taught
from ...core.measure import Unit
from ...core.memo import MEMO, Memo
from ...core.moves import kinds
from ...core.rehearsal.rehearse import rehearse
from ...records import Schedule
from ..answer import Answer, Refused
from ..base import Asked, Crossing, KitText, Marks, PlanText, ScheduledIn, Whole
from ..operation import Operations
from .shared import as_picture, kit_of, pair


class SettingOut(Crossing):
    """A setting: `actual` in plan units, `drawn` in rule units or degrees; `kept` where it stands
    so already."""

    is_angle: bool
    actual: float
    drawn: float
    reading: str
    error: float
    told: str
    rounding: str
    kept: bool
    picture: str
    picture_high: float


class StepOut(Crossing):
    """A step at the board: `needle` in mm from the datum; `opens` where a classic construction
    stands behind it, `why` where it has been moved from its place; `is_across` where twice what is
    set is asked to be measured back."""

    number: int
    line: int
    name: str
    tool: str
    text: str
    check: str
    setting: SettingOut | None
    needle: tuple[float, float] | None
    opens: bool
    why: str
    is_across: bool


class CountedOut(Crossing):
    """What an order of work takes."""

    schedule: Schedule
    called: str
    settings: int
    changes: int
    minutes: float


class SchedulesOut(Crossing):
    """Every order in which the steps of a plan may be done; `told` says what the minutes rest
    on."""

    schedules: tuple[CountedOut, ...]
    told: str


class SpreadOut(Crossing):
    """A miss on paper, mm: one standard deviation, what half the hands and nine in ten stay
    under."""

    sigma: float
    half: float
    nine: float


class ShareOut(Crossing):
    """What one act has of a miss."""

    step: str
    share: float


class InsteadOut(Crossing):
    """Another way, with what nine in ten of the hands stay under, and how much less that is, mm."""

    told: str
    nine: float
    gain: float


class JoinOut(Crossing):
    """How two pieces of an outline meet on paper; `place` and `cloud` (places of the hands) in mm
    on paper."""

    outline: str
    first: str
    second: str
    tangent: bool
    place: tuple[float, float]
    miss: SpreadOut
    kink: float
    hidden: float
    unmet: float
    shares: tuple[ShareOut, ...]
    instead: tuple[InsteadOut, ...]
    cloud: tuple[tuple[float, float], ...]


class OverallOut(Crossing):
    """A size over all on paper, the place of a hole or the closing of steps, told in words: how far
    off it comes out, mm, and what would help."""

    outline: str
    way: str
    told: str
    size: float
    off: SpreadOut
    instead: tuple[InsteadOut, ...]


class RehearsalOut(Crossing):
    """A plan drawn by many hands; `whose` says where their errors are from."""

    hands: int
    whose: str
    joins: tuple[JoinOut, ...]
    sizes: tuple[OverallOut, ...]


class OpenedIn(Asked):
    """A step to open up, by its number."""

    text: PlanText
    step: Whole
    schedule: Schedule = "written"
    kit: KitText = ""


class OpenedOut(Crossing):
    """The classic construction behind a step, and what it draws; `step` of a mark is the number of
    its sub-step."""

    steps: tuple[StepOut, ...]
    marks: Marks


class MethodsIn(Asked):
    """A statement, by its line, whose methods are to be compared."""

    text: PlanText
    line: Whole


class MethodOut(Crossing):
    """One method: the whole statement with it, what it takes, how close it comes, and what it
    draws."""

    said: str
    row: str
    told: str
    settings: int
    instruments: tuple[str, ...]
    chosen: bool
    marks: Marks


class MethodsOut(Crossing):
    """Every method of a statement, drawn in one box: left, bottom, width, height in mm on paper."""

    methods: tuple[MethodOut, ...]
    box: tuple[float, float, float, float]


class AroundOut(Crossing):
    """How the sheet is made ready and finished, step by step; by line of the plan, the mistake
    usually made there."""

    ready: tuple[StepOut, ...]
    finish: tuple[StepOut, ...]
    mistakes: dict[int, str]
    caution: str


class MeasuredIn(ScheduledIn):
    """A value measured back after a step, as a drafter writes it; `ready` where the step makes the
    sheet ready."""

    step: Whole
    ready: bool = False
    value: Annotated[str, Field(max_length=60)]


class VerdictOut(Crossing):
    """What is to be said of a measured value; `off` in mm on paper, or degrees."""

    judged: Literal["line", "hand", "slip"]
    off: float
    told: str
    slips: tuple[str, ...]


class InstrumentQuery(Asked):
    """An item of a kit."""

    item: Annotated[str, Field(max_length=40)]


class PictureQuery(Asked):
    """An instrument at its setting: `value` in `unit`, or degrees."""

    tool: Annotated[str, Field(max_length=40)]
    value: Annotated[float, Field(ge=-1e5, le=1e5)]
    unit: Literal["mm", "in", "deg"]
    graduation: Annotated[str, Field(pattern=r"^[1-9]\d{0,2}(/[1-9]\d{0,2})?$")] = "1"


class LacksIn(Asked):
    """A plan and a kit."""

    text: PlanText
    kit: KitText


class LackOut(Crossing):
    """Something a kit lacks: how many more steps a job takes without it, and the first that are
    different."""

    told: str
    more: int
    instead: tuple[str, ...]


class LacksOut(Crossing):
    """What a kit lacks for a job."""

    lacks: tuple[LackOut, ...]


STEPS = cast(Memo[StepOut], MEMO)


def step_out(step: BoardStep, done: Work) -> StepOut:
    """Return a step as it was shown before, if it was."""
    key = (step_out, step.serial, done.sheet.factor)
    return STEPS.get(key) or STEPS.put(key, _shown(step, done), 10)


@lru_cache(maxsize=2048)
def _picture(tool: str, value: str, unit: str, graduation: str) -> str:
    return "/api/pictures/setting.svg?" + urlencode(
        {"tool": tool, "value": value, "unit": unit, "graduation": graduation}
    )


def _shown(step: BoardStep, done: Work) -> StepOut:
    setting, source, kit = step.setting, step.source, done.kit
    shown = None
    if setting is not None:
        unit = None if setting.is_angle else kit.unit
        named = unit.value if unit else "deg"
        picture = _picture(step.tool, f"{setting.drawn:.6g}", named, str(kit.graduation))
        high = height_of(step.tool, setting.drawn, unit)
        shown = SettingOut.from_core(setting, picture=picture, picture_high=high)
    return StepOut.from_core(
        step,
        setting=shown,
        needle=pair(step.needle * done.sheet.factor) if step.needle else None,
        opens=source is not None and source.act is not None and opens(source.act),
    )


board = Operations()


@board.post("/schedules")
def schedules(body: ScheduledIn, taught: Taught) -> SchedulesOut:
    """Count what every order of work takes: settings, changes of instrument, minutes.

    Minutes go by one's own pace as far as it is known.
    """
    done = work_out(body.text, kit_of(body.kit))
    found = counts(done.solution, done.sheet, done.kit, taught.pace)
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    words = (
        f"minutes by {taught.steps} steps of the logbook{rehearsed}"
        if taught.steps
        else "minutes are guesses"
    )
    return SchedulesOut(
        told=words,
        schedules=tuple(
            CountedOut.from_core(count, schedule=how, called=CALLED[how])
            for how, count in found.items()
        ),
    )


@board.post("/rehearsal")
def rehearsal(body: ScheduledIn, taught: Taught) -> RehearsalOut:
    """Draw a plan by many hands: how well its outline closes on paper. They are one's own as far as
    those are known."""
    done = work_out(body.text, kit_of(body.kit))
    sheet = done.sheet
    found = rehearse(done.solution, sheet, hand=taught.hand, kit=done.kit, schedule=body.schedule)
    joins = tuple(
        JoinOut.from_core(
            join,
            place=pair(sheet.on_paper(join.place)),
            cloud=tuple((each.real * sheet.factor, each.imag * sheet.factor) for each in cloud),
        )
        for join, cloud in zip(found.joins, found.clouds, strict=True)
    )
    return RehearsalOut.from_core(found, joins=joins, whose=_whose(taught))


def _whose(taught: Taught) -> str:
    """Tell whose errors a rehearsal makes."""
    if not taught.values:
        return "The errors of the hand are common practice, no source."
    rest = " and ".join(f"{tool} ({count} values)" for tool, count in taught.values.items())
    rehearsed = ", rehearsed ones among them" if taught.rehearsed else ""
    return (
        f"The errors of {rest} are those of the logbook{rehearsed}; the others are common "
        "practice, no source."
    )


@board.post("/opened")
def open_step(body: OpenedIn) -> OpenedOut:
    """Open a step up into the classic construction behind it; empty for a step the plan does not
    have."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    step = next((step for step in done.steps if step.number == body.step), None)
    steps = opened_steps(step, done.solution, done.kit, done.sheet) if step else ()
    return OpenedOut(
        steps=tuple(step_out(each, done) for each in steps),
        marks=tuple(draw_steps(steps, done.sheet)),
    )


@board.post("/methods")
def compare_methods(body: MethodsIn) -> MethodsOut:
    """Construct a statement by each of its methods, side by side."""
    done = work_out(body.text)
    found = methods(done, body.line)
    box = framed(done, body.line)
    return MethodsOut(
        methods=tuple(
            MethodOut.from_core(
                method,
                said=method.said or "the usual way",
                marks=tuple(draw_steps(method.steps, done.sheet)),
            )
            for method in found
        ),
        box=(box.left, box.lower, box.right - box.left, box.upper - box.lower),
    )


@board.post("/lacks")
def kit_lacks(body: LacksIn) -> LacksOut:
    """Return what a kit lacks for a job, and what that changes."""
    kit = read_kit(body.kit)
    done = work_out(body.text, kit)
    return LacksOut(lacks=tuple(map(LackOut.from_core, lacks(done.solution, done.sheet, kit))))


@board.post("/around")
def around(body: ScheduledIn) -> AroundOut:
    """Return how the sheet is made ready and finished, and the mistakes usually made in between."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    mistakes = {
        entry.line: kinds()[entry.statement.kind].mistake
        for entry in done.solution.entries
        if entry.statement.kind in kinds()
    }
    ready, finish = (
        tuple(_shown(step, done) for step in steps) for steps in (done.before, done.after)
    )
    return AroundOut(ready=ready, finish=finish, mistakes=mistakes, caution=CAUTION)


@board.post("/measured")
def measured(body: MeasuredIn) -> VerdictOut:
    """Judge a value measured back at the board, and name the slip it looks like."""
    done = work_out(body.text, kit_of(body.kit), body.schedule)
    steps = [step for step in (*done.before, *done.steps) if step.number == body.step]
    step = next((step for step in steps if (step.line == 0) == body.ready), None)
    if step is None:
        raise Refused(409, "No such step", f"the order of work has no step {body.step}")
    is_angle = step.setting is not None and step.setting.is_angle
    value = read_value(body.value, Unit.MM if is_angle else done.kit.unit)
    found = judge(value, step, done.steps, done.kit, done.sheet.scale, done.solution.unit)
    per = 1.0 if is_angle else float(done.kit.unit.mm)
    return VerdictOut.from_core(found, off=found.off * per)


@board.get("/pictures/setting.svg")
def picture(query: PictureQuery) -> Answer:
    """Return a life-size picture of an instrument at its setting."""
    if query.unit == "deg":
        return as_picture(write_svg(angle_picture(query.value, query.tool)))
    unit = Unit(query.unit)
    if query.tool == "circle template":
        return as_picture(write_svg(template_picture(query.value, unit)))
    return as_picture(
        write_svg(compass_over_rule(query.value, unit, Fraction(query.graduation), query.tool))
    )


@board.get("/pictures/instrument.svg")
def instrument(query: InstrumentQuery) -> Answer:
    """Return a picture of an item of a kit."""
    try:
        return as_picture(write_svg(instrument_picture(query.item)))
    except KeyError:
        raise Refused(404, "No such item", f"a kit has no {query.item}") from None
