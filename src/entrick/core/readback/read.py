"""A file becomes a profile: by its ending, cleaned, with the arcs that hide in it."""

from __future__ import annotations

import math
from collections.abc import Iterable

from ..geometry.ellipse import Ellipse
from ..measure import Unit
from ..proof.itself import crosses_itself
from ..tolerance import READ_CLOSELY, READ_WITHIN
from .adjust import whole_arcs
from .besides import without_besides
from .cams import as_cam
from .clean import clean
from .digits import OF_LAST
from .helices import as_helix
from .hidden_arcs import as_ellipse, scatter, with_arcs, without_slivers
from .of_csv import of_csv
from .of_dxf import of_dxf
from .of_svg import of_svg
from .outliers import told_of, without_outliers
from .profile import LARGEST_FILE, Curve, Profile, ProfileError, Run, is_closed, loop_of, tolerance
from .ready.gear import written as as_given
from .rows import Rows
from .teeth import as_gear

ENDINGS = ("dxf", "svg", "csv")
"""How the names of files end that a profile is read from."""


def read_profile(
    data: bytes,
    name: str,
    asked: float | None = None,
    layers: Iterable[str] = (),
    keep_centre_lines: bool = False,
) -> Profile:
    """Read a profile.

    Parameters
    ----------
    data : bytes
        Of a DXF, an SVG, or a CSV with x and y in its first two columns.
    name : str
        Of the file: its ending says what it is.
    asked : float, optional
        Ends that lie closer are one place, in the file's unit; a thousandth of a millimetre if it
        is not said.
    layers : iterable of str, optional
        Of a DXF, those to read.
    keep_centre_lines : bool
        A straight line through a centre and out on both sides is part of the outline.

    Raises
    ------
    ProfileError
    """
    if len(data) > LARGEST_FILE:
        raise ProfileError("this file is larger than a profile may be")
    notes: list[str] = []
    unit: Unit | None = None
    named: tuple[str, ...] = ()
    curves: list[Curve]
    match name.lower().rpartition(".")[2]:
        case "csv":
            points = of_csv(data)
            curves, unit, notes, last = points.curves, points.unit, points.notes, points.last
        case "dxf":
            dxf = of_dxf(data, asked, layers)
            curves, unit, notes, named = dxf.curves, dxf.unit, dxf.notes, dxf.layers
            last = dxf.last
        case "svg":
            svg = of_svg(data, asked)
            curves, unit, notes, last = svg.curves, svg.unit, svg.notes, svg.last
        case _:
            known = ", ".join(f".{ending}" for ending in ENDINGS)
            raise ProfileError(f"{name}: a profile is one of {known}, the last of points")
    if not curves:
        raise ProfileError(f"{name}: there is no line, arc or circle in it")
    within = tolerance(asked, unit)
    runs = clean(curves, within, notes)
    runs, centre_lines = without_besides(runs, within, notes, keep_centre_lines)
    near = within if within > READ_WITHIN else min(OF_LAST * last or READ_CLOSELY[0], within)
    runs = [whole_arcs(run, near, is_closed(run, within)) for run in runs]
    runs = [_without_outliers(run, within, notes) for run in runs]
    arcs = [
        whole_arcs(_seen(run, within), near, True) if is_closed(run, within) else run
        for run in runs
    ]
    arcs = [_machined(run, within, unit, notes) for run in arcs]
    scattered = max(scatter(run, within) for run in arcs)
    if scattered:
        more = _round_up(3 * scattered)
        reason = (
            f"its points scatter by about {scattered:.2g}: let them be off by {more:g} or "
            f"so, not {within:.2g}"
        )
        raise ProfileError(reason, more, tuple(runs))
    ovals = sum(isinstance(run[0], Ellipse) for run in arcs) - sum(
        isinstance(run[0], Ellipse) for run in runs
    )
    rings = [(run, other) for run, other in zip(runs, arcs, strict=True) if is_closed(run, within)]
    hidden = sum(len(run) > len(other) for run, other in rings) - ovals
    if ovals:
        notes.append(
            f"{ovals} outline{'s' if ovals > 1 else ''} of many pieces follow an ellipse, and "
            "were taken for it"
        )
    if hidden:
        notes.append(
            f"arcs were seen in the straight pieces of {hidden} outline{'s' if hidden > 1 else ''}"
        )
    if any(crosses_itself(loop_of(run)) for run in arcs if is_closed(run, within)):
        notes.append("an outline crosses itself: look whether its points stand in their order")
    return Profile(tuple(arcs), unit, tuple(notes), named, within, last, centre_lines)


def _without_outliers(run: Run, within: float, notes: list[str]) -> Run:
    if not is_closed(run, within):
        return run
    kept, dropped = without_outliers(run, within)
    if dropped:
        notes.append(told_of(dropped))
    return kept


def _machined(run: Run, within: float, unit: Unit | None, notes: list[str]) -> Run:
    if not is_closed(run, within):
        result, said = as_helix(run, within, unit or Unit.MM)
        notes += [said] if said else []
        return result
    if as_given(run, Rows(unit or Unit.MM, max(within, READ_CLOSELY[-1]))):
        return run
    for recognised in (as_gear, as_cam):
        result, said = recognised(run, within, unit or Unit.MM)
        if said:
            notes.append(said)
            return result
    return run


def _seen(run: Run, within: float) -> Run:
    return without_slivers(with_arcs(as_ellipse(run, within), within), within)


def _round_up(value: float) -> float:
    """Return the next of 1, 2, 5, 10 … above a number."""
    decade = 10.0 ** math.floor(math.log10(value))
    return next(step * decade for step in (1, 2, 5, 10) if step * decade >= value)
