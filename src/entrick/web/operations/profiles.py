"""Bare profiles read back into plans."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from ...core.formats import outline_paths
from ...core.measure import Unit
from ...core.readback import (
    WAYS,
    Profile,
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
    keep_centre_lines: bool = False


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
    """A profile read back: its outlines as paths and the box round them (upwards counts down), the
    loose ends of what does not close, its layers, how many lines look like centre lines, the
    tolerance it was read with, and its plans, what was chosen first. Where there is none, why, and
    how far off it may be let for one; nought where that is no remedy."""

    outlines: int
    unit: str
    within: float
    paths: tuple[str, ...]
    box: tuple[float, float, float, float]
    layers: tuple[str, ...]
    centre_lines: int
    ends: tuple[tuple[float, float], ...]
    why: str
    wider: float
    plans: tuple[SaidOut, ...]


profiles = Operations()


@profiles.post("/read-back")
def read_back_profile(body: ProfileIn) -> ReadBackOut:
    """Read a bare profile (DXF, SVG, CSV of points) back into a plan, and into the others it may as
    well be."""
    title = body.name.rpartition(".")[0][:80].replace('"', "") or "Read back"
    profile: Profile | None = None
    try:
        profile = read_profile(
            body.text.encode(), body.name, body.within, body.layers, body.keep_centre_lines
        )
        best = read_back(profile, Unit(body.units) if body.units else None, body.within, title)
    except ProfileError as error:
        if not error.runs:
            raise Refused(409, "Not read back", str(error)) from error
        # What came is seen all the same, and what could be done.
        seen = profile or Profile(error.runs, None)
        return _came(seen, "", (), str(error), error.wider)
    more = others(profile, best, body.within, title)
    plans = [_plan("", "by its conditions", best)]
    plans += [_plan(way, WAYS[way][0], found) for way, found in more.items()]
    return _came(profile, best.unit.value, tuple(plans))


def _came(
    profile: Profile, unit: str, plans: tuple[SaidOut, ...], why: str = "", wider: float = 0.0
) -> ReadBackOut:
    low, high = box_of(profile.runs)
    loops = [as_drawn(run, profile.within) for run in profile.runs]
    loose = [loop for loop in loops if not loop.closed]
    ends = [end for loop in loose for end in (loop.pieces[0].entry, loop.pieces[-1].exit)]
    return ReadBackOut(
        outlines=len(profile.runs),
        unit=unit,
        within=profile.within,
        paths=tuple(outline_paths(loops)),
        box=(low.x, -high.y, high.x, -low.y),
        layers=profile.layers,
        centre_lines=profile.centre_lines,
        ends=tuple((end.x, -end.y) for end in ends),
        why=why,
        wider=min(wider, 1.0),
        plans=plans,
    )


def _plan(way: str, called: str, found: ReadBack) -> SaidOut:
    return SaidOut.from_core(found, way=way, called=called)


@profiles.get("/read-back/sample")
def profile_to_try() -> SampleProfileOut:
    """Return a bare profile of the yard, to be read back."""
    name, text = sample_profile()
    return SampleProfileOut(name=name, text=text)
