"""What an inspection says, and what it looks at."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterable, Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from itertools import islice
from typing import Literal, TypeVar

from ..board.steps import BoardStep
from ..display import Drawing
from ..drawing.strokes import Role
from ..geometry import Arc, Circle, Loop, Point
from ..geometry.loop import boxed
from ..kind.claims import Claim
from ..kind.figure import Family
from ..memo import remembered
from ..moves import kinds
from ..plan.terms import Name
from ..sheet import Sheet
from ..solve import Entry, Solution
from ..solve.remembered import owners
from ..tolerance import NEARLY_AGAIN, assembled

Weight = Literal["wrong", "look", "note", "good"]

C = TypeVar("C", bound=Claim)

SHOWN_APART = frozenset({"diagram", "development", "velocity", "acceleration"})
"""Parts of a statement that are shown beside what it makes, and belong to no outline."""


@dataclass(frozen=True)
class Outline:
    """A closed outline of the part; `depth` counts the outlines around it: material at even depth,
    a hole at odd."""

    name: str
    line: int
    loop: Loop
    depth: int

    @property
    def is_hole(self) -> bool:
        """Whether there is no material inside it."""
        return self.depth % 2 == 1


def outlines_of(entry: Entry) -> list[tuple[str, Loop]]:
    """Return the outlines a statement lines in, by name."""
    made, name = entry.made, entry.statement.name
    if made is None or made.lined is not Role.OUTLINE:
        return []
    if not isinstance(made.shape, Family):
        return [(name, made.shape)] if isinstance(made.shape, Loop) else []
    members = [member for i, member in enumerate(made.shape.labelled) if i not in made.standing]
    return [(f"{name}.{label}", shape) for label, shape in members if isinstance(shape, Loop)]


@dataclass(frozen=True)
class Checked:
    """A solved plan on its sheet, with its steps and what is drawn: all a rule may look at."""

    solution: Solution
    sheet: Sheet
    steps: tuple[BoardStep, ...]
    drawing: Drawing

    @cached_property
    def runs(self) -> tuple[tuple[str, int, Loop], ...]:
        """Everything lined in, closed or not: name, line of the plan, pieces."""
        result = []
        for entry in self.solution.entries:
            result += [(name, entry.line, loop) for name, loop in outlines_of(entry)]
        return tuple(result)

    @cached_property
    def standing_on(self) -> Mapping[str, frozenset[str]]:
        """Every statement by name, with all the givens and things it stands on, near and far."""
        result: dict[str, frozenset[str]] = {}
        for entry in self.solution.entries:
            used = frozenset(owners(entry.statement))
            result[entry.statement.name] = used.union(
                *(result.get(name, frozenset()) for name in used)
            )
        return result

    @cached_property
    def pictorial(self) -> frozenset[str]:
        """Statements that are, or stand on, isometric work: a picture of a part, whose lines bound
        no plate."""
        kind_of = {
            entry.statement.name: kinds().get(entry.statement.kind)
            for entry in self.solution.entries
        }
        drawn = {
            name for name, kind in kind_of.items() if kind is not None and kind.group == "Isometric"
        }
        return frozenset(
            name for name, used in self.standing_on.items() if name in drawn or used & drawn
        )

    @cached_property
    def diagrams(self) -> frozenset[str]:
        """Statements that line in a diagram or a development: curves on paper that bound no
        part."""
        return frozenset(
            entry.statement.name
            for entry in self.lining_in
            if any(
                isinstance(item, Name) and SHOWN_APART & set(item.text.split(".")[1:])
                for clause in entry.statement.clauses
                for item in clause.items
            )
        )

    @cached_property
    def part(self) -> tuple[tuple[str, int, Loop], ...]:
        """What is lined in of the part, pictures of it as well: everything but diagrams."""
        return tuple(run for run in self.runs if run[0].partition(".")[0] not in self.diagrams)

    @cached_property
    def flat(self) -> tuple[tuple[str, int, Loop], ...]:
        """What is lined in of the part itself, seen square on: everything but pictures."""
        return tuple(run for run in self.part if run[0].partition(".")[0] not in self.pictorial)

    @cached_property
    def lining_in(self) -> tuple[Entry, ...]:
        """The statements that line something in, those that could not as well."""
        known = kinds()
        lines_in = {name for name, kind in known.items() if kind.lines_in is not None}
        return tuple(entry for entry in self.solution.entries if entry.statement.kind in lines_in)

    @cached_property
    def failed_outlines(self) -> tuple[str, ...]:
        """Names of outlines that could not be lined in: what is said of the whole part does not
        hold without them."""
        return tuple(entry.statement.name for entry in self.lining_in if entry.error)

    @cached_property
    def outlines(self) -> tuple[Outline, ...]:
        """The closed outlines of the part, largest first; none of a picture."""
        closed = sorted((r for r in self.flat if r[2].closed), key=lambda run: -abs(run[2].area))
        outlines: list[Outline] = []
        for name, line, loop in closed:
            if any(self.is_again(loop, other.loop) for other in outlines):
                continue  # the same edge of the material, lined in twice
            outlines.append(
                Outline(name, line, loop, sum(_lies_in(loop, other.loop) for other in outlines))
            )
        return tuple(outlines)

    def is_again(self, loop: Loop, other: Loop) -> bool:
        """Tell whether an outline is another one again: as long, as large, and in its place."""
        return self._is_within(loop, other, self.close)

    def is_nearly_again(self, loop: Loop, other: Loop) -> bool:
        """Tell whether an outline is another one again, by very little off its place."""
        return self._is_within(loop, other, loop.length / math.tau * NEARLY_AGAIN)

    @staticmethod
    def _is_within(loop: Loop, other: Loop, close: float) -> bool:
        if (
            abs(loop.length - other.length) > close
            or abs(abs(loop.area) - abs(other.area)) > close * loop.length
        ):
            return False
        own, its = boxed(loop), boxed(other)
        same_place = abs(own.box.low - its.box.low) + abs(own.box.high - its.box.high) <= 4 * close
        if not same_place:
            return False
        # An arc may bulge to the other hand between the same ends: its middle tells.
        spots = [
            spot
            for p in loop.pieces
            for spot in (p.entry, p.curve.middle if isinstance(p.curve, Arc) else p.exit)
        ]
        return all(abs(its.nearest(spot) - spot) <= close for spot in spots)

    @cached_property
    def size(self) -> float:
        """Length typical of the part, plan units."""
        boxes = [boxed(loop).box for _, _, loop in self.runs]
        return max((abs(box.high - box.low) for box in boxes), default=1.0)

    @cached_property
    def close(self) -> float:
        """Distance below which two places of the part are the same, rounding of several steps
        allowed for."""
        return assembled(self.size)

    def claims(self, wanted: type[C]) -> list[tuple[int, C]]:
        """Return what was said of the finished part, each with its line."""
        return [
            (entry.line, claim)
            for entry in self.solution.entries
            for claim in (entry.made.claims if entry.made else ())
            if isinstance(claim, wanted)
        ]


ASKED = 9
"""Places of an outline by which it is told what it lies in; an odd number, so that one answer has
the more."""


@remembered()
def _lies_in(inner: Loop, outer: Loop) -> bool:
    """Tell whether most of one outline lies inside another: a hole may touch its edge, or break out
    over it."""
    spots = list(_sampled(inner))
    inside = sum(boxed(outer).encloses(spot) for spot in spots)
    return 2 * inside > len(spots)


def _sampled(loop: Loop) -> Iterator[Point]:
    """Return places along the longest pieces of an outline, none of them at an end."""
    longest = sorted(loop.pieces, key=lambda piece: -piece.length)[:ASKED]
    each = -(-ASKED // len(longest))
    for piece, share in islice(
        ((p, (k + 0.5) / each) for k in range(each) for p in longest), ASKED
    ):
        match piece.curve:
            case Arc() as arc:
                yield arc.at(arc.start + arc.sweep * share)
            case Circle() as circle:
                yield circle.at(math.tau * share)
            case _:
                yield piece.entry + (piece.exit - piece.entry) * share


@dataclass(frozen=True, slots=True)
class Mend:
    """An edit that mends what was found.

    Attributes
    ----------
    op : str
        "line" puts `text` on the line, "insert" puts it below, "move" moves the line.
    line : int
    text : str
    told : str
        What the button says.
    to : int
        Which line a moved one becomes.
    """

    op: Literal["line", "insert", "move"]
    line: int
    text: str
    told: str
    to: int = 0


@dataclass(frozen=True, slots=True)
class Finding:
    """One thing an inspection found.

    Attributes
    ----------
    weight : str
        "wrong", "look" (look again), "note" or "good".
    rule : str
        The rule that found it.
    message : str
        What was found and what to do.
    line : int
        Line of the plan, 0 for the sheet.
    place : Point or None
        On paper, mm.
    mend : Mend or None
    page : str
        Of the handbook, where the rule stands: the name of its file.
    """

    weight: Weight
    rule: str
    message: str
    line: int = 0
    place: Point | None = None
    mend: Mend | None = None
    page: str = ""


Rule = Callable[[Checked], Iterable[Finding]]
