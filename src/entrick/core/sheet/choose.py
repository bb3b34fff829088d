"""Which papers, borders and scales a plan may take, and which scale fits: what the Sheet page
offers."""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from fractions import Fraction

from ..measure import Scale, Unit, spell
from ..plan.document import SheetLine
from ..plan.forms import match_clause
from ..plan.reader import read_line
from ..solve import Solution
from .layout import BORDERS, FORMS, INCH_PAPERS, PAPERS, Sheet, lay_out_at, read_scale

RATIOS = ("10:1", "5:1", "2:1", "1:1", "1:2", "1:5", "1:10", "1:20", "1:50", "1:100")
"""Recommended ratios, largest first (ISO 5455)."""


@dataclass(frozen=True, slots=True)
class Choice:
    """One thing to take for a part of the sheet: how it is called, how the sheet line says it, and
    why or why not."""

    name: str
    said: str
    reason: str = ""
    fits: bool = True
    chosen: bool = False


def papers(unit: Unit) -> Iterator[Choice]:
    """Return every paper both ways round, those of the plan's unit first."""
    metric = [
        (f"{name} {way}", f"{name} {way}") for name in PAPERS for way in ("landscape", "portrait")
    ]
    inch = []
    for short, long in INCH_PAPERS.values():
        for width, height in ((long, short), (short, long)):
            words = f"{spell(width, Unit.INCH)} by {spell(height, Unit.INCH)}"
            mark = "" if unit is Unit.INCH else " in"
            said = f"{spell(width, Unit.INCH)}{mark} by {spell(height, Unit.INCH)}{mark}"
            inch.append((f"{words} in", said))
    for name, said in (*inch, *metric) if unit is Unit.INCH else (*metric, *inch):
        yield Choice(name, said)


def borders() -> Iterator[Choice]:
    """Return the schools of border."""
    for name, said in BORDERS:
        yield Choice(name, said)


def letterings() -> Iterator[Choice]:
    """Return the schools of lettering dimensions."""
    yield Choice("along the dimension line", "dimensions aligned")
    yield Choice("always level", "dimensions unidirectional")


PLACES = {"size": "paper", "filing": "border"}
"""Clauses of the sheet line that say in another way what these say."""


def taken(said: SheetLine | None, choices: Iterable[Choice], usual: str = "") -> tuple[Choice, ...]:
    """Return choices, the one the sheet line says marked as chosen, or the usual one where it says
    none."""
    clauses = {str(clause) for clause in said.clauses} if said else set()
    result = tuple(replace(choice, chosen=choice.said in clauses) for choice in choices)
    if any(choice.chosen for choice in result):
        return result
    return tuple(replace(choice, chosen=choice.said == usual) for choice in result)


def with_clause(said: SheetLine | None, text: str) -> str:
    """Return what the sheet line says with one clause said instead of the one in its place; paper
    comes first.

    Examples
    --------
    >>> from ..plan.reader import read_line
    >>> said = read_line("sheet scale 1:2, A4 landscape, border 10").content
    >>> with_clause(said, "A3 portrait")
    'A3 portrait, scale 1:2, border 10'
    """
    added = read_line(f"sheet {text}").content
    before = said.clauses if said else ()
    if not isinstance(added, SheetLine):
        return ", ".join(
            [*map(str, before), text]
        )  # told as a mistake at its place, like anything typed there
    clauses = [*before, *added.clauses]
    kept: dict[str, str] = {}
    for clause in clauses:
        match = match_clause(clause, FORMS)
        key = PLACES.get(match.form.key, match.form.key) if match else str(clause)
        kept[key] = str(clause)
    paper = kept.pop("paper", "")
    return ", ".join(([paper] if paper else []) + list(kept.values()))


def scales(solution: Solution, sheet: Sheet) -> tuple[Choice, ...]:
    """Return the recommended ratios, each with the arithmetic that says whether the view fits.

    Room for dimensions is counted in: it keeps its size on paper whatever the scale. The largest
    that fits is chosen."""
    choices: list[Choice] = []
    for ratio in RATIOS:
        laid = lay_out_at(solution, replace(sheet, scale=read_scale(ratio)))
        low, high = laid.space
        needed, space = laid.room[1] - laid.room[0], high - low
        mm = float(sheet.unit.mm)
        fits = needed.x <= space.x and needed.y <= space.y

        def say(across: float, up: float, mm: float = mm) -> str:
            return f"{spell(across / mm, sheet.unit, 1)} by {spell(up / mm, sheet.unit, 1)}"

        reason = (
            f"the view and its dimensions take {say(needed.x, needed.y)} of {say(space.x, space.y)}"
        )
        choices.append(
            Choice(
                ratio,
                f"scale {ratio}",
                reason,
                fits,
                sheet.scale.ratio == Scale(*_parts(ratio)).ratio,
            )
        )
    return tuple(choices)


def recommended(choices: tuple[Choice, ...]) -> Choice | None:
    """Return the largest ratio that fits."""
    return next((choice for choice in choices if choice.fits), None)


def _parts(ratio: str) -> tuple[Fraction, Fraction]:
    drawn, actual = ratio.split(":")
    return Fraction(drawn), Fraction(actual)
