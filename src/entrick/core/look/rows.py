"""The pieces of a plan as they are on the sheet, one row each."""

from __future__ import annotations

import math
from collections.abc import Iterable, Iterator, Mapping, Sequence
from dataclasses import replace
from fractions import Fraction

import numpy as np

from ..acts.act import GoOver
from ..desk import Work
from ..geometry import Arc, Circle, Line, Loop
from ..measure import Unit, spell
from ..rehearsal.many import Places
from ..tolerance import SPECK
from .finding import Judged, Row, Sized, Spots
from .fit import FittedCircle, FittedLine
from .lined import LinedPiece
from .measure import FOUND, Measured
from .traces import SOUND
from .which import Hypotheses

ALIGNED = 0.05
"""What the border itself may be off where a place is measured from it, mm, one standard
deviation."""

MOST_SPOTS = 120

FINEST = 64
"""Parts of an inch of the finest graduation."""

SCATTERED = 0.6
"""How far places may lie about a stroke that is one, mm (median)."""

UNEXPLAINED = 1.5
"""How far from where a slip would have put it a piece may be for the slip to explain it, mm."""


def rows_of(
    work: Work, pieces: Sequence[LinedPiece], found: Sequence[Measured], tolerance: float
) -> Iterator[Row]:
    lines = {piece.name: line for _, line, loop in work.checked.runs for piece in loop.pieces}
    at = {each.piece: each for each in found}
    for piece in pieces:
        each = at.get(piece)
        line = lines.get(piece.called, 0)
        if each is None or each.seen < FOUND or not len(each.places):
            seen = 0.0 if each is None else each.seen
            planned = _spots(piece.places[:, SOUND] / work.sheet.factor)
            yield Row(piece.called, line, "missing", "is not there", seen, planned)
        else:
            yield _row(work, each, line, tolerance)


def with_steps(
    rows: Iterable[Row], pieces: Sequence[LinedPiece], every: Hypotheses
) -> Iterator[Row]:
    """Yield rows with the step that lines each piece in."""
    done_by = lining(every)
    for row, piece in zip(rows, pieces, strict=True):
        step = every.order.steps[done_by[piece.planned]] if piece.planned in done_by else None
        yield replace(row, step=step.number, tool=step.tool) if step else row


def lining(every: Hypotheses) -> Mapping[Line | Circle | Arc | Loop, GoOver]:
    """Return the act that lines in each piece."""
    acts = [act for act in every.order.steps if isinstance(act, GoOver)]
    return {gone.planned: act for act in acts for gone in act.pieces}


def _row(work: Work, each: Measured, line: int, tolerance: float) -> Row:
    piece, fitted = each.piece, each.fitted
    factor, unit = work.sheet.factor, work.solution.unit
    size, told = None, ""
    if isinstance(fitted, FittedCircle) and piece.centre is not None and piece.radius is not None:
        given, whole = float(piece.radius[0]), isinstance(piece.planned, Circle)
        times, sign = (2, "Ø") if whole else (1, "R")
        off = fitted.radius - given
        spread = 2 * math.hypot(fitted.radius_off, ALIGNED / 2)
        place = abs(fitted.centre - complex(piece.centre[0]))
        place_u = 2 * math.hypot(fitted.centre_off, ALIGNED)
        what = f"{sign} {_given(times * given / factor, unit)}"
        drawn = times * fitted.radius / factor
        size = Sized(what, times * given / factor, drawn, times * spread / factor, off)
        judged = _judged((off, spread), (place, place_u), tolerance=tolerance)
        if judged == "off" and abs(off) > tolerance:
            told = (
                f"{_spelt(abs(times * off) / factor, unit)} too {'large' if off > 0 else 'small'}"
            )
        elif judged == "off":
            told = f"its centre is {place:.1f} mm off"
    elif isinstance(fitted, FittedLine):
        ends = piece.places[[0, -1], 0]
        offs = (np.conj(fitted.ahead) * (ends - fitted.at)).imag
        place = float(np.max(np.abs(offs)))
        long = abs(complex(ends[1] - ends[0]))
        place_u = 2 * math.hypot(fitted.at_off, fitted.turn_off * long / 2, ALIGNED)
        judged = _judged((place, place_u), tolerance=tolerance)
        if judged == "off":
            lean = math.degrees(math.asin(min(1.0, abs(float(offs[1] - offs[0])) / max(long, 1.0))))
            leaning = abs(float(offs[1] - offs[0])) > tolerance
            told = f"{place:.1f} mm off" + (f", {lean:.1f}° askew" if leaning else "")
    else:
        place = float(np.percentile(np.abs(each.off), 95))
        place_u = 2 * math.hypot(each.unsure, ALIGNED)
        judged = _judged((place, place_u), tolerance=tolerance)
        told = f"up to {place:.1f} mm off" if judged == "off" else ""
    return Row(
        piece.called,
        line,
        judged,
        told,
        each.seen,
        _spots(piece.places[:, SOUND] / factor),
        _spots(each.places / factor),
        size,
        place,
        place_u,
        each.dark,
        each.width,
        judged == "off" and each.hand != SOUND and not is_elsewhere(each),
    )


def _spots(path: Places) -> Spots:
    """Return a path as it is shown, of so many places at most."""
    every = path[:: max(1, len(path) // MOST_SPOTS)]
    return tuple((round(spot.real, 4), round(spot.imag, 4)) for spot in map(complex, every))


def _judged(*offs: tuple[float, float], tolerance: float) -> Judged:
    """Judge what is off, each with what the measuring may be off."""
    if any(abs(off) - spread > tolerance for off, spread in offs):
        return "off"
    if any(abs(off) > tolerance for off, _ in offs):
        return "unsure"
    return "within"


def _given(size: float, unit: Unit) -> str:
    """Write a size as it was given: inches as fractions where they are."""
    parts = Fraction(round(size * FINEST), FINEST)
    is_fraction = unit is Unit.INCH and abs(float(parts) - size) < SPECK
    return spell(parts, unit) if is_fraction else _spelt(size, unit)


def _spelt(size: float, unit: Unit) -> str:
    return spell(round(size, 2 if unit is Unit.MM else 3), unit)


def is_elsewhere(each: Measured) -> bool:
    """Tell whether a piece is not where a slip and a hand's errors would have put it either."""
    if each.seen < FOUND or not len(each.places):
        return True
    away = np.abs(each.aside)
    middle = float(np.median(away))
    return middle > UNEXPLAINED or float(np.median(np.abs(away - middle))) > SCATTERED
