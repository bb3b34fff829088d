"""The simulated cutter: a program written, cut, and the part held against the plan."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.cutting.program import CAUTION
from ...core.desk import work_out
from ...core.plan.errors import ClauseError
from ...devices.cutter import Cutter, run
from ..answer import Refused
from ..base import Asked, Crossing, PlanText
from ..operation import Operations

Size = Annotated[float, Field(gt=0, le=1e5, allow_inf_nan=False)]


class CutIn(Asked):
    """A plan to be cut on the simulated cutter.

    Width of the cut and feed are in the plan's unit; units and scale have to be confirmed; a fault
    happens at a block."""

    text: PlanText
    tool: Size
    feed: Size
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
    caution: str


cutting = Operations()


@cutting.post("/cut")
def cut(body: CutIn) -> CutOut:
    """Write the program of a cutter, cut it on a simulated one, and hold the part against the
    plan."""
    # The judge's library is loaded where it is wanted: it is a part of a cold start.
    from ...devices.judge import judged, outlines_of
    from ...devices.written import written

    done = work_out(body.text)
    unit = done.solution.unit
    try:
        found = written(done, body.tool, body.feed)
    except ClauseError as error:
        raise Refused(409, "Not to be cut as it is", error.message) from error
    if not body.confirmed:
        message = f"confirm first that {unit.value} and full size are what the machine is set to"
        raise Refused(409, "Units and scale are not confirmed", message)
    mm = float(unit.mm)
    program, verdict = found.program, found.verdict
    machine = run(program, Cutter(body.fault, body.at))
    if body.fault:
        verdict = judged(machine.moves, done.outlines, mm, body.tool * mm)
    edges = outlines_of(done.outlines, mm)
    xs, ys = zip(*(spot for edge in edges for spot in edge), strict=True)
    return CutOut.from_core(
        verdict,
        program=program,
        moves=tuple(map(CutMoveOut.from_core, machine.moves)),
        edges=tuple(map(tuple, edges)),
        tool=body.tool * mm,
        bounds=(min(xs), min(ys), max(xs), max(ys)),
        happened=tuple(machine.told),
        left=min(verdict.left, 1e6),
        caution=CAUTION,
    )
