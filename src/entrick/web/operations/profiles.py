"""Bare profiles read back into plans."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.formats import outline_paths
from ...core.measure import Unit
from ...core.readback import (
    WAYS,
    ProfileError,
    ReadBack,
    as_drawn,
    box_of,
    others,
    read_back,
    read_profile,
)
from ...demo import sample_profile
from ..answer import Refused
from ..base import Asked, Crossing
from ..operation import Operations


class ProfileIn(Asked):
    """A file that may be a bare profile, by its name and what is in it; the unit of the plan, or
    what the file says."""

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
    """A plan that comes to a profile: how far its outlines are from it, by how many numbers, what
    was seen in it, what was mended, left out or assumed, and the rows that are marked so."""

    way: str
    called: str
    text: str
    numbers: int
    comes: str
    seen: tuple[str, ...]
    told: tuple[str, ...]
    assumed: tuple[str, ...]


class ReadBackOut(Crossing):
    """A profile read back: its outlines as paths and the box round them (upwards counts down), its
    layers, the tolerance it was read with, and its plans, what was chosen first."""

    outlines: int
    unit: str
    within: float
    paths: tuple[str, ...]
    box: tuple[float, float, float, float]
    layers: tuple[str, ...]
    plans: tuple[SaidOut, ...]


profiles = Operations()


@profiles.post("/read-back")
def read_back_profile(body: ProfileIn) -> ReadBackOut:
    """Read a bare profile (DXF, SVG, CSV of points) back into a plan, and into the others it may as
    well be."""
    title = body.name.rpartition(".")[0][:80].replace('"', "") or "Read back"
    try:
        profile = read_profile(body.text.encode(), body.name, body.within, body.layers)
        best = read_back(profile, Unit(body.units) if body.units else None, body.within, title)
    except ProfileError as error:
        raise Refused(409, "Not read back", str(error)) from error
    more = others(profile, best, body.within, title)
    plans = [_plan("", "by its conditions", best)]
    plans += [_plan(way, WAYS[way][0], found) for way, found in more.items()]
    low, high = box_of(profile.runs)
    return ReadBackOut(
        outlines=len(profile.runs),
        unit=best.unit.value,
        within=profile.within,
        paths=tuple(outline_paths([as_drawn(run, profile.within) for run in profile.runs])),
        box=(low.x, -high.y, high.x, -low.y),
        layers=profile.layers,
        plans=tuple(plans),
    )


def _plan(way: str, called: str, found: ReadBack) -> SaidOut:
    return SaidOut.from_core(found, way=way, called=called)


@profiles.get("/read-back/sample")
def profile_to_try() -> SampleProfileOut:
    """Return a bare profile of the yard, to be read back."""
    name, text = sample_profile()
    return SampleProfileOut(name=name, text=text)
