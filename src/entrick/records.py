"""What the register keeps, as it is taken in by any door and read back again: one model of each."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Literal, TypeVar

from pydantic import AfterValidator, BaseModel, ConfigDict, Field, ValidationError

from .core.board.kits import tidy_kit
from .core.logbook.sitting import Kind
from .core.plan.errors import ClauseError

LARGEST_ID = 2**53 - 1
"""No number of a job or revision is larger: a browser counts no further."""

LARGEST_TAKEN = 10**9
"""Of what is taken in from elsewhere: there is room for what follows."""

UID = r"^[0-9a-f-]{8,64}$"
MOST_EVENTS = 20_000
"""Events of one sitting."""

LARGEST_STEP = 100_000

Schedule = Literal["written", "settings", "clean"]
"""In which order the steps of a plan are done."""

Uid = Annotated[str, Field(pattern=UID)]
"""How a device names a sitting, or an answer."""

KitName = Annotated[str, Field(pattern=r"^\w[\w .+-]{0,59}$")]
UsedKit = Annotated[str, Field(max_length=60)]
"""The kit something is drawn with, by name; empty for the usual one."""

Finite = Annotated[float, Field(allow_inf_nan=False, ge=-1e6, le=1e6)]
Seconds = Annotated[float, Field(ge=0, le=1e6, allow_inf_nan=False)]
Share = Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
EventNumber = Annotated[int, Field(ge=1, le=MOST_EVENTS)]
EventText = Annotated[str, Field(max_length=500)]
JobNumber = Annotated[int, Field(ge=1, le=LARGEST_TAKEN)]
"""Of a job or revision that is taken in."""

AskedNumber = Annotated[int, Field(ge=0, le=LARGEST_ID)]
"""Of a job or revision that is asked for."""

Note = Annotated[str, Field(max_length=200)]


def _kit(text: str) -> str:
    try:
        return tidy_kit(text)
    except ClauseError as error:
        raise ValueError(error.message) from error


class Record(BaseModel):
    """What is kept. How it is read is worked out when the first one is; a field nobody knows is a
    mistake."""

    model_config = ConfigDict(extra="forbid", defer_build=True, from_attributes=True)


R = TypeVar("R", bound=Record)


def readable(model: type[R], row: object) -> R | None:
    """Return a row as what it was taken in as; None where it cannot be that: it harms only
    itself."""
    try:
        return model.model_validate(row)
    except ValidationError:
        return None


class EventRecord(Record):
    """One thing that happened at the board, numbered by the device; see `core.logbook.Event`."""

    number: EventNumber
    kind: Kind
    step: Annotated[int, Field(ge=0, le=LARGEST_STEP)] = 0
    tool: Annotated[str, Field(max_length=80)] = ""
    seconds: Seconds = 0.0
    off: Finite = 0.0
    text: EventText = ""
    of: Annotated[int, Field(ge=0, le=MOST_EVENTS)] = 0


class SittingRecord(Record):
    """A sitting without its events."""

    uid: Uid
    revision: JobNumber
    schedule: Schedule = "written"
    kit: UsedKit = ""
    started_at: datetime
    rehearsed: bool = False


class OrderRecord(Record):
    """In which order, and with which kit, a job is drawn."""

    schedule: Schedule = "written"
    kit: UsedKit = ""


class KitRecord(Record):
    """A kit by name, as the text of its file."""

    name: KitName
    text: Annotated[str, AfterValidator(_kit)]
    usual: bool = False


class AnswerRecord(Record):
    """An answer given in practice."""

    uid: Uid
    at: datetime
    part: Annotated[str, Field(max_length=200)]
    rule: Annotated[str, Field(max_length=40)]
    share: Share
    slips: tuple[Annotated[str, Field(max_length=200)], ...] = ()
    chances: tuple[Annotated[str, Field(max_length=200)], ...] = ()
    hints: Annotated[int, Field(ge=0, le=20)] = 0
    rehearsed: bool = False
