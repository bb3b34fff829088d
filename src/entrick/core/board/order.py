"""The acts of a whole plan, statement by statement: what each finds on the sheet is what those before it have left."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from ..acts import Paper, Work
from ..acts.act import Act, Fix, Mark, Thing
from ..acts.shapes import as_run, draw, go_over
from ..acts.work import Lookup
from ..drawing.strokes import Role, Stroke
from ..geometry import Point
from ..kept import Kept
from ..kind import Made
from ..plan.errors import ClauseError
from ..sheet import Sheet
from ..solve import Entry, Solution

MOST_KEPT = 20_000
"""Acts of earlier plans that are kept, since most of a plan is as it was before an edit: some 30 MB."""

HANDY = 20.0
"""Compass opening where a construction leaves it free, mm on paper."""


@dataclass(frozen=True, slots=True, eq=False)
class Ordered:
    """The acts of one statement. The same as before where it found the same on the sheet.

    `left` is what they leave; `sought` what was looked for, and found; `offers` how places would be marked that nobody
    has wanted yet.
    """

    entry: Entry
    acts: tuple[Act, ...]
    left: tuple[Thing, ...]
    sought: tuple[Lookup, ...]
    offers: tuple[tuple[Point, Callable[[Work], Mark]], ...] = ()


_ORDERED: Kept[Ordered] = Kept(MOST_KEPT)


_LAST: dict[tuple[float, float], tuple[Ordered, ...]] = {}
"""The plan that was put in order last: as far as the next one begins alike, nothing has to be looked for again."""


def in_order(solution: Solution, sheet: Sheet) -> tuple[Ordered, ...]:
    """Return the acts of every statement of a solved plan, as written."""
    paper = Paper(max(sheet.width, sheet.height) / sheet.factor, HANDY / sheet.factor)
    last = iter(_LAST.get((sheet.factor, paper.size), ()))
    found: list[Ordered] = []
    alike, standing = True, 0
    for entry in solution.entries:
        if entry.made is None:
            continue
        if alike:
            known = next(last, None)
            if known is not None and known.entry is entry:
                found.append(known)
                continue
            alike = False
        for own in found[standing:]:
            _put(own, paper)
        standing = len(found)
        found.append(_ordered(entry, entry.made, paper, sheet))
        standing += 1
    _LAST.clear()
    _LAST[sheet.factor, paper.size] = tuple(found)
    return tuple(found)


def _ordered(entry: Entry, made: Made, paper: Paper, sheet: Sheet) -> Ordered:
    key = (id(entry), sheet.factor, paper.size)
    known = _ORDERED.recall(key)
    if known is None or not _holds(known, paper):
        known = _put_down(entry, made, paper)
        _ORDERED.keep(key, known, entry, 5 + len(known.acts))
    else:
        _put(known, paper)
    return known


def _put(own: Ordered, paper: Paper) -> None:
    paper.put(own.left)
    for at, how in own.offers:
        paper.offer(at, how)  # type: ignore[arg-type]


def _holds(known: Ordered, paper: Paper) -> bool:
    """Tell whether a statement would find on the sheet what it found before."""
    for where, what, answer in known.sought:
        found = where(paper, what)
        if found is not answer and found != answer:
            return False
    return True


def _put_down(entry: Entry, made: Made, paper: Paper) -> Ordered:
    work = Work(paper, entry.statement.name or f"line {entry.line}")
    if made.placing is not None:
        spot = made.shapes[0]
        assert isinstance(spot, Point)
        name = entry.statement.name
        work.acts.append(Fix(leaves=name, called=name, strokes=(Stroke(spot, Role.POINT, name),), planned=spot))
        work.leave(Mark(name, spot, name))
    if made.draw is None:
        _as_it_is(entry, made, work)
    else:
        try:
            made.draw(work)
        except (ClauseError, ZeroDivisionError):
            # Two places that a construction stands on are one at the size of a pencil point: it is put down as it was
            # worked out, which its marks say of themselves.
            _as_it_is(entry, made, work)
    return Ordered(entry, tuple(work.acts), tuple(work.left), tuple(work.lookups), tuple(work.offers))


def _as_it_is(entry: Entry, made: Made, work: Work) -> None:
    """Draw what a statement makes from what stands there, and go over it where it is lined in."""
    for shape in made.shapes:
        if made.lined is None:
            draw(work, shape, entry.statement.name)
    for shape in made.gone_over:
        go_over(work, as_run(shape), made.lined or Role.OUTLINE)
