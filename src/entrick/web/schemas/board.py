"""The order of work: steps and settings, what they take, rehearsal, a step opened up, values measured back."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from .crossing import Asked, Crossing, KitText, Marks, PlanText, Schedule, ScheduledIn, Whole


class SettingOut(Crossing):
    """A setting: `actual` in plan units, `drawn` in rule units or degrees; `kept` where it stands so already."""

    model_config = ConfigDict(from_attributes=True)

    is_angle: bool
    actual: float
    drawn: float
    reading: str
    error: float
    told: str
    rounding: str
    kept: bool
    picture: str


class StepOut(Crossing):
    """A step at the board: `needle` in mm from the datum; `opens` where a classic construction stands behind it, `why`
    where it has been moved from its place."""

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


class CountedOut(Crossing):
    """What an order of work takes."""

    model_config = ConfigDict(from_attributes=True)

    schedule: Schedule
    called: str
    settings: int
    changes: int
    minutes: float


class SchedulesOut(Crossing):
    """Every order in which the steps of a plan may be done; `told` says what the minutes rest on."""

    schedules: tuple[CountedOut, ...]
    told: str


class SpreadOut(Crossing):
    """A miss on paper, mm: one standard deviation, what half the hands and nine in ten stay under."""

    model_config = ConfigDict(from_attributes=True)

    sigma: float
    half: float
    nine: float


class ShareOut(Crossing):
    """What one act has of a miss."""

    model_config = ConfigDict(from_attributes=True)

    step: str
    share: float


class InsteadOut(Crossing):
    """Another way, with what nine in ten of the hands stay under, and how much less that is, mm."""

    model_config = ConfigDict(from_attributes=True)

    told: str
    nine: float
    gain: float


class JoinOut(Crossing):
    """How two pieces of an outline meet on paper; `place` and `cloud` (places of the hands) in mm on paper."""

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
    """A size over all on paper, how far off it comes out, mm, and what would help."""

    model_config = ConfigDict(from_attributes=True)

    outline: str
    way: str
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
    """The classic construction behind a step, and what it draws; `step` of a mark is the number of its sub-step."""

    steps: tuple[StepOut, ...]
    marks: Marks


class MethodsIn(Asked):
    """A statement, by its line, whose methods are to be compared."""

    text: PlanText
    line: Whole


class MethodOut(Crossing):
    """One method: the whole statement with it, what it takes, how close it comes, and what it draws."""

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


class ScheduleIn(Asked):
    """In which order the steps of a job are done from now on."""

    schedule: Schedule


class AroundOut(Crossing):
    """How the sheet is made ready and finished, step by step; by line of the plan, the mistake usually made there."""

    ready: tuple[StepOut, ...]
    finish: tuple[StepOut, ...]
    mistakes: dict[int, str]
    caution: str


class MeasuredIn(ScheduledIn):
    """A value measured back after a step, as a drafter writes it; `ready` where the step makes the sheet ready."""

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
