"""A cutter's program on its way out: written, cut on the stand-in, and held against the plan before
anybody is given it."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..core.cutting import Cut, Machine, tool_paths, write_program
from ..core.desk import Work
from ..core.geometry import Loop, Point
from ..core.plan.errors import ClauseError
from ..core.proof import why_not_cut
from .cutter import Cutter, Move, from_datum, run
from .judge import Judged, judged, parts_of
from .limits import broken, outline_moves


@dataclass(frozen=True, slots=True)
class Written:
    """A program, and how the part comes out that it cuts.

    Attributes
    ----------
    program : str
    verdict : Judged
        Minutes are those of all movements and waits.
    moves : sequence of Move
        About the plan's datum, mm.
    told : tuple of str
        What happened on the way.
    extents : (Point, Point)
        Lower left and upper right of where the middle of the tool comes, from the program's zero,
        plan units.
    """

    program: str
    verdict: Judged
    moves: Sequence[Move]
    told: tuple[str, ...]
    extents: tuple[Point, Point]


def written(work: Work, tool: float, machine: Machine, cutter: Cutter | None = None) -> Written:
    """Write the program of a plan.

    Parameters
    ----------
    work : Work
    tool : float
        Width of the cut, plan units.
    machine : Machine
        What is set on it. A dry run is judged as if the tool were on.
    cutter : Cutter, optional
        The stand-in it is cut on in the end, with a fault that is switched on.

    Raises
    ------
    ClauseError
        Where the plan is not to be cut as it is, the tool does not get in, it would cut into what
        belongs to a part, or the process does not bear what is set; what it leaves standing is told
        in the head of the program.
    """
    reason = why_not_cut(work.findings)
    if reason:
        raise ClauseError(reason)
    solution = work.solution
    cuts = tool_paths(work.named_outlines, tool)
    zero = _zero([loop for _, loop in work.named_outlines], machine)
    title, mm = f"{solution.drawing} {solution.title}".strip(), float(solution.unit.mm)

    def write(said: Machine, remarks: Sequence[str] = ()) -> str:
        return write_program(cuts, solution.unit, tool, said, zero, title, remarks)

    def cut(program: str, on: Cutter) -> tuple[Judged, list[Move]]:
        done = run(program, on)
        moves = from_datum(done.moves, (zero.x * mm, zero.y * mm))
        along = outline_moves(moves, machine.process)
        verdict = judged(along, work.outlines, mm, tool * mm)
        spoilt = tuple(broken(moves, machine, tool * mm, parts_of(work.outlines, mm)))
        minutes = sum(move.minutes for move in moves) + done.waited
        told = (*verdict.told, *spoilt)
        return replace(verdict, told=told, fits=not told, minutes=minutes), moves

    wet = replace(machine, dry=False)
    verdict, moves = cut(write(wet), Cutter(process=machine.process))
    if not verdict.fits:
        raise ClauseError(f"a tool of {tool:.4g} does not fit: {'; '.join(verdict.told)}")
    extents = _extents(moves, zero, mm)
    remarks = [*_head(cuts, verdict, extents), *verdict.remarks]
    program = write(machine, remarks)
    told: tuple[str, ...] = ()
    if cutter is not None and cutter.fault:
        cutter.process = machine.process
        verdict, moves = cut(write(wet, remarks), cutter)
        told = tuple(cutter.told)
    return Written(program, verdict, moves, told, extents)


def _zero(outlines: Sequence[Loop], machine: Machine) -> Point:
    """Return where the program has its zero, from the datum."""
    if machine.zero == "datum" or not outlines:
        return Point(0.0, 0.0)
    boxes = [loop.box for loop in outlines]
    low = Point(min(a.x for a, _ in boxes), min(a.y for a, _ in boxes))
    high = Point(max(b.x for _, b in boxes), max(b.y for _, b in boxes))
    return low if machine.zero == "corner" else (low + high) * 0.5


def _extents(moves: Sequence[Move], zero: Point, mm: float) -> tuple[Point, Point]:
    spots = [move.at(k / 8) for move in moves if not move.rapid for k in range(9)]
    xs, ys = zip(*spots, strict=True)
    return (
        Point(min(xs) / mm, min(ys) / mm) - zero,
        Point(max(xs) / mm, max(ys) / mm) - zero,
    )


def _count(count: int, what: str) -> str:
    return f"{count} {what}{'' if count == 1 else 's'}"


def _head(cuts: Sequence[Cut], verdict: Judged, extents: tuple[Point, Point]) -> list[str]:
    low, high = extents
    return [
        f"{_count(len(cuts), 'outline')}, {_count(verdict.parts, 'part')}, "
        f"about {verdict.minutes:.1f} minutes",
        f"tool runs from X{low.x:.3f} Y{low.y:.3f} to X{high.x:.3f} Y{high.y:.3f}",
    ]
