"""The simulated cutter: a program written, cut, and the part held against the plan."""

from __future__ import annotations

from dataclasses import replace
from typing import Annotated, Literal

from pydantic import Field

from ...core.cutting import machines, read_machine
from ...core.cutting.machine import LONGEST, SAID, WORDS, in_unit, profile_of
from ...core.cutting.program import CAUTION
from ...core.desk import work_out
from ...core.measure import Unit
from ...core.plan.errors import ClauseError
from ...devices.cutter import Cutter
from ..answer import Refused
from ..base import Asked, Crossing, PlanText
from ..operation import Operations

Size = Annotated[float, Field(gt=0, le=1e5, allow_inf_nan=False)]


class CutIn(Asked):
    """A plan to be cut on the simulated cutter.

    Width of the cut and feed are in the plan's unit; `machine` is a profile as JSON, a plain cutter
    where it is empty; units and scale have to be confirmed; a fault happens at a block."""

    text: PlanText
    tool: Size
    feed: Size
    machine: Annotated[str, Field(max_length=LONGEST)] = ""
    confirmed: bool = False
    fault: Literal["", "lost step", "late answer", "cut connection"] = ""
    at: Annotated[int, Field(ge=0, le=200_000)] = 0


class CutMoveOut(Crossing):
    """A movement of the tool, mm: straight, or round a centre by a turn in radians."""

    block: int
    start: tuple[float, float]
    end: tuple[float, float]
    centre: tuple[float, float] | None
    turn: float
    cutting: bool
    minutes: float
    heights: tuple[float, float]
    rapid: bool


class CutOut(Crossing):
    """What the cutter did, and how the part came out, mm.

    `program` is what it was sent; `edges` are the outlines of the plan; `bounds` is left, lower,
    right, upper."""

    program: str
    moves: tuple[CutMoveOut, ...]
    edges: tuple[tuple[tuple[float, float], ...], ...]
    bounds: tuple[float, float, float, float]
    tool: float
    happened: tuple[str, ...]
    fits: bool
    told: tuple[str, ...]
    remarks: tuple[str, ...]
    gouged: float
    left: float
    rounded: float
    corners: int
    minutes: float
    length: float
    extents: tuple[float, float, float, float]
    caution: str


class MachineEntryOut(Crossing):
    """One entry of a machine's profile: what it is called, what it is in, and what words it may
    be."""

    key: str
    label: str
    unit: str
    words: tuple[str, ...]


class MachineOut(Crossing):
    """A machine that ships with the application, its profile as JSON, and its feed in each unit."""

    key: str
    name: str
    profile: str
    feeds: dict[str, float]


class MachinesOut(Crossing):
    """The machines there are, and what can be set on one."""

    machines: tuple[MachineOut, ...]
    entries: tuple[MachineEntryOut, ...]


cutting = Operations()


@cutting.get("/cut/machines")
def cutters() -> MachinesOut:
    """Return the machines that ship with the application, and what can be set on one."""
    return MachinesOut(
        machines=tuple(
            MachineOut(
                key=key,
                name=machine.name,
                profile=profile_of(key),
                feeds={each.value: float(f"{in_unit(machine, each).feed:.3g}") for each in Unit},
            )
            for key, machine in machines().items()
        ),
        entries=tuple(
            MachineEntryOut(key=key, label=label, unit=unit, words=WORDS.get(key, ()))
            for key, (label, unit) in SAID.items()
        ),
    )


@cutting.post("/cut")
def cut(body: CutIn) -> CutOut:
    """Write the program of a cutter, cut it on a simulated one, and hold the part against the
    plan."""
    # The judge's library is loaded where it is wanted: it is a part of a cold start.
    from ...devices.judge import outlines_of
    from ...devices.written import written

    done = work_out(body.text)
    unit = done.solution.unit
    mm = float(unit.mm)
    try:
        machine = read_machine(body.machine) if body.machine else machines()["plain"]
        machine = replace(machine, feed=body.feed * mm)
        found = written(done, body.tool, machine, Cutter(body.fault, body.at))
    except ClauseError as error:
        raise Refused(409, "Not to be cut as it is", error.message) from error
    if not body.confirmed:
        message = f"confirm first that {unit.value} and full size are what the machine is set to"
        raise Refused(409, "Units and scale are not confirmed", message)
    edges = outlines_of(done.outlines, mm)
    xs, ys = zip(*(spot for edge in edges for spot in edge), strict=True)
    return CutOut.from_core(
        found.verdict,
        program=found.program,
        moves=tuple(map(CutMoveOut.from_core, found.moves)),
        edges=tuple(map(tuple, edges)),
        tool=body.tool * mm,
        bounds=(min(xs), min(ys), max(xs), max(ys)),
        happened=found.told,
        extents=tuple(value for spot in found.extents for value in spot),
        left=min(found.verdict.left, 1e6),
        caution=CAUTION,
    )
