"""The acts of a whole plan, statement by statement: what each finds on the sheet is what those
before it have left."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import cast

from ..acts import Paper, Work
from ..acts.act import Act, Fix, Key, Mark, Thing
from ..acts.paper import HANDY, Place, looked_in
from ..acts.shapes import as_run, draw, go_over
from ..acts.work import Lookup
from ..drawing.strokes import Role, Stroke
from ..geometry import Point
from ..kind import Made
from ..memo import MEMO, Distinct, Memo
from ..plan.errors import ClauseError
from ..sheet import Sheet
from ..solve import Entry, Solution
from .schedule import stands_on


@dataclass(frozen=True, eq=False)
class Ordered(Distinct):
    """The acts of one statement. The same as before where it found the same on the sheet.

    Attributes
    ----------
    entry : Entry
    acts : tuple of Act
    left : tuple of Thing
        What they leave.
    sought : tuple of Lookup
        What was looked for, and found.
    placed : tuple
        What they leave, and how places would be marked that nobody has wanted yet, each with its
        place.
    size : float
        Of the sheet, plan units.
    """

    entry: Entry
    acts: tuple[Act, ...]
    left: tuple[Thing, ...]
    sought: tuple[Lookup, ...] = ()
    placed: tuple[tuple[Place, object], ...] = ()
    size: float = 0.0

    @cached_property
    def places(self) -> frozenset[Place]:
        """Where it has left something."""
        return frozenset(place for place, _ in self.placed)

    @cached_property
    def stands(self) -> tuple[tuple[Key, ...], ...]:
        """What each of its acts stands on, each thing once."""
        return tuple(tuple(dict.fromkeys(stands_on(act))) for act in self.acts)

    @cached_property
    def marked(self) -> Mapping[Key, Point]:
        """Where the marks lie that it has left."""
        return {thing.key: thing.at for thing in self.left if isinstance(thing, Mark)}

    @cached_property
    def looked_in(self) -> frozenset[Place] | None:
        """Where it looked; None where something was looked for everywhere."""
        places = set[Place]()
        for where, what, _ in self.sought:
            cells = looked_in(where, what, self.size)
            if cells is None:
                return None
            places.update(cells)
        return frozenset(places)


KNOWN = cast(Memo[Ordered], MEMO)
LAST = cast(Memo[tuple[Ordered, ...]], MEMO)
"""The plan that was put in order last, on each size of sheet."""


def acts_of(solution: Solution, sheet: Sheet) -> tuple[Ordered, ...]:
    """Return the acts of every statement of a solved plan, as written.

    What looked only in places where nothing has changed since the last plan was put in order found
    the same again; the rest looks again, and is put down anew where it finds something else.
    """
    paper = Paper(max(sheet.width, sheet.height) / sheet.factor, HANDY / sheet.factor)
    entries = [entry for entry in solution.entries if entry.made is not None]
    key = (acts_of, sheet.factor, paper.size)
    last = {own.entry.serial: own for own in LAST.get(key) or ()}
    gone = last.keys() - {entry.serial for entry in entries}
    changed = set[Place]().union(*(last[serial].places for serial in gone))
    found: list[Ordered] = []
    put_in = 0
    for entry in entries:
        known = last.get(entry.serial)
        if known is None or known.looked_in is None or not changed.isdisjoint(known.looked_in):
            for own in found[put_in:]:
                paper.put_in(own.placed)
            put_in = len(found) + 1
            own = _ordered(entry, paper, sheet)
            if own is not known:
                changed |= own.places if known is None else own.places | known.places
            known = own
        found.append(known)
    return LAST.put(key, tuple(found))


def _ordered(entry: Entry, paper: Paper, sheet: Sheet) -> Ordered:
    key = (_ordered, entry.serial, sheet.factor, paper.size)
    known = KNOWN.get(key)
    if known is None or not _holds(known, paper):
        assert entry.made is not None
        known = _put_down(entry, entry.made, paper)
        KNOWN.put(key, known, 5 + len(known.acts))
    else:
        paper.put_in(known.placed)
    return known


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
        work.acts.append(
            Fix(leaves=name, called=name, strokes=(Stroke(spot, Role.POINT, name),), planned=spot)
        )
        work.leave(Mark(name, spot, name))
    if made.draw is None:
        _as_it_is(entry, made, work)
    else:
        try:
            made.draw(work)
        except (ClauseError, ZeroDivisionError):
            # Two places that a construction stands on are one at the size of a pencil point: it is
            # put down as it was worked out, which its marks say of themselves.
            _as_it_is(entry, made, work)
    return Ordered(
        entry,
        tuple(work.acts),
        tuple(work.left),
        tuple(work.lookups),
        tuple(work.placed),
        paper.size,
    )


def _as_it_is(entry: Entry, made: Made, work: Work) -> None:
    """Draw what a statement makes from what stands there, and go over it where it is lined in."""
    for shape in made.shapes:
        if made.lined is None:
            draw(work, shape, entry.statement.name)
    for shape in made.gone_over:
        go_over(work, as_run(shape), made.lined or Role.OUTLINE)
