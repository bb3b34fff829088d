"""Files out and in: export, the cutter, profiles read back."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .crossing import Asked, Crossing, KitText, PlanText, Schedule


class ExportPath(Asked):
    """A file format."""

    format: Literal["pdf", "svg", "dxf", "cutter", "csv", "run-sheet", "entrick"]


class ExportIn(Asked):
    """A plan to export.

    `construction` says whether the light work stays on the sheet; `insist` that an outline goes to the cutter although
    the proof found it open or doubled. `ovals` says as what DXF gets true ellipses, `within` how closely, plan units.
    """

    text: PlanText
    schedule: Schedule = "written"
    kit: KitText = ""
    construction: bool = True
    insist: bool = False
    ovals: Literal["ellipse", "arcs", "polyline"] = "ellipse"
    within: float = Field(default=0.01, gt=0, le=10)
    paper: Literal["A4", "letter"] = "A4"


Size = Annotated[float, Field(gt=0, le=1e5, allow_inf_nan=False)]


class CutIn(Asked):
    """A plan to be cut on the simulated cutter.

    Width of the cut and feed are in the plan's unit; units and scale have to be confirmed; a fault happens at a block.
    """

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

    `program` is what it was sent; `edges` are the outlines of the plan; `bounds` is left, lower, right, upper.
    """

    program: str
    moves: tuple[CutMoveOut, ...]
    edges: tuple[tuple[tuple[float, float], ...], ...]
    bounds: tuple[float, float, float, float]
    tool: float
    happened: tuple[str, ...]
    fits: bool
    told: tuple[str, ...]
    gouged: float
    left: float
    corners: int
    minutes: float
    length: float
    caution: str


class ProfileIn(Asked):
    """A file that may be a bare profile, by its name and what is in it; the unit of the plan, or what the file says."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=4_000_000)]
    units: Literal["", "mm", "in"] = ""
    within: Annotated[float, Field(gt=0, le=1, allow_inf_nan=False)] | None = None
    layers: Annotated[tuple[Annotated[str, Field(max_length=255)], ...], Field(max_length=100)] = ()


class SampleProfileOut(Crossing):
    """A bare profile to try: the name of its file, and what is in it."""

    name: str
    text: str


class SaidOut(Crossing):
    """A plan that comes to a profile: how far its outlines are from it, by how many numbers, what was seen in it, what
    was mended, left out or assumed, and the rows that are marked so."""

    way: str
    called: str
    text: str
    numbers: int
    comes: str
    seen: tuple[str, ...]
    told: tuple[str, ...]
    assumed: tuple[str, ...]


class ReadBackOut(Crossing):
    """A profile read back: its outlines as paths and the box round them (upwards counts down), its layers, the
    tolerance it was read with, and its plans, what was chosen first."""

    outlines: int
    unit: str
    within: float
    paths: tuple[str, ...]
    box: tuple[float, float, float, float]
    layers: tuple[str, ...]
    plans: tuple[SaidOut, ...]
