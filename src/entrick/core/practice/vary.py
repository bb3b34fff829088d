"""The same part with other sizes, those of its givens and those in its statements: round numbers
of its unit, by lot, that solve with the same choices."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import replace
from fractions import Fraction
from itertools import combinations
from random import Random
from typing import cast

from ..desk import Work, work_out
from ..dimensioning.sizes import Size, changed, counts, sizes
from ..kind import Made
from ..measure import Dimension, Unit, spell
from ..outside import read_number
from ..plan.document import Chain, Plan, Statement
from ..plan.errors import ClauseError
from ..plan.reader import read_plan
from ..plan.terms import Expression, Name, Num, Term, Text, rewrite
from ..plan.writer import write_plan
from ..rules.gear import PREFERRED
from ..rules.thread import USUAL
from ..sheet import Sheet
from ..sheet.layout import lay_out
from ..solve import Solution, solve
from .other_hand import hands

LEAST, MOST = 0.75, 1.35
"""By how much a given is made smaller or larger (by eye, no source)."""

APART = 0.1
"""By how much two sizes of one part may grow apart: their ratio stays within a quarter."""

RATIO = 1.25
"""By how much the ratio of two given sizes may change."""

TABLED = frozenset({"module", "diametral", "circular", "keyway", "thread", "pressure"})
"""Words of clauses whose sizes are taken from tables, and are not made up."""

COARSE_THREAD = re.compile(r"M(\d+(?:\.\d+)?)")
"""How a coarse metric thread is written."""

TRIES = 12
"""Times it is tried, every time with smaller changes, before the givens stay as they are."""

ROUND_MM = ((100, Fraction(5)), (20, Fraction(2)), (5, Fraction(1)), (0, Fraction(1, 2)))
ROUND_IN = ((4, Fraction(1, 4)), (1, Fraction(1, 8)), (0, Fraction(1, 16)))
"""What a size from so much on is rounded to, mm and inches."""


def variant(text: str, seed: int) -> Work | None:
    """Return a plan with other sizes.

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
    known = _wrong(own)
    # Which of two crossings is meant is another one of the other hand.
    own = work_out(random.choice(hands(text)))
    for turn in range(TRIES):
        try:
            new = write_plan(_varied(own.solution, random, 1 - turn / TRIES))
        except (ClauseError, ValueError):
            continue
        if new == write_plan(own.plan):
            continue
        # What is drawn is worked out only of the one that is taken.
        solution = solve(read_plan(new))
        if solution.errors or not _keeps_its_look(own.solution, solution):
            continue
        if not _is_alike(own.solution, solution, lay_out(solution)):
            continue
        done = work_out(new, own.kit)
        if _wrong(done) <= known:
            return done
    return None


def _keeps_its_look(own: Solution, new: Solution) -> bool:
    """Tell whether sizes keep their order, and the ratio of any two within a quarter."""
    before, after = _lengths(own), _lengths(new)
    if len(before) != len(after):
        return False
    pairs = {(a.value, b.value) for a, b in zip(before, after, strict=True)}
    return all(
        (a < b) == (c < d) and (a == b) == (c == d) and 1 / RATIO <= (a * d) / (b * c) <= RATIO
        for (a, c), (b, d) in combinations(sorted(pairs), 2)
        if min(a, b, c, d) > 0
    )


def _lengths(solution: Solution) -> list[Size]:
    """Return the sizes of a plan that are lengths; a plain number is one unless it says how
    many."""
    how_many = counts(solution)
    plain = (Dimension.LENGTH, Dimension.PLAIN)
    return [
        size
        for size in sizes(solution)
        if size.dimension in plain and size.name not in how_many and size.value > 0
    ]


def _wrong(work: Work) -> frozenset[tuple[str, int]]:
    """Return what is found wrong with a plan: by which rule, and where."""
    return frozenset(
        (finding.rule, finding.line) for finding in work.findings if finding.weight == "wrong"
    )


def _varied(own: Solution, random: Random, reach: float) -> Plan:
    """Return a plan with other sizes: all of them larger or smaller by nearly the same, so that a
    part keeps its look, and what was of one size stays of one."""
    common = random.uniform(1 - (1 - LEAST) * reach, 1 + (MOST - 1) * reach)
    tabled = _tabled(own)
    said: dict[float, str] = {}
    changes: dict[Num, Expression] = {}
    for size in _lengths(own):
        word = size.clause if size.clause in TABLED else tabled.get(size.name, "")
        if not word and size.value not in said:
            # Later tries change fewer of them, and less.
            times = common * random.uniform(1 - APART * reach, 1 + APART * reach)
            kept = random.random() > reach
            said[size.value] = size.number.text if kept else _said(size.value, own.unit, times)
        new = _by_table(size.value, word, common) if word else said[size.value]
        changes[size.number] = Num(new)

    def other(part: Expression) -> Expression | None:
        return changes.get(part) if isinstance(part, Num) else None

    lines = []
    for line in own.plan.lines:
        content = changed(line.content, other)
        match line.content:
            case Chain():
                content = _chain(line.content, own, said, other)
            case Statement():
                content = _with_thread(cast(Statement, content), random)
        lines.append(replace(line, content=content))
    # Written and read again, as a drafter would have it.
    return read_plan(write_plan(Plan(tuple(lines))))


def _chain(
    chain: Chain,
    own: Solution,
    said: Mapping[float, str],
    other: Callable[[Expression], Expression | None],
) -> Chain:
    """Return a chain with other links, as long as they make it; where one is open it is as much
    longer as its neighbours."""
    links = [
        None if link is None else cast(Expression, rewrite(link, other)) for link in chain.links
    ]
    if not isinstance(chain.overall, Num):
        return replace(chain, links=tuple(links))
    known = [link for link in links if isinstance(link, Num)]
    total = sum(read_number(link.text) for link in known)
    if None in links:
        missing = own.quantities[f"{chain.name}.{links.index(None) + 1}"]
        grown = sum(map(float, map(read_number, said.values()))) / (sum(said) or 1.0)
        total += read_number(_said(float(missing.value), own.unit, grown))
    return replace(chain, links=tuple(links), overall=Num(spell(Fraction(total), own.unit)))


def _with_thread(content: Statement, random: Random) -> Statement:
    """Return a statement with another coarse metric thread, about as large, where it has one."""

    def other(text: str) -> str:
        found = COARSE_THREAD.fullmatch(text)
        near = [s for s in USUAL if found and LEAST <= s / float(found[1]) <= MOST]
        return f"M{random.choice(near)}" if near else text

    def item(term: Term) -> Term:
        return Text(other(term.text)) if isinstance(term, Text) else term

    clauses = tuple(each._replace(items=tuple(map(item, each.items))) for each in content.clauses)
    # What stands in quotes at the end of a row is a note, or belongs to its last clause.
    return replace(content, clauses=clauses, note=other(content.note))


def _tabled(solution: Solution) -> dict[str, str]:
    """Return the givens that stand in clauses whose sizes come from tables, each with the word its
    clause begins with."""
    result: dict[str, str] = {}
    for entry in solution.entries:
        for clause in entry.statement.clauses:
            words = [item.text for item in clause.items if isinstance(item, Name)]
            if words and words[0] in TABLED:
                result |= dict.fromkeys(words[1:], words[0])
    return result


def _by_table(size: float, word: str, times: float) -> str:
    """Return the size of the table that is nearest to one so many times as large; the size itself
    where there is no table to vary it by."""
    if word != "module":
        return f"{size:.10g}"
    return f"{min(PREFERRED, key=lambda each: abs(each - size * times)):g}"


def _said(size: float, unit: Unit, times: float) -> str:
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
