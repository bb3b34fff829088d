"""What an inspection says, and what it looks at."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import dataclass
from functools import cached_property
from typing import Literal, TypeVar

from ..board import BoardStep
from ..geometry import Loop, Point
from ..geometry.loop import boxed
from ..kind.claims import Claim
from ..sheet import Sheet
from ..solve import Solution
from ..tolerance import assembled

Weight = Literal["wrong", "look", "note", "good"]

C = TypeVar("C", bound=Claim)


@dataclass(frozen=True)
class Outline:
    """A closed outline of the part; `depth` counts the outlines around it: material at even depth, a hole at odd."""

    name: str
    line: int
    loop: Loop
    depth: int

    @property
    def is_hole(self) -> bool:
        """Whether there is no material inside it."""
        return self.depth % 2 == 1


@dataclass(frozen=True)
class Checked:
    """A solved plan on its sheet, with its steps: all a rule may look at."""

    solution: Solution
    sheet: Sheet
    steps: tuple[BoardStep, ...]

    @cached_property
    def runs(self) -> tuple[tuple[str, int, Loop], ...]:
        """Everything lined in, closed or not: name, line of the plan, pieces."""
        found = []
        for entry in self.solution.entries:
            loops = entry.made.loops if entry.made else ()
            for index, loop in enumerate(loops, 1):
                name = entry.statement.name
                found.append((f"{name}.{index}" if len(loops) > 1 else name, entry.line, loop))
        return tuple(found)

    @cached_property
    def outlines(self) -> tuple[Outline, ...]:
        """The closed outlines, largest first."""
        closed = sorted((r for r in self.runs if r[2].closed), key=lambda run: -abs(run[2].area))
        found = []
        for index, (name, line, loop) in enumerate(closed):
            spot = _inner_spot(loop)
            around = sum(boxed(other).encloses(spot) for _, _, other in closed[:index])
            found.append(Outline(name, line, loop, around))
        return tuple(found)

    @cached_property
    def size(self) -> float:
        """Length typical of the part, plan units."""
        boxes = [boxed(loop).box for _, _, loop in self.runs]
        return max((abs(box.high - box.low) for box in boxes), default=1.0)

    @cached_property
    def close(self) -> float:
        """Distance below which two places of the part are the same, rounding of several steps allowed for."""
        return assembled(self.size)

    def claims(self, wanted: type[C]) -> list[tuple[int, C]]:
        """Return what was said of the finished part, each with its line."""
        return [
            (entry.line, claim)
            for entry in self.solution.entries
            for claim in (entry.made.claims if entry.made else ())
            if isinstance(claim, wanted)
        ]


def _inner_spot(loop: Loop) -> Point:
    """Return a place of an outline by which to tell what lies around it."""
    piece = max(loop.pieces, key=lambda p: p.length)
    curve = piece.curve
    return curve.middle if hasattr(curve, "middle") else (piece.entry + piece.exit) * 0.5


@dataclass(frozen=True, slots=True)
class Mend:
    """An edit that mends what was found.

    Attributes
    ----------
    op : str
        "line" puts `text` on the line, "insert" puts it below.
    line : int
    text : str
    told : str
        What the button says.
    """

    op: Literal["line", "insert"]
    line: int
    text: str
    told: str


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
    """

    weight: Weight
    rule: str
    message: str
    line: int = 0
    place: Point | None = None
    mend: Mend | None = None


Rule = Callable[[Checked], Iterable[Finding]]
