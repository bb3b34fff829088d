"""What was made held against what was meant: a profile against a plan, or one revision against
another."""

from __future__ import annotations

import math
from typing import Annotated, Literal

from pydantic import Field

from ...core.compare import Laid, compared, laid_over
from ...core.desk import work_out
from ...core.formats import outline_paths
from ...core.geometry import Loop
from ...core.measure import Unit
from ...core.readback import ProfileError, closed_outlines, read_profile
from ..answer import Refused
from ..base import Asked, Crossing, PlanText
from ..operation import Operations


class MadeIn(Asked):
    """A file of what was made: a profile, by its name and what is in it."""

    name: Annotated[str, Field(max_length=200)]
    text: Annotated[str, Field(max_length=4_000_000)]


class CompareIn(Asked):
    """A plan, and what is held against it: a profile, or another plan; laid over it as well as it
    goes, or as it lies; and how far it may be off, plan units."""

    text: PlanText
    made: MadeIn | None = None
    other: PlanText | None = None
    lay: Literal["over", "as it lies"] = "over"
    within: Annotated[float, Field(gt=0, le=1e4, allow_inf_nan=False)] = 0.1


class ApartOut(Crossing):
    """An outline: how far it is off at most, where, and all along: how far along, and how far off
    (more than nought for too much material)."""

    name: str
    greatest: float
    mean: float
    at: tuple[float, float]
    within: bool
    spots: tuple[tuple[float, float, float, float], ...]


class ComparedOut(Crossing):
    """What was made against what was meant, plan units: paths to draw (upwards counts down)."""

    unit: str
    fits: bool
    told: tuple[str, ...]
    moved: str
    meant: tuple[str, ...]
    made: tuple[str, ...]
    box: tuple[float, float, float, float]
    outlines: tuple[ApartOut, ...]


MOST_PIECES = 4000
"""Pieces of what was made that are held against a plan."""

compare = Operations()


@compare.post("/compare")
def compare_outlines(body: CompareIn) -> ComparedOut:
    """Hold what was made against what was meant."""
    work = work_out(body.text)
    unit = work.solution.unit
    meant = [(name, loop) for name, loop in work.named_outlines if loop.closed]
    if not meant:
        raise Refused(409, "Nothing to compare", "the plan lines in no closed outline")
    made, told = _made(body, unit)
    if sum(len(loop.pieces) for loop in made) > MOST_PIECES:
        raise Refused(409, "Not compared", f"what was made has more than {MOST_PIECES} pieces")
    if not made:
        raise Refused(409, "Nothing to compare", "what was made has no closed outline")
    laid = laid_over(made, [loop for _, loop in meant]) if body.lay == "over" else Laid()
    there = [laid.moved(loop) for loop in made]
    found = compared(meant, there)
    boxes = [loop.box for loop in (*(loop for _, loop in meant), *there)]
    wrong = found.told(body.within, ".3f" if unit is Unit.MM else ".4f")
    return ComparedOut(
        unit=unit.value,
        fits=not wrong,
        told=(*wrong, *told),
        moved=_moved(laid, unit) if body.lay == "over" else "",
        meant=tuple(outline_paths([loop for _, loop in meant])),
        made=tuple(outline_paths(there)),
        box=(
            min(low.x for low, _ in boxes),
            -max(high.y for _, high in boxes),
            max(high.x for _, high in boxes),
            -min(low.y for low, _ in boxes),
        ),
        outlines=tuple(
            ApartOut(
                name=each.name,
                greatest=each.greatest,
                mean=each.mean,
                at=tuple(each.where),
                within=each.greatest <= body.within,
                spots=tuple((*spot.at, spot.along, spot.off) for spot in each.spots),
            )
            for each in found.outlines
        ),
    )


def _made(body: CompareIn, unit: Unit) -> tuple[list[Loop], list[str]]:
    """Return closed outlines of what was made, in the plan's unit, and what is to be told of
    them."""
    if body.made is None:
        other = work_out(body.other or "")
        by = float(other.solution.unit.mm / unit.mm)
        if by != 1:
            message = f"the revisions are in {unit.value} and {other.solution.unit.value}"
            raise Refused(409, "Not compared", message)
        return [loop for loop in other.outlines if loop.closed], []
    try:
        profile = read_profile(body.made.text.encode(), body.made.name)
    except ProfileError as error:
        raise Refused(409, "Not read", str(error)) from error
    return closed_outlines(profile, unit)


def _moved(laid: Laid, unit: Unit) -> str:
    """Return how something was laid over the plan, in words."""
    turn = math.degrees(math.remainder(laid.turn, math.tau))
    places = 2 if unit is Unit.MM else 3
    by = f"{laid.by.x:.{places}f}, {laid.by.y:.{places}f} {unit.value}"
    return f"laid over the plan: moved by {by}, turned by {turn:.2f}°"
