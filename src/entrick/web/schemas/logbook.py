"""Sittings at the board, and what they teach."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal

from pydantic import ConfigDict, Field

from ...core.logbook.sitting import Kind
from .crossing import Asked, Crossing, Finite, Schedule

Uid = Annotated[str, Field(pattern=r"^[0-9a-f-]{8,64}$")]
"""How a device names a sitting."""


class EventIO(Asked):
    """One thing that happened at the board, numbered by the device; see `core.logbook.Event`."""

    model_config = ConfigDict(extra="forbid", from_attributes=True)

    number: Annotated[int, Field(ge=1, le=20_000)]
    kind: Kind
    step: Annotated[int, Field(ge=0, le=100_000)] = 0
    tool: Annotated[str, Field(max_length=80)] = ""
    seconds: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    off: Finite = 0.0
    text: Annotated[str, Field(max_length=500)] = ""
    of: Annotated[int, Field(ge=0, le=20_000)] = 0


class SittingPath(Asked):
    """A sitting by the name its device gave it."""

    uid: Uid


class SittingIn(Asked):
    """A sitting that begins: which revision of which job is drawn, in which order."""

    uid: Uid
    job: Annotated[int, Field(ge=1, le=2**63 - 1)]
    revision: Annotated[int, Field(ge=1, le=2**63 - 1)]
    schedule: Schedule = "written"
    kit: Annotated[str, Field(max_length=60)] = ""


class EventsIn(Asked):
    """Events of a sitting; what has been taken already may be sent again."""

    events: Annotated[list[EventIO], Field(max_length=2000)]


class AmendedIn(Asked):
    """What is put right in a sitting: an event corrected, or taken back; taking back a correction undoes it."""

    of: Annotated[int, Field(ge=1, le=20_000)]
    kind: Literal["corrected", "undone"]
    seconds: Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)] = 0.0
    off: Finite = 0.0
    text: Annotated[str, Field(max_length=500)] = ""


class RemovedIn(Asked):
    """Whether a sitting is out of the logbook."""

    removed: bool


class SittingOut(Crossing):
    """A sitting with what happened; `rehearsed` where a simulated hand made it up, and nobody drew.

    `standing` are the events as they were corrected last; `gap` is how far the last join gaped, mm on paper.
    """

    model_config = ConfigDict(from_attributes=True)

    uid: str
    job: int
    title: str = ""
    revision: int
    schedule: str
    kit: str
    started_at: datetime
    rehearsed: bool
    removed: bool
    events: tuple[EventIO, ...]
    standing: tuple[EventIO, ...] = ()
    steps: int = 0
    minutes: float = 0.0
    slips: int = 0
    gap: float | None = None


class PaceOut(Crossing):
    """Median seconds of a step with an instrument, and on how many it rests."""

    tool: str
    seconds: float
    count: int


class HandOut(Crossing):
    """How an instrument comes out in these hands; see `core.logbook.Spread`."""

    model_config = ConfigDict(from_attributes=True)

    tool: str
    count: int
    bias: float
    bias_off: float
    spread: float
    low: float
    high: float
    hint: str


class SlipOut(Crossing):
    """A slip, and how often it was made."""

    told: str
    count: int


class LogbookOut(Crossing):
    """Every sitting, the last first, and what they teach."""

    sittings: tuple[SittingOut, ...]
    pace: tuple[PaceOut, ...]
    spreads: tuple[HandOut, ...]
    slips: tuple[SlipOut, ...]


class SittingsQuery(Asked):
    """Sittings of one job, or of all."""

    job: Annotated[int, Field(ge=1, le=2**63 - 1)] | None = None
