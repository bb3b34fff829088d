"""The same part with new givens: round numbers of its unit, by lot, that solve with the same
choices."""

from __future__ import annotations

from collections.abc import Iterator
from fractions import Fraction
from itertools import combinations
from random import Random

from ..desk import Work, work_out
from ..kind import Made
from ..measure import Dimension, Quantity, Unit, spell
from ..plan.document import Given
from ..plan.edit import set_given
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..plan.terms import Name, Num
from ..plan.writer import write_plan
from ..rules.gear import PREFERRED
from ..sheet import Sheet
from ..sheet.layout import lay_out
from ..solve import Solution, solve

LEAST, MOST = 0.75, 1.35
"""By how much a given is made smaller or larger (by eye, no source)."""

APART = 0.1
"""By how much two sizes of one part may grow apart: their ratio stays within a quarter."""

RATIO = 1.25
"""By how much the ratio of two given sizes may change."""

TABLED = frozenset({"module", "diametral", "circular", "keyway", "thread", "pressure"})
"""Words of clauses whose sizes are taken from tables, and are not made up."""

TRIES = 12
"""Times it is tried, every time with smaller changes, before the givens stay as they are."""

ROUND_MM = ((100, Fraction(5)), (20, Fraction(2)), (5, Fraction(1)), (0, Fraction(1, 2)))
ROUND_IN = ((4, Fraction(1, 4)), (1, Fraction(1, 8)), (0, Fraction(1, 16)))
"""What a size from so much on is rounded to, mm and inches."""


def variant(text: str, seed: int) -> Work | None:
    """Return a plan with other givens.

    Parameters
    ----------
    text : str
        A plan without mistakes.
    seed : int
        The same seed gives the same givens.

    Returns
    -------
    Work or None
        Without mistakes, on a sheet that holds it, every statement choosing as before; None where
        none was found.
    """
    own = work_out(text)
    if own.solution.errors or own.sheet.errors:
        return None
    random = Random(seed)
    for turn in range(TRIES):
        plan = read_plan(text)
        for line, said in _new_givens(own.solution, random, 1 - turn / TRIES):
            try:
                plan = set_given(plan, line, said)
            except (ClauseError, ValueError):
                break
        new = write_plan(plan)
        if new == text:
            continue
        # What is drawn is worked out only of the one that is taken.
        solution = solve(read_plan(new))
        if solution.errors or not _keeps_its_look(own.solution, solution):
            continue
        if not _is_alike(own.solution, solution, lay_out(solution)):
            continue
        done = work_out(new, own.kit)
        if _wrong(done) <= _wrong(own):
            return done
    return None


def _keeps_its_look(own: Solution, new: Solution) -> bool:
    """Tell whether given sizes keep their order, and the ratio of any two within a quarter."""
    pairs = [
        (float(before.quantity.value), float(after.quantity.value))
        for before, after in zip(own.givens, new.givens, strict=True)
        if before.quantity and after.quantity and before.quantity.dimension is Dimension.LENGTH
    ]
    return all(
        (a < b) == (c < d) and (a == b) == (c == d) and 1 / RATIO <= (a * d) / (b * c) <= RATIO
        for (a, c), (b, d) in combinations(pairs, 2)
        if min(a, b, c, d) > 0
    )


def _wrong(work: Work) -> frozenset[tuple[str, int]]:
    """Return what is found wrong with a plan: by which rule, and where."""
    return frozenset(
        (finding.rule, finding.line) for finding in work.findings if finding.weight == "wrong"
    )


def _new_givens(solution: Solution, random: Random, reach: float) -> Iterator[tuple[int, str]]:
    """Yield new values for the givens that are plain sizes, as they are written: all of them larger
    or smaller by nearly the same, so that a part keeps its look."""
    common = random.uniform(1 - (1 - LEAST) * reach, 1 + (MOST - 1) * reach)
    tabled = _tabled(solution)
    for entry in solution.givens:
        given = entry.given
        if (
            not isinstance(given, Given)
            or entry.quantity is None
            or not isinstance(given.value, Num)
        ):
            continue
        if (
            entry.quantity.dimension not in (Dimension.LENGTH, Dimension.PLAIN)
            or entry.quantity.value <= 0
        ):
            continue
        # Later tries change fewer of them, and less. A plain number may be a count: one that
        # changes what is there is refused with what it comes to.
        if random.random() > reach:
            continue
        times = common * random.uniform(1 - APART * reach, 1 + APART * reach)
        if given.name in tabled:
            said = _by_table(entry.quantity, tabled[given.name], times)
            if said is None:
                continue
        else:
            said = _said(entry.quantity, solution.unit, times)
        count = f"{given.count}× " if given.count else ""
        yield entry.line, f"{count}{entry.quantity.mark}{said}"


def _tabled(solution: Solution) -> dict[str, str]:
    """Return the givens that stand in clauses whose sizes come from tables, each with the word its
    clause begins with."""
    found: dict[str, str] = {}
    for entry in solution.entries:
        for clause in entry.statement.clauses:
            words = [item.text for item in clause.items if isinstance(item, Name)]
            if words and words[0] in TABLED:
                found |= dict.fromkeys(words[1:], words[0])
    return found


def _by_table(quantity: Quantity, word: str, times: float) -> str | None:
    """Return the size of the table that is nearest to one so many times as large; None where there
    is no table to vary it by."""
    if word != "module":
        return None
    wanted = float(quantity.value) * times
    return f"{min(PREFERRED, key=lambda size: abs(size - wanted)):g}"


def _said(quantity: Quantity, unit: Unit, times: float) -> str:
    size = float(quantity.value)
    steps = ROUND_MM if unit is Unit.MM else ROUND_IN
    grid = next(step for least, step in steps if size >= least)
    return spell(max(grid, round(size * times / float(grid)) * grid), unit)


def _is_alike(own: Solution, new: Solution, sheet: Sheet) -> bool:
    """Tell whether a variant is sound: on its sheet, as many solutions of every statement, the same
    of them chosen, and as many pieces in every outline."""
    if sheet.errors or not sheet.is_finished:
        return False
    (low, high), room = sheet.space, sheet.room
    if not (
        room[0].x >= low.x and room[0].y >= low.y and room[1].x <= high.x and room[1].y <= high.y
    ):
        return False
    for before, after in zip(own.entries, new.entries, strict=True):
        one, other = before.made, after.made
        if one is None or other is None or len(one.candidates) != len(other.candidates):
            return False
        if [c.letter for c in one.candidates if c.chosen] != [
            c.letter for c in other.candidates if c.chosen
        ]:
            return False
        if one.lined and _pieces(one) != _pieces(other):
            return False
    return True


def _pieces(made: Made) -> list[int]:
    return [len(getattr(shape, "pieces", ())) for shape in made.shapes]
