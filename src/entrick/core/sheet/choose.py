"""Which papers, borders and scales a plan may take, and which scale fits: what the Sheet page offers."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from ..measure import Scale, Unit, spell
from ..solve import Solution
from .layout import BORDERS, INCH_PAPERS, PAPERS, Sheet, lay_out_at, read_scale

RATIOS = ("10:1", "5:1", "2:1", "1:1", "1:2", "1:5", "1:10", "1:20", "1:50", "1:100")
"""Recommended ratios, largest first (ISO 5455)."""


@dataclass(frozen=True, slots=True)
class Choice:
    """One thing to take for a part of the sheet: how it is called, how the sheet line says it, and why or why not."""

    name: str
    said: str
    reason: str = ""
    fits: bool = True
    chosen: bool = False


def papers(unit: Unit) -> Iterator[Choice]:
    """Return every paper both ways round, those of the plan's unit first."""
    metric = [(f"{name} {way}", f"{name} {way}") for name in PAPERS for way in ("landscape", "portrait")]
    inch = []
    for short, long in INCH_PAPERS.values():
        for width, height in ((long, short), (short, long)):
            told = f"{spell(width, Unit.INCH)} by {spell(height, Unit.INCH)}"
            mark = "" if unit is Unit.INCH else " in"
            said = f"{spell(width, Unit.INCH)}{mark} by {spell(height, Unit.INCH)}{mark}"
            inch.append((f"{told} in", said))
    for name, said in (*inch, *metric) if unit is Unit.INCH else (*metric, *inch):
        yield Choice(name, said)


def borders() -> Iterator[Choice]:
    """Return the schools of border."""
    for name, said in BORDERS:
        yield Choice(name, said)


def scales(solution: Solution, sheet: Sheet) -> tuple[Choice, ...]:
    """Return the recommended ratios, each with the arithmetic that says whether the view fits.

    Room for dimensions is counted in: it keeps its size on paper whatever the scale. The largest that fits is chosen.
    """
    found: list[Choice] = []
    for ratio in RATIOS:
        laid = lay_out_at(solution, replace(sheet, scale=read_scale(ratio)))
        low, high = laid.space
        needed, space = laid.room[1] - laid.room[0], high - low
        mm = float(sheet.unit.mm)
        fits = needed.x <= space.x and needed.y <= space.y

        def say(across: float, up: float, mm: float = mm) -> str:
            return f"{spell(across / mm, sheet.unit, 1)} by {spell(up / mm, sheet.unit, 1)}"

        reason = f"the view and its dimensions take {say(needed.x, needed.y)} of {say(space.x, space.y)}"
        found.append(Choice(ratio, f"scale {ratio}", reason, fits, sheet.scale.ratio == Scale(*_parts(ratio)).ratio))
    return tuple(found)


def recommended(choices: tuple[Choice, ...]) -> Choice | None:
    """Return the largest ratio that fits."""
    return next((choice for choice in choices if choice.fits), None)


def _parts(ratio: str) -> tuple[Fraction, Fraction]:
    drawn, actual = ratio.split(":")
    return Fraction(drawn), Fraction(actual)
